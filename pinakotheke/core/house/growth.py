"""How tall a child is likely to be, so that hooks and rails are set for the next years."""

from ..errors import Refusal
from ..tables import entry, load


def usual_stature(years: float) -> float:
    """Stature in mm halfway among children of an age, both sexes together, straight between the table's years.

    Raises `ValueError` outside 2 to 16 years.

    >>> usual_stature(7), usual_stature(7.5)
    (1218.0, 1248.0)
    """
    table = {int(age): float(mm) for age, mm in load("growth")["stature"].items()}
    low, high = min(table), max(table)
    if not low <= years <= high:
        raise Refusal("house.no-stature", low=low, high=high)
    below = int(years)
    if below == high:
        return table[high]
    share = years - below
    return table[below] + (table[below + 1] - table[below]) * share


def stature_after(stature: float, years: float, later: float) -> float:
    """Stature in mm some years later of a child that keeps its place among those of its age."""
    return stature * usual_stature(min(years + later, 16)) / usual_stature(years)


def source() -> str:
    """Where the table comes from."""
    return entry("reach.child_table").source
