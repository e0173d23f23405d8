"""How often the database is asked: the same number of times for a small house as for a large one."""

from collections.abc import Callable
from typing import Any

from django.db import connection
from django.test.utils import CaptureQueriesContext

from pinakotheke.server import models

from .base import ServerTestCase


class QueryTests(ServerTestCase):
    def grown(self, spaces: int, things: int) -> int:
        """A household with so many measured spaces of so many things; its number."""
        home = self.household()
        for n in range(spaces):
            space = self.ada.post(f"/households/{home}/spaces", {"name": f"Closet {n}"}).body["id"]
            self.ada.post(f"/spaces/{space}/call-out", {"line": "width 1846; height 2400; depth 600", "version": 1})
            self.ada.post(f"/spaces/{space}/things", {"line": "; ".join(["2 shirts"] * things)})
        return home

    def asked(self, act: Callable[[], Any]) -> int:
        with CaptureQueriesContext(
            connection,
        ) as caught:
            answer = act()
        self.assertEqual(answer.status_code, 200, answer.content[:200])
        return len(caught)

    def assertSteady(self, act: Callable[[int], Any], *, more: int = 0) -> None:  # noqa: N802
        small, large = self.grown(1, 1), self.grown(5, 8)
        one, many = (self.asked(lambda home=home: act(home)) for home in (small, large))
        self.assertLessEqual(many, one + more)

    def test_homes(self) -> None:
        self.assertSteady(lambda home: self.ada.get(f"/households/{home}/homes"))

    def test_the_house_file(self) -> None:
        self.assertSteady(lambda home: self.ada.get(f"/households/{home}/house-file"))

    def test_a_change_of_many(self) -> None:
        def change(home: int) -> Any:
            ids = list(models.Thing.objects.filter(household=home).values_list("pk", flat=True))
            return self.ada.post(f"/households/{home}/things/change", {"ids": ids, "decision": "sell"})

        self.assertSteady(change)

    def test_the_gallery_and_the_polling_of_a_search(self) -> None:
        space = self.closet("width 1846; height 2412; depth 612; door none", "9 shirts; 5 jumpers; 12 socks")
        asked = self.ada.post(f"/spaces/{space}/solves").body["id"]
        designs = models.Design.objects.filter(space_id=space)
        acts = (lambda: self.ada.get(f"/spaces/{space}/designs"), lambda: self.ada.get(f"/solves/{asked}"))
        all_of_them = [self.asked(act) for act in acts]
        self.assertGreater(designs.count(), 2)
        designs.exclude(pk=designs.order_by("pk")[0].pk).delete()
        self.assertEqual([self.asked(act) for act in acts], all_of_them)
