"""What shelves, rails and runners carry.

A shelf is a beam on what its family says holds it, under what really lies on it, where it lies; on cleats at three sides
it is a plate under the whole of it. Deflection is that of years, and counts where it shows.
"""

from collections.abc import Iterator
from itertools import pairwise

from ..mechanics.beam import Support
from ..mechanics.shelves import LIP_HIGH, Sag, long_term, rail_sag, shelf_bent
from ..systems import PULL_OUTS, Part
from ..systems.family.basis import CUT
from ..systems.roles import METAL, UPRIGHTS
from ..tables import value
from .check import Case, of_section
from .findings import Finding

SHORTEST = 150
"""No support nearer to the next is worth naming, mm."""


@of_section("strength.sag", "strength.stress", "strength.support")
def shelves(case: Case) -> Iterator[Finding]:
    """Boards that bend so much that it shows, that are strained more than they bear for years, or that lie on less than
    bears them.
    """
    for part in case.made.parts:
        if part.role not in CUT or part.bay is None:
            continue
        supports = supports_of(case, part)
        if supports:
            yield from _as_beam(case, part, supports)
            continue
        sag = case.made.family_of(part).sag(part, case.made.bay_of(part), case.mass(part))
        if sag is not None:
            sag = sag._replace(limit=part.w / _shows(case))
            if sag.sag > sag.limit:
                yield _sagging(case, part, sag, part.w)


def supports_of(case: Case, part: Part) -> tuple[Support, ...]:
    """What holds a board along its length: as its family says, or the uprights that a board across lies on."""
    design = case.made
    if not design.family_of(part).built:
        return ()  # the tops of frames are there anyhow
    if part.fixed_to != "uprights":
        return design.family_of(part).supports(part, design.bay_of(part))
    below = [p for p in design.parts if p.section == part.section and p.role in UPRIGHTS and p.z <= part.z <= p.z + p.h]
    middles = {min(max(p.x + p.w / 2 - part.x, 0.0), float(part.w)) for p in below
               if p.x < part.x + part.w and part.x < p.x + p.w}  # fmt: skip
    # Over gables the ends lie on cleats of the walls.
    ends = {0.0, float(part.w)} if any(p.role == "panel" for p in below) else set()
    return tuple(Support(x) for x in sorted(middles | ends)) if len(middles | ends) > 1 else ()


def _as_beam(case: Case, part: Part, supports: tuple[Support, ...]) -> Iterator[Finding]:
    design, family, bay = case.made, case.made.family_of(part), case.made.bay_of(part)
    make, loads, depth = family.make(part, bay), case.loads(part), min(part.d, bay.depth)
    bent = shelf_bent(make, part.w, depth, part.h, supports, loads)
    span = max(b.at - a.at for a, b in pairwise(supports))
    sag = Sag(long_term(abs(bent.sag), make.board.creep), span / _shows(case), _held(supports))
    if sag.sag > sag.limit:
        yield _sagging(case, part, sag, span)
    stress = make.stress(bent.moment, depth, part.h)
    if stress > make.board.bending:
        yield case.found("strength.stress", where=(part.id,), place=case.place(part), measured=stress,
                         limit=make.board.bending, detail=make.board.name.lower(),
                         facts=_would_do(case, part, span, stress / make.board.bending, 2))  # fmt: skip
    bears = design.family_of(part).bears(part, bay)
    most = max(bent.reactions) / value("strength.gravity")
    if most > bears:
        yield case.found("strength.support", where=(part.id,), place=case.place(part), measured=most, limit=bears)


def _shows(case: Case) -> int:
    """From which share of the span on a sag shows, to the household as it is now."""
    return case.goes_by.shelves.shows


def _held(supports: tuple[Support, ...]) -> str:
    return "resting at both ends" if len(supports) == 2 else f"resting on {len(supports)} supports"


def _sagging(case: Case, part: Part, sag: Sag, span: float) -> Finding:
    bay = case.made.bay_of(part)
    facts = _would_do(case, part, span, sag.shows, 3) if case.made.family_of(part).is_cut(part.role, bay) else ()
    return case.found("strength.sag", where=(part.id,), place=case.place(part), measured=sag.sag, limit=sag.limit,
                      detail=sag.how, facts=facts)  # fmt: skip


def _would_do(case: Case, part: Part, span: float, over: float, power: int) -> tuple[tuple[str, float], ...]:
    """What would bring it down by `over`, the cheapest first: the next thickness that does, a lipping, a support every so
    many mm. Sag over its limit goes with the cube of the span and of the thickness; stress with the square of the
    thickness, and about with that of the span.
    """
    family = case.made.family_of(part)
    make, per_m2 = family.make(part, case.made.bay_of(part)), family.table.rate(part.article).per_m2
    found: list[tuple[float, str, float]] = []
    thick = next((t for t in make.board.thicknesses if t > part.h and (t / part.h) ** power >= over), None)
    if thick is not None:
        more = make.model_copy(update={"thickness": thick})
        dearer = (more.price(thick) - make.price(part.h)) * per_m2 * part.w * part.d / 1e6
        found.append((dearer, "thick", thick))
    if not make.lipped:
        stiff = make.model_copy(update={"lipped": True})
        if stiff.stiffness(part.d, part.h) >= over * make.stiffness(part.d, part.h):
            found.append((value("board.lip_price") * part.w / 1000, "lip", LIP_HIGH))
    every = span / over ** (1 / power)
    if every >= SHORTEST:
        found.append((value("board.support_price"), "every", every))
    return tuple((name, amount) for _, name, amount in sorted(found))


@of_section("strength.rail", "strength.rail-support")
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


@of_section("strength.runner")
def runners(case: Case) -> Iterator[Finding]:
    """What comes out on runners, its own boards with it, against an ordinary pair of them."""
    limit = case.rule("strength.runner").entry.value
    for part in case.made.parts:
        if part.role not in PULL_OUTS or part.role in METAL:
            continue
        mass = case.mass(part) + case.made.family_of(part).mass(part)
        if mass > limit:
            yield case.found("strength.runner", where=(part.id,), place=case.place(part), measured=mass)


CHECKS = (shelves, rails, runners)
