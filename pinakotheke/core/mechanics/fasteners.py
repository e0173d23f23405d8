"""What screws hold, and how a load away from a wall comes to them.

Withdrawal: AWC *National Design Specification for Wood Construction* (NDS), 2018, 12.2.1 and 12.2.2 (from memory), in
pounds per inch of thread in the main member; converted here. Reference values, for the load duration of ten years that
tables are made for, screws driven into side grain.
"""

from typing import NamedTuple

from ..units import KG_PER_POUND

INCH = 25.4


class Pulled(NamedTuple):
    """What one fixing bears, kg of load each: across its shank, and out of the wall."""

    shear: float
    pull: float


def screw_withdrawal(gravity: float, diameter: float, thread: float) -> float:
    """Kilograms that hold a wood screw: W = 2850 G² D lb/in, with the specific gravity G, the diameter and the length of
    thread in the wood in mm.
    """
    return 2850 * gravity**2 * (diameter / INCH) * (thread / INCH) * KG_PER_POUND


def lag_withdrawal(gravity: float, diameter: float, thread: float) -> float:
    """Kilograms that hold a lag screw: W = 1800 G^1.5 D^0.75 lb/in, arguments as of `screw_withdrawal`."""
    held: float = 1800 * gravity**1.5 * (diameter / INCH) ** 0.75 * (thread / INCH) * KG_PER_POUND
    return held


def top_pull(load: float, out: float, lever: float) -> float:
    """Kilograms that pull at the top fixing of a bracket or standard: load × distance of its centre from the wall ÷ height
    of the fixing over the lowest bearing point. Raises `ValueError` for a fixing without a lever.
    """
    if lever <= 0:
        raise ValueError(f"a fixing at its lowest bearing point holds nothing back, got {lever} mm")
    return load * out / lever


def used(load: Pulled, bears: Pulled) -> float:
    """Share of a fixing that is used by shear and pull together, added up: a straight line between the two is on the safe
    side of NDS 12.4.1's angle formula. Infinite where it bears nothing of what it is asked.
    """
    shares = [(load.shear, bears.shear), (load.pull, bears.pull)]
    return sum(asked / there if there else float("inf") for asked, there in shares if asked > 0)


def shared(at: float, load: float, places: tuple[float, ...]) -> dict[int, float]:
    """How a load at a place along a rail is shared among the fixings of the rail, by number: by lever between the two next
    to it, beyond the last by lever of the last two, whose inner one is then relieved. `places` ascend; one bears all.

    >>> shared(250, 8, (0, 1000)), shared(300, 5, (300,))
    ({0: 6.0, 1: 2.0}, {0: 5})
    """
    if len(places) == 1:
        return {0: load}
    right = next((n for n, x in enumerate(places) if x >= at), len(places) - 1)
    right = max(right, 1)
    left = right - 1
    share = (at - places[left]) / (places[right] - places[left])
    return {left: load * (1 - share), right: load * share}
