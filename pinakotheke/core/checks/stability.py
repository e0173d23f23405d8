"""What can tip over, and how a frame is carried in and stood up."""

from collections import defaultdict
from collections.abc import Iterator
from math import hypot

from ..layout import Design
from ..mechanics.tipping import Weight, balance
from ..survey import Envelope
from ..survey.carry import passes, tilt_height
from ..survey.level import level_base
from ..systems import PULL_OUTS, Part
from ..systems.roles import ENCLOSING
from ..tables import entry, value
from .check import Case, of_design, of_section
from .findings import Finding


@of_section("safety.anchor")
def tipping(case: Case) -> Iterator[Finding]:
    """Units that stand by themselves, as their family says, and are tall or slender: one finding a family and wall."""
    design = case.made
    height, slender = case.rule("safety.anchor").entry, entry("strength.anchor_slender")
    tall: dict[tuple[str, str], list[Part]] = defaultdict(list)
    for part in design.parts:
        top = part.z + part.h
        # What rolls is pushed from any side.
        narrow = min(part.w, part.d) if part.role == "trolley" else part.d
        if part.role in design.family_of(part).tips and (top > height.value or top > slender.value * narrow):
            tall[part.section, part.family].append(part)
    for (_, family), parts in tall.items():
        yield case.found("safety.anchor", where=tuple(p.id for p in parts), place=case.place(parts[0]),
                         subject=design.catalogue[family].name, measured=max(p.z + p.h for p in parts))  # fmt: skip


@of_section("safety.tips", "safety.rolls")
def balanced(case: Case) -> Iterator[Finding]:
    """Frames and trolleys by the balance of moments about their front foot, with every drawer out: empty, loaded, and with
    the test load of the clothing-unit standard on what is out or on the front, for those as high as it asks for. What is
    told is the worst of them, and what an anchor at the top must hold back.
    """
    design = case.made
    for frame in design.parts:
        if frame.role not in ENCLOSING or frame.role not in design.family_of(frame).tips:
            continue
        front = _front_foot(design, frame)
        inside = _within(design, frame)
        out = [p for p in inside if p.role in PULL_OUTS]
        farthest = max((p.y + 2 * p.d for p in out), default=frame.y + frame.d) - front
        test = value("tip.test_mass") if frame.z + frame.h >= value("tip.test_height") else 0.0
        states = {
            state: balance([*_weights(case, frame, inside, front, loaded=loaded), Weight(load, farthest)])
            for state, loaded, load in (("empty", False, 0.0), ("loaded", True, 0.0), ("tested empty", False, test))
        }
        state, worst = max(states.items(), key=lambda row: row[1].tips - row[1].holds)
        if not worst.stands:
            top = frame.z + frame.h
            code = "safety.rolls" if frame.role == "trolley" else "safety.tips"
            yield case.found(code, where=(frame.id,), place=case.place(frame), measured=worst.pull_at(top),
                             limit=0, facts=(("state", STATES[state]), ("top", top)))  # fmt: skip


STATES = {
    "empty": "empty, with every drawer out", "loaded": "loaded, with every drawer out",
    "tested empty": "empty, with every drawer out and the test load on its front",
}  # fmt: skip


def _within(design: Design, frame: Part) -> list[Part]:
    """The parts that stand within a frame."""
    return [p for p in design.parts if p is not frame and p.section == frame.section and p.bay is not None
            and frame.x <= p.x and p.x + p.w <= frame.x + frame.w and frame.z <= p.z < frame.z + frame.h]  # fmt: skip


def _front_foot(design: Design, frame: Part) -> float:
    """Where the front foot of a frame is: the front of the plinth below it, or its own; under a trolley where the castor
    touches the floor, which may turn under it.
    """
    if frame.role == "trolley":
        return frame.y + frame.d - value("tip.castor_back")
    fronts = [p.y + p.d for p in design.parts
              if p.role in ("plinth", "legs") and p.section == frame.section and p.x < frame.x + frame.w
              and frame.x < p.x + p.w]  # fmt: skip
    return float(min([frame.y + frame.d, *fronts]))


def _weights(case: Case, frame: Part, inside: list[Part], front: float, *, loaded: bool) -> Iterator[Weight]:
    """A frame and what is in it, each at its centre before (+) or behind (−) the front foot; what slides out is out."""
    family = case.made.family_of(frame)
    yield Weight(family.mass(frame), frame.y + frame.d / 2 - front)
    for part in inside:
        mass = family.mass(part) + (case.mass(part) if loaded else 0.0)
        out = part.d if part.role in PULL_OUTS else 0
        if mass:
            yield Weight(mass, part.y + part.d / 2 + out - front)


@of_design("carry.tilt", "carry.opening", "carry.turn", "carry.two-person", "survey.level")
def carried_in(case: Case) -> Iterator[Finding]:
    """Frames that are built lying down: through the opening, round the passage, up under the ceiling, on what floor."""
    for design, envelope in case.in_sections():
        frames = [p for p in design.parts if p.role in design.family_of(p).tilts]
        if frames:
            yield from _stood_up(case, frames, envelope)
            yield from _turned_in(case, frames, envelope)
            if level_base(case.survey, envelope.section) is None:
                yield case.found("survey.level", subject="floor", measured=0, limit=2, unknown=True)


def _stood_up(case: Case, frames: list[Part], envelope: Envelope) -> Iterator[Finding]:
    tallest = max(frames, key=lambda p: hypot(p.h, p.d))
    asked = tilt_height(tallest.h, tallest.d) + value("fit.diagonal_room")
    if asked > envelope.height:
        yield case.found("carry.tilt", where=tuple(f.id for f in frames), measured=asked, limit=envelope.height)
    head = envelope.opening_height
    if head < tallest.h and head < tallest.d:
        yield case.found("carry.opening", where=(tallest.id,), measured=tallest.d, limit=head)
    if tallest.h > case.rule("carry.two-person").entry.value:
        yield case.found("carry.two-person", where=(tallest.id,), measured=tallest.h)


def _turned_in(case: Case, frames: list[Part], envelope: Envelope) -> Iterator[Finding]:
    """Frames against the narrowest passage on the way in, where it was read."""
    passage = case.survey.least("passage")
    widest = max(frames, key=lambda p: hypot(p.w, p.d))
    if passage is not None and not passes(widest.w, widest.d, envelope.opening_width, passage):
        yield case.found("carry.turn", where=(widest.id,), measured=hypot(widest.w, widest.d), limit=passage)


CHECKS = (tipping, balanced, carried_in)
