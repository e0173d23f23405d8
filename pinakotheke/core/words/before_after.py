"""Before and after in words: figures beside each other."""

from ..units import Units
from ..upkeep.before_after import Times

SQUARE_FEET = 10.7639
FEET = 3.28084


def metres(found: float | None, units: Units) -> str:
    """Metres, or feet, to a tenth; nothing where nobody knows."""
    if found is None:
        return ""
    return f"{found:.1f} m" if units == "metric" else f"{found * FEET:.1f} ft"


def square_metres(found: float | None, units: Units) -> str:
    """Square metres, or square feet, to a tenth."""
    if found is None:
        return ""
    return f"{found:.1f} m²" if units == "metric" else f"{found * SQUARE_FEET:.0f} sq ft"


def times_in_words(found: Times | None) -> str:
    """A game: `ten things in 4 min 10 s, 12 s for one, all found`."""
    if found is None:
        return ""
    minutes, seconds = divmod(round(found.total), 60)
    whole = f"{minutes} min {seconds} s" if minutes else f"{seconds} s"
    all_found = "all found" if found.found == found.of else f"{found.found} of {found.of} found"
    return f"{whole} for {found.of}, {found.middle:.0f} s for one, {all_found}"
