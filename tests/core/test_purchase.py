"""Purchases counted by hand: packs over several spaces, whole sheets, shares to the cent, suppliers against every way, what
was sawn and spoiled, and the ledger of money.
"""

from datetime import date
from decimal import Decimal
from itertools import product
from unittest import TestCase

from pinakotheke.core.inventory.owned import Owned
from pinakotheke.core.layout import Design
from pinakotheke.core.materials import (
    Choice,
    MoneyEntry,
    Named,
    Offcut,
    PriceList,
    PurchaseLine,
    Stuff,
    StuffPlan,
    Supplier,
    WithLists,
    accounts,
    bill,
    cut_list,
    guess_price_columns,
    leave_out_first,
    offcuts_in_hand,
    purchase,
    read_prices,
    sawn_board,
    sawn_sheet,
    shopping,
    spoil,
    taken_apart,
    unsawn,
    variants,
)
from pinakotheke.core.materials.cutlist import lettered
from pinakotheke.core.materials.cutting.verify import faults_of
from pinakotheke.core.materials.plans import sheets_of
from pinakotheke.core.materials.suppliers import Quote, StandIn

from .examples import hung, solved, wardrobe

DAY = date(2026, 3, 2)


def cleated() -> Design:
    """A design of boards cut to the wall."""
    found = solved(families=("cleat",)).alternatives
    return next(d for d in found if any(p.role == "cleat" for p in d.parts))


def both() -> Named:
    return [("Bedroom", wardrobe()), ("Hall", hung())]


class PurchaseTests(TestCase):
    def test_bought_as_listed_it_costs_what_the_designs_cost_but_for_packs_that_are_shared(self) -> None:
        twice = [("Hall", hung()), ("Attic", hung())]
        got = purchase(twice, Choice())
        alone = bill(hung())
        (screws,) = (line for line in got.lines if line.item == "track.screws")
        (own,) = (line for line in alone.lines if line.item == "track.screws")
        self.assertEqual(screws.needed, 2 * own.needed)
        self.assertEqual(screws.bought, -(-2 * own.needed // 25) * 25)
        self.assertEqual(got.total, 2 * (alone.total - own.total) + screws.total)

    def test_shares_are_the_total_to_the_cent(self) -> None:
        for choice in (Choice(), Choice(cutting="make"), Choice(without=frozenset({"containers"}))):
            got = purchase(both(), choice)
            self.assertEqual(sum(amount for _, amount in got.by_space), got.total)
            self.assertEqual(got.total, sum((line.total for line in got.lines), Decimal(0)))
            for line in got.lines:
                self.assertEqual(line.total, line.total.quantize(Decimal("0.01")))

    def test_what_is_cut_is_every_board_in_its_size_less_its_bands(self) -> None:
        design = wardrobe()
        frames = [p for p in design.parts if p.role == "frame"]
        parts = cut_list([("Bedroom", design)], Choice(cutting="make"))
        sides = [p for p in parts if p.name.endswith(("left", "right"))]
        self.assertEqual(len(sides), 2 * len(frames))
        for one in sides:
            frame = next(f for f in frames if f.id == one.part)
            self.assertEqual((one.length, one.width), (frame.h, frame.d))
            self.assertEqual((one.cut_length, one.cut_width, one.bands), (frame.h, frame.d - 1, 1))
        self.assertEqual(len({p.label for p in parts}), len(parts))
        self.assertEqual(len({p.id for p in parts}), len(parts))
        self.assertEqual(cut_list([("Bedroom", design)], Choice()), ())
        self.assertEqual([lettered(n) for n in (0, 25, 26, 701, 702)], ["A", "Z", "AA", "ZZ", "AAA"])

    def test_whole_sheets_and_battens_by_hand(self) -> None:
        design = cleated()
        choice = Choice(cutting="stock")
        got = purchase([("Hall", design)], choice)
        battens = [p for p in design.parts if p.role == "cleat"]
        plan = next(p for p in got.plans if p.stuff.kind == "board")
        self.assertEqual(len(plan.parts), len(battens))
        # Dressed pine 19 × 64 costs 2.30 a metre, whichever length it is bought in.
        metres = sum(length * number for length, _, _, number in plan.bought) / 1000
        paid = sum(line.total for line in got.lines if line.item == "stock.board")
        self.assertEqual(paid, Decimal(str(round(2.30 * metres, 2))))
        self.assertGreaterEqual(metres * 1000, sum(max(p.w, p.d) for p in battens))
        # A sheet of particleboard, 18 mm: 11.50 a square metre.
        whole = sheets_of(Stuff("sheet", "particleboard", 18))[0]
        self.assertEqual(whole.price, round(11.50 * 2.44 * 1.22 * 100))
        self.assertFalse([line for line in got.lines if line.item in ("cleat.shelf", "cleat.cleat", "cleat.panel")])

    def test_every_plan_can_be_sawn(self) -> None:
        got = purchase([*both(), ("Attic", cleated())], Choice(cutting="make"))
        for plan in got.plans:
            if plan.sheets is not None:
                panels = [p.panel for s in plan.sheets.sheets for p in s.parts]
                stock = sheets_of(plan.stuff)
                self.assertEqual(faults_of(plan.sheets, panels, stock, kerf=3, trim=5, stages=3), ())
                self.assertEqual(sorted(p.key for p in panels), sorted(p.label for p in plan.parts))

    def test_what_the_car_does_not_take_is_bought_cut_to_measure(self) -> None:
        got = purchase([("Bedroom", wardrobe())], Choice(cutting="make", longest=1300))
        self.assertTrue(got.uncut)
        self.assertTrue([line for line in got.lines if line.item == "carcase.frame"])
        self.assertTrue(all(length <= 1300 for plan in got.plans for length, *_ in plan.bought))

    def test_variants_and_what_to_leave_out_first(self) -> None:
        for chosen in (Choice(cutting="make"), Choice()):
            now = purchase(both(), chosen)
            for one in variants(both(), chosen):
                then = purchase(both(), one.choice)
                self.assertEqual(one.money, then.total - now.total)
                self.assertAlmostEqual(one.hours, then.hours - now.hours)
            self.assertEqual("grade-mdf" in {v.key for v in variants(both(), chosen)}, chosen.cutting == "make")
        taken, then_costs = leave_out_first(both(), Choice(), now.total)
        self.assertEqual((taken, then_costs), ((), now.total))
        taken, then_costs = leave_out_first(both(), Choice(), Decimal(1))
        self.assertEqual(then_costs, purchase(both(), Choice(without=frozenset(o.key for o in taken))).total)


class SawingTests(TestCase):
    def plan(self) -> tuple[StuffPlan, Named]:
        designs: Named = [("Hall", cleated())]
        return purchase(designs, Choice(cutting="stock")).plans[0], designs

    def test_what_is_sawn_leaves_the_plan_and_its_rests_are_cut_first(self) -> None:
        plan, designs = self.plan()
        assert plan.sheets is not None
        first = sawn_sheet("s1", plan, plan.sheets.sheets[0])
        rests = offcuts_in_hand((), (first,))
        after = purchase(designs, Choice(cutting="stock"), rests, (first,))
        self.assertEqual(after.total, purchase(designs, Choice(cutting="stock")).total)
        left = {p.id for one in after.plans for p in one.parts}
        self.assertFalse(left & {p.id for p in first.parts})
        spoiled = spoil((first,), first.parts[0].id)
        again = purchase(designs, Choice(cutting="stock"), rests, spoiled)
        self.assertIn(first.parts[0].id, {p.id for one in again.plans for p in one.parts})
        self.assertGreaterEqual(again.total, after.total)

    def test_what_was_sawn_for_another_space_is_not_on_the_list(self) -> None:
        plan, _ = self.plan()
        assert plan.sheets is not None
        first = sawn_sheet("s1", plan, plan.sheets.sheets[0])
        attic = [("Attic", cleated().model_copy(update={"space": "attic"}))]
        alone = purchase(attic, Choice(cutting="stock"))
        self.assertEqual(purchase(attic, Choice(cutting="stock"), (), (first,)).total, alone.total)

    def test_a_rest_that_is_sawn_up_is_gone_and_comes_back_when_it_was_not(self) -> None:
        plan = next(p for p in purchase([("Hall", cleated())], Choice(cutting="stock")).plans if p.lengths is not None)
        assert plan.lengths is not None
        board = next(b for b in plan.lengths.boards if b.rest)
        first = sawn_board("s1", plan, board)
        (rest,) = offcuts_in_hand((), (first,))
        self.assertEqual((rest.length, rest.name), (board.rest, "s1.1"))
        second = first.model_copy(update={"id": "s2", "rest_of": "s1.1", "cents": 0, "rests": ()})
        self.assertEqual(offcuts_in_hand((), (first, second)), ())
        self.assertEqual(unsawn((first, second), "s2"), (first,))
        self.assertEqual(unsawn((first, second), "s1"), ())

    def test_boards_of_the_house_are_offcuts(self) -> None:
        board = Owned(id="o1", name="old door", kind="board", count=2, size=(1900, 700, 18), grade="pine")
        (a, b) = offcuts_in_hand((board,), ())
        self.assertEqual(a, Offcut(Stuff("sheet", "pine", 18), 1900, 700, "o1.1"))
        self.assertEqual(b.name, "o1.2")


class Fixed:
    """A market of two, with the quotes it is given."""

    def __init__(self, quotes: dict[tuple[str, str], Quote], fee: Decimal, free_from: Decimal) -> None:
        self.quotes, self.fee, self.free_from = quotes, fee, free_from

    def suppliers(self) -> tuple[Supplier, ...]:
        return tuple(
            Supplier(id=i, name=i, delivery=self.fee, free_from=self.free_from, days=d) for i, d in (("a", 2), ("b", 7))
        )

    def quote(self, supplier: str, line: PurchaseLine) -> Quote | None:
        return self.quotes.get((supplier, line.item))


def line(item: str, needed: int) -> PurchaseLine:
    return PurchaseLine(item=item, name=item, width=0, depth=0, height=0, needed=needed, bought=needed, unit="piece",
                        each=Decimal(1), total=Decimal(needed), by_space=(("Hall", needed),))  # fmt: skip


class SupplierTests(TestCase):
    def test_the_cheapest_way_against_every_way(self) -> None:
        lines = [line("x", 5), line("y", 3), line("z", 4)]
        quotes = {
            ("a", "x"): Quote(900, 2, 9), ("b", "x"): Quote(380, 1, 3), ("a", "y"): Quote(250, 1, 9),
            ("b", "y"): Quote(700, 4, 9), ("b", "z"): Quote(100, 1, 9), ("a", "z"): Quote(150, 1, 9),
        }  # fmt: skip
        for fee, free in ((0, 0), (5, 1000), (30, 20), (12, 25)):
            got = shopping(lines, Fixed(quotes, Decimal(fee), Decimal(free)), DAY).best
            self.assertEqual(got.cents, cheapest(lines, quotes, fee * 100, free * 100), (fee, free))
            self.assertEqual(got.lacking, ())
        alone = dict(shopping(lines, Fixed(quotes, Decimal(5), Decimal(1000)), DAY).alone)
        self.assertEqual(alone["b"].lacking, (0,))  # three of five
        # By hand: 3 packs of two at 9.00, 3 at 2.50, 4 at 1.50, and 5.00 delivery.
        self.assertEqual((alone["a"].goods, alone["a"].delivery), (2700 + 750 + 600, 500))

    def test_the_stand_in_changes_from_day_to_day_and_not_within_one(self) -> None:
        lines = purchase(both(), Choice(cutting="make")).lines
        asked = [(s.id, one) for s in StandIn(DAY).suppliers() for one in lines]
        today = [StandIn(DAY).quote(*a) for a in asked]
        self.assertEqual(today, [StandIn(DAY).quote(*a) for a in asked])
        later = [StandIn(date(2026, 3, 3)).quote(*a) for a in asked]
        self.assertNotEqual(today, later)
        self.assertTrue(any(q is None for q in today))
        best = shopping(lines, StandIn(DAY), DAY).best
        self.assertTrue(best.ordered)
        for n, one in enumerate(lines):
            brought = sum(o.pieces for o in best.ordered if o.line == n)
            self.assertTrue(n in best.lacking or not one.each or brought >= one.needed, one.name)


class FurnitureTests(TestCase):
    def test_a_bookcase_taken_apart_by_hand(self) -> None:
        shelf = Owned(id="o1", name="bookcase", kind="furniture", size=(800, 280, 2000))
        side, ends, loose = taken_apart(shelf, 4, 18, "pine")
        # 45 mm are lost at every edge that has holes: 2000 - 90 by 280 - 90; between the sides 800 - 36, less 90 where
        # it was screwed.
        self.assertEqual((side.count, side.size), (2, (1910, 190, 18)))
        self.assertEqual((ends.count, ends.size), (2, (674, 280, 18)))
        self.assertEqual((loose.count, loose.size, loose.grade), (4, (764, 280, 18), "pine"))
        self.assertEqual(len(offcuts_in_hand((side, ends, loose), ())), 8)
        self.assertEqual(taken_apart(shelf.model_copy(update={"size": (60, 60, 60)}), 0, 18, "pine"), ())


class PriceListTests(TestCase):
    def test_a_list_is_read_row_by_row_and_compared(self) -> None:
        header = ["Article", "Length", "Depth", "Thickness", "Unit price", "Pack", "In stock"]
        columns = guess_price_columns(header)
        self.assertEqual(list(columns.values()), ["article", "width", "depth", "height", "price", "pack", "stock"])
        table = [
            ["particleboard", "2440", "1220", "18", "€ 30,00", "", "4"],
            ["Wall screws, pack of 25", "", "", "", "5.00", "50", ""],
            ["Shelf", "", "", "", "cheap", "", ""],
            ["Shelf", "", "", "", "3", "many", ""],
        ]
        read = read_prices(table, columns, "metric")
        self.assertEqual([(r.name, r.cents, r.pack, r.there) for r in read.rows],
                         [("particleboard", 3000, 1, 4), ("Wall screws, pack of 25", 500, 50, 10_000)])  # fmt: skip
        self.assertEqual([f.row for f in read.faults], [4, 5])
        own = PriceList(id="p1", name="Yard", on="2026-03-02", delivery=Decimal(7), days=4, rows=read.rows)
        market = WithLists(Fixed({}, Decimal(0), Decimal(0)), (own,))
        whole = line("stock.sheet", 3).model_copy(
            update={"name": "Particleboard", "width": 2441, "depth": 1220, "height": 18}
        )
        half = whole.model_copy(update={"width": 1220})
        got = shopping([whole, half], market, DAY).best
        self.assertEqual((got.goods, got.delivery, got.lacking, got.days), (9000, 700, (1,), 4))


def cheapest(lines: list[PurchaseLine], quotes: dict[tuple[str, str], Quote], fee: int, free: int) -> int:
    """Every way to share the packs out between two."""
    ways = []
    for one in lines:
        a, b = quotes.get(("a", one.item)), quotes.get(("b", one.item))
        some = [
            (na * (a.cents if a else 0), nb * (b.cents if b else 0))
            for na in range((a.there if a else 0) + 1) for nb in range((b.there if b else 0) + 1)
            if na * (a.pack if a else 0) + nb * (b.pack if b else 0) >= one.needed
        ]  # fmt: skip
        ways.append(sorted(set(some))[:40])
    best = 10**9
    for way in product(*ways):
        sums = [sum(w[k] for w in way) for k in (0, 1)]
        best = min(best, sum(sums) + sum(fee for s in sums if s and s < free))
    return best


class LedgerTests(TestCase):
    def test_spent_by_hand(self) -> None:
        rows = (("m1", "hall", "ordered", "200"), ("m2", "hall", "received", "150"), ("m3", "hall", "returned", "20.50"),
                ("m4", "attic", "received", "10"))  # fmt: skip
        entries = [MoneyEntry.model_validate({"id": i, "space": s, "kind": k, "amount": a}) for i, s, k, a in rows]
        hall, attic, whole = accounts({"hall": Decimal("180.00")}, entries)
        # 150 - 20.50 and a trip of 12.
        self.assertEqual((hall.spent, hall.due, hall.trips), (Decimal("141.50"), Decimal(50), 1))
        self.assertEqual((attic.estimate, attic.spent), (Decimal(0), Decimal(10)))
        self.assertEqual((whole.space, whole.spent, whole.estimate), ("", Decimal("151.50"), Decimal("180.00")))
