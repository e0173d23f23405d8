"""Boards of one's own, cut no larger than they need be. *Common practice.*

A shelf is no deeper than what lies on it asks, and never deeper than the one below it in its bay, so that nobody bumps
into it. A gable is as high and as deep as what rests on it.
"""

from collections import defaultdict
from collections.abc import Iterable, Mapping, Sequence

from ...inventory import Thing
from ...systems import Bay, Part
from ..models import Design
from ..packing.fits import Ask, ask

SAME = 1e-6
"""mm that two lengths may differ and be one."""
OVER_RAIL = 40
"""mm of gable over a rail, for the flange that holds it."""


def cut_to_depth(design: Design, things: Mapping[str, Thing]) -> Design:
    """The design with every shelf that can be cut as deep as it needs be, and what carries it."""
    boards: dict[int, list[Part]] = defaultdict(list)
    for part in design.parts:
        if part.role == "shelf" and part.bay is not None and not part.locked:
            bay = design.bays[part.bay]
            if design.family_of(part).board_depths(bay):
                boards[bay.index].append(part)
    cut: dict[str, int] = {}
    for row in boards.values():
        deepest = 0
        for part in sorted(row, key=lambda p: -p.z):
            deepest = cut[part.id] = _least(design, part, things, deepest)
    return _recut(design, cut)


def _least(design: Design, part: Part, things: Mapping[str, Thing], deep: int) -> int:
    """The least depth, no less than `deep`, to which a shelf may be cut with what is on it: it takes and carries that."""
    bay, family, held = design.bays[part.bay or 0], design.family_of(part), design.held_by(part.id)

    def asked(within: Bay) -> list[Ask]:
        return [
            ask(things[a.thing], a.way, part.role, family, within, design.rules, a.count, turned=a.turned,
                container=design.box(a.container) if a.container else None)
            for a in held
        ]  # fmt: skip

    now = asked(bay)
    mass, back = sum(a.mass for a in now), family.spec("shelf").back
    for depth in family.board_depths(bay):
        if depth < deep or any(a.depth + back > depth for a in now):
            continue
        board = part.model_copy(update={"d": depth})
        then = asked(bay.under(board))
        lies_as_before = all(
            a.amount <= b.amount + SAME and a.clear <= b.clear + SAME for a, b in zip(then, now, strict=True)
        )
        if lies_as_before and mass <= family.rating(board, bay.under(board)):
            return depth
    return bay.depth


def _recut(design: Design, cut: Mapping[str, int]) -> Design:
    changed = {p.id: p.model_copy(update={"d": cut[p.id]}) for p in design.parts if cut.get(p.id, p.d) != p.d}
    if not changed:
        return design
    parts = [changed.get(p.id, p) for p in design.parts if p.belongs_to not in changed]
    for part in changed.values():
        parts += design.family_of(part).brackets(part, design.bay_of(part))
    return design.model_copy(update={"parts": tuple(parts)})


def gables_to_size(design: Design) -> Design:
    """The design with every gable as high and as deep as what it carries at its two sides, and what lies across it; one
    that carries nothing stays as it is.
    """
    changed: dict[str, Part] = {}
    for gable in (p for p in design.parts if p.role == "panel"):
        beside = beside_gable(gable, design.bays)
        ends = [end for p in design.parts if (end := _end_on(p, gable, beside)) is not None]
        cut = to_size(gable, ends)
        if cut != gable:
            changed[gable.id] = cut
    if not changed:
        return design
    return design.model_copy(update={"parts": tuple(changed.get(p.id, p) for p in design.parts)})


def beside_gable(gable: Part, bays: Iterable[Bay]) -> dict[int, Bay]:
    """The bays at the two sides of a gable, by their index."""
    return {
        b.index: b for b in bays
        if (b.section, b.family, b.z0) == (gable.section, gable.family, gable.z)
        and gable.x in (b.x + b.w, b.x - gable.w)
    }  # fmt: skip


def to_size(gable: Part, ends: Sequence[tuple[int, int]]) -> Part:
    """A gable as high and deep as the highest and deepest of what ends on it; as it is where nothing does."""
    if not ends:
        return gable
    high, deep = (max(sizes) for sizes in zip(*ends, strict=True))
    return gable.model_copy(update={"h": high - gable.z, "d": deep})


def _end_on(part: Part, gable: Part, beside: Mapping[int, Bay]) -> tuple[int, int] | None:
    """How high and how deep a gable must be for a part; None where the part does not rest on it."""
    if part.fixed_to == "uprights" and part.section == gable.section:
        over = part.x < gable.x + gable.w and gable.x < part.x + part.w
        return (part.z, part.d) if over else None
    bay = beside.get(-1 if part.bay is None else part.bay)
    if bay is None or part.role not in ("shelf", "cover", "rail", "hooks"):
        return None
    if part.role == "rail":
        return min(part.z + part.h + OVER_RAIL, bay.z1), bay.depth
    return part.z + part.h, part.d
