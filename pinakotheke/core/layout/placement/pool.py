"""The candidates of a whole space: fills of its sections put together, those that differ most first."""

from collections.abc import Callable, Iterable, Iterator, Mapping, Sequence
from collections.abc import Set as AbstractSet
from dataclasses import replace
from itertools import islice, product

from ...house import HouseRules
from ...inventory.needs import ways
from ...survey import Envelope, Survey
from ...survey.corners import Corner, blind_zones, corners
from ...survey.models import Section
from ...survey.stacks import members
from ...systems import FAMILIES, Family, Finish, Range, family_of_range
from ...systems.families.tops import BELOW_ENDS, Tops
from ...tables import load
from ..packing.task import Task
from .candidates import Candidate, Fill, stand
from .companions import Places, with_companions
from .fills import clear_of, fills_of

RANKED = 4
"""Fills of a section that are tried with those of the other sections."""
MOST_CANDIDATES = 240
CLEAR_OF_CORNERS = 48
"""Fills that keep clear of the corners."""


def allowed(rules: HouseRules, ranges: Iterable[Range] = ()) -> tuple[str, ...]:
    """Families of parts a household may have: on a floor kept clear only what hangs or rolls, on a wall that may not
    be drilled only what stands. A range of its own stands in the place of the family that ships.
    """
    own = [family_of_range(r) for r in ranges]
    remade = {family.kind for family in own}
    families = {**{f: family for f, family in FAMILIES.items() if f not in remade}, **{o.id: o for o in own}}
    return tuple(
        f for f, family in families.items()
        if not family.laid_out_apart
        and not (rules.floor == "clear" and family.stands) and not (rules.drill == "nothing" and family.drills)
    )  # fmt: skip


def offered(rules: HouseRules, ranges: Iterable[Range] = ()) -> tuple[str, ...]:
    """All that a household may ask for: families of parts, and those that fit out drawers."""
    own = [family_of_range(r) for r in ranges]
    apart = {family.kind: family for family in (*FAMILIES.values(), *own) if family.laid_out_apart}
    return (*allowed(rules, ranges), *(family.id for family in apart.values()))


def families_of(task: Task) -> tuple[str, ...]:
    """Families that a search may build of: those that were asked for, or all that the house rules allow."""
    return task.families if task.families is not None else allowed(task.rules, task.ranges)


def candidates(task: Task) -> list[Candidate]:
    """Every candidate worth a look, at most `MOST_CANDIDATES`; the task's watch may break it off."""
    survey, envelopes, finish = task.survey, task.envelopes, task.finish
    meet, feet = corners(survey), survey.feet
    blind = blind_zones(meet)
    allowed_families = [task.catalogue[f] for f in families_of(task)]
    by_section: _BySection = []
    whole: dict[tuple[str, str], list[Fill]] = {}
    """Fills of walls that have a corner, with nothing of it hidden: by section and family."""
    clothes = any(t.row.group == "clothing" for t in task.things if t.stays)
    wanted = {way for t in task.things if t.stays for way in ways(t, task.rules)}
    for section in survey.parts:
        envelope = envelopes.get(section.id)
        if envelope is None:
            continue
        fills: dict[str, list[Fill]] = {}
        companions = [Places.of(f, section, envelope, finish) for f in allowed_families if f.companion]
        for family in allowed_families:
            task.watch.check()
            if section.kind == "run" and task.families is None and not suits(family, survey.kind, clothes):
                continue
            made = fills_of(family, section, envelope, finish, blind.get(section.id, []))
            if section.id in blind:
                free = fills_of(family, section, envelope, finish, [])
                top = max((r.shape.height for f in free for _, r in f.rows), default=0)
                whole[section.id, family.id] = [f for f in free if f.rows[0][1].shape.height == top]
            if made:
                fills[family.id] = made
                fills[family.id] += _mixed(family, made, companions, section, blind.get(section.id, []), wanted)
        if fills:
            by_section.append((section, fills))
    chosen = [fills for sections in _without_twice(by_section, survey) for fills in _combined(sections)]
    clear = _clear_of_corners(
        by_section, whole, meet, envelopes,
        lambda f: task.families is not None or suits(task.catalogue[f], survey.kind, clothes),
        {f.id for f in allowed_families if f.companion},
    )  # fmt: skip
    chosen += islice(clear, CLEAR_OF_CORNERS)
    stood = (stand(topped, envelopes, meet, feet, finish)
            for fills in chosen for topped in _topped(fills, allowed_families, envelopes, finish))  # fmt: skip
    suited = (c for c in stood if task.families is not None or suits(task.catalogue[c.main], survey.kind, clothes))
    return list(islice(suited, MOST_CANDIDATES))


def suits(family: Family, kind: str, clothes: bool) -> bool:
    """Whether a family makes the main system of a kind of space where clothes are kept or not, by common practice."""
    row = load("suits").get(family.kind, {})
    return kind in row.get("spaces", (kind,)) and not (clothes and kind in row.get("no_clothes", ()))


def settled(task: Task, fills: tuple[Fill, ...]) -> list[Candidate]:
    """The candidates that these fills make, with what lies over them."""
    meet, feet = corners(task.survey), task.survey.feet
    allowed_families = [task.catalogue[f] for f in families_of(task)]
    return [stand(topped, task.envelopes, meet, feet, task.finish)
            for topped in _topped(fills, allowed_families, task.envelopes, task.finish)]  # fmt: skip


def _topped(fills: tuple[Fill, ...], families: Sequence[Family], envelopes: Mapping[str, Envelope], finish: Finish,
            ) -> Iterator[tuple[Fill, ...]]:  # fmt: skip
    """The fills with what lies over their modules: the tops of carcases, which are there anyhow, and a board across over
    standards or posts, which is also left away.
    """
    lying = [f for f in families if isinstance(f, Tops)]
    plain = tuple(_with_tops(fill, [f for f in lying if not f.built], envelopes, finish) for fill in fills)
    all_over = tuple(_with_tops(fill, lying, envelopes, finish) for fill in fills)
    yield all_over
    if plain != all_over:
        yield plain


def _with_tops(fill: Fill, lying: Sequence[Tops], envelopes: Mapping[str, Envelope], finish: Finish) -> Fill:
    tops = []
    for below, row in fill.rows:
        higher = any(r is not row and r.shape.height > row.shape.height - BELOW_ENDS and r.x < row.end + below.ends
                     and row.x < r.end + f.ends for f, r in fill.rows)  # fmt: skip
        for family in () if higher else lying:
            over = family.over(envelopes[fill.section], below, row, finish)
            if over is not None:
                tops.append((family, over))
    return replace(fill, rows=(*fill.rows, *tops)) if tops else fill


_BySection = list[tuple[Section, dict[str, list[Fill]]]]


def _without_twice(by_section: _BySection, survey: Survey) -> list[_BySection]:
    """Sections that can be fitted at once: the levels as they are, with every stack in their place, or with one."""
    held = {s.id: members(survey, s.id) for s, _ in by_section if s.kind == "stack"}
    found = []
    for moved in dict.fromkeys(((), tuple(held), *((one,) for one in held))):
        gone = {level for stack in moved for level in held[stack]} | (set(held) - set(moved))
        found.append([row for row in by_section if row[0].id not in gone])
    return [rows for rows in found if rows]


def _mixed(family: Family, made: list[Fill], others: list[Places], section: Section,
           blind: list[tuple[float, float]], wanted: AbstractSet[str]) -> list[Fill]:  # fmt: skip
    """Some fills with companions in what they leave free, where the family lacks what the things want."""
    has = {way for spec in family.specs.values() for way in spec.ways}
    lacks = (wanted - has) | (wanted & {"hook", "floor", "overhead"})
    useful = [
        places for places in sorted(others, key=lambda there: there.family.companion)
        if section.slope != "none" or lacks & {w for s in places.family.specs.values() for w in s.ways}
    ]  # fmt: skip
    if not useful or not section.traits.roomy:
        return []
    found = []
    for fill in made[: 3 * RANKED]:
        for wide in (False, True):
            both = with_companions(fill, useful, blind, wide)
            if both:
                found.append(both)
    return list(dict.fromkeys(found))


def _area(fill: Fill) -> float:
    return sum(sum(r.widths) * r.shape.height for _, r in fill.rows)


def _combined(by_section: _BySection) -> list[tuple[Fill, ...]]:
    """Fills of one section alone, or of several together: the same family all round, its heights alike; two families;
    one wall alone where that may be enough.
    """
    if not by_section:
        return []
    if len(by_section) == 1:
        return [(fill,) for fills in zip_longest_flat(by_section[0][1].values()) for fill in fills]
    found: list[tuple[Fill, ...]] = []
    mains = list(dict.fromkeys(f for _, fills in by_section for f in fills))
    ranked = [(section, {f: sorted(fills[f], key=lambda x: -_area(x)) for f in fills}) for section, fills in by_section]
    for main in mains:
        for rank in range(RANKED):
            for other in (main, *(m for m in mains if m != main)):
                if rank > 1 and other != main:
                    break
                chosen = []
                for n, (_, fills) in enumerate(ranked):
                    options = fills.get(main if n % 2 == 0 or other == main else other) or fills.get(main)
                    options = options or next(iter(fills.values()))
                    chosen.append(options[min(rank, len(options) - 1)])
                found.append(tuple(chosen))
    if all(section.at_wall for section, _ in ranked):
        for _, fills in ranked:
            found += [(fill,) for options in fills.values() for fill in options[:2]]
        for skipped in range(len(ranked)):
            for main in mains:
                rest = [fills.get(main) for n, (_, fills) in enumerate(ranked) if n != skipped]
                if len(rest) > 1 and all(rest):
                    found.append(tuple(options[0] for options in rest if options))
    return list(dict.fromkeys(found))


def _clear_of_corners(by_section: _BySection, whole: Mapping[tuple[str, str], list[Fill]], meet: Sequence[Corner],
                      envelopes: Mapping[str, Envelope], suited: Callable[[str], bool], beside: AbstractSet[str],
                      ) -> Iterator[tuple[Fill, ...]]:  # fmt: skip
    """Fills in which the walls that have the corners use them whole, and their neighbours keep clear of them: in the same
    family, or in one that goes well beside others.
    """
    if not whole or len(by_section) < 2:
        return
    mains = list(dict.fromkeys(f for (_, f), fills in whole.items() if fills and suited(f) and f not in beside))
    others = [f for f in dict.fromkeys(f for _, fills in by_section for f in fills) if f in beside]
    near = {section.id: [c.near for c in meet if c.neighbour == section.id] for section, _ in by_section}
    for rank, (main, other) in product(range(3 * RANKED), ((m, o) for m in mains for o in (m, *others))):
        chosen: list[Fill | None] = []
        for section, fills in by_section:
            options = whole.get((section.id, main), ())
            if options:
                fill = options[min(rank, len(options) - 1)]
            else:
                fill = (fills.get(other) or fills.get(main) or next(iter(fills.values())))[0]
            chosen.append(clear_of(fill, near[section.id], envelopes[section.id]) if near[section.id] else fill)
        kept = tuple(f for f in chosen if f is not None)
        if len(kept) > 1:
            yield kept


def zip_longest_flat(lists: Iterable[list[Fill]]) -> list[list[Fill]]:
    """First of each list, then second of each, and so on."""
    rows = list(lists)
    return [[row[n] for row in rows if n < len(row)] for n in range(max((len(r) for r in rows), default=0))]
