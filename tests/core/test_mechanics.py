"""Beams on any supports, fasteners and tipping against PyNiteFEA, sympy, closed forms and published rows."""

from itertools import pairwise, product
from math import inf
from unittest import TestCase

from Pynite import FEModel3D
from sympy import Rational, symbols
from sympy.physics.continuum_mechanics.beam import Beam

from pinakotheke.core.mechanics.beam import Bent, Load, Support, bend
from pinakotheke.core.mechanics.fasteners import (
    Pulled,
    lag_withdrawal,
    screw_withdrawal,
    shared,
    top_pull,
    used,
)  # fmt: skip
from pinakotheke.core.mechanics.sections import lipped, second_moment_board
from pinakotheke.core.mechanics.tipping import Weight, balance

E, B, T = 2500.0, 300.0, 18.0
INERTIA = second_moment_board(B, T)
EI = E * INERTIA
LB = 0.45359237
WITHIN = 1e-3


def evenly(length: float, per_mm: float) -> tuple[Load, ...]:
    return (Load(0, length, per_mm * length),)


def rests(*places: float) -> tuple[Support, ...]:
    return tuple(Support(x) for x in places)


def pynite(
    length: float, supports: tuple[Support, ...], loads: tuple[Load, ...]
) -> tuple[float, float, float, list[float]]:
    """(greatest deflection either way, greatest sagging and hogging moment, reactions) by finite elements."""
    model = FEModel3D()
    model.add_material("board", E, E / 2.6, 0.3, 0)
    model.add_section("section", B * T, INERTIA, INERTIA, 1e6)
    stations = sorted({0.0, length, *(s.at for s in supports), *(x for load in loads for x in load[:2])})
    for n, x in enumerate(stations):
        model.add_node(f"n{n}", x, 0, 0)
    for n, (a, b) in enumerate(pairwise(stations)):
        model.add_member(f"m{n}", f"n{n}", f"n{n + 1}", "board", "section")
        for load in loads:
            if load.end > load.start and load.start <= a and b <= load.end:
                q = -load.total / (load.end - load.start)
                model.add_member_dist_load(f"m{n}", "Fy", q, q)
    for load in loads:
        if load.end == load.start:
            model.add_node_load(f"n{stations.index(load.start)}", "FY", -load.total)
    for n, s in enumerate(supports):
        model.def_support(f"n{stations.index(s.at)}", n == 0, True, True, n == 0, s.held, s.held)
    model.analyze()
    members = [model.members[f"m{n}"] for n in range(len(stations) - 1)]
    sag = max(max(abs(m.min_deflection("dy", "Combo 1")), abs(m.max_deflection("dy", "Combo 1"))) for m in members)
    moments = [f("Mz", "Combo 1") for m in members for f in (m.max_moment, m.min_moment)]
    reactions = [model.nodes[f"n{stations.index(s.at)}"].RxnFY["Combo 1"] for s in supports]
    return sag, max(moments), -min(moments), reactions


class BeamTests(TestCase):
    def alike(self, ours: Bent, length: float, supports: tuple[Support, ...], loads: tuple[Load, ...]) -> None:
        sag, most, least, reactions = pynite(length, supports, loads)
        self.assertLess(abs(abs(ours.sag) / sag - 1), WITHIN)
        got = sorted((ours.sagging, ours.hogging))
        for mine, theirs in zip(got, sorted((max(most, 0), max(least, 0))), strict=True):
            self.assertAlmostEqual(mine, theirs, delta=WITHIN * max(got))
        for mine, theirs in zip(ours.reactions, reactions, strict=True):
            self.assertAlmostEqual(mine, theirs, delta=WITHIN * max(map(abs, reactions)))

    def test_closed_forms(self) -> None:
        # Roark's Formulas, table of beams: w = 0.3 N/mm over 800 mm, P = 100 N at the middle or the free end.
        w, p, long = 0.3, 100.0, 800.0
        both, held = rests(0, long), (Support(0, held=True), Support(long, held=True))
        root, middle, tip = (Support(0, held=True),), (Load(400, 400, p),), (Load(long, long, p),)
        cases = (
            (both, evenly(long, w), 5 * w * long**4 / (384 * EI), w * long**2 / 8, 0),
            (held, evenly(long, w), w * long**4 / (384 * EI), w * long**2 / 24, w * long**2 / 12),
            (root, evenly(long, w), w * long**4 / (8 * EI), 0, w * long**2 / 2),
            (both, middle, p * long**3 / (48 * EI), p * long / 4, 0),
            (held, middle, p * long**3 / (192 * EI), p * long / 8, p * long / 8),
            (root, tip, p * long**3 / (3 * EI), 0, p * long),
            ((Support(0, held=True), Support(long)), evenly(long, w), w * long**4 / (184.6 * EI), 9 * w * long**2 / 128,
             w * long**2 / 8),
        )  # fmt: skip
        for supports, loads, sag, sagging, hogging in cases:
            got = bend(long, supports, loads, EI)
            self.assertAlmostEqual(got.sag / sag, 1, 3)
            self.assertAlmostEqual(got.sagging, sagging, delta=WITHIN * got.moment)
            self.assertAlmostEqual(got.hogging, hogging, delta=WITHIN * got.moment)

    def test_continuous_over_two_to_eight_brackets(self) -> None:
        """Every number of brackets under even, partial and point loads, with and without overhangs, by finite elements."""
        for n, over in product(range(2, 9), (0.0, 120.0)):
            length = 2400.0
            places = tuple(over + (length - 2 * over) * k / (n - 1) for k in range(n))
            for loads in (evenly(length, 0.2), (Load(200, 900, 180), Load(1500, 1500, 90)),
                          (Load(0, 60, 50), *evenly(length, 0.05))):  # fmt: skip
                with self.subTest(n=n, over=over, loads=loads):
                    self.alike(bend(length, rests(*places), loads, EI), length, rests(*places), loads)

    def test_three_moment_table(self) -> None:
        # Equal spans under even load: support moments in wL² of the three-moment theorem (any handbook).
        for spans, most in ((2, 0.125), (3, 0.1), (4, 0.1071), (5, 0.1053)):
            got = bend(spans * 500, rests(*(500 * n for n in range(spans + 1))), evenly(spans * 500, 0.2), EI)
            self.assertAlmostEqual(got.hogging / (0.2 * 500**2), most, 4)

    def test_an_overhang_by_sympy(self) -> None:
        r0, r1 = symbols("R0 R1")
        beam = Beam(1000, E, INERTIA)
        beam.apply_load(r0, 0, -1)
        beam.apply_load(r1, 700, -1)
        beam.apply_load(Rational(3, 10), 0, 0, end=1000)
        beam.bc_deflection = [(0, 0), (700, 0)]
        beam.solve_for_reaction_loads(r0, r1)
        bow = beam.deflection()
        got = bend(1000, rests(0, 700), evenly(1000, 0.3), EI)
        # Statics alone: about the left support 0.3·1000·500 = R·700; over the right one 0.3·300²/2.
        self.assertAlmostEqual(got.reactions[1], 0.3 * 1000 * 500 / 700)
        self.assertAlmostEqual(got.hogging, 0.3 * 300**2 / 2, 3)
        most = max(abs(float(bow.subs(beam.variable, x))) for x in range(0, 1001, 5))
        self.assertAlmostEqual(abs(got.sag) / most, 1, 3)
        self.alike(got, 1000, rests(0, 700), evenly(1000, 0.3))

    def test_shear_in_a_short_thick_board(self) -> None:
        # w L²/(8 κGA) is added at the middle of an evenly loaded span, κ = 5/6: 1.2 wL²/(8GA) (handbook section 9).
        gravity, long, thick = 700.0, 300.0, 40.0
        stiff, area = E * second_moment_board(B, thick), B * thick
        with_shear = bend(long, rests(0, long), evenly(long, 2), stiff, 5 / 6 * gravity * area)
        without = bend(long, rests(0, long), evenly(long, 2), stiff)
        self.assertAlmostEqual(with_shear.sag - without.sag, 1.2 * 2 * long**2 / (8 * gravity * area), 6)
        self.assertEqual(bend(long, rests(0, long), evenly(long, 2), stiff, inf), without)

    def test_mechanisms_and_nothing_are_refused(self) -> None:
        for args in ((800, rests(0), (), EI), (800, (), (), EI), (800, rests(0, 800), (), 0), (0, rests(0, 1), (), EI)):
            with self.assertRaises(ValueError):
                bend(*args)

    def test_a_lipping_by_cutting_it_into_strips(self) -> None:
        """The transformed section against a sum over thin strips about the axis where they balance."""
        strips = []
        for k in range(3200):
            y = (k + 0.5) / 100
            strips.append((y, (E * 300 if y < 18 else 0) + 8500 * 18))
        axis = sum(y * a for y, a in strips) / sum(a for _, a in strips)
        by_strips = sum(a * (y - axis) ** 2 / 100 for y, a in strips)
        self.assertAlmostEqual(lipped(300, 18, E, 18, 32, 8500).stiffness / by_strips, 1, 4)


class FastenerTests(TestCase):
    def test_rows_of_the_published_table_of_withdrawal(self) -> None:
        """NDS 2018 table 12.2B, cut thread or rolled thread wood screws, lb per inch of thread (from memory)."""
        for gravity, row in ((0.67, {0.138: 177, 0.164: 210, 0.190: 243}), (0.55, {0.138: 119, 0.164: 141, 0.190: 164}),
                             (0.50, {0.138: 98, 0.164: 117, 0.190: 135}),
                             (0.42, {0.138: 69, 0.164: 82, 0.190: 96})):  # fmt: skip
            for diameter, pounds in row.items():
                got = screw_withdrawal(gravity, diameter * 25.4, 25.4) / LB
                self.assertAlmostEqual(got, pounds, delta=1, msg=f"{gravity} {diameter}")

    def test_rows_of_lag_screws(self) -> None:
        """NDS 2018 table 12.2A, lag screws (from memory)."""
        for gravity, row in ((0.55, {0.25: 260, 0.375: 352}), (0.50, {0.25: 225, 0.3125: 266, 0.375: 305, 0.5: 378}),
                             (0.42, {0.25: 173, 0.3125: 205, 0.375: 235, 0.5: 291})):  # fmt: skip
            for diameter, pounds in row.items():
                got = lag_withdrawal(gravity, diameter * 25.4, 25.4) / LB
                self.assertAlmostEqual(got, pounds, delta=1.5, msg=f"{gravity} {diameter}")

    def test_the_pull_of_a_bracket(self) -> None:
        # 20 kg with its centre 150 mm out, the screw 200 mm over the foot: 15 kg.
        self.assertEqual(top_pull(20, 150, 200), 15)
        with self.assertRaises(ValueError):
            top_pull(20, 150, 0)

    def test_shear_and_pull_add_up(self) -> None:
        self.assertAlmostEqual(used(Pulled(10, 15), Pulled(40, 60)), 0.5)
        self.assertEqual(used(Pulled(10, 1), Pulled(10, 0)), inf)
        self.assertEqual(used(Pulled(0, 0), Pulled(10, 0)), 0)

    def test_a_load_is_shared_by_lever_and_none_is_lost(self) -> None:
        for at in (0, 100, 400, 900, 1100):
            got = shared(at, 12, (50, 450, 1000))
            self.assertAlmostEqual(sum(got.values()), 12)
            self.assertAlmostEqual(sum(load * (50, 450, 1000)[n] for n, load in got.items()), 12 * at)


class TippingTests(TestCase):
    def test_a_chest_worked_by_hand(self) -> None:
        """A chest 450 deep of 40 kg, four drawers of 6 kg drawn out by 300 mm with their centres 75 mm before the foot,
        and the 27 kg of ASTM F2057 hung on a front 300 mm out: 40·225 = 9000 holds, 4·6·75 + 27·300 = 9900 tips.
        """
        chest = Weight(40, -225)
        drawers = [Weight(6, 75)] * 4
        self.assertTrue(balance([chest, *drawers]).stands)
        tested = balance([chest, *drawers, Weight(27, 300)])
        self.assertEqual((tested.holds, tested.tips, tested.stands), (9000, 9900, False))
        # An anchor 1200 mm up holds back 900 / 1200 = 0.75 kg.
        self.assertEqual(tested.pull_at(1200), 0.75)

    def test_a_tall_cabinet_worked_by_hand(self) -> None:
        """2000 high, 350 deep, 45 kg empty: 45·175 = 7875 holds; a child of 23 kg hanging 60 mm out: 1380 tips."""
        self.assertTrue(balance([Weight(45, -175), Weight(23, 60)]).stands)
        self.assertFalse(balance([Weight(45, -175), Weight(27, 300)]).stands)
