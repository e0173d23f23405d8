"""What can be bought: ranges and containers of the household's own, through the API, up to the designs made of them."""

from typing import Any

from django.test import override_settings

from pinakotheke.core.layout import Design
from pinakotheke.server import jobs, models

from .base import ServerTestCase

LINE = "width 1846 1849 1843; height 2412; depth 612; opening 1250 x 2030; nibs 296 300"
THINGS = "9 shirts; 5 jumpers; 6 jeans"
FRAMES = "item\twidth\tdepth\theight\tprice\nFrame\t450\t584\t2000\t61\nFrame\t900\t584\t2000\t88\nsofa\t1\t1\t1\t1"
COLUMNS = "article,width,depth,height,price"


class RangeTests(ServerTestCase):
    def setUp(self) -> None:
        super().setUp()
        self.house = self.household()
        self.path = f"/households/{self.house}"

    def made(self, family: str = "carcase", name: str = "Oak line") -> Any:
        """A new range, as the catalogue shows it."""
        answer = self.ada.post(f"{self.path}/ranges", {"family": family, "name": name})
        self.assertEqual(answer.status_code, 201, answer.content)
        return answer.body["ranges"][-1]

    def form(self, path: str, **fields: str) -> Any:
        """A form sent as a browser sends one."""
        token = {"X-CSRFToken": self.ada.client.cookies["csrftoken"].value}
        response: Any = self.ada.client.post(f"/api{path}", fields, headers=token)
        response.body = response.json()
        return response

    def test_made_changed_taken_out_and_put_back(self) -> None:
        own = self.made()
        self.assertEqual((own["key"], own["summary"], own["version"]), ("oak-line", "sizes as they ship", 1))
        self.assertIn("Hanging rail", own["reckoned"])
        change = {"version": 1, "name": "Oak", "pitch": "25", "sizes": {"widths": "900, 45 cm", "depths": ""},
                  "rates": {"shelf": {"fixed": 2, "per_m2": 11}}, "ratings": {"shelf": 12}}  # fmt: skip
        answer = self.ada.put(f"{self.path}/ranges/oak-line", change)
        self.assertEqual(answer.status_code, 200, answer.content)
        changed = answer.body["ranges"][0]
        self.assertEqual((changed["name"], changed["pitch"], changed["summary"]), ("Oak", "25", "widths 450, 900"))
        self.assertEqual(next(s["own"] for s in changed["sizes"] if s["name"] == "widths"), "450, 900")
        self.assertEqual(next(r["own"] for r in changed["ratings"] if r["role"] == "shelf"), 12)
        self.assertProblem(self.ada.put(f"{self.path}/ranges/oak-line", change), 409)
        back = self.ada.put(f"{self.path}/ranges/oak-line", {"version": 2, "whole": own["whole"]})
        self.assertEqual(back.body["ranges"][0]["whole"], own["whole"])
        self.assertEqual(self.ada.delete(f"{self.path}/ranges/oak-line").body["ranges"], [])
        whole = {"family": "carcase", "name": "x", "whole": changed["whole"]}
        again = self.ada.post(f"{self.path}/ranges", whole).body["ranges"]
        self.assertEqual(again[0]["whole"], changed["whole"])
        self.assertProblem(self.ada.post(f"{self.path}/ranges", whole), 422, "there already")

    def test_what_cannot_be_is_refused_and_nothing_is_lost(self) -> None:
        own = self.made()
        for change, part in (
            ({"sizes": {"widths": "99000 mm"}}, "less than or equal"), ({"sizes": {"widths": "5"}}, "between 100"),
            ({"sizes": {"widths": "wide"}}, "wide"), ({"pitch": "two"}, "two"),
            ({"sizes": {"bays": "400"}}, "has no bays"), ({"ratings": {"sofa": 2}}, "no compartment"),
            ({"ratings": {"shelf": -2}}, "greater than 0"), ({"rates": {"shelf": {"fixed": -1}}}, "greater than"),
        ):  # fmt: skip
            with self.subTest(change):
                self.assertProblem(self.ada.put(f"{self.path}/ranges/oak-line", {"version": 1, **change}), 422, part)
        self.assertProblem(self.ada.post(f"{self.path}/ranges", {"family": "sofa", "name": "x"}), 422, "no family")
        self.assertEqual(self.ada.get(f"{self.path}/catalogue").body["ranges"], [own])

    def test_a_list_gives_articles_and_comes_out_as_csv(self) -> None:
        self.made()
        seen = self.form(f"{self.path}/supplier-list", text=FRAMES)
        self.assertEqual([c["guess"] for c in seen.body["columns"]], COLUMNS.split(","))
        taken = self.form(f"{self.path}/ranges/oak-line/list", text=FRAMES, columns=COLUMNS)
        self.assertEqual((taken.status_code, taken.body["added"]), (200, 2))
        self.assertEqual([f["row"] for f in taken.body["faults"]], [4])
        self.assertEqual(taken.body["catalogue"]["ranges"][0]["summary"],
                         "widths 450, 900; depths 584; heights 2070")  # fmt: skip
        text = self.ada.client.get(f"/api{self.path}/ranges/oak-line/articles.csv").content.decode()
        again = self.form(
            f"{self.path}/ranges/oak-line/list", text=text, columns="article,width,depth,height,price,rating,code"
        )
        self.assertEqual((again.body["added"], again.body["faults"]), (2, []))
        self.assertProblem(
            self.form(f"{self.path}/ranges/oak-line/list", text=FRAMES, columns="article,width"), 422, "price"
        )

    def test_containers_one_by_one_and_from_a_list(self) -> None:
        one = {"name": "tub", "size": "200 x 300 x 150", "price": "2.10", "lid": "lift"}
        answer = self.ada.post(f"{self.path}/containers", one)
        self.assertEqual(answer.status_code, 201, answer.content)
        tub = answer.body["containers"][0]
        self.assertEqual((tub["key"], tub["price"], tub["size"]), ("c1", "2.10", "200 × 300 × 150 mm"))
        self.assertProblem(
            self.ada.post(f"{self.path}/containers", {**one, "size": "200 x 300"}), 422, "width by depth"
        )
        self.assertProblem(
            self.ada.post(f"{self.path}/containers", {**one, "size": "3 x 3 x 3"}), 422, "nothing inside"
        )
        text = "name,w,d,h,price\ncrate,300,400,250,6\npipe,50,,50,1"
        taken = self.form(f"{self.path}/containers/list", text=text, columns=COLUMNS)
        self.assertEqual((taken.body["added"], len(taken.body["faults"])), (1, 1))
        left = self.ada.delete(f"{self.path}/containers/c1").body["containers"]
        self.assertEqual([c["name"] for c in left], ["crate"])
        self.assertProblem(self.ada.delete(f"{self.path}/containers/c1"), 404)

    def test_they_are_the_households_alone(self) -> None:
        own = self.made()
        for method, path, data in (
            ("get", "/catalogue", None), ("post", "/ranges", {"family": "carcase", "name": "x"}),
            ("put", "/ranges/oak-line", {"version": 1}), ("delete", "/ranges/oak-line", None),
            ("get", "/ranges/oak-line/articles.csv", None),
            ("post", "/containers", {"name": "x", "size": "3 x 3 x 3", "price": "1"}), ("delete", "/containers/c1", None),
        ):  # fmt: skip
            with self.subTest(path):
                self.assertProblem(self.eve.send(method.upper(), f"{self.path}{path}", data), 404)
        self.assertEqual(self.ada.get(f"{self.path}/catalogue").body["ranges"], [own])

    def test_at_most_so_many(self) -> None:
        models.Range.objects.bulk_create(
            models.Range(household_id=self.house, key=f"r{n}", data={"family": "rack", "name": "r"}) for n in range(40)
        )
        self.assertProblem(self.ada.post(f"{self.path}/ranges", {"family": "rack", "name": "x"}), 422, "at most 40")


@override_settings(SOLVE_EFFORT=0.05)
class DesignedTests(ServerTestCase):
    """A search, a hand edit and the house file with a range of the household's own."""

    def setUp(self) -> None:
        super().setUp()
        self.space = self.closet(LINE, THINGS)
        self.house = models.Space.objects.get(pk=self.space).household_id
        self.path = f"/households/{self.house}"
        self.ada.post(f"{self.path}/ranges", {"family": "carcase", "name": "Oak"})
        change = {"version": 1, "name": "Oak", "sizes": {"widths": "450, 900"}}
        self.oak = self.ada.put(f"{self.path}/ranges/oak", change).body["ranges"][0]

    def families(self) -> dict[str, str]:
        """Ids of the families that can be asked for, by name."""
        return {f["name"]: f["id"] for f in self.ada.get(f"/spaces/{self.space}/designs").body["families"]}

    def searched(self, *families: str) -> Any:
        """The gallery after a search."""
        asked = self.ada.post(f"/spaces/{self.space}/solves", {"families": list(families)})
        self.assertEqual(asked.status_code, 202, asked.content)
        return self.ada.get(f"/spaces/{self.space}/designs").body

    def test_a_search_uses_it_and_its_designs_outlive_it(self) -> None:
        families = self.families()
        self.assertNotIn("Carcase", families)
        gallery = self.searched(families["Oak"])
        self.assertEqual({d["family"] for d in gallery["designs"]}, {"Oak"})
        card = gallery["designs"][0]
        change = {"version": self.oak["version"], "name": "Oak", "rates": {"shelf": {"fixed": 500}}}
        self.assertEqual(self.ada.put(f"{self.path}/ranges/oak", change).status_code, 200)
        self.ada.delete(f"{self.path}/ranges/oak")
        again = self.ada.get(f"/designs/{card['id']}")
        self.assertEqual((again.status_code, again.body["ledger"]["cost"]), (200, card["cost"]))
        self.assertIn("Carcase", self.families())
        self.assertProblem(
            self.ada.post(f"/spaces/{self.space}/solves", {"families": [families["Oak"]]}), 422, "no family"
        )

    def test_a_search_that_named_a_range_changed_since_takes_the_others(self) -> None:
        asked = self.ada.post(f"/spaces/{self.space}/solves", {"families": [self.families()["Oak"]]}).body
        self.ada.delete(f"{self.path}/ranges/oak")
        solve = models.Solve.objects.get(pk=asked["id"])
        self.assertIsNone(jobs.task_of(solve).families)

    def test_a_row_becomes_one_of_the_range_and_undo_brings_the_old_one_back(self) -> None:
        gallery = self.searched("track")
        card = next(d for d in gallery["designs"] if "Track" in d["family"])
        edit = {
            "version": card["version"],
            "command": {"do": "swap family", "bay": 0, "family": self.families()["Oak"]},
        }
        answer = self.ada.post(f"/designs/{card['id']}/edits", edit)
        self.assertEqual((answer.status_code, answer.body["family"]), (200, "Oak"), answer.content[:300])
        design = Design.model_validate(models.Design.objects.get(pk=card["id"]).base)
        self.assertEqual(design.ranges, (), "the base is as it was; the edit carries the range")
        undone = self.ada.post(f"/designs/{card['id']}/undo", {"version": answer.body["version"]}).body
        self.assertNotIn("Oak", undone["family"])

    def test_the_house_file_brings_all_of_it(self) -> None:
        self.searched(self.families()["Oak"])
        self.ada.post(f"{self.path}/containers", {"name": "tub", "size": "200 x 300 x 150", "price": "2.10"})
        first = self.ada.client.get(f"/api{self.path}/house-file").content
        again = self.ada.client.get(f"/api/households/{self.bring(first)['household']}/house-file").content
        self.assertEqual(first, again)
