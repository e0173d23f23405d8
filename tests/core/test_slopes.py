"""Boards cut to a sloping ceiling: storeys by hand, boards against the ceiling as read, designs that hold."""

from functools import cache
from unittest import TestCase

from hypothesis import given, settings
from hypothesis import strategies as st

from pinakotheke.core.house import HouseRules
from pinakotheke.core.layout import Design, Task, apply, design_space, verify
from pinakotheke.core.layout.edit.commands import MirrorRow, ReshapeRow, SetFinish
from pinakotheke.core.layout.placement.pool import candidates
from pinakotheke.core.layout.search.furnish import design_of, furnish
from pinakotheke.core.materials import bill
from pinakotheke.core.survey import Envelope, Survey, envelopes
from pinakotheke.core.survey.closed import ceiling_at, ceiling_points
from pinakotheke.core.systems import FAMILIES, Finish
from pinakotheke.core.systems.slopes import FIRST, falls, pitch_of, reach, steps, tiers

from .examples import ADULT, survey_of, thing

RULES = HouseRules(fit="every-inch", reserve=0)
THINGS = (thing("tins", "tin-food", 24), thing("jumpers", "jumper", 8), thing("boxes", "box-small", 3))
CLEAT = FAMILIES["cleat"]


def under(left: int, right: int, width: int, depth: int = 500) -> Survey:
    """A wall under a ceiling from one height to another."""
    return survey_of("under a stair", f"slope along; width {width}; ceiling {left} at 0; ceiling {right} at {width}; "
                     f"depth {depth}")  # fmt: skip


def region(survey: Survey) -> Envelope:
    """The clear region of such a wall."""
    return envelopes(survey, RULES)["A"]


class TierTests(TestCase):
    def test_by_hand_at_45_degrees(self) -> None:
        # From 2000 down to 600 over 1400: at x the ceiling is at 2000 − x, closed off in steps of 25.
        e = region(under(2000, 600, 1400))
        self.assertEqual((falls(e), pitch_of(e)), ("right", 45))
        self.assertEqual(reach(e, 1000, "right")[1], 1000)
        self.assertEqual(reach(e, 1010, "right")[1], 975, "the step that begins at 975 comes down to 1000")
        found = tiers(e, 400, 300)
        self.assertEqual([(t.foot, t.top) for t in found], [(0, 600), (600, 1000), (1000, 1400)])
        self.assertEqual([t.is_cut for t in found], [False, True, True])
        self.assertEqual([t.x1 for t in found[1:]], [1000, 600])

    def test_a_low_knee_makes_no_storey_of_its_own(self) -> None:
        self.assertEqual(tiers(region(under(2000, FIRST - 100, 1600)), 400, 300)[0].top, 400)

    def test_to_the_left_it_is_the_mirror_image(self) -> None:
        right, left = region(under(2200, 700, 1800)), region(under(700, 2200, 1800))
        self.assertEqual((falls(right), falls(left)), ("right", "left"))
        for a, b in zip(tiers(right, 360, 300), tiers(left, 360, 300), strict=True):
            self.assertEqual((a.foot, a.top), (b.foot, b.top))
            self.assertAlmostEqual(a.x1 - a.x0, b.x1 - b.x0, delta=2)

    def test_a_level_ceiling_and_a_ridge_have_none(self) -> None:
        ridge = survey_of("under a stair", "slope along; width 2000; ceiling 900 at 0; ceiling 2200 at 1000; "
                          "ceiling 900 at 2000; depth 500")  # fmt: skip
        self.assertEqual((falls(region(ridge)), tiers(region(ridge), 400, 300)), (None, []))
        level = survey_of("wall", "width 2000; height 2400; depth 500")
        self.assertEqual((steps(region(level)), pitch_of(region(level))), ([], 0))
        self.assertEqual(list(CLEAT.storeys(region(level))), [])


def solved(survey: Survey, effort: float = 0.05, seed: int = 1) -> list[Design]:
    """Designs of cleated shelves."""
    one = Task("stair", survey, envelopes(survey, RULES), THINGS, (ADULT,), RULES, families=("cleat",), effort=effort,
               seed=seed)  # fmt: skip
    return list(design_space(one).alternatives)


@cache
def mitred(left: int = 2000, right: int = 400) -> tuple[Survey, Design]:
    """A design with boards that are cut to the slope: one of the candidates in storeys."""
    survey = under(left, right, 2600)
    one = Task("stair", survey, envelopes(survey, RULES), THINGS, (ADULT,), RULES, families=("cleat",))
    storeys = [c for c in candidates(one) if all(s.row.shape.is_storey for s in c.standing)]
    designs = (design_of(one, furnish(one, "reach", c, 200)) for c in storeys)
    return survey, next(d for d in designs if any(p.mitre for p in d.parts))


class BoardTests(TestCase):
    @settings(max_examples=12, deadline=None)
    @given(low=st.integers(350, 1300), rise=st.integers(300, 1400), width=st.integers(900, 3200), left=st.booleans(),
           depth=st.integers(280, 620), seed=st.integers(1, 50))  # fmt: skip
    def test_any_slope_gives_designs_that_hold(self, low: int, rise: int, width: int, left: bool, depth: int,
                                               seed: int) -> None:  # fmt: skip
        survey = under(low, low + rise, width, depth) if left else under(low + rise, low, width, depth)
        for design in solved(survey, 0.02, seed):
            self.assertEqual(verify(design, envelopes(survey, RULES), THINGS, survey), ())

    def test_boards_meet_the_ceiling_as_it_was_read(self) -> None:
        for left, right in ((2000, 400), (400, 2000)):
            survey, design = mitred(left, right)
            points = ceiling_points(survey, survey.main)
            for part in design.parts:
                if part.mitre:
                    end, way = (part.x + part.w, 1) if right < left else (part.x, -1)
                    top = part.z + part.h
                    self.assertGreaterEqual(ceiling_at(points, end), top, "it stays under the ceiling")
                    self.assertLessEqual(ceiling_at(points, end + way * 30), top + 1, "and runs on until it meets it")
                    self.assertEqual(part.mitre, 32, "1600 over 2600 is 31.6°")

    def test_the_end_cut_is_said_on_the_list(self) -> None:
        _, design = mitred()
        self.assertTrue([line for line in bill(design).lines if line.name == "Shelf, an end cut to 32°"])

    def test_a_storey_has_no_floor_and_its_things_end_under_the_next(self) -> None:
        _, design = mitred()
        for bay in design.bays:
            if bay.z0 > 0:
                self.assertFalse([p for p in design.parts if p.bay == bay.index and p.role == "floor"])
                for other in design.bays:
                    if other.z0 > bay.z0 and other.x < bay.x + bay.w and bay.x < other.x + other.w:
                        self.assertLessEqual(bay.z1 + 64, other.z0, "the cleats of the storey above have their room")

    def test_the_verifier_faults_a_board_that_runs_on_too_far(self) -> None:
        survey, design = mitred()
        board = next(p for p in design.parts if p.mitre)
        longer = board.model_copy(update={"w": board.w + 60})
        bad = design.model_copy(update={"parts": tuple(longer if p.id == board.id else p for p in design.parts)})
        codes = {f.code for f in verify(bad, envelopes(survey, RULES), THINGS) if f.where == board.id}
        self.assertTrue(codes & {"closed", "envelope"}, "it goes into the ceiling, or out at the wall")

    def test_storeys_are_not_mirrored_or_made_taller_by_hand(self) -> None:
        _, design = mitred()
        bay = next(b for b in design.bays if b.z0 > 0)
        for command in (MirrorRow(bay=bay.index), ReshapeRow(bay=bay.index, taller=1)):
            with self.assertRaisesRegex(ValueError, "cut to the slope"):
                apply(design, command)
        self.assertEqual(len(apply(design, SetFinish(finish=Finish(ventilated=True))).bays), len(design.bays))
