"""What can tip over, and how a frame is carried in and stood up."""

from collections import defaultdict
from collections.abc import Iterator
from math import hypot

from ..survey import Envelope
from ..survey.carry import passes, tilt_height
from ..survey.level import level_base
from ..systems import Part
from ..tables import entry, value
from .check import Case, of_design
from .findings import Finding


@of_design("safety.anchor")
def tipping(case: Case) -> Iterator[Finding]:
    """Units that stand by themselves, as their family says, and are tall or slender: one finding a family and wall."""
    design = case.made
    height, slender = case.rule("safety.anchor").entry, entry("strength.anchor_slender")
    tall: dict[tuple[str, str], list[Part]] = defaultdict(list)
    for part in design.parts:
        top = part.z + part.h
        if part.role in design.family_of(part).tips and (top > height.value or top > slender.value * part.d):
            tall[part.section, part.family].append(part)
    for (_, family), parts in tall.items():
        yield case.found("safety.anchor", where=tuple(p.id for p in parts), place=case.place(parts[0]),
                         subject=design.catalogue[family].name, measured=max(p.z + p.h for p in parts))  # fmt: skip


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


CHECKS = (tipping, carried_in)
