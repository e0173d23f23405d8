"""Two people at once: one change wins, the other is told; a search and hand edits do not disturb each other."""

from concurrent.futures import ThreadPoolExecutor
from threading import Barrier
from typing import Any

from django.db import connection

from pinakotheke.server import models

from .base import Caller, ServerTestCase

LINE = "width 1846 1849 1843; height 2412; depth 612; opening 1250 x 2030; nibs 296 300"


class TogetherTests(ServerTestCase):
    def both(self, act: Any) -> list[int]:
        """Two members of the household do the same at the same moment; their status codes, sorted."""
        bo = Caller().register("bo")
        for household in models.Household.objects.all():
            models.Membership.objects.get_or_create(household=household, user_id=self._user("bo"))
        gate = Barrier(2)

        def run(caller: Caller) -> int:
            gate.wait()
            try:
                return int(act(caller).status_code)
            finally:
                connection.close()

        with ThreadPoolExecutor(2) as pool:
            return sorted(pool.map(run, (self.ada, bo)))

    @staticmethod
    def _user(name: str) -> int:
        from django.contrib.auth import get_user_model

        return int(get_user_model().objects.get(username=name).pk)

    def test_the_same_reading_typed_by_two(self) -> None:
        space = self.closet()
        slot = {"what": "width", "level": "low", "face": "back"}
        data = {"version": 1, "slot": slot, "text": "1846"}
        self.assertEqual(self.both(lambda who: who.post(f"/spaces/{space}/readings", data)), [200, 409])
        self.assertEqual(models.Reading.objects.count(), 1)

    def test_the_same_thing_changed_by_two(self) -> None:
        space = self.closet(things="3 shirts")
        row = models.Thing.objects.get(space_id=space)
        codes = self.both(lambda who: who.patch(f"/things/{row.pk}", {"version": 1, "count": 7}))
        self.assertEqual(codes, [200, 409])
        row.refresh_from_db()
        self.assertEqual((row.count, row.version), (7, 2))

    def test_things_added_by_two_are_all_there(self) -> None:
        space = self.closet()
        codes = self.both(lambda who: who.post(f"/spaces/{space}/things", {"line": "2 shirts; 3 jumpers"}))
        self.assertEqual(codes, [201, 201])
        keys = list(models.Thing.objects.values_list("key", flat=True))
        self.assertEqual(len(keys), 4)
        self.assertEqual(len(set(keys)), 4)

    def test_one_design_edited_by_two(self) -> None:
        space = self.closet(LINE, "9 shirts; 5 jumpers")
        self.ada.post(f"/spaces/{space}/solves")
        cards = self.ada.get(f"/spaces/{space}/designs").body["designs"]
        design = next(c for c in cards if c["title"] == "Most room to grow")
        command = {"do": "add", "role": "shelf", "bay": 0, "z": 1500}
        data = {"version": design["version"], "command": command}
        self.assertEqual(self.both(lambda who: who.post(f"/designs/{design['id']}/edits", data)), [200, 409])
        self.assertEqual(len(models.Design.objects.get(pk=design["id"]).done), 1)
