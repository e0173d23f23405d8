"""What the zones of a house know of hazards, asked of every place in a design, by the same functions."""

from collections.abc import Iterator
from functools import cached_property

from ..inventory import uses_a_month
from ..inventory.places import Place
from ..inventory.zones import Conflict, conflicts_at
from ..layout.packing.trouble import hand_height
from .check import Case, of_section
from .findings import Finding, Severity
from .homes import CODES

HERE = ("fuel", "child", "damp", "wide high", "no socket")
"""What is asked of a place in a design; weight and reach have checks of their own, which know what is lifted and how."""


SEVERITY: dict[str, Severity] = {"child": "mind", "fuel": "fix"}
"""Where a thing only has its place in the wrong space: the design itself stands."""


class _Here:
    """The space of a case as a home."""

    def __init__(self, case: Case) -> None:
        self.case = case

    @cached_property
    def place(self) -> Place:
        """Damp, sockets and locks as they were said; where nobody says, it is indoors and open."""
        case = self.case
        limits = case.limits
        return Place(
            id="", name="", zones=(), where="outdoors" if limits and limits.outdoors else "indoors", damp=case.survey.damp,
            sockets=sum(o.kind == "socket" for o in case.survey.obstacles), from_door=0, room={},
            locked=bool(limits and limits.locked), top=max(e.z_to for e in case.envelopes.values()),
        )  # fmt: skip


@of_section(*(CODES[code] for code in HERE))
def hazards(case: Case) -> Iterator[Finding]:
    """Damp, fire, children, width overhead and sockets, where each thing has its place. What must never be is a limit, and
    told by the verifier; here it is told where only its kind says so.
    """
    here, design = _Here(case), case.made
    told: set[tuple[str, str]] = set()
    for a in design.assignments:
        thing, part = case.by_id.get(a.thing), case.parts.get(a.part)
        if thing is None or part is None or part.bay is None:
            continue
        hand = hand_height(part.role, part.z, part.h, design.bay_of(part))
        for conflict in conflicts_at(thing, here.place, hand, case.people):
            if conflict.code not in HERE or (conflict.code, thing.id) in told or _is_limit(case, conflict):
                continue
            if conflict.code == "damp" and (a.container or (part.z > 0 and part.role != "floor")):
                continue  # off the floor, or in a box: that is the mend
            if conflict.code == "wide high" and uses_a_month(thing.frequency) < 1:
                continue  # the top is the place of what is wide and seldom used
            told.add((conflict.code, thing.id))
            severity = SEVERITY.get(conflict.code, case.rule(CODES[conflict.code]).severity)
            yield case.found(CODES[conflict.code], severity=severity, where=(part.id,), place=case.place(part),
                             subject=thing.name, measured=conflict.measured, limit=conflict.limit, count=thing.count,
                             person=conflict.detail, detail=conflict.detail or "this space")  # fmt: skip


def _is_limit(case: Case, conflict: Conflict) -> bool:
    """Whether the verifier proves it already."""
    if conflict.code != "child" or case.limits is None:
        return False
    return case.limits.hurts(case.by_id[conflict.thing])


CHECKS = (hazards,)
