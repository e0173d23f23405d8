"""The purchase: one list for any set of spaces, as the household chose to buy, with what each space takes of it.

Like articles of several spaces are one line, and packs are rounded up once for all of them.
"""

from collections import defaultdict
from collections.abc import Sequence
from dataclasses import dataclass
from decimal import ROUND_DOWN, Decimal
from typing import get_args

from ..base import Frozen
from ..layout import Design
from ..layout.report.costing import extras_of
from ..systems.family import CENT
from ..tables import load
from .bill import BillLine, bill
from .choice import Choice, Cutting, Omission, omissions_in, saw, without
from .cutlist import CutPart, Stuff, cut_list, is_cut
from .hours import hours
from .plans import Offcut, StuffPlan, cut_plans, too_large
from .sawing import Sawn, still_to_cut


class PurchaseLine(Frozen):
    """So many of one article, as a `BillLine`; `by_space` how many of them each space needs."""

    item: str
    name: str
    width: int
    depth: int
    height: int
    needed: int
    bought: int
    unit: str
    each: Decimal
    total: Decimal
    by_space: tuple[tuple[str, int], ...]
    parts: tuple[tuple[str, str], ...] = ()
    """Design and part."""

    @property
    def spare(self) -> int:
        """Pieces in the packs that are not needed."""
        return max(0, self.bought - self.needed)


@dataclass(frozen=True, slots=True)
class Purchase:
    """The list, its total, what each space takes of it, the cut plans, and hours of work."""

    lines: tuple[PurchaseLine, ...]
    total: Decimal
    by_space: tuple[tuple[str, Decimal], ...]
    plans: tuple[StuffPlan, ...]
    uncut: tuple[CutPart, ...]
    """What comes off nothing that is sold, or fits no car: it is bought cut to measure."""
    hours: float


class Variant(Frozen):
    """Another way to buy the same, and what would change: money, hours, and what one sees."""

    key: str
    name: str
    choice: Choice
    chosen: bool
    money: Decimal
    hours: float
    look: str = ""


Named = Sequence[tuple[str, Design]]
"""Designs with the names of their spaces."""


def purchase(designs: Named, choice: Choice, offcuts: Sequence[Offcut] = (), sawing: Sequence[Sawn] = ()) -> Purchase:
    """The list for some designs as a household chose to buy; `offcuts` in hand are cut first. What has been sawn already
    is on the list, for it was bought, and in no plan.
    """
    left_out = choice.leaves_out()
    bought = [(space, without(d, left_out)) for space, d in designs]
    parts = cut_list(bought, choice)
    refused = too_large(parts, choice)
    whole = {(p.space, p.part) for p in refused}
    parts = tuple(p for p in parts if (p.space, p.part) not in whole)
    plans = cut_plans(still_to_cut(parts, sawing), choice, offcuts)
    cut = {(p.space, p.part) for p in parts}
    here = {p.id for p in parts}
    sawn = [one for one in sawing if any(p.id in here for p in one.parts)]  # of spaces that are not on the list: none
    lines = [*_listed(bought, cut), *_extras(bought), *_stock(plans, parts, sawn)]
    lines = [line for line in lines if line.needed]
    total = sum((line.total for line in lines), Decimal(0))
    spent = sum(hours(d).hours for _, d in bought) + _hours(parts, bought, choice)
    return Purchase(tuple(lines), total, _shared([space for space, _ in designs], lines), plans, refused, spent)


def _listed(designs: Named, cut: set[tuple[str, str]]) -> list[PurchaseLine]:
    """What is bought by the piece, like articles of all spaces together."""
    found: dict[tuple[object, ...], list[tuple[str, Design, BillLine, tuple[str, ...]]]] = defaultdict(list)
    for space, design in designs:
        for line in bill(design).lines:
            if not line.parts:
                continue
            own = tuple(p for p in line.parts if (space, p) not in cut)
            if own:
                key = (line.item, line.name, line.width, line.depth, line.height, line.each, line.unit)
                found[key].append((space, design, line, own))
    rows = []
    for (item, name, width, depth, height, each, unit), group in sorted(found.items(), key=lambda row: str(row[0])):
        number = sum(len(own) for *_, own in group)
        rows.append(PurchaseLine.model_validate({
            "item": item, "name": name, "width": width, "depth": depth, "height": height, "needed": number,
            "bought": number, "unit": unit, "each": each, "total": each * number,  # type: ignore[operator]
            "by_space": tuple((space, len(own)) for space, _, _, own in group),
            "parts": tuple((d.id, p) for _, d, _, own in group for p in own),
        }))  # fmt: skip
    return rows


def _extras(designs: Named) -> list[PurchaseLine]:
    """What is bought beside the parts: needed by every space, packs rounded up once."""
    needed: dict[tuple[str, str, int, Decimal, str], dict[str, int]] = defaultdict(dict)
    for space, design in designs:
        for family, extra in extras_of(design.parts, design.catalogue):
            key = (f"{family}.{extra.article}", extra.name, extra.pack, extra.each, extra.unit)
            needed[key][space] = needed[key].get(space, 0) + extra.needed
    rows = []
    for (item, name, pack, each, unit), spaces in needed.items():
        number = sum(spaces.values())
        packs = -(-number // pack)
        rows.append(PurchaseLine(item=item, name=name, width=0, depth=0, height=0, needed=number, bought=packs * pack,
                                 unit=unit, each=each, total=each * packs, by_space=tuple(spaces.items())))  # fmt: skip
    return rows


def _stock(plans: Sequence[StuffPlan], parts: Sequence[CutPart], sawing: Sequence[Sawn]) -> list[PurchaseLine]:
    """Whole sheets and boards, those that were sawn already among them, and the band for their edges."""
    bought: dict[tuple[Stuff, int, int, int], int] = defaultdict(int)
    for plan in plans:
        for length, width, cents, number in plan.bought:
            bought[plan.stuff, length, width, cents] += number
    for one in sawing:
        if one.cents:
            bought[one.stuff, one.length, one.width if one.kind == "sheet" else 0, one.cents] += 1
    rows = []
    for (stuff, length, width, cents), number in bought.items():
        taken: dict[str, int] = defaultdict(int)
        for part in parts:
            if part.stuff == stuff:
                taken[part.space] += part.cut_length * part.cut_width
        each = (Decimal(cents) / 100).quantize(CENT)
        rows.append(PurchaseLine(
            item=f"stock.{stuff.kind}", name=stuff.name, width=length, depth=width or stuff.high, height=stuff.thick,
            needed=number, bought=number, unit=stuff.kind, each=each, total=each * number,
            by_space=tuple(taken.items()) or ((parts[0].space, 1),),
        ))  # fmt: skip
    bands: dict[str, int] = defaultdict(int)
    for part in parts:
        if part.band:
            bands[part.space] += part.band
    if bands:
        metres = -(-sum(bands.values()) // 1000)
        each = Decimal(str(load("stock")["sheet"]["band_per_m"])).quantize(CENT)
        rows.append(PurchaseLine(item="stock.band", name="Edge band", width=0, depth=0, height=0, needed=metres,
                                 bought=metres, unit="metre", each=each, total=each * metres,
                                 by_space=tuple(bands.items())))  # fmt: skip
    return rows


def _hours(parts: Sequence[CutPart], designs: Named, choice: Choice) -> float:
    """Hours at the saw and for the edges, and to put together what is made."""
    made = sum(is_cut(d, p, choice) is not None and p.role == "frame" for _, d in designs for p in d.parts)
    banded = sum(bool(p.bands) for p in parts)
    return len(parts) * saw("cut_hours") + banded * saw("band_hours") + made * saw("make_hours")


def _shared(spaces: Sequence[str], lines: Sequence[PurchaseLine]) -> tuple[tuple[str, Decimal], ...]:
    """What every space takes of the list, to the cent: each line by what the spaces need of it, the odd cents to those
    that were cut most by rounding, so that the shares are the total.
    """
    owed: dict[str, Decimal] = dict.fromkeys(spaces, Decimal(0))
    for line in lines:
        whole = sum(n for _, n in line.by_space)
        exact = {space: line.total * n / whole for space, n in line.by_space if whole}
        down = {space: amount.quantize(CENT, ROUND_DOWN) for space, amount in exact.items()}
        odd = int((line.total - sum(down.values(), Decimal(0))) / CENT)
        for space in sorted(exact, key=lambda s: exact[s] - down[s], reverse=True)[:odd]:
            down[space] += CENT
        for space, amount in down.items():
            owed[space] += amount
    return tuple(owed.items())


def variants(designs: Named, choice: Choice, offcuts: Sequence[Offcut] = (), sawing: Sequence[Sawn] = (),
             ) -> tuple[Variant, ...]:  # fmt: skip
    """Other ways to buy the same, each one step from what is chosen, with what would change."""
    now = purchase(designs, choice, offcuts, sawing)
    found = []
    for key, name, look, other, chosen in _others([d for _, d in designs], choice):
        then = now if other == choice else purchase(designs, other, offcuts, sawing)
        found.append(Variant(key=key, name=name, look=look, choice=other, chosen=chosen, money=then.total - now.total,
                             hours=then.hours - now.hours))  # fmt: skip
    return tuple(found)


def _others(designs: Sequence[Design], choice: Choice) -> list[tuple[str, str, str, Choice, bool]]:
    rows = load("stock")
    families = {d.family_of(p).kind for d in designs for p in d.parts if p.role != "container"}
    there = {of for of in ("cut", "make") if families & set(rows[of])}
    if choice.cutting == "make" and "make" not in there:
        choice = choice.model_copy(update={"cutting": "stock"})
    found = {row["cutting"]: row for row in reversed(rows["way"]) if row["of"] in there}
    ways = [
        (way, found[way]["name"], found[way]["look"], choice.model_copy(update={"cutting": way}), choice.cutting == way)
        for way in get_args(Cutting) if way in found
    ]  # fmt: skip
    out = [
        (f"without-{one.key}", f"without {one.name}", one.look, _toggled(choice, one), one.key in choice.without)
        for one in omissions_in(designs)
    ]
    return [*ways, *_grades(choice), *out]


def _grades(choice: Choice) -> list[tuple[str, str, str, Choice, bool]]:
    """Other boards for what is cut; chosen once more they are as designed."""
    if choice.cutting == "measure":
        return []
    return [
        (f"grade-{row['grade']}", row["name"], row["look"],
         choice.model_copy(update={"grade": None if choice.grade == row["grade"] else row["grade"]}),
         choice.grade == row["grade"])
        for row in load("stock")["grade"]
    ]  # fmt: skip


def _toggled(choice: Choice, one: Omission) -> Choice:
    return choice.model_copy(update={"without": choice.without ^ {one.key}})


def leave_out_first(designs: Named, choice: Choice, budget: Decimal, offcuts: Sequence[Offcut] = (),
                    sawing: Sequence[Sawn] = ()) -> tuple[tuple[Omission, ...], Decimal]:  # fmt: skip
    """What to leave out, in the table's order, until the list is within the budget; and what it costs then. Everything
    that can go, where that is not enough.
    """
    taken: list[Omission] = []
    now = purchase(designs, choice, offcuts, sawing).total
    for one in omissions_in([d for _, d in designs]):
        if now <= budget:
            break
        if one.key in choice.without:
            continue
        tried = choice.model_copy(update={"without": choice.without | {o.key for o in taken} | {one.key}})
        then = purchase(designs, tried, offcuts, sawing).total
        if then < now:
            taken.append(one)
            now = then
    return tuple(taken), now
