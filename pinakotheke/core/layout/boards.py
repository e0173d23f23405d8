"""Shelves of one's own boards, cut no deeper than what lies on them asks: deep ones below, shallow ones above.

A board is never deeper than the one below it in its bay, so that nobody bumps into it. *Common practice.*
"""

from collections import defaultdict
from collections.abc import Mapping

from ..inventory import Thing
from ..systems import Bay, Part
from .fits import Ask, ask
from .models import Design

SAME = 1e-6
"""mm that two lengths may differ and be one."""


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
