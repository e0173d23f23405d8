"""A design as a candidate to furnish anew: locked bays and parts stay, with what is in them."""

from ...inventory import Thing
from ...systems import Bay, Blocked
from ..models import Design
from ..packing.fits import ask
from ..placement.candidates import Candidate
from .furnish import kept_assignments, stays_put


def kept_candidate(design: Design, things: tuple[Thing, ...]) -> tuple[Candidate, tuple[Thing, ...]]:
    """The bays of a design, closed where something locked stands, and the pieces that are still to be placed."""
    placed: dict[str, int] = {}
    for a in kept_assignments(design):
        placed[a.thing] = placed.get(a.thing, 0) + a.count
    rest = tuple(
        t.model_copy(update={"count": t.count - placed.get(t.id, 0)}) for t in things
        if t.stays and t.count > placed.get(t.id, 0)
    )  # fmt: skip
    by_id = {t.id: t for t in things}
    bays = tuple(_with_locked(design, bay, by_id) for bay in design.bays)
    return Candidate((), bays, ()), rest


def _with_locked(design: Design, bay: Bay, things: dict[str, Thing]) -> Bay:
    if bay.locked:
        return bay
    family = design.family_of(bay)
    closed = list(bay.blocked)
    for part in design.parts:
        if part.bay == bay.index and part.locked and stays_put(design, part) and part.role not in ("frame", "panel"):
            clear = 0.0
            for a in design.held_by(part.id):
                if a.thing in things:
                    box = design.box(a.container) if a.container else None
                    clear = max(clear, ask(things[a.thing], a.way, part.role, family, bay, design.rules, a.count,
                                           turned=a.turned, container=box).clear)  # fmt: skip
            low, high = family.takes(part, clear)
            closed.append(Blocked(low=int(low), high=int(-(-high // 1))))
    return bay.model_copy(update={"blocked": tuple(closed)})
