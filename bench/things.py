"""A heap of 5,000 groups: what is asked, what it would be otherwise, and where it all lives."""

from time import perf_counter

from pinakotheke.core.house import HouseRules, Person
from pinakotheke.core.inventory import KINDS, Thing, demand
from pinakotheke.core.inventory.places import Place
from pinakotheke.core.inventory.things import BANDS
from pinakotheke.core.inventory.variants import other_schools, piles
from pinakotheke.core.inventory.zones import homes

GROUPS = 5000
ALLOWED_MS = {"demand": 200}


def heap(groups: int) -> tuple[Thing, ...]:
    """Every kind in turn."""
    kinds = [k for k in KINDS.values() if k.id != "custom"]
    rows = (kinds[n % len(kinds)] for n in range(groups))
    return tuple(
        Thing(id=f"t{n}", name=kind.many, kind=kind.id, count=1 + n % 12, space="a") for n, kind in enumerate(rows)
    )


def main() -> None:
    """Milliseconds, the best of three, and the ratio to what is allowed."""
    things, rules, ada = heap(GROUPS), HouseRules(), (Person(id="ada", name="Ada"),)
    places = tuple(
        Place(id=f"p{n}", name=f"p{n}", zones=(zone,), where="indoors", damp=False, sockets=1, from_door=5000,
              locked=False, room=dict.fromkeys(BANDS, 20_000.0), top=2400)
        for n, zone in enumerate(("wardrobe", "kitchen", "garage", "loft", "laundry", "craft", "office", "living"))
    )  # fmt: skip
    acts = {
        "demand": lambda: demand(things, rules), "piles": lambda: piles(things, rules),
        "other schools": lambda: other_schools(things, rules), "homes": lambda: homes(things, places, ada),
    }  # fmt: skip
    for name, act in acts.items():
        best = min(_time(act) for _ in range(3))
        of = f" ({best / ALLOWED_MS[name]:.2f} of {ALLOWED_MS[name]} ms)" if name in ALLOWED_MS else ""
        print(f"things: {GROUPS} groups  {name:14} {best:7.1f} ms{of}")


def _time(act: object) -> float:
    started = perf_counter()
    act()  # type: ignore[operator]
    return (perf_counter() - started) * 1000
