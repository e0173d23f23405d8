"""The traits of a good design, each as checks that can fail: what is written beside a trait in a brief's file, asked of
a finished design. `TRAITS` lists them by the name they have there.

A check picks pieces (`kinds`, `groups`, `owner`, `often`, `not_kinds`) and says what must be so of them, or looks at
the whole design. All lengths in mm; a height is that of the surface a piece stands on, or of the rail it hangs from,
over the room's floor.
"""

from collections import defaultdict
from collections.abc import Callable, Mapping
from dataclasses import dataclass
from itertools import pairwise
from typing import Any

from pinakotheke.core.house import reach_zone
from pinakotheke.core.inventory import Thing
from pinakotheke.core.layout import Design, Task, verify
from pinakotheke.core.layout.packing.contain import Lying, lying
from pinakotheke.core.layout.packing.trouble import hand_height
from pinakotheke.core.layout.report.sense import sense
from pinakotheke.core.survey.level import level_base
from pinakotheke.core.systems import HANGING, HOLDERS, PULL_OUTS, Bay, Part

SAME_LEVEL = 60
"""Heights that look alike, mm."""
BESIDE = 60
"""The most that lies between two bays that are neighbours, mm."""
Row = Mapping[str, Any]


@dataclass(frozen=True)
class Piece:
    """So many pieces of a thing where the design puts them."""

    thing: Thing
    count: int
    way: str
    part: Part
    bay: Bay
    height: float
    hand: float


class Trial:
    """A design before its judge."""

    def __init__(self, design: Design, task: Task) -> None:
        self.design, self.task, self.envelopes = design, task, task.envelopes
        self.things = {t.id: t for t in task.things}
        self.people = {p.id: p for p in task.people}
        self.pieces = [self._piece(a.thing, a.count, a.way, design.part(a.part)) for a in design.assignments]

    def _piece(self, thing: str, count: int, way: str, part: Part) -> Piece:
        bay = self.design.bay_of(part)
        height = bay.foot + (part.z if part.role in HANGING or part.role == "drawer" else part.z + part.h)
        if part.role in ("floor", "base"):
            height = bay.foot + part.z
        hand = hand_height(part.role, part.z, part.h, bay)
        return Piece(self.things[thing], count, way, part, bay, height, hand)

    def chosen(self, row: Row) -> list[Piece]:
        """The pieces a row speaks of."""
        found = [p for p in self.pieces if _is_of(p.thing, row)]
        assert found, f"no piece is {dict(row)}"
        return found

    def holders(self, bay: Bay) -> list[Part]:
        """What holds things in a bay."""
        return [p for p in self.design.parts if p.bay == bay.index and p.role in HOLDERS]

    def clear_about(self, part: Part) -> float:
        """Clear height of a compartment in which things hang: from what stands under the rail, or the floor, to what is
        over it, or the end of the bay.
        """
        bay = self.design.bay_of(part)
        others = [p for p in self.holders(bay) if p.id != part.id]
        tops = [p.z + p.h for p in others if p.z + p.h <= part.z]
        over = min((p.z for p in others if p.z >= part.z + part.h), default=bay.z1)
        return over - max(tops, default=-bay.foot)

    def lies(self, p: Piece) -> list[Lying]:
        """Where its pieces lie in their compartment, stack by stack."""
        return [one for one in lying(self.design, p.part, self.things) if one.thing == p.thing.id]

    def neighbours(self, one: Bay, other: Bay) -> bool:
        """Whether two bays are one, or stand beside one another."""
        apart = max(one.x, other.x) - min(one.x + one.w, other.x + other.w)
        return one.section == other.section and apart <= BESIDE

    def failing(self, traits: list[dict[str, Any]]) -> list[str]:
        """The traits that do not hold."""
        return [t["says"] for t in traits if not all(TRAITS[c["check"]](self, c) for c in t["checks"])]


def _is_of(thing: Thing, row: Row) -> bool:
    return (
        (thing.kind in row["kinds"] if "kinds" in row else True)
        and (thing.row.group in row["groups"] if "groups" in row else True)
        and (thing.owner == row["owner"] if "owner" in row else True)
        and (thing.frequency in row["often"] if "often" in row else True)
        and thing.kind not in row.get("not_kinds", ())
    )  # fmt: skip


# -- of pieces --


def hang(trial: Trial, row: Row) -> bool:
    """They hang, all so many of them."""
    pieces = trial.chosen(row)
    return all(p.part.role in HANGING for p in pieces) and sum(p.count for p in pieces) == row["pieces"]


def places(trial: Trial, row: Row) -> bool:
    """They lie in no more compartments than so many."""
    return len({p.part.id for p in trial.chosen(row)}) <= row["most"]


def below(trial: Trial, row: Row) -> bool:
    """They stand or hang no higher."""
    return all(p.height <= row["most"] for p in trial.chosen(row))


def above(trial: Trial, row: Row) -> bool:
    """They stand or hang no lower."""
    return all(p.height >= row["least"] for p in trial.chosen(row))


def clear(trial: Trial, row: Row) -> bool:
    """So much is clear where they hang."""
    return all(trial.clear_about(p.part) >= row["least"] - 1 for p in trial.chosen(row))


def apart(trial: Trial, row: Row) -> bool:
    """They share no compartment with the others."""
    return not {p.part.id for p in trial.chosen(row)} & {p.part.id for p in trial.chosen(row["others"])}


def nothing_under(trial: Trial, row: Row) -> bool:
    """None of the others lies under them in their bay."""
    others = trial.chosen(row["others"])
    return not any(o.bay.index == p.bay.index and o.height < p.height for p in trial.chosen(row) for o in others)


def higher(trial: Trial, row: Row) -> bool:
    """None stands lower than the highest of the others."""
    return min(p.height for p in trial.chosen(row)) >= max(p.height for p in trial.chosen(row["others"])) - 1


def level(trial: Trial, row: Row) -> bool:
    """All stand at one height."""
    heights = [p.height for p in trial.chosen(row)]
    return max(heights) - min(heights) <= SAME_LEVEL


def near(trial: Trial, row: Row) -> bool:
    """Each stands in the bay of one of the others, or beside it."""
    others = trial.chosen(row["others"])
    return all(any(trial.neighbours(p.bay, o.bay) for o in others) for p in trial.chosen(row))


def beside(trial: Trial, row: Row) -> bool:
    """The bays they are in follow one another."""
    bays = sorted({p.bay.index: p.bay for p in trial.chosen(row)}.values(), key=lambda b: (b.section, b.x))
    return all(trial.neighbours(a, b) or a.section != b.section for a, b in pairwise(bays))


def one_wall(trial: Trial, row: Row) -> bool:
    """They are all at one wall."""
    return len({p.bay.section for p in trial.chosen(row)}) == 1


def in_role(trial: Trial, row: Row) -> bool:
    """They live in parts that do one of these things."""
    return all(p.part.role in row["roles"] for p in trial.chosen(row))


def under_rail(trial: Trial, row: Row) -> bool:
    """Some hang under another rail."""
    rails = [p.part for p in trial.chosen(row) if p.part.role == "rail"]
    return any(o.role == "rail" and o.bay == r.bay and o.z > r.z + 500 for r in rails for o in trial.design.parts)


def double(trial: Trial, row: Row) -> bool:
    """Somebody has two rails one above the other for themselves."""
    rails: dict[int, set[str]] = defaultdict(set)
    for p in trial.pieces:
        if p.part.role == "rail" and p.bay.drawer is None:
            rails[p.bay.index].add(p.part.id)
    owners = {
        part: {p.thing.owner for p in trial.pieces if p.part.id == part} for row_ in rails.values() for part in row_
    }
    return any(len(row_) > 1 and all(owners[part] == {row["owner"]} for part in row_) for row_ in rails.values())


def grip(trial: Trial, row: Row) -> bool:
    """All come to the hand of a person."""
    zone = reach_zone(trial.people[row["who"]])
    return all(p.hand <= zone.high + 1 for p in trial.chosen(row))


def out_of_grip(trial: Trial, row: Row) -> bool:
    """None comes to the hand of a person."""
    return all(p.hand > reach_zone(trial.people[row["who"]]).high for p in trial.chosen(row))


def rows(trial: Trial, row: Row) -> bool:
    """The most rows that they stand one behind the other is so many at least, or at most."""
    deep = max(len({round(one.y) for one in trial.lies(p)}) for p in trial.chosen(row))
    return bool(row.get("least", 1) <= deep <= row.get("most", 99))


def stacked(trial: Trial, row: Row) -> bool:
    """No more of them stand on one another."""
    lie = [one for p in trial.chosen(row) for one in trial.lies(p)]
    return all(one.count <= row["most"] for one in lie)


def upright(trial: Trial, row: Row) -> bool:
    """They stand higher than wide and deep."""
    return all(one.h > max(one.w, one.d) for p in trial.chosen(row) for one in trial.lies(p))


def lengthwise(trial: Trial, row: Row) -> bool:
    """Their longer side lies along the wall."""
    return all(one.w >= one.d for p in trial.chosen(row) for one in trial.lies(p))


def above_hand(trial: Trial, row: Row) -> bool:
    """The hand that takes them is no lower."""
    return all(p.hand >= row["least"] for p in trial.chosen(row))


def moves_up(trial: Trial, row: Row) -> bool:
    """What holds them hangs in slots or bored rows, and moves by a pitch."""
    return all(trial.design.family_of(p.bay).kind in row["kinds_of_family"] for p in trial.chosen(row))


def under_ceiling(trial: Trial, row: Row) -> bool:
    """What lies there stays under the least ceiling."""
    return all(p.bay.foot + one.z + one.h <= row["most"] for p in trial.chosen(row) for one in trial.lies(p))


def wide(trial: Trial, row: Row) -> bool:
    """The bays they are in are no wider."""
    return all(p.bay.w <= row["most"] for p in trial.chosen(row))


def on_top(trial: Trial, row: Row) -> bool:
    """They lie on the top of what stands there, or on a board across it."""
    return all(p.part.role == "top" or trial.design.family_of(p.part).lies_on for p in trial.chosen(row))


def shallow(trial: Trial, row: Row) -> bool:
    """What they stand on is no deeper."""
    return all(p.part.d <= row["most"] for p in trial.chosen(row))


def nearer_door(trial: Trial, row: Row) -> bool:
    """They are less deep in the room, on the whole, than the others. The first wall begins at the door, the last ends
    there.
    """
    first, *_, last = trial.envelopes

    def far(p: Piece) -> float:
        middle = p.bay.x + p.bay.w / 2
        if p.bay.section == first:
            return middle
        return trial.envelopes[last].width - middle if p.bay.section == last else trial.envelopes[first].width

    def mean(some: list[Piece]) -> float:
        return sum(far(p) for p in some) / len(some)

    return mean(trial.chosen(row)) < mean(trial.chosen(row["others"]))


# -- of the whole design --


def families(trial: Trial, row: Row) -> bool:
    """So many main families are built, and no more."""
    mains = {b.family for b in trial.design.bays if _is_main(trial, b)}
    return len(mains) <= row["most"]


def _is_main(trial: Trial, bay: Bay) -> bool:
    family = trial.design.family_of(bay)
    return not (family.companion or family.hangs_over or family.lies_on or bay.loose or family.on_what_is_there)


def narrowest(trial: Trial, row: Row) -> bool:
    """No bay is narrower."""
    return all(b.w >= row["least"] for b in trial.design.bays if b.drawer is None and _is_main(trial, b))


def even(trial: Trial, row: Row) -> bool:
    """All units of a wall are equally high and deep."""
    seen: dict[str, set[tuple[float, float]]] = defaultdict(set)
    for b in trial.design.bays:
        if _is_main(trial, b):
            seen[b.section].add((b.z1 + b.foot, b.depth))
    return all(len(sizes) == 1 for sizes in seen.values())


def pull_outs_within(trial: Trial, row: Row) -> bool:
    """What pulls out stands between."""
    return all(p.x >= row["least"] - 1 and p.x + p.w <= row["most"] + 1
               for p in trial.design.parts if p.role in PULL_OUTS and p.bay is not None)  # fmt: skip


def no_two_owners(trial: Trial, row: Row) -> bool:
    """No compartment of these roles, or of any, holds things of two people."""
    owners: dict[str, set[str]] = defaultdict(set)
    for p in trial.pieces:
        if p.thing.owner and p.part.role in row.get("roles", HOLDERS) and p.thing.kind not in row.get("but", ()):
            owners[p.part.id].add(p.thing.owner)
    return all(len(some) == 1 for some in owners.values())


def boards_within(trial: Trial, row: Row) -> bool:
    """No shelf is deeper."""
    return all(p.d <= row["most"] for p in trial.design.parts if p.role in HOLDERS and p.role not in HANGING
               and p.role not in ("floor", "base"))  # fmt: skip


def free(trial: Trial, row: Row) -> bool:
    """Nothing that is fixed stands before something on the wall, or takes its place."""
    (o,) = (o for o in trial.task.survey.obstacles if o.label == row["obstacle"])
    return not any(
        p.section == o.section and p.x < o.x + o.width and p.x + p.w > o.x and p.z < o.z + o.height and p.z + p.h > o.z
        and not (p.bay is not None and trial.design.bays[p.bay].loose)
        for p in trial.design.parts
    )  # fmt: skip


def proven(trial: Trial, row: Row) -> bool:
    """The verifier finds no fault."""
    task = trial.task
    return verify(trial.design, task.envelopes, task.things, task.survey, task.limits) == ()


def lines(trial: Trial, row: Row) -> bool:
    """Shelves run through as far as so much."""
    return sense(trial.design, trial.task.things, trial.task.people).lines >= row["least"]


def lower_rails_level(trial: Trial, row: Row) -> bool:
    """Where two rails hang one above the other, the lower ones of the wall run at one height."""
    rails: dict[int, list[int]] = defaultdict(list)
    for p in trial.design.parts:
        if p.role == "rail" and p.bay is not None:
            rails[p.bay].append(p.z)
    low = [min(some) for some in rails.values() if len(some) > 1]
    return not low or max(low) - min(low) <= SAME_LEVEL


def rolls_between(trial: Trial, row: Row) -> bool:
    """What stands in a stretch of a wall rolls away."""
    low, high = row["least"], row["most"]
    return all(
        trial.design.bays[p.bay].loose
        for p in trial.design.parts
        if p.section == row["wall"] and p.role in HOLDERS and p.bay is not None and p.x + p.w > low + 1 and p.x < high - 1
        and trial.design.bay_of(p).foot + p.z < row.get("under", 1e9)
    )  # fmt: skip


def shallow_between(trial: Trial, row: Row) -> bool:
    """What is fixed in a stretch of a wall is no deeper."""
    return all(
        p.d <= row["deep"] or trial.design.bays[p.bay].loose
        for p in trial.design.parts
        if p.role in HOLDERS and p.bay is not None and p.x >= row["least"] - 1
    )  # fmt: skip


def corners_free(trial: Trial, row: Row) -> bool:
    """At every inner corner one of the two walls stays bare for so much."""
    walls = list(trial.envelopes)
    for one, other in pairwise(walls):
        ends = [trial.envelopes[one].width - (b.x + b.w) for b in trial.design.bays if b.section == one]
        begins = [b.x for b in trial.design.bays if b.section == other]
        if max(min(ends, default=9999), min(begins, default=9999)) < row["least"] - 1:
            return False
    return True


def passage(trial: Trial, row: Row) -> bool:
    """So much stays free between what stands at two walls across the room."""
    deep = [
        max((b.depth for b in trial.design.bays if b.section == wall), default=0) for wall in row["sides"]
    ]  # fmt: skip
    return bool(trial.envelopes[row["end"]].width - sum(deep) >= row["least"])


def no_groups(trial: Trial, row: Row) -> bool:
    """Nothing of these groups is kept here."""
    return not any(p.thing.row.group in row["groups"] for p in trial.pieces)


def levelled(trial: Trial, row: Row) -> bool:
    """The floor under the wall falls by so much, and all units stand on one base."""
    main = [b for b in trial.design.bays if _is_main(trial, b)]
    base = level_base(trial.task.survey, row["wall"])
    made_up = base is not None and base.out_by == row["rise"]
    return made_up and bool(main) and len({b.z0 + b.foot for b in main}) == 1


TRAITS: dict[str, Callable[[Trial, Row], bool]] = {
    check.__name__.replace("_", " "): check
    for check in (
        hang, places, below, above, above_hand, clear, apart, nothing_under, higher, level, near, beside,
        one_wall, in_role, under_rail, double, grip, out_of_grip, rows, stacked, upright, lengthwise, on_top,
        under_ceiling, shallow, wide, moves_up, nearer_door, families, narrowest, even, pull_outs_within, no_two_owners,
        boards_within, free, proven, lines, lower_rails_level, rolls_between, shallow_between, corners_free, passage,
        no_groups, levelled,
    )
}  # fmt: skip
