"""Keep through the API: moving in, what lies where, labels, where is it; another household sees none of it."""

import csv
from io import BytesIO, StringIO

from pypdf import PdfReader

from pinakotheke.server import models

from .base import ServerTestCase
from .test_install import READ


class UpkeepTests(ServerTestCase):
    def setUp(self) -> None:
        super().setUp()
        self.space = self.closet(READ, "9 shirts; 5 jumpers; 6 jeans; 3 hand tools")
        self.ada.post(f"/spaces/{self.space}/solves", {"families": ["track"]})
        self.row = models.Design.objects.filter(space=self.space).order_by("pk").first()
        assert self.row is not None
        self.house = models.Space.objects.get(pk=self.space).household_id

    def moved_in(self):  # type: ignore[no-untyped-def]
        answer = self.ada.post(f"/designs/{self.row.pk}/move-in")
        self.assertEqual(answer.status_code, 200, answer.content)
        return answer.body

    def test_a_design_is_moved_into_and_its_places_hold_what_it_gave_them(self) -> None:
        before = self.ada.get(f"/spaces/{self.space}/places").body
        self.assertEqual((before["places"], before["design"]), ([], None))
        self.assertEqual({one["name"] for one in before["loose"]} >= {"Shirts", "Jumpers", "Jeans"}, True)
        got = self.moved_in()
        self.assertEqual((got["design"], got["differences"]), (self.row.pk, []))
        held = {s["name"]: s["count"] for p in got["places"] for s in p["stays"]}
        self.assertEqual((held["Shirts"], held["Jumpers"], held["Jeans"]), (9, 5, 6))
        self.assertEqual(sorted(p["order"] for p in got["places"]), list(range(1, len(got["places"]) + 1)))
        shown = {p["id"] for p in self.ada.get(f"/designs/{self.row.pk}").body["parts"]}
        self.assertTrue({p["part"] for p in got["places"]} <= shown)
        again = self.moved_in()
        self.assertEqual(len(again["places"]), len(got["places"]))
        states = self.ada.get(f"/spaces/{self.space}/ledger?design={self.row.pk}").body["states"]
        self.assertEqual(states["upkeep"], f"{len(got['places'])} places")
        self.assertEqual(self.ada.delete(f"/spaces/{self.space}/places").body["places"], [])

    def test_what_lies_elsewhere_than_planned_is_said_and_nothing_is_doubled(self) -> None:
        got = self.moved_in()
        here = next(p for p in got["places"] if any(s["name"] == "Shirts" for s in p["stays"]))
        there = next(p for p in got["places"] if p["id"] != here["id"])
        shirts = next(s["thing"] for s in here["stays"] if s["name"] == "Shirts")
        after = self.ada.put(f"/places/{there['id']}/stays", {"thing": shirts, "count": 4}).body
        by_id = {p["id"]: {s["thing"]: s["count"] for s in p["stays"]} for p in after["places"]}
        self.assertEqual((by_id[here["id"]][shirts], by_id[there["id"]][shirts]), (5, 4))
        self.assertTrue(any("5 there, 9 planned" in d for d in after["differences"]))
        self.assertTrue(any("none planned" in d for d in after["differences"]))
        out = self.ada.put(f"/places/{there['id']}/stays", {"thing": shirts, "count": 0}).body
        (loose,) = [one for one in out["loose"] if one["thing"] == shirts]
        self.assertEqual((loose["count"], loose["of"]), (4, 9))
        many = self.ada.put(f"/places/{there['id']}/stays", {"thing": shirts, "count": 10})
        self.assertEqual((many.status_code, many.body["mend"][:14]), (422, "Change in Sort"))
        self.assertEqual(self.ada.put(f"/places/{there['id']}/stays", {"thing": "no", "count": 1}).status_code, 404)
        lent = self.ada.put(f"/places/{here['id']}/lent", {"thing": shirts, "to": "Ines"}).body
        (stay,) = [s for p in lent["places"] for s in p["stays"] if s["thing"] == shirts]
        self.assertEqual((stay["lent_to"], len(stay["lent_on"])), ("Ines", 10))

    def test_places_of_a_space_as_it_is(self) -> None:
        one = self.ada.post(f"/spaces/{self.space}/places", {"name": "Drawer by the door"})
        self.assertEqual(one.status_code, 201)
        (place,) = one.body["places"]
        named = self.ada.put(f"/places/{place['id']}", {"name": "Small drawer"}).body["places"][0]
        self.assertEqual((named["name"], named["part"]), ("Small drawer", ""))
        self.moved_in()
        kept = self.ada.get(f"/spaces/{self.space}/places").body["places"]
        self.assertIn("Small drawer", [p["name"] for p in kept])
        self.assertEqual(self.ada.get(f"/places/{place['id']}").body["space"], self.space)
        self.assertEqual(self.ada.delete(f"/places/{place['id']}").status_code, 200)
        self.assertEqual(self.ada.get(f"/places/{place['id']}").status_code, 404)
        self.assertEqual(self.ada.post(f"/spaces/{self.space}/places", {"name": " "}).status_code, 422)

    def test_labels_are_printed_and_known_to_be_out_of_date(self) -> None:
        got = self.moved_in()
        place = next(p for p in got["places"] if any(s["name"] == "Jumpers" for s in p["stays"]))
        path = f"/spaces/{self.space}/labels.pdf"
        pages = PdfReader(BytesIO(self.ada.get(f"{path}?places={place['id']}&sheet=a4-2x7&first=3").content)).pages
        self.assertIn(place["title"].split()[0], pages[0].extract_text())
        self.assertEqual(self.ada.get(f"{path}?places={place['id']}&sheet=a9").status_code, 422)
        self.assertEqual(self.ada.get(f"{path}?places=99999").status_code, 422)
        printed = self.ada.post(f"/spaces/{self.space}/printed", {"places": [place["id"]]}).body
        mine = next(p for p in printed["places"] if p["id"] == place["id"])
        self.assertEqual((mine["outdated"], len(mine["printed_on"])), (False, 10))
        for stay in mine["stays"]:
            self.ada.put(f"/places/{place['id']}/stays", {"thing": stay["thing"], "count": 0})
        after = self.ada.get(f"/spaces/{self.space}/places?sheet=letter-3x10").body
        self.assertTrue(next(p for p in after["places"] if p["id"] == place["id"])["outdated"])
        self.assertEqual(after["sheet"], "letter-3x10")
        rows = list(csv.reader(StringIO(self.ada.get(f"/spaces/{self.space}/map.csv").content.decode())))
        self.assertEqual(rows[0][:4], ["space", "place", "height", "thing"])
        self.assertEqual(sum(int(r[4]) for r in rows[1:]), sum(s["count"] for p in after["places"] for s in p["stays"]))

    def test_where_is_it(self) -> None:
        self.moved_in()

        def asked(question: str):  # type: ignore[no-untyped-def]
            return self.ada.get(f"/households/{self.house}/find?q={question}").body

        found = asked("where are my jumprs")[0]
        self.assertEqual((found["what"], found["name"]), ("thing", "Jumpers"))
        self.assertTrue(found["where"][0]["place"])
        self.assertEqual(asked("sweater")[0]["name"], "Jumpers")
        self.assertEqual(asked("hammer")[0]["name"], "Hand tools")
        self.assertEqual(asked("xyzzy"), [])
        thing = models.Thing.objects.get(name="Jumpers")
        listed = self.ada.get(f"/spaces/{self.space}/things").body
        self.assertTrue(listed)
        self.ada.put(f"/things/{thing.pk}", {"name": "cardigans from Riga", "version": thing.version})
        models.Thing.objects.filter(pk=thing.pk).update(name="cardigans from Riga", version=thing.version + 5)
        models.LogEntry.objects.create(household_id=self.house, action="test")
        self.assertEqual(asked("riga")[0]["name"], "cardigans from Riga")
        self.ada.post(f"/spaces/{self.space}/places", {"name": "Blue crate"})
        self.assertEqual(asked("blue crate")[0]["what"], "place")

    def test_filled_places_and_where_labels_stick_and_where_does_this_go(self) -> None:
        got = self.moved_in()
        place = got["places"][0]
        for _ in range(2):
            self.assertEqual(self.ada.put(f"/places/{place['id']}/filled", {"filled": True}).status_code, 204)
        after = self.ada.get(f"/spaces/{self.space}/places?sheet=a4-3x7&pictured=true").body["places"]
        self.assertTrue(after[0]["filled_on"])
        self.assertTrue(all(p["stick"] for p in after if p["part"]))
        self.assertEqual(models.LogEntry.objects.filter(action="upkeep.filled").count(), 1)
        self.ada.put(f"/places/{place['id']}/filled", {"filled": False})
        self.assertEqual(models.Place.objects.get(pk=place["id"]).filled_on, "")
        self.assertEqual(self.eve.put(f"/places/{place['id']}/filled", {"filled": True}).status_code, 404)
        self.ada.post(f"/spaces/{self.space}/things", {"line": "2 hoodies; 1 kite"})
        (hoodies,) = self.ada.get(f"/households/{self.house}/find?q=hoodies").body[:1]
        held = {p["name"] for p in after if any(s["name"] in ("Jumpers", "Jeans", "Shirts") for s in p["stays"])}
        self.assertIn(hoodies["beside"]["place_name"], held)
        (kite,) = self.ada.get(f"/households/{self.house}/find?q=kite").body[:1]
        self.assertIsNone(kite["beside"])
        pictured = self.ada.get(f"/spaces/{self.space}/labels.pdf?pictured=true").content
        self.assertNotEqual(len(pictured), len(self.ada.get(f"/spaces/{self.space}/labels.pdf").content))

    def test_the_log_is_read_by_kind_person_and_day_page_by_page(self) -> None:
        self.moved_in()
        path = f"/households/{self.house}/log"
        got = self.ada.get(path).body
        self.assertTrue(got["lines"][0]["says"].startswith("moved in"), got["lines"][0])
        self.assertEqual((got["more"], got["people"]), (False, ["ada"]))
        self.assertIn("measured", " ".join(line["says"] for line in got["lines"]))
        places = self.ada.get(f"{path}?kind=places").body["lines"]
        self.assertEqual([line["kind"] for line in places], ["places"])
        self.assertTrue(self.ada.get(f"{path}?kind=readings&by=ada").body["lines"])
        self.assertEqual(self.ada.get(f"{path}?by=eve").body["lines"], [])
        self.assertEqual(self.ada.get(f"{path}?until=2020-01-01").body["lines"], [])
        self.assertEqual(len(self.ada.get(f"{path}?since=2020-01-01").body["lines"]), len(got["lines"]))
        place = self.ada.post(f"/spaces/{self.space}/places", {"name": "Größte Kiste"}).body["places"][-1]
        jumpers = models.Thing.objects.get(name="Jumpers").key
        self.ada.put(f"/places/{place['id']}/stays", {"thing": jumpers, "count": 2})
        (line,) = self.ada.get(f"{path}?q=jumpers in").body["lines"]
        self.assertEqual(line["says"], "put: Jumpers in Größte Kiste, 2")
        key = models.Space.objects.get(pk=self.space).key
        here = {line["says"] for line in self.ada.get(f"{path}?space={key}").body["lines"]}
        self.assertIn(line["says"], here)
        self.assertTrue(any(says.startswith("measured") for says in here), here)
        self.assertEqual(self.ada.get(f"{path}?space=elsewhere").body["lines"], [])
        self.assertEqual(len(self.ada.get(f"{path}?q=Größte").body["lines"]), 2)
        self.assertEqual(self.ada.get(f"{path}?q=moved in").body["lines"][0]["says"][:8], "moved in")
        self.assertEqual(self.ada.get(f"{path}?q=100%25 never").body["lines"], [])
        got = self.ada.get(path).body
        for wrong in ("kind=nothing", "since=2026-02-31", "since=soon"):
            self.assertEqual(self.ada.get(f"{path}?{wrong}").status_code, 422, wrong)
        models.LogEntry.objects.bulk_create(
            models.LogEntry(household_id=self.house, action="upkeep.put", detail={"thing": f"t{n}"}) for n in range(150)
        )
        first = self.ada.get(path).body
        rest = self.ada.get(f"{path}?before={first['lines'][-1]['id']}").body
        self.assertEqual((len(first["lines"]), first["more"], rest["more"]), (100, True, False))
        self.assertEqual(len(first["lines"]) + len(rest["lines"]), 150 + len(got["lines"]))
        rows = list(csv.reader(StringIO(self.ada.get(f"{path}.csv?kind=places").content.decode())))
        self.assertEqual((rows[0], len(rows)), (["when", "who", "kind", "what"], 154))
        self.assertEqual(self.eve.get(path).status_code, 404)

    def test_another_household_sees_none_of_it(self) -> None:
        got = self.moved_in()
        place = got["places"][0]["id"]
        for path in (f"/spaces/{self.space}/places", f"/places/{place}", f"/households/{self.house}/find?q=shirt",
                     f"/spaces/{self.space}/labels.pdf?places={place}", f"/spaces/{self.space}/map.csv"):  # fmt: skip
            self.assertEqual(self.eve.get(path).status_code, 404, path)
        self.assertEqual(self.eve.post(f"/designs/{self.row.pk}/move-in").status_code, 404)
        self.assertEqual(self.eve.put(f"/places/{place}/stays", {"thing": "x", "count": 1}).status_code, 404)
        self.assertEqual(self.eve.delete(f"/places/{place}").status_code, 404)
        self.assertEqual(self.eve.delete(f"/spaces/{self.space}/places").status_code, 404)

    def test_the_house_file_carries_places_and_what_lies_in_them(self) -> None:
        self.moved_in()
        file = self.ada.get(f"/households/{self.house}/house-file").content
        brought = self.bring(file)["household"]
        self.assertEqual(self.ada.get(f"/households/{brought}/house-file").content, file)
        self.assertEqual(models.Stay.objects.filter(household=brought).count(),
                         models.Stay.objects.filter(household=self.house).count())  # fmt: skip
