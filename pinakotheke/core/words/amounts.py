"""A number with its unit, as the household speaks."""

from ..saying import counted
from ..units import Units, format_mass, format_volume, with_unit

PLAIN = {"studs": "stud", "pieces": "piece", "readings": "reading", "hooks": "hook", "groups": "group"}


def amount(value: float, unit: str, units: Units) -> str:
    """A number with its unit: lengths, volumes and masses in the household's own.

    >>> amount(1797.05, "mm", "imperial"), amount(254, "mm of rail", "imperial"), amount(0.15, "", "metric")
    ('70 3/4"', '10" of rail', '15%')
    """
    if unit == "mm":
        return with_unit(value, units)
    if unit.startswith("mm of "):
        return f"{with_unit(value, units)} {unit[3:]}"
    if unit in ("litres", "l"):
        return format_volume(value, units)
    if unit == "kg":
        return format_mass(value, units)
    if unit == "":
        return f"{value:.0%}"
    if unit == "hooks":
        return f"{value:.0f} {counted(value, 'hook', 'hooks')}"
    return f"{value:g} {PLAIN.get(unit, unit) if value == 1 else unit}"


def storage_sum(by: float, unit: str, units: Units) -> str:
    """A sum of storage in few digits: metres or feet, litres or cubic feet, hooks."""
    if unit.startswith("mm"):
        return f"{by / 1000:.1f} m" if units == "metric" else f"{by / 304.8:.1f} ft"
    if unit in ("litres", "l"):
        return f"{by:.0f} l" if units == "metric" else format_volume(by, units)
    return f"{by:.0f}"
