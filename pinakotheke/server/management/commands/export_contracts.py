"""`manage.py export_contracts`: the OpenAPI document and the house file's schema, as they are committed."""

import json
from typing import Any

from django.conf import settings
from django.core.management.base import BaseCommand, CommandError, CommandParser

from pinakotheke.core.housefile import house_schema
from pinakotheke.server.api import api


class Command(BaseCommand):
    """See the module."""

    help = "Write docs/openapi.json and docs/house.schema.json, or check that they are as the code has them."

    def add_arguments(self, parser: CommandParser) -> None:
        parser.add_argument("--check", action="store_true", help="write nothing; fail when a file is behind the code")

    def handle(self, *args: Any, check: bool = False, **options: Any) -> None:
        docs = settings.BASE_DIR / "docs"
        for name, content in (("openapi.json", api.get_openapi_schema()), ("house.schema.json", house_schema())):
            text = json.dumps(content, indent=1, ensure_ascii=False, default=str) + "\n"
            if not check:
                (docs / name).write_text(text, "utf-8")
                self.stdout.write(f"wrote docs/{name}")
            elif (docs / name).read_text("utf-8") != text:
                raise CommandError(f"docs/{name} is behind the code: run `make contracts` and commit it")
