"""Squareness, angles, outlines and areas against exact geometry: shapely and sympy, both outside this project."""

from math import cos, degrees, hypot, radians, sin
from unittest import TestCase

import sympy
from hypothesis import given
from hypothesis import strategies as st
from shapely.geometry import Polygon

from pinakotheke.core.survey import Survey
from pinakotheke.core.survey.square import area, corner_angle, frames, lean, outline, squareness

from .examples import survey, survey_of


class AngleTests(TestCase):
    def test_against_exact_triangles(self) -> None:
        for a, b, c in ((900, 1200, 1500), (900, 1200, 1511), (634, 2436, 2511), (300, 400, 350)):
            triangle = sympy.Triangle(sss=(a, b, c))  # the angle opposite the third side
            corner = next(v for v in triangle.vertices if v not in _ends(triangle, c))
            self.assertAlmostEqual(corner_angle(a, b, c), degrees(float(triangle.angles[corner])), places=9)

    def test_no_triangle(self) -> None:
        for sides in ((900, 1200, 2100), (900, 1200, 300), (900, 1200, 5000)):
            with self.assertRaises(ValueError):
                corner_angle(*sides)

    def test_difference_of_the_diagonals(self) -> None:
        # Handbook: for sides a, b and a corner of 90° + e, d1² − d2² = 4ab·sin(e), in a parallelogram.
        a, b, e = 2400.0, 600.0, 0.7
        long, short = (hypot(a + s * b * sin(radians(e)), b * cos(radians(e))) for s in (1, -1))
        self.assertAlmostEqual(long**2 - short**2, 4 * a * b * sin(radians(e)), places=3)
        self.assertAlmostEqual(corner_angle(a, b, long), 90 + e, places=9)
        self.assertAlmostEqual(corner_angle(a, b, short), 90 - e, places=9)

    def test_lean_by_hand(self) -> None:
        # 600 deep and half a degree short of square: 600 · tan 0.5° = 5.24 mm comes in.
        self.assertAlmostEqual(lean(600, 89.5), 5.236, places=3)


def _ends(triangle: sympy.Triangle, length: int) -> list[sympy.Point]:
    side = next(s for s in triangle.sides if sympy.simplify(s.length - length) == 0)
    return [side.p1, side.p2]


CORNERS = st.floats(86, 94)


class RoomTests(TestCase):
    @given(st.floats(900, 3500), st.floats(300, 900), st.floats(300, 900), CORNERS, CORNERS)
    def test_diagonals_give_back_the_corners_and_the_area(
        self, width: float, left: float, right: float, a: float, b: float
    ) -> None:
        """A quadrilateral made by its angles, measured with an exact tape, comes back as it was."""
        front_left = (left * cos(radians(a)), left * sin(radians(a)))
        front_right = (width - right * cos(radians(b)), right * sin(radians(b)))
        true = Polygon([front_left, (0, 0), (width, 0), front_right])
        read = Survey.model_validate(
            {"readings": [
                {"id": "w", "what": "width", "level": "low", "face": "back", "value": width},
                {"id": "l", "what": "depth", "side": "left", "value": left},
                {"id": "r", "what": "depth", "side": "right", "value": right},
                {"id": "d1", "what": "diagonal", "side": "left", "value": hypot(*front_right)},
                {"id": "d2", "what": "diagonal", "side": "right",
                 "value": hypot(width - front_left[0], front_left[1])},
            ]}
        )  # fmt: skip
        square = squareness(read)
        self.assertAlmostEqual(square.left or 0, a, places=5)
        self.assertAlmostEqual(square.right or 0, b, places=5)
        self.assertAlmostEqual(area(outline(read)), true.area, delta=1)
        self.assertAlmostEqual(Polygon(outline(read)).symmetric_difference(true).area, 0, delta=1)

    def test_walls_that_lean_the_same_way_leave_less_than_the_width(self) -> None:
        # A rhombus: back and front 1800, yet a rectangle 600 deep has only 1800 − 600·cot(88°) ≈ 1779.
        line = "width 1800 1800 1800; height 2400 2400 2400; depth 600 600; front width 1800 1800 1800; door none"
        in_left = hypot(1800 - 600 * cos(radians(88)), 600 * sin(radians(88)))
        out_right = hypot(1800 - 600 * cos(radians(92)), 600 * sin(radians(92)))
        from .examples import region

        e = region(f"{line}; diagonals {out_right:.2f} {in_left:.2f}")
        self.assertEqual((e.x_from, e.x_to), (24, 1797))  # 20.95 + 3 up, 1800 − 3


class PlanTests(TestCase):
    def test_an_l_turns_at_its_corner(self) -> None:
        room = survey_of("walk-in L", "A: width 2200; B: width 1500")
        a, b = frames(room)
        self.assertEqual((a.origin, a.turn), ((0, 0), 0))
        self.assertAlmostEqual(b.origin[0], 2200)
        self.assertAlmostEqual(b.turn, 90)
        x, y = b.to_plan(1500, 600)
        self.assertAlmostEqual(x, 1600)
        self.assertAlmostEqual(y, 1500)

    def test_a_u_lies_around_its_back_wall(self) -> None:
        room = survey_of("walk-in U", "A: width 2000; B: width 2600; C: width 1900")
        left, back, right = frames(room)
        self.assertEqual(back.origin, (0, 0))
        self.assertAlmostEqual(left.origin[1], 2000)  # its left end is at the door, the right one in the corner
        for got, wanted in zip(left.to_plan(2000, 600), (600, 0), strict=True):
            self.assertAlmostEqual(got, wanted)
        self.assertAlmostEqual(right.to_plan(1900, 0)[1], 1900)
        self.assertAlmostEqual(area(outline(room)), Polygon(outline(room)).area, places=3)

    def test_a_corner_that_was_read_turns_the_next_wall(self) -> None:
        square = survey_of("walk-in L", "A: width 2200; corner 900 x 1200 diagonal 1500; B: width 1500")
        wide = survey_of("walk-in L", "A: width 2200; corner 900 x 1200 diagonal 1511; B: width 1500")
        self.assertAlmostEqual(frames(square)[1].turn, 90)
        self.assertAlmostEqual(180 - frames(wide)[1].turn, corner_angle(900, 1200, 1511))

    def test_there_and_back(self) -> None:
        for frame in frames(survey_of("walk-in U", "A: width 2000; B: width 2600; C: width 1900")):
            x, y = frame.from_plan(frame.to_plan(321, 45))
            self.assertAlmostEqual(x, 321)
            self.assertAlmostEqual(y, 45)

    def test_nothing_read_is_no_angle(self) -> None:
        self.assertEqual(squareness(survey("width 1800; depth 600")).left, None)
