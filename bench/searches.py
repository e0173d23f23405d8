"""From asking to the first and to all alternatives: the demo closet with thirty groups, and every space of the demo
household with how many complete, named alternatives it has.
"""

from importlib.resources import files
from time import perf_counter

from pinakotheke.core.housefile import House, Space, load_house
from pinakotheke.core.inventory import Thing
from pinakotheke.core.layout import Design, Solution, Task, Watch, design_space
from pinakotheke.core.materials import bill
from pinakotheke.core.survey import envelopes, with_stacks

PROMISED_FIRST_S, PROMISED_ALTERNATIVES = 1.0, 3
MORE = (("hoodie", 2), ("towel", 3), ("jeans", 2), ("scarf", 3))
"""Groups that make the demo closet's 26 that stay thirty."""


def main() -> None:
    """Both."""
    house = load_house(files("pinakotheke.demo").joinpath("halt.house.json").read_bytes())
    closet = house.spaces[0]
    extra = tuple(
        Thing(id=f"more{n}", name=kind, kind=kind, count=count, space=closet.id) for n, (kind, count) in enumerate(MORE)
    )
    for seed in (1, 2, 3):
        got, first, took = timed(house, closet, (*house.things_in(closet.id), *extra), seed)
        costs = ", ".join(f"{d.title.lower()} {bill(d).total}" for d in got.alternatives)
        print(f"search: 30 groups, seed {seed}: first {first:.2f} s ({first / PROMISED_FIRST_S:.0%} of promise), all "
              f"{took:.1f} s: {costs}")  # fmt: skip
    for space in house.spaces:
        got, first, took = timed(house, space, house.things_in(space.id), 1)
        complete = sum(not d.unplaced for d in got.alternatives)
        print(f"space: {space.id:<16} first {first:5.2f} s, all {took:5.1f} s, {complete} complete alternatives "
              f"({complete / PROMISED_ALTERNATIVES:.0%} of promise)")  # fmt: skip


def timed(house: House, space: Space, things: tuple[Thing, ...], seed: int) -> tuple[Solution, float, float]:
    """Alternatives, seconds to the first and to all."""
    found: list[float] = []
    start = perf_counter()

    def arrived(design: Design) -> None:
        found.append(perf_counter() - start)

    survey = with_stacks(space.survey)
    got = design_space(
        Task(space.id, survey, envelopes(survey, house.rules), things, house.people, house.rules,
             use=space.use, stock=house.stock, seed=seed, watch=Watch(found=arrived))
    )  # fmt: skip
    return got, found[0], perf_counter() - start
