"""All checks of a survey and of a design."""

from collections.abc import Iterator, Mapping
from itertools import pairwise
from math import hypot, sqrt

from ..house import Person
from ..inventory import Thing, uses_a_month
from ..layout import Design, verify
from ..layout.ledger import ask_of
from ..layout.trouble import REACHED_OVER, hand_height, zone_of
from ..survey import Envelope, Survey, doubts, missing
from ..survey.carry import passes
from ..survey.level import level_base
from ..survey.passages import passages
from ..systems import PULL_OUTS, Part, family_of
from ..systems.beams import rail_sag, shelf_sag
from ..systems.families.carcase import tilts_up
from ..tables import entry, load, value
from .findings import SEVERITIES, Finding, Severity, by

BOARDS = frozenset({"carcase", "track", "cleat"})
"""Families whose shelves are boards of 18 mm or so, and sag as boards do; others state what they carry."""
FAULT_CODES = {
    "unknown": "fit.unknown", "envelope": "fit.envelope", "closed": "fit.closed", "overlap": "fit.overlap",
    "support": "fit.support", "pull-out": "pull-out.return", "capacity": "fit.capacity", "load": "strength.rating",
    "size": "fit.size", "headroom": "fit.headroom", "count": "fit.count",
}  # fmt: skip


def check_survey(survey: Survey, envelope: Envelope) -> tuple[Finding, ...]:
    """Missing and doubted readings, and cautions about what stands in the space."""
    found: list[Finding] = []
    needed = [s for s in missing(survey) if s.needed]
    if needed:
        found.append(
            Finding(code="survey.missing", severity="fix", measured=len(needed), limit=0, unit="readings", basis="C",
                    source="handbook section 1", subject=needed[0].label, detail=needed[0].how)
        )  # fmt: skip
    found += [
        Finding(code=f"survey.{d.code}", severity="fix", where=d.readings, subject=d.subject, measured=d.one,
                limit=d.other, basis=d.why.basis, source=d.why.source)
        for d in doubts(survey)
    ]  # fmt: skip
    found += _shape(survey, envelope)
    found += _passages(survey)
    for obstacle in survey.obstacles:
        caution = load("obstacles")[obstacle.kind]["caution"]
        if caution:
            found.append(Finding(code="clear.caution", severity="mind", where=(obstacle.id,), subject=obstacle.name,
                                 measured=obstacle.keep_out or obstacle.access, basis="P", source=caution))  # fmt: skip
    return _worst_first(found)


def _shape(survey: Survey, envelope: Envelope) -> Iterator[Finding]:
    """Corners out of square and floors out of level by more than a base or a filler takes."""
    limit = entry("survey.square_limit")
    for side, angle, comes_in in (
        ("left", envelope.square.left, envelope.square.left_lean),
        ("right", envelope.square.right, envelope.square.right_lean),
    ):
        if angle is not None and abs(comes_in) > limit.value:
            yield Finding(code="survey.square", severity="mind", where=("diagonal",), subject=f"{side} corner",
                          measured=comes_in, limit=limit.value, detail=f"{angle:.1f}°", **by(limit))  # fmt: skip
    shim = entry("survey.shim_limit")
    for section in survey.runs:
        base = level_base(survey, section.id)
        if base and base.out_by > shim.value:
            yield Finding(code="survey.plinth", severity="mind", where=("floor",), subject=section.label,
                          measured=base.out_by, limit=shim.value, detail=f"{len(base.plinth)}", **by(shim))  # fmt: skip
    if survey.damp:
        yield Finding(code="survey.damp", severity="mind", subject="space", basis="C", source="handbook section 4")


def _passages(survey: Survey) -> Iterator[Finding]:
    """Room to walk between runs, and beside a parked car with its door open."""
    least, door = entry("passage.least"), entry("passage.car_door")
    for passage in passages(survey):
        rule = door if passage.before == "the car" else least
        if passage.width < rule.value:
            yield Finding(code="clear.passage", severity="fix", where=(passage.section,),
                          subject=survey.section(passage.section).label, measured=max(passage.width, 0),
                          limit=rule.value, detail=passage.before, **by(rule))  # fmt: skip


def check_design(design: Design, survey: Survey, envelopes: Mapping[str, Envelope], things: tuple[Thing, ...],
                 people: tuple[Person, ...]) -> tuple[Finding, ...]:  # fmt: skip
    """Every check of a design, and those of its survey, worst first. `envelopes` by section."""
    by_id = {t.id: t for t in things}
    envelope = envelopes.get(survey.main.id) or next(iter(envelopes.values()))
    found = [*check_survey(survey, envelope)]
    found += _verified(design, envelopes, things, survey)
    found += _unplaced(design, by_id)
    found += _reach(design, by_id, people)
    found += _shelves(design, by_id)
    found += _rails(design, by_id)
    for section in design.sections:
        if section in envelopes:
            found += _tall_units(design.in_section(section), survey, envelopes[section])
            found += _back_cuts(design.in_section(section), survey, envelopes[section])
    found += _wall(design, survey)
    found += _doors(design)
    return _worst_first(found)


def _worst_first(found: list[Finding]) -> tuple[Finding, ...]:
    return tuple(sorted(found, key=lambda f: SEVERITIES.index(f.severity)))


def _verified(design: Design, envelopes: Mapping[str, Envelope], things: tuple[Thing, ...], survey: Survey,
              ) -> Iterator[Finding]:  # fmt: skip
    for fault in verify(design, envelopes, things, survey):
        unit = {"load": "kg", "count": "pieces"}.get(fault.code, "mm")
        source = entry("fit.pull_clear").source if fault.code == "pull-out" else "the design's own geometry"
        yield Finding(code=FAULT_CODES[fault.code], severity="stop", where=(fault.where,), measured=fault.measured,
                      limit=fault.limit, unit=unit, source=source, detail=fault.detail)  # fmt: skip


def _unplaced(design: Design, things: dict[str, Thing]) -> Iterator[Finding]:
    for left in design.unplaced:
        name = things[left.thing].name if left.thing in things else left.thing
        yield Finding(code="fit.unplaced", severity="stop", where=(left.thing,), subject=name, measured=left.count,
                      unit="pieces", source="every thing that stays has a place")  # fmt: skip


def hand_height_of(design: Design, part: Part) -> float:
    """Height at which a hand takes something out of a part: the rail, the shelf's top, the drawer's edge."""
    return hand_height(part.role, part.z, part.h, design.bay_of(part))


def _reach(design: Design, things: dict[str, Thing], people: tuple[Person, ...]) -> Iterator[Finding]:
    """Each owner against the height their things are taken from. Often used and out of reach: fix; else mind."""
    names = {p.id: p.name for p in people}
    for a in design.assignments:
        thing, part = things.get(a.thing), design.part(a.part)
        bay = design.bay_of(part)
        if thing is None or bay.axis != "z":
            continue
        depth = family_of(part).clear_depth(part.role, bay) if part.role in REACHED_OVER else 0
        zone = zone_of(thing, people, depth)
        hand = hand_height_of(design, part)
        if zone.low <= hand <= zone.high:
            continue
        limit = zone.high if hand > zone.high else zone.low
        often = uses_a_month(thing.frequency) >= uses_a_month("weekly")
        yield Finding(
            code="reach.high" if hand > zone.high else "reach.low", severity="fix" if often else "mind",
            where=(part.id,), subject=thing.name, person=names.get(thing.owner, "every adult"), measured=hand,
            limit=limit, basis=zone.basis, source=zone.source, detail=thing.frequency,
        )  # fmt: skip


def _mass(design: Design, part: Part, things: dict[str, Thing]) -> float:
    return sum(ask_of(design, part, a, things).mass for a in design.held_by(part.id) if a.thing in things)


def _shelves(design: Design, things: dict[str, Thing]) -> Iterator[Finding]:
    limit_rule = entry("strength.sag")
    for part in design.parts:
        if part.role != "shelf" or family_of(part).kind not in BOARDS:
            continue
        sag = shelf_sag(part.w, part.d, part.h, _mass(design, part, things))
        limit = part.w / limit_rule.value
        if sag > limit:
            yield Finding(code="strength.sag", severity="fix", where=(part.id,), measured=sag, limit=limit,
                          subject="shelf", **by(limit_rule))  # fmt: skip


def _rails(design: Design, things: dict[str, Thing]) -> Iterator[Finding]:
    limit_rule, support = entry("strength.sag"), entry("rail.support_every")
    for part in design.parts:
        if part.role != "rail":
            continue
        sag = rail_sag(part.w, max(_mass(design, part, things), value("hang.load") * part.w / 1000))
        if sag > part.w / limit_rule.value:
            yield Finding(code="strength.rail", severity="fix", where=(part.id,), measured=sag,
                          limit=part.w / limit_rule.value, subject="rail", **by(limit_rule))  # fmt: skip
        if part.w > support.value:
            yield Finding(code="strength.rail-support", severity="mind", where=(part.id,), measured=part.w,
                          limit=support.value, subject="rail", **by(support))  # fmt: skip


def _tall_units(design: Design, survey: Survey, envelope: Envelope) -> Iterator[Finding]:
    frames = [p for p in design.parts if p.role == "frame"]
    if not frames:
        return
    ceiling, room = envelope.height, entry("fit.diagonal_room")
    tallest = max(frames, key=lambda p: hypot(p.h, p.d))
    diagonal = sqrt(tallest.h**2 + tallest.d**2)
    if not tilts_up(tallest.h, tallest.d, ceiling):
        yield Finding(
            code="carry.tilt", severity="mind", where=tuple(f.id for f in frames), subject="carcase",
            measured=diagonal + room.value, limit=ceiling, source="√(h² + d²) of the frame lying down", basis="D",
        )  # fmt: skip
    head = envelope.opening_height
    if head < tallest.h and head < tallest.d:
        yield Finding(code="carry.opening", severity="fix", where=(tallest.id,), measured=tallest.d, limit=head,
                      source="a frame passes the opening on its side")  # fmt: skip
    yield from _turns_in(frames, survey, envelope)
    height, slender = entry("strength.anchor_height"), entry("strength.anchor_slender")
    tall = [f for f in frames if f.z + f.h > height.value or f.z + f.h > slender.value * f.d]
    if tall:
        yield Finding(
            code="safety.anchor", severity="mind", where=tuple(f.id for f in tall), subject="carcase",
            measured=max(f.z + f.h for f in tall), limit=height.value, **by(height),
        )  # fmt: skip
    two = entry("strength.two_person_height")
    if tallest.h > two.value:
        yield Finding(code="carry.two-person", severity="note", where=(tallest.id,), subject="carcase",
                      measured=tallest.h, limit=two.value, **by(two))  # fmt: skip
    if level_base(survey, envelope.section) is None:
        yield Finding(code="survey.level", severity="mind", subject="floor", basis="C", unit="readings",
                      source="handbook section 1: both ends and every 600 mm", measured=0, limit=2)  # fmt: skip


def _back_cuts(design: Design, survey: Survey, envelope: Envelope) -> Iterator[Finding]:
    """Frames that stand round a hatch, a valve or a meter: what is cut out of which back."""
    names = {o.id: o.name for o in survey.obstacles}
    kept = {c.obstacle: c for c in envelope.closed if c.enclosed}
    for frame in (p for p in design.parts if p.role == "frame"):
        for c in kept.values():
            if c.meets(frame.x, frame.x + frame.w, frame.y, frame.y + frame.d, frame.z, frame.z + frame.h):
                yield Finding(
                    code="fit.back-cut",
                    severity="note",
                    where=(frame.id,),
                    subject=names[c.obstacle],
                    measured=c.x1 - c.x0,
                    limit=c.z1 - c.z0,
                    source="what must stay reachable",
                )


def _turns_in(frames: list[Part], survey: Survey, envelope: Envelope) -> Iterator[Finding]:
    """Frames against the narrowest passage on the way in, where it was read."""
    passage = survey.least("passage")
    widest = max(frames, key=lambda p: hypot(p.w, p.d))
    if passage is not None and not passes(widest.w, widest.d, envelope.opening_width, passage):
        yield Finding(code="carry.turn", severity="fix", where=(widest.id,), measured=hypot(widest.w, widest.d),
                      limit=passage, source="√(w² + d²) of the frame's base, carried upright")  # fmt: skip


def _wall(design: Design, survey: Survey) -> Iterator[Finding]:
    """A track hangs from the studs: how many it crosses, and whether any were found."""
    every = entry("strength.stud_every")
    for track in (p for p in design.parts if p.role == "track"):
        studs = survey.only(track.section).studs if track.section else survey.studs
        crossed = [s for s in studs if track.x <= s <= track.x + track.w]
        wanted = max(2, int(track.w // every.value))
        if len(crossed) < wanted and survey.lining != "masonry":
            severity: Severity = "fix" if design.rules.fixing == "studs-first" else "mind"
            yield Finding(code="fixing.studs", severity=severity, where=(track.id,), subject="track",
                          measured=len(crossed), limit=wanted, unit="studs", **by(every))  # fmt: skip


def _doors(design: Design) -> Iterator[Finding]:
    """Behind sliding doors half stands open at a time: nothing that slides out may straddle the meeting line."""
    leaves = [p for p in design.parts if p.role == "door" and p.bay is None]
    for one, other in pairwise(leaves):
        if one.section != other.section:
            continue
        line = (one.x + one.w + other.x) / 2
        for part in design.parts:
            if part.role in PULL_OUTS and part.section == one.section and part.x < line < part.x + part.w:
                yield Finding(code="doors.straddle", severity="fix", where=(part.id,), measured=line, basis="C",
                              limit=part.x, source="sliding doors hide half at a time")  # fmt: skip
