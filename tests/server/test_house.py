"""Brief, Measure and Sort through the API: versions, units, undo by replacing, the house file in and out."""

from typing import get_args

from pinakotheke.core.house import Hazard
from pinakotheke.core.housefile import load_house
from pinakotheke.server import models

from .base import ServerTestCase


class HouseholdTests(ServerTestCase):
    def test_rules_units_and_names(self) -> None:
        home = self.household()
        rules = self.ada.get(f"/households/{home}").body["rules"]
        answer = self.ada.patch(
            f"/households/{home}",
            {"version": 1, "name": "Loft", "units": "imperial", "rules": {**rules, "reserve": 0.2}},
        )
        self.assertEqual((answer.body["name"], answer.body["units"], answer.body["version"]), ("Loft", "imperial", 2))
        self.assertEqual(answer.body["rules"]["reserve"], 0.2)
        self.assertProblem(self.ada.patch(f"/households/{home}", {"version": 1, "name": "Late"}), 409, "version 2")
        bad = {"version": 2, "rules": {**rules, "reserve": 5}}
        self.assertProblem(self.ada.patch(f"/households/{home}", bad), 422, "reserve")

    def test_what_the_house_goes_by_is_written_as_people_write_it(self) -> None:
        home = self.household()
        path = f"/households/{home}/limits"

        def limits() -> dict[str, dict[str, object]]:
            return {row["name"]: row for row in self.ada.get(path).body["each"]}

        usual = limits()
        self.assertEqual((usual["lift"]["text"], usual["lift"]["usual"], usual["board"]["text"]),
                         ("23.0 kg", "23.0 kg", "particleboard-18"))  # fmt: skip
        for n, (name, text, now) in enumerate((
            ("lift", "33 lb", "15.0 kg"), ("board", "birch-plywood-21", "birch-plywood-21"), ("shows", "300", "300"),
            ("screw", "6 mm", "6 mm"), ("timber", "southern-pine", "southern-pine"), ("lift", "", "23.0 kg"),
        )):  # fmt: skip
            answer = self.ada.put(path, {"version": n + 1, "name": name, "text": text})
            self.assertEqual(answer.status_code, 200, (name, answer.body))
            self.assertEqual(limits()[name]["text"], now)
        self.assertEqual(
            self.ada.get(f"/households/{home}").body["rules"]["limits"]["shelves"]["grade"], "birch-plywood"
        )
        for name, text in (("lift", "a lot"), ("lift", "400 kg"), ("board", "oak-18"), ("timber", "balsa"),
                           ("mood", "good"), ("shows", "7")):  # fmt: skip
            self.assertProblem(self.ada.put(path, {"version": 7, "name": name, "text": text}), 422, "")
        self.assertEqual(self.eve.get(path).status_code, 404)

    def test_people_are_added_changed_and_taken_out(self) -> None:
        space = self.closet(things="3 shirts")
        home = self.ada.get(f"/spaces/{space}").body["household"]
        people = f"/households/{home}/people"
        added = self.ada.post(people, {"name": "Ada Quill", "stature": "5' 6\""}).body["people"]
        self.assertEqual(added[0]["id"], "ada-quill")
        self.assertAlmostEqual(added[0]["stature"], 66 * 25.4)
        changed = self.ada.put(f"{people}/ada-quill", {"name": "Ada", "stature": "1680", "posture": "both"})
        self.assertEqual(changed.body["people"][0]["posture"], "both")
        self.assertProblem(self.ada.post(people, {"name": "Bo", "stature": "tall"}), 422, "not a length")
        self.assertProblem(self.ada.post(people, {"name": "Bo", "stature": "9 m"}), 422, "stature")
        self.assertProblem(self.ada.put(f"{people}/nobody", {"name": "x"}), 404)
        thing = self.ada.get(f"/spaces/{space}/things").body["things"][0]
        self.ada.patch(f"/things/{thing['id']}", {"version": 1, "owner": "ada-quill"})
        gone = self.ada.delete(f"{people}/ada-quill").body
        self.assertEqual((gone["house"]["people"], gone["taken_out"]["things"]), ([], [thing["thing"]["id"]]))
        self.assertEqual(self.owner(space), "")
        back = self.ada.post(f"{people}/ada-quill/back", gone["taken_out"])
        self.assertEqual((back.status_code, back.body["people"]), (200, changed.body["people"]))
        self.assertEqual(self.owner(space), "ada-quill")
        self.assertProblem(self.ada.post(f"{people}/ada-quill/back", gone["taken_out"]), 422, "there already")
        self.assertProblem(self.ada.post(f"{people}/bo/back", gone["taken_out"]), 422, "not bo")

    def owner(self, space: int) -> str:
        return str(self.ada.get(f"/spaces/{space}/things").body["things"][0]["thing"]["owner"])

    def test_every_hazard_the_core_knows_may_be_kept_from_a_person(self) -> None:
        people = f"/households/{self.household()}/people"
        child = {"name": "Juna", "age": "child", "kept_from": list(get_args(Hazard))}
        added = self.ada.post(people, child)
        self.assertEqual(set(added.body["people"][0]["kept_from"]), set(get_args(Hazard)), added.body)

    def test_nobody_lets_another_into_the_demo_house(self) -> None:
        demo = self.demo()
        models.Household.objects.filter(pk=demo.pk).update(is_demo=True)
        refused = self.ada.post(f"/households/{demo.pk}/invitations", {"name": "eve"})
        self.assertProblem(refused, 422, "demo house")
        self.assertEqual(models.Membership.objects.filter(household=demo).count(), 1)

    def test_everything_done_is_in_the_log(self) -> None:
        self.closet("width 1846", "3 shirts")
        actions = set(models.LogEntry.objects.values_list("action", flat=True))
        self.assertGreaterEqual(len(actions), 4)


class HouseFileTests(ServerTestCase):
    def test_out_and_in_again_is_the_same_house(self) -> None:
        home = self.demo()
        out = self.ada.get(f"/households/{home.pk}/house-file")
        self.assertIn("the-halt.house.json", out.headers["Content-Disposition"])
        again = self.bring(out.content)
        self.assertEqual((again["status"], again["faults"]), ("done", []))
        twice = self.ada.get(f"/households/{again['household']}/house-file")
        self.assertEqual(load_house(twice.content), load_house(out.content))
        self.assertEqual(twice.content, out.content)

    def test_a_bad_file_says_each_fault_and_makes_nothing(self) -> None:
        before = models.Household.objects.count()
        for content in (b"{", b"[]", b'{"name": NaN}', b'{"format": "pinakotheke-house-1", "name": "x", "colour": 1}'):
            answer = self.bring(content)
            self.assertEqual((answer["status"], answer["household"]), ("refused", None))
            self.assertTrue(answer["problem"] and answer["faults"])
        self.assertEqual(models.Household.objects.count(), before)
        self.assertFalse(
            any(row.file for row in models.HouseImport.objects.all()), "the file goes, whatever came of it"
        )

    def test_a_file_is_seen_by_whoever_brought_it_alone(self) -> None:
        self.bring(b"{}")
        self.assertProblem(self.eve.get(f"/house-file/{models.HouseImport.objects.get().pk}"), 404, "house file")

    def test_edits_and_whether_a_design_was_named_come_back(self) -> None:
        space = self.closet("width 1846; height 2412; depth 612; door none", "9 shirts; 5 jumpers")
        self.ada.post(f"/spaces/{space}/solves", {"families": ["track"]})
        card = self.ada.get(f"/spaces/{space}/designs").body["designs"][0]
        edit = {"version": card["version"], "command": {"do": "add", "role": "shelf", "bay": 0, "z": 1500}}
        self.ada.post(f"/designs/{card['id']}/edits", edit)
        self.ada.post(f"/designs/{card['id']}/versions", {"name": "as found"})
        home = self.ada.get(f"/spaces/{space}").body["household"]
        file = self.ada.client.get(f"/api/households/{home}/house-file").content
        came = models.Household.objects.get(pk=self.bring(file)["household"])
        sent = models.Design.objects.filter(space_id=space).order_by("pk")
        back = models.Design.objects.filter(space__household=came).order_by("pk")
        told = [[(d.kept, d.done, d.undone) for d in rows] for rows in (sent, back)]
        self.assertEqual(told[0], told[1])
        self.assertEqual(sum(d.kept for d in back), 1)


class SurveyTests(ServerTestCase):
    def test_a_line_is_heard_then_kept(self) -> None:
        space = self.closet()
        heard = self.ada.post(f"/spaces/{space}/call-out/hear", {"line": "width 1846; flurb"}).body
        self.assertEqual(heard["understood"][0]["echo"], "back width 1846 mm")
        self.assertEqual(heard["misheard"][0]["said"], "flurb")
        self.assertEqual(self.ada.get(f"/spaces/{space}").body["survey"]["readings"], [])
        kept = self.ada.post(f"/spaces/{space}/call-out", {"line": "width 1846; flurb", "version": 1}).body
        self.assertEqual(kept["space"]["version"], 2)
        self.assertEqual(kept["space"]["survey"]["readings"][0]["hand"], "ada")

    def test_typing_on_a_dimension_line_in_inches(self) -> None:
        space = self.closet(units="imperial")
        slot = {"what": "width", "level": "low", "face": "back"}
        answer = self.ada.post(f"/spaces/{space}/readings", {"version": 1, "slot": slot, "text": "70 3/4"})
        self.assertEqual(answer.body["survey"]["readings"][0]["value"], 1797.05)
        self.assertIn('70 3/4"', [d["text"] for d in answer.body["sections"][0]["elevation"]["dimensions"]])
        bad = self.ada.post(f"/spaces/{space}/readings", {"version": 2, "slot": slot, "text": "3' 14\""})
        self.assertProblem(bad, 422, "foot or more")

    def test_replacing_is_undo_and_only_on_the_version_seen(self) -> None:
        space = self.closet("width 1846")
        first = self.ada.get(f"/spaces/{space}").body
        key = first["survey"]["readings"][0]["id"]
        gone = self.ada.delete(f"/spaces/{space}/readings/{key}?version={first['version']}").body
        self.assertEqual(gone["survey"]["readings"], [])
        back = self.ada.put(f"/spaces/{space}/survey", {"version": gone["version"], "survey": first["survey"]}).body
        self.assertEqual(back["survey"], first["survey"])
        late = self.ada.put(f"/spaces/{space}/survey", {"version": gone["version"], "survey": first["survey"]})
        self.assertProblem(late, 409, "changed meanwhile")

    def test_another_value_for_a_reading_that_is_known_is_no_undo(self) -> None:
        space = self.closet("width 1846")
        first = self.ada.get(f"/spaces/{space}").body
        forged = {**first["survey"], "readings": [{**first["survey"]["readings"][0], "value": 1900}]}
        answer = self.ada.put(f"/spaces/{space}/survey", {"version": first["version"], "survey": forged})
        self.assertProblem(answer, 422)
        self.assertEqual(self.ada.get(f"/spaces/{space}").body["survey"], first["survey"])

    def test_an_obstacle_is_typed_with_its_words_and_numbers(self) -> None:
        space = self.closet("width 1846; height 2412; depth 612; door none")
        data = {"version": 2, "kind": "window", "x": "310 mm", "z": "120", "width": "600", "height": "90 cm",
                "called": "Landing window"}  # fmt: skip
        answer = self.ada.post(f"/spaces/{space}/obstacles", data)
        (made,) = answer.body["survey"]["obstacles"]
        self.assertEqual((made["label"], made["x"], made["width"], made["height"]), ("Landing window", 310, 600, 900))
        self.assertEqual(made["section"], answer.body["sections"][0]["id"])
        for wrong, said in (({"width": "wide"}, "Width"), ({"height": "0"}, "Height"), ({"section": "Z"}, "section")):
            refused = self.ada.post(f"/spaces/{space}/obstacles", {**data, "version": 3, **wrong})
            self.assertProblem(refused, 404 if "section" in wrong else 422, said)

    def test_spaces_are_renamed_and_taken_away(self) -> None:
        space = self.closet()
        self.assertEqual(self.ada.patch(f"/spaces/{space}?version=1", {"name": "Hall"}).body["name"], "Hall")
        self.assertProblem(self.ada.delete(f"/spaces/{space}?version=1"), 409)
        self.assertEqual(self.ada.delete(f"/spaces/{space}?version=2").status_code, 204)
        self.assertProblem(self.ada.get(f"/spaces/{space}"), 404)


class ThingsTests(ServerTestCase):
    def test_added_changed_taken_out_and_put_back(self) -> None:
        space = self.closet(things="14 shirts, daily; 3 jumpers")
        view = self.ada.get(f"/spaces/{space}/things").body
        self.assertEqual(
            [(t["thing"]["count"], t["kind_name"]) for t in view["things"]], [(14, "shirts"), (3, "jumpers")]
        )
        self.assertEqual(view["pieces"], 17)
        row = view["things"][0]
        changed = self.ada.patch(f"/things/{row['id']}", {"version": 1, "count": 9, "way": "drawer"}).body
        self.assertEqual((changed["thing"]["count"], changed["thing"]["way"], changed["version"]), (9, "drawer", 2))
        self.assertIsNone(self.ada.patch(f"/things/{row['id']}", {"version": 2, "way": None}).body["thing"]["way"])
        self.assertProblem(self.ada.patch(f"/things/{row['id']}", {"version": 1, "count": 3}), 409)
        self.assertProblem(self.ada.patch(f"/things/{row['id']}", {"version": 3, "count": 0}), 422)
        self.assertEqual(self.ada.delete(f"/things/{row['id']}?version=3").status_code, 204)
        back = self.ada.post(f"/spaces/{space}/things/back", {**row["thing"], "count": 9}).body
        self.assertEqual({t["thing"]["id"] for t in back["things"]}, {"t1", "t2"})

    def test_one_bad_group_adds_none(self) -> None:
        space = self.closet()
        self.assertProblem(self.ada.post(f"/spaces/{space}/things", {"line": "3 shirts; 0 hats"}), 422, "1 to 10,000")
        self.assertEqual(self.ada.get(f"/spaces/{space}/things").body["things"], [])

    def test_demand_in_the_units_of_the_house(self) -> None:
        metric = self.ada.get(f"/spaces/{self.closet(things='10 shirts')}/things").body["demand"][0]
        self.assertIn("280 mm", metric["bare"])
        imperial = self.ada.get(f"/spaces/{self.closet(things='10 shirts', units='imperial')}/things").body["demand"][0]
        self.assertIn('11"', imperial["bare"])
