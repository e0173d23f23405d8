"""What a household goes by where the trade leaves a choice: boards, when a sag shows, screws, what its people lift."""

from typing import Annotated, Literal

from pydantic import Field, ValidationError

from ..base import Frozen
from ..errors import Refusal
from ..lengths import parse_length
from ..masses import parse_mass
from ..mechanics.shelves import USUAL, ShelfMake
from ..tables import load, value
from ..units import Units

Timber = Literal["spruce-pine-fir", "hem-fir", "douglas-fir-larch", "southern-pine", "c24"]


class HouseLimits(Frozen):
    """Each starts at the usual value; a household that knows better says so."""

    shelves: ShelfMake = USUAL
    """The board its shelves are cut from, and when a sag shows."""
    lift: Annotated[float, Field(ge=1, le=40)] = value("lift.load_constant")
    """What one person of the house lifts at best, kg: NIOSH's load constant, or less."""
    timber: Timber = "spruce-pine-fir"
    """What its studs and joists are made of."""
    screw: Annotated[float, Field(ge=3, le=10)] = value("fixing.screw")
    """Diameter of the screws into studs, mm."""
    thread: Annotated[float, Field(ge=10, le=120)] = value("fixing.thread")
    """Length of their thread in the wood, mm."""
    anchor: Annotated[float, Field(ge=0, le=100)] = value("fixing.anchor_shear")
    """What an anchor in a hollow wall carries across its shank, kg: a quarter of its maker's figure."""
    plug: Annotated[float, Field(ge=0, le=200)] = value("fixing.plug")
    """What a plug in masonry carries either way, kg."""

    def but(self, name: str, text: str, units: Units) -> "HouseLimits":
        """These with one of them as a person writes it: a length, a mass, or one of the choices. Raises `Refusal`."""
        row = load("limits").get(name)
        if row is None:
            raise Refusal("limit.unknown", name=name, known=list(load("limits")))
        try:
            if name == "board":
                grade, _, thick = text.rpartition("-")
                fields: dict[str, object] = {
                    "shelves": {**self.shelves.model_dump(), "grade": grade, "thickness": int(thick)}
                }
            elif name == "shows":
                fields = {"shelves": {**self.shelves.model_dump(), "shows": int(text)}}
            elif row["takes"] == "choice":
                fields = {name: text}
            else:
                fields = {name: parse_mass(text, units) if row["takes"] == "mass" else parse_length(text, units).mm}
            return HouseLimits.model_validate({**self.model_dump(), **fields})
        except (ValidationError, ValueError) as error:
            if isinstance(error, Refusal) and not isinstance(error, ValidationError):
                raise
            raise Refusal("limit.not-so", said=text, label=row["label"]) from None

    @property
    def gravity(self) -> float:
        """Specific gravity of its timber."""
        return float(load("timber")[self.timber]["gravity"])
