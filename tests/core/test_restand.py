"""Rows stood anew by hand: every change makes a design that can be undone, refused where it cannot stand, and shown by
the verifier where it leaves something without room.
"""

from unittest import TestCase

from pinakotheke.core.errors import EditRefused
from pinakotheke.core.layout import Design, History, verify
from pinakotheke.core.layout.edit.commands import (
    AddPart,
    Command,
    CopyBay,
    LockBay,
    LockPart,
    MirrorRow,
    MovePart,
    RemovePart,
    ReshapeRow,
    SetFinish,
    SwapFamily,
    SwapPart,
    WidenBay,
)
from pinakotheke.core.layout.edit.edits import apply
from pinakotheke.core.layout.edit.restand import restood
from pinakotheke.core.layout.placement.candidates import meet
from pinakotheke.core.systems import FAMILIES, Finish, Row, Shape

from .examples import FOLDED, WARDROBE, hung, regions, wardrobe

GEOMETRY = {"envelope", "closed", "overlap", "support"}


def faults(design: Design, things: tuple[object, ...] = WARDROBE) -> set[str]:
    return {f.code for f in verify(design, regions(), things)}  # type: ignore[arg-type]


class RestandTests(TestCase):
    def setUp(self) -> None:
        self.design = wardrobe()

    def refused(self, command: Command, part: str, design: Design | None = None) -> None:
        with self.assertRaises(EditRefused) as caught:
            apply(design or self.design, command)
        self.assertIn(part, f"{caught.exception.problem} {caught.exception.mend}")

    def test_stood_anew_without_a_change_it_is_the_same(self) -> None:
        for design in (self.design, hung()):
            same = restood(design, {}, {b: b for b in range(len(design.bays))})
            self.assertEqual({p.id: p for p in same.parts}, {p.id: p for p in design.parts})
            self.assertEqual(same.bays, design.bays)

    def test_mirrored_twice_everything_is_back(self) -> None:
        once = apply(self.design, MirrorRow(bay=0))
        self.assertFalse(GEOMETRY & faults(once))
        widths = [b.w for b in self.design.bays]
        self.assertEqual([b.w for b in once.bays], widths[::-1])
        twice = apply(once, MirrorRow(bay=0))
        self.assertEqual(
            {p.id: (p.x, p.z, p.w) for p in twice.parts}, {p.id: (p.x, p.z, p.w) for p in self.design.parts}
        )
        self.assertEqual(twice.assignments, self.design.assignments)

    def test_a_mirrored_part_is_in_the_bay_across(self) -> None:
        last = len(self.design.bays) - 1
        once = apply(self.design, MirrorRow(bay=0))
        for part in self.design.parts:
            if part.role in ("rail", "shelf", "drawer") and part.bay is not None:
                self.assertEqual(once.part(part.id).bay, last - part.bay)
                self.assertEqual(once.part(part.id).z, part.z)

    def test_a_bay_takes_the_next_module_and_its_insides_with_it(self) -> None:
        sizes = FAMILIES["carcase"].modules
        now = self.design.bays[0].w + 36
        slim = apply(self.design, WidenBay(bay=0, steps=-1))
        self.assertEqual(slim.bays[0].w + 36, sizes[sizes.index(now) - 1])
        self.assertFalse(GEOMETRY & faults(slim))
        for part in slim.parts:
            if part.bay == 0 and part.role in ("shelf", "rail", "drawer", "base"):
                self.assertEqual((part.x, part.w), (slim.bays[0].x, slim.bays[0].w))
        back = apply(slim, WidenBay(bay=0, steps=1))
        self.assertEqual(back.bays[0].w, self.design.bays[0].w)

    def test_no_wider_than_the_wall_and_no_module_beyond_the_range(self) -> None:
        self.refused(WidenBay(bay=0, steps=10), "no such width")
        full = self.design
        with self.assertRaises(EditRefused):
            for _ in range(8):
                for bay in range(len(full.bays)):
                    full = apply(full, WidenBay(bay=bay, steps=1))

    def test_a_lower_row_loses_what_stood_too_high_and_says_so(self) -> None:
        lower = apply(self.design, ReshapeRow(bay=0, taller=-1))
        self.assertLess(max(p.z + p.h for p in lower.parts), max(p.z + p.h for p in self.design.parts))
        self.assertFalse(GEOMETRY & faults(lower))
        placed = sum(a.count for a in lower.assignments) + sum(u.count for u in lower.unplaced)
        self.assertEqual(placed, sum(t.count for t in WARDROBE))
        self.refused(ReshapeRow(bay=0, taller=9), "no such height")
        self.refused(ReshapeRow(bay=0, deeper=9), "no such depth")

    def test_a_less_deep_row_is_refused_nothing_and_shows_what_sticks_out(self) -> None:
        shallow = apply(self.design, ReshapeRow(bay=0, deeper=-2))
        self.assertEqual(max(p.d for p in shallow.parts if p.role == "frame"), 370)
        self.assertIn("size", faults(shallow))

    def test_a_row_that_hangs_over_another_is_not_in_its_way(self) -> None:
        over = next(f for f in FAMILIES.values() if f.hangs_over)
        under, low = FAMILIES["carcase"], Row(shape=Shape(height=1000, depth=400, member=1000), x=0, widths=(800,))
        high = low.model_copy(update={"shape": Shape(height=2200, depth=400, member=900)})
        self.assertFalse(meet(under, low, over, high) or meet(over, high, under, low))
        self.assertTrue(meet(under, high, over, high), "both up there")
        self.assertTrue(meet(under, low, under, high), "a frame takes the wall down to the floor")
        self.assertFalse(meet(under, low, under, high.model_copy(update={"x": low.end + under.ends})), "beside")

    def test_in_another_family_the_row_is_empty_and_stands(self) -> None:
        other = apply(self.design, SwapFamily(bay=0, family="track"))
        self.assertEqual(other.families, ("track",))
        self.assertEqual(sum(u.count for u in other.unplaced), sum(t.count for t in WARDROBE))
        self.assertFalse(GEOMETRY & faults(other))
        self.refused(SwapFamily(bay=0, family="wicker"), "no family")

    def test_doors_crown_and_lights_come_and_go(self) -> None:
        finish = Finish(doors="hinged", lights=True)
        shallow = apply(self.design, ReshapeRow(bay=0, deeper=-1))
        shut = apply(shallow, SetFinish(finish=finish))
        self.assertTrue({"door", "light"} <= {p.role for p in shut.parts})
        self.assertFalse({"envelope", "overlap", "support"} & faults(shut))
        bare = apply(shut, SetFinish(finish=Finish()))
        self.assertEqual({p.id for p in bare.parts}, {p.id for p in shallow.parts})

    def test_a_finish_there_is_no_room_for_is_refused(self) -> None:
        tall = self.design
        while True:
            try:
                tall = apply(tall, ReshapeRow(bay=0, taller=1))
            except EditRefused:
                break
        self.refused(SetFinish(finish=Finish(crown=True)), "no room", tall)

    def test_boards_cut_to_the_wall_have_no_next_module(self) -> None:
        from .examples import solved

        cleat = solved(FOLDED, families=("cleat",)).alternatives[0]
        self.refused(WidenBay(bay=0, steps=1), "cut to the wall", cleat)

    def test_a_design_without_its_measures_cannot_be_stood_anew(self) -> None:
        bare = self.design.model_copy(update={"regions": ()})
        self.refused(MirrorRow(bay=0), "not known any more", bare)
        self.refused(MirrorRow(bay=0), "cannot be stood anew", self.design.model_copy(update={"rows": ()}))


class BayTests(TestCase):
    def test_a_copied_bay_has_the_same_parts_empty(self) -> None:
        design = wardrobe()
        copied = apply(design, CopyBay(bay=0, onto=1))
        one, other = (
            sorted(
                (p.role, p.z - copied.bays[n].z0)
                for p in copied.parts
                if p.bay == n and p.role in ("shelf", "rail", "drawer", "cover")
            )
            for n in (0, 1)
        )
        self.assertEqual(one, other)
        self.assertFalse(
            [a for a in copied.assignments if copied.part(a.part).bay == 1 and copied.part(a.part).role != "base"]
        )
        for bad, part in ((CopyBay(bay=0, onto=0), "same bay"), (CopyBay(bay=0, onto=99), "no bay")):
            with self.assertRaises(EditRefused) as caught:
                apply(design, bad)
            self.assertIn(part, caught.exception.problem)

    def test_what_is_locked_is_left_alone(self) -> None:
        design = apply(wardrobe(), LockBay(bay=0))
        inside = next(p for p in design.parts if p.bay == 0 and p.role in ("shelf", "rail", "drawer"))
        for command in (MovePart(part=inside.id, steps=1), RemovePart(part=inside.id), CopyBay(bay=1, onto=0)):
            with self.assertRaises(EditRefused) as caught:
                apply(design, command)
            self.assertIn("locked", caught.exception.problem)
        free = apply(design, LockBay(bay=0, locked=False))
        self.assertEqual(free, wardrobe())
        part = apply(wardrobe(), LockPart(part=inside.id))
        with self.assertRaises(EditRefused):
            apply(part, SwapPart(part=inside.id, role="shelf"))
        with self.assertRaises(EditRefused):
            apply(part, LockPart(part="nowhere"))

    def test_a_part_becomes_another_at_the_same_place(self) -> None:
        design = wardrobe()
        rail = next(p for p in design.parts if p.role == "rail")
        hooks = apply(design, SwapPart(part=rail.id, role="hooks")).part(rail.id)
        self.assertEqual((hooks.role, hooks.item, hooks.z), ("hooks", "carcase.hooks", rail.z))
        with self.assertRaises(EditRefused) as caught:
            apply(design, SwapPart(part=rail.id, role="platform"))
        self.assertIn("It has:", caught.exception.mend)

    def test_brackets_come_with_a_part_swapped_in_and_go_with_it(self) -> None:
        design = hung()
        shelf = next(p for p in design.parts if p.role == "shelf")
        hooks = apply(design, SwapPart(part=shelf.id, role="hooks"))
        self.assertFalse([p for p in hooks.parts if p.id.startswith(f"{shelf.id}-b")])
        again = apply(hooks, SwapPart(part=shelf.id, role="shelf"))
        self.assertEqual({p.id for p in again.parts}, {p.id for p in design.parts})

    def test_what_slides_is_not_added_behind_a_return(self) -> None:
        design = wardrobe()
        behind = next((b for b in design.bays if not b.pulls), None)
        if behind is None:
            self.skipTest("every bay of this design opens")
        with self.assertRaises(EditRefused) as caught:
            apply(design, AddPart(role="drawer", bay=behind.index, z=600))
        self.assertIn("slides", caught.exception.problem)


class FoundAnewTests(TestCase):
    def test_a_design_found_anew_is_one_edit_that_is_undone(self) -> None:
        from pinakotheke.core.layout.edit.commands import Refound

        base, other = wardrobe(), apply(wardrobe(), MirrorRow(bay=0))
        history = History(base=base).after(LockBay(bay=0)).after(Refound(design=other)).after(MirrorRow(bay=0))
        self.assertEqual(history.current, apply(other, MirrorRow(bay=0)))
        self.assertEqual(history.undo().current, other)
        self.assertEqual(history.undo().undo().current, apply(base, LockBay(bay=0)))
        self.assertEqual(history.undo().undo().redo().current, other)
