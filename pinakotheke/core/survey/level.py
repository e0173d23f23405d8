"""Floors that fall, walls that lean and bulge: what the level says and what it asks of a base.

A *fall* is how far the floor lies below a level line, read down from the line; the line's own height does not
matter. The base is set to the highest point of the floor; the shim at x is the fall there less the least fall
(handbook section 1, derived). Between two readings the floor is taken as straight.
"""

from itertools import pairwise
from math import ceil

from ..base import Frozen
from ..tables import value
from .models import Survey


class Shim(Frozen):
    """Height of the packing at a place along the run, mm."""

    at: float
    height: float


class LevelBase(Frozen):
    """How a base is brought to level: shims, or a plinth cut from `lengths` when the run is out by too much."""

    shims: tuple[Shim, ...]
    out_by: float
    across: float
    """How much lower the floor is at the front than at the back at its worst, mm; negative: the back is lower."""
    plinth: tuple[int, ...]

    def shim_at(self, x: float) -> float:
        """Packing at any place, straight between readings, as at the nearest one beyond them."""
        if x <= self.shims[0].at:
            return self.shims[0].height
        for a, b in pairwise(self.shims):
            if a.at <= x <= b.at:
                return a.height + (b.height - a.height) * (x - a.at) / (b.at - a.at)
        return self.shims[-1].height


def level_base(survey: Survey, section_id: str = "") -> LevelBase | None:
    """The shim or plinth schedule of one run; None until the floor was read at two places."""
    one = survey.only(section_id)
    falls: dict[float, list[float]] = {}
    for r in one.points("fall"):
        if r.face != "front":
            falls.setdefault(r.at or 0.0, []).append(r.value)
    if len(falls) < 2:
        return None
    mean = {at: sum(v) / len(v) for at, v in falls.items()}
    top = min(mean.values())
    shims = tuple(Shim(at=at, height=fall - top) for at, fall in sorted(mean.items()))
    out_by = max(s.height for s in shims)
    run = one.least("width") or shims[-1].at - shims[0].at
    return LevelBase(shims=shims, out_by=out_by, across=_across(one, mean),
                     plinth=_lengths(run) if out_by > value("survey.shim_limit") else ())  # fmt: skip


def _across(one: Survey, back: dict[float, float]) -> float:
    """The greatest difference between a fall at the front and the one behind it."""
    fronts = [(r.at, r.value) for r in one.points("fall") if r.face == "front"]
    both = [front - back[at] for at, front in fronts if at in back]
    return max(both, key=abs, default=0.0)


def _lengths(run: float) -> tuple[int, ...]:
    """A plinth of the run's length in as few pieces as the stock allows, as even as whole millimetres allow.

    Pieces are never longer than the stock.
    """
    pieces = ceil(run / value("survey.plinth_stock"))
    each, more = divmod(int(run), pieces)
    return tuple(each + 1 if n < more else each for n in range(pieces))


def level_length(run: float) -> int:
    """The longest of the usual levels (mm) that lies flat in a run: a short one hides a long fall.

    >>> level_length(2431), level_length(700), level_length(300)
    (2000, 600, 300)
    """
    return next((n for n in (2000, 1800, 1200, 900, 600) if n <= run), int(run))


class Lean(Frozen):
    """How far walls come into the space at the top or the middle, mm; what leans away counts as 0."""

    back: float = 0
    left: float = 0
    right: float = 0


def leans(survey: Survey, section_id: str = "") -> Lean:
    """What plumb and bow readings take from the depth at the back wall and from the width at the sides."""
    one = survey.only(section_id)

    def worst(side: str) -> float:
        return max([0.0, *one.values("plumb", side=side)])

    return Lean(back=max(worst("middle"), 0.0, *one.values("bow")), left=worst("left"), right=worst("right"))
