"""Labels: what stands on a place, and the sheets they are printed on."""

from collections.abc import Iterable, Mapping, Sequence
from functools import cache

from ..base import Frozen
from ..house import Person
from ..inventory import Thing
from ..tables import load
from .places import Place, Stay

MOST_NAMED = 6
"""So many things are named on a label; the others are counted."""


class LabelSheet(Frozen):
    """A sheet of labels in a grid, mm: paper and label as width and height, margins, and from label to label."""

    id: str
    name: str
    paper: tuple[float, float]
    columns: int
    rows: int
    label: tuple[float, float]
    left: float
    top: float
    across: float
    down: float
    basis: str

    @property
    def count(self) -> int:
        """Labels on a sheet."""
        return self.columns * self.rows

    def corner(self, n: int) -> tuple[float, float]:
        """Left, upper corner of the label `n` of a sheet, counted from 0 along its rows, mm from the paper's own."""
        row, column = divmod(n, self.columns)
        return self.left + column * self.across, self.top + row * self.down


@cache
def sheets() -> Mapping[str, LabelSheet]:
    """The sheets of `tables/upkeep.toml`."""
    return {name: LabelSheet.model_validate({"id": name, **row}) for name, row in load("upkeep")["sheets"].items()}


class Label(Frozen):
    """What a label says: its title, what is in the place line by line, whose it is, the day, and where its code leads."""

    place: str
    title: str
    lines: tuple[str, ...] = ()
    owner: str = ""
    flat: bool = False
    """Whether it says to keep the box flat."""
    date: str = ""
    code: str = ""
    picture: str = ""
    """An outline of `tables/pictures.toml`, for those who cannot read yet."""

    @property
    def text(self) -> str:
        """Everything a person reads on it, but the day: when it changes, the label is out of date."""
        return "\n".join((self.title, *self.lines, self.owner, "flat" if self.flat else "")).strip()


def label_of(place: Place, stays: Iterable[Stay], things: Mapping[str, Thing], people: Sequence[Person], *,
             date: str = "", code: str = "", use_by: Mapping[str, str] | None = None,
             pictured: bool = False) -> Label:  # fmt: skip
    """The label of a place: the names of what is in it as the household says them, most pieces first, with the day by which
    what is open is used (`use_by`, by thing); whose it is where all of it is one person's. One group of things gives the
    label its title, else the place does.
    """
    here = [(things[s.thing], s) for s in stays if s.place == place.id and s.thing in things]
    here.sort(key=lambda one: (-one[1].count, one[0].name))
    days = use_by or {}
    names = list(dict.fromkeys(_said(thing, days.get(thing.id, "")) for thing, _ in here))
    owners = {thing.owner for thing, _ in here}
    owner = next((p.name for p in people if {p.id} == owners), "")
    groups = {thing.row.group for thing, _ in here} - {""}
    title, lines = (names[0], []) if len(names) == 1 else (place.name, names)
    if len(names) > 1 and len(groups) == 1:
        title = min(groups).capitalize()
    if len(lines) > MOST_NAMED:
        lines = [*lines[: MOST_NAMED - 1], f"+ {len(lines) - MOST_NAMED + 1}"]
    flat = bool(place.box) and any(thing.row.long or thing.row.single for thing, _ in here)
    picture = picture_of(here[0][0]) if pictured and here else ""
    return Label(place=place.id, title=title, lines=tuple(lines), owner=owner, flat=flat, date=date, code=code,
                 picture=picture)  # fmt: skip


def picture_of(thing: Thing) -> str:
    """The picture of a thing: that of its kind, else of its group."""
    table = load("pictures")
    found: str = table["kinds"].get(thing.kind) or table["groups"].get(thing.row.group, "")
    return found


def _said(thing: Thing, use_by: str) -> str:
    label = thing.label if thing.label.casefold() not in thing.name.casefold() else ""
    return ", ".join(w for w in (thing.name, label, f"use by {use_by}" if use_by else "") if w)
