"""One bay packed by hand, and the ledger's sums."""

from unittest import TestCase

from pinakotheke.core.house import HouseRules
from pinakotheke.core.inventory import Thing
from pinakotheke.core.layout import ledger
from pinakotheke.core.layout.edits import RemovePart, apply
from pinakotheke.core.layout.ledger import capacity
from pinakotheke.core.layout.lots import Lot, Option, cut, reach_points
from pinakotheke.core.layout.packing import EMPTY, NO_STACK, BayPacker, Weights
from pinakotheke.core.systems import FAMILIES

from .examples import ADULT, WARDROBE, thing, wardrobe
from .test_families import bays_of

CARCASE = FAMILIES["carcase"]
FREE = Weights(price=1.0, reach=0.0, front=0.0)
NO_RESERVE = HouseRules(reserve=0)


class PackingTests(TestCase):
    def setUp(self) -> None:
        (self.bay,) = bays_of("carcase", widths=(704,))
        self.packer = BayPacker(self.bay, CARCASE, FREE)

    def lots(self, *things: Thing) -> tuple[Lot, ...]:
        return cut(things, (self.bay,), CARCASE, NO_RESERVE, (ADULT,))

    def options(self, role: str, *things: Thing) -> list[Option]:
        return [next(o for o in lot.options if o.role == role) for lot in self.lots(*things)]

    def test_an_empty_bay_costs_nothing(self) -> None:
        self.assertIs(self.packer.stack([]), EMPTY)

    def test_like_with_like_shares_a_rail(self) -> None:
        # 10 shirts and 5 jackets: 280 + 275 = 555 of 668 mm: one rail, 11.01.
        stack = self.packer.stack(self.options("rail", thing("a", "shirt", 10), thing("b", "jacket", 5)))
        self.assertEqual(len(stack.slots), 1)
        self.assertAlmostEqual(stack.cost, 11.01)

    def test_what_does_not_fit_beside_opens_another(self) -> None:
        # 20 shirts take 560 of 668 mm, 8 trousers 256 more. Rails: ⌈1050/32⌉ + ⌈85/32⌉ = 36 pitches for shirts,
        # ⌈800/32⌉ + 3 = 28 for trousers, of the bay's 71; two rails of shirts would be 72.
        stack = self.packer.stack(self.options("rail", thing("a", "shirt", 20), thing("b", "trousers", 8)))
        self.assertEqual([slot.units for slot in stack.slots], [36, 28])
        two = self.options("rail", thing("a", "shirt", 20), thing("b", "shirt", 8))
        self.assertIs(self.packer.stack(two), NO_STACK)
        three = self.options("rail", thing("a", "shirt", 20), thing("b", "jacket", 8), thing("c", "dress", 8))
        self.assertIs(self.packer.stack(three), NO_STACK)

    def test_a_shelf_at_the_foot_is_the_bays_own_bottom(self) -> None:
        stack = self.packer.stack(self.options("shelf", thing("j", "jumper", 5)))
        self.assertAlmostEqual(stack.cost, 0)
        self.assertEqual(stack.feet, [0])

    def test_drawers_make_one_chest_under_one_cover(self) -> None:
        stack = self.packer.stack(
            self.options("drawer", thing("s", "socks", 60, way="drawer"), thing("u", "t-shirt", 40, way="drawer"))
        )
        (chest,) = stack.slots
        self.assertEqual(chest.role, "drawer")
        self.assertEqual(chest.units, sum(d.units for d in chest.drawers) + 1)
        self.assertAlmostEqual(stack.cost, 50.02 * len(chest.drawers) + 15.19)

    def test_compartments_never_overlap_and_stay_in_the_bay(self) -> None:
        everything = self.lots(*WARDROBE, thing("h", "hat", 2), thing("k", "box-medium", 1))
        stack = self.packer.stack([lot.options[0] for lot in everything])
        top = 0
        for slot, foot in zip(stack.slots, stack.feet, strict=True):
            self.assertGreaterEqual(foot, top)
            top = foot + slot.units
        self.assertLessEqual(top, self.packer.most)
        self.assertEqual(stack.top, top)

    def test_remembering_changes_nothing(self) -> None:
        options = self.options("rail", thing("a", "shirt", 10))
        self.assertEqual(self.packer.cost(1, options), self.packer.cost(1, []))
        self.assertEqual(self.packer.cost(1, options), self.packer.stack(options).cost)


class LotTests(TestCase):
    def test_no_piece_is_lost_and_each_lot_fits_a_compartment(self) -> None:
        bays = bays_of("carcase", widths=(448, 704))
        things = (thing("a", "shirt", 77), thing("b", "jumper", 31), thing("c", "box-medium", 5))
        lots = cut(things, bays, CARCASE, NO_RESERVE, (ADULT,))
        for one in things:
            self.assertEqual(sum(lot.count for lot in lots if lot.thing.id == one.id), one.count)
        for lot in lots:
            first = lot.options[0]
            room = max(CARCASE.component(first.role, bays[b], first.front).capacity for b in first.bays)
            self.assertLessEqual(first.asked, room)

    def test_what_leaves_makes_no_lot(self) -> None:
        (bay,) = bays_of("carcase", widths=(704,))
        self.assertEqual(cut((thing("a", "shirt", 3, decision="sell"),), (bay,), CARCASE, NO_RESERVE, (ADULT,)), ())

    def test_a_reserve_asks_for_more(self) -> None:
        (bay,) = bays_of("carcase", widths=(704,))
        shirts = (thing("a", "shirt", 5),)
        bare, kept = (
            cut(shirts, (bay,), CARCASE, HouseRules(reserve=r), (ADULT,))[0].options[0].asked for r in (0, 0.2)
        )
        self.assertAlmostEqual(kept, bare / 0.8)

    def test_trouble_of_reaching_grows_away_from_the_easy_zone(self) -> None:
        from pinakotheke.core.house.people import reach_zone

        zone = reach_zone(ADULT)
        heights = [zone.easy_high, zone.easy_high + 100, zone.high, zone.high + 1, zone.high + 400]
        points = [reach_points(zone, h, "daily", False, "shelf") for h in heights]
        self.assertEqual(points[0], 0)
        self.assertEqual(points, sorted(points))
        self.assertGreater(points[3], 5 * points[2])
        # A thing used thirty times a month weighs √30 of one used once.
        often, seldom = (reach_points(zone, zone.high + 1, f, False, "shelf") for f in ("daily", "monthly"))
        self.assertAlmostEqual(often / seldom, 30**0.5)


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

    def test_a_drawer_counts_in_litres(self) -> None:
        design = wardrobe()
        drawer = next(p for p in design.parts if p.role == "drawer")
        bay = design.bays[drawer.bay or 0]
        self.assertAlmostEqual(capacity(design, drawer), (bay.w - 26) * (bay.depth - 30) * (drawer.h - 40) / 1e6)

    def test_what_has_no_place_is_still_asked_for(self) -> None:
        design = wardrobe()
        rail = next(p for p in design.parts if p.role == "rail")
        gone = ledger(WARDROBE, design.rules, apply(design, RemovePart(part=rail.id)))
        self.assertEqual(gone.unplaced, sum(a.count for a in design.held_by(rail.id)))
        hanging = next(line for line in gone.lines if line.storage == "hanging")
        self.assertLess(hanging.spare or 0, 0)
