"""Decanting: how much room an amount of a dry good takes once settled, and which jars take it."""

from math import ceil

from ..base import Frozen
from ..errors import NotHere
from ..tables import rows

HEADROOM = 0.92
"""A jar is filled to this share of its volume, so that a scoop goes in; common practice."""


class Jar(Frozen):
    """A jar: what it holds and its outside, mm; `lid` says whether it must come out to be opened."""

    id: str
    litres: float
    width: float
    depth: float
    height: float
    lid: str


class Decanted(Frozen):
    """An amount of a dry good and the jars it goes into."""

    good: str
    kg: float
    litres: float
    jar: Jar
    jars: int
    source: str


JARS: tuple[Jar, ...] = tuple(
    Jar(id=r["id"], lid=r["lid"], **{k: float(r[k]) for k in ("litres", "width", "depth", "height")})
    for r in rows("jars")
)


def dry_good(name: str) -> dict[str, str] | None:
    """The row of a dry good by any of its names."""
    wanted = name.strip().lower()
    return next((r for r in rows("dry_goods") if wanted in (r["id"], *r["names"].split(";"))), None)


def decant(name: str, kg: float, jars: tuple[Jar, ...] = JARS) -> Decanted:
    """The fewest jars that take `kg` of a dry good, and of those the smallest. `NotHere` for an unknown good.

    litres = kg ÷ bulk density; a jar takes its volume less headroom.
    """
    row = dry_good(name)
    if row is None:
        raise NotHere("thing.no-density", name=name)
    litres = kg / float(row["kg_per_litre"])

    def wanted(jar: Jar) -> int:
        return ceil(litres / (jar.litres * HEADROOM) - 1e-9)

    jar = min(jars, key=lambda j: (wanted(j), j.litres))
    return Decanted(good=row["id"], kg=kg, litres=litres, jar=jar, jars=wanted(jar), source=row["source"])
