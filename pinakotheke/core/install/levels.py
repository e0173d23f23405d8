"""The level line: one datum for a wall, from which every height is told, and the floor below it as it was read."""

from ..base import Frozen
from ..survey import Section, Survey
from ..survey.closed import ceiling_at, ceiling_points
from ..survey.level import level_base, level_length
from ..tables import load

PLACES = (0.0, 0.5, 1.0)
"""Where the line is measured up to the ceiling: at its ends and in the middle, as shares of the run."""


class Checkpoint(Frozen):
    """At a place along the wall: down to the floor and up to the ceiling from the line, mm; None where it was not read."""

    at: float
    down: float | None
    up: float | None


class LevelLine(Frozen):
    """A line `height` mm above the highest point of the floor, which is at `highest`; `out_by`: how much lower the floor is
    at its lowest. `tool`: the shortest level that is a witness for this run, mm; `drift`: how far a laser and a level may
    be off at its far end, mm.
    """

    section: str
    run: float
    height: float
    highest: float | None
    out_by: float | None
    tool: int
    drift_laser: float
    drift_level: float
    checkpoints: tuple[Checkpoint, ...]
    skirting: float | None
    """Down to the upper edge of the skirting at the left end; None where there is none, or the floor was not read."""

    def from_line(self, z: float) -> float:
        """A height above the highest point of the floor, told from the line: above it positive, mm."""
        return z - self.height


def work(key: str) -> float:
    """A value of the work on the wall: a row of `tables/installing.toml`."""
    return float(load("installing")["work"][key]["value"])


def level_line(survey: Survey, section: Section, width: float, height: float) -> LevelLine:
    """The line of a run `width` mm long under a ceiling `height` mm high.

    What the floor does below it comes from the falls read there (at two places at least); the ceiling from its own
    readings, else from the heights of the run.
    """
    base, datum = level_base(survey, section.id), min(work("datum"), height / 2)
    one, points = survey.only(section.id), ceiling_points(survey, section) if section.slope == "along" else []
    sides = {"left": 0.0, "middle": 0.5, "right": 1.0}
    read = {sides[r.side]: r.value for r in one.readings if r.what == "height" and r.side in sides}
    skirting = max(one.values("skirting height"), default=0.0) if survey.skirting != "remove" else 0.0
    found = []
    for share in PLACES:
        at = share * width
        packed = base.shim_at(at) if base else None
        # A height was read from the floor where it stood, and the line is as far above the highest.
        top = ceiling_at(points, at) if points else read.get(share)
        up = None if top is None else top - (packed or 0.0) - datum
        found.append(Checkpoint(at=at, down=None if packed is None else datum + packed, up=up))
    return LevelLine(
        section=section.id, run=width, height=datum, tool=level_length(width),
        highest=min(base.shims, key=lambda s: s.height).at if base else None, out_by=base.out_by if base else None,
        drift_laser=work("laser") * width / 1000, drift_level=work("spirit") * width / 1000, checkpoints=tuple(found),
        skirting=datum + base.shim_at(0) - skirting if base and skirting else None,
    )  # fmt: skip
