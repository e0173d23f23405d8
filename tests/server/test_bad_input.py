"""Bad input of every kind gives a problem document; no stack trace, no hang, no lost row."""

from typing import Any
from unittest.mock import patch

from django.db import OperationalError

from pinakotheke.server import models
from pinakotheke.server.api import homes

from .base import ServerTestCase

NASTY: tuple[Any, ...] = (
    None,
    True,
    -1,
    0,
    1e308,
    10**30,
    "",
    "x" * 100_000,
    [],
    {},
    [[]],
    {"a": 1},
    "\u0000",
    "💾" * 50,
)
RAW = (b"", b"{", b"[1,", b"null", b"NaN", b'{"line": NaN}', b'{"version": Infinity}', b"\xff\xfe", b"[" * 50_000)


class BadInputTests(ServerTestCase):
    def setUp(self) -> None:
        super().setUp()
        self.space = self.closet("width 1846; height 2400; depth 600", "5 shirts")
        self.ada.post(f"/spaces/{self.space}/solves")
        self.design = self.ada.get(f"/spaces/{self.space}/designs").body["designs"][0]["id"]
        self.thing = self.ada.get(f"/spaces/{self.space}/things").body["things"][0]["id"]
        self.home = self.ada.get(f"/spaces/{self.space}").body["household"]
        self.writes: tuple[tuple[str, str, dict[str, Any]], ...] = (
            ("POST", "/households", {"name": "x", "units": "metric", "currency": "EUR"}),
            ("PATCH", f"/households/{self.home}", {"version": 99, "name": "x", "rules": {}}),
            ("POST", f"/households/{self.home}/people", {"name": "x", "stature": "1700", "age": "adult"}),
            ("POST", f"/spaces/{self.space}/call-out", {"version": 99, "line": "width 1800"}),
            ("POST", f"/spaces/{self.space}/readings", {"version": 99, "slot": {"what": "width"}, "text": "1800"}),
            ("PUT", f"/spaces/{self.space}/survey", {"version": 99, "survey": {}}),
            ("POST", f"/spaces/{self.space}/things", {"line": "1 shirt"}),
            ("PATCH", f"/things/{self.thing}", {"version": 99, "count": 2, "name": "x"}),
            ("POST", f"/designs/{self.design}/edits", {"version": 99, "command": {"do": "remove", "part": "x"}}),
            ("POST", f"/designs/{self.design}/undo", {"version": 99}),
            ("POST", f"/spaces/{self.space}/arrivals", {"messages": [{"key": "k" * 12, "line": "depth 600"}]}),
            ("POST", f"/households/{self.home}/spaces", {"name": "x", "kind": "recess"}),
            ("POST", f"/households/{self.home}/practice", {"difficulty": "usual"}),
            ("POST", f"/spaces/{self.space}/instruments/laser", {"version": 99, "slot": {"what": "width"}}),
            ("POST", f"/households/{self.home}/things/change", {"ids": [self.thing], "decision": "keep"}),
            ("POST", f"/things/{self.thing}/pin", {"version": 99, "space": "", "band": "low"}),
            ("POST", f"/things/{self.thing}/go", {"version": 99, "space": "x"}),
            ("POST", f"/households/{self.home}/sessions", {"space": "x", "goal": "x", "minutes": 60, "spent": 3}),
            ("POST", f"/households/{self.home}/owned", {"name": "x", "count": 1, "size": "1 x 2 x 3", "lid": "none"}),
            ("PUT", f"/spaces/{self.space}/use", {"version": 99, "use": {"zones": []}}),
        )

    def rows(self) -> list[int]:
        kinds = (models.Household, models.Space, models.Reading, models.Thing, models.Design)
        return [kind.objects.count() for kind in kinds]

    def test_any_value_in_any_field(self) -> None:
        before = self.rows()
        for method, path, good in self.writes:
            for field in good:
                for value in NASTY:
                    with self.subTest(f"{method} {path} {field}={value!r:.40}"):
                        answer = self.ada.send(method, path, {**good, field: value})
                        if answer.status_code in (200, 201):
                            continue
                        # A space that is named and not there is not found; everything else is refused.
                        refused = (400, 404, 409, 413, 422) if field == "space" else (400, 409, 413, 422)
                        self.assertIn(answer.status_code, refused)
                        self.assertEqual(answer.headers["Content-Type"], "application/problem+json")
        after = self.rows()
        self.assertTrue(all(b >= a for a, b in zip(before, after, strict=True)), (before, after))

    def test_what_is_no_json(self) -> None:
        before = self.rows()
        for method, path, _ in self.writes:
            for raw in RAW:
                with self.subTest(f"{method} {path} {raw[:12]!r}"):
                    answer = self.ada.send(method, path, raw=raw)
                    self.assertIn(answer.status_code, (400, 422))
                    self.assertEqual(answer.headers["Content-Type"], "application/problem+json")
        self.assertEqual(self.rows(), before)

    def test_unknown_fields_of_core_models_are_refused(self) -> None:
        bad = {"version": 2, "survey": {"readings": [], "colour": "red"}}
        self.assertProblem(self.ada.put(f"/spaces/{self.space}/survey", bad), 422, "colour")

    def test_zero_and_endless_sizes(self) -> None:
        slot = {"what": "width", "level": "low", "face": "back"}
        for text in ("0", "-5", "NaN", "1e9", "inf", "999999999", "½/0"):
            answer = self.ada.post(f"/spaces/{self.space}/readings", {"version": 2, "slot": slot, "text": text})
            self.assertProblem(answer, 422)

    def test_a_body_of_five_megabytes_is_refused_as_a_problem(self) -> None:
        answer = self.ada.send("POST", "/households", raw=b'{"name": "' + b"x" * 5_000_000 + b'"}')
        self.assertProblem(answer, 413, "MB")

    def test_numbers_no_row_can_have(self) -> None:
        big = 2**70
        self.assertIn(self.ada.get(f"/designs/{self.design}/compare/{big}").status_code, (404, 422))
        many = {"ids": [big], "decision": "keep"}
        self.assertIn(self.ada.post(f"/households/{self.home}/things/change", many).status_code, (404, 422))
        self.assertIn(self.ada.get(f"/spaces/{self.space}/ledger?design={big}").status_code, (200, 422))

    def test_what_breaks_inside_is_a_problem_without_its_trace(self) -> None:
        for error, status, said in (
            (OperationalError("database is locked"), 503, "again"),
            (RuntimeError("x"), 500, ""),
        ):
            with (
                self.subTest(status),
                patch.object(homes, "homes", side_effect=error),
                self.assertLogs(level="WARNING"),
            ):
                self.assertProblem(self.ada.get(f"/households/{self.home}/homes"), status, said)

    def test_no_address_and_no_request(self) -> None:
        self.assertProblem(self.ada.get("/nothing/here"), 404)
        self.assertProblem(self.ada.delete("/households"), 405)
        self.assertProblem(self.ada.get("/spaces/" + "9" * 30), 422)

    def test_ids_that_are_none(self) -> None:
        for path in ("/spaces/0", "/spaces/-1", "/spaces/x", "/spaces/1e3", "/designs/99999999999999999999",
                     "/solves/none", "/things/%00", "/households/999999", "/households/0/purchase?designs=1"):  # fmt: skip
            with self.subTest(path):
                self.assertIn(self.ada.get(path).status_code, (404, 405, 422))
        self.assertProblem(self.ada.get("/solves/999999"), 404, "search")
