"""Seasons and reviews through the API: swaps with both states proven, reviews that change what is asked for and go back,
what leaves, and the calendar; another household sees none of it.
"""

import json
from datetime import timedelta

import vobject
from django.utils import timezone

from pinakotheke.server import models

from .base import ServerTestCase
from .test_install import READ


class KeepingTestCase(ServerTestCase):
    def setUp(self) -> None:
        super().setUp()
        self.space = self.closet(READ, "9 shirts; 5 jumpers; 6 jeans; 3 hand tools; 4 scarves")
        self.ada.post(f"/spaces/{self.space}/solves", {"families": ["track"]})
        self.row = models.Design.objects.filter(space=self.space).order_by("pk").first()
        assert self.row is not None
        self.house = models.Space.objects.get(pk=self.space).household_id
        self.places = self.ada.post(f"/designs/{self.row.pk}/move-in").body["places"]
        self.key = dict(models.Thing.objects.values_list("name", "key"))

    def place_of(self, name: str) -> dict[str, object]:
        return next(p for p in self.places if any(s["name"] == name for s in p["stays"]))

    def named(self, name: str) -> models.Place:
        self.ada.post(f"/spaces/{self.space}/places", {"name": name})
        return models.Place.objects.get(name=name)

    def held(self) -> dict[str, dict[str, int]]:
        found: dict[str, dict[str, int]] = {}
        for s in models.Stay.objects.select_related("place", "thing"):
            found.setdefault(s.place.name, {})[s.thing.name] = s.count
        return found


class SeasonsTests(KeepingTestCase):
    def swap(self, **more):  # type: ignore[no-untyped-def]
        data = {"name": "Winter", "begins": "10-15", "ends": "04-15", "now": "during", "rows": [], **more}
        return self.ada.post(f"/households/{self.house}/swaps", data)

    def test_a_swap_there_and_back_is_as_it_was(self) -> None:
        loft = self.named("Loft box")
        here = self.place_of("Jumpers")
        row = {"thing": self.key["Jumpers"], "count": 5, "during": here["key"], "after": loft.key}
        self.assertEqual(self.swap(rows=[row]).status_code, 204)
        before = self.held()
        (swap,) = self.ada.get(f"/households/{self.house}/seasons?space={self.space}").body["swaps"]
        self.assertEqual((swap["moves"], swap["wrong"], swap["fewest"]),
                         ([f"5 Jumpers: from {here['name']} (Closet) into Loft box (Closet)"], [], True))  # fmt: skip
        self.assertIn("Nobody measured Loft box", swap["note"])
        done = f"/households/{self.house}/swaps/{swap['key']}/done"
        self.assertEqual(self.ada.post(done).status_code, 204)
        self.assertEqual(self.held()["Loft box"], {"Jumpers": 5})
        (swap,) = self.ada.get(f"/households/{self.house}/seasons").body["swaps"]
        self.assertEqual((swap["now"], swap["moves"][0][:24]), ("after", "5 Jumpers: from Loft box"))
        self.ada.post(done)
        self.assertEqual(self.held(), before)

    def test_a_place_that_does_not_take_it_is_said(self) -> None:
        here, there = self.place_of("Jumpers"), self.place_of("Shirts")
        models.Thing.objects.filter(name="Jumpers").update(count=400)
        models.Stay.objects.filter(thing__name="Jumpers").update(count=400)
        rows = [{"thing": self.key["Jumpers"], "count": 400, "during": here["key"], "after": there["key"]}]
        self.swap(rows=rows)
        (swap,) = self.ada.get(f"/households/{self.house}/seasons").body["swaps"]
        self.assertTrue(any(f"{there['name']} (Closet), out of the season" in w for w in swap["wrong"]), swap["wrong"])
        self.assertTrue(any("in the season" in w for w in swap["wrong"]), swap["wrong"])

    def test_what_was_designed_fits_by_the_same_measure(self) -> None:
        for place in self.places:
            for stay in place["stays"]:
                self.swap(rows=[{"thing": stay["thing"], "count": stay["count"], "during": place["key"], "after": ""}])
        swaps = self.ada.get(f"/households/{self.house}/seasons").body["swaps"]
        self.assertEqual([s["wrong"] for s in swaps if s["wrong"]], [])

    def test_bad_input_is_said_and_nothing_is_lost(self) -> None:
        self.assertEqual(self.swap(begins="02-30").status_code, 422)
        self.assertEqual(self.swap(begins="2-3").status_code, 422)
        self.assertEqual(self.swap(rows=[{"thing": "no", "count": 1}]).status_code, 404)
        self.assertEqual(self.swap(rows=[{"thing": self.key["Jumpers"], "count": 1, "during": "no"}]).status_code, 404)
        self.swap()
        key = models.Swap.objects.get().key
        at = f"/households/{self.house}/swaps/{key}"
        self.assertEqual(self.ada.put(at, {"name": "Cold", "begins": "11-01", "ends": "03-31"}).status_code, 204)
        self.assertEqual((models.Swap.objects.get().name, models.Swap.objects.get().now), ("Cold", "during"))
        self.assertEqual(self.eve.post(f"{at}/done").status_code, 404)
        self.assertEqual(self.ada.delete(at).status_code, 204)
        self.assertEqual(self.ada.post(f"{at}/done").status_code, 404)

    def test_the_calendar_is_read_by_another_reader(self) -> None:
        self.swap(name="Winter clothes")
        models.Thing.objects.filter(name="Jeans").update(decision="sell")
        jeans = models.Thing.objects.get(name="Jeans")
        by = (timezone.localdate() + timedelta(days=9)).isoformat()
        self.ada.put(f"/things/{jeans.pk}/leaving", {"to": "Ines", "by": by})
        calendar = vobject.readOne(self.ada.get(f"/households/{self.house}/keeping.ics").content.decode())
        events = {e.summary.value: e for e in calendar.vevent_list}
        self.assertEqual(
            set(events), {"Winter clothes: out", "Winter clothes: away", "Closet: look again", "Jeans: sell"}
        )
        self.assertEqual(events["Winter clothes: out"].dtstart.value.strftime("%m-%d"), "10-15")
        self.assertEqual(events["Winter clothes: out"].rrule.value, "FREQ=YEARLY")
        self.assertEqual(events["Jeans: sell"].dtstart.value.isoformat(), by)
        look = timezone.localdate() + timedelta(days=14)
        self.assertEqual(events["Closet: look again"].dtstart.value, look)


class ReviewTests(KeepingTestCase):
    def reviewed(self, *answers, key: str = "r1", **more):  # type: ignore[no-untyped-def]
        return self.ada.post(f"/spaces/{self.space}/reviews", {"key": key, "answers": list(answers), **more})

    def test_answers_change_what_is_asked_for_and_go_back(self) -> None:
        before = list(models.Thing.objects.order_by("pk").values_list("key", "count", "decision", "frequency"))
        full, lay = self.place_of("Jumpers"), self.held()
        got = self.reviewed(
            {"seen": "overflows", "place": full["key"]},
            {"seen": "more", "thing": self.key["Jumpers"], "count": 12},
            {"seen": "more", "thing": self.key["Shirts"], "count": 11, "leaves": "give away"},
            {"seen": "unused", "thing": self.key["Jeans"], "leaves": "sell", "count": 2},
            {"seen": "strays", "thing": self.key["Hand tools"]},
            {"seen": "unused", "thing": self.key["Scarves"], "leaves": "recycle"},
        )
        self.assertEqual(got.status_code, 200, got.content)
        things = {t.key: t for t in models.Thing.objects.all()}
        self.assertEqual(things[self.key["Jumpers"]].count, 12)
        self.assertEqual((things[self.key["Shirts"]].count, things[self.key["Jeans"]].count), (9, 4))
        self.assertEqual({(x["name"], x["count"], x["decision"]) for x in got.body["leaving"]},
                         {("Shirts", 2, "give away"), ("Jeans", 2, "sell"), ("Scarves", 4, "recycle")})  # fmt: skip
        tools = self.key["Hand tools"]
        self.assertNotEqual(things[tools].frequency, {key: often for key, _, _, often in before}[tools])
        self.assertEqual(self.reviewed({"seen": "fine", "place": full["key"]}).body["past"], got.body["past"])
        self.assertEqual(len(got.body["past"][0]["says"]), 6)
        self.assertEqual(sum(one.get("Jeans", 0) for one in self.held().values()), 4)  # no more than there are
        back = self.ada.delete(f"/households/{self.house}/reviews/r1")
        self.assertEqual((back.status_code, back.body["past"], back.body["leaving"]), (200, [], []))
        now = list(models.Thing.objects.order_by("pk").values_list("key", "count", "decision", "frequency"))
        self.assertEqual(now, before)
        self.assertEqual(self.held(), lay)

    def test_what_somebody_changed_again_stays_when_a_look_is_taken_back(self) -> None:
        self.reviewed({"seen": "more", "thing": self.key["Jumpers"], "count": 12})
        models.Thing.objects.filter(name="Jumpers").update(count=7)
        self.ada.delete(f"/households/{self.house}/reviews/r1")
        self.assertEqual(models.Thing.objects.get(name="Jumpers").count, 7)

    def test_when_the_next_look_is(self) -> None:
        got = self.ada.get(f"/spaces/{self.space}/review").body
        today = timezone.localdate()
        self.assertEqual((got["due"], got["overdue"]), ((today + timedelta(days=14)).isoformat(), False))
        month = self.ada.get(f"/spaces/{self.space}/review?school=month").body
        self.assertEqual(month["due"], (today + timedelta(days=30)).isoformat())
        chosen = self.reviewed(next_on="2030-01-02").body
        self.assertEqual(chosen["due"], "2030-01-02")
        old = timezone.now() - timedelta(days=400)
        models.LogEntry.objects.update(at=old)
        models.Review.objects.all().delete()
        late = self.ada.get(f"/spaces/{self.space}/review").body
        self.assertTrue(late["overdue"])
        self.assertTrue(any("nobody moved it for 400 days" in look["says"] for look in late["looks"]))

    def test_where_what_overflows_has_room(self) -> None:
        full = self.place_of("Scarves")
        got = self.reviewed({"seen": "overflows", "place": full["key"]}).body
        self.assertTrue(all("there is room for" in line for line in got["relief"]))
        empty = [p for p in self.places if not p["stays"]]
        if empty:
            self.assertTrue(any(look["says"].endswith("is empty") for look in got["looks"]))

    def test_what_leaves_goes_out_and_is_counted(self) -> None:
        jeans = models.Thing.objects.get(name="Jeans")
        self.assertEqual(self.ada.post(f"/things/{jeans.pk}/gone").status_code, 422)
        self.assertEqual(self.ada.put(f"/things/{jeans.pk}/leaving", {"to": "Ines"}).status_code, 422)
        models.Thing.objects.filter(pk=jeans.pk).update(decision="give away")
        said = self.ada.put(f"/things/{jeans.pk}/leaving", {"to": "Ines", "by": "2026-01-01"}).body
        self.assertEqual((said["to"], said["by"], said["late"]), ("Ines", "2026-01-01", True))
        (queued,) = self.ada.get(f"/households/{self.house}/leaving").body
        self.assertEqual(queued, said)
        self.assertEqual(self.eve.post(f"/things/{jeans.pk}/gone").status_code, 404)
        self.assertEqual(self.ada.post(f"/things/{jeans.pk}/gone").status_code, 204)
        self.assertEqual(self.ada.get(f"/households/{self.house}/leaving").body, [])

    def test_a_child_grows_into_what_is_kept_from_it(self) -> None:
        self.ada.post(f"/households/{self.house}/people", {"name": "Juna", "stature": "1050", "age": "child"})
        self.ada.post(f"/spaces/{self.space}/things", {"line": "2 boxes of medicine"})
        pills = models.Thing.objects.get(kind="medicine-box")
        place = models.Place.objects.exclude(part="").first()
        assert place is not None
        models.Place.objects.filter(pk=place.pk).update(height=1400)
        self.ada.put(f"/places/{place.pk}/stays", {"thing": pills.key, "count": 2})
        grown = self.ada.get(f"/spaces/{self.space}/review").body["growing"]
        self.assertTrue(any("Juna reaches Boxes of medicine" in line for line in grown), grown)

    def test_all_of_it_travels_in_the_house_file(self) -> None:
        loft = self.named("Loft box")
        here = self.place_of("Jumpers")
        row = {"thing": self.key["Jumpers"], "count": 5, "during": here["key"], "after": loft.key}
        data = {"name": "Winter", "begins": "10-15", "ends": "04-15", "rows": [row]}
        self.ada.post(f"/households/{self.house}/swaps", data)
        self.reviewed({"seen": "fine", "place": here["key"]})
        whole = self.ada.get(f"/households/{self.house}/house-file").content
        kept = json.loads(whole)
        self.assertEqual((len(kept["swaps"]), len(kept["reviews"])), (1, 1))
        self.bring(whole)
        self.assertEqual((models.Swap.objects.count(), models.Review.objects.count()), (2, 2))
        wrong = {**kept, "swaps": [{**kept["swaps"][0], "rows": [{**row, "after": "no"}]}]}
        self.bring(json.dumps(wrong).encode())
        self.bring(json.dumps({**kept, "reviews": [{**kept["reviews"][0], "space": "no"}]}).encode())
        self.assertEqual(models.Swap.objects.count(), 2)
