"""The house file: a whole household in one JSON document, `NAME.house.json`, and its faults when it is none."""

import json
from typing import Annotated, Any, Final, Literal, Self

from pydantic import Field, ValidationError, model_validator

from .base import AtMost, Frozen, Id, Name
from .errors import HouseFileError, NotHere, Refusal
from .house import HouseRules, Person, SpaceUse, WorkSession
from .install import InstallChoice, Tick
from .inventory import Thing
from .inventory.containers import OWN, Container
from .inventory.owned import Owned
from .inventory.parse import HouseWord
from .layout import History
from .layout.edit.replay import replayed
from .materials.ledger import MoneyEntry
from .materials.pricelist import PriceList
from .materials.sawing import Sawn
from .survey import Survey
from .systems import Range
from .units import Units
from .upkeep import Before, Hunt, Leaving, Movement, Place, Review, Stay, Supply, Swap

FORMAT: Final = "pinakotheke-house-1"
MOST_BYTES = 20_000_000
MOST_FAULTS = 100
Fault = tuple[str, str, str]
"""Path in the file, what stands there, what was expected."""
EXPECTED = {"missing": "this field", "extra_forbidden": "no such field"}


class Space(Frozen):
    """A space to be fitted out, with its survey, which says of what kind it is."""

    id: Id
    name: Name
    survey: Survey = Survey()
    use: SpaceUse = SpaceUse()
    install: InstallChoice | None = None
    """How it is installed; None where nobody said."""


class House(Frozen):
    """A household: who, which rules, which spaces, which things, and the designs chosen so far."""

    format: Literal["pinakotheke-house-1"] = FORMAT
    name: Name
    units: Units = "metric"
    currency: Annotated[str, Field(pattern=r"^[A-Z]{3}$")] = "EUR"
    people: Annotated[tuple[Person, ...], AtMost(50)] = ()
    rules: HouseRules = HouseRules()
    spaces: Annotated[tuple[Space, ...], AtMost(200)] = ()
    things: Annotated[tuple[Thing, ...], AtMost(20_000)] = ()
    stock: Annotated[tuple[Owned, ...], AtMost(500)] = ()
    """Containers and furniture the household has."""
    ranges: Annotated[tuple[Range, ...], AtMost(40)] = ()
    """Its own ranges of parts, in the place of the families that ship."""
    containers: Annotated[tuple[Container, ...], AtMost(500)] = ()
    """Containers it can buy, in the place of those that ship."""
    words: Annotated[tuple[HouseWord, ...], AtMost(2000)] = ()
    """What it calls its things."""
    work: Annotated[tuple[WorkSession, ...], AtMost(500)] = ()
    """Sessions of work, in their order."""
    designs: Annotated[tuple[History, ...], AtMost(200)] = ()
    sawing: Annotated[tuple[Sawn, ...], AtMost(2000)] = ()
    """Sheets and boards that were sawn."""
    price_lists: Annotated[tuple[PriceList, ...], AtMost(40)] = ()
    """Suppliers' lists it brought."""
    money: Annotated[tuple[MoneyEntry, ...], AtMost(5000)] = ()
    """What was ordered, received and returned."""
    ticks: Annotated[tuple[Tick, ...], AtMost(5000)] = ()
    """What was done at the wall."""
    places: Annotated[tuple[Place, ...], AtMost(20_000)] = ()
    """What things are put back into."""
    stays: Annotated[tuple[Stay, ...], AtMost(40_000)] = ()
    """What lies in them."""
    supplies: Annotated[tuple[Supply, ...], AtMost(2000)] = ()
    """What is used up and bought again."""
    movements: Annotated[tuple[Movement, ...], AtMost(50_000)] = ()
    """What was bought, opened and taken of it."""
    swaps: Annotated[tuple[Swap, ...], AtMost(200)] = ()
    """Things that take turns by the season."""
    reviews: Annotated[tuple[Review, ...], AtMost(5000)] = ()
    """Looks at spaces, and what was seen."""
    leaving: Annotated[tuple[Leaving, ...], AtMost(20_000)] = ()
    """Where what leaves goes, and by when."""
    hunts: Annotated[tuple[Hunt, ...], AtMost(2000)] = ()
    """Games of finding things."""
    before: Annotated[tuple[Before, ...], AtMost(200)] = ()
    """What was noted of spaces before the work."""

    @model_validator(mode="after")
    def _refers_to_what_is_here(self) -> Self:
        for what, rows in (("people", self.people), ("spaces", self.spaces), ("things", self.things),
                           ("stock", self.stock), ("ranges", self.ranges), ("containers", self.containers),
                           ("work", self.work), ("sawing", self.sawing), ("money", self.money),
                           ("price_lists", self.price_lists), ("ticks", self.ticks),
                           ("places", self.places), ("stays", self.stays), ("supplies", self.supplies),
                           ("movements", self.movements), ("swaps", self.swaps), ("reviews", self.reviews),
                           ("leaving", self.leaving), ("hunts", self.hunts), ("before", self.before)):  # fmt: skip
            ids = [row.id for row in rows]
            double = next((i for n, i in enumerate(ids) if i in ids[:n]), None) if len(set(ids)) < len(ids) else None
            if double is not None:
                raise Refusal("house.double-id", what=what, id=double)
        taken = next((c.id for c in self.containers if c.id.startswith(OWN)), None)
        if taken is not None:
            raise Refusal("house.id-at-hand", id=taken)
        spaces, people = {s.id for s in self.spaces}, {p.id for p in self.people}
        for thing in self.things:
            if thing.space and thing.space not in spaces:
                raise Refusal("house.no-space", what="things", id=thing.id, space=thing.space)
            if thing.owner and thing.owner not in people:
                raise Refusal("house.no-owner", id=thing.id, owner=thing.owner)
        for session in self.work:
            if session.space not in spaces:
                raise Refusal("house.no-space", what="work", id=session.id, space=session.space)
        for entry in self.money:
            if entry.space not in spaces:
                raise Refusal("house.no-space", what="money", id=entry.id, space=entry.space)
        for tick in self.ticks:
            if tick.space not in spaces:
                raise Refusal("house.no-space", what="ticks", id=tick.id, space=tick.space)
        places, things = {p.id for p in self.places}, {t.id for t in self.things}
        for place in self.places:
            if place.space not in spaces:
                raise Refusal("house.no-space", what="places", id=place.id, space=place.space)
        for stay in self.stays:
            if stay.place not in places or stay.thing not in things:
                raise Refusal("house.no-stay", id=stay.id, place=stay.place, thing=stay.thing)
        if len({(s.place, s.thing) for s in self.stays}) < len(self.stays):
            raise Refusal("house.double-stay")
        supplies = {s.id for s in self.supplies}
        for supply in self.supplies:
            if supply.thing not in things:
                raise Refusal("house.no-thing", what="supplies", id=supply.id, thing=supply.thing)
        if len({s.thing for s in self.supplies}) < len(self.supplies):
            raise Refusal("house.double-supply")
        for swap in self.swaps:
            for row in swap.rows:
                if row.thing not in things or {row.during, row.after} - places - {""}:
                    raise Refusal("house.no-stay", id=swap.id, place=row.during or row.after, thing=row.thing)
        for leaves in self.leaving:
            if leaves.thing not in things:
                raise Refusal("house.no-thing", what="leaving", id=leaves.id, thing=leaves.thing)
        for what, kept in (("reviews", self.reviews), ("hunts", self.hunts), ("before", self.before)):
            for of_space in kept:
                if of_space.space not in spaces:
                    raise Refusal("house.no-space", what=what, id=of_space.id, space=of_space.space)
        for what, owners in (("leaving", [x.thing for x in self.leaving]), ("before", [b.space for b in self.before])):
            if len(set(owners)) < len(owners):
                raise Refusal("house.double-id", what=what, id=max(owners, key=owners.count))
        for movement in self.movements:
            if movement.supply not in supplies:
                raise Refusal("house.no-supply", id=movement.id, supply=movement.supply)
        for history in self.designs:
            if history.base.space not in spaces:
                raise Refusal("house.no-space", what="designs", id=history.base.id, space=history.base.space)
        return self

    def space(self, space_id: str) -> Space:
        """The space with this id; `NotHere` names those there are."""
        for space in self.spaces:
            if space.id == space_id:
                return space
        raise NotHere("command.no-space", space=space_id, spaces=[s.id for s in self.spaces])

    def things_in(self, space_id: str) -> tuple[Thing, ...]:
        """The things of one space."""
        return tuple(t for t in self.things if t.space == space_id)


ROWS: dict[str, tuple[type[Frozen], int]] = {
    "people": (Person, 50), "spaces": (Space, 200), "things": (Thing, 20_000), "stock": (Owned, 500),
    "ranges": (Range, 40), "containers": (Container, 500), "words": (HouseWord, 2000),
    "work": (WorkSession, 500), "designs": (History, 200), "sawing": (Sawn, 2000), "money": (MoneyEntry, 5000),
    "price_lists": (PriceList, 40), "ticks": (Tick, 5000),
    "places": (Place, 20_000), "stays": (Stay, 40_000), "supplies": (Supply, 2000), "movements": (Movement, 50_000),
    "swaps": (Swap, 200), "reviews": (Review, 5000), "leaving": (Leaving, 20_000), "hunts": (Hunt, 2000),
    "before": (Before, 200),
}  # fmt: skip
"""The house's lists: of what, and how many at most."""


def load_house(text: str | bytes) -> House:
    """Read a house file; raises `HouseFileError` with every fault: path, found, expected."""
    if len(text) > MOST_BYTES:
        raise HouseFileError((("", f"{len(text)} bytes", f"at most {MOST_BYTES} bytes"),))
    try:
        data = json.loads(text, parse_constant=_no_constant)
    except HouseFileError:
        raise
    except RecursionError:
        raise HouseFileError((("", "brackets nested too deep", "a house file"),)) from None
    except ValueError as error:
        raise HouseFileError((("", f"no JSON ({error})", "a JSON document"),)) from None
    return read_house(data)


def read_house(data: Any) -> House:
    """Read parsed JSON as a house; raises `HouseFileError` with at most `MOST_FAULTS` faults. Lists are read row by row,
    so that a file of a million faults is left after the first hundred.
    """
    faults: list[Fault] = []
    if isinstance(data, dict):
        data = {name: _rows_of(name, value, faults) if name in ROWS else value for name, value in data.items()}
    rest = {name: [] if name in ROWS and faults else value for name, value in data.items()} if faults else data
    try:
        house = House.model_validate(rest)
    except ValidationError as error:
        faults += [_fault(e) for e in error.errors()[:MOST_FAULTS]]
    if faults:
        raise HouseFileError(tuple(faults[:MOST_FAULTS]))
    for n, history in enumerate(house.designs):
        faults += [(f"designs[{n}].{path}", found, expected) for path, found, expected in replayed(history)]
        if len(faults) >= MOST_FAULTS:
            break
    if faults:
        raise HouseFileError(tuple(faults[:MOST_FAULTS]))
    return house


def _rows_of(name: str, rows: Any, faults: list[Fault]) -> Any:
    """The rows of one of the house's lists, each read by itself; what is no list, or too long, is left to the house to
    refuse.
    """
    model, most = ROWS[name]
    if not isinstance(rows, list) or len(rows) > most:
        return rows
    read: list[Any] = []
    for n, row in enumerate(rows):
        if len(faults) >= MOST_FAULTS:
            return rows
        try:
            read.append(model.model_validate(row))
        except ValidationError as error:
            faults += [_fault(e, f"{name}[{n}]") for e in error.errors()[:MOST_FAULTS]]
    return read


def dump_house(house: House) -> str:
    """The house file's text; reading it again gives an equal house."""
    return _lines(house.model_dump(mode="json", exclude_none=True), "") + "\n"


WIDEST_LINE = 400


_in_a_line = json.JSONEncoder(ensure_ascii=False).encode


def _lines(value: Any, indent: str) -> str:
    """JSON in which whatever holds no other list or object, such as a reading, stands on a line of its own."""
    rows = value.values() if isinstance(value, dict) else value if isinstance(value, list) else ()
    if not any(isinstance(row, dict | list) for row in rows):
        plain = _in_a_line(value)
        if not rows or len(plain) < WIDEST_LINE:
            return plain
    inner = indent + " "
    if isinstance(value, dict):
        parts = [f"{inner}{_in_a_line(k)}: {_lines(v, inner)}" for k, v in value.items()]
        return "{\n" + ",\n".join(parts) + f"\n{indent}}}"
    return "[\n" + ",\n".join(inner + _lines(v, inner) for v in value) + f"\n{indent}]"


def house_schema() -> dict[str, Any]:
    """JSON Schema of the house file."""
    return House.model_json_schema()


def _no_constant(name: str) -> Any:
    raise HouseFileError((("", name, "a finite number"),))


def _fault(error: Any, within: str = "") -> Fault:
    path = (within + "".join(f"[{p}]" if isinstance(p, int) else f".{p}" for p in error["loc"])).lstrip(".")
    found = "nothing" if error["type"] == "missing" else repr(error["input"])
    expected = EXPECTED.get(error["type"]) or error["msg"].removeprefix("Value error, ").removeprefix(
        "Input should be "
    )
    return path, found if len(found) <= 80 else found[:77] + "…", expected
