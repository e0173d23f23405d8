"""The families beside carcase and track: racks, pegs, ceiling racks, trolleys, inserts; companions; finishes."""

from itertools import pairwise
from unittest import TestCase

from pinakotheke.core.house import HouseRules
from pinakotheke.core.layout import Task
from pinakotheke.core.layout.placement.fills import fills_of, shapes_worth
from pinakotheke.core.layout.placement.pool import allowed, candidates
from pinakotheke.core.survey import envelopes
from pinakotheke.core.systems import FAMILIES, Bay, Finish, Row

from .examples import demo_house, region, task
from .examples import thing as _thing
from .test_families import CARCASE, FOLDED_ONLY, OPEN, PLAIN_FINISH, TRACK, bays_of


class RackTests(TestCase):
    def test_neighbours_share_a_post_so_three_bays_come_from_four(self) -> None:
        family, e = FAMILIES["rack"], region("width 2900; height 2400; depth 600; door none")
        row = Row(shape=shapes_worth(family, e, PLAIN_FINISH)[0], x=3, widths=(760, 760, 760))
        bays = family.bays(e, row)
        posts = family.structure(e, row, bays, PLAIN_FINISH)
        self.assertEqual(len(posts), 4)
        for bay in bays:
            self.assertTrue({bay.x - 36, bay.x + bay.w} <= {p.x for p in posts})

    def test_clips_come_in_bags(self) -> None:
        family = FAMILIES["rack"]
        (bay,) = bays_of("rack", widths=(900,))
        shelves = tuple(family.placed(bay, f"s{n}", "shelf", 200 + 400 * n) for n in range(3))
        clips = next(row for row in family.extras(shelves) if row[0] == "clips")
        # Three shelves on four clips each: 12 clips, bags of 8.
        self.assertEqual(clips[2:4], (12, 8))

    def test_things_stand_on_the_floor_under_the_lowest_shelf(self) -> None:
        family = FAMILIES["rack"]
        (bay,) = bays_of("rack", widths=(900,))
        self.assertEqual((bay.z0, bay.first), (0, 80))
        spot = family.placed(bay, "f", "floor", 0)
        self.assertEqual((spot.z, spot.h, spot.fixed_to), (0, 1, "floor"))


class PegTests(TestCase):
    def test_boards_are_cut_beside_what_is_tall_and_leave_what_is_small(self) -> None:
        line = "width 2400; height 2400; depth 600; door none; pipe at 1000, 0 up, 400 x 2400, out 90"
        line += "; socket at 300, 300 up, 80 x 80"
        family, e = FAMILIES["pegs"], region(line)
        shape = next(s for s in family.shapes(e, PLAIN_FINISH) if s.height == 2000)
        self.assertEqual([(a, b) for a, b in family.stretches(e, shape)], [(3, 1000), (1400, 2387)])
        bay = family.bays(e, Row(shape=shape, x=3, widths=(990,)))[0]
        self.assertTrue([b for b in bay.blocked if b.low <= 300 and b.high >= 380])

    def test_over_a_low_obstacle_boards_still_go(self) -> None:
        e = region("width 2400; height 2400; depth 600; door none; box at 800, 0 up, 700 x 900, out 300")
        shape = next(s for s in FAMILIES["pegs"].shapes(e, PLAIN_FINISH) if s.height == 2000)
        self.assertIn((800, 1500), FAMILIES["pegs"].stretches(e, shape))

    def test_on_the_inside_of_a_door_they_are_as_shallow_as_it_lets_them(self) -> None:
        house = demo_house()
        dresser = house.space("kitchen-dresser").survey
        e = envelopes(dresser, house.rules)["door-back-1"]
        for shape in FAMILIES["pegs"].shapes(e, PLAIN_FINISH):
            self.assertLessEqual(shape.depth, e.y_to - e.y_from)
        self.assertTrue(FAMILIES["pegs"].suits(dresser.section("door-back-1")))
        self.assertFalse(CARCASE.suits(dresser.section("door-back-1")))


class OverheadTests(TestCase):
    def test_it_hangs_over_head_height_and_keeps_off_the_overhead_door(self) -> None:
        house = demo_house()
        bay = house.space("carriage-bay").survey
        family, found = FAMILIES["overhead"], envelopes(bay, house.rules)
        for section, e in found.items():
            for shape in family.shapes(e, PLAIN_FINISH):
                self.assertGreaterEqual(shape.height - shape.member, 1850)
                for start, end in family.stretches(e, shape):
                    for c in e.closed:
                        over = c.z1 > shape.height - shape.member and c.y0 < e.y_from + shape.depth and c.y1 > e.y_from
                        self.assertFalse(over and c.x0 < end and start < c.x1, (section, c.why))

    def test_a_low_ceiling_has_none(self) -> None:
        low = region("width 2400; height 2200; depth 600; door none")
        self.assertEqual(FAMILIES["overhead"].shapes(low, PLAIN_FINISH), ())

    def test_struts_carry_both_ends_of_every_platform(self) -> None:
        family, e = FAMILIES["overhead"], region("width 2900; height 2700; depth 600; door none")
        row = Row(shape=family.shapes(e, PLAIN_FINISH)[0], x=3, widths=(1200, 1200))
        bays = family.bays(e, row)
        struts = family.structure(e, row, bays, PLAIN_FINISH)
        self.assertEqual([p.x for p in struts], [bays[0].x, bays[1].x, bays[1].x + 1200 - 30])
        platform = family.placed(bays[0], "p", "platform", bays[0].z0)
        self.assertFalse([s for s in struts if s.overlaps(platform)])


class TrolleyTests(TestCase):
    LINE = "width 1200; height 2000; depth 700; door none; valve at 300, 400 up, 80 x 80, out 60, access 500, loose"

    def test_it_stands_before_what_only_asks_to_be_reached(self) -> None:
        line = self.LINE.replace(", loose", "")
        e = region(line)
        loose = e.model_copy(update={"closed": tuple(c.model_copy(update={"loose": True}) for c in e.closed)})
        fixed = e.model_copy(update={"closed": tuple(c.model_copy(update={"loose": False}) for c in e.closed)})
        family = FAMILIES["trolley"]
        shape = next(s for s in family.shapes(e, PLAIN_FINISH) if s.height == 720)
        self.assertEqual(len(family.stretches(loose, shape)), 1)
        self.assertGreater(len(family.stretches(fixed, shape)), 1)
        down = tuple(c.model_copy(update={"z0": 0}) for c in loose.closed)
        self.assertGreater(len(CARCASE.stretches(loose.model_copy(update={"closed": down}), shape)), 1)

    def test_a_floor_kept_clear_may_have_what_rolls(self) -> None:
        self.assertIn("trolley", allowed(HouseRules(floor="clear")))
        self.assertNotIn("carcase", allowed(HouseRules(floor="clear")))

    def test_under_a_falling_ceiling_it_fits_at_its_far_end(self) -> None:
        house = demo_house()
        stair = house.space("stair-cupboard").survey
        e = envelopes(stair, house.rules)["A"]
        for fill in fills_of(FAMILIES["trolley"], stair.main, e, PLAIN_FINISH, []):
            for _, row in fill.rows:
                y0 = e.y_from + row.shape.setback
                for c in e.closed:
                    if not c.loose:
                        self.assertFalse(c.meets(row.x, row.end, y0, y0 + row.shape.depth, 0, row.shape.height), c.why)


class InsertTests(TestCase):
    def drawer(self, family_id: str) -> Bay:
        house = demo_house()
        chest = house.space("paper-chest").survey
        e = envelopes(chest, house.rules)["drawer-2"]
        family = FAMILIES[family_id]
        shape = family.shapes(e, PLAIN_FINISH)[0]
        start, end = family.stretches(e, shape)[0]
        return family.bays(e, Row(shape=shape, x=start, widths=(end - start,)))[0]

    def test_a_drawer_is_one_floor_from_back_to_front(self) -> None:
        for family_id in ("dividers", "tray-set"):
            bay, family = self.drawer(family_id), FAMILIES[family_id]
            self.assertEqual((bay.axis, bay.z1 - bay.z0), ("y", bay.depth))
            cell = family.placed(bay, "c", "compartment", bay.z0)
            self.assertTrue(family.meets_sides(cell, bay))
            self.assertFalse(family.meets_sides(cell.model_copy(update={"w": cell.w + 1}), bay))
            self.assertEqual(family.takes(cell, 0), (bay.y, bay.y + bay.depth))

    def test_shelves_that_are_there_cost_nothing_and_are_not_bought(self) -> None:
        house = demo_house()
        dresser = house.space("kitchen-dresser").survey
        e = envelopes(dresser, house.rules)["level-2"]
        family = FAMILIES["level"]
        start, end = family.stretches(e, family.shapes(e, PLAIN_FINISH)[0])[0]
        (bay,) = family.bays(e, Row(shape=family.shapes(e, PLAIN_FINISH)[0], x=start, widths=(end - start,)))
        base = family.placed(bay, "b", "base", bay.z0 - 1)
        self.assertEqual((base.z, family.price(base)), (0, 0))


class DepthTests(TestCase):
    def test_a_lesser_depth_is_offered_where_it_stands_along_clearly_more_wall(self) -> None:
        e = region("width 3000; height 2400; depth 600; door none; box at 800, 0 up, 1500 x 2400, y 400, out 200")
        closed = tuple(c.model_copy(update={"y0": 400, "y1": 600}) for c in e.closed)
        e = e.model_copy(update={"closed": closed})
        depths = {s.depth for s in shapes_worth(CARCASE, e, PLAIN_FINISH) if s.height == 2070}
        self.assertEqual(depths, {584, 370})

    def test_companions_take_what_another_family_leaves_free(self) -> None:
        house = demo_house()
        shed = house.space("coal-shed").survey
        found = envelopes(shed, house.rules)
        things = house.things_in("coal-shed")
        pool = candidates(Task("coal-shed", shed, found, things, house.people, house.rules))
        both = [c for c in pool if {"carcase", "pegs"} <= set(c.families) or {"cleat", "pegs"} <= set(c.families)]
        self.assertTrue(both)
        for candidate in both:
            rows = sorted((r.x, r.end + f.ends) for f, r, *_ in candidate.spans)
            for (_, end), (start, _) in pairwise(rows):
                self.assertLessEqual(end, start)


class FinishTests(TestCase):
    def test_a_fascia_takes_its_width_of_what_slides_out(self) -> None:
        (bay,) = bays_of("track", widths=(690,))
        trimmed = TRACK.finished(bay, Finish(fascia=True))
        self.assertEqual(TRACK.clear_width("basket", bay) - TRACK.clear_width("basket", trimmed), 16)
        self.assertEqual(TRACK.clear_width("shelf", bay), TRACK.clear_width("shelf", trimmed))

    def test_wire_costs_less_than_board_and_is_listed_as_such(self) -> None:
        (bay,) = bays_of("track", widths=(690,))
        board = TRACK.placed(bay, "s", "shelf", 600)
        wire = TRACK.placed(TRACK.finished(bay, Finish(ventilated=True)), "s", "shelf", 600)
        self.assertLess(TRACK.price(wire), TRACK.price(board))
        self.assertEqual((TRACK.named(wire), wire.item), ("Wire shelf", "track.wire-shelf"))

    def test_drawers_take_glass_or_mesh_fronts(self) -> None:
        (bay,) = bays_of("carcase", widths=(704,))
        solid, glass, mesh = (
            CARCASE.placed(CARCASE.finished(bay, Finish(fronts=f)), "d", "drawer", 200, 160)
            for f in ("solid", "glass", "mesh")
        )
        self.assertTrue(CARCASE.price(solid) < CARCASE.price(mesh) < CARCASE.price(glass))
        self.assertEqual(CARCASE.named(glass), "Drawer with a glass front")

    def test_a_whole_design_in_glass_and_wire_verifies_and_lists_them(self) -> None:
        from pinakotheke.core.layout import design_space, verify
        from pinakotheke.core.materials import bill

        for finish, family, item in (
            (Finish(fronts="glass"), "carcase", "carcase.glass-drawer"),
            (Finish(ventilated=True, fascia=True), "track", "track.wire-shelf"),
        ):
            things = (_thing("socks", "socks", 12, way="drawer"), *FOLDED_ONLY) if family == "carcase" else FOLDED_ONLY
            one = task(things, OPEN, families=(family,), finish=finish)
            design = design_space(one).alternatives[0]
            self.assertEqual(verify(design, one.envelopes, things), ())
            items = {line.item for line in bill(design).lines}
            self.assertTrue(item in items or "carcase.basket" in items, items)
