"""Why not everything fits, and what would have to give."""

from collections.abc import Mapping

from ..layout import Blocked, Relaxation
from ..saying import counted
from ..units import Units, with_unit
from .money import money

LISTED = 6
"""Things named in one sentence."""


def _names(things: tuple[str, ...], names: Mapping[str, str]) -> str:
    return ", ".join(dict.fromkeys(names.get(t, t) for t in things[:LISTED]))


def blocked_in_words(blocked: Blocked, names: Mapping[str, str], units: Units, currency: str) -> str:
    """What stops a design from holding everything, in one sentence; `names` of things."""
    if blocked.kind == "size":
        short = with_unit(blocked.short, units)
        return f"No part fits: the clear {blocked.subject} is {short} too small for the smallest part."
    if blocked.kind == "rules":
        return "By the house rules nothing may stand on the floor and nothing may be drilled into a wall."
    if blocked.kind == "budget":
        return f"Everything fits, but for {money(blocked.short, currency)} more than the budget."
    if blocked.kind == "too many":
        return (
            f"There are {blocked.short:.0f} more {blocked.subject} than one space is searched for; join like with like."
        )
    unit = blocked.unit.removesuffix("s") if blocked.short == 1 else blocked.unit
    return f"Not everything has a place: {blocked.short:.4g} {unit} too much ({_names(blocked.things, names)})."


def relaxation_in_words(change: Relaxation, names: Mapping[str, str], units: Units, currency: str) -> str:
    """What would have to give, in one sentence."""
    many, listed = f"{change.value:.0f} {counted(change.value, 'piece', 'pieces')}", _names(change.things, names)
    return {
        "reserve": f"A growth reserve of {change.value:.0%} would do.",
        "floor": "Letting parts stand on the floor would do.",
        "access": "Stacking and two rows for what is seldom used would do.",
        "drill": "Screws in the wall would do.",
        "hangers": "Slim hangers would do.",
        "move out": f"Moving {many} to another space would do: {listed}.",
        "fewer": f"Giving {many} away would do: {listed}.",
        "budget": f"A budget of {money(change.value, currency)} would do.",
        "size": f"{with_unit(change.value, units)} more would do.",
    }[change.kind]
