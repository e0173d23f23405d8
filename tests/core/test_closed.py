"""What is closed to fixed parts: worked cases, and a brute-force voxel check of whole envelopes."""

from math import cos, hypot, radians, sin
from unittest import TestCase

import numpy as np
from hypothesis import given, settings
from hypothesis import strategies as st

from pinakotheke.core.errors import SpaceTooSmall
from pinakotheke.core.house import HouseRules
from pinakotheke.core.survey import Envelope, Survey, envelope, envelopes
from pinakotheke.core.survey.closed import ClosedRegion
from pinakotheke.core.words import closed_in_words

from .examples import PLAIN, demo_house, region, survey_of

TIGHT = HouseRules(fit="every-inch")


def regions(survey: Survey, section: str, of: str) -> list[ClosedRegion]:
    return [c for c in envelope(survey, TIGHT, section).closed if c.obstacle == of]


class ObstacleTests(TestCase):
    def test_a_panel_keeps_its_published_zone(self) -> None:
        # NFPA 70 110.26(A), from memory: 762 wide, 914 deep, 1.98 m high from the floor, and no storage.
        itself, zone = region(PLAIN + "; panel at 900, 1300 up, 362 x 500").closed
        self.assertEqual((zone.x0, zone.x1, zone.z0, zone.z1), (700, 1462, 0, 1980))
        self.assertEqual(zone.y1, 612)  # the whole depth of the closet
        self.assertFalse(zone.loose)
        self.assertEqual((zone.why, itself.why), ("reachable", "stands out"))
        self.assertEqual(closed_in_words(zone, "metric"), "panel must stay reachable 914 mm in front")
        self.assertIn('reachable 36" in front', closed_in_words(zone, "imperial"))

    def test_a_hatch_overhead_closes_straight_down(self) -> None:
        (zone,) = region(PLAIN + "; attic hatch at 400, 2350 up, 500 x 50, off 50, out 500").closed
        self.assertEqual((zone.z0, zone.y0, zone.y1), (0, 50, 550))
        self.assertTrue(zone.loose)

    def test_a_loose_thing_stands_before_a_flat_plate_but_not_before_what_sticks_out(self) -> None:
        flat, before = region(PLAIN + "; socket at 400, 300 up, 80 x 80").closed
        self.assertEqual((flat.why, flat.y1, flat.loose, before.loose), ("stands out", 12, True, True))
        tap, _ = region(PLAIN + "; valve at 400, 300 up, 80 x 80").closed
        self.assertFalse(tap.loose)
        switch, _ = region(PLAIN + "; switch at 400, 1100 up, 80 x 80").closed
        self.assertFalse(switch.loose, "before a switch nothing stands")

    def test_a_leaf_that_swings_in(self) -> None:
        closed = region(PLAIN + "; window at 400, 900 up, 500 x 900, swing 480").closed
        self.assertEqual(max(c.y1 for c in closed), 480 + 50)
        self.assertTrue(any("swings 480 mm" in closed_in_words(c, "metric") for c in closed))

    def test_a_door_that_swings_in_sweeps_its_leaf(self) -> None:
        (leaf,) = region(PLAIN.replace("1250", "500") + "; door hinged left, swings in; nibs 296 1046").closed
        self.assertEqual((leaf.x0, leaf.x1, leaf.y0, leaf.y1, leaf.z1), (296, 796, 112, 612, 2030))
        self.assertEqual(region(PLAIN + "; door hinged left").closed, ())


class RoomTests(TestCase):
    def test_the_corner_belongs_to_one_run(self) -> None:
        room = survey_of("walk-in L", "A: width 2200 2200 2200; height 2400 2400 2400; B: width 1500 1500 1500",
                         "B: height 2400 2400 2400")  # fmt: skip
        self.assertEqual(regions(room, "A", "corner"), [])
        (corner,) = regions(room, "B", "corner")
        self.assertEqual((corner.x0, corner.x1), (0, 670))  # 600 deep and a 70 mm filler
        self.assertIn("wall A", closed_in_words(corner, "metric"))

    def test_an_obstacle_of_the_next_wall_reaches_round_the_corner(self) -> None:
        room = survey_of("walk-in L", "A: width 2200 2200 2200; height 2400 2400 2400; B: width 1500 1500 1500",
                         "B: pipe at 100, 0 up, 60 x 2000, out 80")  # fmt: skip
        (seen,) = regions(room, "A", "o1")
        # 100 along B is 100 out from A; it stands 80 off wall B, so over the last 80 mm of A.
        self.assertEqual((seen.x0, seen.x1, seen.y0, seen.y1), (2120, 2200, 100, 160))

    def test_a_car_and_an_overhead_door(self) -> None:
        bay = survey_of("garage bay", "A: width 5800; height 2700; B: width 3500; height 2700",
                        "C: width 5800; height 2700",
                        "car 4300 x 1800 x 1500 at 900, 500 from the back, doors 650",
                        "overhead door sectional, track 2200, reach 2600")  # fmt: skip
        (before_back,) = regions(bay, "B", "car")
        self.assertEqual((before_back.x0, before_back.x1, before_back.y0), (250, 3350, 500))
        (beside,) = regions(bay, "A", "car")  # A runs from the door to the back wall, so the car ends 500 before it
        self.assertEqual((beside.x0, beside.x1, beside.y0), (1000, 5300, 250))
        (door,) = regions(bay, "A", "overhead door")
        self.assertEqual((door.x0, door.x1, door.z0), (0, 2600, 2200))
        self.assertEqual(regions(bay, "B", "overhead door"), [])  # it stays 3200 away from the back wall

    def test_why_a_box_may_not_stand_there(self) -> None:
        e = region(PLAIN + "; door none; pipe at 400, 0 up, 60 x 2000, out 80")
        self.assertEqual(e.closes(500, 900, 0, 500, 0, 2000), ())
        self.assertEqual(e.closes(300, 900, 0, 500, 0, 2000), ("stands out",))
        self.assertEqual(e.closes(0, 300, 0, 900, 0, 3000), ("the side walls", "the depth", "floor or ceiling"))

    def test_every_demo_space_is_awkward_somewhere(self) -> None:
        for space in demo_house().spaces:
            found = envelopes(space.survey, demo_house().rules)
            self.assertTrue(found, space.id)
            awkward = any(e.closed or e.square.left_lean or e.square.right_lean or e.doubts or
                          (e.section.startswith("drawer") and space.survey.values("overhang")) or
                          any(s.needed for s in e.missing) for e in found.values())  # fmt: skip
            self.assertTrue(awkward, space.id)
        kinds = {s.survey.kind for s in demo_house().spaces}
        self.assertEqual(len(kinds), 13, kinds)


@st.composite
def rooms(draw: st.DrawFn) -> dict[str, object]:
    """The truth about a random space: walls at their angles, a sloping or level ceiling, obstacles."""
    width, depth = draw(st.integers(700, 2600)), draw(st.integers(350, 800))
    slope = draw(st.sampled_from(["none", "none", "along", "toward back"]))
    box = st.fixed_dictionaries(
        {"x": st.integers(0, 2400), "z": st.integers(0, 2200), "width": st.integers(5, 500),
         "height": st.integers(5, 700), "y": st.sampled_from([0, 0, 120]), "projection": st.integers(1, 250),
         "access": st.sampled_from([0, 0, 300, 900]), "keep_out": st.sampled_from([0, 40])}
    )  # fmt: skip
    return {
        "width": width, "depth": depth, "slope": slope, "height": draw(st.integers(1500, 2600)),
        "low": draw(st.integers(700, 1400)), "left": draw(st.floats(87, 93)), "right": draw(st.floats(87, 93)),
        "obstacles": draw(st.lists(box, max_size=4)),
    }  # fmt: skip


def read(room: dict[str, object]) -> Survey:
    """The room as an exact tape reads it."""
    w, d, h = float(room["width"]), float(room["depth"]), float(room["height"])  # type: ignore[arg-type]
    left, right = radians(float(room["left"])), radians(float(room["right"]))  # type: ignore[arg-type]
    rows: list[dict[str, object]] = [{"what": "width", "level": lv, "face": "back", "value": w}
                                     for lv in ("low", "middle", "high")]  # fmt: skip
    rows += [{"what": "depth", "side": side, "value": d} for side in ("left", "right")]
    rows += [{"what": "diagonal", "side": "left", "value": hypot(w - d * cos(right), d * sin(right))},
             {"what": "diagonal", "side": "right", "value": hypot(w - d * cos(left), d * sin(left))}]  # fmt: skip
    if room["slope"] == "none":
        rows += [{"what": "height", "side": s, "value": h} for s in ("left", "middle", "right")]
    else:
        key, far = ("at", w) if room["slope"] == "along" else ("out", d)
        rows += [{"what": "ceiling", key: 0, "value": room["low"]}, {"what": "ceiling", key: far, "value": h}]
    return Survey.model_validate(
        {"sections": [{"id": "A", "slope": room["slope"]}], "door": {"kind": "none"},
         "readings": [{"id": f"r{n}", **row} for n, row in enumerate(rows)],
         "obstacles": [{"id": f"o{n}", **o} for n, o in enumerate(room["obstacles"])]}  # type: ignore[arg-type]
    )  # fmt: skip


def is_open(room: dict[str, object], x: np.ndarray, y: np.ndarray, z: np.ndarray) -> np.ndarray:
    """Which points are free in truth, from the room alone: no line of the code under test is used."""
    w, d, h = (float(room[k]) for k in ("width", "depth", "height"))  # type: ignore[arg-type]
    free = (y >= 0) & (y <= d) & (z >= 0)
    free &= x >= y / np.tan(radians(float(room["left"])))  # type: ignore[arg-type]
    free &= x <= w - y / np.tan(radians(float(room["right"])))  # type: ignore[arg-type]
    low = float(room["low"])  # type: ignore[arg-type]
    ceiling = {"none": np.full_like(x, h), "along": np.interp(x, [0, w], [low, h]),
               "toward back": np.interp(y, [0, d], [low, h])}[str(room["slope"])]  # fmt: skip
    free &= z <= ceiling
    for o in room["obstacles"]:  # type: ignore[attr-defined]
        k = o["keep_out"]
        beside = (x > o["x"] - k) & (x < o["x"] + o["width"] + k) & (z > o["z"] - k) & (z < o["z"] + o["height"] + k)
        deep = o["y"] + max(o["projection"] + k, o["access"])
        free &= ~(beside & (y > max(o["y"] - k, 0)) & (y < min(deep, max(d, o["y"] + o["projection"] + k))))
    return free


CELL = 11.0
"""Side of a voxel, mm."""
VOXELS = 250
"""Voxels tried in each room; most of them lie where something begins or ends."""


def voxels(room: dict[str, object], e: Envelope, seed: int) -> np.ndarray:
    """Lower corners of voxels, the planes at which walls and obstacles begin or end well among them."""
    rng = np.random.default_rng(seed)
    edges: list[list[float]] = [[0.0, e.width], [0.0, e.depth], [0.0, e.height]]
    for o in room["obstacles"]:  # type: ignore[attr-defined]
        k = o["keep_out"]
        edges[0] += [o["x"] - k, o["x"] + o["width"] + k]
        edges[1] += [o["y"] + o["projection"] + k, o["access"]]
        edges[2] += [o["z"] - k, o["z"] + o["height"] + k]
    ends = (e.width, e.depth, e.height)
    axes = []
    for planes, end in zip(edges, ends, strict=True):
        near = rng.choice(planes, VOXELS) + rng.uniform(-2 * CELL, CELL, VOXELS)
        axes.append(np.where(rng.random(VOXELS) < 0.5, near, rng.uniform(0, end, VOXELS)))
    return np.stack(axes, axis=1)


class VoxelTests(TestCase):
    def envelope_of(self, room: dict[str, object]) -> Envelope | None:
        try:
            return envelope(read(room), TIGHT)
        except SpaceTooSmall:
            return None

    @given(rooms(), st.integers(0, 10_000))
    def test_no_voxel_that_may_be_filled_is_closed_in_truth(self, room: dict[str, object], seed: int) -> None:
        e = self.envelope_of(room)
        if e is None:
            return
        for x, y, z in voxels(room, e, seed):
            if e.closes(x, x + CELL, y, y + CELL, z, z + CELL):
                continue
            corners = np.array([[x + i * CELL, y + j * CELL, z + k * CELL] for i in (0, 1) for j in (0, 1)
                                for k in (0, 1)] + [[x + CELL / 2, y + CELL / 2, z + CELL / 2]])  # fmt: skip
            # A corner may touch what is closed; a thousandth inside it may not.
            inner = corners + (corners[-1] - corners) * 1e-3
            self.assertTrue(is_open(room, *inner.T).all(), (x, y, z))

    @settings(max_examples=40)
    @given(rooms())
    def test_it_closes_hardly_more_than_it_must(self, room: dict[str, object]) -> None:
        """Voxels closed though free lie within a slope's step, a rounding or the allowance of what is closed."""
        e = self.envelope_of(room)
        if e is None:
            return
        x, y, z = (a.ravel() for a in np.meshgrid(*(np.arange(8, n, 61.0) for n in (e.width, e.depth, e.height))))
        free = is_open(room, x, y, z)
        near = np.ones_like(free)
        for dx, dy, dz in ((s, t, u) for s in (-1, 1) for t in (-1, 1) for u in (-1, 1)):
            near &= is_open(room, x + 56 * dx, y + 26 * dy, z + 56 * dz)
        x0, x1 = e.span(0, e.height)
        for px, py, pz in zip(x[free & near], y[free & near], z[free & near], strict=True):
            if x0 <= px <= x1 and e.y_from <= py <= e.y_to:
                self.assertEqual(e.closes(px, px, py, py, pz, pz), (), (px, py, pz))
