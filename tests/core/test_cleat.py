"""Cleated shelves by hand: cleats, gables, brackets, boards around a pipe."""

from typing import Literal
from unittest import TestCase

from pinakotheke.core.house import HouseRules
from pinakotheke.core.layout import Task, design_space, verify
from pinakotheke.core.layout.placement.candidates import stand
from pinakotheke.core.layout.placement.fills import fills_of, shapes_worth
from pinakotheke.core.survey import Envelope, Survey, envelopes
from pinakotheke.core.systems import FAMILIES, Bay, Finish, Part, Row

from .examples import region, survey, survey_of
from .examples import thing as _thing

PLAIN_FINISH = Finish()


class CleatTests(TestCase):
    def test_a_board_is_cut_around_a_pipe_and_loses_its_width(self) -> None:
        family, e = (
            FAMILIES["cleat"],
            region("width 1000; height 2400; depth 500; door none; pipe at 0, 0 up, 80 x 2400, out 90"),
        )
        fill = next(f for f in fills_of(family, survey().main, e, PLAIN_FINISH, []) if len(f.rows[0][1].widths) == 1)
        (bay,) = stand((fill,), {"A": e}, {}, {}).bays
        (cut,) = bay.cuts
        self.assertEqual(cut[2:], (0, 90))
        self.assertEqual(family.clear_width("shelf", bay), bay.w - 38 - (cut[1] - cut[0]))
        shelf = family.placed(bay, "s", "shelf", 600)
        self.assertEqual(shelf.cuts, bay.cuts)
        for cleat in family.brackets(shelf, bay):
            self.assertFalse(cleat.x < cut[1] and cut[0] < cleat.x + cleat.w and cleat.y < cut[3])

    def test_no_gable_at_a_wall_and_one_where_a_side_is_missing(self) -> None:
        family, e = FAMILIES["cleat"], region("width 1900; height 2400; depth 500; door none")
        row = Row(shape=shapes_worth(family, e, PLAIN_FINISH)[0], x=3, widths=(937, 937))
        bays = family.bays(e, row)
        self.assertEqual([p.x for p in family.structure(e, row, bays, PLAIN_FINISH)], [3 + 937])


class FreeEndTests(TestCase):
    """Two sides and a bracket: a wall that ends, boards up to 350 mm deep."""

    THINGS = (_thing("jumpers", "jumper", 6), _thing("jeans", "jeans", 5))

    def ended(self, side: str = "right", depth: int = 300) -> Survey:
        """A wall with no side wall at one end."""
        return survey_of("wall", f"width 900; height 2200; depth {depth}; {side} end open; "
                         f"{'left' if side == 'right' else 'right'} end wall")  # fmt: skip

    def row_of(self, wall: Survey, depth: int) -> tuple[tuple[Part, ...], Bay]:
        """Structure and bay of one board's width along the wall."""
        family, e = FAMILIES["cleat"], envelopes(wall, HouseRules(fit="every-inch", reserve=0))["A"]
        shape = next(s for s in family.shapes(e, PLAIN_FINISH) if s.depth == depth and s.height >= 1800)
        start, end = family.stretches(e, shape)[0]
        row = Row(shape=shape, x=start, widths=(end - start - family.ends,))
        (bay,) = family.bays(e, row)
        return family.structure(e, row, (bay,), PLAIN_FINISH), bay

    def test_a_shallow_board_lies_on_a_bracket_where_the_wall_ends(self) -> None:
        for side in ("left", "right"):
            structure, bay = self.row_of(self.ended(side), 300)
            self.assertEqual((structure, bay.free_end), ((), side), "no gable stands on the floor")
            shelf = FAMILIES["cleat"].placed(bay, "s", "shelf", 800)
            carried = {p.id: p for p in FAMILIES["cleat"].brackets(shelf, bay)}
            self.assertEqual(set(carried), {"s-back", "s-bracket", f"s-{'right' if side == 'left' else 'left'}"})
            bracket = carried["s-bracket"]
            self.assertEqual(bracket.z + bracket.h, shelf.z)
            self.assertEqual(bracket.x, shelf.x if side == "left" else shelf.x + shelf.w - bracket.w)
            self.assertLessEqual(FAMILIES["cleat"].rating(shelf, bay), 25)

    def test_a_deep_one_gets_its_gable_and_one_without_walls_two(self) -> None:
        structure, bay = self.row_of(self.ended(depth=500), 500)
        self.assertEqual((bay.free_end, len(structure)), ("", 1))
        bare = survey_of("wall", "width 900; height 2200; depth 300; left end open; right end open")
        structure, bay = self.row_of(bare, 300)
        self.assertEqual((bay.free_end, len(structure)), ("", 2))

    def test_designs_on_brackets_hold(self) -> None:
        wall, rules = self.ended(), HouseRules(fit="every-inch", reserve=0)
        found = envelopes(wall, rules)
        one = Task("wall", wall, found, self.THINGS, (), rules, families=("cleat",), effort=0.1)
        designs = design_space(one).alternatives
        self.assertTrue([p for d in designs for p in d.parts if p.role == "bracket"])
        for design in designs:
            self.assertEqual(verify(design, found, self.THINGS, wall), ())


class WallToWallTests(TestCase):
    LINE = "width 1000; height 2400; depth 400; door none"

    def bay(self, fit: Literal["easy", "every-inch"] = "easy", line: str = LINE) -> tuple[Bay, Envelope]:
        """The one bay of a board from wall to wall."""
        e = region(line, HouseRules(fit=fit, reserve=0))
        found = fills_of(FAMILIES["cleat"], survey(line).main, e, PLAIN_FINISH, [])
        fill = next(f for f in found if len(f.rows[0][1].widths) == 1)
        return stand((fill,), {"A": e}, {}, {}).bays[0], e

    def test_a_board_cut_to_the_wall_goes_to_the_wall(self) -> None:
        fits: tuple[Literal["easy", "every-inch"], ...] = ("easy", "every-inch")
        for fit in fits:
            bay, e = self.bay(fit)
            self.assertEqual(
                (bay.x, bay.x + bay.w), e.walls(300, 2400), "no gable, and no allowance where it is cut to fit"
            )
            shelf = FAMILIES["cleat"].placed(bay, "s", "shelf", 800)
            cleats = {p.id: p for p in FAMILIES["cleat"].brackets(shelf, bay)}
            self.assertEqual((cleats["s-left"].x, cleats["s-right"].x + cleats["s-right"].w), e.walls(300, 2400))

    def test_above_a_skirting_too_and_the_floor_is_what_it_leaves(self) -> None:
        line = self.LINE + "; skirting 90 x 15"
        bay, e = self.bay(line=line)
        self.assertEqual((bay.x, bay.x + bay.w), e.walls(300, 2400))
        self.assertLess(e.uncertain.width + bay.w, 1001)
        floor = FAMILIES["cleat"].placed(bay, "f", "floor", 0)
        self.assertEqual((floor.x, floor.w), (15, bay.w - 30))
        self.assertEqual(
            FAMILIES["cleat"].clear_width("floor", bay), bay.w - 38, "two cleats of 19 are thicker than it"
        )

    def test_designs_cut_to_the_wall_hold(self) -> None:
        things = (_thing("jumpers", "jumper", 12), _thing("bucket", "bucket", 2, way="floor"))
        for line in (
            self.LINE,
            self.LINE + "; skirting 90 x 15",
            "width 1003 1000 1001; height 2400; depth 400; door none",
        ):
            rules = HouseRules(fit="easy", reserve=0)
            read = survey(line)
            asked = Task("x", read, envelopes(read, rules), things, (), rules, families=("cleat",), effort=0.1)
            designs = [d for d in design_space(asked).alternatives if not d.unplaced]
            self.assertTrue(designs)
            for design in designs:
                self.assertEqual(verify(design, asked.envelopes, things, read), ())

    def test_what_three_cleats_hold_is_rated_by_all_three(self) -> None:
        # Two ends alone would let 800 x 300 carry 3.6 kg; the back cleat makes it more, the range states 40 kg.
        bay = self.bay()[0].model_copy(update={"w": 800, "depth": 300})
        shelf = FAMILIES["cleat"].placed(bay, "s", "shelf", 800)
        rating = FAMILIES["cleat"].rating(shelf, bay)
        self.assertGreater(rating, 10)
        self.assertLessEqual(rating, 40)
        piped = bay.model_copy(update={"cuts": ((bay.x + 300, bay.x + 360, bay.y, bay.y + 60),)})
        self.assertLess(FAMILIES["cleat"].rating(shelf, piped), rating, "a back cleat in two pieces is none")
