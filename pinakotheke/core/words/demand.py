"""What things ask of storage, in words."""

from collections.abc import Iterable

from ..inventory.demand import SHELF_DEPTHS, SHELF_HEIGHTS
from ..inventory.owned import Offer
from ..inventory.variants import Change, OverStock
from ..units import MM_PER_INCH, Units, with_unit
from .amounts import storage_sum


def class_in_words(storage: str, label: str, units: Units) -> str:
    """A demand line's name: hanging by drop, shelves by depth and height. An inch household's classes are said in round
    inches: never less than what they hold.
    """
    if storage == "hanging":
        return f"hanging, {label}"
    if not label:
        return storage
    words = []
    for side, of, classes in zip(label.split(), ("deep", "high"), (SHELF_DEPTHS, SHELF_HEIGHTS), strict=True):
        most = float(side)
        bound = classes[-2] if most == classes[-1] else most
        words.append(f"{'over' if most == classes[-1] else 'to'} {_round(bound, units)} {of}")
    return f"{storage}, {', '.join(words)}"


def _round(mm: float, units: Units) -> str:
    if units == "metric":
        return with_unit(mm, units)
    return f'{-(-mm // float(MM_PER_INCH)):.0f}"'


def changes_in_words(changes: Iterable[Change], units: Units, *, signed: bool = False) -> str:
    """Amounts of storage in a row of words: `0.7 m of hanging, 12 l drawers`."""
    words = []
    for change in changes:
        sign = ("+" if change.by > 0 else "−") if signed else ""
        short = storage_sum(abs(change.by), change.unit, units)
        if short.split()[0].strip("0."):  # too little to be said in these digits
            words.append(f"{sign}{short} {change.storage}")
    return ", ".join(words)


def purge_in_words(pieces: int, name: str, freed: Iterable[Change], units: Units) -> str:
    """What fewer of a group would free."""
    return f"{pieces} {name.lower()} fewer: {changes_in_words(freed, units)} free"


def over_stock_in_words(over: OverStock) -> str:
    """More of a consumable than is usual."""
    return f"{over.name}: {over.count}, one open and one spare is usual; {over.over} over"


def offer_in_words(offer: Offer, thing: str, owned: str) -> str:
    """A container at hand that would take a group."""
    return f"{thing} → {offer.wanted} × {owned} ({offer.free} free)"
