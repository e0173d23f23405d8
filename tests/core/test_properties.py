"""What holds for any survey, any things, any edits, any house."""

import os
from datetime import date
from unittest import TestCase

from hypothesis import HealthCheck, given, settings
from hypothesis import strategies as st

from pinakotheke.core.checks import Case, check_design
from pinakotheke.core.errors import EditRefused, SpaceTooSmall
from pinakotheke.core.house import HouseRules, Person
from pinakotheke.core.housefile import House, Space, dump_house, load_house
from pinakotheke.core.install import InstallChoice, faults, order_of_work
from pinakotheke.core.inventory import Thing
from pinakotheke.core.inventory.kinds import KINDS
from pinakotheke.core.layout import History, Task, design_space, verify
from pinakotheke.core.layout.edit.commands import AddPart, AssignGroup, MovePart, RemovePart, ResizePart
from pinakotheke.core.survey import Reading, Survey, envelope, envelopes

from .examples import wardrobe

RANDOM_CASES = 500 if os.environ.get("NIGHTLY") else 50
"""Random spaces, rules and things that are designed for and proven: 500 with `NIGHTLY=1 make test`."""
SLOW = settings(max_examples=RANDOM_CASES, deadline=None, suppress_health_check=list(HealthCheck))

RULES = st.builds(
    HouseRules,
    fit=st.sampled_from(["easy", "every-inch"]),
    reserve=st.sampled_from([0, 0.1, 0.3]),
    access=st.sampled_from(["single-touch", "dense"]),
    hang=st.sampled_from(["what-creases", "all-that-can"]),
    hangers=st.sampled_from(["slim", "ordinary", "padded"]),
)


def near(low: int, high: int) -> st.SearchStrategy[list[float]]:
    """One to four readings of one size."""
    return st.integers(low, high).flatmap(
        lambda n: st.lists(st.integers(-9, 9).map(lambda off: float(max(1, n + off))), min_size=1, max_size=4)
    )


@st.composite
def surveys(draw: st.DrawFn, least: tuple[int, int, int] = (40, 300, 60)) -> Survey:
    """A valid survey from `least` width, height and depth: readings at random places, skirting and obstacles at
    times.
    """
    rows: list[dict[str, object]] = []
    rows += [{"what": "width", "level": draw(st.sampled_from([None, "low", "middle", "high"])), "value": v}
             for v in draw(near(least[0], 3500))]  # fmt: skip
    rows += [{"what": "height", "value": v} for v in draw(near(least[1], 3000))]
    rows += [{"what": "depth", "value": v} for v in draw(near(least[2], 800))]
    if draw(st.booleans()):
        rows += [{"what": "skirting height", "value": 90}, {"what": "skirting thickness", "value": 15}]
    if draw(st.booleans()):
        rows += [
            {"what": "left return", "value": 200},
            {"what": "opening width", "value": draw(st.integers(400, 2000))},
        ]
    box = st.fixed_dictionaries(
        {"x": st.integers(0, 3000), "z": st.integers(0, 2500), "width": st.integers(1, 400),
         "height": st.integers(1, 400), "projection": st.integers(0, 200), "access": st.sampled_from([0, 0, 500]),
         "keep_out": st.sampled_from([0, 0, 50]), "kind": st.sampled_from(["box", "box", "hatch", "valve", "pipe"])}
    )  # fmt: skip
    obstacles = draw(st.lists(box, max_size=2))
    return Survey.model_validate(
        {"readings": [{"id": f"r{n}", **row} for n, row in enumerate(rows)],
         "obstacles": [{"id": f"o{n}", **o} for n, o in enumerate(obstacles)],
         "door": {"kind": draw(st.sampled_from(["none", "hinged", "double hinged", "sliding"]))}}
    )  # fmt: skip


KEPT = [k for k in KINDS.values() if k.id != "custom"]


@st.composite
def heaps(draw: st.DrawFn) -> tuple[Thing, ...]:
    """Up to a dozen groups of things."""
    kinds = draw(st.lists(st.sampled_from(KEPT), max_size=12))
    return tuple(
        Thing.model_validate(
            {"id": f"t{n}", "name": kind.many, "kind": kind.id, "count": draw(st.integers(1, 15)), "space": "closet",
             "frequency": draw(st.sampled_from(["daily", "weekly", "rarely"])),
             "decision": draw(st.sampled_from(["keep", "keep", "keep", "sell"])),
             "way": draw(st.sampled_from([None, *kind.ways]))}
        )
        for n, kind in enumerate(kinds)
    )  # fmt: skip


class Properties(TestCase):
    @given(surveys(), RULES)
    def test_the_envelope_lies_inside_every_reading(self, survey: Survey, rules: HouseRules) -> None:
        try:
            e = envelope(survey, rules)
        except SpaceTooSmall:
            return
        self.assertLessEqual(e.x_to - e.x_from + 2 * rules.fit_allowance, min(survey.values("width")))
        self.assertLessEqual(e.z_to, min(survey.values("height")))
        self.assertLessEqual(e.y_to, min(survey.values("depth")))
        for z0, z1 in ((0, 100), (0, e.z_to), (e.z_to // 2, e.z_to)):
            x0, x1 = e.span(z0, z1)
            self.assertGreaterEqual(x0, 0)
            self.assertLessEqual(x1, max(survey.values("width")))

    @given(surveys(), st.integers(1, 60))
    def test_another_reading_never_makes_the_room_larger(self, survey: Survey, less: int) -> None:
        first = survey.values("width")[0]
        more = Survey.model_validate(
            {**survey.model_dump(),
             "readings": [*survey.readings, Reading(id="again", what="width", value=max(first - less, 1))]}
        )  # fmt: skip
        rules = HouseRules(fit="every-inch")
        try:
            before = envelope(survey, rules)
            after = envelope(more, rules)
        except SpaceTooSmall:
            return
        for z0, z1 in ((0, 200), (0, before.z_to), (900, 1200)):
            self.assertLessEqual(after.clear_width(z0, z1), before.clear_width(z0, z1))

    @SLOW
    @given(surveys(least=(700, 1400, 400)), heaps(), RULES)
    def test_any_design_that_is_returned_verifies(
        self, survey: Survey, heap: tuple[Thing, ...], rules: HouseRules
    ) -> None:
        people = (Person(id="ada", name="Ada", stature=1650),)
        regions = envelopes(survey, rules)
        if not regions:
            return
        got = design_space(Task("closet", survey, regions, heap, people, rules, effort=0.02))
        for design in got.alternatives:
            self.assertEqual(verify(design, regions, heap, survey), ())
            stops = [f.code for f in check_design(design, survey, regions, heap, people) if f.severity == "stop"]
            case = Case(survey, regions, design, heap, people, house=rules)
            self.assertEqual(faults(case, order_of_work(case, InstallChoice(start=date(2026, 3, 2)))), ())
            self.assertLessEqual(set(stops), {"fit.unplaced"})  # what has no place is told, and is no fault of the rest
        self.assertEqual(got.blocked is None, bool(got.alternatives) and not got.alternatives[0].unplaced)

    @given(st.data())
    def test_any_edits_and_as_many_undos_are_the_same_design(self, data: st.DataObject) -> None:
        base = wardrobe()
        ids = st.sampled_from([p.id for p in base.parts])
        things = st.sampled_from(sorted({a.thing for a in base.assignments}))
        commands = st.one_of(
            st.builds(MovePart, part=ids, steps=st.integers(-6, 6)),
            st.builds(ResizePart, part=ids, steps=st.integers(-2, 2)),
            st.builds(RemovePart, part=ids),
            st.builds(AddPart, role=st.sampled_from(["shelf", "rail", "drawer"]), bay=st.integers(0, 3),
                      z=st.integers(0, 2300)),
            st.builds(AssignGroup, thing=things, way=st.just("shelf"), count=st.integers(1, 3),
                      source=st.none() | ids, target=st.none() | ids),
        )  # fmt: skip
        history, states = History(base=base), [base]
        for command in data.draw(st.lists(commands, max_size=8)):
            try:
                history = history.after(command)
            except EditRefused:
                self.assertEqual(history.current, states[-1])
                continue
            states.append(history.current)
        for state in reversed(states):
            self.assertEqual(history.current, state)
            if history.done:
                history = history.undo()
        self.assertEqual(history.current, base)

    @given(surveys(), heaps(), RULES, st.text(min_size=1, max_size=20).filter(lambda s: s.strip()))
    def test_a_house_comes_back_as_it_went(
        self, survey: Survey, heap: tuple[Thing, ...], rules: HouseRules, name: str
    ) -> None:
        house = House(name=name, rules=rules, spaces=(Space(id="closet", name="Closet", survey=survey),), things=heap)
        once = dump_house(house)
        self.assertEqual(load_house(once), house)
        self.assertEqual(dump_house(load_house(once)), once)
