"""From asking to the first and to all alternatives, with gaps; the promise is 1 s and 8 s on two cores for 4 bays and
30 groups."""

from importlib.resources import files
from time import perf_counter, process_time

from pinakotheke.core.housefile import load_house
from pinakotheke.core.inventory import Thing
from pinakotheke.core.layout import Design, design_space
from pinakotheke.core.layout.solve import Watch
from pinakotheke.core.materials import bill
from pinakotheke.core.survey import envelope

PROMISED_FIRST_S, PROMISED_ALL_S = 1.0, 8.0
MORE = (("hoodie", 2), ("towel", 3), ("jeans", 2), ("scarf", 3))
"""Groups that make the demo closet's 26 that stay thirty."""


def main() -> None:
    """The demo closet with thirty groups, three seeds."""
    house = load_house(files("pinakotheke.demo").joinpath("halt.house.json").read_bytes())
    space = house.spaces[0]
    extra = tuple(
        Thing(id=f"more{n}", name=kind, kind=kind, count=count, space=space.id) for n, (kind, count) in enumerate(MORE)
    )
    things = (*house.things_in(space.id), *extra)
    groups = sum(t.stays for t in things)
    region = envelope(space.survey, house.rules)
    print(f"search: {groups} groups that stay, {sum(t.count for t in things if t.stays)} pieces")
    for seed in (1, 2, 3):
        found: list[float] = []
        start, cpu = perf_counter(), process_time()

        def arrived(design: Design, start: float = start, found: list[float] = found) -> None:
            found.append(perf_counter() - start)

        got = design_space(space.id, region, things, house.people, house.rules, seed=seed, watch=Watch(found=arrived))
        took, busy = perf_counter() - start, process_time() - cpu
        print(
            f"  seed {seed}: first {found[0]:.2f} s ({found[0] / PROMISED_FIRST_S:.0%} of promise), "
            f"all {took:.2f} s ({took / PROMISED_ALL_S:.0%} of promise), processor {busy:.2f} s"
        )
        for d in got.alternatives:
            left = sum(u.count for u in d.unplaced)
            print(
                f"    {d.title:<18} {d.family:<8} {len(d.bays)} bays  total {bill(d).total:>8}  left out {left}  "
                f"objective {d.outcome.objective:.1f}  bound {d.outcome.bound:.1f}  gap {d.outcome.gap:.0%}"
            )
