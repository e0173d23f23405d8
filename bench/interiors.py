"""Who lives where, on synthetic bays: time to the first complete layout, the gap to the best known, and how the cost of
a search grows with bays and groups.

Promises: 4 bays × 30 groups complete within 0.3 s and within 3 % of the best known at 2 s; 8 × 60 within 0.5 s and 7 %
at 10 s. The best known is that of a ten-minute run on the same seed, kept in `best_known.json`;
`python -m bench.interiors SIZE SEED` makes it anew. The bounds stand beside: the linear programme of shares, and the
figures of earlier trials on like instances (an offline Dantzig-Wolfe bound 6 % off at 4 × 30 after 5 s; LP bounds 21 %
and 36 % off at 4 × 30 and 8 × 60).
"""

import json
import sys
from pathlib import Path
from random import Random
from time import perf_counter

from pinakotheke.core.house import HouseRules, Person
from pinakotheke.core.inventory import Thing
from pinakotheke.core.inventory.things import Frequency
from pinakotheke.core.layout import Weights
from pinakotheke.core.layout.bound import lower_bound
from pinakotheke.core.layout.candidates import Candidate, Fill, stand
from pinakotheke.core.layout.interior import Interior, Problem, Scale, search
from pinakotheke.core.layout.lots import cut
from pinakotheke.core.layout.task import Household
from pinakotheke.core.survey import Survey, envelope
from pinakotheke.core.systems import FAMILIES, Finish, Row

SIZES = {"4x30": (4, 30, 2.0, 0.3, 0.03), "8x60": (8, 60, 10.0, 0.5, 0.07)}
GROWTH = ((2, 15), (4, 30), (6, 45), (8, 60), (8, 90))
SEEDS = (1, 2)
LONG_S = 600.0
MOVES = 40_000
BEST_KNOWN = Path(__file__).with_name("best_known.json")
KINDS = ("shirt", "jumper", "t-shirt", "jeans", "jacket", "coat-long", "coat-short", "dress", "trousers", "socks",
         "underwear", "scarf", "hat", "shoe-men", "shoe-flat", "boot-ankle", "box-medium", "bed-set", "towel")  # fmt: skip
OFTEN: tuple[Frequency, ...] = ("daily", "weekly", "monthly", "seasonal", "rarely")


def closet(bays: int) -> Candidate:
    """So many carcases of 832 mm along one wall."""
    width = bays * 832 + 24
    readings = [{"id": w, "what": w, "value": v} for w, v in (("width", width), ("height", 2420), ("depth", 620))]
    survey = Survey.model_validate({"kind": "recess", "readings": readings})
    region = envelope(survey, HouseRules(fit="every-inch"))
    shape = next(s for s in FAMILIES["carcase"].shapes(region, Finish()) if s.height == 2390)
    fill = Fill("A", ((FAMILIES["carcase"], Row(shape=shape, x=12, widths=(832,) * bays)),), "")
    return stand((fill,), {"A": region}, {}, {})


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


def problem_of(bays: int, groups: int, seed: int) -> Problem:
    """The whole way from things and bays to arrays."""
    candidate = closet(bays)
    home = Household(HouseRules(reserve=0.05), (Person(id="ada", name="Ada", stature=1680),))
    lots = cut(heap(groups, bays, seed), candidate.bays, home)
    return Problem(lots, candidate.bays, Scale.of(Weights(money=5, room=1, reach=4)), home)


def improved(problem: Problem, seconds: float, seed: int) -> Interior:
    """The best of as many annealings as go into a time, each from the best so far or anew."""
    start = perf_counter()
    best = search(problem, moves=0, seed=seed, check=lambda: None)
    path = 0
    while perf_counter() - start < seconds:
        path += 1
        begin = best.choices if path % 3 else None
        one = search(problem, moves=MOVES, seed=seed * 1000 + path, check=lambda: None, start=begin)
        best = min(best, one, key=lambda i: (i.unplaced, i.cost))
    return best


def main() -> None:
    """First layouts, gaps, growth."""
    search(problem_of(2, 8, 1), moves=50, seed=1, check=lambda: None)  # compiled, or fetched from the cache
    known = json.loads(BEST_KNOWN.read_text()) if BEST_KNOWN.exists() else {}
    for name, (bays, groups, seconds, promised, gap) in SIZES.items():
        for seed in SEEDS:
            start = perf_counter()
            problem = problem_of(bays, groups, seed)
            first = search(problem, moves=0, seed=seed, check=lambda: None)
            took = perf_counter() - start
            got = improved(problem, seconds, seed)
            bound = lower_bound(problem)
            long_run = known.get(f"{name}/{seed}")
            best = min(long_run or got.cost, got.cost)
            note = "" if long_run else ", no long run kept"
            print(
                f"interior: {name} seed {seed}: first {took:.2f} s ({took / promised:.0%} of promise, {first.unplaced} out)"
            )
            print(
                f"  at {seconds:.0f} s {got.cost:.0f} ({got.unplaced} out), {got.cost / best - 1:.1%} over the best known"
                f" {best:.0f}{note} (promise {gap:.0%}); LP bound {bound:.0f}, {1 - bound / got.cost:.0%} off"
            )
    for bays, groups in GROWTH:
        problem = problem_of(bays, groups, 1)
        start = perf_counter()
        search(problem, moves=6000, seed=1, check=lambda: None)
        rate = 6000 / (perf_counter() - start)
        print(f"interior: {bays} bays x {groups} groups, {len(problem.lots)} lots, {len(problem.spots)} spots:"
              f" {rate:,.0f} moves a second")  # fmt: skip


def remember(name: str, seed: int) -> None:
    """The ten-minute run of one size and seed, kept."""
    bays, groups, *_ = SIZES[name]
    best = improved(problem_of(bays, groups, seed), LONG_S, seed)
    known = json.loads(BEST_KNOWN.read_text()) if BEST_KNOWN.exists() else {}
    known[f"{name}/{seed}"] = round(best.cost, 3)
    BEST_KNOWN.write_text(json.dumps(dict(sorted(known.items())), indent=1) + "\n")


if __name__ == "__main__":
    if len(sys.argv) == 3:
        remember(sys.argv[1], int(sys.argv[2]))
    else:
        main()
