"""Whether a design fits its space and holds its things: what the verifier finds, and what has no place."""

from collections.abc import Iterator

from ..layout.verify.verifier import verify
from .check import Case, of_design
from .findings import Finding

CODES = {
    "unknown": "fit.unknown", "envelope": "fit.envelope", "closed": "fit.closed", "overlap": "fit.overlap",
    "support": "fit.support", "pull-out": "pull-out.return", "capacity": "fit.capacity", "load": "strength.rating",
    "size": "fit.size", "headroom": "fit.headroom", "count": "fit.count", "limit": "safety.limit",
}  # fmt: skip
"""The code of a finding by that of the verifier's fault."""


@of_design(*CODES.values())
def proven(case: Case) -> Iterator[Finding]:
    """Every fault of the verifier."""
    for fault in verify(case.made, case.envelopes, case.things, case.survey, case.limits):
        thing = case.by_id[fault.thing].name if fault.thing in case.by_id else fault.thing
        yield case.found(CODES[fault.code], where=(fault.where,) if fault.where else (), measured=fault.measured,
                         place=case.place(fault.where), other=case.place(fault.other), subject=thing or fault.where,
                         detail=thing, why=f"{fault.code}.{fault.why}",
                         limit=fault.limit)  # fmt: skip


@of_design("fit.unplaced")
def unplaced(case: Case) -> Iterator[Finding]:
    """Things without a place."""
    for left in case.made.unplaced:
        name = case.by_id[left.thing].name if left.thing in case.by_id else left.thing
        yield case.found("fit.unplaced", where=(left.thing,), subject=name, measured=left.count)


@of_design("fit.back-cut")
def back_cuts(case: Case) -> Iterator[Finding]:
    """Frames that stand round a hatch, a valve or a meter: what is cut out of which back."""
    names = {o.id: o.name for o in case.survey.obstacles}
    for design, envelope in case.in_sections():
        kept = {c.obstacle: c for c in envelope.closed if c.enclosed}
        for frame in (p for p in design.parts if p.role == "frame"):
            for c in kept.values():
                if c.meets(frame.x, frame.x + frame.w, frame.y, frame.y + frame.d, frame.z, frame.z + frame.h):
                    yield case.found("fit.back-cut", where=(frame.id,), place=case.place(frame),
                                     subject=names[c.obstacle], measured=c.x1 - c.x0, limit=c.z1 - c.z0)  # fmt: skip


CHECKS = (proven, unplaced, back_cuts)
