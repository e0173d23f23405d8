"""Who lives where, on synthetic bays: time to the first complete layout, what more moves make of it, how the cost of a
search grows with bays and groups, and the best of all plans beside it where a case is small enough for it.

Promises: 4 bays × 30 groups complete within 0.3 s, 8 × 60 within 0.5 s, options and arrays included. The reference of
small cases is `tests.core.test_search`, which sets every plan of whole groups beside the search.
"""

from random import Random
from time import perf_counter

from pinakotheke.core.house import HouseRules, Person
from pinakotheke.core.inventory import Thing
from pinakotheke.core.inventory.things import Frequency
from pinakotheke.core.layout.packing.task import Task
from pinakotheke.core.layout.placement.candidates import Candidate, Fill, stand
from pinakotheke.core.layout.search.furnish import Furnished, begin, improve, prime
from pinakotheke.core.survey import Survey, envelope
from pinakotheke.core.systems import FAMILIES, Finish, Row

SIZES = {"4x30": (4, 30, 0.3), "8x60": (8, 60, 0.5)}
GROWTH = ((2, 15), (4, 30), (6, 45), (8, 60), (8, 90))
SEEDS = (1, 2, 3)
LENGTHS = (0, 400, 2000, 10_000)
KINDS = ("shirt", "jumper", "t-shirt", "jeans", "jacket", "coat-long", "coat-short", "dress", "trousers", "socks",
         "underwear", "scarf", "hat", "shoe-men", "shoe-flat", "boot-ankle", "box-medium", "bed-set", "towel")  # fmt: skip
OFTEN: tuple[Frequency, ...] = ("daily", "weekly", "monthly", "seasonal", "rarely")


def closet(bays: int) -> tuple[Survey, Candidate]:
    """So many carcases of 832 mm along one wall."""
    width = bays * 832 + 24
    readings = [{"id": w, "what": w, "value": v} for w, v in (("width", width), ("height", 2420), ("depth", 620))]
    survey = Survey.model_validate({"kind": "recess", "readings": readings})
    region = envelope(survey, HouseRules(fit="every-inch"))
    shape = next(s for s in FAMILIES["carcase"].shapes(region, Finish()) if s.height == 2390)
    fill = Fill("A", ((FAMILIES["carcase"], Row(shape=shape, x=12, widths=(832,) * bays)),), "")
    return survey, stand((fill,), {"A": region}, {}, {})


def heap(groups: int, bays: int, seed: int) -> tuple[Thing, ...]:
    """Random groups that fill the bays to about three quarters."""
    random = Random(seed)
    share = bays / groups * 7.5
    return tuple(
        Thing.model_validate(
            {"id": f"t{n}", "name": kind, "kind": kind, "count": max(1, round(share * random.uniform(1.2, 4.4))),
             "frequency": random.choice(OFTEN)}
        )
        for n in range(groups) if (kind := random.choice(KINDS))
    )  # fmt: skip


def task_of(bays: int, groups: int, seed: int) -> tuple[Task, Candidate]:
    """The whole way from things and bays to a task."""
    survey, candidate = closet(bays)
    rules = HouseRules(fit="every-inch", reserve=0.05)
    people = (Person(id="ada", name="Ada", stature=1680),)
    return Task("closet", survey, {"A": envelope(survey, rules)}, heap(groups, bays, seed), people, rules), candidate


def first_of(task: Task, candidate: Candidate) -> Furnished:
    """The first layout that holds everything, or what so few moves come to."""
    found = begin(task, "cheapest", candidate)
    for path in range(3):
        if found.unplaced:
            found = improve(task, found, 150, path)
    return found


def main() -> None:
    """First layouts, longer runs, growth."""
    prime()
    for name, (bays, groups, promised) in SIZES.items():
        for seed in SEEDS:
            task, candidate = task_of(bays, groups, seed)
            start = perf_counter()
            first = first_of(task, candidate)
            took = perf_counter() - start
            print(
                f"wall {name} seed {seed}: first {took:.2f} s ({took / promised:.0%} of promise), {first.unplaced} out"
            )
            runs = [improve(task, first, moves, 7) for moves in LENGTHS if moves]
            best = min(r.score for r in runs)
            said = ", ".join(f"{r.moves} moves {r.score / best - 1:.1%}" for r in runs)
            print(f"  over the best of these ({best:.0f} points): first {first.score / best - 1:.1%}, {said}")
    for bays, groups in GROWTH:
        task, candidate = task_of(bays, groups, 1)
        found = begin(task, "cheapest", candidate)
        start = perf_counter()
        improve(task, found, 2000, 1)
        print(f"wall {bays} bays x {groups} groups: {2000 / (perf_counter() - start):,.0f} moves a second")


if __name__ == "__main__":
    main()
