"""Random households: a hand layout is drawn first, its compartments are filled to a share of what they take, and the heap
that comes of it is given to the search, which knows nothing of the layout. So every heap can be put away.

Distributions, all uniform unless said: kind reach-in closet, recess or wall; width 1200–3000 mm, height 2300–2600, depth
600–650, no door before it; one or two adults of 1550–1850 mm; bays 560–900 mm wide until the wall is full, each of one
owner, each of a make-up (long hang 1, double hang 2, hang over shelves 2, shelves 3 parts). A rail takes garments of one
or two kinds up to the share of its length; a shelf pieces of one kind, in stacks of the height it has; the top board what
is wanted rarely. What hangs or lies between 500 and 1500 mm is daily to monthly, what is above seasonal or rare.

python -m bench.households [number] [effort]
"""

import sys
from collections.abc import Iterator
from dataclasses import dataclass, field
from random import Random
from time import perf_counter
from typing import Any

from pinakotheke.core.house import HouseRules, Person
from pinakotheke.core.inventory import Thing
from pinakotheke.core.inventory.kinds import KINDS
from pinakotheke.core.inventory.needs import need
from pinakotheke.core.layout import Task, design_space
from pinakotheke.core.layout.search.furnish import prime
from pinakotheke.core.survey import Survey, envelopes

SHARES = {0.5: 0.99, 0.65: 0.97, 0.8: 0.90}
"""How full the hand layout is, and in how many households the search is to find a place for everything."""
RULES = HouseRules(fit="every-inch", reserve=0.05)
SHORT = ("shirt", "blouse", "jacket", "skirt", "trousers")
LONG = ("dress", "coat-short", "coat-long")
FOLDED = ("jumper", "t-shirt", "jeans", "towel", "bed-set", "sheet")
ON_TOP = ("box-medium", "blanket", "pillow")
OFTEN, SELDOM = ("daily", "weekly", "monthly"), ("seasonal", "rarely")


@dataclass
class Hand:
    """A heap as it grows, with what it is put into."""

    random: Random
    share: float
    things: list[Thing] = field(default_factory=list)

    def fill(self, kinds: tuple[str, ...], length: float, clear: float, owner: str, often: tuple[str, ...]) -> None:
        """Pieces of one or two kinds into a rail or a shelf, up to the share of its length and in the height it has."""
        room = length * self.share
        for kind in self.random.sample([k for k in kinds if k in KINDS], k=min(2, len(kinds))):
            facts: dict[str, Any] = {"id": f"t{len(self.things)}", "name": kind, "kind": kind, "space": "space",
                                     "owner": owner, "frequency": self.random.choice(often)}  # fmt: skip
            best = 0
            for count in range(1, 60):
                one = Thing.model_validate({**facts, "count": count})
                asked = need(one, one.row.ways[0], RULES, count)
                if asked.amount > room or asked.clear > clear:
                    break
                best = count
            if best:
                part = best if kind == kinds[-1] else max(1, round(best * self.random.uniform(0.5, 1)))
                one = Thing.model_validate({**facts, "count": part})
                self.things.append(one)
                room -= need(one, one.row.ways[0], RULES, part).amount


def household(seed: int, share: float) -> Task:
    """One household: its space, its people, and a heap that fills a hand layout to a share."""
    random = Random(seed)
    width, height, depth = random.randint(1200, 3000), random.randint(2300, 2600), random.randint(600, 650)
    kind = random.choice(("reach-in closet", "recess", "wall"))
    readings = [{"id": w, "what": w, "value": v} for w, v in (("width", width), ("height", height), ("depth", depth))]
    survey = Survey.model_validate({"kind": kind, "readings": readings, "door": {"kind": "none"}})
    people = tuple(
        Person(id=n, name=n, stature=random.randint(1550, 1850)) for n in ("ada", "bo")[: random.randint(1, 2)]
    )
    hand, left = Hand(random, share), width - 40
    while left >= 560:
        bay = min(left, random.randint(560, 900))
        owner = random.choice(people).id
        for kinds, low, high in _make_up(random, height):
            top = kinds is ON_TOP
            often = OFTEN if 300 <= low <= 1300 and not top else SELDOM
            hand.fill(kinds, bay - 40, high - low - 60, "" if top else owner, often)
        left -= bay + 20
    return Task("space", survey, envelopes(survey, RULES), tuple(hand.things), people, RULES)


def _make_up(random: Random, height: int) -> Iterator[tuple[tuple[str, ...], int, int]]:
    """The compartments of a bay from the floor up: what goes in, from where to where."""
    made = random.choices(("long", "double", "over shelves", "shelves"), weights=(1, 2, 2, 3))[0]
    if made == "long":
        yield LONG, 100, 1750
    elif made == "double":
        yield SHORT, 100, 980
        yield SHORT, 1000, 1900
    elif made == "over shelves":
        yield FOLDED, 100, 450
        yield FOLDED, 470, 820
        yield SHORT, 840, 1900
    else:
        for foot in range(100, 1500, 360):
            yield FOLDED, foot, foot + 350
    if height >= 2350:
        yield ON_TOP, 1950, height - 60


def main() -> None:
    """So many households of every share: how many are complete, and what the rest name."""
    numbers = [float(a) for a in sys.argv[1:] if a.replace(".", "").isdigit()]
    number, effort = int(numbers[0]) if numbers else 100, numbers[1] if len(numbers) > 1 else 1.0
    prime()
    for share, wanted in SHARES.items():
        complete, silent, seconds = 0, 0, 0.0
        for seed in range(number):
            task = household(1000 * round(100 * share) + seed, share).but(effort=effort)
            start = perf_counter()
            got = design_space(task)
            seconds += perf_counter() - start
            complete += got.blocked is None
            rungs = [r for r in got.blocked.relaxations if r.kind not in ("move out", "fewer")] if got.blocked else []
            silent += got.blocked is not None and not rungs
            if got.blocked is not None:
                print(f"  {share:.0%} seed {seed}: {got.blocked.short:.0f} pieces left over; would do:"
                      f" {', '.join(r.kind for r in rungs) or 'nothing but less'}")  # fmt: skip
        print(f"households {share:.0%} full: {complete} of {number} complete ({complete / number:.0%}, promise"
              f" {wanted:.0%}), {silent} name no rung, {seconds / number:.1f} s each")  # fmt: skip


if __name__ == "__main__":
    main()
