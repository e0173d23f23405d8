"""Whether everyone reaches what is theirs."""

from collections.abc import Iterator

from ..inventory import uses_a_month
from ..layout.packing.trouble import hand_height, zone_of
from .check import Case, of_design
from .findings import Finding


@of_design("reach.high", "reach.low")
def reach(case: Case) -> Iterator[Finding]:
    """Each owner against the height their things are taken from. Often used and out of reach: fix; else mind."""
    design, names = case.made, {p.id: p.name for p in case.people}
    for a in design.assignments:
        thing, part = case.by_id.get(a.thing), design.part(a.part)
        bay = design.bay_of(part)
        if thing is None or bay.drawer is not None:
            continue
        zone = zone_of(thing, case.people, part.role, bay, design.family_of(part))
        hand = hand_height(part.role, part.z, part.h, bay)
        if zone.low <= hand <= zone.high:
            continue
        often = uses_a_month(thing.frequency) >= uses_a_month("weekly")
        yield case.found(
            "reach.high" if hand > zone.high else "reach.low", severity="fix" if often else "mind", where=(part.id,),
            place=case.place(part), subject=thing.name, person=names.get(thing.owner, "every adult"), measured=hand,
            limit=zone.high if hand > zone.high else zone.low, basis=zone.basis, source=zone.source,
            detail=thing.frequency,
        )  # fmt: skip


CHECKS = (reach,)
