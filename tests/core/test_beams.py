"""Beams against closed forms computed here, sympy's beam module and PyNiteFEA."""

from math import pi
from unittest import TestCase

from Pynite import FEModel3D
from sympy import Rational, symbols
from sympy.physics.continuum_mechanics.beam import Beam

from pinakotheke.core.systems import beams
from pinakotheke.core.tables import value

# The worked case: a board 300 × 18 mm of E = 2500 N/mm² over 800 mm under 0.3 N/mm.
E, B, T, L, W = 2500, 300, 18, 800, Rational(3, 10)
INERTIA = Rational(B * T**3, 12)
x = symbols("x")


def sympy_sag(kind: str) -> float:
    """Greatest deflection by sympy, exact."""
    beam = Beam(L, E, INERTIA)
    names = symbols("R0 M0 R1 M1")
    r0, m0, r1, m1 = names
    beam.apply_load(r0, 0, -1)
    beam.apply_load(W, 0, 0, end=L)
    if kind == "cantilever":
        beam.apply_load(m0, 0, -2)
        beam.bc_deflection, beam.bc_slope = [(0, 0)], [(0, 0)]
        beam.solve_for_reaction_loads(r0, m0)
        return abs(float(beam.deflection().subs(x, L)))
    beam.apply_load(r1, L, -1)
    beam.bc_deflection = [(0, 0), (L, 0)]
    if kind == "fixed":
        beam.apply_load(m0, 0, -2)
        beam.apply_load(m1, L, -2)
        beam.bc_slope = [(0, 0), (L, 0)]
        beam.solve_for_reaction_loads(r0, m0, r1, m1)
    else:
        beam.solve_for_reaction_loads(r0, r1)
    return abs(float(beam.deflection().subs(x, L / 2)))


def pynite(held: bool, point: float = 0.0) -> tuple[float, float, float]:
    """(greatest deflection, greatest, least moment) of the worked case in PyNiteFEA."""
    model = FEModel3D()
    model.add_material("board", E, E / 2.6, 0.3, 0)
    model.add_section("section", B * T, float(INERTIA), float(INERTIA), 1e6)
    model.add_node("a", 0, 0, 0)
    model.add_node("b", L, 0, 0)
    model.add_member("shelf", "a", "b", "board", "section")
    model.def_support("a", True, True, True, True, held, held)
    model.def_support("b", True, True, True, False, held, held)
    if point:
        model.add_member_pt_load("shelf", "Fy", -point, L / 2)
    else:
        model.add_member_dist_load("shelf", "Fy", -float(W), -float(W))
    model.analyze()
    shelf = model.members["shelf"]
    return (abs(shelf.min_deflection("dy", "Combo 1")), shelf.max_moment("Mz", "Combo 1"),
            shelf.min_moment("Mz", "Combo 1"))  # fmt: skip


def carries(width: float, depth: float) -> float:
    """Kilograms on a shelf of 18 mm that rests at both ends."""
    return beams.carries(lambda mass: (beams.board_sag(width, depth, 18, mass),))


class BeamTests(TestCase):
    def setUp(self) -> None:
        self.i = beams.second_moment_board(B, T)
        self.w = float(W)

    def test_the_worked_case(self) -> None:
        self.assertAlmostEqual(self.i, 145_800)
        self.assertAlmostEqual(beams.sag_simple(self.w, L, E, self.i), 4.3896, 4)
        self.assertAlmostEqual(beams.sag_fixed(self.w, L, E, self.i), 0.8779, 4)
        self.assertAlmostEqual(beams.sag_cantilever(self.w, L, E, self.i), 42.14, 2)

    def test_sags_agree_with_sympy(self) -> None:
        for kind, ours in (
            ("simple", beams.sag_simple(self.w, L, E, self.i)),
            ("fixed", beams.sag_fixed(self.w, L, E, self.i)),
            ("cantilever", beams.sag_cantilever(self.w, L, E, self.i)),
        ):
            with self.subTest(kind):
                self.assertAlmostEqual(ours, sympy_sag(kind), places=9)

    def test_sags_and_moments_agree_with_finite_elements(self) -> None:
        sag, most, least = pynite(held=False)
        self.assertLess(abs(sag / beams.sag_simple(self.w, L, E, self.i) - 1), 1e-3)
        self.assertLess(abs(max(most, -least) / beams.moment_simple(self.w, L) - 1), 1e-3)
        sag, most, least = pynite(held=True)
        self.assertLess(abs(sag / beams.sag_fixed(self.w, L, E, self.i) - 1), 1e-3)
        self.assertLess(abs(max(most, -least) / beams.moment_fixed(self.w, L) - 1), 1e-3)
        sag, _, _ = pynite(held=False, point=100)
        self.assertLess(abs(sag / beams.sag_point(100, L, E, self.i) - 1), 1e-3)

    def test_a_tube_is_a_disc_less_a_disc(self) -> None:
        self.assertAlmostEqual(beams.second_moment_tube(25, 1.5), pi / 64 * (25**4 - 22**4))

    def test_creep_multiplies_the_sag(self) -> None:
        # EN 1995-1-1 table 3.2: particleboard, service class 1: k_def = 2.25.
        self.assertEqual(beams.long_term(2.0, value("board.particleboard.creep")), 6.5)

    def test_a_shelf_at_what_it_carries_sags_to_the_limit(self) -> None:
        for width in (412, 668, 796):
            carried = carries(width, 558)
            self.assertAlmostEqual(beams.shelf_sag(width, 558, 18, carried), width / value("strength.sag"))

    def test_a_shelf_too_wide_for_its_own_weight_carries_nothing(self) -> None:
        self.assertEqual(carries(3000, 300), 0)

    def test_nothing_is_infinitely_weak(self) -> None:
        for modulus, inertia in ((0, 1), (1, 0), (-1, 1)):
            with self.assertRaises(ValueError):
                beams.sag_simple(1, 1, modulus, inertia)


class PlateTests(TestCase):
    """A board on cleats at three sides."""

    def test_the_square_plate_of_the_handbook(self) -> None:
        # Timoshenko & Woinowsky-Krieger, three edges at rest and one free, b/a = 1: w = 0.01286 qa⁴/D (from memory).
        stiff = 2400 * 18**3 / 12 / (1 - 0.3**2)
        got = beams.sag_on_three_edges(0.001, 1000, 1000, 2400, 18, 0.3) / (0.001 * 1000**4 / stiff)
        self.assertAlmostEqual(got, 0.01286, 4)

    def test_sags_agree_with_finite_plates(self) -> None:
        for width, depth in ((800, 300), (1000, 250), (600, 500)):
            ours = beams.sag_on_three_edges(0.001, width, depth, 2400, 18, 0.3)
            self.assertLess(abs(plates(width, depth) / ours - 1), 0.04, (width, depth))

    def test_it_lies_between_a_beam_and_nothing(self) -> None:
        for width, depth in ((500, 300), (800, 300), (1000, 400), (700, 500), (1032, 600)):
            plate, beam = beams.cleated_sag(width, depth, 18, 5), beams.board_sag(width, depth, 18, 5)
            self.assertTrue(0 < plate.sag < beam.sag, (width, depth))
        # Very deep, its back no longer helps its front: it bends as a plate strip does, 1 − ν² less than a beam.
        deep = beams.sag_on_three_edges(0.001, 500, 2000, 2400, 18, 0.3)
        strip = 0.01522 * 0.001 * 500**4 / (2400 * 18**3 / 12 / (1 - 0.3**2))
        self.assertAlmostEqual(deep / strip, 1, 2)


def plates(width: float, depth: float) -> float:
    """Sag at the middle of the free edge by finite plates (PyNite, independent of the series), load 0.001 N/mm²."""
    across, deep = 16, 6
    model = FEModel3D()
    model.add_material("board", 2400, 2400 / 2.6, 0.3, 0)
    for i in range(across + 1):
        for j in range(deep + 1):
            model.add_node(f"n{i}-{j}", width * i / across, depth * j / deep, 0)
            rests = i in (0, across) or j == 0
            model.def_support(f"n{i}-{j}", True, True, rests, False, False, True)
    for i in range(across):
        for j in range(deep):
            name = f"p{i}-{j}"
            model.add_plate(name, f"n{i}-{j}", f"n{i + 1}-{j}", f"n{i + 1}-{j + 1}", f"n{i}-{j + 1}", 18, "board")
            model.add_plate_surface_pressure(name, 0.001)
    model.analyze_linear()
    return abs(float(model.nodes[f"n{across // 2}-{deep}"].DZ["Combo 1"]))
