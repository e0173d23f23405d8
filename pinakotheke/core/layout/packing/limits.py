"""What must never be, as heights of the hand: no price buys it, in the search, in the verifier and in the checks of what
was bent by hand.

What can hurt someone is above the grip of whoever it is kept from, unless the space is locked; what is heavy is taken
out below the elbow; nothing comes out higher than the opening it goes through; fuel gas stands outdoors or not at all.
What is used weekly or more is within its owner's reach: that yields only where the thing would have no place.
"""

from collections.abc import Iterator, Mapping
from dataclasses import dataclass, field
from math import inf
from typing import Literal, NamedTuple

from ...house import Person, SpaceUse, reach_zone
from ...inventory import Thing, uses_a_month
from ...inventory.places import where_of
from ...survey import Envelope, Survey
from ...systems import HANGING, Bay, Family, Role
from ...tables import value
from .fits import Ask
from .trouble import zone_of

OFTEN = uses_a_month("weekly")
Why = Literal["gas", "hazard", "reach", "heavy", "opening"]


class Bound(NamedTuple):
    """One limit: the hand is no lower and no higher than this, mm over the room's floor, and why."""

    why: Why
    low: float = -inf
    high: float = inf

    @property
    def is_never(self) -> bool:
        """Whether nothing is placed against it."""
        return self.why != "reach"


@dataclass(frozen=True)
class Limits:
    """The limits of one household in one space."""

    people: tuple[Person, ...]
    openings: Mapping[str, float] = field(default_factory=dict)
    """Height of the opening before each section, mm."""
    locked: bool = False
    """Whether the space is locked: whoever things are kept from does not come in."""
    outdoors: bool = False

    @classmethod
    def of(cls, people: tuple[Person, ...], envelopes: Mapping[str, Envelope], *, locked: bool = False,
           outdoors: bool = False) -> "Limits":  # fmt: skip
        """Those of a space; an opening as high as the space is none."""
        lower = {s: e.opening_height for s, e in envelopes.items() if e.opening_height < e.z_to}
        return cls(people, lower, locked, outdoors)

    @classmethod
    def in_space(cls, people: tuple[Person, ...], survey: Survey, envelopes: Mapping[str, Envelope],
                 use: SpaceUse) -> "Limits":  # fmt: skip
        """Those of a space by what is said of it."""
        return cls.of(people, envelopes, locked=use.locked, outdoors=where_of(use, survey) == "outdoors")

    def opening(self, bay: Bay) -> float:
        """Height of the opening before a bay; infinite where nothing is lower than the space."""
        return self.openings.get(bay.section, inf)

    def hurts(self, thing: Thing) -> bool:
        """Whether a thing is kept from someone who comes into this space."""
        return not self.locked and bool({h for p in self.people for h in p.never_reaches} & set(thing.hazards))

    def bounds(self, thing: Thing, role: Role, bay: Bay, family: Family, a: Ask) -> Iterator[Bound]:
        """The limits of the hand that takes pieces asking for so much out of a compartment of this role."""
        if "gas" in thing.hazards and not self.outdoors:
            yield Bound("gas", inf, -inf)
        if bay.drawer is not None:
            return
        hurts = self.hurts(thing)
        if hurts:
            yield Bound("hazard", low=value("reach.locked_above"))
        if uses_a_month(thing.frequency) >= OFTEN:
            zone = zone_of(thing, self.people, role, bay, family)
            low, high = zone.low, zone.high
            if hurts and high < value("reach.locked_above"):
                # What must be out of a child's grip is handed down by whoever of the house reaches that high.
                high = max([high, *(reach_zone(p).high for p in self.people if not p.never_reaches)])
            yield Bound("reach", low, high)
        if thing.piece_mass >= value("design.heavy") and not thing.row.wheels and role != "platform":
            # Up onto a platform two lift it, or it is not lifted: the checks say so.
            yield Bound("heavy", high=value("design.low_top"))
        over = 0 if role in HANGING else max(a.clear - value("fold.over"), 0)
        yield Bound("opening", high=self.opening(bay) - over)
