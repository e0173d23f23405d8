"""Where things may stand in a clear region: stretches of wall, closed heights, notches, what comes out."""

from collections.abc import Iterable
from math import inf

from ..survey import ClosedRegion, Envelope
from ..tables import value
from .parts import Bay, Blocked, Cut

SEEN = 330
"""Of a bay that runs into a corner so much must be open in front, mm; common practice."""


def free_stretches(start: int, end: int, closed: Iterable[tuple[int, int]]) -> tuple[tuple[int, int], ...]:
    """What is left of start..end between closed ranges.

    >>> free_stretches(0, 100, [(20, 40), (30, 50)]), free_stretches(0, 10, [(0, 10)])
    (((0, 20), (50, 100)), ())
    """
    free, at = [], start
    for x0, x1 in sorted(closed):
        if x0 > at:
            free.append((at, min(x0, end)))
        at = max(at, x1)
    if at < end:
        free.append((at, end))
    return tuple((a, b) for a, b in free if b > a)


def blocked_heights(envelope: Envelope, x0: int, x1: int, y0: int, y1: int) -> tuple[Blocked, ...]:
    """Height ranges closed to a bay over x0..x1 that reaches from y0 to y1."""
    found = {(c.z0, c.z1, c.loose) for c in envelope.closed if c.x0 < x1 and x0 < c.x1 and c.y0 < y1 and y0 < c.y1}
    return tuple(Blocked(low=low, high=high, loose=loose) for low, high, loose in sorted(found))


WIDEST_CUT, LEAST_TALL = 260, 400
"""What is narrower and taller than this, mm, boards are cut around and things stand beside: a pipe, a flue, a cable."""


def cut_around(envelope: Envelope, x0: int, x1: int, y0: int, y1: int, top: int, raised: int = 0, *,
               any_height: bool = False) -> tuple[tuple[Cut, ...], tuple[Blocked, ...]]:  # fmt: skip
    """Notches for what a bay's boards are cut around, and the heights that everything else closes, each `raised` mm
    further up by what hangs below a board. With `any_height` boards keep clear of all that is narrow, also of what only
    asks to be reached.
    """
    slim: list[ClosedRegion] = []
    others: list[ClosedRegion] = []
    for c in envelope.closed:
        is_slim = c.x1 - c.x0 <= WIDEST_CUT and (any_height or (c.z1 - c.z0 >= LEAST_TALL and not c.loose))
        (slim if is_slim and c.obstacle != "slope" else others).append(c)
    cuts = tuple(
        (max(c.x0, x0), min(c.x1, x1), max(c.y0, y0), min(c.y1, y1)) for c in slim if c.meets(x0, x1, y0, y1, 0, top)
    )
    closed = blocked_heights(envelope.model_copy(update={"closed": tuple(others)}), x0, x1, y0, y1)
    return cuts, tuple(b.model_copy(update={"high": b.high + raised}) for b in closed)


def comes_out(envelope: Envelope, x0: int, x1: int) -> bool:
    """Whether something x0..x1 wide slides out clear of returns and an open door."""
    return envelope.pull_from <= x0 and x1 <= envelope.pull_to


def rail_distance(bay: Bay) -> int:
    """Distance of a rail's centre from the bay's back, mm: the usual one, or the middle of a shallow bay."""
    return min(int(value("hang.rail_from_back")), bay.hang_depth // 2)


def setback_for(envelope: Envelope, height: int, depth: int) -> int | None:
    """How far out from the back something must stand under a ceiling that comes down behind it, mm: 0 without a
    slope; None when it does not fit the depth at all.
    """
    slope = [
        c for c in envelope.closed if c.obstacle == "slope" and c.z0 < height and c.x1 - c.x0 >= envelope.width - 1
    ]
    back = max((c.y1 for c in slope), default=0) - envelope.y_from
    back = max(back, 0)
    room = envelope.y_to - envelope.y_from
    return back if back + depth <= room else None


WORTH_A_TOP = 150
"""Less room over the highest board is not worth reckoning with, mm; common practice."""


def open_above(bay: Bay, height: int, envelope: Envelope, over: Iterable[tuple[int, int, int]]) -> Bay:
    """A bay whose highest board carries what stands above its uprights, up to the ceiling or to a row that hangs `over` it:
    from x, to x, foot.
    """
    top = min((envelope.z_to, *(foot for x0, x1, foot in over if x0 < bay.x + bay.w and bay.x < x1)))
    if top < height + WORTH_A_TOP:
        return bay
    return bay.model_copy(update={"z1": int(top), "highest": height - bay.pitch})


def free_above(envelope: Envelope, x0: int, x1: int, y0: int, y1: int, z: int) -> float:
    """Height of the first closed region over a place, inf when there is none."""
    return min((c.z0 for c in envelope.closed if c.z0 >= z and c.x0 < x1 and x0 < c.x1 and c.y0 < y1 and y0 < c.y1),
               default=inf)  # fmt: skip
