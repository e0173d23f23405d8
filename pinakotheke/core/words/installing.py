"""What is said of the work on the wall: each step, what a hole gets, what is not known."""

from collections import Counter
from collections.abc import Mapping, Sequence
from typing import Any

from ..checks import Case
from ..install import DrillingMap, Hole, InstallChoice, LevelLine, Schedule, Step, when
from ..install.holes import Fastener
from ..install.levels import work
from ..install.lights import Lighting
from ..install.steps import painted
from ..install.tools import SmallThing
from ..install.trial import TrialRoom, trial_rooms
from ..inventory import Thing
from ..saying import counted, decimal_length, nominal, say
from ..tables import load
from ..units import Units, format_length, format_mass, with_unit

CABLE, CORNER = work("cable_bit"), 40
LITRES_PER_GALLON, SQUARE_FEET = 3.785411784, 10.7639104
OLD = {"nothing": "nothing", "shelves": "shelves on cleats", "rails": "rails", "tracks": "tracks and standards"}
INTO: dict[Fastener, str] = {
    "stud": "screw into stud {stud}", "anchor": "anchor in the lining", "plug": "plug and screw",
    "board": "screw into the boards", "joist": "lag screw into a joist: find it", "unknown": "not known: find out first",
}  # fmt: skip
CARRIED = {
    "whole": "Put together it passes the door and turns in the passage.",
    "boards": "Carry it in as boards: put together it does not pass the door, or does not turn before it.",
    "unread": "Nobody read the passage on the way in: measure doors and stairs against it before it is put together "
              "outside.",
}  # fmt: skip
SURFACES = {"back": "", "left": "left wall", "right": "right wall", "ceiling": "ceiling"}


def parts_in_words(case: Case, parts: Sequence[str]) -> str:
    """Parts counted by name, as in a sentence: `2 standards, track`."""
    by_id = case.parts
    named = Counter(case.made.family_of(by_id[p]).named(by_id[p]) for p in parts if p in by_id)
    said = [name[0].lower() + name[1:] for name in named]
    return ", ".join(name if n == 1 else f"{n} × {name}" for name, n in zip(said, named.values(), strict=True))


def part_in_words(case: Case, part: str) -> str:
    """A part and where it is: `shelf 3 in bay 2` is the third from below."""
    place = case.place(part)
    if place is None:
        return part
    name = case.made.family_of(case.parts[part]).named(case.parts[part])
    number = f" {place.number}" if place.number else ""
    return f"{name[0].lower()}{name[1:]}{number}{'' if place.bay is None else f' in bay {place.bay + 1}'}"


def step_facts(case: Case, choice: InstallChoice, lines: Mapping[str, LevelLine], space: str, units: Units,
               highest: Mapping[str, float]) -> dict[str, dict[str, Any]]:  # fmt: skip
    """Facts for the sentences of steps, by section; under an empty one those of the whole space."""
    area = painted(case)
    litres = 2 * area / float(load("installing")["work"]["coat"]["value"])
    rooms = trial_rooms(case)
    marks = [with_unit(r.mark.z, units) for r in rooms]
    scribe = float(load("installing")["work"]["scribe_from"]["value"])
    whole = {
        "space": space,
        "old": OLD[choice.old],
        "area": round(area, 1),
        "area_ft": area * SQUARE_FEET,
        "paint": round(litres + 0.05, 1),
        "paint_gal": round(litres / LITRES_PER_GALLON + 0.05, 1),
        "marks": ", ".join(marks) or "the highest and the lowest board",
        "by_how_much": trial_in_words(rooms, case, units),
        "waits": _waits(case.things, choice.waits_at),
        "layer": 5,
        "scribe": scribe,
    }
    found = {"": whole}
    for section, line in lines.items():
        found[section] = whole | {"height": line.height, "instrument": instrument_in_words(line, units),
                                  "check": check_in_words(line, units), "highest": highest.get(section, 0.0)}  # fmt: skip
    return found


def step_in_words(
    step: Step, case: Case, facts: Mapping[str, Mapping[str, Any]], units: Units
) -> tuple[str, list[str]]:
    """Title of a step and how it is done."""
    row = load("installing")["turns"][step.turn]
    known = {"highest": 0.0, **facts.get(step.section, facts[""]), "parts": parts_in_words(case, step.parts)}
    title = row["title_imperial"] if units == "imperial" and "title_imperial" in row else row["title"]
    how = [line for one in row["how"] for line in say(one, known, units).splitlines()]
    return say(title, known, units) + _where(step, case), [*how, *_by_two(step, units)]


def _where(step: Step, case: Case) -> str:
    """Which bay, wall or drawer a step is done at, where there are several."""
    section = case.survey.section(step.section) if step.section else None
    if step.bay is not None and len(case.made.bays) > 1 and (section is None or section.at_wall):
        return f", bay {step.bay + 1}"
    return f", {section.label}" if section is not None and len(case.made.sections) > 1 else ""


def _by_two(step: Step, units: Units) -> list[str]:
    found = []
    if step.built == "standing":
        found.append("Built standing, where it stays: lying down it could not be tilted up under this ceiling.")
    if step.built == "lying":
        found.append("Built lying on its back, then tilted up.")
    if step.carried:
        found.append(CARRIED[step.carried])
    if step.why_two and step.hands > 1:
        why = {"mass": f"{format_mass(step.mass, units)} is more than one lifts", "height": "it is over a person's height",
               "length": "one holds the far end"}[step.why_two]  # fmt: skip
        found.append(f"Two people: {why}.")
    elif step.why_two:
        found.append("Alone: carry it in as boards, prop the far end, and take the time; better ask somebody.")
    return found


def _waits(things: Sequence[Thing], where: str) -> str:
    pieces = sum(t.count for t in things if t.stays)
    said = f"{pieces} {counted(pieces, 'piece', 'pieces')}"
    return f"{said}, {where}" if where else f"{said} need a bed, a table or a rack for as long as this takes"


def trial_in_words(rooms: Sequence[TrialRoom], case: Case, units: Units) -> str:
    """By how much each height that is tried may be changed, a line each."""
    said = []
    for room in rooms:
        part, ways = case.parts[room.mark.part], []
        if room.up is not None and room.up <= -1:
            ways.append(f"{with_unit(int(-room.up), units)} above what is reached without a step")
        elif room.up is not None and room.up >= 1:
            why = "it is out of reach" if room.reaches else "it meets what is above"
            ways.append(f"up to {with_unit(int(room.up), units)} higher before {why}")
        if room.down is not None and room.down >= 1:
            ways.append(f"up to {with_unit(int(room.down), units)} lower before it meets what is below")
        if ways:
            said.append(
                f"{case.made.family_of(part).named(part)} at {with_unit(room.mark.z, units)}: {', '.join(ways)}."
            )
    return "\n".join(said)


def instrument_in_words(line: LevelLine, units: Units) -> str:
    """What the line is struck with, and how far off it may be at its far end."""
    drift = decimal_length(line.drift_laser, units), decimal_length(line.drift_level, units)
    return (f"With a laser (off by up to {drift[0]} at the far end) or a level no shorter than {nominal(line.tool, units)} "
            f"({drift[1]}): a short one is no witness for a run of {with_unit(line.run, units)}.")  # fmt: skip


def check_in_words(line: LevelLine, units: Units) -> str:
    """What is measured from the line to see that it is where it is thought to be."""
    names = ("left", "middle", "right")
    ups = [
        f"{n} {format_length(c.up, units)}" for n, c in zip(names, line.checkpoints, strict=True) if c.up is not None
    ]
    downs = [
        f"{n} {format_length(c.down, units)}"
        for n, c in zip(names, line.checkpoints, strict=True)
        if c.down is not None
    ]
    said = []
    if ups:
        said.append(f"up to the ceiling {', '.join(ups)}")
    said.append(
        f"down to the floor {', '.join(downs)}" if downs else "the floor was not read: find its highest point first"
    )
    if line.skirting is not None:
        said.append(f"to the upper edge of the skirting left {format_length(line.skirting, units)}")
    return f"{'; '.join(said)}."


def hole_in_words(hole: Hole, units: Units) -> str:
    """What goes into a hole, and what is in its way."""
    said = INTO[hole.into].format(stud=hole.stud or "")
    if hole.thread:
        said += f", {with_unit(hole.thread, units)} of thread"
    if hole.packing:
        said += f", packed out by {with_unit(round(hole.packing, 1), units)}"
    if hole.surface != "back":
        said += f", {SURFACES[hole.surface]}"
    if hole.refused:
        return f"not here: {_meets(hole)}"
    if hole.moved:
        said += f", moved {with_unit(abs(hole.moved), units)} {'right' if hole.moved > 0 else 'left'}"
    elif any(z.why == "strayed" for z in hole.meets):
        said += "; fill the hole beside it with a glued dowel first, a day to dry"
    elif hole.meets:
        said += f"; {_meets(hole)}"
    return said


def _meets(hole: Hole) -> str:
    zone = next((z for z in hole.meets if z.bars), hole.meets[0])
    where = {"itself": "", "above or below": "straight above or below {}", "beside": "level with {}", "around": "at {}",
             "under the ceiling": "in the band under the ceiling where cables run",
             "over the floor": "in the band over the floor where cables run",
             "strayed": "beside a hole that strayed",
             "beside the corner": "in the band beside the corner where cables run"}[zone.why]  # fmt: skip
    return where.format(f"the {zone.of}")


def map_cautions(found: DrillingMap) -> list[str]:
    """What must be found out before anything is drilled, and who decides."""
    said = []
    if not found.lining_read:
        said.append(
            "What is behind the lining was not read: read it in Measure, and the map says what goes into each hole."
        )
    if not found.studs_read:
        said.append("The studs were not read: find them first, and read them in; until then every hole is an anchor's.")
    if not found.services_read:
        said.append(
            "Nobody read a socket, switch, pipe or cable on this wall: what runs in it is not known, not absent."
        )
    if any(h.into == "unknown" and h.surface in ("left", "right") for h in found.holes):
        said.append("The studs of the side walls were not read: find them before the cleats there are cut.")
    if any(h.surface == "ceiling" for h in found.holes):
        said.append("Nobody read the joists: what hangs from the ceiling goes into joists, or not up at all.")
    refused = sum(h.refused for h in found.holes)
    if refused:
        said.append(f"{refused} {counted(refused, 'hole lies', 'holes lie')} where a cable or a pipe may run: do not drill "
                    f"there; move the part, or ask.")  # fmt: skip
    said.append("Go over every hole with a detector. The zones are a custom and not a promise: a licensed electrician or "
                "plumber decides.")  # fmt: skip
    return said


def step_said(minutes: float, hands: int, tools: Sequence[str]) -> str:
    """How long a step takes, with whom and with what, in a line."""
    people = "" if hands == 1 else f", {hands} people"
    return f"about {max(1, round(minutes))} min{people}{'; ' if tools else ''}{', '.join(tools)}"


SMALL = {
    "stud": "screws of {size} into studs", "board": "screws of {size} into the boards", "plug": "plugs with their screws",
    "anchor": "anchors for a hollow wall", "joist": "lag screws of {size}", "shims": "shims, in pairs",
    "joining": "screws that join frames side by side",
}  # fmt: skip


def lights_in_words(found: Lighting, sockets_read: int, units: Units) -> list[str]:
    """Each light with its cable, then drivers, sockets and what all of them draw."""
    said = [
        f"bay {one.bay + 1}: a light of {with_unit(one.length, units)}, {with_unit(one.cable, units)} of cable to driver "
        f"{one.driver}"
        + (f", through {one.sides} {counted(one.sides, 'side', 'sides')}: a hole of {with_unit(CABLE, units)} in each, "
           f"{with_unit(CORNER, units)} from its back and top" if one.sides else "")
        for one in found.lights
    ]  # fmt: skip
    sockets = f"{found.drivers} {counted(found.drivers, 'driver', 'drivers')} with {found.outlets} outlets each"
    enough = "as many were read"
    if sockets_read < found.drivers:
        enough = (
            f"{sockets_read or 'none'} {'were' if sockets_read > 1 else 'was'} read: a licensed electrician adds more"
        )
    said.append(f"{sockets}: a socket for each, where the hand reaches it; {enough}")
    share = f"{found.watts:.0f} W in all, {found.watts / found.rated:.0%} of what a strip of outlets carries for hours"
    said.append(f"{share} on end; fixed wiring is a licensed electrician's")
    return said


def bit_in_words(bit: float, units: Units) -> str:
    """A bit to lay ready."""
    return f"bit, {with_unit(bit, units)}"


def small_in_words(one: SmallThing, units: Units) -> str:
    """So many small things, spares and all."""
    return f"{one.count} {SMALL[one.what].format(size=with_unit(one.size, units))}"


def times_in_words(times: Schedule | None, choice: InstallChoice) -> str:
    """When it is done, on how many days, and how good that is."""
    if times is None:
        return "No evening and no weekend is free: say when there is time."
    if not times.booked:
        return "Everything is done."
    end = when(choice, times.end)
    day = f"{end:%A}, {end.day} {end:%B}, {end:%H:%M}"
    worked = f"{times.days} {counted(times.days, 'day', 'days')} of work"
    if times.is_proven:
        return f"Done on {day}: {worked}, and no order is done sooner."
    least = when(choice, times.bound)
    return f"Done on {day}: {worked}; nothing could be done before {least:%A}, {least.day} {least:%B}, {least:%H:%M}."
