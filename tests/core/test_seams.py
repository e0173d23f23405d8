"""What one task knows stays with it, costs are reckoned once, designs of before are brought up, and bounds are sound."""

from collections import Counter
from decimal import Decimal
from typing import Any
from unittest import TestCase

from pydantic import ValidationError

from pinakotheke.core.house import HouseRules, Person
from pinakotheke.core.inventory.containers import Container
from pinakotheke.core.layout import Design, Outcome, Task, Weights, design_space, verify
from pinakotheke.core.layout.models import gap_of
from pinakotheke.core.layout.packing.contain import containers_on
from pinakotheke.core.layout.packing.limits import Limits
from pinakotheke.core.layout.packing.options import options
from pinakotheke.core.layout.packing.task import Household
from pinakotheke.core.layout.placement.pool import candidates
from pinakotheke.core.layout.report.costing import cost_of
from pinakotheke.core.layout.search import frontier as fronts
from pinakotheke.core.layout.search import ladder as rungs
from pinakotheke.core.layout.search.furnish import Furnished, design_of, furnish
from pinakotheke.core.layout.search.quick import quick
from pinakotheke.core.materials import bill
from pinakotheke.core.survey import envelopes, with_stacks
from pinakotheke.core.systems import FAMILIES, Bay, OnPart, Range, Rate

from .examples import ADULT, FOLDED, TIGHT_FIT, WARDROBE, demo_house, hung, solved, task, thing, wardrobe

CUPBOARD = Bay(index=0, section="A", family="carcase", x=18, w=900, y=6, depth=558, hang_depth=578, z0=88, z1=2372,
               pitch=32, pulls=True, has_base=True)  # fmt: skip


class CostTests(TestCase):
    def test_the_cost_of_a_design_is_the_total_of_its_bill(self) -> None:
        for design in (wardrobe(), hung()):
            cost = cost_of(design)
            self.assertEqual(cost.total, bill(design).total)
            self.assertEqual(sum(cost.by_family.values(), Decimal(0)), cost.total)

    def test_shelves_at_hand_cost_nothing_on_the_frontier_as_on_the_bill(self) -> None:
        house = demo_house()
        space = house.space("kitchen-dresser")
        survey = with_stacks(space.survey)
        asked = Task(space.id, survey, envelopes(survey, house.rules), house.things_in(space.id)[:8], house.people,
                     house.rules, families=("holes",), effort=0.05)  # fmt: skip
        moved = [d for d in design_space(asked).alternatives if any(b.at_hand for b in d.bays)]
        self.assertTrue(moved)
        for design in moved:
            self.assertEqual(fronts.point_of(asked, design).cost, bill(design).total)
            shelves = [p for p in design.parts if p.role == "shelf"]
            free = [p for p in shelves if not cost_of(design).parts[p.id]]
            self.assertEqual(
                len(free), sum(min(b.at_hand, sum(p.bay == b.index for p in shelves)) for b in design.bays)
            )

    def test_a_gable_is_priced_by_its_face(self) -> None:
        # 4.00 + 24.00 a m² of 500 x 2000 mm; by its edge of 18 mm it would be 4.86.
        row = next(p for p in solved(FOLDED, "width 1900; height 2400; depth 500; door none",
                                     families=("cleat",)).alternatives[0].parts if p.role == "panel")  # fmt: skip
        gable = row.model_copy(update={"w": 18, "d": 500, "h": 2000})
        self.assertEqual(FAMILIES["cleat"].price(gable), Decimal("28.00"))

    def test_two_containers_of_one_size_are_told_apart(self) -> None:
        one = Container(id="c1", name="crate", width=200, depth=280, height=130, wall=3, lid="lift", price=0.1)
        twin = one.model_copy(update={"id": "c2", "name": "twin", "price": 0.3})
        loose = (thing("yarn", "custom", 60, size=(90, 90, 80), mass=0.1, frequency="rarely"),)
        found = solved(loose, families=("rack",), containers=(one,)).alternatives
        boxed = next(d for d in found if sum(bool(a.container) for a in d.assignments) > 1)
        first = next(a for a in boxed.assignments if a.container)
        mixed = boxed.model_copy(update={
            "owned": (one, twin),
            "assignments": tuple(a.model_copy(update={"container": "c2"}) if a is first else a for a in boxed.assignments),
        })  # fmt: skip
        mixed = containers_on(mixed, {t.id: t for t in loose})
        counts = Counter(p.container for p in mixed.parts if p.role == "container")
        self.assertEqual(set(counts), {"c1", "c2"})
        listed = {line.item: (line.name, line.needed, line.each) for line in bill(mixed).lines}
        self.assertEqual(listed["container.c2"], ("Twin", counts["c2"], Decimal("0.30")))
        self.assertEqual(listed["container.c1"], ("Crate", counts["c1"], Decimal("0.10")))


class TaskTests(TestCase):
    def test_a_trial_loses_nothing_of_its_task(self) -> None:
        own = Range(id="own", family="track", name="Own", rates={"shelf": Rate(fixed=1)})
        box = Container(id="c1", name="crate", width=200, depth=280, height=130, wall=3, price=1)
        asked = task(ranges=(own,), containers=(box,), families=(own.family_id,), weights=Weights(money=9),
                     budget=Decimal(500), seed=7)  # fmt: skip
        kept = ("ranges", "containers", "families", "weights", "budget", "seed", "stock", "finish", "things", "people")
        seen: list[Task] = []

        def listen(trial: Task, *rest: Any, **more: Any) -> Furnished:
            seen.append(trial)
            return furnish(trial, *rest, **more)

        def glance(trial: Task, **more: Any) -> None:
            seen.append(trial)

        pool = candidates(asked)
        fronts.furnish, rungs.quick = listen, glance  # type: ignore[attr-defined,assignment]
        try:
            list(rungs._rules(asked, pool[:1]))
            fronts._trial(asked, furnish(asked, "cheapest", pool[0], 0))
        finally:
            fronts.furnish, rungs.quick = furnish, quick  # type: ignore[attr-defined]
        self.assertGreater(len(seen), 2)
        for trial in seen:
            self.assertEqual({k: getattr(trial, k) for k in kept}, {k: getattr(asked, k) for k in kept})
            self.assertIsNot(trial.cache, asked.cache)

    def test_a_task_is_not_changed(self) -> None:
        with self.assertRaises(AttributeError):
            task().seed = 2  # type: ignore[misc]

    def test_a_moved_socket_and_another_household_are_reckoned_anew(self) -> None:
        powered = next(t for t in demo_house().things if "power" in t.row.needs and t.stays)
        charger = powered.model_copy(update={"count": 1, "owner": "", "size": (200.0, 200.0, 200.0), "way": None})

        def troubles(home: Household) -> tuple[float, ...]:
            return options(charger, CUPBOARD.model_copy(update={"w": 900}), home, Limits(home.people))[0].troubles

        near, far = (troubles(Household(TIGHT_FIT, (ADULT,), sockets=(("A", at),))) for at in (400.0, 9000.0))
        self.assertLess(max(near), max(far))
        tall, short = (troubles(Household(TIGHT_FIT, (Person(id="x", name="X", stature=s),))) for s in (1900, 1300))
        self.assertNotEqual(tall, short)

    def test_no_module_of_the_core_holds_state_between_two_searches(self) -> None:
        """Everything a module keeps at its top is a constant or the memo of a pure function: two equal searches leave the
        modules as they found them.
        """
        import sys

        def kept() -> dict[str, int]:
            return {
                f"{name}.{key}": len(value)
                for name, module in sys.modules.items() if name.startswith("pinakotheke.core")
                for key, value in vars(module).items() if isinstance(value, dict | list | set) and not key.startswith("__")
            }  # fmt: skip

        solved(WARDROBE)
        before = kept()
        solved(FOLDED, "width 2000; height 2300; depth 600; door none")
        self.assertEqual(kept(), before)


class OutcomeTests(TestCase):
    def test_gaps_are_sound_below_zero_too(self) -> None:
        for objective, bound, gap in ((10, 5, 0.5), (-5, -10, 0.5), (0, -3, 1.0), (0, 0, 0), (-4, -4, 0), (3, -3, 2.0)):
            self.assertEqual(gap_of(objective, bound), gap)
        below = Outcome.of(-5, -10, method="m", run="", within=0.25)
        self.assertEqual((below.status, below.gap), ("best found", 0.5))
        self.assertEqual(Outcome.of(-5, -5, method="m", run="", within=0.25).status, "proven")
        self.assertEqual(Outcome.of(-5, -5.5, method="m", run="", within=0.25).status, "within")

    def test_without_a_bound_nothing_is_proven(self) -> None:
        for cost in (12.5, 0.0, -7.0):
            got = Outcome.of(cost, None, method="m", run="", within=0.25)
            self.assertEqual((got.status, got.bound, got.gap), ("best found", None, None))
        with self.assertRaises(ValidationError):
            Outcome(status="proven", objective=-1, bound=None, method="m", run="")
        with self.assertRaises(ValidationError):
            Outcome(status="proven", objective=-1, bound=-2, method="m", run="")
        with self.assertRaises(ValidationError):
            Outcome(status="best found", objective=-2, bound=-1, method="m", run="")


class BaseTests(TestCase):
    def test_what_stands_on_the_base_is_held_to_its_own_rating(self) -> None:
        # An added half-shelf carries 10 kg, the shelf that is there 30; a shelf of a carcase 25, its base 60.
        for line, families, mass, kind in (
            ("width 700; height 400; depth 400", ("level",), 16, "fixed shelves"),
            ("width 1000; height 2200; depth 600; door none", ("carcase",), 40, "closet"),
        ):
            heavy = (thing("case", "custom", 1, size=(300, 300, 200), mass=mass),)
            if kind == "closet":
                got = solved(heavy, line, families=families).alternatives
            else:
                from .examples import survey_of

                read = survey_of("fixed shelves", *(f"level {n}: {line}; shelf {100 + 420 * n} up" for n in (1, 2)))
                regions = envelopes(read, TIGHT_FIT)
                got = design_space(
                    Task("x", read, regions, heavy, (ADULT,), TIGHT_FIT, families=families, effort=0.1)
                ).alternatives
            whole = [d for d in got if not d.unplaced]
            self.assertTrue(whole, kind)
            for design in whole:
                self.assertEqual({design.part(a.part).role for a in design.assignments}, {"base"})


class OlderTests(TestCase):
    """Designs as they were saved before parts had fields for what carries them, what they belong to, their hinge."""

    def older(self, design: Design) -> dict[str, Any]:
        data = design.model_dump(mode="json")
        for part in data["parts"]:
            fixed = part["fixed_to"]
            part["fixed_to"] = fixed["part"] if isinstance(fixed, dict) else fixed
            for field in ("belongs_to", "container", "hinge"):
                del part[field]
        for box in data["owned"]:
            del box["at_hand"]
        for bay in data["bays"]:
            del bay["skirting"]
        return dict(data)

    def test_a_design_of_before_is_the_same_design(self) -> None:
        loose = (thing("yarn", "custom", 20, size=(90, 90, 80), mass=0.1),)
        boxed = next(d for d in solved(loose, families=("rack",)).alternatives if any(p.container for p in d.parts))
        cleats = solved(FOLDED, "width 1900; height 2400; depth 500; door none", families=("cleat",)).alternatives[0]
        for design in (wardrobe(), hung(), boxed, cleats):
            again = Design.model_validate(self.older(design))
            self.assertEqual(again.parts, design.parts)
            self.assertEqual(again, design)

    def test_doors_and_fillers_of_before(self) -> None:
        from pinakotheke.core.layout.edit.commands import SetFinish
        from pinakotheke.core.layout.edit.edits import apply
        from pinakotheke.core.systems import Finish

        doors = apply(wardrobe(), SetFinish(finish=Finish(doors="hinged")))
        hinges = Counter(p.hinge for p in doors.parts if p.role == "door")
        self.assertTrue(hinges)
        data = self.older(doors)
        filler = next((p for p in data["parts"] if p["role"] == "filler"), None)
        if filler:
            filler["fixed_to"] = "frame left"
        again = Design.model_validate(data)
        self.assertEqual(Counter(p.hinge for p in again.parts if p.role == "door"), hinges)
        self.assertEqual({p.fixed_to for p in again.parts if p.role == "filler"} - {"wall"}, set())
        self.assertTrue(all(isinstance(p.fixed_to, OnPart) for p in again.parts if p.role == "door"))


class FoundTests(TestCase):
    def test_a_design_that_is_found_is_proven_by_the_verifier(self) -> None:
        asked = task(FOLDED, rules=HouseRules(fit="easy", reserve=0))
        for candidate in candidates(asked)[:4]:
            one = furnish(asked, "cheapest", candidate, 0)
            design = design_of(asked, one)
            self.assertEqual(verify(design, asked.envelopes, FOLDED), ())
