"""What a household goes by, as it is shown: each beside its usual value."""

from ..base import Frozen
from ..errors import Refusal
from ..house import HouseLimits
from ..mechanics.materials import boards
from ..mechanics.shelves import ShelfMake
from ..tables import load
from ..units import Units, format_mass, with_unit
from .acts import make_in_words


class LimitRow(Frozen):
    """One limit: its name, what it decides, what it is and usually is; `choices` (value and words) where one chooses."""

    name: str
    label: str
    about: str
    text: str
    usual: str
    choices: tuple[tuple[str, str], ...] = ()


def limit_rows(limits: HouseLimits, units: Units) -> tuple[LimitRow, ...]:
    """Every limit in the order of the table."""
    return tuple(_row(name, row, limits, units) for name, row in load("limits").items())


def limits_in_words(limits: HouseLimits, units: Units) -> str:
    """What a household goes by, in a line: *Boards of shelves: 18 mm particleboard; a sag shows from: span / 200*."""
    rows = ((row, dict(row.choices).get(row.text, row.text)) for row in limit_rows(limits, units))
    return "; ".join(f"{row.label}: {said}" for row, said in rows) + "."


def usual_text(name: str, units: Units) -> str:
    """The usual value of a limit as a person would write it; raises `Refusal` for what is no limit."""
    if name not in load("limits"):
        raise Refusal("limit.unknown", name=name, known=list(load("limits")))
    return _said(name, HouseLimits(), units)


def _row(name: str, row: dict[str, str], limits: HouseLimits, units: Units) -> LimitRow:
    about = row.get(f"about_{units}", row["about"])
    usual, choices = HouseLimits(), dict(_choices(name, units))
    now, then = _said(name, limits, units), _said(name, usual, units)
    return LimitRow(name=name, label=row["label"], about=about, text=now, usual=choices.get(then, then),
                    choices=tuple(choices.items()))  # fmt: skip


def _choices(name: str, units: Units) -> list[tuple[str, str]]:
    if name == "board":
        return [(f"{grade}-{t}", make_in_words(ShelfMake(grade=grade, thickness=t), units))
                for grade, board in boards().items() for t in board.thicknesses]  # fmt: skip
    if name == "timber":
        return [(key, row["name"]) for key, row in load("timber").items()]
    return list(load("limits")[name].get("choices", {}).items())


def _said(name: str, limits: HouseLimits, units: Units) -> str:
    if name == "board":
        return f"{limits.shelves.grade}-{limits.shelves.thickness}"
    if name == "shows":
        return str(limits.shelves.shows)
    value = getattr(limits, name)
    if isinstance(value, str):
        return value
    return format_mass(value, units) if load("limits")[name]["takes"] == "mass" else with_unit(value, units)
