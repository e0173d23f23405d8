"""The API keeps its contract: the committed documents are the code's, and answers are as they are declared."""

import json
from pathlib import Path
from typing import Any
from unittest.mock import patch

import jsonschema
from django.core.management import CommandError, call_command
from ninja import Schema

from pinakotheke.core.housefile import house_schema
from pinakotheke.server.api import api

from .base import ServerTestCase

ROOT = Path(__file__).parents[2]
DOCUMENT: dict[str, Any] = json.loads((ROOT / "docs" / "openapi.json").read_text("utf-8"))
LINE = "width 1846 1849 1843; height 2412; depth 612; opening 1250 x 2030; nibs 296 300"


class CommittedTests(ServerTestCase):
    def test_the_documents_are_those_the_code_makes(self) -> None:
        self.assertEqual(DOCUMENT, json.loads(json.dumps(api.get_openapi_schema(), default=str)))
        schema = json.loads((ROOT / "docs" / "house.schema.json").read_text("utf-8"))
        self.assertEqual(schema, json.loads(json.dumps(house_schema(), default=str)))
        call_command("export_contracts", check=True)

    def test_a_document_behind_the_code_is_told(self) -> None:
        changed = patch.object(type(api), "get_openapi_schema", return_value={"changed": True})
        with changed, self.assertRaisesRegex(CommandError, "make contracts"):
            call_command("export_contracts", check=True)

    def test_every_operation_has_its_name_and_a_sentence(self) -> None:
        names = []
        for path, methods in DOCUMENT["paths"].items():
            for method, operation in methods.items():
                with self.subTest(f"{method} {path}"):
                    self.assertTrue(operation["description"].endswith("."))
                    stage = operation["operationId"].split("_")[0]
                    self.assertIn(
                        stage,
                        (
                            "session",
                            "house",
                            "survey",
                            "inventory",
                            "systems",
                            "layout",
                            "checks",
                            "materials",
                            "install",
                            "upkeep",
                        ),
                    )
                    names.append(operation["operationId"])
        self.assertEqual(len(names), len(set(names)))

    def test_no_two_schemas_have_one_name(self) -> None:
        """One of them would stand for both in the document, unseen."""
        homes: dict[str, set[str]] = {}
        todo: list[type] = [Schema]
        while todo:
            for one in todo.pop().__subclasses__():
                todo.append(one)
                if one.__module__.startswith("pinakotheke."):
                    homes.setdefault(one.__name__, set()).add(one.__module__)
        self.assertEqual({name: rows for name, rows in homes.items() if len(rows) > 1}, {})

    def test_every_write_is_behind_the_session(self) -> None:
        for path, methods in DOCUMENT["paths"].items():
            for method, operation in methods.items():
                if method != "get":
                    self.assertTrue(operation.get("security"), f"{method} {path}")


class AnswerTests(ServerTestCase):
    def check(self, path: str, template: str) -> Any:
        """GET a path and hold its body against the schema declared for the template."""
        answer = self.ada.get(path)
        self.assertEqual(answer.status_code, 200)
        declared = DOCUMENT["paths"][f"/api{template}"]["get"]["responses"]["200"]["content"]["application/json"]
        schema = {**declared["schema"], "components": DOCUMENT["components"]}
        jsonschema.Draft202012Validator(schema).validate(answer.body)
        return answer.body

    def test_answers_are_as_declared(self) -> None:
        space = self.closet(LINE, "9 shirts, daily; 5 jumpers; 12 socks, drawer")
        body = self.check(f"/spaces/{space}", "/spaces/{space_id}")
        self.check(f"/households/{body['household']}", "/households/{household_id}")
        self.check(f"/spaces/{space}/things", "/spaces/{space_id}/things")
        self.check(f"/spaces/{space}/ledger", "/spaces/{space_id}/ledger")
        self.check("/vocabulary", "/vocabulary")
        self.check("/measure", "/measure")
        self.check(f"/households/{body['household']}/homes", "/households/{household_id}/homes")
        self.check(f"/households/{body['household']}/sessions", "/households/{household_id}/sessions")
        self.check("/session", "/session")
        solve = self.ada.post(f"/spaces/{space}/solves").body
        self.check(f"/solves/{solve['id']}", "/solves/{solve_id}")
        gallery = self.check(f"/spaces/{space}/designs", "/spaces/{space_id}/designs")
        self.check(f"/designs/{gallery['designs'][0]['id']}", "/designs/{design_id}")

    def test_every_space_of_the_demo_answers_as_declared(self) -> None:
        house = self.demo()
        for space in house.space_set.all():
            body = self.check(f"/spaces/{space.pk}", "/spaces/{space_id}")
            self.assertEqual(body["main"] in [s["id"] for s in body["sections"]], True)
            self.assertEqual(body["missing"] > 0, space.key == "lamp-room", space.key)
            self.check(f"/spaces/{space.pk}/things", "/spaces/{space_id}/things")
            self.check(f"/spaces/{space.pk}/ledger", "/spaces/{space_id}/ledger")
        homes = self.check(f"/households/{house.pk}/homes", "/households/{household_id}/homes")
        self.assertEqual(len(homes["rooms"]), house.space_set.count())
        work = self.check(f"/households/{house.pk}/sessions", "/households/{household_id}/sessions")
        self.assertEqual((len(work["sessions"]), len(work["owned"])), (5, 7))

    def test_both_units_say_the_same(self) -> None:
        for units, width in (("metric", "1846"), ("imperial", '72 11/16"')):
            space = self.closet("low back width 1846 mm; height 2400 mm; depth 600 mm", units=units)
            body = self.check(f"/spaces/{space}", "/spaces/{space_id}")
            self.assertIn(width, [d["text"] for d in body["sections"][0]["elevation"]["dimensions"]])
