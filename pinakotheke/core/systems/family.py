"""What every family of parts can be asked.

A family is a module in `families/` with one subclass of `Family`, and a table of the same name: the module knows how
parts stand and what carries them, the table holds sizes, ratings, prices and what each compartment takes. Most
answers are the same for all and are given here from the table.
"""

from abc import ABC, abstractmethod
from collections.abc import Callable, Iterator
from decimal import Decimal
from functools import cached_property
from itertools import accumulate
from typing import Any, Literal

from ..base import Frozen
from ..errors import PinakothekeError
from ..survey import Envelope
from ..survey.models import Section
from ..tables import load
from .parts import FRONTS, HANGING, PULL_OUTS, Bay, Holder, Part, Role
from .standing import free_stretches, rail_distance, setback_for

CENT = Decimal("0.01")
SectionKind = Literal["run", "level", "drawer", "door back", "void", "stack"]


class Finish(Frozen):
    """How a design is finished: what a person chooses beside the storage itself."""

    doors: Literal["none", "hinged", "sliding", "curtain"] = "none"
    base: Literal["plinth", "legs"] = "plinth"
    fronts: Literal["solid", "glass", "mesh"] = "solid"
    crown: bool = False
    lights: bool = False
    fascia: bool = False
    """Strips over standards and shelf edges: they look rich and make drawers narrower."""
    ventilated: bool = False
    """Open wire or slats instead of boards."""
    sloped_shoes: bool = False
    """Shoe shelves that slope toward the hand instead of flat ones: the pairs are seen, and take more height."""


class Shape(Frozen):
    """Height and depth chosen for a row; `height` is the top above the floor, `setback` how far it stands out from the
    back of the clear space, mm. A row of boards cut to a slope may be one storey of several: it begins at `foot`, and
    the boards of its `cut` end run on until they meet the ceiling (*level*: the lowest storey, from wall to wall).
    """

    height: int
    depth: int
    member: int
    """What is bought: the carcase's height, or the standard's length; of a storey, to where things may reach."""
    setback: int = 0
    foot: int = 0
    cut: Literal["", "level", "left", "right"] = ""

    @property
    def is_storey(self) -> bool:
        """Whether it is one storey of boards under a slope."""
        return self.foot > 0 or self.cut != ""


class Row(Frozen):
    """Modules side by side: where the row begins and its widths."""

    shape: Shape
    x: int
    widths: tuple[int, ...]

    @property
    def end(self) -> int:
        """x where its last module ends."""
        return self.x + sum(self.widths)


class Spec(Frozen):
    """What a compartment of one role is in one family: a section of the family's table.

    `sides` and `back` are the mm of width and depth lost inside it; `above` what must stay free above it; `price`
    names the row of prices; `cover` whether a column of them needs a board above.
    """

    ways: tuple[str, ...]
    height: int = 18
    rating: float = 0
    rating_per_m: float = 0
    capacity: Literal["width", "area", "depth"] = "width"
    sides: int = 0
    back: int = 0
    above: int = 0
    fronts: tuple[int, ...] = ()
    lost_height: int = 0
    cover: bool = False
    on_floor: bool = False
    kinds: tuple[str, ...] = ()
    """Kinds of things it is made for; empty takes any."""
    ease: float = 1.0
    """Share of the trouble of reaching into it that is left: what comes out to the hand halves it."""
    least_width: int = 0
    least_depth: int = 0
    most_depth: int = 10_000
    hours: float = 0.1


class Component(Frozen):
    """What one compartment of a role costs and carries in a given bay."""

    role: Holder
    item: str
    height: int
    """Thickness of the part itself, or the height of its front, mm."""
    price: Decimal
    rating: float
    """Kilograms, everything in or on it together."""
    capacity: float
    """mm of rail or shelf, or mm² of drawer floor."""
    hours: float


class NoSuchFamily(PinakothekeError, KeyError):
    """A design names a family that is not here."""

    def __str__(self) -> str:
        return f"There is no family of parts called {self.args[0]!r}."


def _floor(part: Part) -> float:
    return float(part.w * part.d)


AREAS: dict[Role, Callable[[Part], float]] = {
    "frame": lambda p: 2 * p.h * p.d + 2 * p.w * p.d + p.w * p.h,
    "trolley": lambda p: 2 * p.h * p.d + 2 * p.w * p.d,
    "door": lambda p: p.w * p.h,
    "panel": lambda p: p.w * p.h,
    "curtain": lambda p: p.w * p.h,
    "divider": lambda p: p.h * p.d,
    "drawer": lambda p: p.w * (p.h + p.d),
    "basket": lambda p: p.w * (p.h + p.d),
    "hamper": lambda p: p.w * (p.h + p.d),
}
"""Area by which a part is priced, mm², where it is not its floor."""


class Family(ABC):
    """A family of parts; its numbers stand in its table."""

    id: str
    places: frozenset[SectionKind] = frozenset({"run"})
    """Kinds of section it can be put into."""
    stands: bool = False
    """Whether it stands on the floor; a household that keeps its floor clear has none of it."""
    drills: bool = True
    """Whether it needs screws in a wall or ceiling."""

    on_what_is_there: bool = False
    """Whether its bottom is a board of the place itself, which is no part of what is built."""

    def __init__(self, table: dict[str, Any] | None = None, family_id: str = "") -> None:
        self._own = table
        if family_id:
            self.id = family_id

    @property
    def kind(self) -> str:
        """The id of the family that ships, of which a household's range is another make."""
        return type(self).id

    @cached_property
    def table(self) -> dict[str, Any]:
        """Its table: the one that ships, or a household's own."""
        return self._own if self._own is not None else load(self.id)

    @property
    def name(self) -> str:
        """Its name for people."""
        return str(self.table["name"])

    @property
    def spoken(self) -> str:
        """Its name within a sentence; a range keeps the name that its household gave it."""
        return self.name if self._own is not None else self.name[0].lower() + self.name[1:]

    @cached_property
    def specs(self) -> dict[Holder, Spec]:
        """What its compartments are, by role."""
        return {role: Spec.model_validate(row) for role, row in self.table["compartment"].items()}

    @cached_property
    def _by_name(self) -> dict[str, Spec]:
        return {str(role): spec for role, spec in self.specs.items()}

    @property
    def roles(self) -> frozenset[Holder]:
        """Compartments it can make, beside the base a bay may have."""
        return frozenset(self.specs) - {"base"}

    def modules_at(self, shape: Shape) -> tuple[int, ...]:
        """Widths of the range at one height and depth: where articles are listed, those that are."""
        listed, made_by = self.table.get("listed", {}), self.table.get("made_by", {})
        main = next((kind for kind in listed if "width" in made_by.get(kind, {})), None)
        if main is None:
            return self.modules
        member = shape.member - self.table.get(self.table.get("stands_on", {}).get(main, ""), 0)
        there = {w for w, d, h, _ in listed[main] if d in (0, shape.depth) and h in (0, member)}
        return tuple(m for m in self.modules if m in there)

    # -- how parts stand: each family's own --

    @property
    @abstractmethod
    def modules(self) -> tuple[int, ...]:
        """Widths a bay can have along the run, ascending."""

    @property
    def ends(self) -> int:
        """Run length taken beside the modules themselves, mm."""
        return 0

    @property
    def corners(self) -> tuple[int, ...]:
        """Widths of modules made for a corner; none when any module will do."""
        return ()

    @abstractmethod
    def shapes(self, envelope: Envelope, finish: Finish) -> tuple[Shape, ...]:
        """Heights and depths that stand in the envelope, tallest and deepest first; empty when none does."""

    def standing_shapes(self, envelope: Envelope) -> tuple[Shape, ...]:
        """Every height and depth of the table that stands in the envelope, under a slope as far out as it must."""
        found = []
        for height in sorted((h for h in self.table["heights"] if h <= envelope.z_to), reverse=True):
            for depth in sorted(self.table["depths"], reverse=True):
                setback = setback_for(envelope, height, depth)
                if setback is not None:
                    found.append(Shape(height=height, depth=depth, member=height, setback=setback))
        return tuple(found)

    @abstractmethod
    def bays(self, envelope: Envelope, row: Row) -> tuple[Bay, ...]:
        """The bays of a row of modules, from index 0."""

    @abstractmethod
    def structure(self, envelope: Envelope, row: Row, bays: tuple[Bay, ...], finish: Finish) -> tuple[Part, ...]:
        """The parts that stand whatever is stored: frames, plinths, fillers, track, standards."""

    def storeys(self, envelope: Envelope) -> Iterator[tuple[Row, ...]]:
        """Rows above each other under a ceiling that falls along the wall, where the family cuts boards to it."""
        return iter(())

    def suits(self, section: Section) -> bool:
        """Whether it can be put into a section at all."""
        return section.kind in self.places

    def fillings(self, length: int) -> Iterator[tuple[int, ...]] | None:
        """Rows of modules for a stretch, where the family cuts to the wall; None when it takes them from its range."""
        return None

    def stretches(self, envelope: Envelope, shape: Shape) -> tuple[tuple[int, int], ...]:
        """x ranges in which modules may stand side by side: the clear width, parted by what closes it."""
        start, end = envelope.span(0, shape.height)
        back = envelope.y_from + shape.setback
        return free_stretches(start, end, [
            (c.x0, c.x1) for c in envelope.closed
            if c.z0 < shape.height and c.y1 > back and c.y0 < back + shape.depth and not self._passes(c.loose)
        ])  # fmt: skip

    def _passes(self, loose: bool) -> bool:
        """Whether it may stand before what only asks to be reached."""
        return False

    def barred(self, envelope: Envelope, shape: Shape) -> tuple[tuple[int, int], ...]:
        """x ranges strictly inside which the left edge of an upright (standard, post, gable) may not be."""
        return ()

    def allows(self, envelope: Envelope, row: Row) -> bool:
        """Whether a row may stand where it begins."""
        if not any(a <= row.x and row.end + self.ends <= b for a, b in self.stretches(envelope, row.shape)):
            return False
        barred = self.barred(envelope, row.shape)
        return not any(lo < at < hi for at in accumulate(row.widths, initial=row.x) for lo, hi in barred)

    def smallest(self) -> int:
        """Least run length in which one module stands."""
        return self.modules[0] + self.ends

    def finished(self, bay: Bay, finish: Finish) -> Bay:
        """A bay as its finish makes it: fascias narrow what slides out, fronts and boards are of another make."""
        trim = int(self.table.get("fascia", 0)) if finish.fascia else 0
        return bay.model_copy(update={"trim": trim, "fronts": finish.fronts, "open_boards": finish.ventilated,
                                       "sloped": finish.sloped_shoes})  # fmt: skip

    # -- compartments: from the table --

    def spec(self, role: Role) -> Spec:
        """What a compartment of a role is; a base counts as a shelf. `KeyError` for a role it has not."""
        return self._by_name.get(role) or self._by_name["shelf" if role == "base" else role]

    def spec_or_none(self, role: Role) -> Spec | None:
        """What a compartment of a role is; None where its parts have no front to be kept."""
        spec = self._by_name.get(role)
        return spec if spec is not None and spec.fronts else None

    def component(self, role: Holder, bay: Bay, front: int = 0) -> Component:
        """What a compartment of this role is in this bay."""
        spec = self.spec(role)
        height = front or (spec.fronts[0] if spec.fronts else spec.height)
        part = self.placed(bay, "x", role, bay.z0, height)
        price = self.price(part) + sum((self.price(b) for b in self.brackets(part, bay)), Decimal(0))
        return Component(role=role, item=part.item, height=height, price=price, rating=self.rating(part, bay),
                         capacity=self.capacity(role, bay), hours=spec.hours)  # fmt: skip

    def capacity(self, role: Role, bay: Bay) -> float:
        """mm of rail or shelf, or mm² of drawer floor."""
        kind, width = self.spec(role).capacity, self.clear_width(role, bay)
        return {"width": width, "area": width * self.clear_depth(role, bay), "depth": float(bay.depth)}[kind]

    def rating(self, part: Part, bay: Bay) -> float:
        """Kilograms everything in a compartment may weigh together."""
        spec = self.spec(part.role)
        return spec.rating_per_m * part.w / 1000 if spec.rating_per_m else spec.rating

    def clear_width(self, role: Role, bay: Bay) -> float:
        """Width in mm that things have inside a compartment of this role."""
        trim = bay.trim if role in PULL_OUTS else 0
        return float(
            bay.w - trim - self.spec(role).sides - sum(min(c[1], bay.x + bay.w) - max(c[0], bay.x) for c in bay.cuts)
        )

    def clear_depth(self, role: Role, bay: Bay) -> float:
        """Depth in mm that things have in a compartment of this role."""
        return float((bay.hang_depth if role in HANGING else bay.depth) - self.spec(role).back)

    def placed(self, bay: Bay, part_id: str, role: Role, z: int, height: int = 0) -> Part:
        """A holding part (or a cover) standing in a bay, its foot at z."""
        spec = self.spec("shelf" if role == "cover" and "shelf" in self.specs else role)
        y, d, h = bay.y, bay.depth, height or (spec.fronts[0] if spec.fronts else spec.height)
        if role in ("rail", "tie rack"):
            # The tube alone: its centre stands at the hanging distance from the wall.
            y, d = bay.y + rail_distance(bay) - h // 2, h
        kind = self._article("shelf" if role == "cover" else role, bay)
        return Part(id=part_id, item=f"{self.id}.{kind.replace(' ', '-')}", role=role, section=bay.section,
                    bay=bay.index, x=bay.x, y=y, z=z, w=bay.w, d=d, h=h, fixed_to=self.carrier(bay),
                    cuts=bay.cuts if role in ("shelf", "base", "cover", "floor", "hooks") else ())  # fmt: skip

    def _article(self, kind: str, bay: Bay) -> str:
        """The article a part is bought as: with another front, or open instead of a board, where there is one."""
        own = {"drawer": f"{bay.fronts}-drawer", "shelf": "wire-shelf" if bay.open_boards else "",
               "shoe shelf": "sloped-shoe-shelf" if bay.sloped else ""}.get(kind, "")  # fmt: skip
        return own if own in self.table["price"] else kind

    def carrier(self, bay: Bay) -> str:
        """The id of the part that carries what is in a bay."""
        return f"frame-{bay.index + 1}"

    def meets_sides(self, part: Part, bay: Bay) -> bool:
        """Whether a part reaches from side to side of its bay, or is carried otherwise."""
        return part.x == bay.x and part.x + part.w == bay.x + bay.w

    def foot(self, bay: Bay) -> int:
        """From where a bay's compartments may begin along its axis: with its base, if it has one."""
        return bay.z0 - (self.spec("base").height if bay.has_base else 0)

    def takes(self, part: Part, clear: float) -> tuple[float, float]:
        """From and to along the bay's axis that a holding part and its contents take; `clear` is the height of the
        tallest thing in it with the room to get it out.
        """
        above = self.spec(part.role).above
        if part.role in HANGING:
            return part.z - max(clear - above, 0), float(part.z + part.h + above)
        if part.role in FRONTS:
            return float(part.z), float(part.z + part.h)
        return float(part.z), part.z + part.h + max(clear, 0)

    def brackets(self, part: Part, bay: Bay) -> tuple[Part, ...]:
        """Parts that come with a placed compartment, such as the brackets under a shelf."""
        return ()

    def price(self, part: Part) -> Decimal:
        """Price of one placed part; zero for what comes with another."""
        prices = self.table["price"]
        key = part.item.split(".")[1]
        if key not in prices:
            return Decimal(0)
        listed = self._listed_price(key, part)
        if listed is not None:
            return listed
        area = AREAS.get(part.role, _floor)(part)
        return self.priced(key, area_mm2=area, length_mm=max(part.w, part.d, part.h))

    def _listed_price(self, key: str, part: Part) -> Decimal | None:
        """The price of the smallest listed article that is at least so wide, deep and high (a size that is not listed
        is cut to measure); None when the list has none.
        """
        best: tuple[int, float] | None = None
        for w, d, h, price in self.table.get("listed", {}).get(key, ()):
            if all(not size or size >= asked for size, asked in ((w, part.w), (d, part.d), (h, part.h))):
                rank = (max(w, 1) * max(d, 1) * max(h, 1), price)
                best = rank if best is None else min(best, rank)
        return None if best is None else Decimal(str(best[1])).quantize(CENT)

    def priced(self, key: str, *, area_mm2: float = 0, length_mm: float = 0) -> Decimal:
        """Fixed price plus price per m² or per m from the table, to the cent."""
        row = self.table["price"][key]
        total = row.get("fixed", 0) + row.get("per_m2", 0) * area_mm2 / 1e6 + row.get("per_m", 0) * length_mm / 1e3
        return Decimal(str(total)).quantize(CENT)

    def named(self, part: Part) -> str:
        """What a part is called for people."""
        names = self.table.get("names", {})
        return str(names.get(part.item.split(".")[1]) or names.get(part.role, part.role.capitalize()))

    def called(self, article: str) -> str:
        """What an article of the price list is called for people."""
        names, plain = self.table.get("names", {}), article.replace("-", " ")
        return str(names.get(article) or names.get(plain) or plain.capitalize())

    def extras(self, parts: tuple[Part, ...]) -> Iterator[tuple[str, str, int, int, Decimal, str]]:
        """What is bought beside the parts: key, name, needed, per pack, price of a pack, unit."""
        return iter(())

    def anchored(self, part: Part) -> bool:
        """Whether a part can tip over and is checked for it."""
        return part.role == "frame"
