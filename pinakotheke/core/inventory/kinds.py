"""The table of kinds: what a household keeps, how it may be stored, what it needs and what it can do to people."""

from types import MappingProxyType
from typing import Literal, get_args

from ..base import Frozen
from ..house import Hazard
from ..tables import rows

Way = Literal["hang", "shelf", "drawer", "shoe", "box", "hook", "floor", "overhead"]
Zone = Literal[
    "wardrobe", "entrance", "linen", "kitchen", "bath", "laundry", "office", "craft", "living", "play", "tools",
    "garden", "garage", "loft", "outdoors",
]  # fmt: skip
ZONES: tuple[Zone, ...] = get_args(Zone)
Need_ = Literal["dry", "wet", "power"]

CONSUMED = frozenset({"pantry", "cleaning", "bath", "medicine", "pets"})
"""Groups of kinds that are used up and bought again: one in use and one spare is the usual back stock."""


class Kind(Frozen):
    """One row of `tables/kinds.csv`; lengths in mm, mass in kg a piece."""

    id: str
    one: str
    many: str
    words: tuple[str, ...] = ()
    group: str = ""
    ways: tuple[Way, ...]
    rail: float = 0
    drop: float = 0
    size: tuple[float, float, float] | None = None
    mass: float
    creases: bool = False
    child: bool = False
    low: bool = False
    single: bool = False
    """Never stacked, even where stacks are."""
    long: bool = False
    upright: bool = False
    """Stands side by side on its edge, as books do."""
    alike: bool = False
    """One is as good as another, as tins are: the front one serves for those behind it, though its group is not of
    that sort.
    """
    wheels: bool = False
    """Rolls in and out: standing low it is no lift."""
    frequency: str = "weekly"
    zone: Zone | None = None
    hazards: tuple[Hazard, ...] = ()
    needs: tuple[Need_, ...] = ()
    basis: str = "C"
    note: str = ""

    @property
    def source(self) -> str:
        """What a *why* slip names."""
        return self.note or "handbook section 2, common practice"

    @property
    def is_consumed(self) -> bool:
        """Whether it is used up and bought again."""
        return self.group in CONSUMED


FLAGS = ("creases", "child", "low", "single", "long", "upright", "alike", "wheels")


def _kind(row: dict[str, str]) -> Kind:
    size = tuple(float(row[side]) for side in ("width", "depth", "height")) if row["width"] else None
    return Kind.model_validate(
        {
            **{key: row[key] for key in ("id", "one", "many", "group", "frequency", "basis", "note")},
            "words": tuple(w for w in row["words"].split(";") if w),
            "ways": tuple(row["ways"].split()),
            "rail": float(row["rail"] or 0),
            "drop": float(row["drop"] or 0),
            "size": size,
            "mass": float(row["mass"]),
            "zone": row["zone"] or None,
            "hazards": tuple(row["hazards"].split()),
            "needs": tuple(row["needs"].split()),
            **dict.fromkeys(row["flags"].split(), True),
        }
    )


CUSTOM = Kind(id="custom", one="thing", many="things", ways=("box",), mass=1.0, note="sizes given by the household")
"""Whatever has no row: its own size is asked for."""
ANY_WAY: tuple[Way, ...] = ("box", "shelf", "drawer", "floor", "hook", "overhead")
"""What may be asked of a thing of its own size; left to the design it stands on a shelf."""
JAR = Kind(id="jar-dry", one="jar of dry goods", many="jars of dry goods", group="pantry", ways=("shelf",), mass=1.5,
           size=(105, 105, 160), single=True, frequency="weekly", zone="kitchen", needs=("dry",),
           note="decanted, by bulk density")  # fmt: skip
"""A jar that a dry good was decanted into: its size is that of the jar."""

KINDS = MappingProxyType({row["id"]: _kind(row) for row in rows("kinds")} | {k.id: k for k in (CUSTOM, JAR)})


def kind_of(kind_id: str) -> Kind:
    """The row of a kind; `KeyError` names the unknown id."""
    return KINDS[kind_id]
