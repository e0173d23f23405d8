"""What shelves and rails carry."""

from collections.abc import Iterator

from ..systems.shelves import rail_sag
from ..tables import value
from .check import Case, of_design
from .findings import Finding


@of_design("strength.sag")
def shelves(case: Case) -> Iterator[Finding]:
    """Boards that bend so much that it shows, as their family holds them."""
    design = case.made
    for part in design.parts:
        if part.role != "shelf":
            continue
        sag = design.family_of(part).sag(part, design.bay_of(part), case.mass(part))
        if sag is not None and sag.sag > sag.limit:
            yield case.found("strength.sag", where=(part.id,), place=case.place(part), measured=sag.sag, limit=sag.limit,
                             detail=sag.how)  # fmt: skip


@of_design("strength.rail", "strength.rail-support")
def rails(case: Case) -> Iterator[Finding]:
    """Rails that bend, and those longer than is usual between supports."""
    sags, support = case.rule("strength.rail").entry, case.rule("strength.rail-support").entry
    for part in (p for p in case.made.parts if p.role == "rail"):
        place = case.place(part)
        sag = rail_sag(part.w, max(case.mass(part), value("hang.load") * part.w / 1000))
        if sag > part.w / sags.value:
            yield case.found("strength.rail", where=(part.id,), place=place, measured=sag, limit=part.w / sags.value)
        if part.w > support.value:
            yield case.found("strength.rail-support", where=(part.id,), place=place, measured=part.w)


CHECKS = (shelves, rails)
