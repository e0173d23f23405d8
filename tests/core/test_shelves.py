"""Shelves: what they are made of, how they are held, against the general beam and PyNiteFEA's plates."""

from math import pi
from unittest import TestCase

from Pynite import FEModel3D

from pinakotheke.core.mechanics import shelves
from pinakotheke.core.mechanics.beam import Load, Support
from pinakotheke.core.mechanics.materials import boards
from pinakotheke.core.mechanics.plate import sag_on_three_edges
from pinakotheke.core.mechanics.sections import second_moment_tube
from pinakotheke.core.mechanics.shelves import USUAL, ShelfMake
from pinakotheke.core.tables import value


def carries(width: float, depth: float) -> float:
    """Kilograms on a shelf of 18 mm that rests at both ends."""
    return shelves.carries(lambda mass: (shelves.board_sag(USUAL, width, depth, 18, mass),))


class ShelfTests(TestCase):
    def test_a_tube_is_a_disc_less_a_disc(self) -> None:
        self.assertAlmostEqual(second_moment_tube(25, 1.5), pi / 64 * (25**4 - 22**4))

    def test_creep_multiplies_the_sag(self) -> None:
        # EN 1995-1-1 table 3.2: particleboard, service class 1: k_def = 2.25.
        self.assertEqual(shelves.long_term(2.0, boards()["particleboard"].creep), 6.5)

    def test_a_shelf_at_what_it_carries_sags_to_the_limit(self) -> None:
        for width in (412, 668, 796):
            carried = carries(width, 558)
            self.assertAlmostEqual(shelves.board_sag(USUAL, width, 558, 18, carried).sag, width / value("strength.sag"))

    def test_a_shelf_too_wide_for_its_own_weight_carries_nothing(self) -> None:
        self.assertEqual(carries(3000, 300), 0)

    def test_the_closed_form_of_the_search_is_the_beam_of_the_checks(self) -> None:
        """What a shelf is rated by, and the general beam under the same load."""
        for width, depth, mass in ((412, 300, 20), (796, 558, 30), (1160, 400, 12)):
            quick = shelves.board_sag(USUAL, width, depth, 18, mass)
            load = (Load(0, width, mass * value("strength.gravity")),)
            exact = shelves.shelf_bent(USUAL, width, depth, 18, (Support(0), Support(width)), load)
            years = shelves.long_term(exact.sag, USUAL.board.creep)
            self.assertAlmostEqual(years / quick.sag, 1, 6)

    def test_another_board_or_a_lipping_is_stiffer(self) -> None:
        plain = shelves.board_sag(USUAL, 900, 400, 18, 20).sag
        for make in (ShelfMake(thickness=22), ShelfMake(lipped=True), ShelfMake(grade="birch-plywood")):
            self.assertLess(shelves.board_sag(make, 900, 400, make.thickness, 20).sag, plain)

    def test_only_what_is_sold_is_a_make(self) -> None:
        with self.assertRaises(ValueError):
            ShelfMake(grade="oak", thickness=18)

    def test_published_rows(self) -> None:
        """Wood Handbook FPL-GTR-282 (2021) table 5-3a at 12 % moisture, GPa: eastern white pine 8.5, northern red oak
        12.5. EN 312:2010 table 7, P5 over 13 to 20 mm: 2400 N/mm². EN 1995-1-1 table 3.2, service class 1: solid wood
        0.60, plywood 0.80, particleboard and MDF 2.25. All from memory.
        """
        rows = boards()
        self.assertEqual([rows[g].modulus for g in ("pine", "oak", "particleboard")], [8500, 12500, 2400])
        creep = [rows[g].creep for g in ("pine", "oak", "spruce-plywood", "birch-plywood", "particleboard", "mdf")]
        self.assertEqual(creep, [0.6, 0.6, 0.8, 0.8, 2.25, 2.25])
        for grade, board in rows.items():
            self.assertTrue(board.source and board.basis == "P", grade)
            self.assertTrue(400 < board.density < 800 and board.bending < 11, grade)
            ShelfMake(grade=grade, thickness=board.thicknesses[0])


class PlateTests(TestCase):
    """A board on cleats at three sides."""

    def test_the_square_plate_of_the_handbook(self) -> None:
        # Timoshenko & Woinowsky-Krieger, three edges at rest and one free, b/a = 1: w = 0.01286 qa⁴/D (from memory).
        stiff = 2400 * 18**3 / 12 / (1 - 0.3**2)
        got = sag_on_three_edges(0.001, 1000, 1000, 2400, 18, 0.3) / (0.001 * 1000**4 / stiff)
        self.assertAlmostEqual(got, 0.01286, 4)

    def test_sags_agree_with_finite_plates(self) -> None:
        for width, depth in ((800, 300), (1000, 250), (600, 500)):
            ours = sag_on_three_edges(0.001, width, depth, 2400, 18, 0.3)
            self.assertLess(abs(plates(width, depth) / ours - 1), 0.04, (width, depth))

    def test_it_lies_between_a_beam_and_nothing(self) -> None:
        for width, depth in ((500, 300), (800, 300), (1000, 400), (700, 500), (1032, 600)):
            plate, beam = shelves.cleated_sag(USUAL, width, depth, 18, 5), shelves.board_sag(USUAL, width, depth, 18, 5)
            self.assertTrue(0 < plate.sag < beam.sag, (width, depth))
        # Very deep, its back no longer helps its front: it bends as a plate strip does, 1 − ν² less than a beam.
        deep = sag_on_three_edges(0.001, 500, 2000, 2400, 18, 0.3)
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
