"""Trial marks: heights to tape on the wall before anything is drilled, since a height chosen on paper feels different
when one stands before it.
"""

from ...base import Frozen
from ...systems import HANGING, HOLDERS
from ..models import Design

MOST_PER_SECTION = 4


class TrialMark(Frozen):
    """A level line to tape at `z` mm above the floor along a section; `what` is the role of the part it stands for."""

    section: str
    z: int
    what: str
    part: str


def trial_marks(design: Design) -> tuple[TrialMark, ...]:
    """For every section the heights that decide comfort: the rails, the highest shelf in use, the lowest, and the top
    of what hangs on the wall. At most four, from above.
    """
    found: list[TrialMark] = []
    used = {a.part for a in design.assignments}
    for section in design.sections:
        bays = {b.index for b in design.bays if b.section == section and b.drawer is None and b.foot == 0}
        parts = [p for p in design.parts if p.bay in bays and p.role in HOLDERS and p.role != "floor" and p.id in used]
        marks: dict[int, TrialMark] = {}
        rails = sorted((p for p in parts if p.role in HANGING), key=lambda p: -p.z)
        boards = sorted((p for p in parts if p.role not in HANGING), key=lambda p: -p.z)
        tops = [p for p in design.parts if p.section == section and p.role == "track"]
        for part in (*tops[:1], *rails[:2], *boards[:1], *boards[-1:]):
            z = part.z if part.role in HANGING or part.role == "track" else part.z + part.h
            marks.setdefault(z, TrialMark(section=section, z=z, what=part.role, part=part.id))
        found += sorted(marks.values(), key=lambda m: -m.z)[:MOST_PER_SECTION]
    return tuple(found)
