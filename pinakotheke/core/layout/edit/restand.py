"""Rows stood anew by hand: wider bays, other heights and depths, mirrored, in another family, with other doors.

A row is what its family makes of it, so a change of a row makes its bays and structure anew, and sets what was inside
into the bay that took the old one's place, at the same heights. What no longer goes in loses its place; what sticks out
or collides is shown by the verifier.
"""

from collections.abc import Mapping

from ...errors import EditRefused
from ...survey import Envelope
from ...systems import FAMILIES, INSIDE, Bay, Family, Finish, Part, Range, Row, Shape
from ...systems.rows import bays_of
from ..models import Design, Standing, Unplaced
from ..packing.fits import position
from ..placement.candidates import meet
from ..placement.fills import shapes_worth, ways_to_fill


def _standing(design: Design, bay: Bay) -> Standing:
    for standing in design.rows:
        if standing.first <= bay.index < standing.end:
            return standing
    raise EditRefused("edit.not-anew")


def _region(design: Design, section: str) -> Envelope:
    for region in design.regions:
        if region.section == section:
            return region
    raise EditRefused("edit.no-measures")


def _refuse_storeys(standing: Standing) -> None:
    if standing.row.shape.is_storey:
        raise EditRefused("edit.cut-to-slope")


def widened(design: Design, bay: Bay, steps: int) -> Design:
    """With the next wider or narrower module for one bay."""
    standing = _standing(design, bay)
    family, row = design.catalogue[standing.family], standing.row
    at = bay.index - standing.first
    sizes = sorted({*family.modules_at(row.shape), *family.corners})
    if family.fillings(2000) is not None:
        raise EditRefused("edit.cut-to-wall")
    now = sizes.index(row.widths[at]) if row.widths[at] in sizes else 0
    if not 0 <= now + steps < len(sizes):
        raise EditRefused("edit.no-width", sizes=sizes)
    widths = (*row.widths[:at], sizes[now + steps], *row.widths[at + 1 :])
    return _placed_row(design, standing, Row(shape=row.shape, x=row.x, widths=widths))


def reshaped(design: Design, bay: Bay, taller: int, deeper: int) -> Design:
    """With the next taller or lower height, or the next greater or lesser depth, for a row."""
    standing = _standing(design, bay)
    _refuse_storeys(standing)
    family, shape = design.catalogue[standing.family], standing.row.shape
    shapes = family.shapes(_region(design, standing.section), design.finish)
    members = sorted({s.member for s in shapes})
    depths = sorted({s.depth for s in shapes if s.member == shape.member or taller})
    member = _next(members, shape.member, taller, "height")
    depth = _next(depths, shape.depth, deeper, "depth")
    modules = {*standing.row.widths} - set(family.corners)
    wanted = next((s for s in shapes if s.member == member and s.depth == depth
                   and (family.fillings(2000) is not None or modules <= {*family.modules_at(s)})), None)  # fmt: skip
    if wanted is None:
        raise EditRefused("edit.no-height-and-depth")
    return _placed_row(design, standing, Row(shape=wanted, x=standing.row.x, widths=standing.row.widths))


def _next(sizes: list[int], now: int, steps: int, what: str) -> int:
    at = sizes.index(now) + steps if now in sizes else 0
    if not 0 <= at < len(sizes):
        raise EditRefused("edit.no-size", what=what, sizes=sizes)
    return sizes[at]


def _placed_row(design: Design, standing: Standing, row: Row) -> Design:
    """The row where it was, or moved left as far as its new size asks; refused where it does not stand."""
    family, region = design.catalogue[standing.family], _region(design, standing.section)
    others = [s for s in design.rows if s is not standing and s.section == standing.section]
    over = max(0, row.end - standing.row.end)
    for x in (row.x, row.x - over, row.x - over // 2):
        moved = row.model_copy(update={"x": x})
        if family.allows(region, moved) and not any(
            meet(family, moved, design.catalogue[o.family], o.row) for o in others
        ):
            new = standing.model_copy(update={"row": moved})
            return restood(design, {standing: new}, {b: b for b in range(len(design.bays))})
    raise EditRefused("edit.row-does-not-stand")


def mirrored(design: Design, bay: Bay) -> Design:
    """With a row turned about the middle of what it may stand in."""
    standing = _standing(design, bay)
    _refuse_storeys(standing)
    family, region, row = design.catalogue[standing.family], _region(design, standing.section), standing.row
    start, end = region.span(0, row.shape.height)
    widths = row.widths[::-1]
    places = dict.fromkeys((start + end - row.end - family.ends, row.x))
    for x in places:
        turned = Row(shape=row.shape, x=x, widths=widths)
        if family.allows(region, turned):
            moves = {b: b for b in range(len(design.bays))}
            for n in range(standing.first, standing.end):
                moves[n] = standing.first + standing.end - 1 - n
            return restood(design, {standing: standing.model_copy(update={"row": turned})}, moves)
    raise EditRefused("edit.mirror-meets-obstacle")


def swapped_family(design: Design, bay: Bay, family_id: str, own: Range | None) -> Design:
    """With a row stood anew in another family (or a range of the household's `own`), empty: the height nearest to the
    old one that stands there, and as much of its length as modules fill.
    """
    if own is not None and own.family_id == family_id and own not in design.ranges:
        design = design.model_copy(update={"ranges": (*design.ranges, own)})
    if family_id not in design.catalogue:
        raise EditRefused("edit.no-family", family=family_id, families=FAMILIES)
    standing, family = _standing(design, bay), design.catalogue[family_id]
    region, old = _region(design, standing.section), standing.row
    end = old.end + design.catalogue[standing.family].ends
    shapes = sorted(shapes_worth(family, region, design.finish), key=lambda s: abs(s.height - old.shape.height))
    for shape in shapes:
        row = _filled(family, shape, region, old.x, end)
        if row is not None:
            count = len(row.widths)
            moves: dict[int, int | None] = {}
            for n in range(len(design.bays)):
                inside = standing.first <= n < standing.end
                moves[n] = None if inside else n if n < standing.first else n + count - (standing.end - standing.first)
            new = standing.model_copy(update={"family": family_id, "row": row})
            return restood(design, {standing: new}, moves)
    raise EditRefused("edit.family-does-not-stand", family=family.name)


def _filled(family: Family, shape: Shape, region: Envelope, start: int, end: int) -> Row | None:
    best = max(ways_to_fill(family, shape, region, start, end), key=lambda c: sum(c[1]), default=None)
    return Row(shape=shape, x=best[0], widths=best[1]) if best else None


def finished(design: Design, finish: Finish) -> Design:
    """With other doors, base, crown, lights or fascias on all its rows."""
    if finish.strip != design.finish.strip and any(design.family_of(b).laid_out_apart for b in design.bays):
        raise EditRefused("edit.other-strip")
    plain = design.model_copy(update={"finish": finish})
    for standing in design.rows:
        region = _region(design, standing.section)
        shapes = design.catalogue[standing.family].shapes(region, finish)
        row = standing.row
        if design.catalogue[standing.family].lies_on:
            continue
        if not row.shape.is_storey and not any(
            (s.height, s.depth) == (row.shape.height, row.shape.depth) for s in shapes
        ):
            raise EditRefused("edit.no-room-in-front")
    return restood(plain, {}, {b: b for b in range(len(design.bays))})


def restood(design: Design, changed: Mapping[Standing, Standing], moves: Mapping[int, int | None]) -> Design:
    """The design with some rows changed: bays and structure made anew, the insides set into the bays that `moves`
    names (None: taken out, and what lived there has no place).
    """
    bays: list[Bay] = []
    rows: list[Standing] = []
    structure: list[Part] = []
    back = {new: old for old, new in moves.items() if new is not None}
    for old in design.rows:
        new = changed.get(old, old)
        family, region = design.catalogue[new.family], _region(design, new.section)
        first = len(bays)
        beside = [
            (design.catalogue[s.family], s.row) for o in design.rows if (s := changed.get(o, o)).section == new.section
        ]
        for bay in bays_of(family, new.row, region, beside, design.finish):
            was = design.bays[back[len(bays)]] if len(bays) in back else None
            keep = {"blind": was.blind, "foot": was.foot, "locked": was.locked} if was else {}
            if was is not None and was.blind:
                keep["pulls"] = False
            bays.append(bay.model_copy(update={"index": len(bays), "section": new.section, **keep}))
        rows.append(new.model_copy(update={"first": first, "end": len(bays)}))
        made = family.structure(region, new.row, tuple(bays[first:]), design.finish)
        structure += [p.model_copy(update={"section": new.section}) for p in made]
    inside, lost = _insides(design, bays, moves)
    left = {u.thing: u.count for u in design.unplaced}
    for a in design.assignments:
        if a.part in lost:
            left[a.thing] = left.get(a.thing, 0) + a.count
    return design.model_copy(
        update={
            "bays": tuple(bays), "rows": tuple(rows), "parts": (*structure, *inside),
            "assignments": tuple(a for a in design.assignments if a.part not in lost),
            "unplaced": tuple(Unplaced(thing=t, count=c) for t, c in left.items()),
        }
    )  # fmt: skip


def _insides(design: Design, bays: list[Bay], moves: Mapping[int, int | None]) -> tuple[list[Part], set[str]]:
    """Parts inside the bays at their new places, and the ids of those that are gone."""
    inside: list[Part] = []
    lost: set[str] = set()
    for part in design.parts:
        if part.role not in INSIDE or part.bay is None:
            continue
        to = moves.get(part.bay)
        if to is None:
            lost.add(part.id)
            continue
        if part.role == "compartment":  # where it lies on its floor is its own
            inside.append(part.model_copy(update={"bay": to}))
            continue
        old, new = design.bays[part.bay], bays[to]
        family = design.catalogue[new.family]
        at = position(part, old) - old.z0 + new.z0
        height = part.h if family.spec_or_none(part.role) else 0
        placed = family.placed(new, part.id, part.role, at, height)
        if part.make is not None and part.make != old.shelves and family.is_cut(part.role, new):
            placed = placed.model_copy(update={"make": part.make, "h": part.h})
        if at + placed.h > new.z1 and part.role != "base":
            lost.add(part.id)
            continue
        placed = placed.model_copy(update={"locked": part.locked})
        inside += [placed, *family.brackets(placed, new)]
        inside += [
            p.model_copy(update={"x": p.x - part.x + placed.x, "y": p.y - part.y + placed.y,
                                 "z": p.z - part.z + placed.z, "bay": to})
            for p in design.parts if p.role == "container" and p.belongs_to == part.id
        ]  # fmt: skip
    return inside, lost
