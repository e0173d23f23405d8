"""What swings and slides against what else is there, and whether there is room to stand before it."""

from collections.abc import Iterator
from itertools import pairwise

from ..geometry.sweeps import Sweep
from ..layout.verify.motion import sweeps_of
from ..survey.motion import car_doors, door_leaves, window_leaf
from ..survey.passages import passages
from ..tables import value
from .check import Case, of_section
from .findings import Finding


@of_section("doors.straddle")
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


@of_section("pull-out.stand", "doors.swing")
def room_to_stand(case: Case) -> Iterator[Finding]:
    """Before what slides out its extension and room to stand, before a leaf its width and a hand: as far as the passage in
    front of that wall was read.
    """
    before = {p.section: p for p in reversed(passages(case.survey))}
    deepest: dict[tuple[str, str], tuple[float, Sweep]] = {}
    for sweep in sweeps_of(case.made):
        code = {"slides out": "pull-out.stand", "swings": "doors.swing"}.get(sweep.kind)
        if code is None or sweep.section not in before:
            continue
        asked = sweep.y1 - sweep.y0 + value("clear.pull_stand" if code == "pull-out.stand" else "passage.door_leaf")
        if asked > before[sweep.section].width:
            key = code, sweep.section
            deepest[key] = max(deepest.get(key, (0.0, sweep)), (asked, sweep), key=lambda row: row[0])
    for (code, section), (asked, sweep) in deepest.items():
        passage = before[section]
        yield case.found(code, where=(sweep.part,), place=case.place(sweep.part), measured=asked,
                         limit=max(passage.width, 0), detail=passage.before)  # fmt: skip


@of_section("pull-out.meets", "doors.meets")
def meeting(case: Case) -> Iterator[Finding]:
    """What slides out or swings against what stands out of the wall there, the leaf of the room's own door, a window that
    swings in, and the doors of a parked car.
    """
    names = {o.id: o.name for o in case.survey.obstacles}
    for sweep in sweeps_of(case.made):
        code = {"slides out": "pull-out.meets", "swings": "doors.meets"}.get(sweep.kind)
        if code is None:
            continue
        for name, x0, x1, y0, y1, z0, z1 in _in_the_way(case, sweep.section):
            if sweep.meets(x0, x1, y0, y1, z0, z1):
                yield case.found(code, where=(sweep.part,), place=case.place(sweep.part), subject=names.get(name, name),
                                 measured=max(min(sweep.y1, y1) - max(sweep.y0, y0), 0))  # fmt: skip
                break


Box = tuple[str, float, float, float, float, float, float]


def _in_the_way(case: Case, section: str) -> Iterator[Box]:
    """What of the room is in the coordinates of a section: its name, and from and to along x, y and z."""
    survey = case.survey
    for o in survey.obstacles:
        if o.section == section:
            yield o.id, o.x, o.x + o.width, o.y, o.y + o.projection, o.z, o.z + o.height
            leaf = window_leaf(o)
            if leaf is not None:
                yield o.name, leaf.x0, leaf.x1, leaf.y0, leaf.y1, leaf.z0, leaf.z1
    envelope = case.envelopes.get(section)
    if envelope is None:
        return
    sweeps = [*door_leaves(survey, survey.section(section), envelope.y_to, envelope.height)]
    if survey.car is not None and section == survey.main.id:
        sweeps += car_doors(survey.car)
    for sweep in sweeps:
        yield sweep.part, sweep.x0, sweep.x1, sweep.y0, sweep.y1, sweep.z0, sweep.z1


CHECKS = (straddling, room_to_stand, meeting)
