"""What is said of what was not as drawn at the wall, and of what it changes."""

from collections.abc import Sequence
from datetime import date

from ..checks import Case
from ..install import Hole, LevelLine
from ..install.amiss import HolesChanged, Verdict, Way
from ..install.choice import Again, Strayed
from ..saying import counted
from ..systems import Part
from ..units import Units, with_unit
from .installing import parts_in_words


def stud_in_words(was: float, now: float, units: Units) -> str:
    """A stud that was found elsewhere."""
    return f"The stud stands at {with_unit(now, units)}, not {with_unit(was, units)}."


def bow_in_words(bow: float, stops: int, units: Units) -> str:
    """A wall that bows, and how many findings stop the design since."""
    said = f"The middle of the wall stands {with_unit(abs(bow), units)} {'out' if bow > 0 else 'in'}."
    if stops:
        said += (f" {stops} {counted(stops, 'finding stops', 'findings stop')} the design now: see Check, have the rest "
                 f"found anew in Design; what hangs is locked.")  # fmt: skip
    return said


def strayed_in_words(hole: Hole, off: float, way: Way, kept: bool, units: Units) -> str:
    """A hole that is where none should be, and what is done about it."""
    where = {"left": "to the left", "right": "to the right", "up": "too high", "down": "too low"}[way]
    said = f"Hole {hole.number} is {with_unit(off, units)} {where}"
    if not kept:
        return f"{said}: within the play of its screw, drive it."
    return f"{said}: fill it; the map keeps away from it."


def short_in_words(case: Case, part: Part, by: float, verdict: Verdict, bears: float, there: date | None,
                   units: Units) -> str:  # fmt: skip
    """A part that is short, and what becomes of it."""
    name = parts_in_words(case, [part.id])
    said = f"The {name} is {with_unit(by, units)} short"
    if verdict == "use":
        return f"{said}: use it, caulk hides that."
    if verdict == "centre":
        return f"{said}: lay it in the middle, its ends lie on {with_unit(round(bears, 1), units)} each; use it."
    day = f"{there:%A}, {there.day} {there:%B}" if there else "later"
    return f"{said}: cut or buy it anew; its step and what hangs on it wait until {day}."


def changed_in_words(case: Case, changed: Sequence[HolesChanged]) -> str:
    """Which holes of a map are otherwise since it was made anew."""
    rows = []
    for one in changed:
        name = parts_in_words(case, [one.part])
        if one.elsewhere:
            rows.append(f"{one.elsewhere} hole{'s' * (one.elsewhere > 1)} of the {name} elsewhere")
        elif one.packed:
            rows.append(f"{one.packed} hole{'s' * (one.packed > 1)} of the {name} packed out, with longer screws")
        elif one.otherwise:
            rows.append(f"{one.otherwise} hole{'s' * (one.otherwise > 1)} of the {name} with something else in")
        else:
            rows.append(f"fewer or more holes for the {name}")
    said = "; ".join(rows)
    return f"{said[0].upper()}{said[1:]}." if rows else "No hole that is still to be drilled changes."


def strayed_aside(wall: str, hole: Strayed, line: LevelLine, units: Units) -> str:
    """Where a strayed hole is."""
    away = line.from_line(hole.height)
    where = f"{with_unit(round(abs(away), 1), units)} {'above' if away >= 0 else 'below'} the line"
    return f"{wall}: a hole strayed at {with_unit(round(hole.along, 1), units)} from the left, {where}: fill it"


def again_aside(case: Case, again: Again) -> str:
    """A part that is cut or bought anew."""
    name = parts_in_words(case, [again.part])
    return f"{name[0].upper()}{name[1:]}: cut or bought anew, there on {again.there:%A}, {again.there.day} {again.there:%B}"
