"""What must never be, as heights of the hand: no price buys it, in the search, the verifier and the checks alike.

What is used weekly or more is within its owner's reach; what can hurt someone is above the grip of whoever it is kept
from; what is heavy is taken out below the elbow; nothing comes out higher than the opening it goes through.
"""

from collections.abc import Mapping
from dataclasses import dataclass, field
from math import inf

from ..house import Person
from ..inventory import Thing, uses_a_month
from ..survey import Envelope
from ..systems import HANGING, Bay, Family, Role
from ..systems.roles import REACHED_OVER
from ..tables import value
from .fits import Ask
from .trouble import zone_of

OFTEN = uses_a_month("weekly")


@dataclass(frozen=True)
class Limits:
    """The limits of one household in one space."""

    people: tuple[Person, ...]
    openings: Mapping[str, float] = field(default_factory=dict)
    """Height of the opening before each section, mm."""

    @classmethod
    def of(cls, people: tuple[Person, ...], envelopes: Mapping[str, Envelope]) -> "Limits":
        """Those of a space; an opening as high as the space is none."""
        lower = {s: e.opening_height for s, e in envelopes.items() if e.opening_height < e.z_to}
        return cls(people, lower)

    def opening(self, bay: Bay) -> float:
        """Height of the opening before a bay; infinite where nothing is lower than the space."""
        return self.openings.get(bay.section, inf)

    def hand(self, thing: Thing, role: Role, bay: Bay, family: Family, a: Ask) -> tuple[float, float]:
        """Least and greatest height of the hand, mm, that takes out of a compartment of this role pieces that ask for
        so much; the least above the greatest where nothing will do.
        """
        low, high = -inf, inf
        if bay.drawer is not None:
            return low, high
        if uses_a_month(thing.frequency) >= OFTEN:
            zone = zone_of(thing, self.people, family.clear_depth(role, bay) if role in REACHED_OVER else 0)
            low, high = zone.low, zone.high
        if {h for p in self.people for h in p.may_not_reach} & set(thing.hazards):
            low = max(low, value("reach.locked_above"))
        if thing.piece_mass >= value("design.heavy") and not thing.row.wheels:
            high = min(high, value("design.low_top"))
        comes_out = self.opening(bay) - (0 if role in HANGING else max(a.clear - value("fold.over"), 0))
        return low, min(high, comes_out)
