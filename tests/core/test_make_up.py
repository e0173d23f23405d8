"""What people build: two rails one above the other, heights that run through, a board across a recess, a corner that is
left clear; and that the verifier refuses each where it does not hold.
"""

from unittest import TestCase

from pinakotheke.core.layout import Design, Task, verify
from pinakotheke.core.layout.placement.candidates import meet, stand
from pinakotheke.core.layout.placement.fills import clear_of, fills_of
from pinakotheke.core.layout.placement.neighbours import neighbours
from pinakotheke.core.layout.placement.pool import candidates, settled
from pinakotheke.core.layout.report.sense import sense
from pinakotheke.core.layout.search.furnish import begin, carried_over, design_of, improve
from pinakotheke.core.survey import Survey, envelopes
from pinakotheke.core.survey.corners import blind_zones, corners
from pinakotheke.core.systems import FAMILIES, Finish, Row, Shape

from .examples import ADULT, TIGHT_FIT, regions, survey, survey_of, thing

RECESS = "width 1800; height 2440; depth 600; door none"
CLOTHES = (
    thing("shirts", "shirt", 16, owner="ada"),
    thing("trousers", "trousers", 10, owner="ada"),
    thing("jumpers", "jumper", 6, owner="ada"),
)


def task(line: str, *things: object, **more: object) -> Task:
    one = survey(line)
    return Task("closet", one, envelopes(one, TIGHT_FIT), things, (ADULT,), TIGHT_FIT, **more)  # type: ignore[arg-type]


def shed() -> Survey:
    """Three walls, the middle one with both corners."""
    return survey_of(
        "shed", "A: width 3000", "A: height 2200", "A: depth 600",
        "new wall", "B: width 3000", "B: height 2200", "B: depth 600",
        "new wall", "C: width 3000", "C: height 2200", "C: depth 600",
        "A: left end open", "A: corner theirs", "B: corner mine", "C: right end open",
    )  # fmt: skip


class DoubleHangTests(TestCase):
    def test_one_hangs_above_the_other_and_what_is_longer_above(self) -> None:
        asked = task(RECESS, *CLOTHES, families=("track",))
        candidate = next(c for c in candidates(asked) if len(c.bays) == 3)
        design = design_of(asked, improve(asked, begin(asked, "tidiest", candidate), 1500))
        rails = {a.thing: design.part(a.part) for a in design.assignments if a.way == "hang"}
        self.assertEqual(rails["shirts"].bay, rails["trousers"].bay)
        self.assertGreater(rails["shirts"].z, rails["trousers"].z)


class LineTests(TestCase):
    def test_neighbouring_bays_share_their_heights(self) -> None:
        things = [thing(kind, kind, 12, owner="ada") for kind in ("jumper", "t-shirt", "jeans", "towel")]
        asked = task(RECESS, *things, families=("track",))
        candidate = next(c for c in candidates(asked) if len(c.bays) == 3)
        for goal in ("cheapest", "tidiest"):
            design = design_of(asked, improve(asked, begin(asked, goal, candidate), 800))
            self.assertGreaterEqual(sense(design, asked.things, asked.people).lines, 0.5, goal)


class CarriedOverTests(TestCase):
    def test_another_width_keeps_what_it_takes(self) -> None:
        asked = task(RECESS, *CLOTHES, families=("carcase",))
        one = improve(asked, begin(asked, "cheapest", candidates(asked)[0]), 200)
        for fills in list(neighbours(asked, one.candidate))[:12]:
            for candidate in settled(asked, fills):
                other = carried_over(asked, one, candidate)
                pieces = sum(lot.count for stack in other.answer.stacks for c in stack for lot in c.lots)
                self.assertEqual(pieces + other.unplaced, sum(t.count for t in CLOTHES))
                design_of(asked, other)  # which raises where the verifier faults it


class AcrossARecessTests(TestCase):
    def top(self) -> tuple[Task, Design]:
        """A recess of two gables with a long thing on the board across."""
        asked = task(RECESS, thing("long", "custom", 1, size=(1500, 300, 150), frequency="rarely"), *CLOTHES,
                     families=("cleat", "across"))  # fmt: skip
        candidate = next(c for c in candidates(asked) if "across" in c.families and len(c.bays) == 4)
        return asked, design_of(asked, improve(asked, begin(asked, "tidiest", candidate), 400))

    def test_it_lies_on_gables_and_walls(self) -> None:
        asked, design = self.top()
        board = next(p for p in design.parts if p.family == "across")
        self.assertGreaterEqual(board.w, 1750)
        self.assertIn("long", {a.thing for a in design.held_by(board.id)})
        self.assertEqual(verify(design, asked.envelopes, asked.things, asked.survey, asked.limits), ())

    def test_without_its_gables_it_is_refused(self) -> None:
        asked, design = self.top()
        board = next(p for p in design.parts if p.family == "across")
        parts = tuple(p for p in design.parts if p.role != "panel")
        faults = verify(design.model_copy(update={"parts": parts}), asked.envelopes, asked.things, asked.survey)
        self.assertIn(("support", board.id), {(f.code, f.where) for f in faults})

    def test_a_wall_beyond_its_end_is_no_gap(self) -> None:
        _, design = self.top()
        board = next(p for p in design.parts if p.family == "across")
        gable = max((p for p in design.parts if p.role == "panel"), key=lambda p: p.x)
        end = gable.model_copy(update={"id": "end", "x": board.x + board.w - gable.w})
        wider = regions(RECESS.replace("1800", "3400"))
        for parts, stands in (((*design.parts, end), True), (design.parts, False)):
            faults = verify(design.model_copy(update={"parts": parts}), wider, ())
            self.assertEqual(("support", board.id) not in {(f.code, f.where) for f in faults}, stands)

    def test_boards_end_behind_a_door(self) -> None:
        open_, closed = (
            max(s.depth for s in FAMILIES["cleat"].shapes(regions(line)["A"], Finish()))
            for line in (RECESS, RECESS.replace("door none", "door hinged"))
        )
        self.assertGreaterEqual(open_ - closed, 20)

    def test_bays_too_wide_for_it_up_to_the_wall_have_none(self) -> None:
        cleat = FAMILIES["cleat"]
        for width, lies in ((1900, True), (2030, False)):
            given = regions(RECESS.replace("1800", str(width)))["A"]
            shape = next(s for s in cleat.shapes(given, Finish()) if s.height == 2144)
            ((start, end),) = cleat.stretches(given, shape)
            row = Row(shape=shape, x=start, widths=((end - start - cleat.ends) // 2,) * 2)
            self.assertLess(max(row.widths), 1000)
            self.assertEqual(FAMILIES["across"].over(given, cleat, row, Finish()) is not None, lies)

    def test_a_rack_overhead_clears_the_track_that_hangs_below_it(self) -> None:
        track, overhead = FAMILIES["track"], FAMILIES["overhead"]
        low = Row(shape=Shape(height=2172, depth=510, member=1960), x=0, widths=(560,))
        for foot, too_low in ((2178, True), (2202, False)):
            over = Row(shape=Shape(height=foot + 420, depth=600, member=420), x=0, widths=(1500,))
            self.assertEqual(meet(track, low, overhead, over), too_low)
            self.assertEqual(meet(overhead, over, track, low), too_low)


class CornerTests(TestCase):
    def test_a_neighbour_that_keeps_clear_hides_nothing(self) -> None:
        meet = corners(shed())
        self.assertEqual({(c.owner, c.neighbour) for c in meet}, {("B", "A"), ("B", "C")})
        self.assertEqual(len(blind_zones(meet)["B"]), 2)
        self.assertEqual(blind_zones(meet, {"A": [(0, 1700)], "C": [(1300, 3000)]}), {})
        self.assertEqual(len(blind_zones(meet, {"A": [(0, 1900)], "C": [(1300, 3000)]})["B"]), 1)
        self.assertEqual(len(blind_zones(meet, {"C": [(1300, 3000)]})["B"]), 1, "a wall that is not built on may be")

    def test_rows_are_cut_to_keep_clear(self) -> None:
        one, given = shed(), envelopes(shed(), TIGHT_FIT)
        (near,) = [c.near for c in corners(one) if c.neighbour == "A"]
        for family in ("rack", "pegs"):
            made = fills_of(FAMILIES[family], one.section("A"), given["A"], Finish(), [])
            cut = [f for fill in made if (f := clear_of(fill, [near], given["A"])) is not None]
            self.assertTrue(cut)
            for fill in cut:
                self.assertTrue(all(r.end + f.ends <= near[0] for f, r in fill.rows))

    def test_a_corner_is_hidden_by_what_stands_before_it(self) -> None:
        one, given = shed(), envelopes(shed(), TIGHT_FIT)
        meet, rack = corners(one), FAMILIES["rack"]
        a, b, c = (fills_of(rack, one.section(s), given[s], Finish(), [])[0] for s in "ABC")
        clear = {x.neighbour: x.near for x in meet}
        kept = [clear_of(fill, [clear[fill.section]], given[fill.section]) for fill in (a, c)]
        self.assertTrue(all(kept))
        self.assertTrue(any(bay.blind for bay in stand((a, b, c), given, meet, {}).bays))
        self.assertFalse(any(bay.blind for bay in stand((*filter(None, kept), b), given, meet, {}).bays))

    def test_what_is_found_with_clear_corners_holds(self) -> None:
        one = shed()
        asked = Task("shed", one, envelopes(one, TIGHT_FIT), (thing("boxes", "lidded-box", 16),), (ADULT,), TIGHT_FIT)
        candidate = next(
            c for c in candidates(asked)
            if c.main == "rack" and {b.section for b in c.bays} == {"A", "B", "C"}
            and min(b.x for b in c.bays if b.section == "B") < 500
        )  # fmt: skip
        design_of(asked, begin(asked, "cheapest", candidate))  # which raises where the verifier faults it
