"""What pieces ask of a compartment, the trouble of reaching, and the ledger's sums."""

from unittest import TestCase

import numpy as np

from pinakotheke.core.house import HouseRules
from pinakotheke.core.house.people import reach_zone
from pinakotheke.core.inventory.containers import Container, boxed, boxes_for, containers, is_loose
from pinakotheke.core.layout import ledger, verify
from pinakotheke.core.layout.edit.commands import RemovePart
from pinakotheke.core.layout.edit.edits import apply
from pinakotheke.core.layout.packing.fits import ask, misfit
from pinakotheke.core.layout.packing.trouble import reach_trouble, trouble
from pinakotheke.core.layout.report.ledger import capacity
from pinakotheke.core.systems import FAMILIES, DrawerFloor

from .examples import ADULT, WARDROBE, regions, solved, survey, thing, wardrobe
from .test_families import bays_of

CARCASE = FAMILIES["carcase"]
NO_RESERVE = HouseRules(reserve=0)


class AskTests(TestCase):
    def test_on_hooks_the_narrow_side_lies_along_the_wall_or_the_whole_length(self) -> None:
        (bay,) = bays_of("pegs", widths=(1200,))
        broom = thing("b", "custom", 2, size=(280, 90, 1450), way="box").model_copy(
            update={"kind": "broom", "way": None}
        )
        up = ask(broom, "hook", "hooks", FAMILIES["pegs"], bay, NO_RESERVE, 2)
        flat = ask(broom, "hook", "hooks", FAMILIES["pegs"], bay, NO_RESERVE, 2, turned=True)
        self.assertEqual((up.amount, up.width, up.depth), (2 * (90 + 20), 90, 280))
        # Before a door that leaves 120 mm they hang flat against it.
        shallow = bay.model_copy(update={"hang_depth": 120})
        door = ask(broom, "hook", "hooks", FAMILIES["pegs"], shallow, NO_RESERVE, 2)
        self.assertEqual((door.amount, door.width, door.depth), (2 * (280 + 20), 280, 90))
        self.assertEqual((flat.width, flat.depth), (1450, 90))

    def test_garments_hung_face_out_take_the_depth_and_the_width_of_a_bay(self) -> None:
        narrow = bays_of("carcase", widths=(448,))[0].model_copy(update={"depth": 340, "hang_depth": 360})
        wide = bays_of("carcase", widths=(704,))[0].model_copy(update={"depth": 340, "hang_depth": 360})
        shirts = thing("s", "shirt", 8)
        for bay, fits in ((narrow, False), (wide, True)):
            a = ask(shirts, "hang", "face rail", CARCASE, bay, NO_RESERVE, 8)
            self.assertEqual(misfit(shirts, "hang", "face rail", a, CARCASE, bay) is None, fits)
        self.assertEqual(CARCASE.capacity("face rail", wide), 340)

    def test_in_a_drawer_pieces_lie_in_stacks_as_high_as_it_is(self) -> None:
        floor = {"family": "dividers", "drawer": DrawerFloor(clear=92), "w": 600, "depth": 440}
        bay = bays_of("carcase", widths=(704,))[0].model_copy(update=floor)
        pads = thing("p", "custom", 9, size=(210, 297, 15))
        a = ask(pads, "box", "compartment", FAMILIES["dividers"], bay, NO_RESERVE, 9)
        # (92 - 4) ÷ 15 = 5 high, so 9 make two stacks of 210 mm one behind the other, 4 mm between, 12 to grip them.
        self.assertEqual((a.amount, a.depth, a.height), (297 + 12, 2 * 210 + 4 + 12, 75))

    def test_a_made_for_something_compartment_takes_nothing_else(self) -> None:
        (bay,) = bays_of("carcase", widths=(704,))
        for kind, fits in (("trousers", True), ("shirt", False)):
            one = thing("x", kind, 2)
            a = ask(one, "hang", "trouser rack", CARCASE, bay, NO_RESERVE, 2)
            self.assertEqual(misfit(one, "hang", "trouser rack", a, CARCASE, bay) is None, fits)


class ContainerTests(TestCase):
    def test_as_many_boxes_as_the_volume_asks_for(self) -> None:
        # 16 balls of 0.9 l are 14.4 l; a small bin holds 164 × 254 × 117 mm = 4.87 l, filled to 0.7: 3 balls each.
        yarn = thing("y", "custom", 16, size=(100, 100, 90))
        bin_s = containers()["bin-s"]
        each = int(164 * 254 * 117 * 0.7 / (100 * 100 * 90))
        self.assertEqual(boxes_for(yarn, bin_s, 16), -(-16 // each))
        self.assertIsNone(boxes_for(thing("z", "custom", 1, size=(300, 300, 300)), bin_s, 1))

    def test_a_lid_that_lifts_off_asks_for_its_own_height_again(self) -> None:
        jar = containers()["jar-m"]
        self.assertEqual(jar.room_above, 25)
        self.assertEqual(jar.model_copy(update={"lid": "screw"}).room_above, 25 + jar.height)

    def test_turned_it_shows_its_side(self) -> None:
        socks, box = thing("s", "socks", 14), containers()["bin-m"]
        straight, turned = boxed(socks, box, 14, NO_RESERVE), boxed(socks, box, 14, NO_RESERVE, turned=True)
        assert straight
        assert turned
        self.assertEqual((straight.piece_width, straight.depth), (turned.depth, turned.piece_width))

    def test_they_stand_on_each_other_where_a_dense_house_seldom_asks(self) -> None:
        # 40 of 0.9 l at 3 to a lidded box of 194 x 274 x 127 mm are 14 boxes: seven stacks of two.
        rare, often = (thing("y", "custom", 40, size=(100, 100, 90), frequency=f) for f in ("rarely", "daily"))
        dense, box = HouseRules(access="dense"), containers()["box-s"]
        number = boxes_for(rare, box, 40)
        assert number
        one = boxed(rare, box, 40, dense)
        assert one
        self.assertEqual((one.per_stack, one.clear), (2, 2 * box.height + box.room_above))
        self.assertEqual(one.amount, -(-number // 2) * (box.width + 10))
        for alone in (boxed(often, box, 40, dense), boxed(rare, box, 40, HouseRules(access="single-touch")),
                      boxed(rare, containers()["bin-s"], 40, dense)):  # fmt: skip
            assert alone
            self.assertEqual(alone.per_stack, 1)

    def test_a_design_with_stacked_boxes_holds(self) -> None:
        rules = HouseRules(fit="every-inch", reserve=0, access="dense")
        box = Container(id="c1", name="crate", width=200, depth=280, height=130, wall=3, lid="lift", price=0.1)
        loose = (thing("yarn", "custom", 120, size=(90, 90, 80), mass=0.1, frequency="rarely"),)
        design = solved(loose, families=("cleat",), rules=rules, containers=(box,)).alternatives[0]
        boxes = [p for p in design.parts if p.role == "container"]
        upper = [p for p in boxes if p.z > design.part(p.belongs_to).z + design.part(p.belongs_to).h]
        self.assertTrue(upper)
        self.assertLessEqual(len(upper), len(boxes) / 2)
        self.assertEqual(verify(design, regions(rules=rules), loose, survey()), ())

    def test_what_stands_or_breaks_is_not_loose(self) -> None:
        self.assertTrue(is_loose(thing("s", "socks", 14)))
        self.assertFalse(is_loose(thing("b", "book", 20)) if "book" in _kinds() else False)
        self.assertFalse(is_loose(thing("s", "socks", 1)))


def _kinds() -> set[str]:
    from pinakotheke.core.inventory.kinds import KINDS

    return set(KINDS)


class TroubleTests(TestCase):
    def test_trouble_of_reaching_grows_away_from_the_easy_zone(self) -> None:
        zone, one = reach_zone(ADULT), thing("t", "jumper", 1, frequency="daily")
        heights = [zone.easy_high, zone.easy_high + 100, zone.high, zone.high + 1, zone.high + 400]
        points = list(reach_trouble(zone, np.array(heights), one, "shelf", 1.0))
        self.assertEqual(points[0], 0)
        self.assertEqual(points, sorted(points))
        self.assertGreater(points[3], 5 * points[2])

    def test_a_daily_thing_weighs_the_root_of_thirty_monthly_ones(self) -> None:
        (bay,) = bays_of("carcase", widths=(704,))
        often, seldom = (
            trouble(thing("t", "jumper", 1, frequency=f), "shelf", 2200, 18, bay, CARCASE, (ADULT,))
            for f in ("daily", "monthly")
        )
        self.assertAlmostEqual(often / seldom, 30**0.5)

    def test_poison_within_a_childs_reach_is_worse_than_high_up(self) -> None:
        child = ADULT.model_copy(update={"id": "kid", "stature": 1150, "age": "child"})
        bleach = thing("b", "bleach", 1)
        (bay,) = bays_of("carcase", widths=(704,))
        low, high = (trouble(bleach, "shelf", z, 18, bay, CARCASE, (ADULT, child)) for z in (600, 1500))
        self.assertGreater(low, high + 10)

    def test_what_needs_a_socket_far_from_one_is_trouble(self) -> None:
        (bay,) = bays_of("carcase", widths=(704,))
        printer = thing("p", "printer", 1)
        self.assertIn("power", printer.row.needs)
        near, far = (
            trouble(printer, "shelf", 800, 18, bay, CARCASE, (ADULT,), ((bay.section, x),)) for x in (300.0, 9000.0)
        )
        self.assertGreater(far, near + 10)


class LedgerTests(TestCase):
    def test_without_a_design_only_what_is_asked(self) -> None:
        got = ledger(WARDROBE, NO_RESERVE)
        hanging = next(line for line in got.lines if line.storage == "hanging")
        self.assertEqual((hanging.asked, hanging.given, hanging.spare), (9 * 28, None, None))
        self.assertEqual(got.pieces, 27)

    def test_given_is_what_the_parts_give(self) -> None:
        design = wardrobe()
        got = ledger(WARDROBE, design.rules, design)
        rails = sum(p.w for p in design.parts if p.role == "rail")
        hanging = next(line for line in got.lines if line.storage == "hanging")
        self.assertAlmostEqual(hanging.given or 0, rails)
        for line in got.lines:
            self.assertAlmostEqual(line.spare or 0, (line.given or 0) - line.asked)
            self.assertGreaterEqual(line.spare or 0, -1e-9)

    def test_a_drawer_counts_its_floor(self) -> None:
        design = wardrobe()
        drawer = next(p for p in design.parts if p.role == "drawer")
        bay = design.bay_of(drawer)
        self.assertAlmostEqual(capacity(design, drawer), (bay.w - 26) * (bay.depth - 30))

    def test_what_has_no_place_is_still_asked_for(self) -> None:
        design = wardrobe()
        rail = next(p for p in design.parts if p.role == "rail")
        gone = ledger(WARDROBE, design.rules, apply(design, RemovePart(part=rail.id)))
        self.assertEqual(gone.unplaced, sum(a.count for a in design.held_by(rail.id)))
        hanging = next(line for line in gone.lines if line.storage == "hanging")
        self.assertLess(hanging.spare or 0, 0)
