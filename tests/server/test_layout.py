"""Design through the API: searches as jobs, the gallery, hand edits with their consequences, the list."""

import csv
import io
from datetime import timedelta
from typing import Any

from django.utils import timezone

from pinakotheke.core.errors import Cancelled
from pinakotheke.core.systems import FAMILIES
from pinakotheke.core.systems.supplier import money
from pinakotheke.server import jobs, models
from pinakotheke.server.actions import layout as actions

from .base import ServerTestCase

LINE = "width 1846 1849 1843; height 2412; depth 612; opening 1250 x 2030; nibs 296 300"
THINGS = "9 shirts, daily; 5 jumpers; 12 socks, drawer; 1 ankle boots, seasonal"


class SearchTests(ServerTestCase):
    def test_asked_and_found(self) -> None:
        space = self.closet(LINE, THINGS)
        asked = self.ada.post(f"/spaces/{space}/solves")
        self.assertEqual(asked.status_code, 202)
        solve = self.ada.get(f"/solves/{asked.body['id']}").body
        self.assertEqual((solve["status"], solve["progress"], solve["blocked"]), ("done", 1.0, None))
        gallery = self.ada.get(f"/spaces/{space}/designs").body
        self.assertGreaterEqual(len(gallery["designs"]), 3)
        self.assertTrue(gallery["solve"]["points"] and gallery["solve"]["told"])
        self.assertIn("carcase", [f["id"] for f in gallery["families"]])
        for card in gallery["designs"]:
            self.assertEqual((card["holds"], card["stops"]), ("27 of 27 pieces", 0))
            self.assertTrue(card["reason"] and money(card["cost"]) > 0)

    def test_refused_while_the_survey_gives_no_space(self) -> None:
        space = self.closet("height 2400", THINGS)
        self.assertProblem(self.ada.post(f"/spaces/{space}/solves"), 422, "width")

    def test_not_everything_fits(self) -> None:
        space = self.closet("width 100; height 2400; depth 600; door none", THINGS)
        solve = self.ada.post(f"/spaces/{space}/solves").body
        solve = self.ada.get(f"/solves/{solve['id']}").body
        self.assertIn("too small", solve["blocked"]["sentence"])
        self.assertTrue(solve["blocked"]["relaxations"])

    def test_ten_thousand_things_are_blocked_with_the_reason(self) -> None:
        space = self.closet(LINE)
        row = models.Space.objects.get(pk=space)
        models.Thing.objects.bulk_create(
            models.Thing(household=row.household, key=f"t{n}", space=row, name="Shirt", kind="shirt", count=1,
                         frequency="weekly", decision="keep")
            for n in range(10_000)
        )  # fmt: skip
        solve = self.ada.post(f"/spaces/{space}/solves").body
        self.assertIn("join like with like", self.ada.get(f"/solves/{solve['id']}").body["blocked"]["sentence"])
        self.assertEqual(len(self.ada.get(f"/spaces/{space}/things").body["things"]), 10_000)

    def test_a_search_no_worker_has_begun_is_cancelled_at_once(self) -> None:
        space = self.closet(LINE, THINGS)
        solve = models.Solve.objects.create(space_id=space)
        self.assertEqual(self.ada.post(f"/solves/{solve.pk}/cancel").body["status"], "cancelled")
        jobs.run_solve.func(solve.pk)
        solve.refresh_from_db()
        self.assertEqual((solve.status, solve.progress), ("cancelled", 0))

    def test_a_running_search_stops_where_it_is_and_keeps_what_it_found(self) -> None:
        space = self.closet(LINE, THINGS)
        solve = models.Solve.objects.create(space_id=space)
        told: list[float] = []
        real = jobs._Keeper.progress

        def cancel_soon(keeper: Any, share: float, what: str) -> None:
            real(keeper, share, what)
            told.append(share)
            if keeper.solve.space.designs.exists():
                actions.cancel(models.Membership.objects.get().user, solve.pk)
                keeper._asked = 0.0

        jobs._Keeper.progress = cancel_soon  # type: ignore[method-assign]
        try:
            jobs.run_solve.func(solve.pk)
        finally:
            jobs._Keeper.progress = real  # type: ignore[method-assign]
        solve.refresh_from_db()
        self.assertEqual(solve.status, "cancelled")
        self.assertTrue(0 <= max(told) < 1)
        self.assertTrue(models.Design.objects.filter(space_id=space).exists())

    def test_asking_again_cancels_what_still_runs(self) -> None:
        space = self.closet(LINE, THINGS)
        old = models.Solve.objects.create(space_id=space, status="running")
        self.ada.post(f"/spaces/{space}/solves")
        old.refresh_from_db()
        self.assertTrue(old.cancel_requested)
        keeper = jobs._Keeper(old)
        with self.assertRaises(Cancelled):
            keeper.check()

    def test_a_dead_workers_search_is_picked_up_again_and_ends(self) -> None:
        space = self.closet(LINE, THINGS)
        solve = models.Solve.objects.create(space_id=space, status="running", message="improving")
        self.assertEqual(jobs.pick_up_again(), 0, "its worker was heard of a moment ago")
        long_ago = timezone.now() - jobs.SILENT_AFTER - timedelta(seconds=1)
        models.Solve.objects.filter(pk=solve.pk).update(heard=long_ago)
        self.assertEqual(jobs.pick_up_again(), 1)
        self.assertEqual(jobs.pick_up_again(), 0)
        self.assertEqual(self.ada.get(f"/solves/{solve.pk}").body["status"], "done")
        self.assertTrue(models.Design.objects.filter(space_id=space).exists())

    def test_a_search_that_the_queue_lost_is_handed_to_it_once_more(self) -> None:
        space = self.closet(LINE, THINGS)
        solve = models.Solve.objects.create(space_id=space)
        models.Solve.objects.filter(pk=solve.pk).update(heard=timezone.now() - 2 * jobs.LOST_AFTER)
        self.assertEqual(jobs.pick_up_again(), 1)
        solve.refresh_from_db()
        self.assertEqual(solve.status, "done")

    def test_a_search_is_carried_out_by_one_worker(self) -> None:
        solve = models.Solve.objects.create(space_id=self.closet(LINE, THINGS), status="running", message="improving")
        jobs.run_solve.func(solve.pk)
        solve.refresh_from_db()
        self.assertEqual((solve.status, solve.message), ("running", "improving"))

    def test_a_running_search_says_that_it_lives(self) -> None:
        solve = models.Solve.objects.create(space_id=self.closet(LINE, THINGS), status="running")
        keeper = jobs._Keeper(solve)
        keeper._beat -= 2 * jobs.BEAT_EVERY_S
        models.Solve.objects.filter(pk=solve.pk).update(heard=timezone.now() - jobs.SILENT_AFTER)
        keeper.check()
        self.assertEqual(jobs.pick_up_again(), 0)

    def test_cancelled_is_cancelled_at_once_and_for_good(self) -> None:
        solve = models.Solve.objects.create(space_id=self.closet(LINE, THINGS), status="running")
        self.assertEqual(self.ada.post(f"/solves/{solve.pk}/cancel").body["status"], "cancelled")
        jobs._tell(solve, status="done", message="done")
        solve.refresh_from_db()
        self.assertEqual((solve.status, solve.message), ("cancelled", "cancelled"))

    def test_weights_finish_and_families_are_asked_for_and_remembered(self) -> None:
        space = self.closet(LINE, THINGS)
        wishes = {"weights": {"money": 1, "reach": 10}, "finish": {"doors": "hinged", "crown": True},
                  "families": ["carcase"]}  # fmt: skip
        self.ada.post(f"/spaces/{space}/solves", wishes)
        gallery = self.ada.get(f"/spaces/{space}/designs").body
        self.assertEqual(gallery["solve"]["weights"]["reach"], 10)
        self.assertEqual({d["family"] for d in gallery["designs"]}, {"Carcase"})
        whole = self.ada.get(f"/designs/{gallery['designs'][0]['id']}").body
        self.assertEqual((whole["finish"]["doors"], whole["finish"]["crown"]), ("hinged", True))
        self.assertProblem(self.ada.post(f"/spaces/{space}/solves", {"families": ["wicker"]}), 422, "wicker")
        self.assertProblem(self.ada.post(f"/spaces/{space}/solves", {"weights": {"money": 99}}), 422)

    def climbed(self, space: int, kind: str, wishes: dict[str, Any] | None = None) -> dict[str, Any]:
        """The search again after one rung of the ladder was climbed: everything has a place then."""
        self.ada.post(f"/spaces/{space}/solves", wishes or {})
        solve = self.ada.get(f"/spaces/{space}/designs").body["solve"]
        self.assertTrue(solve["blocked"]["reasons"])
        change = next(r for r in solve["blocked"]["relaxations"] if r["kind"] == kind)
        self.assertTrue(change["applies"])
        again = self.ada.post(f"/solves/{solve['id']}/relax/{change['index']}")
        self.assertEqual(again.status_code, 202)
        after: dict[str, Any] = self.ada.get(f"/solves/{again.body['id']}").body
        self.assertIsNone(after["blocked"], kind)
        self.assertProblem(self.ada.post(f"/solves/{solve['id']}/relax/99"), 404)
        return after

    def test_slim_hangers(self) -> None:
        space = self.closet("width 900; height 2100; depth 600; door none", "34 shirts, hang")
        self.climbed(space, "hangers", {"families": ["carcase", "track"]})
        self.assertEqual(models.Space.objects.get(pk=space).household.rules["hangers"], "slim")

    def test_laying_away_what_creases(self) -> None:
        space = self.closet("width 900; height 2300; depth 350; door none", "9 shirts; 3 jumpers")
        self.assertTrue(self.climbed(space, "fold")["folds"])
        cards = self.ada.get(f"/spaces/{space}/designs").body["designs"]
        self.assertTrue(cards)

    def test_a_lock(self) -> None:
        space = self.closet("width 1000; height 1300; depth 600; door none", "2 bottles of bleach")
        row = models.Space.objects.get(pk=space)
        self.ada.post(f"/households/{row.household_id}/people", {"name": "Cy", "stature": "1100", "age": "child"})
        self.climbed(space, "lock")
        row.refresh_from_db()
        self.assertTrue(row.use["locked"])

    def test_every_kind_of_part(self) -> None:
        space = self.closet("width 1000; height 2400; depth 600; door none", "4 dresses")
        self.assertGreater(len(self.climbed(space, "families", {"families": ["pegs"]})["families"]), 3)

    def test_another_space_that_has_room(self) -> None:
        space = self.closet("width 600; height 800; depth 400; door none", "9 blankets")
        home = models.Space.objects.get(pk=space).household_id
        other = self.ada.post(f"/households/{home}/spaces", {"name": "Linen room"}).body
        line = {"line": "width 1800; height 2400; depth 600; door none", "version": other["version"]}
        self.ada.post(f"/spaces/{other['id']}/call-out", line)
        self.climbed(space, "elsewhere")
        moved = models.Thing.objects.filter(space_id=other["id"])
        left = models.Thing.objects.filter(space_id=space)
        self.assertEqual(sum(t.count for t in (*moved, *left)), 9)
        self.assertTrue(moved)

    def test_what_has_no_place_is_sent_away_and_the_rest_fits(self) -> None:
        space = self.closet("width 900; height 2300; depth 600; door none", "60 shirts, hang; 2 jumpers")
        self.ada.post(f"/spaces/{space}/solves", {"families": ["carcase"]})
        solve = self.ada.get(f"/spaces/{space}/designs").body["solve"]
        change = next(r for r in solve["blocked"]["relaxations"] if r["kind"] == "move out")
        self.ada.post(f"/solves/{solve['id']}/relax/{change['index']}")
        self.assertIsNone(self.ada.get(f"/spaces/{space}/designs").body["solve"]["blocked"])
        shirts = list(models.Thing.objects.filter(kind="shirt"))
        self.assertEqual(sum(t.count for t in shirts), 60)
        self.assertEqual({t.decision for t in shirts}, {"keep", "move"})

    def test_what_is_sent_away_is_by_the_design_in_hand(self) -> None:
        space = self.closet("width 900; height 2300; depth 600; door none", "60 shirts, hang; 2 jumpers")
        self.ada.post(f"/spaces/{space}/solves", {"families": ["carcase"]})
        gallery = self.ada.get(f"/spaces/{space}/designs").body
        card = gallery["designs"][-1]
        edit = {"version": card["version"], "command": {"do": "clear bay", "bay": 0}}
        if self.ada.post(f"/designs/{card['id']}/edits", edit).status_code != 200:
            part = next(p for p in self.ada.get(f"/designs/{card['id']}").body["parts"] if p["movable"])
            remove = {"version": card["version"], "command": {"do": "remove", "part": part["id"]}}
            self.assertEqual(self.ada.post(f"/designs/{card['id']}/edits", remove).status_code, 200)
        design = self.ada.get(f"/designs/{card['id']}").body
        self.assertTrue(design["without"])
        change = next(r for r in gallery["solve"]["blocked"]["relaxations"] if r["kind"] == "move out")
        at = f"/solves/{gallery['solve']['id']}/relax/{change['index']}"
        self.assertProblem(self.ada.post(f"{at}?design=999999"), 404)
        self.assertEqual(self.ada.post(f"{at}?design={card['id']}").status_code, 202)
        gone = models.Thing.objects.filter(space_id=space, decision="move")
        self.assertEqual(sum(t.count for t in gone), design["ledger"]["unplaced"])

    def test_a_design_that_cannot_be_carried_out_is_set_aside_and_the_others_hang_on(self) -> None:
        space = self.closet(LINE, THINGS)
        asked = self.ada.post(f"/spaces/{space}/solves").body["id"]
        bad = models.Design.objects.filter(space_id=space).order_by("pk")[0]
        bad.done = [{"do": "remove", "part": "no such part"}]
        bad.save()
        gallery = self.ada.get(f"/spaces/{space}/designs")
        self.assertEqual(gallery.status_code, 200)
        self.assertEqual([a["id"] for a in gallery.body["aside"]], [bad.pk])
        self.assertTrue(gallery.body["aside"][0]["problem"])
        self.assertNotIn(bad.pk, [c["id"] for c in gallery.body["designs"]])
        self.assertTrue(gallery.body["designs"])
        self.assertProblem(self.ada.get(f"/designs/{bad.pk}/card"), 422)
        self.assertEqual(self.ada.get(f"/solves/{asked}").status_code, 200)
        house = self.ada.get(f"/spaces/{space}").body["household"]
        self.assertEqual(self.ada.client.get(f"/api/households/{house}/house-file").status_code, 200)
        self.assertEqual(self.ada.delete(f"/designs/{bad.pk}").status_code, 204)
        self.assertEqual(self.ada.get(f"/spaces/{space}/designs").body["aside"], [])

    def test_a_search_names_its_cards_by_version_and_each_is_fetched_alone(self) -> None:
        space = self.closet(LINE, THINGS)
        asked = self.ada.post(f"/spaces/{space}/solves").body["id"]
        gallery = self.ada.get(f"/spaces/{space}/designs").body["designs"]
        cards = self.ada.get(f"/solves/{asked}").body["cards"]
        self.assertEqual([(c["id"], c["version"]) for c in cards], [(g["id"], g["version"]) for g in gallery])
        first = gallery[0]
        self.assertEqual(self.ada.get(f"/designs/{first['id']}/card").body, first)
        self.ada.post(f"/designs/{first['id']}/edits",
                      {"version": first["version"], "command": {"do": "mirror", "bay": 0}})  # fmt: skip
        again = self.ada.get(f"/solves/{asked}").body["cards"]
        self.assertEqual([c["version"] - a["version"] for a, c in zip(cards, again, strict=True)].count(1), 1)

    def test_a_point_of_the_frontier_is_hung(self) -> None:
        space = self.closet(LINE, THINGS)
        self.ada.post(f"/spaces/{space}/solves")
        solve = self.ada.get(f"/spaces/{space}/designs").body["solve"]
        card = self.ada.post(f"/solves/{solve['id']}/hang/0")
        self.assertEqual((card.status_code, card.body["kept"]), (201, True))
        self.assertAlmostEqual(money(card.body["cost"]), solve["points"][0]["cost"], delta=60)
        part = next(p for p in self.ada.get(f"/designs/{card.body['id']}").body["bays"])
        mirrored = {"version": 1, "command": {"do": "mirror", "bay": part["index"]}}
        self.assertEqual(self.ada.post(f"/designs/{card.body['id']}/edits", mirrored).status_code, 200)
        self.assertProblem(self.ada.post(f"/solves/{solve['id']}/hang/99"), 404)

    def test_a_budget_is_kept_when_asked(self) -> None:
        space = self.closet(LINE, THINGS)
        row = models.Space.objects.get(pk=space)
        row.household.rules = {**row.household.rules, "budget": "20"}
        row.household.save()
        self.ada.post(f"/spaces/{space}/solves", {"within_budget": True})
        solve = self.ada.get(f"/spaces/{space}/designs").body["solve"]
        self.assertIn("more than the budget", solve["blocked"]["sentence"])

    def test_a_search_that_breaks_is_said_without_its_trace(self) -> None:
        solve = models.Solve.objects.create(space_id=self.closet(LINE, "3 shirts"))
        models.Thing.objects.update(kind="unheard-of")
        with self.assertLogs("pinakotheke.server.jobs", "ERROR"):
            jobs.run_solve.func(solve.pk)
        solve.refresh_from_db()
        self.assertEqual(solve.status, "failed")
        self.assertNotIn("Traceback", solve.problem)


class EditTests(ServerTestCase):
    def setUp(self) -> None:
        super().setUp()
        self.space = self.closet(LINE, THINGS)
        self.ada.post(f"/spaces/{self.space}/solves")
        self.design = self.ada.get(f"/spaces/{self.space}/designs").body["designs"][0]
        self.path = f"/designs/{self.design['id']}"

        self.version = self.design["version"]

    def edit(self, version: int, **command: Any) -> Any:
        return self.ada.post(f"{self.path}/edits", {"version": version, "command": command})

    def test_an_edit_answers_with_all_its_consequences(self) -> None:
        before = self.ada.get(self.path).body
        part = next(p for p in before["parts"] if p["holds"] and p["movable"])
        after = self.edit(self.version, do="remove", part=part["id"]).body
        self.assertEqual((after["version"], after["edits"], after["can_undo"]), (self.version + 1, 1, True))
        self.assertGreater(after["ledger"]["unplaced"], 0)
        self.assertIn("fit.unplaced", [f["code"] for f in after["ledger"]["findings"]])
        self.assertLess(money(after["ledger"]["cost"]), money(before["ledger"]["cost"]))
        self.assertEqual(len(after["unplaced"]), len(part["holds"]))
        undone = self.ada.post(f"{self.path}/undo", {"version": self.version + 1}).body
        for field in ("elevation", "plan", "parts", "unplaced"):
            self.assertEqual(undone[field], before[field])
        self.assertEqual(undone["ledger"]["cost"], before["ledger"]["cost"])
        self.assertTrue(undone["can_redo"])
        redone = self.ada.post(f"{self.path}/redo", {"version": self.version + 2}).body
        self.assertEqual(redone["parts"], after["parts"])

    def test_the_rest_is_found_around_what_is_locked_and_undone_again(self) -> None:
        before = self.ada.get(self.path).body
        self.edit(self.version, do="lock bay", bay=0)
        asked = self.ada.post(f"{self.path}/rest", {"version": self.version + 1})
        self.assertEqual(asked.status_code, 202)
        self.assertEqual(self.ada.get(f"/solves/{asked.body['id']}").body["status"], "done")
        after = self.ada.get(self.path).body
        self.assertEqual((after["version"], after["edits"]), (self.version + 2, 2))
        inside = [(p["id"], p["height"]) for p in before["parts"] if p["bay"] == 0]
        self.assertEqual([(p["id"], p["height"]) for p in after["parts"] if p["bay"] == 0], inside)
        self.assertEqual(after["unplaced"], [])
        undone = self.ada.post(f"{self.path}/undo", {"version": self.version + 2}).body
        self.assertEqual([p["id"] for p in undone["parts"]], [p["id"] for p in before["parts"]])

    def test_a_named_version_stays_and_two_are_compared(self) -> None:
        kept = self.ada.post(f"{self.path}/versions", {"name": "For Ada's coats"}).body
        self.assertEqual((kept["title"], kept["kept"]), ("For Ada's coats", True))
        part = next(p for p in self.ada.get(self.path).body["parts"] if p["movable"])["id"]
        self.edit(self.version, do="remove", part=part)
        difference = self.ada.get(f"{self.path}/compare/{kept['id']}").body
        self.assertTrue(difference["parts"])
        self.assertEqual(difference["parts"][0]["there"] - difference["parts"][0]["here"], 1)
        self.ada.post(f"/spaces/{self.space}/solves")
        titles = [d["title"] for d in self.ada.get(f"/spaces/{self.space}/designs").body["designs"]]
        self.assertIn("For Ada's coats", titles)
        self.assertEqual(self.ada.delete(f"/designs/{kept['id']}").status_code, 204)
        self.assertProblem(self.ada.get(f"/designs/{kept['id']}"), 404)

    def test_drawings_as_asked_the_section_the_sheet_and_the_model(self) -> None:
        plain = self.ada.get(f"{self.path}/drawing?inside=bare&dimensions=false").body
        pieces = self.ada.get(f"{self.path}/drawing?inside=silhouettes&marks=true").body
        self.assertFalse([r for r in plain["rects"] if r["layer"] == "content"] or plain["dimensions"])
        self.assertGreater(len(pieces["rects"]) + len(pieces["lines"]), len(plain["rects"]) + 5)
        self.assertEqual(self.ada.get(f"{self.path}/section/0").body["view"], "section")
        self.assertProblem(self.ada.get(f"{self.path}/section/99"), 422, "no bay")
        self.assertEqual(self.ada.get(f"{self.path}/sheet.pdf?scale=20").content[:4], b"%PDF")
        self.assertProblem(self.ada.get(f"{self.path}/sheet.pdf?scale=7"), 422, "scale")
        model = self.ada.get(f"{self.path}/model.glb")
        self.assertEqual((model.headers["Content-Type"], model.content[:4]), ("model/gltf-binary", b"glTF"))

    def test_a_design_is_not_sent_in_whole(self) -> None:
        base = models.Design.objects.get(pk=self.design["id"]).base
        self.assertProblem(self.edit(self.version, do="refound", design=base), 422, "not sent in whole")

    def test_only_on_the_version_seen(self) -> None:
        part = next(p for p in self.ada.get(self.path).body["parts"] if p["movable"])["id"]
        self.assertEqual(self.edit(self.version, do="remove", part=part).status_code, 200)
        self.assertProblem(
            self.edit(self.version, do="add", role="shelf", bay=0, z=900), 409, f"version {self.version + 1}"
        )

    def test_what_edits_would_bring_is_told_and_none_is_made(self) -> None:
        design = self.ada.get(self.path).body
        rail = next(p for p in design["parts"] if p["role"] == "rail")
        told = self.ada.post(
            f"{self.path}/tries",
            {"commands": [{"do": "remove", "part": rail["id"]}, {"do": "move", "part": rail["id"], "steps": -200},
                          {"do": "lock", "part": rail["id"]}]},
        ).body["each"]  # fmt: skip
        self.assertGreater(told[0]["stops"], 0)
        self.assertTrue(any("no place" in s for s in told[0]["brings"]), told[0])
        self.assertTrue(told[0]["costs"].startswith("−"), told[0])
        self.assertIn("bay", told[1]["refused"])
        self.assertEqual(told[2], {"refused": "", "stops": 0, "brings": [], "mends": [], "costs": ""})
        self.assertEqual(self.ada.get(self.path).body, design)
        self.assertEqual(self.ada.post(f"{self.path}/tries", {"commands": []}).status_code, 422)

    def test_refused_edits_change_nothing(self) -> None:
        before = self.ada.get(self.path).body
        self.assertProblem(self.edit(self.version, do="move", part="nowhere", steps=1), 422, "no part")
        self.assertProblem(self.edit(self.version, do="explode", part="x"), 422)
        self.assertProblem(self.edit(self.version, do="move", part="x", steps=10**9), 422)
        self.assertProblem(self.ada.post(f"{self.path}/undo", {"version": self.version}), 422, "nothing to undo")
        self.assertEqual(self.ada.get(self.path).body, before)

    def test_a_new_search_keeps_what_was_edited_by_hand(self) -> None:
        part = next(p for p in self.ada.get(self.path).body["parts"] if p["movable"])["id"]
        self.edit(self.version, do="remove", part=part)
        self.ada.post(f"/spaces/{self.space}/solves")
        keys = {d["key"]: d["edits"] for d in self.ada.get(f"/spaces/{self.space}/designs").body["designs"]}
        self.assertEqual(keys[f"{self.design['key']}-edited-1"], 1)
        self.assertEqual(keys[self.design["key"]], 0)

    def test_the_list_as_csv(self) -> None:
        home = models.Design.objects.get(pk=self.design["id"]).space.household_id
        path, asked = f"/households/{home}/purchase", f"designs={self.design['id']}"
        answer = self.ada.get(f"{path}.csv?{asked}")
        self.assertTrue(answer.headers["Content-Type"].startswith("text/csv"))
        rows = list(csv.DictReader(io.StringIO(answer.content.decode())))
        self.assertEqual(rows[-1]["name"], "Total")
        self.assertEqual(rows[-1]["total EUR"].replace(".", ","), self.ada.get(f"{path}?{asked}").body["total"])

    def test_the_ledger_of_a_space_and_the_spines_words(self) -> None:
        body = self.ada.get(f"/spaces/{self.space}/ledger?design={self.design['id']}").body
        self.assertEqual(body["ledger"]["design"], self.design["id"])
        self.assertIn("alternative", body["states"]["layout"])
        self.assertEqual(body["states"]["inventory"], "4 things")
        gone = self.ada.get(f"/spaces/{self.space}/ledger?design=999999").body
        self.assertIsNotNone(gone["ledger"]["design"])


class RowEditTests(ServerTestCase):
    """Whole bays and rows through the API, each answer with its drawings, ledger and findings."""

    def setUp(self) -> None:
        super().setUp()
        self.space = self.closet(LINE, THINGS)
        self.ada.post(f"/spaces/{self.space}/solves", {"families": ["carcase"]})
        cards = self.ada.get(f"/spaces/{self.space}/designs").body["designs"]
        card = next(c for c in cards if c["title"] == "Most room to grow")
        self.path, self.version = f"/designs/{card['id']}", card["version"]
        self.before = self.ada.get(self.path).body

    def edit(self, **command: Any) -> Any:
        answer = self.ada.post(f"{self.path}/edits", {"version": self.version, "command": command})
        if answer.status_code == 200:
            self.version = answer.body["version"]
        return answer

    def test_mirrored_lower_less_deep_and_back(self) -> None:
        row = models.Design.objects.get(pk=int(self.path.split("/")[-1])).base["rows"][0]
        deeper = row["row"]["shape"]["depth"] == min(FAMILIES["carcase"].table.depths)  # type: ignore[attr-defined]
        for command in ({"do": "mirror", "bay": 0}, {"do": "reshape", "bay": 0, "taller": -1},
                        {"do": "reshape", "bay": 0, "deeper": 1 if deeper else -1},
                        {"do": "copy bay", "bay": 0, "onto": 1}):  # fmt: skip
            answer = self.edit(**command)
            self.assertEqual(answer.status_code, 200, answer.body)
            self.assertNotEqual(answer.body["elevation"]["rects"], self.before["elevation"]["rects"])
        for _ in range(4):
            answer = self.ada.post(f"{self.path}/undo", {"version": self.version})
            self.version = answer.body["version"]
        self.assertEqual(answer.body["parts"], self.before["parts"])

    def test_a_finish_is_drawn_bought_and_remembered(self) -> None:
        self.edit(do="reshape", bay=0, deeper=-1)
        shut = self.edit(do="finish", finish={"doors": "hinged", "lights": True}).body
        home = models.Design.objects.get(pk=shut["id"]).space.household_id
        bought = self.ada.get(f"/households/{home}/purchase?designs={shut['id']}").body
        names = {line["name"] for line in bought["lines"]}
        self.assertTrue({"Door", "Light", "Driver for lights"} <= names, names)
        drawn = self.ada.get(f"{self.path}/drawing?doors=shut").body
        self.assertTrue([r for r in drawn["rects"] if r["role"] == "door"])
        self.assertFalse([r for r in drawn["rects"] if r["layer"] == "content"])

    def test_a_row_in_another_family_waits_for_the_rest_to_be_found(self) -> None:
        other = self.edit(do="swap family", bay=0, family="track").body
        self.assertEqual(other["family"], "Track and standard")
        self.assertEqual(other["ledger"]["unplaced"], 27)
        asked = self.ada.post(f"{self.path}/rest", {"version": self.version})
        self.assertEqual(asked.status_code, 202)
        after = self.ada.get(self.path).body
        self.assertLess(after["ledger"]["unplaced"], 27)

    def test_what_is_locked_is_shown_and_refused(self) -> None:
        part = next(p for p in self.before["parts"] if p["movable"])["id"]
        locked = self.edit(do="lock", part=part).body
        self.assertTrue(next(p for p in locked["parts"] if p["id"] == part)["locked"])
        self.assertProblem(self.edit(do="move", part=part, steps=1), 422, "locked")
        self.edit(do="lock", part=part, locked=False)
        self.assertEqual(self.edit(do="move", part=part, steps=0).status_code, 200)

    def test_the_rest_is_only_found_on_the_version_seen(self) -> None:
        self.assertProblem(self.ada.post(f"{self.path}/rest", {"version": 99}), 409, "version")

    def test_a_kept_version_is_not_changed_by_edits_of_the_design_it_was_taken_of(self) -> None:
        kept = self.ada.post(f"{self.path}/versions", {"name": "as found"}).body
        before = self.ada.get(f"/designs/{kept['id']}").body["parts"]
        self.assertEqual(self.edit(do="mirror", bay=0).status_code, 200)
        self.assertEqual(self.ada.get(f"/designs/{kept['id']}").body["parts"], before)
        self.assertProblem(self.ada.post(f"{self.path}/versions", {"name": ""}), 422)

    def test_a_doubtful_question_for_a_drawing_is_refused(self) -> None:
        for question in ("drawing?inside=xray", "drawing?doors=ajar", "section/-1", "sheet.pdf?doors=ajar"):
            self.assertEqual(self.ada.get(f"{self.path}/{question}").status_code, 422, question)

    def test_what_no_family_does_is_refused_with_the_mend(self) -> None:
        for command, said in (({"do": "widen", "bay": 0, "steps": 10}, "Widths are"),
                              ({"do": "swap family", "bay": 0, "family": "wicker"}, "There are"),
                              ({"do": "reshape", "bay": 0, "taller": 10}, "It can be"),
                              ({"do": "mirror", "bay": 99}, "The design has")):  # fmt: skip
            self.assertProblem(self.edit(**command), 422, said)
        self.assertEqual(self.ada.get(self.path).body["parts"], self.before["parts"])

    def test_two_spaces_are_not_compared(self) -> None:
        other = self.closet(LINE, "3 shirts")
        self.ada.post(f"/spaces/{other}/solves", {"families": ["track"]})
        theirs = self.ada.get(f"/spaces/{other}/designs").body["designs"][0]["id"]
        self.assertProblem(self.ada.get(f"{self.path}/compare/{theirs}"), 422, "two spaces")

    def test_trial_marks_and_asked_against_capacity_stand_beside_the_answer(self) -> None:
        self.assertTrue(self.before["marks"] and all(m["height"] and m["what"] for m in self.before["marks"]))
        self.assertIn("% full", self.before["asked"])
        self.assertIn("Best found", self.before["outcome"])
        self.assertFalse(self.before["flat"])
