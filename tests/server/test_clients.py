"""Clients: a link by which they look, what they say, choose and sign off; where the work for them stands."""

import json
from datetime import timedelta
from io import BytesIO
from typing import Any

from django.utils import timezone
from pypdf import PdfReader

from pinakotheke.core.house.clients import STEPS, Step, most_urgent, next_step
from pinakotheke.core.housefile import load_house
from pinakotheke.server import models, rows

from .base import Caller, ServerTestCase

LINE = "width 1846 1849 1843; height 2412; depth 612; opening 1250 x 2030; nibs 296 300"


class ClientTests(ServerTestCase):
    def setUp(self) -> None:
        super().setUp()
        self.space = self.closet(LINE, "14 shirts\n6 folded sweaters")
        self.home = models.Space.objects.get(pk=self.space).household_id
        self.ada.post(f"/spaces/{self.space}/solves")
        self.designs = [d["id"] for d in self.ada.get(f"/spaces/{self.space}/designs").body["designs"]]
        self.assertGreater(len(self.designs), 1)
        made = self.ada.post(f"/households/{self.home}/showings", {"note": "Wren", "days": 7})
        self.assertEqual(made.status_code, 201, made.content[:200])
        self.at = f"/shown/{made.body['link'].rsplit('/', 1)[1]}"
        self.wren = Caller()
        self.wren.get("/session")

    def design(self, n: int = 0) -> dict[str, Any]:
        seen = self.wren.get(f"{self.at}/designs/{self.designs[n]}")
        self.assertEqual(seen.status_code, 200, seen.content[:200])
        return dict(seen.body)

    def test_a_client_looks_without_an_account(self) -> None:
        seen = self.wren.get(self.at).body
        self.assertEqual((seen["household"], seen["for_whom"], seen["by"]), ("Attic", "Wren", "ada"))
        self.assertEqual([d["id"] for d in seen["spaces"][0]["designs"]], self.designs)
        self.assertTrue(self.design()["parts"])
        at = f"{self.at}/designs/{self.designs[0]}"
        self.assertEqual(self.wren.get(f"{at}/model.glb").content[:4], b"glTF")
        self.assertEqual(self.wren.get(f"{at}/sheet.pdf").content[:5], b"%PDF-")
        self.assertProblem(self.wren.get(f"/households/{self.home}"), 401)
        self.assertTrue(self.ada.get(f"/households/{self.home}/client").body["links"][0]["seen"])

    def test_a_link_ends_and_is_taken_back(self) -> None:
        self.assertNotIn(self.at.rsplit("/", 1)[1], str(list(models.Showing.objects.values())))
        models.Showing.objects.update(expires=timezone.now() - timedelta(seconds=1))
        self.assertProblem(self.wren.get(self.at), 422, "holds no longer")
        models.Showing.objects.update(expires=timezone.now() + timedelta(days=1))
        link = models.Showing.objects.get().pk
        gone = self.ada.delete(f"/households/{self.home}/showings/{link}")
        self.assertEqual(gone.body["links"], [])
        for method, path in (("GET", ""), ("GET", f"/designs/{self.designs[0]}"),
                             ("POST", f"/designs/{self.designs[0]}/choose")):  # fmt: skip
            self.assertProblem(self.wren.send(method, self.at + path, {"by": "Wren"}), 422, "holds no longer")

    def test_a_link_shows_no_other_household(self) -> None:
        self.eve.post("/households", {"name": "Mill"})
        mill = models.Household.objects.get(name="Mill")
        space = models.Space.objects.create(household=mill, key="hall", name="Hall")
        mine = models.Design.objects.get(pk=self.designs[0])
        other = models.Design.objects.create(space=space, key="a", base=mine.base)
        before = list(models.Design.objects.filter(pk=other.pk).values())
        at = f"{self.at}/designs/{other.pk}"
        for path in ("", "/model.glb", "/sheet.pdf"):
            self.assertProblem(self.wren.get(at + path), 404)
        for path, data in (
            ("remarks", {"text": "x"}),
            ("choose", {"by": "x"}),
            ("sign-off", {"by": "x", "version": 1}),
        ):
            self.assertProblem(self.wren.post(f"{at}/{path}", data), 404)
        self.assertEqual(list(models.Design.objects.filter(pk=other.pk).values()), before)
        remark = self.wren.post(f"{self.at}/designs/{self.designs[0]}/remarks", {"text": "Mine."}).body["remarks"][0]
        self.assertProblem(self.eve.put(f"/households/{mill.pk}/remarks/{remark['id']}", {"settled": True}), 404)
        self.assertProblem(self.eve.post(f"/designs/{self.designs[0]}/reopen"), 404)

    def test_what_a_client_says_of_a_part_is_answered(self) -> None:
        part = next(p["id"] for p in self.design()["parts"] if p["role"] == "shelf")
        at = f"{self.at}/designs/{self.designs[0]}/remarks"
        said = self.wren.post(at, {"text": "Higher,\nplease.", "part": part})
        self.assertEqual(said.status_code, 201, said.content[:200])
        remark = self.ada.get(f"/households/{self.home}/client").body["remarks"][0]
        self.assertEqual((remark["by"], remark["text"], remark["settled"]), ("Wren", "Higher,\nplease.", False))
        self.assertIn("the shelf in bay", remark["about"])
        self.assertIn("1 remark waits", self.ada.get("/session/standing").body["each"][0]["next"])
        done = self.ada.put(f"/households/{self.home}/remarks/{remark['id']}", {"settled": True})
        self.assertTrue(done.body["remarks"][0]["settled"])
        self.assertNotIn("waits", self.ada.get("/session/standing").body["each"][0]["next"])
        self.assertProblem(self.wren.post(at, {"text": " "}), 422)
        self.assertProblem(self.wren.post(at, {"text": "x", "part": "nowhere"}), 404)
        self.ada.post(f"/spaces/{self.space}/solves")
        self.assertTrue(models.Remark.objects.filter(text__startswith="Higher").exists(), "a search took it along")

    def test_a_client_chooses_one_of_a_space(self) -> None:
        for n in (0, 1):
            self.wren.post(f"{self.at}/designs/{self.designs[n]}/choose", {"by": "Wren Alder"})
        says = [d["says"] for d in self.wren.get(self.at).body["spaces"][0]["designs"]]
        self.assertEqual(says[0], "")
        self.assertRegex(says[1], r"^Chosen by Wren Alder, \d{4}-\d\d-\d\d$")
        (agreed,) = self.ada.get(f"/households/{self.home}/client").body["agreed"]
        self.assertEqual((agreed["design"], agreed["signed"]), (self.designs[1], False))

    def test_what_is_signed_off_stays_as_it_is(self) -> None:
        first = self.designs[0]
        at, seen = f"{self.at}/designs/{first}/sign-off", self.design()
        self.assertProblem(self.wren.post(at, {"by": "Wren Alder", "version": seen["version"] + 1}), 409)
        self.assertFalse(self.design()["chosen"], "half of it was kept")
        signed = self.wren.post(at, {"by": "Wren Alder", "version": seen["version"]}).body
        self.assertTrue(signed["signed"])
        self.assertProblem(self.wren.post(at, {"by": "Wren Alder", "version": signed["version"]}), 422, "signed this")
        self.assertProblem(
            self.wren.post(f"{self.at}/designs/{self.designs[1]}/choose", {"by": "Wren"}), 422, "signed this"
        )
        version, part = signed["version"], next(p for p in signed["parts"] if p["movable"])
        move = {"do": "move", "part": part["id"], "steps": 1}
        refused = self.ada.post(f"/designs/{first}/edits", {"version": version, "command": move})
        self.assertProblem(refused, 422, "Wren Alder signed this design off")
        self.assertProblem(self.ada.delete(f"/designs/{first}"), 422, "signed this")
        self.assertProblem(self.ada.post(f"/designs/{first}/rest", {"version": version}), 422, "signed this")
        self.ada.post(f"/spaces/{self.space}/solves")
        self.assertTrue(self.design()["signed"], "a search took it along")
        paper = PdfReader(BytesIO(self.ada.get(f"/designs/{first}/sheet.pdf").content)).pages[0].extract_text()
        self.assertRegex(paper, r"Signed off by Wren Alder, \d{4}-\d\d-\d\d")
        log = self.ada.get(f"/households/{self.home}/log").body["lines"]
        self.assertIn(("Wren Alder", "designs"), [(line["by"], line["kind"]) for line in log])
        self.let_in(self.home, "eve", "member")
        self.assertProblem(self.eve.post(f"/designs/{first}/reopen"), 403)
        self.assertEqual(self.ada.post(f"/designs/{first}/reopen").status_code, 200)
        again = self.ada.post(f"/designs/{first}/edits", {"version": version + 1, "command": move})
        self.assertEqual(again.status_code, 200, again.content[:300])

    def test_who_may_not_show_does_not(self) -> None:
        for role, status in (("guest", 403), ("member", 403), ("organizer", 201)):
            name = f"x{role}"
            who = Caller().register(name)
            setattr(self, name, who)
            self.let_in(self.home, name, role)
            made = who.post(f"/households/{self.home}/showings", {"note": "Bo"})
            self.assertEqual(made.status_code, status, made.content[:200])
            self.assertEqual(bool(who.get(f"/households/{self.home}/client").body["links"]), status == 201)

    def test_marks_go_through_the_house_file(self) -> None:
        seen = self.design()
        self.wren.post(f"{self.at}/designs/{self.designs[0]}/remarks", {"text": "Higher.", "part": ""})
        self.wren.post(f"{self.at}/designs/{self.designs[0]}/sign-off", {"by": "Wren", "version": seen["version"]})
        text = self.ada.get(f"/households/{self.home}/house-file").content
        self.assertEqual(json.loads(text)["designs"][0]["remarks"][0]["text"], "Higher.")
        brought = self.bring(text)
        again = models.Household.objects.get(pk=brought["household"])
        self.assertEqual(rows.house_of(again), load_house(text))


class StandingTests(ServerTestCase):
    def test_households_stand_by_client_with_their_next_step(self) -> None:
        self.closet()
        self.ada.post("/households", {"name": "Mill"})
        mill = self.ada.get("/session").body["households"][1]["id"]
        self.assertEqual(
            self.ada.put(f"/households/{mill}/client", {"version": 1, "client": "Wren"}).body["client"], "Wren"
        )
        self.assertProblem(self.ada.put(f"/households/{mill}/client", {"version": 1, "client": "Bo"}), 409)
        each = self.ada.get("/session/standing").body["each"]
        self.assertEqual(
            [(one["client"], one["state"]) for one in each], [("", "1 to measure"), ("Wren", "no space yet")]
        )
        self.assertTrue(each[0]["next"].startswith("measure "))
        self.assertEqual(each[1]["next"], "add its first space")

    def test_the_next_step_is_after_the_furthest_done(self) -> None:
        def after(*done: Step, client: bool = True) -> Step:
            return next_step(frozenset(done), for_client=client)

        self.assertEqual(after(), "measure")
        self.assertEqual(after("sort"), "measure")
        self.assertEqual(after("measure", "sort"), "design")
        self.assertEqual(after("measure", "sort", "design"), "choose")
        self.assertEqual(after("measure", "sort", "design", client=False), "buy")
        self.assertEqual(after("measure", "sort", "design", "choose"), "sign")
        self.assertEqual(after("measure", "sort", "design", "buy"), "install")
        self.assertEqual(after(*STEPS[:-1]), "keep")

    def test_work_that_is_begun_is_finished_first(self) -> None:
        self.assertEqual(most_urgent({"hall": "measure", "attic": "buy", "shed": "keep"}), ("attic", "buy"))
        self.assertIsNone(most_urgent({"shed": "keep"}))
