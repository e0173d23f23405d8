# Two commands do everything: `make demo` and `make test`. Each sets up what is missing, once.

PYTHON ?= python3
PORT ?= 8420
UV := uv==0.13.*
BIN := .venv/bin
PAGES := pinakotheke/server/static/index.html
WEB_SOURCES := $(shell find web/src web/public -type f) $(addprefix web/,index.html package.json vite.config.ts tsconfig.json postcss.config.cjs)

.PHONY: demo test test-postgres setup lint format screenshots bench web contracts lock clean

demo: setup ## run it with demo data
	@$(BIN)/python manage.py demo --port $(PORT)

test: setup ## all tests, the browser's too
	$(BIN)/python manage.py test tests --noinput --parallel 2

test-postgres: setup /usr/lib/postgresql ## the server's tests on Debian's PostgreSQL
	tests/postgres.sh

setup: ## whatever is missing, side by side: packages, Chromium, the compiled kernel, the web pages
	@$(MAKE) --silent --no-print-directory --jobs=4 .venv/.primed $(PAGES) /usr/bin/chromium

lint: .venv/.ready web/node_modules/.ready ## style, types, import contracts, committed contracts
	$(BIN)/ruff check .
	$(BIN)/ruff format --check .
	$(BIN)/mypy
	$(BIN)/lint-imports
	$(BIN)/python manage.py export_contracts --check
	cd web && npm run --silent types -- --check
	cd web && npm run --silent lint

format: .venv/.ready web/node_modules/.ready ## mend what can be mended by itself
	$(BIN)/ruff check --fix .
	$(BIN)/ruff format .
	cd web && npm exec --no -- prettier --write src

screenshots: setup ## docs/screenshots from the demo data
	$(BIN)/python -m tests.browser.screenshots

bench: .venv/.primed ## speeds, gaps and bounds
	$(BIN)/python -m bench

web: $(PAGES) ## build the web application

contracts: .venv/.ready web/node_modules/.ready ## OpenAPI document, its TypeScript types, the house file's schema
	$(BIN)/python manage.py export_contracts
	cd web && npm run --silent types

lock: .venv/.ready ## write requirements.txt anew from pyproject.toml
	$(BIN)/uv pip compile --quiet --extra dev --no-emit-package pinakotheke --no-annotate --no-header pyproject.toml -o var/lock.txt
	(head -1 requirements.txt; cat var/lock.txt) > var/lock.new && mv var/lock.new requirements.txt

clean: ## everything that can be made again
	rm -rf .venv var web/node_modules pinakotheke/server/static

# -- set-up, each step once, each saying what it does --

.venv/.ready: requirements.txt
	@echo "· Python packages: a minute or two, the first time"
	@$(PYTHON) -c 'import ensurepip' 2>/dev/null || ./.ci/apt-install python3-venv
	@$(PYTHON) -m venv .venv
	@$(BIN)/pip install --quiet --disable-pip-version-check $(UV)
	@$(BIN)/uv pip install --quiet --no-deps --python $(BIN)/python -r requirements.txt
	@touch $@
	@echo "✓ Python packages"

.venv/.primed: .venv/.ready $(wildcard pinakotheke/core/layout/packing/*.py pinakotheke/core/layout/packing/kernel/*.py pinakotheke/core/layout/insert/*.py pinakotheke/core/materials/cutting/*.py)
	@echo "· compiling the search: half a minute"
	@$(BIN)/python -c 'from pinakotheke.core.layout.search.furnish import prime; prime()'
	@$(BIN)/python -c 'from pinakotheke.core.materials.cutting import prime; prime()'
	@touch $@
	@echo "✓ the search is compiled"

web/node_modules/.ready: web/package-lock.json
	@echo "· web packages: about a minute"
	@cd web && npm ci --ignore-scripts --no-audit --no-fund --loglevel=error >/dev/null
	@touch $@
	@echo "✓ web packages"

$(PAGES): web/node_modules/.ready $(WEB_SOURCES) | .venv/.ready
	@echo "· web pages: half a minute"
	@cd web && npm run --silent build
	@$(BIN)/python -m whitenoise.compress --quiet pinakotheke/server/static
	@touch $@
	@echo "✓ web pages"

/usr/lib/postgresql:
	@echo "· PostgreSQL, for the server's tests on it"
	@./.ci/apt-install postgresql >/dev/null

/usr/bin/chromium:
	@echo "· Chromium, for the tests in a browser, and letters of more scripts: about a minute"
	@./.ci/apt-install chromium fonts-dejavu-core >/dev/null 2>&1 || ./.ci/apt-install chromium fonts-dejavu-core
	@echo "✓ Chromium"
