"""What swings and slides against what else is there."""

from collections.abc import Iterator
from itertools import pairwise

from ..layout.verify.motion import sweeps_of
from .check import Case, of_design
from .findings import Finding


@of_design("doors.straddle")
def straddling(case: Case) -> Iterator[Finding]:
    """Behind sliding doors half stands open at a time: nothing that slides out may straddle the meeting line."""
    design = case.made
    leaves = [p for p in design.parts if p.role == "door" and p.bay is None]
    pulled = [s for s in sweeps_of(design) if s.kind == "slides out"]
    for one, other in pairwise(leaves):
        if one.section != other.section:
            continue
        line = (one.x + one.w + other.x) / 2
        for sweep in pulled:
            if sweep.section == one.section and sweep.x0 < line < sweep.x1:
                yield case.found("doors.straddle", where=(sweep.part,), place=case.place(sweep.part), measured=line,
                                 limit=sweep.x0)  # fmt: skip


CHECKS = (straddling,)
