"""The top is a place, what is alike stands in rows: the verifier is attacked with tops over a ceiling, boards over the
uprights, rows that do not go in, and a row that hangs over another.
"""

from unittest import TestCase

from pinakotheke.core.house import HouseRules
from pinakotheke.core.layout import Design, verify
from pinakotheke.core.layout.edit.commands import AddPart
from pinakotheke.core.layout.edit.edits import apply
from pinakotheke.core.layout.models import Assignment
from pinakotheke.core.layout.packing.contain import lying
from pinakotheke.core.layout.packing.fits import ask
from pinakotheke.core.layout.placement.candidates import stand
from pinakotheke.core.layout.placement.fills import fills_of
from pinakotheke.core.systems import FAMILIES, Finish
from pinakotheke.core.systems.rows import bays_of
from pinakotheke.core.systems.standing import open_above

from .examples import regions, survey, thing, wardrobe

TALL = "width 1846 1849 1843; height 2700 2700 2700; depth 612 618; opening 1250 x 2030; returns 290 306"
TRACK = FAMILIES["track"]


def tracked(*rows: tuple[object, str], shelf_at: int | None = None) -> tuple[Design, dict[str, object]]:
    """A wall of track and standard with one shelf as high as a board is fixed (or at a height), and what stands on it."""
    found = regions(TALL)
    fill = fills_of(TRACK, survey(TALL).main, found["A"], Finish(), [])[0]
    candidate = stand((fill,), found, {}, {})
    bay = candidate.bays[0]
    at = shelf_at if shelf_at is not None else bay.highest // bay.pitch * bay.pitch
    shelf = TRACK.placed(bay, "top", "shelf", at)
    things = tuple(t for t, _ in rows)
    held = tuple(
        Assignment(id=f"a{n}", thing=t.id, part="top", way=way, count=t.count)  # type: ignore[attr-defined,arg-type]
        for n, (t, way) in enumerate(rows)
    )
    design = wardrobe().model_copy(
        update={"bays": candidate.bays, "rows": candidate.standing, "assignments": held, "unplaced": (),
                "parts": (*candidate.structure(found, Finish()), shelf, *TRACK.brackets(shelf, bay))}
    )  # fmt: skip
    return design, {"envelopes": found, "things": things}


class TopTests(TestCase):
    def test_a_bay_without_a_roof_goes_up_to_the_ceiling(self) -> None:
        design, _ = tracked()
        bay = design.bays[0]
        self.assertEqual(bay.z1, regions(TALL)["A"].z_to)
        self.assertLess(bay.highest, bay.z1)

    def test_what_stands_on_the_highest_board_holds(self) -> None:
        box = thing("box", "custom", 1, size=(300, 300, 250))
        design, given = tracked((box, "box"))
        self.assertEqual([f for f in verify(design, **given) if f.where == "top"], [])  # type: ignore[arg-type]

    def test_a_top_over_the_ceiling_is_refused(self) -> None:
        design, _ = tracked()
        room = design.bays[0].z1 - design.bays[0].highest
        tall = thing("tall", "custom", 1, size=(300, 300, room + 40))
        design, given = tracked((tall, "box"))
        self.assertIn("headroom", {f.code for f in verify(design, **given) if f.where == "top"})  # type: ignore[arg-type]

    def test_a_board_over_the_uprights_is_refused(self) -> None:
        design, _ = tracked()
        bay = design.bays[0]
        loose, given = tracked(shelf_at=bay.z1 - 100)
        self.assertIn("support", {f.code for f in verify(loose, **given)})  # type: ignore[arg-type]
        high = apply(design, AddPart(bay=0, role="shelf", z=bay.z0 + 400))
        self.assertTrue(high.parts)
        with self.assertRaisesRegex(ValueError, "would leave the bay"):
            apply(design, AddPart(bay=0, role="shelf", z=bay.z1 - 60))

    def test_a_row_that_hangs_over_it_ends_it(self) -> None:
        found = regions(TALL)
        fill = fills_of(TRACK, survey(TALL).main, found["A"], Finish(), [])[0]
        ((family, row),) = fill.rows
        (bay, *_) = bays_of(family, row, found["A"], fill.rows, Finish())
        plain = family.bays(found["A"], row)[0]
        under = open_above(plain, row.shape.height, found["A"], [(0, 4000, row.shape.height + 200)])
        self.assertEqual(under.z1, row.shape.height + 200)
        beside = open_above(plain, row.shape.height, found["A"], [(bay.x + bay.w, 4000, row.shape.height)])
        self.assertEqual(beside.z1, bay.z1)
        closed = open_above(plain, row.shape.height, found["A"], [(0, 4000, row.shape.height + 20)])
        self.assertEqual((closed.z1, closed.highest), (plain.z1, 0))


class DeepRowTests(TestCase):
    def test_tins_stand_behind_each_other_and_take_less_of_the_shelf(self) -> None:
        tins = thing("tins", "tin-food", 6)
        design, given = tracked((tins, "shelf"), shelf_at=840)
        part, bay = design.part("top"), design.bays[0]
        asked = ask(tins, "shelf", "shelf", TRACK, bay, HouseRules(), 6)
        rows = int(TRACK.clear_depth("shelf", bay) // 80)
        self.assertGreater(rows, 1)
        self.assertEqual(asked.amount, -(-6 // (2 * rows)) * (80 + 20))
        self.assertLessEqual(asked.depth, TRACK.clear_depth("shelf", bay))
        self.assertEqual([f for f in verify(design, **given) if f.where == "top"], [])  # type: ignore[arg-type]
        places = lying(design, part, {"tins": tins})
        self.assertEqual(sum(p.count for p in places), 6)
        self.assertEqual(len({p.y for p in places}), min(rows, len(places)))
        for one in places:
            self.assertLessEqual(one.y + one.d, part.y + part.d + 1e-6)
            for other in places:
                apart = one.x + one.w <= other.x + 1e-6 or other.x + other.w <= one.x + 1e-6
                behind = one.y + one.d <= other.y + 1e-6 or other.y + other.d <= one.y + 1e-6
                self.assertTrue(one is other or apart or behind)

    def test_more_than_its_rows_take_is_refused(self) -> None:
        design, given = tracked((thing("tins", "tin-food", 400), "shelf"), shelf_at=840)
        self.assertTrue({"capacity", "load"} & {f.code for f in verify(design, **given) if f.where == "top"})  # type: ignore[arg-type]
