"""A design in three dimensions as binary glTF 2.0: the same parts as on the sheet, to walk round and to export.

Metres, y up, z out from the main wall toward whoever stands before it (right-handed, as glTF asks). Every node is named
by the id of the part or thing it shows. Frames and trolleys are shown by their boards, so that one looks into them.
"""

from collections.abc import Iterator, Mapping
from typing import TYPE_CHECKING

import numpy as np

from ..base import Frozen
from ..inventory import Thing
from ..inventory.needs import STORAGE_OF
from ..layout import Design
from ..layout.packing.contain import lying
from ..survey import Survey
from ..survey.closed import ceiling_points
from ..survey.square import Frame, frames
from ..systems import HANGING, HOLDERS, Part
from ..systems.roles import ENCLOSING, METAL
from .solids import solid

if TYPE_CHECKING:
    import trimesh
    from trimesh.visual.material import PBRMaterial

COLOURS: Mapping[str, tuple[int, int, int]] = {
    "wall": (238, 232, 220), "floor": (214, 205, 188), "board": (205, 178, 140), "metal": (140, 146, 150),
    "door": (226, 218, 202), "hanging": (150, 74, 82), "folded": (190, 146, 66), "drawers": (112, 84, 66),
    "shoes": (74, 122, 96), "containers": (70, 98, 150), "hooks": (120, 76, 116), "floor things": (96, 96, 92),
    "overhead": (120, 120, 104), "obstacle": (176, 182, 186), "line": (96, 90, 80), "car": (150, 160, 172),
    "window": (164, 196, 212),
}  # fmt: skip
WALL, FLOOR, SLICES = 40.0, 20.0, 16
SHUT = "shut"
"""Names of what is only seen while the fronts are shut begin so: at first one looks in."""
LINE, LEAF = 10.0, 35.0
"""Where walls meet the ceiling there is a line so thick; an open door's leaf is so thick, mm."""
HANDLE, HANDLE_HIGH = 130.0, 0.7
"""A drawer's handle is at most so wide, and so far up its front."""
BONNET = 0.55
"""Share of a car's height up to which it is as long as the whole car."""


SHAPES: Mapping[str, str] = {"hanging": "garment", "folded": "folded", "shoes": "shoes"}
"""Shapes of what is kept, by how it is stored; of the rest boxes will do."""


class Box(Frozen):
    """A box in the coordinates of one section: left, back, lower corner and size, mm; and the `solid` it is shown as."""

    name: str
    colour: str
    x: float
    y: float
    z: float
    w: float
    d: float
    h: float
    shape: str = "box"
    count: int = 1


def walkround(design: Design, survey: Survey, things: tuple[Thing, ...]) -> bytes:
    """The design with its walls and everything in it, as a GLB file."""
    import trimesh  # takes a second to import, and only this view needs it
    from trimesh.visual.material import PBRMaterial

    scene = trimesh.Scene()
    names = {t.id: t for t in things}
    placed = _placed(design, survey)
    materials = {
        name: PBRMaterial(name=name, baseColorFactor=[*rgb, 255], metallicFactor=0.0, roughnessFactor=0.9)
        for name, rgb in COLOURS.items()
    }
    for section, (frame, foot) in placed.items():
        for box in _boxes(design, survey, section, names):
            _add(scene, box, frame, foot, materials[box.colour])
    data = scene.export(file_type="glb")
    return bytes(data)


def _placed(design: Design, survey: Survey) -> dict[str, tuple[Frame, float]]:
    """Where each section lies in the plan and how high; levels above each other, drawers and door backs side by side."""
    found = {f.section: (f, 0.0) for f in frames(survey) if f.section in design.sections}
    x = z = 0.0
    for section in survey.parts:
        if section.id in found or section.id not in design.sections:
            continue
        one = survey.only(section.id)
        width, height = one.least("width") or 600.0, one.least("height") or 300.0
        if section.traits.shelf:
            found[section.id] = (Frame(section=section.id, origin=(0, 0), turn=0, length=width), z)
            z += height + 18
            x = max(x, width + 200)
        else:
            found[section.id] = (Frame(section=section.id, origin=(x, 0), turn=0, length=width), 0.0)
            x += width + 200
    return found


def _boxes(design: Design, survey: Survey, section: str, things: dict[str, Thing]) -> Iterator[Box]:
    one, traits = survey.only(section), survey.section(section).traits
    width, height = one.least("width") or 1800.0, one.least("height") or 2400.0
    deep = max((p.y + p.d for p in design.parts if p.section == section), default=600)
    if traits.walled:
        for n, (x, w, h) in enumerate(_wall(survey, section, width, height)):
            yield Box(name=f"wall {section} {n}", colour="wall", x=x, y=-WALL, z=0, w=w, d=WALL, h=h)
        yield from _room(survey, section, width, height, deep)
    yield Box(name=f"floor {section}", colour="floor", x=0, y=-WALL, z=-FLOOR, w=width, d=deep + WALL, h=FLOOR)
    for o in one.obstacles:
        yield Box(name=f"{o.name} {o.id}", colour="window" if o.kind == "window" else "obstacle", x=o.x, y=o.y, z=o.z,
                  w=o.width, d=max(o.projection, 4), h=o.height)  # fmt: skip
    for part in design.parts:
        if part.section != section:
            continue
        yield from _part(design, part)
        if part.role in HOLDERS:
            yield from _kept(design, part, things)


def _kept(design: Design, part: Part, things: dict[str, Thing]) -> Iterator[Box]:
    """What is in a compartment, piece by piece; containers that are parts of the design show what is in them."""
    boxed = {a.thing for a in design.held_by(part.id) if a.container}
    for n, piece in enumerate(lying(design, part, things)):
        if piece.thing in boxed and piece.way == "box":
            continue
        storage = STORAGE_OF[piece.way]  # type: ignore[index]
        hooked = piece.way != "hang" and part.role in HANGING
        yield Box(name=f"{piece.thing} {part.id} {n}", colour="floor things" if storage == "floor" else storage,
                  x=piece.x, y=piece.y, z=piece.z, w=max(piece.w - 2, 2), d=max(piece.d, 2), h=max(piece.h, 2),
                  shape="box" if hooked else SHAPES.get(storage, "box"), count=piece.count)  # fmt: skip


def _room(survey: Survey, section: str, width: float, height: float, deep: float) -> Iterator[Box]:
    """What else there is of a room: side walls where one wall is all, the line of the ceiling, the leaf of an open door,
    a car.
    """
    row, one = survey.section(section), survey.only(section)
    if row.slope == "none":
        yield Box(name=f"ceiling {section}", colour="line", x=0, y=0, z=height - LINE, w=width, d=LINE, h=LINE)
    if sum(s.at_wall for s in survey.parts) == 1:
        reach = one.least("depth") or deep
        for side, x in (("left", -WALL), ("right", width)):
            if getattr(row, side) == "wall" and row.slope == "none":
                name = f"side {section} {side}"
                yield Box(name=name, colour="wall", x=x, y=-WALL, z=0, w=WALL, d=reach + WALL, h=height)
                edge = 0 if side == "left" else width - LINE
                yield Box(name=f"ceiling {section} {side}", colour="line", x=edge, y=LINE, z=height - LINE, w=LINE,
                          d=reach - LINE, h=LINE)  # fmt: skip
        yield from _leaves(survey, section, width, reach)
    if survey.car is not None and section == survey.parts[0].id:
        car, low = survey.car, survey.car.height * BONNET
        yield Box(name="car body", colour="car", x=car.x, y=car.gap, z=200, w=car.width, d=car.length, h=low - 200)
        yield Box(name="car roof", colour="car", x=car.x + 80, y=car.gap + car.length * 0.2, z=low, w=car.width - 160,
                  d=car.length * 0.5, h=car.height - low)  # fmt: skip


def _leaves(survey: Survey, section: str, width: float, reach: float) -> Iterator[Box]:
    """The leaves of a hinged door that opens out, wide open."""
    one, door = survey.only(section), survey.door
    wide, high = one.least("opening width"), one.least("opening height")
    if wide is None or high is None or "hinged" not in door.kind or door.swings != "out":
        return
    start = one.least("left return")
    left = start if start is not None else (width - wide) / 2
    both = door.kind == "double hinged"
    for side, x in (("left", left - LEAF), ("right", left + wide)):
        if both or door.hinge == side:
            yield Box(name=f"door leaf {side}", colour="door", x=x, y=reach, z=0, w=LEAF, d=wide / (2 if both else 1),
                      h=high)  # fmt: skip


def _wall(survey: Survey, section: str, width: float, height: float) -> Iterator[tuple[float, float, float]]:
    """The back wall in slices from x, as wide and as high as the ceiling over each: one slice without a slope."""
    row = survey.section(section)
    points = ceiling_points(survey, row) if row.slope != "none" else []
    if row.slope == "toward back" and points:
        yield 0.0, width, points[0][1]
    elif row.slope == "along" and len(points) > 1:
        xs, heights = [p for p, _ in points], [h for _, h in points]
        for n in range(SLICES):
            x = width * n / SLICES
            yield x, width / SLICES, float(min(np.interp([x, x + width / SLICES], xs, heights)))
    else:
        yield 0.0, width, height


def _part(design: Design, part: Part) -> Iterator[Box]:
    colour = "metal" if part.role in METAL else "door" if part.role in ("door", "curtain") else "board"
    box = Box(name=part.id, colour=colour, x=part.x, y=part.y, z=part.z, w=part.w, d=part.d, h=part.h)
    if part.role == "floor":
        return
    if part.role in ("door", "curtain"):
        yield box.model_copy(update={"name": f"{SHUT} {part.id}"})
        return
    if part.role == "drawer":
        wide = min(HANDLE, part.w / 3)
        yield Box(name=f"{part.id} handle", colour="metal", x=part.x + (part.w - wide) / 2, y=part.y + part.d,
                  z=part.z + part.h * HANDLE_HIGH, w=wide, d=18, h=12)  # fmt: skip
    if part.role == "container":
        yield box.model_copy(update={"colour": "containers", "shape": "lidded"})
        return
    if part.role not in ENCLOSING:
        yield box
        return
    for board in design.family_of(part).boards(part):
        sides = {side: getattr(board, side) for side in ("x", "y", "z", "w", "d", "h")}
        yield box.model_copy(update={"name": f"{part.id} {board.name}", **sides})


def _add(scene: "trimesh.Scene", box: Box, frame: Frame, foot: float, material: "PBRMaterial") -> None:
    import trimesh

    shown = f"{box.shape} {box.count} {box.colour}"
    middle = frame.to_plan(box.x + box.w / 2, box.y + box.d / 2)
    place = trimesh.transformations.rotation_matrix(-np.radians(frame.turn), (0, 1, 0))
    place[:3, :3] *= np.array([box.w, box.h, box.d]) / 1000
    place[:3, 3] = (middle[0] / 1000, (foot + box.z + box.h / 2) / 1000, middle[1] / 1000)
    if shown in scene.geometry:
        scene.graph.update(frame_to=box.name, matrix=place, geometry=shown)
        return
    mesh = solid(box.shape, box.count).copy()
    mesh.visual = trimesh.visual.TextureVisuals(material=material)
    scene.add_geometry(mesh, node_name=box.name, geom_name=shown, transform=place)
