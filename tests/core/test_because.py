"""Why it is so: what the slip says of a part is true of it, in both units, and what a practitioner would mind is said."""

from collections.abc import Sequence
from unittest import TestCase

from pinakotheke.core.checks import check_design
from pinakotheke.core.house import Person
from pinakotheke.core.inventory import Thing
from pinakotheke.core.layout import Design
from pinakotheke.core.layout.packing.limits import Limits
from pinakotheke.core.layout.report.because import Reasons
from pinakotheke.core.layout.report.sense import Sense, sense
from pinakotheke.core.systems import HOLDERS
from pinakotheke.core.tables import load
from pinakotheke.core.units import Units
from pinakotheke.core.words import because_in_words, glance_in_words

from .examples import ADULT, WARDROBE, regions, survey, wardrobe

CHILD = Person(id="tim", name="Tim", stature=1050, age="child")


def said(design: Design, things: Sequence[Thing] = WARDROBE, people: tuple[Person, ...] = (ADULT,),
         units: Units = "metric") -> dict[str, list[str]]:  # fmt: skip
    """What is said of every part that holds."""
    reasons = Reasons(design, tuple(things), people, Limits(people))
    return {p.id: because_in_words(reasons.of(p), units) for p in design.parts if p.role in HOLDERS}


class BecauseTests(TestCase):
    def test_every_part_that_holds_has_a_reason(self) -> None:
        design = wardrobe()
        told = said(design)
        for part in design.parts:
            if part.role in HOLDERS and (part.role != "floor" or design.held_by(part.id)):
                self.assertTrue(told[part.id], part)
        for sentences in told.values():
            for sentence in sentences:
                self.assertNotRegex(sentence, r"[{}]|None|  ")

    def test_what_creases_hangs_and_says_so(self) -> None:
        design = wardrobe()
        rail = next(p for p in design.parts if p.role == "rail" and design.held_by(p.id))
        self.assertTrue(any("what creases hangs" in s for s in said(design)[rail.id]))

    def test_what_is_locked_and_what_is_empty(self) -> None:
        design = wardrobe()
        rail = next(p for p in design.parts if p.role == "rail" and design.held_by(p.id))
        locked = design.model_copy(
            update={"parts": tuple(p.model_copy(update={"locked": p is rail}) for p in design.parts),
                    "assignments": tuple(a for a in design.assignments if a.part != rail.id)}
        )  # fmt: skip
        self.assertEqual(said(locked)[rail.id], ["You locked it here.", "Left free: room for what comes next."])

    def test_what_is_kept_from_a_child(self) -> None:
        design = wardrobe()
        held = design.assignments[0]
        things = [t.model_copy(update={"kind": "bleach"}) if t.id == held.thing else t for t in WARDROBE]
        told = said(design, things, (ADULT, CHILD))[held.part]
        self.assertTrue(any("kept from Tim, so no lower than 1400 mm" in s for s in told), told)

    def test_a_heavy_thing_is_below_the_elbow(self) -> None:
        design = wardrobe()
        held = next(a for a in design.assignments if a.way in ("shelf", "drawer"))
        things = [t.model_copy(update={"mass": 12.0}) if t.id == held.thing else t for t in WARDROBE]
        told = said(design, things)[held.part]
        self.assertTrue(any("12.0 kg a piece, so below the elbow" in s for s in told), told)

    def test_in_inches(self) -> None:
        for sentences in said(wardrobe(), units="imperial").values():
            self.assertFalse(any(" mm" in s or " kg" in s for s in sentences), sentences)

    def test_every_rule_has_a_sentence_and_a_basis(self) -> None:
        for rule, row in load("because").items():
            if rule != "how_often":
                self.assertTrue(row["says"].endswith("."), rule)
                self.assertIn(row["basis"], ("C", "D", "H"), rule)


class GlanceTests(TestCase):
    def test_nothing_to_mind(self) -> None:
        fine = Sense(hung=1, together=1, owners=0, clean=0, lines=1, systems=1, slivers=0, empties=0, reach=0, placed=1,
                     spare=0.1)  # fmt: skip
        self.assertEqual(glance_in_words(fine), "At a glance: nothing to mind.")
        rough = fine.model_copy(update={"lines": 0.2, "empties": 1, "systems": 2})
        self.assertEqual(glance_in_words(rough), "At a glance: few heights run through; 2 systems on one wall; "
                                                 "1 compartment is built for nothing.")  # fmt: skip

    def test_what_is_minded_is_a_finding_with_a_mend(self) -> None:
        design = wardrobe()
        rails = {p.id for p in design.parts if p.role == "rail"}
        emptied = design.model_copy(update={"assignments": tuple(a for a in design.assignments if a.part not in rails)})
        missed = sense(emptied, WARDROBE, (ADULT,)).short()
        self.assertIn("empties", missed)
        codes = {f.code for f in check_design(emptied, survey(), regions(), WARDROBE, (ADULT,))}
        self.assertLessEqual({f"sense.{m}" for m in missed if m in ("empties", "lines", "systems", "together")}, codes)
