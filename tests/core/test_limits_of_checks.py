"""Each of these checks fires just outside its limit and keeps still just inside it."""

from collections.abc import Callable
from unittest import TestCase

from pinakotheke.core.checks import Finding, check_design
from pinakotheke.core.house import Person
from pinakotheke.core.house.people import reach_zone
from pinakotheke.core.layout import Design
from pinakotheke.core.mechanics.shelves import rail_sag
from pinakotheke.core.survey import envelope
from pinakotheke.core.systems import Part
from pinakotheke.core.tables import value

from .examples import ADULT, PLAIN, TIGHT_FIT, WARDROBE, survey, wardrobe


def codes(design: Design, line: str = PLAIN, people: tuple[Person, ...] = (ADULT,)) -> set[str]:
    read = survey(line)
    found: tuple[Finding, ...] = check_design(design, read, {"A": envelope(read, TIGHT_FIT)}, WARDROBE, people)
    return {f.code for f in found}


def with_part(role: str, change: Callable[[Part], dict[str, int]]) -> Design:
    """The wardrobe with one part of a role changed."""
    design = wardrobe()
    one = next(p for p in design.parts if p.role == role)
    parts = tuple(p.model_copy(update=change(p)) if p is one else p for p in design.parts)
    return design.model_copy(update={"parts": parts})


class LimitTests(TestCase):
    def test_a_rail_that_spans_more_than_is_usual(self) -> None:
        usual = int(value("rail.support_every"))
        self.assertNotIn("strength.rail-support", codes(with_part("rail", lambda p: {"w": usual})))
        self.assertIn("strength.rail-support", codes(with_part("rail", lambda p: {"w": usual + 1})))

    def test_a_rail_that_bends(self) -> None:
        def shows(width: int) -> bool:
            return rail_sag(width, value("hang.load") * width / 1000) > width / value("strength.sag")

        last = next(w for w in range(600, 6000) if shows(w)) - 1
        self.assertNotIn("strength.rail", codes(with_part("rail", lambda p: {"w": last})))
        self.assertIn("strength.rail", codes(with_part("rail", lambda p: {"w": last + 2})))

    def test_a_frame_that_is_a_lift_for_two(self) -> None:
        limit = int(value("strength.two_person_height"))
        self.assertIn("carry.two-person", codes(wardrobe()))
        tallest = max(p.h for p in wardrobe().parts if p.role == "frame")
        self.assertGreater(tallest, limit)
        design = wardrobe()
        low = tuple(p.model_copy(update={"h": limit}) if p.role == "frame" else p for p in design.parts)
        self.assertNotIn("carry.two-person", codes(design.model_copy(update={"parts": low})))

    def test_a_frame_that_does_not_pass_the_opening_lying(self) -> None:
        deep = max(p.d for p in wardrobe().parts if p.role == "frame")
        for head, fires in ((deep - 1, True), (deep + 1, False)):
            line = f"width 1846 1849 1843; height 2412; depth 612; opening 1250 x {head}; nibs 296 300"
            self.assertEqual("carry.opening" in codes(wardrobe(), line), fires, head)

    def test_what_is_lower_than_its_owner_reaches(self) -> None:
        seated = ADULT.model_copy(update={"posture": "seated"})
        low = reach_zone(seated).low
        shelf = next(p for p in wardrobe().parts if any(a.thing == "jumpers" for a in wardrobe().held_by(p.id)))
        for z, fires in ((low - 60, True), (low + 60, False)):
            design = wardrobe()
            parts = tuple(p.model_copy(update={"z": int(z)}) if p.id == shelf.id else p for p in design.parts)
            changed = design.model_copy(update={"parts": parts})
            self.assertEqual("reach.low" in codes(changed, people=(seated,)), fires, z)
