"""Trays in a drawer by hand: a pile of them is turned or shifted as one, and stays on its floor or in its compartment."""

from ...errors import EditRefused
from ...systems import OnPart, Part
from ...systems.families.insert import TraySet
from ..models import Design


def _is_tray(design: Design, part: Part) -> bool:
    return isinstance(design.family_of(part), TraySet)


def turned(design: Design, part: Part) -> dict[str, Part]:
    """The pile of a tray a quarter round, its front left corner where it was as far as there is room for it."""
    foot = pile(design, part)[0]
    x, y, w, d = _floor(design, foot)
    right = max(x, min(foot.x, x + w - foot.d))
    back = max(y, min(foot.y + foot.d - foot.w, y + d - foot.w))
    return _moved(design, foot, {"w": foot.d, "d": foot.w, "x": right, "y": back})


def shifted(design: Design, part: Part, right: int, front: int) -> dict[str, Part]:
    """The pile of a tray so many mm to the right and toward the front."""
    foot = pile(design, part)[0]
    return _moved(design, foot, {"x": foot.x + right, "y": foot.y + front})


def pile(design: Design, part: Part) -> list[Part]:
    """The trays that stand on each other with this one, from the bottom; raises `EditRefused` for what is none."""
    if not _is_tray(design, part):
        raise EditRefused("edit.no-tray", role=part.role)
    trays = {p.id: p for p in design.parts if _is_tray(design, p)}
    foot = part
    while foot.carrier in trays:
        foot = trays[foot.carrier]
    found = [foot]
    while (above := next((p for p in trays.values() if p.carrier == found[-1].id), None)) is not None:
        found.append(above)
    return found


def _moved(design: Design, foot: Part, to: dict[str, int]) -> dict[str, Part]:
    """The trays of a pile with some of their place changed; raises `EditRefused` where that leaves what they stand in."""
    moved = {p.id: p.model_copy(update=to) for p in pile(design, foot)}
    x, y, w, d = _floor(design, foot)
    new = moved[foot.id]
    if new.x < x or new.y < y or new.x + new.w > x + w or new.y + new.d > y + d:
        raise EditRefused("edit.leaves-floor")
    return moved


def _floor(design: Design, foot: Part) -> tuple[int, int, int, int]:
    """Left, back, width and depth of what a pile stands in: its compartment, or its drawer; mm."""
    cell = next((p for p in design.parts if p.id == foot.carrier), None)
    if cell is not None:
        return cell.x, cell.y, cell.w, cell.d
    bay = design.bays[foot.bay or 0]
    return bay.x, bay.y, bay.w, bay.depth


def taken_out(design: Design, part: Part) -> tuple[Part, ...]:
    """The parts without a compartment: of a pile the trays above come down, those in a compartment go with it."""
    trays = [p for p in design.parts if _is_tray(design, p)]
    if _is_tray(design, part):
        above = pile(design, part)[pile(design, part).index(part) + 1 :]
        down = {p.id: p.model_copy(update={"z": p.z - part.h}) for p in above}
        if above:
            down[above[0].id] = down[above[0].id].model_copy(update={"fixed_to": part.fixed_to})
        return tuple(down.get(p.id, p) for p in design.parts if p.id != part.id)
    gone = {part.id}
    for tray in sorted(trays, key=lambda p: p.z):
        if tray.carrier in gone:
            gone.add(tray.id)
    return tuple(p for p in design.parts if p.id not in gone)


def renamed(parts: list[Part], names: dict[str, str]) -> list[Part]:
    """Copies whose carriers are the copies of the carriers."""
    return [
        p.model_copy(update={"fixed_to": OnPart(part=names[p.carrier])}) if p.carrier in names else p for p in parts
    ]
