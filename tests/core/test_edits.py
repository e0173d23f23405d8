"""Hand edits: pure, in order, refused with the mend when they cannot be carried out, and undone exactly."""

from unittest import TestCase

from pinakotheke.core.errors import EditRefused
from pinakotheke.core.layout import Assignment, Design, History, verify
from pinakotheke.core.layout.edit.commands import (
    AddPart,
    AssignGroup,
    LockBay,
    MovePart,
    RemovePart,
    ReshapeRow,
    ResizePart,
    Several,
)
from pinakotheke.core.layout.edit.edits import MOST_EDITS, apply
from pinakotheke.core.systems import HOLDERS, DrawerFloor, Part

from .examples import WARDROBE, hung, regions, wardrobe


class EditTests(TestCase):
    def setUp(self) -> None:
        self.design = wardrobe()

    def one(self, role: str) -> Part:
        return next(p for p in self.design.parts if p.role == role)

    def refused(self, command: object, part: str) -> None:
        with self.assertRaises(EditRefused) as caught:
            apply(self.design, command)  # type: ignore[arg-type]
        self.assertIn(part, f"{caught.exception.problem} {caught.exception.mend}")

    def test_a_move_goes_by_whole_pitches(self) -> None:
        rail = self.one("rail")
        moved = apply(self.design, MovePart(part=rail.id, steps=-2))
        self.assertEqual(moved.part(rail.id).z, rail.z - 2 * self.design.bays[rail.bay or 0].pitch)
        self.assertEqual(self.design.part(rail.id).z, rail.z)

    def test_a_bracket_goes_with_its_shelf(self) -> None:
        track = hung()
        shelf = next(p for p in track.parts if p.role == "shelf")
        moved = apply(track, MovePart(part=shelf.id, steps=1))
        self.assertEqual([p.id for p in moved.parts], [p.id for p in track.parts])
        before = [p.z for p in track.parts if p.role == "bracket"]
        after = [p.z for p in moved.parts if p.role == "bracket"]
        self.assertEqual(sorted(b - a for a, b in zip(before, after, strict=True) if a != b), [28, 28])

    def test_a_part_taken_out_leaves_its_things_without_a_place(self) -> None:
        rail = self.one("rail")
        held = sum(a.count for a in self.design.held_by(rail.id))
        gone = apply(self.design, RemovePart(part=rail.id))
        self.assertEqual(sum(u.count for u in gone.unplaced), held)
        self.assertFalse([f for f in verify(gone, regions(), WARDROBE) if f.code == "count"])

    def test_things_are_sent_and_brought_back(self) -> None:
        rail = self.one("rail")
        held = self.design.held_by(rail.id)[0]
        sent = apply(self.design, AssignGroup(thing=held.thing, way=held.way, count=1, source=rail.id))
        self.assertEqual([(u.thing, u.count) for u in sent.unplaced], [(held.thing, 1)])
        back = apply(sent, AssignGroup(thing=held.thing, way=held.way, count=1, target=rail.id))
        self.assertEqual(back.unplaced, ())
        self.assertEqual(
            sum(a.count for a in back.held_by(rail.id)), sum(a.count for a in self.design.held_by(rail.id))
        )

    def test_the_contents_of_two_parts_are_exchanged_as_one_act(self) -> None:
        one, other = [p for p in self.design.parts if self.design.held_by(p.id)][:2]

        def sent(held: tuple[Assignment, ...], source: str | None, target: str | None) -> list[AssignGroup]:
            return [AssignGroup(thing=a.thing, way=a.way, count=a.count, source=source, target=target) for a in held]

        mine, theirs = self.design.held_by(one.id), self.design.held_by(other.id)
        commands = (*sent(mine, one.id, None), *sent(theirs, other.id, one.id), *sent(mine, None, other.id))
        history = History(base=self.design).after(Several(commands=commands))
        after = history.current
        self.assertEqual({a.thing for a in after.held_by(one.id)}, {a.thing for a in theirs})
        self.assertEqual({a.thing for a in after.held_by(other.id)}, {a.thing for a in mine})
        self.assertEqual(after.unplaced, self.design.unplaced)
        self.assertEqual(history.undo().current, self.design)

    def test_of_several_none_is_made_where_one_cannot_be(self) -> None:
        rail = self.one("rail")
        held = self.design.held_by(rail.id)[0]
        once = AssignGroup(thing=held.thing, way=held.way, count=held.count, source=rail.id)
        self.refused(Several(commands=(once, once)), "0")

    def test_an_added_part_is_placed_by_the_pitch(self) -> None:
        added = apply(self.design, AddPart(role="shelf", bay=0, z=1000))
        (new,) = set(added.parts) - set(self.design.parts)
        bay = self.design.bays[0]
        self.assertEqual((new.x, new.w, (new.z - bay.z0) % bay.pitch), (bay.x, bay.w, 0))
        self.assertLessEqual(abs(new.z - 1000), bay.pitch)

    def test_a_drawer_gets_the_next_front(self) -> None:
        drawer = self.one("drawer")
        self.assertEqual(apply(self.design, ResizePart(part=drawer.id, steps=1)).part(drawer.id).h, 224)

    def test_what_cannot_be_done_is_refused(self) -> None:
        rail, drawer, frame = self.one("rail"), self.one("drawer"), self.one("frame")
        self.refused(MovePart(part="nowhere", steps=1), "no part")
        self.refused(MovePart(part=frame.id, steps=1), "stands fixed")
        self.refused(MovePart(part=rail.id, steps=200), "leave its bay")
        self.refused(ResizePart(part=rail.id, steps=1), "one size")
        self.refused(ResizePart(part=drawer.id, steps=9), "160, 224, 288")
        self.refused(AddPart(role="shelf", bay=99, z=0), "no bay")
        self.refused(AddPart(role="shelf", bay=0, z=90_000), "leave the bay")
        self.refused(AssignGroup(thing="shirts", way="hang", count=999, source=rail.id), "smaller count")
        self.refused(AssignGroup(thing="shirts", way="hang", count=1, source=rail.id, target=rail.id), "already")
        held = self.design.held_by(rail.id)[0]
        self.refused(
            AssignGroup(thing=held.thing, way="hang", count=1, source=rail.id, target=frame.id), "Nothing is kept"
        )


class IdentityTests(TestCase):
    """A label, a tick or a log points at a compartment, or at what lives there, by an id that stays its own."""

    def setUp(self) -> None:
        self.design = wardrobe()
        self.holders = [p.id for p in self.design.parts if p.role in HOLDERS]

    def test_every_assignment_has_an_id_of_its_own(self) -> None:
        self.assertEqual(len({a.id for a in self.design.assignments}), len(self.design.assignments))

    def test_what_moves_as_a_whole_stays_the_same_row(self) -> None:
        row = self.design.assignments[0]
        target = next(h for h in self.holders if not any(a.thing == row.thing for a in self.design.held_by(h)))
        moved = apply(
            self.design, AssignGroup(thing=row.thing, count=row.count, source=row.part, target=target, way=row.way)
        )
        self.assertEqual([a.part for a in moved.assignments if a.id == row.id], [target])
        self.assertEqual({a.id for a in moved.assignments}, {a.id for a in self.design.assignments})

    def test_what_moves_in_part_is_a_new_row(self) -> None:
        row = next(a for a in self.design.assignments if a.count > 1)
        target = next(h for h in self.holders if not any(a.thing == row.thing for a in self.design.held_by(h)))
        moved = apply(self.design, AssignGroup(thing=row.thing, count=1, source=row.part, target=target, way=row.way))
        (new,) = {a.id for a in moved.assignments} - {a.id for a in self.design.assignments}
        self.assertEqual(sum(a.count for a in moved.assignments if a.id in (new, row.id)), row.count)

    def test_a_part_keeps_its_id_when_its_row_is_stood_anew(self) -> None:
        wider = apply(self.design, ReshapeRow(bay=0, deeper=-1))
        kept = {p.id for p in wider.parts if p.role in HOLDERS}
        self.assertLessEqual(kept, set(self.holders))
        self.assertTrue(kept)

    def test_no_part_gets_the_id_of_one_that_is_gone(self) -> None:
        shelf = next(p for p in reversed(self.design.parts) if p.role == "shelf")
        bare = apply(self.design, RemovePart(part=shelf.id))
        again = apply(bare, AddPart(bay=shelf.bay or 0, role="shelf", z=shelf.z))
        self.assertNotIn(shelf.id, {p.id for p in again.parts})

    def test_two_rows_of_one_id_are_found(self) -> None:
        double = self.design.assignments[0].model_copy(update={"id": self.design.assignments[1].id})
        design = self.design.model_copy(update={"assignments": (double, *self.design.assignments[1:])})
        self.assertIn("two of one id", {f.why for f in verify(design, regions(), WARDROBE)})


class OlderTests(TestCase):
    def test_the_floor_of_an_older_drawer_loses_its_axis(self) -> None:
        data = wardrobe().model_dump(mode="json")
        data["bays"][0]["drawer"] = {"axis": "y", "clear": 92}
        self.assertEqual(Design.model_validate(data).bays[0].drawer, DrawerFloor(clear=92))

    def test_older_rows_get_ids_and_older_drawers_their_floor(self) -> None:
        data = wardrobe().model_dump(mode="json")
        for row in data["assignments"]:
            del row["id"]
        for n, bay in enumerate(data["bays"]):
            del bay["drawer"]
            bay.update(axis="y" if n else "z", height=92 if n else 0)
        design = Design.model_validate(data)
        self.assertEqual(len({a.id for a in design.assignments}), len(data["assignments"]))
        self.assertEqual([b.drawer for b in design.bays],
                         [None, *[DrawerFloor(clear=92)] * (len(data["bays"]) - 1)])  # fmt: skip


class HistoryTests(TestCase):
    def test_undo_and_redo(self) -> None:
        base = wardrobe()
        rail = next(p for p in base.parts if p.role == "rail")
        start = History(base=base)
        once = start.after(MovePart(part=rail.id, steps=-1))
        twice = once.after(RemovePart(part=rail.id))
        self.assertEqual(twice.undo().current, once.current)
        self.assertEqual(twice.undo().undo().current, base)
        self.assertEqual(twice.undo().undo().redo().redo().current, twice.current)
        self.assertEqual(twice.undo().after(MovePart(part=rail.id, steps=-1)).undone, ())

    def test_nothing_to_undo_or_redo(self) -> None:
        start = History(base=wardrobe())
        for act in (start.undo, start.redo):
            with self.assertRaises(EditRefused):
                act()

    def test_a_refused_edit_leaves_the_history_alone(self) -> None:
        start = History(base=wardrobe())
        with self.assertRaises(EditRefused):
            start.after(MovePart(part="nowhere", steps=1))
        self.assertEqual(start.done, ())

    def test_no_more_than_so_many(self) -> None:
        base: Design = wardrobe()
        rail = next(p for p in base.parts if p.role == "rail")
        full = History(base=base, done=tuple(MovePart(part=rail.id, steps=0) for _ in range(MOST_EDITS)))
        with self.assertRaises(EditRefused):
            full.after(MovePart(part=rail.id, steps=0))


class LockedTests(TestCase):
    def test_nothing_is_added_to_a_locked_bay(self) -> None:
        locked = apply(wardrobe(), LockBay(bay=0))
        with self.assertRaises(EditRefused) as caught:
            apply(locked, AddPart(role="shelf", bay=0, z=600))
        self.assertIn("Unlock", caught.exception.mend)
        self.assertTrue(apply(locked, AddPart(role="shelf", bay=1, z=600)))
