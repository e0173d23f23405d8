"""Boards cut no deeper than they need be, rows of another shape, boards across; and what a tidy wall is: everybody's bays
together, one double hang, seldom things on top.
"""

from itertools import pairwise
from unittest import TestCase

from pinakotheke.core.house import HouseRules, Person
from pinakotheke.core.layout import Design, Task, Weights, design_space, verify
from pinakotheke.core.layout.build.boards import cut_to_depth
from pinakotheke.core.layout.edit.commands import MovePart
from pinakotheke.core.layout.edit.edits import apply
from pinakotheke.core.layout.placement.neighbours import reshaped
from pinakotheke.core.layout.placement.pool import candidates, settled
from pinakotheke.core.layout.search.furnish import begin, design_of, improve
from pinakotheke.core.survey import envelopes
from pinakotheke.core.survey.way_in import WayIn
from pinakotheke.core.systems import FAMILIES, Finish, Part, Row, Shape

from .examples import ADULT, TIGHT_FIT, regions, survey, survey_of, thing

RECESS = "width 1202 1200 1198; height 2506; depth 700; door none"
BO = Person(id="bo", name="Bo", stature=1800)
PAPER = (
    thing("files", "file-box", 8),
    thing("reams", "paper-ream", 10),
    thing("box", "box-medium", 1, frequency="rarely"),
)


def task(line: str, *things: object, people: tuple[Person, ...] = (ADULT,), **more: object) -> Task:
    one = survey(line)
    return Task("closet", one, envelopes(one, TIGHT_FIT), things, people, TIGHT_FIT, **more)  # type: ignore[arg-type]


def cleated(depth: int = 600) -> tuple[Task, Design]:
    """Paper in a deep recess, on boards as deep as the wall."""
    asked = task(RECESS, *PAPER, families=("cleat",), effort=0.2)
    return asked, design_space(asked).alternatives[0]


class CutBoardTests(TestCase):
    def test_a_board_is_as_deep_as_what_lies_on_it_and_no_deeper_than_the_one_below(self) -> None:
        asked, design = cleated()
        self.assertEqual(verify(design, asked.envelopes, asked.things, asked.survey, asked.limits), ())
        boards = [p for p in design.parts if p.role == "shelf"]
        self.assertTrue(any(p.d < design.bays[p.bay or 0].depth for p in boards))
        for upper in boards:
            for lower in boards:
                if upper.bay == lower.bay and upper.z > lower.z:
                    self.assertLessEqual(upper.d, lower.d)
        for board in boards:
            cleats = [p for p in design.parts if p.belongs_to == board.id and p.d > 19]
            self.assertTrue(all(c.y + c.d <= board.y + board.d for c in cleats), "no cleat sticks out under it")

    def test_what_lies_on_it_reaches_no_further(self) -> None:
        asked, design = cleated()
        again = cut_to_depth(design, {t.id: t for t in asked.things})
        self.assertEqual([(p.id, p.d) for p in again.parts], [(p.id, p.d) for p in design.parts])

    def test_a_board_cut_too_shallow_is_refused(self) -> None:
        asked, design = cleated()
        board = next(
            p for p in design.parts if p.role == "shelf" and any(a.thing == "files" for a in design.held_by(p.id))
        )
        parts = tuple(p.model_copy(update={"d": 250}) if p is board else p for p in design.parts)
        faults = verify(design.model_copy(update={"parts": parts}), asked.envelopes, asked.things, asked.survey)
        self.assertIn(("size", board.id), {(f.code, f.where) for f in faults})

    def test_folders_stand_in_one_row_however_deep_the_board(self) -> None:
        asked = task(RECESS, thing("files", "file-box", 40), families=("cleat",), effort=0.2)
        found = design_space(asked).alternatives[0]
        for part in found.parts:
            held = sum(a.count for a in found.held_by(part.id))
            self.assertLessEqual(held * 80, part.w)


class GableTests(TestCase):
    def gabled(self) -> tuple[Task, Design, Part]:
        """Boards in two bays with a gable between them."""
        asked = task(RECESS, *PAPER, families=("cleat",))
        candidate = next(c for c in candidates(asked) if len(c.bays) == 2 and not any(b.free_end for b in c.bays))
        design = design_of(asked, improve(asked, begin(asked, "cheapest", candidate), 300))
        return asked, design, next(p for p in design.parts if p.role == "panel")

    def test_a_gable_is_as_high_and_deep_as_what_rests_on_it(self) -> None:
        _, design, gable = self.gabled()
        boards = [p for p in design.parts if p.role == "shelf"]
        self.assertEqual(gable.z + gable.h, max(p.z + p.h for p in boards))
        self.assertEqual(gable.d, max(p.d for p in boards))
        self.assertLess(gable.z + gable.h, design.bays[0].z1)

    def test_a_board_past_its_gable_is_refused(self) -> None:
        asked, design, gable = self.gabled()
        for short in ({"h": gable.h - 40}, {"d": gable.d - 40}, {"x": gable.x + 40}):
            parts = tuple(p.model_copy(update=short) if p is gable else p for p in design.parts)
            faults = verify(design.model_copy(update={"parts": parts}), asked.envelopes, asked.things, asked.survey)
            self.assertIn(("support", "nothing below"), {(f.code, f.why) for f in faults}, short)

    def test_a_gable_grows_with_a_board_that_is_moved_up(self) -> None:
        asked, design, gable = self.gabled()
        highest = max((p for p in design.parts if p.role == "shelf"), key=lambda p: p.z)
        moved = apply(design, MovePart(part=highest.id, steps=2))
        self.assertEqual(moved.part(gable.id).h, gable.h + 40)
        self.assertNotIn("support", {f.code for f in verify(moved, asked.envelopes, asked.things, asked.survey)})


class ShapeTests(TestCase):
    def test_other_depths_and_heights_hold(self) -> None:
        asked = task(RECESS, *PAPER)
        candidate = next(c for c in candidates(asked) if c.main == "cleat")
        others = [c for fills in reshaped(asked, candidate) for c in settled(asked, fills)]
        (_, old, *_), *_ = candidate.spans
        shapes = {(r.shape.height, r.shape.depth) for c in others for family, r, *_ in c.spans if not family.lies_on}
        self.assertIn((old.shape.height, 400), shapes)
        self.assertNotIn((old.shape.height, old.shape.depth), shapes)
        for other in others[::5]:
            furnished = improve(asked, begin(asked, "cheapest", other), 20)
            self.assertEqual(len(furnished.answer.stacks), len(other.bays))

    def test_a_board_across_runs_from_upright_to_upright(self) -> None:
        across, rack = FAMILIES["across"], FAMILIES["rack"]
        room = regions("width 3000; height 2400; depth 650; door none")["A"]
        shape = Shape(height=1760, depth=400, member=1760)
        close, wide = (Row(shape=shape, x=20, widths=widths) for widths in ((900, 900), (900, 1160)))
        over = across.over(room, rack, close, Finish())  # type: ignore[attr-defined]
        self.assertEqual((over.x, over.end), (20, 20 + 1800 + rack.ends))
        self.assertIsNone(across.over(room, rack, wide, Finish()))  # type: ignore[attr-defined]
        pipe = regions("width 3000; height 2400; depth 650; door none; pipe at 20, 1800 up, 280 x 600, 700 deep")["A"]
        beside = across.over(pipe, rack, close, Finish())  # type: ignore[attr-defined]
        self.assertGreaterEqual(beside.x, 300)
        self.assertEqual(min(abs(beside.x - x) for x in (20, 920, 1820)), 0)

    def test_a_board_across_without_an_upright_is_refused(self) -> None:
        long = thing("long", "custom", 1, size=(1500, 300, 200), frequency="rarely")
        asked = task("width 3000; height 2400; depth 650; door none", long,
                     families=("rack", "across"), effort=0.1)  # fmt: skip
        candidate = next(c for c in candidates(asked) if "across" in c.families and len(c.bays) > 3)
        design = design_of(asked, improve(asked, begin(asked, "tidiest", candidate), 100))
        top = next(p for p in design.parts if p.family == "across")
        posts = sorted((p for p in design.parts if p.role == "post"), key=lambda p: p.x)
        parts = tuple(p for p in design.parts if p not in posts[-2:])
        faults = verify(design.model_copy(update={"parts": parts}), asked.envelopes, asked.things, asked.survey)
        self.assertIn(("support", top.id), {(f.code, f.where) for f in faults})


class WayInTests(TestCase):
    def test_far_is_along_the_walls_from_the_open_end(self) -> None:
        walls = survey_of("walk-in L", "A: width 3000", "A: height 2600", "A: depth 600", "B: width 2000", "B: height 2600",
                          "B: depth 600", "B: right end open")  # fmt: skip
        given = envelopes(walls, HouseRules())
        way = WayIn.of(walls, given)
        a, b = given["A"].width, given["B"].width
        self.assertEqual(way.far("B", b), 0)
        self.assertEqual(way.far("B", 0), b)
        self.assertEqual(way.far("A", a - 100), b + 100)
        self.assertEqual(WayIn.of(survey(RECESS), regions(RECESS)).far("A", 600), 0, "one wall tells nothing apart")


class TidyTests(TestCase):
    def test_everybody_has_bays_that_follow_one_another(self) -> None:
        things = [
            thing(f"{who}-{kind}", kind, 8, owner=who)
            for kind in ("jumper", "t-shirt", "jeans")
            for who in ("ada", "bo")
        ]
        asked = task("width 3000; height 2400; depth 600; door none", *things, people=(ADULT, BO), families=("carcase",),
                     effort=0.5)  # fmt: skip
        tidy = improve(asked, begin(asked, "tidiest", candidates(asked)[0]), 800)
        self.assertEqual(tidy.unplaced, 0)
        owners = [sorted({lot.thing.owner for c in stack for lot in c.lots}) for stack in tidy.answer.stacks if stack]
        self.assertLessEqual(sum(a != b for a, b in pairwise(owners)), 2)

    def test_garments_out_of_season_hang_together_whoever_wears_them(self) -> None:
        things = (thing("hers", "coat-long", 3, owner="ada", frequency="seasonal"),
                  thing("his", "coat-long", 3, owner="bo", frequency="seasonal"))  # fmt: skip
        asked = task("width 900; height 2400; depth 600; door none", *things, people=(ADULT, BO), effort=0.1)
        got = design_space(asked).alternatives[0]
        self.assertEqual(len({a.part for a in got.assignments}), 1)
        daily = [t.model_copy(update={"frequency": "daily"}) for t in things]
        apart = design_space(
            task("width 1800; height 2400; depth 600; door none", *daily, people=(ADULT, BO), effort=0.1)
        )
        self.assertEqual(len({a.part for a in apart.alternatives[0].assignments}), 2)

    def test_order_is_a_weight_like_the_others(self) -> None:
        self.assertEqual(Weights().order, 5)
        self.assertEqual(Weights.model_validate({"money": 3}).order, 5, "weights of before had none")
