"""Lists of things from spreadsheets: which column is what, each row read or refused with its mend, and back again."""

import re
from collections.abc import Mapping, Sequence
from difflib import get_close_matches
from typing import Literal, TypeVar, get_args

from ..base import Frozen
from ..errors import CallOutError, Refusal, told
from ..house import Person
from ..lengths import parse_length
from ..masses import parse_mass
from ..units import KG_PER_POUND, Units, format_length
from .kinds import CUSTOM, KINDS
from .parse.names import HouseWord, Named, named, unknown
from .things import DECISIONS, FREQUENCIES, Thing

Column = Literal[
    "count", "name", "kind", "owner", "frequency", "decision", "way", "width", "depth", "height", "mass", "label",
    "together", "note",
]  # fmt: skip
COLUMNS: tuple[Column, ...] = get_args(Column)
MOST_ROWS = 5000
MOST_COLUMNS = 60

_NAMES: dict[Column, tuple[str, ...]] = {
    "count": ("count", "how many", "number", "quantity", "qty", "pieces", "amount"),
    "name": ("name", "what", "item", "thing", "things", "description"),
    "kind": ("kind", "type", "category", "sort"),
    "owner": ("owner", "whose", "person", "belongs to"),
    "frequency": ("frequency", "how often", "used", "use"),
    "decision": ("decision", "keep", "pile", "what to do"),
    "way": ("way", "stored", "storage"),
    "width": ("width", "w", "wide"),
    "depth": ("depth", "d", "deep"),
    "height": ("height", "h", "high", "tall"),
    "mass": ("mass", "weight", "kg"),
    "label": ("label", "for", "season", "tag"),
    "together": ("together", "used with"),
    "note": ("note", "notes", "remark", "comment"),
}


class RowFault(Frozen):
    """A row that cannot be read: its number (from 2, under the header), what is wrong, the mend."""

    row: int
    problem: str
    mend: str


class ReadRows(Frozen):
    """What a list gave."""

    things: tuple[Thing, ...]
    faults: tuple[RowFault, ...]


def guess_columns(header: Sequence[str]) -> dict[int, Column]:
    """Which column is what, by its name; each meaning at most once."""
    return guess_by_name(header, _NAMES)


_UNIT = re.compile(r"\s*\((mm|cm|m|in|ft|kg|g|lbs?|oz)\)$")
"""A unit behind the name of a column: it is that of every bare number below it."""
_BARE = re.compile(r"\d+(?:[.,]\d+)?")


def _with_unit(cell: str, header: str) -> str:
    """A cell under the unit its column's name has, such as `width (in)`.

    >>> _with_unit("45", "Width (cm)"), _with_unit("45 mm", "Width (cm)"), _with_unit("45", "Width")
    ('45 cm', '45 mm', '45')
    """
    unit = _UNIT.search(header.strip().lower())
    return f"{cell} {unit[1]}" if unit and _BARE.fullmatch(cell) else cell


Meaning = TypeVar("Meaning", bound=str)


def guess_by_name(header: Sequence[str], meanings: Mapping[Meaning, tuple[str, ...]]) -> dict[int, Meaning]:
    """Which column means what, by the names a meaning goes by; each meaning at most once."""
    found: dict[int, Meaning] = {}
    for number, text in enumerate(header):
        plain = _UNIT.sub("", text.strip().lower())
        for column, names in meanings.items():
            if column not in found.values() and (plain in names or get_close_matches(plain, names, n=1, cutoff=0.86)):
                found[number] = column
                break
    return found


def read_rows(rows: Sequence[Sequence[str]], columns: Mapping[int, Column], people: tuple[Person, ...], units: Units,
              space: str, taken: frozenset[str], header: Sequence[str] = (),
              house: Mapping[str, HouseWord] | None = None) -> ReadRows:  # fmt: skip
    """Things from rows of text. A row with only a name is read as a quick-add line; a unit in the header is that of the
    bare numbers below it.
    """
    heads = dict(enumerate(header))
    things: list[Thing] = []
    faults: list[RowFault] = []
    used = set(taken)
    for number, cells in enumerate(rows, 2):
        fields = {
            column: _with_unit(cells[n].strip(), heads.get(n, "")) for n, column in columns.items() if n < len(cells)
        }
        if not any(fields.values()):
            continue
        try:
            thing = _row(fields, people, units, space, frozenset(used), house or {})
        except ValueError as error:
            faults.append(row_fault(number, error, units))
            continue
        used.add(thing.id)
        things.append(thing)
    return ReadRows(things=tuple(things), faults=tuple(faults))


def row_fault(number: int, error: ValueError, units: Units) -> RowFault:
    """Why a row of a list cannot be read, and what would mend it."""
    problem, mend = told(error, units)
    return RowFault(row=number, problem=problem, mend=mend or Refusal("list.row").mend)


def _row(fields: Mapping[Column, str], people: tuple[Person, ...], units: Units, space: str,
         taken: frozenset[str], house: Mapping[str, HouseWord]) -> Thing:  # fmt: skip
    name = fields.get("name") or fields.get("kind") or ""
    if not name:
        raise CallOutError("list.no-name")
    size = _size(fields, units)
    kind = fields.get("kind", "").lower()
    found = Named(kind=KINDS[kind]) if kind in KINDS else (named(kind, house) if kind else None) or named(name, house)
    if found is None:
        found = unknown(name) if size is None else Named(kind=CUSTOM)
    unsure = "" if not found.guess else "size" if found.kind is CUSTOM else "kind"
    facts: dict[str, object] = {"unsure": unsure, "frequency": found.kind.frequency}
    if size or found.size:
        facts |= {"size": size or found.size} | ({} if size else {"mass": found.mass})
    for column in ("label", "together", "note"):
        if fields.get(column):
            facts[column] = unguarded(fields[column])
    if fields.get("mass"):
        facts["mass"] = parse_mass(fields["mass"], units)
    for column, choices in (("frequency", FREQUENCIES), ("decision", DECISIONS)):
        said = fields.get(column, "").lower()  # type: ignore[call-overload]
        if said:
            close = get_close_matches(said, choices, n=1, cutoff=0.7)
            if not close:
                raise CallOutError("list.no-choice", said, said=said, column=column, choices=choices)
            facts[column] = close[0]
    if fields.get("way"):
        facts["way"] = fields["way"].lower()
    owner = fields.get("owner", "").lower()
    if owner and owner not in ("the house", "house", "all"):
        meant = [p for p in people if owner in (p.name.lower(), p.name.lower().split()[0], p.id)]
        if len(meant) != 1:
            names = ", ".join(p.name for p in people) or "nobody yet"
            raise CallOutError("list.nobody", owner, owner=owner, names=names)
        facts["owner"] = meant[0].id
    new = next(f"t{n}" for n in range(len(taken) + 1, len(taken) + 100_000) if f"t{n}" not in taken)
    return Thing.model_validate(
        {"id": new, "name": unguarded(name), "kind": found.kind.id, "count": _count(fields.get("count") or "1"),
         "space": space, **facts}
    )  # fmt: skip


def _count(text: str) -> int:
    """Whole pieces: `12`, or `12.0` as spreadsheets write it."""
    match = re.fullmatch(r"(\d{1,7})(?:[.,]0+)?", text.strip())
    if match is None:
        raise CallOutError("list.no-count", text, said=text[:40])
    return int(match[1])


def _size(fields: Mapping[Column, str], units: Units) -> tuple[float, ...] | None:
    sides = [fields.get(side, "") for side in ("width", "depth", "height")]
    if not all(sides):
        return None
    return tuple(parse_length(side, units).mm for side in sides)


RISKY = ("=", "+", "-", "@", "\t", "\r")
"""A spreadsheet would run a cell that begins so as a formula."""


def unguarded(text: str) -> str:
    """A text that was guarded on the way out, as it was."""
    return text[1:] if text.startswith("'") and text[1:].startswith((*RISKY, "'")) else text


def guarded(text: str) -> str:
    """A text that no spreadsheet runs as a formula: guarded by an apostrophe, which reading takes off again."""
    return f"'{text}" if text.startswith((*RISKY, "'")) else text


def _mass(kg: float | None, units: Units) -> str:
    """A mass as a list has it: a bare number of kilograms, or pounds with their unit."""
    if kg is None:
        return ""
    return f"{kg:g}" if units == "metric" else f"{kg / KG_PER_POUND:.9g} lb"


def write_rows(things: Sequence[Thing], people: tuple[Person, ...], units: Units) -> list[list[str]]:
    """A header and one row a thing, as `read_rows` takes them."""
    names = {p.id: p.name for p in people}
    rows: list[list[str]] = [list(COLUMNS)]
    for t in things:
        sides = [format_length(mm, units) for mm in t.size] if t.size else ["", "", ""]
        rows.append(
            [str(t.count), guarded(t.name), t.kind, names.get(t.owner, ""), t.frequency, t.decision, t.way or "",
             *sides, _mass(t.mass, units),
             *(guarded(text) for text in (t.label, t.together, t.note))]
        )  # fmt: skip
    return rows
