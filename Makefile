# Two commands do everything: `make demo` and `make test`. Each sets up what is missing, once.

PYTHON ?= python3
PORT ?= 8420
BIN := .venv/bin
WEB_SOURCES := $(shell find web/src web/public -type f) $(addprefix web/,index.html package.json vite.config.ts tsconfig.json postcss.config.cjs)

.PHONY: demo test lint format screenshots bench web contracts lock clean

demo: .venv/.primed web/node_modules/.ready pinakotheke/server/static/index.html | /usr/bin/chromium ## run it with demo data
	$(BIN)/python manage.py demo --port $(PORT)

test: .venv/.primed pinakotheke/server/static/index.html | /usr/bin/chromium ## all tests, the browser's too
	$(BIN)/python manage.py test tests --noinput --parallel 2

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
	cd web && npx --no prettier --write src

screenshots: .venv/.primed pinakotheke/server/static/index.html | /usr/bin/chromium ## docs/screenshots from the demo data
	$(BIN)/python -m tests.browser.screenshots

bench: .venv/.primed ## speeds, gaps and bounds
	$(BIN)/python -m bench

web: pinakotheke/server/static/index.html ## build the web application

contracts: .venv/.ready web/node_modules/.ready ## OpenAPI document, its TypeScript types, the house file's schema
	$(BIN)/python manage.py export_contracts
	cd web && npm run --silent types

lock: ## write requirements.txt anew from pyproject.toml
	rm -rf var/lock && $(PYTHON) -m venv var/lock
	var/lock/bin/pip install --quiet '.[dev]'
	(head -1 requirements.txt; var/lock/bin/pip freeze --exclude pinakotheke) > var/lock/requirements.txt
	mv var/lock/requirements.txt requirements.txt

clean: ## everything that can be made again
	rm -rf .venv var web/node_modules pinakotheke/server/static

# -- set-up, each step once --

.venv/.ready: requirements.txt
	$(PYTHON) -c 'import ensurepip' 2>/dev/null || ./.ci/apt-install python3-venv
	$(PYTHON) -m venv .venv
	$(BIN)/pip install --quiet --disable-pip-version-check --no-deps -r requirements.txt
	touch $@

.venv/.primed: .venv/.ready pinakotheke/core/layout/kernel.py
	$(BIN)/python -c 'from pinakotheke.core.layout.interior import prime; prime()'
	touch $@

web/node_modules/.ready: web/package-lock.json
	cd web && npm ci --ignore-scripts --no-audit --no-fund
	touch $@

pinakotheke/server/static/index.html: web/node_modules/.ready $(WEB_SOURCES)
	cd web && npm run --silent build
	touch $@

/usr/bin/chromium:
	./.ci/apt-install chromium
