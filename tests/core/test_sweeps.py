"""Sweeps: what swings or slides, and through where, against shapely's own circles and boxes."""

from math import cos, hypot, radians, sin
from random import Random
from unittest import TestCase

from shapely import Point, box

from pinakotheke.core.geometry.sweeps import swing
from pinakotheke.core.layout.verify.motion import door_swing, sweeps_of
from pinakotheke.core.survey.models import Car, Obstacle, OverheadDoor
from pinakotheke.core.survey.motion import car_doors, door_leaves, overhead_leaf, window_leaf
from pinakotheke.core.systems import PULL_OUTS, OnPart, Part

from .examples import PLAIN, survey, wardrobe


class LeafTests(TestCase):
    def test_a_leaf_meets_what_a_quarter_circle_meets(self) -> None:
        rng = Random(4)
        for right in (False, True):
            leaf = swing("d", "", (1000, 200), 600, 0, 2000, right=right)
            way = Point(1000, 200).buffer(600, quad_segs=720).intersection(box(leaf.x0, leaf.y0, leaf.x1, leaf.y1))
            for _ in range(400):
                x, y = rng.uniform(200, 1900), rng.uniform(0, 1000)
                thing = box(x, y, x + rng.uniform(5, 200), y + rng.uniform(5, 200))
                shared = way.intersection(thing).area
                if 0 < shared < 2:
                    continue  # the reference is made of chords
                x0, y0, x1, y1 = thing.bounds
                self.assertEqual(leaf.meets(x0, x1, y0, y1, 100, 200), shared > 0, (right, thing.bounds))

    def test_its_arc_runs_about_the_hinge_inside_its_box(self) -> None:
        for door in ("door hinged left, swings in", "door hinged right, swings in", "double hinged door, swings in"):
            read = survey(f"{PLAIN.replace('1250', '500')}; {door}; nibs 296 1046")
            leaves = door_leaves(read, read.main, 612, 2400)
            self.assertEqual(len(leaves), 2 if "double" in door else 1, door)
            self.assertEqual(sum(leaf.x1 - leaf.x0 for leaf in leaves), 500)
            for leaf in leaves:
                assert leaf.hinge is not None
                for x, y in leaf.arc:
                    self.assertAlmostEqual(hypot(x - leaf.hinge[0], y - leaf.hinge[1]), leaf.x1 - leaf.x0)
                    self.assertTrue(leaf.x0 - 1e-6 <= x <= leaf.x1 + 1e-6 and leaf.y0 - 1e-6 <= y <= 612 + 1e-6)

    def test_doors_that_do_not_swing_in_sweep_nothing_here(self) -> None:
        for door in ("door hinged left", "door sliding", "door none"):
            read = survey(f"{PLAIN}; {door}")
            self.assertEqual(door_leaves(read, read.main, 612, 2400), ())


class SampledTests(TestCase):
    """What moves, moved by small steps: every point of it at every step, against the region that is said to be swept."""

    def test_a_leaf_turned_degree_by_degree(self) -> None:
        rng = Random(7)
        for right in (False, True):
            leaf = swing("d", "", (1000, 200), 600, 0, 2000, right=right)
            way = -1 if right else 1
            turns = [radians(a / 4) for a in range(361)]
            points = [(1000 + way * r * cos(t), 200 + r * sin(t)) for t in turns for r in range(5, 601, 5)]
            for _ in range(150):
                x, y = rng.uniform(200, 1900), rng.uniform(0, 1000)
                w, d = rng.uniform(20, 200), rng.uniform(20, 200)
                hit = any(x < px < x + w and y < py < y + d for px, py in points)
                if hit:
                    self.assertTrue(leaf.meets(x, x + w, y, y + d, 100, 200), (right, x, y, w, d))
                # What is well clear of every place it went through is not met: the samples lie 5 mm apart.
                near = any(x - 6 < px < x + w + 6 and y - 6 < py < y + d + 6 for px, py in points)
                if not near:
                    self.assertFalse(leaf.meets(x, x + w, y, y + d, 100, 200), (right, x, y, w, d))

    def test_a_drawer_drawn_out_by_millimetres(self) -> None:
        rng = Random(8)
        drawer = next(p for p in wardrobe().parts if p.role in PULL_OUTS)
        (sweep,) = (s for s in sweeps_of(wardrobe()) if s.part == drawer.id)
        for _ in range(200):
            x, y = (
                rng.uniform(drawer.x - 300, drawer.x + drawer.w),
                rng.uniform(drawer.y + drawer.d, drawer.y + 3 * drawer.d),
            )
            w, d = rng.uniform(5, 200), rng.uniform(5, 200)
            # The front of the drawer at each step of the way; before it was open, nothing stood there.
            fronts = (drawer.y + drawer.d + out for out in range(1, drawer.d + 1))
            hit = x < drawer.x + drawer.w and drawer.x < x + w and any(y < front for front in fronts)
            self.assertEqual(sweep.meets(x, x + w, y, y + d, drawer.z + 5, drawer.z + 6), hit, (x, y, w, d))


class RoomTests(TestCase):
    def test_a_car_a_window_and_an_overhead_door(self) -> None:
        left, right = car_doors(Car(length=4300, width=1790, height=1480, x=900, gap=500, doors=700))
        self.assertEqual((left.x0, left.x1, right.x0, right.x1), (200, 900, 2690, 3390))
        self.assertEqual((left.y0, left.y1), (500, 4800))
        leaf = overhead_leaf(OverheadDoor(kind="sectional", track=2150, reach=2600), 3000, 5200, 2500)
        self.assertEqual((leaf.y0, leaf.y1, leaf.z0, leaf.z1), (2600, 5200, 2150, 2500))
        window = Obstacle(id="w", kind="window", x=400, z=900, width=500, height=900, projection=20, swing=480)
        swept = window_leaf(window)
        assert swept is not None
        self.assertEqual((swept.x0, swept.x1, swept.y1, swept.z0, swept.z1), (400, 900, 530, 900, 1800))
        self.assertIsNone(window_leaf(window.model_copy(update={"swing": None})))


class DesignTests(TestCase):
    def test_what_slides_out_goes_before_its_front_as_far_as_it_is_deep(self) -> None:
        design = wardrobe()
        drawers = {p.id: p for p in design.parts if p.role in PULL_OUTS}
        found = {s.part: s for s in sweeps_of(design)}
        self.assertTrue(drawers)
        for key, part in drawers.items():
            self.assertEqual((found[key].y0, found[key].y1), (part.y + part.d, part.y + 2 * part.d))

    def test_a_cabinet_s_leaf(self) -> None:
        door = Part(id="d", item="carcase.door", role="door", x=100, y=580, z=80, w=450,
                    d=18, h=2000, fixed_to=OnPart(part="f"), hinge="right")  # fmt: skip
        leaf = door_swing(door)
        self.assertEqual((leaf.hinge, leaf.x0, leaf.x1, leaf.y1), ((550, 580), 100, 550, 1030))
