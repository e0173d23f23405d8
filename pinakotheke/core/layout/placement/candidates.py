"""Ways to stand modules in a space: which families at which walls, in which heights and widths, each worth furnishing.

A *fill* is what stands at one section: rows of modules, of one family or of two side by side. A *candidate* is one
fill for every section that is used. Runs are filled exactly (`run`); how fills are combined is a choice of a few that
differ, ranked by what they promise.
"""

from collections.abc import Iterable, Mapping
from dataclasses import dataclass, field

from ...survey import Envelope
from ...survey.corners import Corner, blind_zones, hidden
from ...systems import Bay, Family, Finish, Part, Row
from ...systems.rows import bays_of
from ..models import Standing

AS_IT_COMES = Finish()


@dataclass(frozen=True, slots=True)
class Fill:
    """What stands at one section."""

    section: str
    rows: tuple[tuple[Family, Row], ...]
    said: str
    """What the exact run filling says of it."""

    @property
    def families(self) -> tuple[str, ...]:
        """Ids of its families, the main one first."""
        return tuple(dict.fromkeys(f.id for f, _ in self.rows))

    @property
    def main(self) -> str:
        """The id of its main family."""
        return self.rows[0][0].id


@dataclass(frozen=True)
class Candidate:
    """Fills of one or more sections, with their bays numbered through."""

    fills: tuple[Fill, ...]
    bays: tuple[Bay, ...]
    spans: tuple[tuple[Family, Row, str, int, int], ...] = field(repr=False)
    """Of each row its family, itself, its section, and its first and last + 1 bay."""

    @property
    def run(self) -> str:
        """What the exact run filling says of it: used width, stretch, count and its bound."""
        return "; ".join(f.said for f in self.fills if f.said)

    @property
    def standing(self) -> tuple[Standing, ...]:
        """Its rows as a design keeps them."""
        return tuple(Standing(section=s, family=f.id, row=r, first=a, end=b) for f, r, s, a, b in self.spans)

    @property
    def main(self) -> str:
        """The family that makes most of its front; what lies over others makes none."""
        fronts: dict[str, int] = {}
        lying = {f.id for f, *_ in self.spans if f.lies_on}
        for b in self.bays:
            front = 0 if b.family in lying else b.w * (b.z1 - b.z0) * b.depth
            fronts[b.family] = fronts.get(b.family, 0) + front
        return max(fronts, key=fronts.__getitem__)

    @property
    def families(self) -> tuple[str, ...]:
        """Ids of its families."""
        return tuple(dict.fromkeys(b.family for b in self.bays))

    @property
    def row_numbers(self) -> tuple[int, ...]:
        """For every bay the number of its row; bays of one row line up."""
        found = [0] * len(self.bays)
        for n, (*_, first, last) in enumerate(self.spans):
            found[first:last] = [n] * (last - first)
        return tuple(found)

    def structure(self, envelopes: Mapping[str, Envelope], finish: Finish) -> tuple[Part, ...]:
        """The parts that stand whatever is stored."""
        parts: list[Part] = []
        for family, row, section, first, last in self.spans:
            made = family.structure(envelopes[section], row, self.bays[first:last], finish)
            parts += [p.model_copy(update={"section": section}) for p in made]
        return tuple(parts)

    def front(self, top: float = 1e9) -> float:
        """Front of its bays up to a height, mm²."""
        return sum(b.w * max(min(b.z1, top) - b.z0, 0) for b in self.bays)


def stand(fills: tuple[Fill, ...], envelopes: Mapping[str, Envelope], corners: Iterable[Corner],
          feet: Mapping[str, int], finish: Finish = AS_IT_COMES) -> Candidate:  # fmt: skip
    """The candidate that these fills make: bays numbered, corners and heights of levels known to each."""
    bays: list[Bay] = []
    blind = blind_zones(corners, {f.section: [(r.x, r.end + family.ends) for family, r in f.rows] for f in fills})
    spans = []
    for fill in fills:
        for family, row in fill.rows:
            first = len(bays)
            for bay in bays_of(family, row, envelopes[fill.section], fill.rows, finish):
                behind = hidden(blind.get(fill.section, []), bay.x, bay.x + bay.w)
                bays.append(bay.model_copy(update={
                    "index": len(bays), "section": fill.section, "blind": behind, "foot": feet.get(fill.section, 0),
                    "pulls": bay.pulls and not behind,
                }))  # fmt: skip
            spans.append((family, row, fill.section, first, len(bays)))
    return Candidate(fills, tuple(bays), tuple(spans))


def meet(family: Family, row: Row, other_family: Family, other: Row) -> bool:
    """Whether two rows take the same wall: beside each other, or one over the other, they do not."""
    beside = row.end + family.ends <= other.x or other.end + other_family.ends <= row.x
    low, other_low = family.lowest(row.shape), other_family.lowest(other.shape)
    return not (beside or low >= other_family.highest(other.shape) or other_low >= family.highest(row.shape))
