"""Every rung of the ladder, offered on the page and climbed by one act. The searches that follow are left out: what each
rung makes of a real one is tested at the API.
"""

from collections.abc import Callable
from unittest import mock

from playwright.sync_api import expect

from pinakotheke.core.errors import Cancelled
from pinakotheke.core.layout import Blocked, Relaxation
from pinakotheke.core.layout.search.ladder import BY_HAND, RUNGS
from pinakotheke.server import models

from .driver import BrowserTestCase

RULES = {"access": "single-touch", "hangers": "ordinary", "floor": "clear", "drill": "studs only"}


def _stopped(task: object) -> None:
    raise Cancelled


class LadderTests(BrowserTestCase):
    space: models.Space

    def test_every_rung_is_climbed_by_one_act(self) -> None:
        self.space = space = self.enter_demo("layout")
        house = space.household
        other = house.space_set.exclude(pk=space.pk).order_by("pk")[0]
        thing, design = self._leave_one_out()
        rungs = {
            "move out": Relaxation(kind="move out", value=1, things=(thing,)),
            "elsewhere": Relaxation(kind="elsewhere", value=1, things=(thing,), moves=((thing, other.key),)),
            "budget": Relaxation(kind="budget", value=399.5),
            "fact": Relaxation(kind="fact", value=450, name="heater"),
            "measure": Relaxation(kind="measure", name="B"),
        }

        def rule(name: str) -> object:
            house.refresh_from_db()
            return house.rules[name]

        def asked(name: str) -> object:
            return space.solves.latest("pk").ask.get(name)

        def parted(**how: object) -> bool:
            return models.Thing.objects.filter(household=house, key__startswith=thing, **how).exists()

        climbed: dict[str, Callable[[], bool]] = {
            "access": lambda: rule("access") == "dense", "hangers": lambda: rule("hangers") == "slim",
            "floor": lambda: rule("floor") == "purposeful", "drill": lambda: rule("drill") == "anywhere",
            "budget": lambda: str(rule("budget")) == "400", "fold": lambda: asked("folds") is True,
            "families": lambda: bool(asked("families")),
            "lock": lambda: models.Space.objects.get(pk=space.pk).use["locked"],
            "elsewhere": lambda: parted(space=other), "move out": lambda: parted(decision="move"),
            "spares": lambda: parted(decision="move"),
            "fewer": lambda: parted(decision="give away"),
        }  # fmt: skip
        with mock.patch("pinakotheke.server.jobs.design_space", _stopped):
            for kind in RUNGS:
                if kind == "reserve":
                    continue  # it yields by itself now, and is told in the ledger
                rung = rungs.get(kind, Relaxation(kind=kind, value=1, things=(thing,)))
                house.rules = {**house.rules, **RULES}
                house.save(update_fields=["rules"])
                design.save()
                self._offer(rung)
                buttons = self.page.get_by_role("list", name="What would do").get_by_role("button")
                with self.subTest(kind):
                    if kind in BY_HAND:
                        expect(buttons).to_have_count(0)
                        continue
                    buttons.first.click()
                    expect(self.page.get_by_text("Cancelled; what was found is kept.")).to_be_visible()
                    self.assertTrue(climbed[kind]())

    def _offer(self, rung: Relaxation) -> None:
        """The last search found no place for a piece, and this one rung would do."""
        told = Blocked(kind="demand", subject="places", short=1, unit="pieces", things=rung.things, relaxations=(rung,))
        last = self.space.solves.latest("pk")
        self.space.solves.filter(pk=last.pk).update(blocked=told.model_dump(mode="json"), status="done")
        self.page.reload()
        expect(self.page.get_by_test_id("blocked")).to_be_visible()

    def _leave_one_out(self) -> tuple[str, models.Design]:
        """One piece of the first design without a place."""
        row = self.space.designs.order_by("pk")[0]
        part = next(a for a in row.base["assignments"] if a["count"] > 3)
        part["count"] -= 1
        row.base["unplaced"] = [{"thing": part["thing"], "count": 1}]
        row.save()
        self.space.designs.exclude(pk=row.pk).delete()
        return str(part["thing"]), row
