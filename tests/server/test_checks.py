"""Check through the API: what was found where, the acts that mend, the report, all that is checked."""

from typing import Any

from django.utils import timezone

from .base import ServerTestCase
from .test_layout import LINE, THINGS


class CheckTests(ServerTestCase):
    def test_what_was_found_where_and_the_act_that_mends_it(self) -> None:
        space = self.closet(LINE, THINGS)
        self.ada.post(f"/spaces/{space}/solves")
        design = self.ada.get(f"/spaces/{space}/designs").body["designs"][0]["id"]
        checks = self.ada.get(f"/designs/{design}/checks").body
        numbers = {n for row in checks["rows"] for cell in row["cells"] for n in cell["findings"]}
        self.assertEqual(numbers, set(range(len(checks["findings"]))))
        self.assertEqual([len(row["cells"]) for row in checks["rows"]], [len(checks["kinds"])] * len(checks["rows"]))
        # A shelf sent as high as it goes: somebody no longer reaches what is on it.
        shelf = next(
            p for p in self.ada.get(f"/designs/{design}").body["parts"] if p["role"] == "shelf" and p["movable"]
        )
        edited = {"do": "remove", "part": shelf["id"]}
        version = checks["version"]
        self.ada.post(f"/designs/{design}/edits", {"version": version, "command": edited})
        changed = self.ada.post(f"/designs/{design}/mends", {"version": version, "number": 0})
        self.assertEqual(changed.status_code, 409)
        now = self.ada.get(f"/designs/{design}/checks").body
        self.assertTrue(any(f["code"] == "fit.unplaced" for f in now["findings"]))
        told = self.ada.post(f"/designs/{design}/mends", {"version": now["version"], "number": 0})
        self.assertEqual(told.status_code, 200)
        self.assertEqual(self.eve.get(f"/designs/{design}/checks").status_code, 404)

    def test_the_report_is_a_pdf(self) -> None:
        space = self.closet(LINE, THINGS)
        self.ada.post(f"/spaces/{space}/solves")
        design = self.ada.get(f"/spaces/{space}/designs").body["designs"][0]["id"]
        answer = self.ada.get(f"/designs/{design}/checks.pdf")
        self.assertEqual((answer.status_code, answer["Content-Type"]), (200, "application/pdf"))

    def test_what_a_person_answers_is_kept_with_name_and_day(self) -> None:
        space = self.closet(LINE + "; panel at 1500, 1200 up, 200 x 300", THINGS)
        self.ada.post(f"/spaces/{space}/solves")
        design = self.ada.get(f"/spaces/{space}/designs").body["designs"][0]["id"]

        def asked() -> dict[str, Any]:
            checks = self.ada.get(f"/designs/{design}/checks").body
            (one,) = (f for f in checks["findings"] if f["asks"] and f["asks"]["question"] == "panel")
            return {**one, "version": checks["space_version"]}

        one = asked()
        said = {
            "version": one["version"],
            "question": "panel",
            "about": one["asks"]["about"],
            "says": "no",
            "note": "Call.",
        }
        self.assertEqual(self.eve.post(f"/spaces/{space}/answers", said).status_code, 404)
        self.assertEqual(self.ada.post(f"/spaces/{space}/answers", said).status_code, 200)
        self.assertEqual(self.ada.post(f"/spaces/{space}/answers", said).status_code, 409)
        after = asked()
        self.assertEqual((after["code"], after["severity"], after["asks"]["says"]), ("ask.no", "fix", "no"))
        self.assertIn(f"(ada, {timezone.localdate().isoformat()}. Call.)", after["sentence"])
        # What the space is for is said anew, and the answer stays.
        use = {"zones": ["bedroom"], "where": None, "from_door": None, "locked": False}
        self.ada.put(f"/spaces/{space}/use", {"version": after["version"], "use": use})
        self.assertEqual(asked()["code"], "ask.no")
        again = {**said, "version": asked()["version"], "says": None}
        self.assertEqual(self.ada.post(f"/spaces/{space}/answers", again).status_code, 200)
        self.assertEqual(asked()["code"], "ask.open")

    def test_the_plan_shows_the_ways_out_on_demand(self) -> None:
        space = self.closet(LINE, THINGS)
        self.ada.post(f"/spaces/{space}/solves")
        design = self.ada.get(f"/spaces/{space}/designs").body["designs"][0]["id"]
        plain, ways = (self.ada.get(f"/designs/{design}/plan?ways={w}").body for w in ("false", "true"))
        slides = [
            p for p in self.ada.get(f"/designs/{design}").body["parts"] if p["role"] in ("drawer", "basket", "tray")
        ]
        more = len(ways["lines"]) - len(plain["lines"])
        self.assertEqual(more > 0, bool(slides))

    def test_the_registry_speaks_in_the_units_of_the_house(self) -> None:
        for units, size in (("metric", "1400 mm"), ("imperial", '55"')):
            rules = self.ada.get(f"/checks?units={units}").body["rules"]
            (child,) = (r for r in rules if r["code"] == "home.child")
            self.assertIn(size, child["remedy"])
            self.assertTrue(all(r["remedy"] and r["source"] for r in rules))
            if units == "imperial":
                self.assertEqual([r["code"] for r in rules if " mm" in r["says"] + r["remedy"] + r["source"]], [])
