"""Restock through the API: watched, bought, taken, sent twice, taken back; on paper, on labels, in the house file."""

import json
from datetime import timedelta
from io import BytesIO

from django.utils import timezone
from pypdf import PdfReader

from pinakotheke.server import models
from pinakotheke.server.actions.demo import load_demo

from .base import ServerTestCase


class RestockTests(ServerTestCase):
    def setUp(self) -> None:
        super().setUp()
        self.space = self.closet("", "3 bags of flour; 6 tins of food; 2 boxes of medicine; 4 shirts")
        self.house = models.Space.objects.get(pk=self.space).household_id
        self.at = f"/households/{self.house}"
        self.today = timezone.localdate()
        self.key = dict(models.Thing.objects.values_list("kind", "key"))

    def watched(self, kind: str, **more):  # type: ignore[no-untyped-def]
        answer = self.ada.put(f"{self.at}/supplies", {"thing": self.key[kind], **more})
        self.assertEqual(answer.status_code, 200, answer.content)
        return next(s for s in answer.body["supplies"] if s["thing"] == self.key[kind])

    def did(self, supply: str, what: str, key: str, **more):  # type: ignore[no-untyped-def]
        data = {"key": key, "did": what, "on": self.today.isoformat(), **more}
        return self.ada.post(f"{self.at}/supplies/{supply}/movements", data)

    def test_bought_taken_sent_twice_and_taken_back(self) -> None:
        could = self.ada.get(f"{self.at}/restock").body["could"]
        self.assertEqual(
            {one["thing"] for one in could}, {self.key[k] for k in ("flour-bag", "tin-food", "medicine-box")}
        )
        self.assertEqual({one["thing"]: one["lasting"] for one in could}[self.key["tin-food"]], False)
        tins = self.watched("tin-food", lasting=False, spare=6, pack=4, shop="The corner shop")
        self.assertEqual((tins["buy"], tins["runs_out"]), (2, "none left"))
        got = self.ada.get(f"{self.at}/restock").body
        self.assertEqual(got["shops"], [{"shop": "The corner shop", "lines": ["Tins of food: 2 packs of 4"]}])
        self.assertEqual(self.did(tins["key"], "bought", "a", count=8, best_before="2030-01-01").status_code, 200)
        for _ in range(2):
            (one,) = self.did(tins["key"], "opened", "b").body["supplies"]
        self.assertEqual((one["unopened"], one["buy"], [m["key"] for m in one["movements"]]), (7, 0, ["b", "a"]))
        self.assertIn("after 5 more ticks", one["runs_out"])
        for _ in range(2):
            (one,) = self.ada.delete(f"{self.at}/movements/b").body["supplies"]
        self.assertEqual(one["unopened"], 8)
        self.assertEqual(self.ada.delete(f"{self.at}/supplies/{tins['key']}").body["supplies"], [])

    def test_takings_of_many_weeks_say_when_it_runs_out(self) -> None:
        tins = self.watched("tin-food", lasting=False, spare=2)
        for week in range(8):
            on = (self.today - timedelta(days=7 * week)).isoformat()
            self.assertEqual(self.did(tins["key"], "opened", f"t{week}", on=on).status_code, 200)
        (one,) = self.did(tins["key"], "counted", "c", count=2).body["supplies"]
        self.assertIn(f"used up about {self.today + timedelta(days=14)}", one["runs_out"])
        self.assertLessEqual(one["soonest"], (self.today + timedelta(days=14)).isoformat())

    def test_medicine_past_its_day_is_not_taken(self) -> None:
        pills = self.watched("medicine-box")
        past = (self.today - timedelta(days=3)).isoformat()
        (one,) = self.did(pills["key"], "bought", "a", count=1, best_before=past).body["supplies"]
        self.assertIn("do not take it", one["cautions"][0])
        self.assertEqual(one["buy"], 2)

    def test_the_day_goes_onto_the_label_and_all_of_it_into_the_house_file(self) -> None:
        flour = self.watched("flour-bag", keeps=30)
        place = self.ada.post(f"/spaces/{self.space}/places", {"name": "Flour jar"}).body["places"][0]
        self.ada.put(f"/places/{place['id']}/stays", {"thing": self.key["flour-bag"], "count": 1})
        self.did(flour["key"], "bought", "a", count=1, best_before="2040-01-01")
        (one,) = self.did(flour["key"], "opened", "b").body["supplies"]
        by = (self.today + timedelta(days=30)).isoformat()
        self.assertEqual((one["by"], one["place"], one["in_use"]), (by, "Flour jar", True))
        (label,) = self.ada.get(f"/spaces/{self.space}/places").body["places"]
        self.assertIn(f"use by {by}", label["title"])
        whole = self.ada.get(f"{self.at}/house-file").content
        kept = json.loads(whole)
        self.assertEqual(([s["keeps"] for s in kept["supplies"]], [m["did"] for m in kept["movements"]]),
                         ([30], ["bought", "opened"]))  # fmt: skip
        self.assertIn("house", str(self.bring(whole)))
        self.assertEqual((models.Supply.objects.count(), models.Movement.objects.count()), (2, 4))
        for wrong in ({"supplies": [*kept["supplies"], {"id": "x", "thing": "no"}]},
                      {"supplies": [*kept["supplies"], {**kept["supplies"][0], "id": "x"}]},
                      {"movements": [{**kept["movements"][0], "supply": "no"}]}):  # fmt: skip
            self.bring(json.dumps({**kept, **wrong}).encode())
        self.assertEqual(models.Supply.objects.count(), 2)

    def test_the_demo_happened_up_to_yesterday(self) -> None:
        load_demo()
        last = max(models.Movement.objects.values_list("on", flat=True))
        self.assertEqual(last, (self.today - timedelta(days=1)).isoformat())

    def test_on_paper_by_shop_with_lines_to_write_on(self) -> None:
        self.watched("tin-food", lasting=False, spare=6, shop="The corner shop")
        answer = self.ada.get(f"{self.at}/restock.pdf")
        text = PdfReader(BytesIO(answer.content)).pages[0].extract_text()
        self.assertIn("The corner shop", text)
        self.assertIn("Tins of food: 6", text)
        self.assertIn("Write on", text)

    def test_what_cannot_be(self) -> None:
        tins = self.watched("tin-food")
        later = (self.today + timedelta(days=9)).isoformat()
        self.assertEqual(self.did(tins["key"], "opened", "a", on=later).body["mend"][:7], "Say the")
        self.assertEqual(self.did(tins["key"], "opened", "a", on="2026-02-30").status_code, 422)
        self.assertEqual(self.did(tins["key"], "bought", "a", best_before="2026-02-30").status_code, 422)
        self.assertEqual(self.did("no", "opened", "a").status_code, 404)
        self.assertEqual(self.ada.put(f"{self.at}/supplies", {"thing": "no"}).status_code, 404)
        self.assertEqual(self.eve.get(f"{self.at}/restock").status_code, 404)
        self.assertEqual(self.eve.put(f"{self.at}/supplies", {"thing": self.key["tin-food"]}).status_code, 404)
