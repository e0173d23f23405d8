"""Shelves that are there and move on their holes: which levels make a stack, and the designs that use it."""

from unittest import TestCase

from hypothesis import given, settings
from hypothesis import strategies as st

from pinakotheke.core.house import HouseRules
from pinakotheke.core.layout import Design, Task, apply, design_space, verify
from pinakotheke.core.layout.edit.commands import MovePart
from pinakotheke.core.materials import bill
from pinakotheke.core.survey import Survey, envelopes, missing, with_stacks
from pinakotheke.core.survey.stacks import members
from pinakotheke.core.systems import FAMILIES

from .examples import ADULT, survey_of, thing

RULES = HouseRules(reserve=0)
CUPBOARD = (
    "level 1: width 700 700; depth 350 350; height 300 300; shelf 100 up",
    "level 2: width 702 700; depth 348 350; height 250 250; shelf 418 up; shelf movable",
    "level 3: width 700 700; depth 350 350; height 390 390; shelf 686 up; shelf movable",
)
THINGS = (
    thing("tall", "custom", 2, size=(200, 250, 420), mass=2.0),
    thing("tins", "tin-food", 8),
    thing("plates", "plate-stack", 1),
)


def cupboard(*more: str) -> Survey:
    """Three levels over a fixed bottom, two of their shelves on pins."""
    return with_stacks(survey_of("fixed shelves", *CUPBOARD, *more))


def task(survey: Survey, effort: float = 0.1, **options: object) -> Task:
    """A search in a cupboard."""
    return Task("cupboard", survey, envelopes(survey, RULES), THINGS, (ADULT,), RULES, effort=effort, **options)  # type: ignore[arg-type]


class StackTests(TestCase):
    def test_levels_over_each_other_make_one_place(self) -> None:
        survey = cupboard()
        (stack,) = (s for s in survey.parts if s.kind == "stack")
        self.assertEqual(members(survey, stack.id), ("level-1", "level-2", "level-3"))
        assert stack.stack
        # By hand: shelves of 18 between 400 and 418, and 668 and 686; the first lies 300 above the bottom.
        self.assertEqual(
            (stack.stack.shelves, stack.stack.board, stack.stack.pitch, stack.stack.anchor), (2, 18, 32, 300)
        )
        e = envelopes(survey, RULES)[stack.id]
        self.assertEqual((e.height, e.width, e.depth), (686 + 390 - 100, 700, 348))
        self.assertEqual(missing(survey), missing(survey_of("fixed shelves", *CUPBOARD)))
        self.assertIs(with_stacks(survey), survey, "once is enough")

    def test_no_stack_without_movable_shelves_heights_or_sense(self) -> None:
        for more in ("level 2: shelf fixed; level 3: shelf fixed", "level 3: shelf 600 up"):
            survey = (
                cupboard(*more.split(";")[:1])
                if "600" in more
                else cupboard("level 2: shelf fixed", "level 3: shelf fixed")
            )
            self.assertFalse([s for s in survey.parts if s.kind == "stack"], more)
        unread = with_stacks(survey_of("fixed shelves", *(line.replace("; shelf 100 up", "") for line in CUPBOARD)))
        self.assertFalse([s for s in unread.parts if s.kind == "stack"])

    def test_what_stands_in_a_level_stands_in_the_stack(self) -> None:
        survey = cupboard("level 2: cable at 600, 10 up, 40 x 200, out 30")
        (there,) = (o for o in survey.obstacles if o.section == "level-1-up")
        self.assertEqual((there.x, there.z), (600, 10 + 418 - 100))
        family, e = FAMILIES["holes"], envelopes(survey, RULES)["level-1-up"]
        shape = family.shapes(e, task(survey).finish)[0]
        self.assertEqual(family.stretches(e, shape), ((e.x_from, e.x_to),), "boards go from side to side")


class MovedTests(TestCase):
    def solved(self, survey: Survey, **options: object) -> list[Design]:
        """Complete designs of shelves that move."""
        return [d for d in design_space(task(survey, families=("holes",), **options)).alternatives if not d.unplaced]

    def test_what_fits_no_level_fits_once_the_shelves_move(self) -> None:
        survey = cupboard()
        stay = design_space(task(survey, families=("level",)))
        self.assertTrue(stay.blocked, "420 high does not go into a level of 390")
        designs = self.solved(survey)
        self.assertTrue(designs)
        for design in designs:
            self.assertEqual(verify(design, envelopes(survey, RULES), THINGS, survey), ())
            shelves = sorted(p.z for p in design.parts if p.role == "shelf")
            # Each on a hole: 300 above the bottom is one, and every 32 mm from it.
            self.assertEqual({(z - 300) % 32 for z in shelves}, {0})
            base = next(p for p in design.parts if p.role == "base")
            self.assertEqual(base.z + base.h, 0, "things stand on the board that stays, not above it")

    def test_shelves_at_hand_are_not_bought_and_those_beyond_are(self) -> None:
        design = self.solved(cupboard())[0]
        shelves = [p for p in design.parts if p.role == "shelf"]
        bought = sum(line.needed for line in bill(design).lines if line.item == "holes.shelf")
        self.assertEqual(bought, max(0, len(shelves) - 2))

    def test_a_whole_search_offers_both_and_never_one_place_twice(self) -> None:
        survey = cupboard()
        small = (thing("tins", "tin-food", 8), thing("plates", "plate-stack", 1))
        both = Task("cupboard", survey, envelopes(survey, RULES), small, (ADULT,), RULES, effort=0.1)
        got = design_space(both).alternatives
        self.assertEqual({f for d in got for f in d.families} & {"level", "holes"}, {"level", "holes"})
        for design in got:
            stacked = {m for s in design.sections for m in members(survey, s)}
            self.assertFalse(stacked & set(design.sections), design.title)

    def test_a_hand_edit_moves_a_shelf_from_hole_to_hole(self) -> None:
        design = self.solved(cupboard())[0]
        shelf = next(p for p in design.parts if p.role == "shelf")
        self.assertEqual(apply(design, MovePart(part=shelf.id, steps=1)).part(shelf.id).z, shelf.z + 32)

    @settings(max_examples=25, deadline=None)
    @given(pitch=st.integers(20, 64), first=st.integers(240, 320), board=st.integers(12, 30), seed=st.integers(1, 99))
    def test_any_pitch_and_board_gives_designs_that_hold(self, pitch: int, first: int, board: int, seed: int) -> None:
        lines = (
            f"level 1: width 700 700; depth 350 350; height {first} {first}; shelf 100 up",
            f"level 2: width 700 700; depth 350 350; height 500 500; shelf {100 + first + board} up",
            f"level 2: shelf movable every {pitch}",
        )
        survey = with_stacks(survey_of("fixed shelves", *lines))
        for design in design_space(task(survey, effort=0.03, families=("holes",), seed=seed)).alternatives:
            self.assertEqual(verify(design, envelopes(survey, RULES), THINGS, survey), ())
            for part in design.parts:
                if part.role == "shelf":
                    self.assertEqual(((part.z - first) % pitch, part.h), (0, board))
