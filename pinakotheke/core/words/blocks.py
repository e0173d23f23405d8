"""Why not everything fits, and what would have to give."""

from collections.abc import Mapping
from dataclasses import dataclass, field

from ..layout import Blocked, NoPlace, Relaxation
from ..saying import counted, say
from ..tables import load
from ..units import Units, with_unit
from .money import money

LISTED = 6
"""Things named in one sentence."""


@dataclass(frozen=True)
class Speech:
    """How a household speaks: its names of things and spaces, its units and its money."""

    names: Mapping[str, str]
    units: Units
    currency: str
    spaces: Mapping[str, str] = field(default_factory=dict)

    def listed(self, things: tuple[str, ...]) -> str:
        """The names of some things, not too many."""
        return ", ".join(dict.fromkeys(self.names.get(t, t) for t in things[:LISTED]))


def blocked_in_words(blocked: Blocked, speech: Speech) -> str:
    """What stops a design from holding everything, in one sentence."""
    if blocked.kind == "size":
        short = with_unit(blocked.short, speech.units)
        return f"No part fits: the clear {blocked.subject} is {short} too small for the smallest part."
    if blocked.kind == "rules":
        return "By the house rules nothing may stand on the floor and nothing may be drilled into a wall."
    if blocked.kind == "budget":
        return f"Everything fits, but for {money(blocked.short, speech.currency)} more than the budget."
    if blocked.kind == "too many":
        return (
            f"There are {blocked.short:.0f} more {blocked.subject} than one space is searched for; join like with like."
        )
    unit = blocked.unit.removesuffix("s") if blocked.short == 1 else blocked.unit
    return f"Not everything has a place: {blocked.short:.4g} {unit} too much ({speech.listed(blocked.things)})."


def no_place_in_words(refused: NoPlace, speech: Speech) -> str:
    """Why a thing has no place: the thing, the size and by how much it misses."""
    table = load("no_place")
    facts = {"thing": speech.names.get(refused.thing, refused.thing), "count": refused.count,
             "measured": refused.measured, "limit": refused.limit, "spare": refused.spare, "over": refused.over,
             "storage": table["storage"].get(refused.storage, "")}  # fmt: skip
    return say(table[refused.why]["says"], facts, speech.units)


def relaxation_in_words(change: Relaxation, speech: Speech) -> str:
    """What would have to give, in one sentence, and what everything would then cost."""
    many, listed = f"{change.value:.0f} {counted(change.value, 'piece', 'pieces')}", speech.listed(change.things)
    there = ", ".join(f"{speech.names.get(t, t)} to {speech.spaces.get(s, s)}" for t, s in change.moves[:LISTED])
    said = {
        "reserve": f"A growth reserve of {change.value:.0%} would do",
        "access": "Stacking and two rows for what is seldom used would do",
        "hangers": "Slim hangers would do",
        "fold": "Laying away what creases, where the rails are full, would do",
        "measure": f"Measure {change.name} too: what has no place here may go there",
        "fact": f"The {change.name} keeps {with_unit(change.value, speech.units)} of the wall clear, and with less of "
                "that everything would fit: read its label, and measure again",
        "floor": "Letting parts stand on the floor would do",
        "drill": "Screws in the wall would do",
        "lock": "A lock on this space would do: what hurts may then stand low",
        "families": "Building with every kind of part would do",
        "spares": f"Keeping half of what is seldom wanted elsewhere would do: {many} of {listed}",
        "elsewhere": f"Another space has room: {there}",
        "move out": f"Moving {many} to another space would do: {listed}",
        "fewer": f"Giving {many} away would do: {listed}",
        "budget": f"A budget of {money(change.value, speech.currency)} would do",
        "size": f"{with_unit(change.value, speech.units)} more would do",
    }[change.kind]  # fmt: skip
    cost = f"; everything for {money(change.cost, speech.currency)}" if change.cost is not None else ""
    return f"{said}{cost}."
