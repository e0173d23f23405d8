"""What hangs from screws in a wall, and whether there are studs behind it."""

from collections import defaultdict
from collections.abc import Iterator

from ..systems import Part
from .check import Case, of_design
from .findings import Finding


@of_design("fixing.studs")
def studs(case: Case) -> Iterator[Finding]:
    """Tracks, hook boards and cleats along a wall: how many known studs each stretch of them crosses. What is narrower
    than the usual spacing can cross only one.
    """
    design, every = case.made, case.rule("fixing.studs").entry
    if case.survey.lining == "masonry":
        return
    stretches: dict[tuple[str, int, int, str], list[Part]] = defaultdict(list)
    for part in design.parts:
        # What goes out from the wall, as a cleat at a side does, is screwed to another wall.
        if part.role in design.family_of(part).screwed and part.fixed_to == "wall" and part.w > part.d:
            stretches[part.section, part.x, part.w, design.family_of(part).named(part)].append(part)
    for (section, x, width, name), parts in stretches.items():
        known = case.survey.only(section).studs if section else case.survey.studs
        crossed = sum(x <= stud <= x + width for stud in known)
        wanted = max(2, int(width // every.value)) if width >= every.value else 1
        if crossed < wanted:
            yield case.found("fixing.studs", severity="fix" if design.rules.fixing == "studs-first" else "mind",
                             where=tuple(p.id for p in parts), place=case.place(parts[0]),
                             subject=name[0].lower() + name[1:], measured=crossed, limit=wanted,
                             unknown=not known)  # fmt: skip


CHECKS = (studs,)
