"""Where everything lies, and the same in three dimensions: read back by a reader that did not write it."""

import io
import json
import struct
from itertools import pairwise
from typing import Any
from unittest import TestCase

import numpy as np
import trimesh

from pinakotheke.core.drawing import design_elevation, design_plan, design_round, design_section, walkround
from pinakotheke.core.drawing.solids import solid
from pinakotheke.core.drawing.walls import down
from pinakotheke.core.layout import Design, Task, design_space
from pinakotheke.core.layout.edit.commands import MirrorRow, MovePart, RemovePart, SetFinish
from pinakotheke.core.layout.edit.edits import apply
from pinakotheke.core.layout.packing.contain import lying
from pinakotheke.core.layout.report.compare import home_differences, part_differences
from pinakotheke.core.layout.report.trial import MOST_PER_SECTION, trial_marks
from pinakotheke.core.survey import envelopes
from pinakotheke.core.survey.square import frames
from pinakotheke.core.systems import HANGING, HOLDERS, Finish

from .examples import FOLDED, WARDROBE, demo_house, hung, solved, survey, wardrobe

NAMES = {t.id: t for t in (*WARDROBE, *FOLDED)}
_LOFT: list[tuple[Task, Design]] = []


def loft() -> tuple[Task, Design]:
    """The loft wardrobe on two walls."""
    if not _LOFT:
        house = demo_house()
        space = house.space("loft-wardrobe")
        task = Task(space.id, space.survey, envelopes(space.survey, house.rules), house.things_in(space.id), house.people,
                    house.rules, effort=0.1)  # fmt: skip
        _LOFT.append((task, next(d for d in design_space(task).alternatives if len(d.sections) == 2)))
    return _LOFT[0]


class LyingTests(TestCase):
    def test_everything_lies_in_its_compartment_side_by_side(self) -> None:
        for design in (wardrobe(), hung()):
            for part in design.parts:
                if part.role not in HOLDERS or part.role == "floor":
                    continue
                pieces = lying(design, part, NAMES)
                self.assertEqual({p.thing for p in pieces}, {a.thing for a in design.held_by(part.id)})
                for piece in pieces:
                    self.assertGreaterEqual(piece.x, part.x - 1e-6)
                    self.assertLessEqual(piece.x + piece.w, part.x + part.w + 1e-6, (part.id, piece))
                    if part.role in HANGING:
                        self.assertLessEqual(piece.z + piece.h, part.z + 1e-6)
                for one, other in pairwise(sorted(pieces, key=lambda p: p.x)):
                    self.assertLessEqual(one.x + one.w, other.x + 1e-6, part.id)

    def test_every_piece_is_shown(self) -> None:
        design = wardrobe()
        rail = next(p for p in design.parts if p.role == "rail")
        garments = [p for p in lying(design, rail, NAMES) if p.thing == "shirts"]
        self.assertEqual(len(garments), sum(a.count for a in design.held_by(rail.id) if a.thing == "shirts"))
        for part in (p for p in design.parts if p.role in ("shelf", "base")):
            stacked = sum(p.count for p in lying(design, part, NAMES) if p.way == "shelf")
            self.assertEqual(stacked, sum(a.count for a in design.held_by(part.id) if a.way == "shelf"))

    def test_in_a_drawer_things_lie_in_their_compartment(self) -> None:
        house = demo_house()
        space = house.space("ticket-drawer")
        task = Task(space.id, space.survey, envelopes(space.survey, house.rules), house.things_in(space.id), house.people,
                    house.rules, effort=0.1)  # fmt: skip
        names = {t.id: t for t in task.things}
        for design in design_space(task).alternatives:
            for part in (p for p in design.parts if p.role == "compartment"):
                for piece in lying(design, part, names):
                    self.assertTrue(part.x <= piece.x and piece.x + piece.w <= part.x + part.w + 1e-6)
                    self.assertTrue(part.y <= piece.y + 1e-6 and piece.y + piece.d <= part.y + part.d + 1e-6)
                    self.assertLessEqual(piece.z + piece.h, part.z + part.h)


class ModelTests(TestCase):
    def test_it_is_binary_gltf_2_with_lengths_that_add_up(self) -> None:
        """Khronos glTF 2.0, 4.4 (binary glTF layout): magic, version, total length, JSON chunk first (from memory)."""
        data = walkround(wardrobe(), survey(), WARDROBE)
        magic, version, length = struct.unpack_from("<4sII", data)
        self.assertEqual((magic, version, length), (b"glTF", 2, len(data)))
        size, kind = struct.unpack_from("<I4s", data, 12)
        self.assertEqual((kind, size % 4), (b"JSON", 0))
        document = json.loads(data[20 : 20 + size])
        self.assertEqual(document["asset"]["version"], "2.0")
        for accessor in document["accessors"]:
            self.assertLess(accessor["bufferView"], len(document["bufferViews"]))

    def test_every_part_stands_there_in_metres_where_the_design_has_it(self) -> None:
        design = wardrobe()
        scene = trimesh.load(io.BytesIO(walkround(design, survey(), WARDROBE)), file_type="glb")
        for part in (p for p in design.parts if p.role in ("shelf", "rail", "plinth", "base")):
            transform, name = scene.graph[part.id]
            low, high = trimesh.transform_points(scene.geometry[name].bounds, transform)
            for got, wanted in zip(
                (*low, *high), (part.x, part.z, part.y, part.x + part.w, part.z + part.h, part.y + part.d), strict=True
            ):
                self.assertAlmostEqual(got, wanted / 1000, places=4)

    def test_the_second_wall_of_a_corner_is_turned_as_in_the_plan(self) -> None:
        task, design = loft()
        scene = trimesh.load(io.BytesIO(walkround(design, task.survey, task.things)), file_type="glb")
        placed = {f.section: f for f in frames(task.survey)}
        part = next(
            p for p in design.parts if p.section == "B" and p.role in ("shelf", "frame", "panel", "standard", "post")
        )
        name = part.id if part.role != "frame" else f"{part.id} left"
        transform, _ = scene.graph[name]
        middle = placed["B"].to_plan(part.x + part.w / 2, part.y + part.d / 2)
        if part.role != "frame":
            self.assertAlmostEqual(transform[0, 3], middle[0] / 1000, places=3)
            self.assertAlmostEqual(transform[2, 3], middle[1] / 1000, places=3)

    def test_fronts_are_named_so_that_one_may_look_in(self) -> None:
        shallow = solved(families=("carcase",), finish=Finish(doors="hinged")).alternatives[0]
        scene = trimesh.load(io.BytesIO(walkround(shallow, survey(), WARDROBE)), file_type="glb")
        fronts = [p.id for p in shallow.parts if p.role == "door"]
        self.assertTrue(fronts)
        self.assertEqual({n for n in scene.graph.nodes_geometry if n.startswith("shut")}, {f"shut {f}" for f in fronts})

    def test_a_closet_has_its_sides_its_ceiling_line_and_the_leaf_of_its_door(self) -> None:
        closet = survey()
        scene = trimesh.load(io.BytesIO(walkround(wardrobe(), closet, WARDROBE)), file_type="glb")
        names = set(scene.graph.nodes_geometry)
        section = closet.parts[0].id
        self.assertLessEqual({f"side {section} left", f"side {section} right", f"ceiling {section}"}, names)
        one = closet.only(section)
        depth, width = one.least("depth"), one.least("width")
        assert depth is not None
        assert width is not None
        right = scene.geometry[scene.graph[f"side {section} right"][1]].copy()
        right.apply_transform(scene.graph[f"side {section} right"][0])
        self.assertAlmostEqual(right.bounds[0][0], width / 1000, places=4)
        self.assertAlmostEqual(right.bounds[1][2], depth / 1000, places=4)

    def test_a_drawer_has_a_handle_on_its_front(self) -> None:
        design = wardrobe()
        shelf = next(p for p in design.parts if p.role == "shelf")
        drawer = shelf.model_copy(update={"role": "drawer", "h": 200})
        parts = tuple(drawer if p is shelf else p for p in design.parts)
        bare = design.model_copy(update={"parts": parts, "assignments": ()})
        scene = trimesh.load(io.BytesIO(walkround(bare, survey(), WARDROBE)), file_type="glb")
        low, high = shown(scene, f"{drawer.id} handle")
        self.assertAlmostEqual(low[2], (drawer.y + drawer.d) / 1000, places=4)
        self.assertTrue(drawer.x / 1000 < low[0] < high[0] < (drawer.x + drawer.w) / 1000)

    def test_things_are_shown_by_solids_that_are_kept_once(self) -> None:
        design = wardrobe()
        scene = trimesh.load(io.BytesIO(walkround(design, survey(), WARDROBE)), file_type="glb")
        self.assertLess(len(scene.geometry), len(scene.graph.nodes_geometry) / 3)
        things = {t.id: t for t in WARDROBE}
        for part in (p for p in design.parts if p.role == "rail"):
            for n, piece in enumerate(lying(design, part, things)):
                name = f"{piece.thing} {part.id} {n}"
                low, high = shown(scene, name)
                self.assertAlmostEqual(high[1] - low[1], piece.h / 1000, places=4)
                self.assertTrue(scene.graph[name][1].startswith("garment"))

    def test_every_solid_is_closed_and_fills_its_unit(self) -> None:
        for shape, count in (("box", 1), ("garment", 1), ("shoes", 1), ("folded", 1), ("folded", 40), ("lidded", 1)):
            mesh = solid(shape, count)
            self.assertTrue(mesh.is_watertight and mesh.is_winding_consistent, shape)
            np.testing.assert_allclose(mesh.bounds, [[-0.5] * 3, [0.5] * 3])
            self.assertTrue(0.5 < mesh.volume <= 1 + 1e-9, (shape, mesh.volume))


class RoundTests(TestCase):
    """Walls laid out round the plan."""

    def test_every_wall_is_folded_outward_and_keeps_its_sizes(self) -> None:
        task, design = loft()
        drawn = design_round(design, task.survey, task.things, "metric", "Loft")
        unfolded = design_elevation(design, task.survey, task.things, "metric", "Loft")
        placed = {f.section: f for f in frames(task.survey)}
        # Each part is there twice: from above and from the front; from the front it is as large as it is unfolded.
        for part in design.parts:
            of = [(r.w, r.h) for r in unfolded.rects if r.of == part.id]
            if not of or part.role in ("door", "curtain", "hooks"):
                continue
            front = {tuple(sorted(size)) for size in of}
            found = {tuple(sorted((r.w, r.h))) for r in drawn.rects if r.of == part.id}
            if abs(placed[part.section].turn) % 90 < 1e-6:
                self.assertTrue(any(np.allclose(a, b) for a in front for b in found), part.id)
        for frame in placed.values():
            if frame.section in design.sections:
                ceiling = down(frame.to_plan(frame.length / 2, -2000))
                x0, y0, x1, y1 = drawn.bounds
                self.assertTrue(x0 < ceiling[0] < x1 and y0 < ceiling[1] < y1, frame.section)

    def test_captions_name_the_walls_and_words_are_never_upside_down(self) -> None:
        task, design = loft()
        drawn = design_round(design, task.survey, task.things, "metric", "Loft")
        said = {t.text for t in drawn.texts}
        self.assertLessEqual({task.survey.section(s).label for s in design.sections}, said)
        self.assertTrue(all(-90 <= t.turn <= 135 for t in drawn.texts))


def shown(scene: trimesh.Scene, node: str) -> tuple[Any, Any]:
    """Lower and upper corner of a node, metres."""
    transform, name = scene.graph[node]
    corners = trimesh.transform_points(scene.geometry[name].vertices, transform)
    return corners.min(axis=0), corners.max(axis=0)


class DrawingTests(TestCase):
    def test_two_walls_are_unfolded_side_by_side(self) -> None:
        task, design = loft()
        drawn = design_elevation(design, task.survey, task.things, "metric", "Loft")
        self.assertIn("unfolded", drawn.title.shows)
        self.assertTrue({p.id for p in design.parts} <= {r.of for r in drawn.rects})
        ends = {
            s: max(r.x + r.w for r in drawn.rects if r.of in {p.id for p in design.parts if p.section == s})
            for s in ("A", "B")
        }
        starts = min(r.x for r in drawn.rects if r.of in {p.id for p in design.parts if p.section == "B"})
        self.assertGreater(starts, ends["A"])

    def test_the_plan_of_a_corner_shows_both_runs_where_they_stand(self) -> None:
        task, design = loft()
        drawn = design_plan(design, task.survey, "metric", "Loft")
        shown = {r.of for r in drawn.rects} | {line.of for line in drawn.lines}
        for section in ("A", "B"):
            self.assertTrue(shown & {p.id for p in design.parts if p.section == section})

    def test_shut_doors_hide_what_is_inside_and_open_ones_sweep_the_plan(self) -> None:
        design = solved(families=("carcase",), finish=Finish(doors="hinged")).alternatives[0]
        shut = design_elevation(design, survey(), WARDROBE, "metric", "x", doors="shut")
        opened = design_elevation(design, survey(), WARDROBE, "metric", "x")
        self.assertFalse([r for r in shut.rects if r.layer == "content"])
        self.assertTrue([r for r in opened.rects if r.layer == "content"])
        swept = design_plan(design, survey(), "metric", "x")
        self.assertTrue([line for line in swept.lines if line.of.startswith("door") and line.layer == "access"])
        still = design_plan(design, survey(), "metric", "x", doors="shut")
        self.assertFalse([line for line in still.lines if line.of.startswith("door") and line.layer == "access"])

    def test_piece_by_piece_there_is_one_shape_for_each_garment(self) -> None:
        design = wardrobe()
        drawn = design_elevation(design, survey(), WARDROBE, "metric", "x", inside="silhouettes")
        garments = [line for line in drawn.lines if line.layer == "content" and line.of == "shirts"]
        hanging = sum(a.count for a in design.assignments if a.thing == "shirts" and a.way == "hang")
        self.assertEqual(len(garments), hanging)
        bare = design_elevation(design, survey(), WARDROBE, "metric", "x", inside="bare", dimensioned=False)
        self.assertFalse(bare.dimensions or [r for r in bare.rects if r.layer == "content"])

    def test_a_section_shows_depths(self) -> None:
        design = wardrobe()
        drawn = design_section(design, survey(), WARDROBE, "metric", "x", 0)
        frame = next(p for p in design.parts if p.role == "frame" and p.bay == 0)
        (cut,) = (r for r in drawn.rects if r.of == frame.id)
        self.assertEqual((cut.x, cut.w, cut.y, cut.h), (frame.y, frame.d, frame.z, frame.h))

    def test_trial_marks_are_drawn_across_the_wall(self) -> None:
        design = hung()
        marks = trial_marks(design)
        self.assertTrue(0 < len(marks) <= MOST_PER_SECTION)
        self.assertEqual([m.z for m in marks], sorted((m.z for m in marks), reverse=True))
        plain = design_elevation(design, survey(), FOLDED, "metric", "x")
        marked = design_elevation(design, survey(), FOLDED, "metric", "x", marks=marks)
        self.assertEqual(len(marked.lines), len(plain.lines) + len(marks))


class BackTests(TestCase):
    def test_stacks_stand_before_the_cleat_of_the_board_above(self) -> None:
        design = solved(FOLDED, families=("cleat",)).alternatives[0]
        shelves = [p for p in design.parts if p.role == "shelf" and design.held_by(p.id)]
        self.assertTrue(shelves)
        for part in shelves:
            for piece in lying(design, part, {t.id: t for t in FOLDED}):
                self.assertGreaterEqual(piece.y, part.y + 19, part.id)


class CompareTests(TestCase):
    def test_a_design_does_not_differ_from_itself(self) -> None:
        self.assertEqual((part_differences(wardrobe(), wardrobe()), home_differences(wardrobe(), wardrobe())), ((), ()))

    def test_a_part_taken_out_and_a_thing_moved_are_named(self) -> None:
        one = wardrobe()
        shelf = next(p for p in one.parts if p.role == "rail")
        other = apply(one, RemovePart(part=shelf.id))
        (difference,) = part_differences(one, other)
        self.assertEqual((difference.name, difference.here - difference.there), ("Hanging rail", 1))
        gone = {h.thing: h.there for h in home_differences(one, other)}
        for a in one.held_by(shelf.id):
            self.assertNotIn("rail", " ".join(gone[a.thing]))
        lower = apply(one, MovePart(part=shelf.id, steps=-8))
        self.assertTrue(home_differences(one, lower))

    def test_turned_about_the_articles_are_the_same(self) -> None:
        self.assertEqual(part_differences(wardrobe(), apply(wardrobe(), MirrorRow(bay=0))), ())
        self.assertTrue(part_differences(wardrobe(), apply(wardrobe(), SetFinish(finish=Finish(base="legs")))))
