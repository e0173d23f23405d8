"""People and the heights they reach."""

from typing import Annotated, Literal

from pydantic import Field

from ..base import Frozen, Id, Name
from ..tables import entry

Posture = Literal["standing", "seated", "both"]
Hazard = Literal["poison", "medicine", "blade", "fuel", "gas", "hot", "battery", "breaks", "frost"]
HURTS: frozenset[Hazard] = frozenset({"poison", "medicine", "blade", "fuel", "gas", "hot"})
"""What a child never has in its grip; what only breaks is kept from it as far as it goes."""
KEPT_FROM_CHILDREN: tuple[Hazard, ...] = ("poison", "medicine", "blade", "fuel", "gas", "hot", "battery", "breaks")
"""What a child may not reach unless the household says otherwise (handbook section 3, common practice)."""


class Person(Frozen):
    """Someone whose things are kept here. `stature` is standing height in mm."""

    id: Id
    name: Name
    stature: Annotated[float, Field(ge=500, le=2400)] = 1700
    posture: Posture = "standing"
    age: Literal["child", "adult", "older"] = "adult"
    hand: Literal["right", "left"] = "right"
    pronoun: Literal["", "her", "his", "their"] = ""
    """How a quick-add line may name whose a thing is: `14 shirts, hers`."""
    kept_from: tuple[Hazard, ...] | None = None
    """What this person may not reach; None leaves it to the usual: children from what hurts, others from nothing."""

    @property
    def may_not_reach(self) -> tuple[Hazard, ...]:
        """The hazards kept from this person."""
        if self.kept_from is not None:
            return self.kept_from
        return KEPT_FROM_CHILDREN if self.age == "child" else ()

    @property
    def never_reaches(self) -> frozenset[Hazard]:
        """Of them those that must never be in this person's grip: what was named, or what hurts."""
        return frozenset(self.kept_from) if self.kept_from is not None else frozenset(self.may_not_reach) & HURTS


class ReachZone(Frozen):
    """Heights above the floor in mm: within `low`..`high` a person reaches; `easy_low`..`easy_high` is best."""

    low: float
    easy_low: float
    easy_high: float
    high: float
    basis: str
    source: str


def reach_zone(person: Person, depth: float = 0) -> ReachZone:
    """The heights `person` reaches without a stool, at the front edge or `depth` mm over a shelf.

    Standing: grip at 1.204 stature, less half of the depth reached over; easy from knee to eye. Someone who sits
    always or on some days is held to the unobstructed seated range; depth does not shorten it here, since storage
    shallower than 635 mm is entered by the arm, not reached over.
    """
    if person.posture in ("seated", "both"):
        low, high = entry("reach.seated_low"), entry("reach.seated_high")
        return ReachZone(
            low=low.value, easy_low=low.value, easy_high=high.value, high=high.value,
            basis=high.basis, source=high.source,
        )  # fmt: skip
    grip, eye, knee = entry("reach.grip"), entry("reach.eye"), entry("reach.knee")
    high_mm = grip.value * person.stature - entry("reach.over_depth").value * depth
    return ReachZone(
        low=0,
        easy_low=knee.value * person.stature,
        easy_high=min(eye.value * person.stature, high_mm),
        high=high_mm,
        basis=grip.basis,
        source=f"{grip.source}; {eye.source}",
    )


def eye_height(person: Person) -> float:
    """How high a person's eyes are over the floor, mm: standing by stature, seated as an adult in a wheelchair."""
    if person.posture in ("seated", "both"):
        return entry("reach.seated_eye").value
    return entry("reach.eye").value * person.stature


def shared_zone(people: tuple[Person, ...], depth: float = 0) -> ReachZone:
    """Where a thing that belongs to nobody in particular can be reached by every adult of the house."""
    adults = [p for p in people if p.age != "child"] or list(people) or [Person(id="anyone", name="anyone")]
    zones = [reach_zone(p, depth) for p in adults]
    tightest = min(zones, key=lambda z: z.high)
    return tightest.model_copy(
        update={
            "low": max(z.low for z in zones),
            "easy_low": max(z.easy_low for z in zones),
            "easy_high": min(z.easy_high for z in zones),
        }
    )
