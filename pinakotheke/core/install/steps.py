"""The order of work of a design: steps with what comes before each, made from its parts by what their families say.

A step covers parts of one turn that are put up together, in the order in which they are listed. Before it comes what
carries its parts, the turns before it at the same modules, and whatever hangs higher where one would have to lean over
what it leaves standing out.
"""

from collections import defaultdict
from collections.abc import Iterable, Iterator
from itertools import pairwise
from typing import Literal, NamedTuple, get_args

from ..base import Frozen
from ..checks import Case
from ..layout.models import Standing
from ..survey.carry import passes, tilt_height
from ..systems import Part
from ..systems.family.models import Turn
from ..systems.roles import ENCLOSING
from ..tables import load, value
from .choice import InstallChoice
from .levels import work

TURNS: tuple[Turn, ...] = get_args(Turn)
WholeTurn = Literal["empty", "remove", "patch", "paint", "line", "trial", "level", "tug", "strap"]
NARROW = 150
"""What is narrower stands in nobody's way, mm."""
WhyTwo = Literal["", "mass", "height", "length"]
Carried = Literal["", "whole", "boards", "unread"]
"""`unread`: it passes the opening, and nobody read the passage before it."""


class Step(Frozen):
    """One step. `parts` in the order in which they are put up; `after` are the steps that come before it; `wait` how many
    minutes what follows must wait once it is done; `mass` its heaviest piece, kg. `built`: how frames are put together;
    `carried`: whether one passes the way in put together, or only as boards.
    """

    id: str
    turn: Turn | WholeTurn
    section: str = ""
    bay: int | None = None
    parts: tuple[str, ...] = ()
    minutes: float
    hands: int = 1
    why_two: WhyTwo = ""
    wait: float = 0
    after: tuple[str, ...] = ()
    tools: tuple[str, ...] = ()
    mass: float = 0
    built: Literal["", "lying", "standing"] = ""
    carried: Carried = ""


class _Group(NamedTuple):
    """Parts that one step puts up."""

    id: str
    turn: Turn
    section: str
    row: str
    bay: int | None
    parts: list[Part]


def order_of_work(case: Case, choice: InstallChoice) -> tuple[Step, ...]:
    """Every step of a design, in an order in which they can be done."""
    groups = _groups(case)
    after: dict[str, set[str]] = {g.id: set() for g in groups}
    _by_support(case, groups, after)
    _by_turn(groups, after)
    _by_reach(case, groups, after)
    built = [_step(case, g, choice) for g in groups]
    whole = list(_whole(case, choice, groups, after))
    return _in_order([s.model_copy(update={"after": tuple(sorted(after[s.id]))}) for s in (*built, *whole)])


def is_put_up(case: Case, part: Part) -> bool:
    """Whether a part is put up at all: what is there already and the free floor are not; boxes are filled at the end."""
    return case.made.family_of(part).work(part) is not None


# -- parts into groups --


def _groups(case: Case) -> list[_Group]:
    found: dict[str, _Group] = {}
    for part in case.made.parts:
        family = case.made.family_of(part)
        how = family.work(part)
        if how is None:
            continue
        row = _row_of(case, part)
        alone = how.turn == "hang" or (how.turn == "upright" and part.role in ENCLOSING)
        bay = part.bay if how.turn not in ("base", "hang", "upright") or alone else None
        name = part.id if alone else f"{row}:{'' if bay is None else bay}"
        key = f"{how.turn}:{name}"
        if key not in found:
            found[key] = _Group(key, how.turn, part.section, row, bay, [])
        found[key].parts.append(part)
    groups = sorted(found.values(), key=lambda g: (g.section, TURNS.index(g.turn), min(p.x for p in g.parts)))
    for group in groups:
        # From the top down; what stands, from the left.
        standing = group.turn in ("base", "upright", "hang")
        group.parts.sort(key=lambda p: (p.x, -p.z) if standing else (-(p.z + p.h), p.x))
        group.parts[:] = _carriers_first(group.parts)
    return groups


def _carriers_first(parts: list[Part]) -> list[Part]:
    """The same parts in the same order, but that what carries a part comes before it."""
    of, found = {p.id: p for p in parts}, dict[str, Part]()

    def take(part: Part) -> None:
        if part.carrier in of and part.carrier not in found and part.carrier != part.id:
            take(of[part.carrier])
        found[part.id] = part

    for part in parts:
        take(part)
    return list(found.values())


def _row_of(case: Case, part: Part) -> str:
    """Which row of modules a part belongs to, as `SECTION:FAMILY:FIRST`."""
    rows = [r for r in case.made.rows if r.section == part.section and r.family == part.family]

    def far(row: Standing) -> float:
        if part.bay is not None and row.first <= part.bay < row.end:
            return -1
        return max(row.row.x - part.x, part.x + part.w - row.row.end, 0)

    nearest = min(rows, key=far, default=None)
    return f"{part.section}:{part.family}:{nearest.first if nearest else 0}"


# -- what comes before what --


def _by_support(case: Case, groups: list[_Group], after: dict[str, set[str]]) -> None:
    """What carries a part is there before it: its carrier, and the brackets or cleats that come with it."""
    of = {p.id: g for g in groups for p in g.parts}
    for group in groups:
        for part in group.parts:
            first = [part.carrier] if part.carrier in of else []
            first += [p.id for p in case.made.parts if p.belongs_to == part.id and p.role != "container" and p.id in of]
            if part.fixed_to == "uprights":
                first += [p.id for g in groups if g.section == part.section and g.turn == "upright" for p in g.parts
                          if p.x < part.x + part.w and part.x < p.x + p.w]  # fmt: skip
            after[group.id] |= {of[name].id for name in first if of[name].id != group.id}


def _by_turn(groups: list[_Group], after: dict[str, set[str]]) -> None:
    """At the same modules the turns follow each other; frames of a row stand up one after the other."""
    rows: dict[str, list[_Group]] = defaultdict(list)
    for group in groups:
        rows[group.row].append(group)
    for row in rows.values():
        for later in row:
            for earlier in row:
                same = later.bay is None or earlier.bay is None or later.bay == earlier.bay
                before = TURNS.index(earlier.turn) < TURNS.index(later.turn)
                if before and (same or earlier.turn in ("base", "hang", "upright")):
                    after[later.id].add(earlier.id)
        frames = [g for g in row if g.turn == "upright"]
        for one, other in pairwise(frames):
            after[other.id].add(one.id)


def _by_reach(case: Case, groups: list[_Group], after: dict[str, set[str]]) -> None:
    """What hangs on a wall is put up before anything below it that one would have to lean over."""
    lean, of = work("lean_over"), {p.id: p for p in case.made.parts}
    for upper in groups:
        reached = [p for p in upper.parts if upper.turn != "fill" and hangs_on_wall(p, of)]
        for lower in groups:
            if lower is upper or upper.section != lower.section or upper.id in after[lower.id]:
                continue
            stands_out = any(in_the_way(low, high, lean) for high in reached for low in lower.parts)
            if stands_out and not _comes_before(lower.id, upper.id, after):
                after[lower.id].add(upper.id)


def hangs_on_wall(part: Part, of: dict[str, Part]) -> bool:
    """Whether a part hangs from a wall or a ceiling in the end, and not in or on something that stands."""
    seen: set[str] = set()
    while part.carrier in of and part.id not in seen:
        seen.add(part.id)
        part = of[part.carrier]
        if part.role in ENCLOSING:
            return False
    return part.fixed_to in ("wall", "ceiling") and part.role not in ENCLOSING


def in_the_way(low: Part, high: Part, lean: float) -> bool:
    """Whether one leans over `low` to put up `high`: it is wholly below, over some of its width, and stands out further."""
    over = min(low.x + low.w, high.x + high.w) - max(low.x, high.x)
    return low.z + low.h <= high.z and over >= NARROW and low.y + low.d - high.y > lean


def _comes_before(one: str, other: str, after: dict[str, set[str]]) -> bool:
    """Whether a step has to be done before another, by what is known so far."""
    todo, seen = [other], {other}
    while todo:
        for name in after[todo.pop()]:
            if name == one:
                return True
            if name not in seen:
                seen.add(name)
                todo.append(name)
    return False


# -- minutes, hands, tools --


def _step(case: Case, group: _Group, choice: InstallChoice) -> Step:
    minutes, tools, heaviest = 0.0, dict[str, None](), 0.0
    built: Literal["", "lying", "standing"] = ""
    carried: Carried = ""
    for part in group.parts:
        family = case.made.family_of(part)
        how = family.work(part)
        assert how is not None, part.id
        lies = part.role in ENCLOSING and tilt_height(part.h, part.d) + value("fit.diagonal_room") <= _ceiling(
            case, part
        )
        if part.role == "frame":
            built, carried = "lying" if lies else "standing", _carried(case, part)
        minutes += how.minutes * (STANDING if built == "standing" else 1)
        tools |= dict.fromkeys(how.tools)
        heaviest = max(heaviest, family.mass(part))
    hands, why = _hands(case, group, heaviest)
    if choice.people < hands:
        minutes, hands = minutes * STANDING, 1
    return Step(id=group.id, turn=group.turn, section=group.section, bay=group.bay, parts=tuple(p.id for p in group.parts),
                minutes=minutes * choice.share, hands=hands, why_two=why, tools=tuple(tools), mass=heaviest,
                built=built, carried=carried)  # fmt: skip


DRAWER = 0.3
"""A metre of drawers or of a shelf holds so much of what a metre of wall does; from memory."""
STANDING = 1.3 / 0.9
"""What is built standing, or held up alone, takes so much longer (handbook section 10: 1.3 h instead of 0.9)."""


def _ceiling(case: Case, part: Part) -> float:
    return float(case.envelopes[part.section].z_to if part.section in case.envelopes else case.envelope.z_to)


def _carried(case: Case, part: Part) -> Carried:
    envelope = case.envelopes.get(part.section, case.envelope)
    passage = case.survey.least("passage")
    if not passes(part.w, part.d, envelope.opening_width, passage):
        return "boards"
    return "unread" if passage is None else "whole"


def _hands(case: Case, group: _Group, heaviest: float) -> tuple[int, WhyTwo]:
    tall = max((p.h for p in group.parts if p.role in ENCLOSING), default=0)
    if heaviest > min(value("strength.two_person_mass"), case.goes_by.lift):
        return 2, "mass"
    if tall > value("strength.two_person_height"):
        return 2, "height"
    if group.turn in ("hang", "board", "support") and max(p.w for p in group.parts) > work("long_for_one"):
        return 2, "length"
    return 1, ""


# -- steps of the whole space --


def _whole(case: Case, choice: InstallChoice, groups: list[_Group], after: dict[str, set[str]]) -> Iterator[Step]:
    """What is done to the space as a whole before and after, and between turns; each is put into `after` as well."""
    if not groups:
        return
    metres = sum(e.width * (1 if case.survey.section(s).at_wall else DRAWER) for s, e in case.envelopes.items()
                 if s in case.made.sections) / 1000  # fmt: skip
    walls = [e for s, e in case.envelopes.items() if s in case.made.sections and case.survey.section(s).at_wall]

    def whole(turn: WholeTurn, per: float, before: Iterable[str], *, name: str = "", section: str = "",
              parts: tuple[str, ...] = (), hands: int = 1, wait: float = 0) -> Step:  # fmt: skip
        step = f"{turn}:{name}" if name else turn
        after[step] = set(before)
        row = load("installing")["minutes"][turn]
        return Step(id=step, turn=turn, section=section, parts=parts, hands=min(hands, choice.people), wait=wait,
                    minutes=float(row["value"]) * per * choice.share,
                    tools=tuple(load("installing")["turns"][turn].get("tools", ())))  # fmt: skip

    yield (last := whole("empty", max(metres, 0.3), ()))
    if choice.old != "nothing" and walls:
        yield (last := whole("remove", metres, [last.id]))
        yield (last := whole("patch", metres, [last.id], wait=_minutes("patch_dry")))
    if choice.paint and walls:
        yield (last := whole("paint", painted(case), [last.id], wait=_minutes("paint_dry")))
    starts = dict.fromkeys(case.made.sections, last.id)
    marked = [s for s in case.made.sections if s in case.envelopes and any(_is_marked(case, g) for g in groups
                                                                          if g.section == s)]  # fmt: skip
    for section in marked:
        yield (line := whole("line", 1, [last.id], name=section, section=section))
        starts[section] = line.id
    if any(case.made.family_of(p).drills for g in groups for p in g.parts) and marked:
        yield (trial := whole("trial", 1, [starts[s] for s in marked], hands=2))
        starts |= dict.fromkeys(marked, trial.id)
    yield from _between(case, groups, after, whole)
    for group in groups:
        after[group.id].add(starts[group.section])
    hung = [g.id for g in groups if g.turn in ("support", "rail", "board", "pull-out")]
    ends = {g.id for g in groups}
    if hung:
        yield (tug := whole("tug", sum(len(g.parts) for g in groups if g.id in hung), hung))
        ends.add(tug.id)
    rest = {name for name in after if name not in ends and name.startswith("strap")}
    boxes = tuple(p.id for p in case.made.parts if p.role == "container")
    name = "fill:"
    after[name] = ends | rest
    per = float(load("installing")["minutes"]["fill"]["value"])
    yield Step(id=name, turn="fill", parts=boxes, minutes=max(metres, 0.3) * per * choice.share)


def _between(case: Case, groups: list[_Group], after: dict[str, set[str]], whole: object) -> Iterator[Step]:
    """The level once more when a row stands, and what could tip strapped to the wall."""
    rows: dict[str, list[_Group]] = defaultdict(list)
    for group in groups:
        rows[group.row].append(group)
    for name, row in rows.items():
        stands = [g for g in row if g.turn in ("hang", "upright")]
        if not stands:
            continue
        section = row[0].section
        yield (check := whole("level", 1, [g.id for g in stands], name=name, section=section))  # type: ignore[operator]
        for group in row:
            if TURNS.index(group.turn) > TURNS.index("upright"):
                after[group.id].add(check.id)
        tips = tuple(
            p.id for g in stands for p in g.parts if p.role in case.made.family_of(p).tips and p.role != "trolley"
        )
        if tips:
            yield whole("strap", len(tips), [check.id], name=name, section=section)  # type: ignore[operator]


def painted(case: Case) -> float:
    """The walls that are painted, m²."""
    made = case.made.sections
    return (
        sum(e.width * e.height for s, e in case.envelopes.items() if s in made and case.survey.section(s).at_wall) / 1e6
    )


def _minutes(key: str) -> float:
    return float(load("installing")["minutes"][key]["value"])


def _is_marked(case: Case, group: _Group) -> bool:
    """Whether a step needs the level line: it has a base, or screws."""
    if group.turn == "base":
        return True
    works = [case.made.family_of(p).work(p) for p in group.parts]
    return any(w is not None and w.holes not in ("", "top") for w in works)


def _in_order(steps: list[Step]) -> tuple[Step, ...]:
    """Steps so that each comes after all before it: of those that can be done next always the one of the earliest turn,
    then from the left.
    """
    turns = list(load("installing")["turns"])
    done: set[str] = set()
    rest, found = list(steps), list[Step]()
    while rest:
        ready = [s for s in rest if done.issuperset(s.after)]
        if not ready:
            raise ValueError(f"steps wait for each other: {[s.id for s in rest]}")
        one = min(ready, key=lambda s: (turns.index(s.turn), s.section, s.bay or 0, s.id))
        rest.remove(one)
        done.add(one.id)
        found.append(one)
    return tuple(found)
