"""Designs as they were saved before: what their parts said by the shape of an id is said by fields now,
assignments have ids, and the floor of a drawer is a type.

Before, `fixed_to` was a bare id, brackets and cleats were known by the first half of theirs, containers by their size,
and the second leaf of a pair of doors by its number.
"""

from itertools import count
from typing import Any

from ..inventory.containers import OWN, containers
from ..systems.parts import SURFACES


def brought_up(data: dict[str, Any]) -> dict[str, Any]:
    """A design's plain data as the model has it now; what is not as it was before is left to the model to judge."""
    parts = data.get("parts")
    if not isinstance(parts, list | tuple) or not all(isinstance(p, dict) for p in parts):
        return data
    data = {**data, "bays": _bays(data.get("bays")), "assignments": _assignments(data.get("assignments"))}
    if not any(_is_older(p) for p in parts):
        return data
    ids = {p.get("id") for p in parts}
    owned = [_owned(c) for c in data.get("owned") or () if isinstance(c, dict)]
    boxes = {c["id"]: c for c in owned if "id" in c}
    return {**data, "owned": owned, "parts": [_part(p, ids, data.get("assignments") or (), boxes) for p in parts]}


def _bays(bays: Any) -> Any:
    """A bay that stacked upward said so by an axis and a height that meant nothing; the floor of a drawer had an axis, when
    it was parted in rows.
    """
    if not isinstance(bays, list | tuple):
        return bays
    found = []
    for bay in bays:
        if isinstance(bay, dict) and "axis" in bay:
            new = {k: v for k, v in bay.items() if k not in ("axis", "height")}
            bay = new if bay["axis"] == "z" else {**new, "drawer": {"clear": bay.get("height", 0)}}
        floor = bay.get("drawer") if isinstance(bay, dict) else None
        if isinstance(floor, dict) and "axis" in floor:
            bay = {**bay, "drawer": {k: v for k, v in floor.items() if k != "axis"}}
        found.append(bay)
    return found


def _assignments(rows: Any) -> Any:
    if not isinstance(rows, list | tuple) or not any(isinstance(r, dict) and "id" not in r for r in rows):
        return rows
    taken = {r.get("id") for r in rows if isinstance(r, dict)}
    names = (name for n in count(1) if (name := f"a{n}") not in taken)
    return [{"id": next(names), **r} if isinstance(r, dict) and "id" not in r else r for r in rows]


def _is_older(part: dict[str, Any]) -> bool:
    fixed = part.get("fixed_to")
    return isinstance(fixed, str) and (fixed not in SURFACES or "belongs_to" not in part)


def _owned(box: dict[str, Any]) -> dict[str, Any]:
    return {**box, "at_hand": str(box.get("id", "")).startswith(OWN)} if "at_hand" not in box else box


def _part(part: dict[str, Any], ids: set[Any], assignments: Any, boxes: dict[str, Any]) -> dict[str, Any]:
    fixed, role = part.get("fixed_to"), part.get("role")
    new = dict(part)
    if isinstance(fixed, str) and fixed not in SURFACES:
        new["fixed_to"] = {"part": fixed} if fixed in ids else "wall"
    if "belongs_to" in part:
        return new
    if role in ("bracket", "cleat"):
        holder = str(part.get("id", "")).rsplit("-", 1)[0]
        new["belongs_to"] = holder if holder in ids else ""
    elif role == "container":
        new["belongs_to"] = fixed if fixed in ids else ""
        new["container"] = _container(part, fixed, assignments, boxes)
    elif role == "door" and part.get("bay") is not None:
        new["hinge"] = "right" if str(part.get("id", "")).endswith("-2") else "left"
    return new


def _container(part: dict[str, Any], holder: Any, assignments: Any, boxes: dict[str, Any]) -> str:
    """Which container so big was assigned there."""
    for a in assignments:
        name = a.get("container") if isinstance(a, dict) and a.get("part") == holder else None
        if not name:
            continue
        box = boxes.get(name)
        shipped = containers().get(name)
        sides = [box.get(s) for s in ("width", "depth", "height")] if box else (
            [shipped.width, shipped.depth, shipped.height] if shipped else [])  # fmt: skip
        if (
            sides
            and {int(sides[0]), int(sides[1])} == {part.get("w"), part.get("d")}
            and int(sides[2]) == part.get("h")
        ):
            return str(name)
    return ""
