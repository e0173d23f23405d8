"""Findings and whys in words, in the household's units. The only place where their sentences are made."""

from collections.abc import Callable

from ..base import Frozen, Why
from ..lengths import Units, with_unit
from .findings import Finding

Say = Callable[[Finding, Callable[[float], str]], str]

DEFER = "Local codes and a licensed electrician, plumber or builder decide."

_SENTENCES: dict[str, Say] = {
    "survey.missing": lambda f, mm: (
        f"{f.measured:.0f} reading{'s are' if f.measured != 1 else ' is'} missing; next: {f.subject}."
    ),
    "survey.repeat": lambda f, mm: f"{f.subject} was read as {mm(f.measured)} and {mm(f.limit)}.",
    "survey.neighbour": lambda f, mm: f"{f.subject} reads {mm(f.measured)} and {mm(f.limit)} close by.",
    "survey.sum": lambda f, mm: f"{f.subject} add up to {mm(f.measured)}, the width is {mm(f.limit)}.",
    "survey.triangle": lambda f, mm: f"{f.subject} reads {mm(f.measured)}; its sides make about {mm(f.limit)}.",
    "survey.outside": lambda f, mm: f"{f.subject} reaches {mm(f.measured)} along a wall of {mm(f.limit)}.",
    "survey.square": lambda f, mm: (
        f"The {f.subject} has {f.detail}: the side wall {'comes in' if f.measured > 0 else 'goes out'} by "
        f"{mm(abs(f.measured))} over the depth."
    ),
    "survey.plinth": lambda f, mm: f"The floor along {f.subject} is out of level by {mm(f.measured)}.",
    "survey.damp": lambda f, mm: "The space is damp.",
    "clear.passage": lambda f, mm: (
        f"Between what stands along {f.subject} and {f.detail} {mm(f.measured)} are left; {mm(f.limit)} is usual."
    ),
    "survey.level": lambda f, mm: "The floor has not been read for level; carcases are not ready to be set.",
    "clear.caution": lambda f, mm: f"{f.subject}: {f.source}",
    "fit.unplaced": lambda f, mm: f"{f.measured:.0f} × {f.subject} have no place.",
    "fit.capacity": lambda f, mm: f"{_part(f)} asks {mm(f.measured)} and has {mm(f.limit)}.",
    "fit.headroom": lambda f, mm: f"{_part(f)} {f.detail}: it reaches {mm(f.measured)}, free to {mm(f.limit)}.",
    "fit.envelope": lambda f, mm: f"{_part(f)} {f.detail}: {mm(f.measured)} against {mm(f.limit)}.",
    "fit.closed": lambda f, mm: f"{_part(f)} stands where it may not: {f.detail}.",
    "fit.overlap": lambda f, mm: f"{_part(f)} {f.detail}.",
    "fit.support": lambda f, mm: f"{_part(f)} hangs free: {f.detail}.",
    "fit.back-cut": lambda f, mm: (
        f"{_part(f)} stands round the {f.subject}: its back is cut out there, {mm(f.measured)} by {mm(f.limit)}."
    ),
    "fit.size": lambda f, mm: f"What is in {_part(f)} {f.detail}.",
    "fit.count": lambda f, mm: f"{f.measured:.0f} of {f.limit:.0f} pieces are accounted for ({_part(f)}).",
    "fit.unknown": lambda f, mm: f"{_part(f)} {f.detail}.",
    "pull-out.return": lambda f, mm: (
        f"{_part(f)} cannot come out: the return or the door takes {mm(f.measured)} of it."
    ),
    "doors.straddle": lambda f, mm: f"{_part(f)} straddles the line at {mm(f.measured)} where the sliding doors meet.",
    "strength.rating": lambda f, mm: f"{_part(f)} holds {f.measured:.1f} kg and is rated {f.limit:.1f} kg.",
    "strength.sag": lambda f, mm: f"{_part(f)} will sag {f.measured:.1f} mm in years; {f.limit:.1f} mm show.",
    "strength.rail": lambda f, mm: f"{_part(f)} will bend {f.measured:.1f} mm; {f.limit:.1f} mm show.",
    "strength.rail-support": lambda f, mm: (
        f"{_part(f)} spans {mm(f.measured)}; a support every {mm(f.limit)} is usual."
    ),
    "reach.high": lambda f, mm: f"{f.subject} ({f.detail}) at {mm(f.measured)}: {f.person} reaches {mm(f.limit)}.",
    "reach.low": lambda f, mm: (
        f"{f.subject} ({f.detail}) at {mm(f.measured)}: {f.person} reaches down to {mm(f.limit)}."
    ),
    "carry.tilt": lambda f, mm: f"Tilting a carcase up takes {mm(f.measured)}; the ceiling is at {mm(f.limit)}.",
    "carry.opening": lambda f, mm: f"A carcase {mm(f.measured)} deep does not pass the opening, {mm(f.limit)} high.",
    "home.fuel": lambda f, mm: f"{f.subject} may not be kept in {f.detail}: fuel and gas stay outdoors, ventilated.",
    "home.child": lambda f, mm: f"{f.subject} can be reached by {f.person} at {mm(f.measured)}.",
    "home.damp": lambda f, mm: f"{f.subject} would stand damp in {f.detail}.",
    "home.heavy": lambda f, mm: (
        f"{f.subject}: {f.measured:.1f} kg a piece there, {f.limit:.1f} kg is what the lift allows."
    ),
    "home.wide-high": lambda f, mm: f"{f.subject}, {mm(f.measured)} wide, above the shoulder; {mm(f.limit)} is usual.",
    "home.out-of-reach": lambda f, mm: (
        f"{f.subject} begins at {mm(f.measured)}: {f.person} reaches {mm(f.limit)} without a stool."
    ),
    "home.no-socket": lambda f, mm: f"{f.subject} wants a socket; none was measured in {f.detail}.",
    "home.no-room": lambda f, mm: f"{f.subject}, {f.measured:.0f} litres, find no room in any space.",
    "carry.turn": lambda f, mm: (
        f"A carcase {mm(f.measured)} across its base does not turn in {mm(f.limit)} of passage."
    ),
    "carry.two-person": lambda f, mm: f"A carcase {mm(f.measured)} high is a two-person lift.",
    "safety.anchor": lambda f, mm: f"Carcases {mm(f.measured)} high can tip over when drawers are out.",
    "fixing.studs": lambda f, mm: f"The track crosses {f.measured:.0f} known studs and wants {f.limit:.0f}.",
}

_REMEDIES: dict[str, str] = {
    "survey.missing": "Take it in Measure; the design is proven only for what was read.",
    "survey.repeat": "Read it once more; the least still rules.",
    "survey.neighbour": "Read both again; a foot, 100 mm or two digits may have slipped.",
    "survey.sum": "Read the returns and the opening again.",
    "survey.triangle": "Read the diagonal and its two sides again.",
    "survey.outside": "Read its place and the wall's width again.",
    "survey.square": "Plan a scribe or a filler there, cut to the wall.",
    "survey.plinth": "Set the carcases on one levelled plinth in as few lengths as the stock allows, not on shims.",
    "survey.damp": "Closed plastic, off the floor; nothing of cardboard.",
    "clear.passage": "Plan shallower storage there, or leave that wall free.",
    "survey.level": "Lay the longest level that fits on the floor at both ends and every 600 mm before buying.",
    "clear.caution": DEFER,
    "fit.unplaced": "Give it a place by hand, ask for less reserve, or move it to another space.",
    "fit.capacity": "Move some of it elsewhere.",
    "fit.headroom": "Move it on its pitch, or send the tallest thing elsewhere.",
    "fit.closed": "Move it clear; what must stay reachable stays open.",
    "fit.overlap": "Move one of them.",
    "fit.back-cut": "Cut the back before the frame stands; nothing is stored on that side of the divider.",
    "pull-out.return": "Use a shelf there, or move the drawer to a bay behind the opening.",
    "strength.rating": "Take weight off, or spread it over two.",
    "strength.sag": "Use a narrower bay, or take weight off.",
    "strength.rail": "Use a narrower bay, or add a support.",
    "strength.rail-support": "Add a middle support where winter coats hang.",
    "reach.high": "Move it down, swap it with something rarely used, or give a step stool its own place.",
    "reach.low": "Move it up, or onto a pull-out.",
    "carry.tilt": "Build it standing, by two people, or choose the next lower height.",
    "carry.opening": "Carry it in as boards and build it inside.",
    "home.fuel": f"Outdoors, upright, ventilated, away from flames. {DEFER}",
    "home.child": "Lock it, or keep it above 1400 mm.",
    "home.damp": "Closed plastic, off the floor, or another space.",
    "home.heavy": "Give it a place between knee and elbow, or split it in two.",
    "home.wide-high": "Two narrow boxes beat a wide one over the head.",
    "home.out-of-reach": "Pin it lower, or move it to another space.",
    "home.no-socket": "Measure the sockets there, or pin it where one is.",
    "home.no-room": "Let some of it go, or measure another space for it.",
    "carry.turn": "Carry it in as boards and build it inside, or choose narrower carcases.",
    "carry.two-person": "Plan for two.",
    "safety.anchor": "Screw every carcase to the wall, into studs where there are any.",
    "fixing.studs": (
        "Find the studs and read them in, or use anchors by their maker's figure: a licensed builder decides."
    ),
}


def _part(finding: Finding) -> str:
    """A part's id as people read it: `b2-shelf-3` is shelf 3 in bay 2."""
    for where in finding.where:
        bits = where.split("-")
        if len(bits) >= 3 and bits[0].startswith("b") and bits[0][1:].isdigit():
            return f"The {bits[1]} {bits[2]} in bay {bits[0][1:]}"
        return f"The {where.replace('-', ' ')}"
    return "It"


def sentence(finding: Finding, units: Units) -> str:
    """What was found, in one sentence."""
    say = _SENTENCES.get(finding.code)
    return say(finding, lambda mm: with_unit(mm, units)) if say else f"{_part(finding)}: {finding.detail}."


def remedy(finding: Finding) -> str:
    """What mends it; every code has one."""
    return _REMEDIES.get(finding.code, "Undo the last edit, or move the part.")


class Slip(Frozen):
    """A *why* slip in words: the rule, each value put in with its unit, the basis and the source."""

    rule: str
    values: tuple[tuple[str, str], ...]
    basis: str
    source: str


BASES = {
    "P": "published", "C": "common practice", "D": "derived: the arithmetic is given",
    "I": "this project's own range",
}  # fmt: skip


def amount(value: float, unit: str, units: Units) -> str:
    """A number with its unit, lengths in the household's units."""
    if unit == "mm":
        return with_unit(value, units)
    if unit in ("mm of rail", "mm of shelf", "mm of floor"):
        return f"{with_unit(value, units)} {unit[3:]}"
    if unit == "litres" or unit == "l":
        return f"{value:.0f} litres"
    if unit == "hooks":
        return f"{value:.0f} hook{'s' if round(value) != 1 else ''}"
    if unit == "":
        return f"{value:.0%}"
    return f"{value:g} {unit}"


def slip(why: Why, units: Units) -> Slip:
    """A why in the household's units."""
    return Slip(
        rule=why.rule,
        values=tuple((name, amount(value, unit, units)) for name, value, unit in why.values),
        basis=BASES.get(why.basis, why.basis),
        source=why.source,
    )
