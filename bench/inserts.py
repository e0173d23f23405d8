"""Drawer inserts: rigid trays at high fill, compartments between dividers, a chest of five drawers; size, fill, time to the
first answer, time to the best, bound and gap. Beside them an independent measure: published strips whose least length is
known (Hopper and Turton 2000, carried by a registry package), and an exact model for the rows.

Promises on two cores at full speed: 40 trays at 90 % within 0.2 s; 25 groups first within 0.2 s; 20 groups at up to 70 %
proven within 5 s; 5 drawers with 80 groups within 5 s.
"""

from collections.abc import Callable
from importlib import import_module
from importlib.resources import files
from random import Random
from time import perf_counter
from typing import TypeVar

from pinakotheke.core.house import HouseRules
from pinakotheke.core.housefile import load_house
from pinakotheke.core.inventory import Thing
from pinakotheke.core.layout import Task
from pinakotheke.core.layout.insert import exact
from pinakotheke.core.layout.insert.chest import lots_of
from pinakotheke.core.layout.insert.designs import design_with
from pinakotheke.core.layout.insert.drawers import drawers_of, stood
from pinakotheke.core.layout.insert.fittings import fittings, placeable
from pinakotheke.core.layout.insert.free import freely
from pinakotheke.core.layout.insert.partition import Choice, part
from pinakotheke.core.layout.insert.skyline import Rect, pack
from pinakotheke.core.survey import Survey, envelopes

T = TypeVar("T")
STRIP, WIDTH, DEPTH = 6, 600, 450
KINDS = ("hand-tool", "screw-box", "pen-cup", "scissors", "stapler-set", "battery-pack", "tape-roll", "sticky-notes",
         "notebook-paper", "charger", "calculator", "marker-set", "cable-box", "ribbon-box", "envelope-box")  # fmt: skip


def timed(do: Callable[..., T], *given: object, **options: object) -> tuple[T, float]:
    """What something gives, and the seconds it took."""
    start = perf_counter()
    return do(*given, **options), perf_counter() - start


def cut_up(number: int, rng: Random, least: int = 20) -> list[Rect]:
    """So many pieces that tile a floor, made by cutting it up."""
    pieces = [(WIDTH, DEPTH)]
    while len(pieces) < number:
        pieces.sort(key=lambda p: -p[0] * p[1])
        w, d = pieces.pop(rng.randrange(min(4, len(pieces))))
        if w >= d and w > 2 * least:
            at = rng.randint(least, w - least)
            pieces += [(at, d), (w - at, d)]
        elif d > 2 * least:
            at = rng.randint(least, d - least)
            pieces += [(w, at), (w, d - at)]
        else:
            pieces.append((w, d))
    return [Rect(w, d) for w, d in pieces]


def trays() -> None:
    """Pieces that tile a floor, on one that is a little larger."""
    for number, fill in ((12, 0.9), (40, 0.9), (40, 0.95), (40, 0.97)):
        rng, found, seconds = Random(number), 0, []
        scale = (1 / fill) ** 0.5
        floor = round(WIDTH * scale), round(DEPTH * scale)
        for _ in range(20):
            rects = cut_up(number, rng)
            spots, took = timed(pack, rects, floor)
            found += all(spots)
            seconds.append(took)
        print(f"trays: {number} at {fill:.0%}: all placed in {found} of 20, the others not found (not: impossible); "
              f"median {sorted(seconds)[10] * 1000:.1f} ms, slowest {max(seconds) * 1000:.0f} ms "
              f"({max(seconds) / 0.2:.0%} of promise)")  # fmt: skip


def strips() -> None:
    """Published instances: the least length at which all is placed, against the known optimum."""
    for name in ("C1", "C2", "C3", "C4", "C5", "C6", "C7"):
        module = import_module(f"hyperpack.benchmarks.datasets.hopper_and_turton_2000.{name}")
        (size,) = module.containers.values()
        gaps, pieces = [], []
        start = perf_counter()
        for items in (module.items_a, module.items_b, module.items_c):
            rects = [Rect(i["w"], i["l"]) for i in items.values()]
            more = next(m for m in range(size["L"]) if all(pack(rects, (size["W"], size["L"] + m), moves=3000)))
            gaps.append(more / size["L"])
            pieces.append(len(rects))
        print(f"published strips {name}: {pieces} pieces, gap to the known optimum "
              f"{', '.join(f'{g:.1%}' for g in gaps)}; {perf_counter() - start:.1f} s for all three")  # fmt: skip


def dividers() -> None:
    """Groups that take a share of a floor: the first answer, the annealing's, the exact model's."""
    for number, fill in ((10, 0.7), (20, 0.5), (20, 0.7), (25, 0.7), (25, 0.8)):
        rng = Random(number)
        raw = [(rng.choice((40, 60, 80, 100, 150)), rng.choice((60, 80, 120, 160, 200))) for _ in range(number)]
        scale = (WIDTH * DEPTH * fill / sum(w * d for w, d in raw)) ** 0.5
        sizes = [(max(15, round(w * scale)), max(15, round(d * scale))) for w, d in raw]
        groups = [[Choice(w, d), Choice(d, w)] for w, d in sizes]
        first, soon = timed(part, groups, WIDTH, DEPTH, STRIP, moves=4000)
        best, later = timed(part, groups, WIDTH, DEPTH, STRIP)
        rows, proof = timed(exact.rows, groups, WIDTH, STRIP, within=DEPTH)
        said = "not found" if rows.used is None else f"{rows.used} mm, bound {rows.bound} mm, " + (
            "proven" if rows.is_proven else "not proven")  # fmt: skip
        if rows.used is None and rows.bound > DEPTH:
            said = "impossible in plain rows"
        whole = "whole" if not first.left_out else f"{len(first.left_out)} left out"
        print(f"dividers: {number} groups at {fill:.0%}: first ({whole}) {soon * 1000:.0f} ms "
              f"({soon / 0.2:.0%} of promise); "
              f"annealing {best.used} mm in {later:.2f} s, area bound {best.bound} mm, gap {best.gap:.0%}; "
              f"plain rows, exact: {said}, {proof:.1f} s ({proof / 5:.0%} of promise)")  # fmt: skip


def free() -> None:
    """The demo's fullest chest: what rows leave out of it, and compartments that make no rows for all of it."""
    house = load_house(files("pinakotheke.demo").joinpath("halt.house.json").read_bytes())
    space = house.space("paper-chest")
    task = Task(space.id, space.survey, envelopes(space.survey, house.rules), house.things_in(space.id), house.people,
                house.rules, use=space.use)  # fmt: skip
    candidate = stood(task, task.catalogue["dividers"])
    assert candidate is not None
    drawers = drawers_of(task, candidate)
    lots = lots_of(placeable(task), drawers)
    area = sum(min(a for d in drawers if (a := lot.areas(d, STRIP)) is not None) for lot in lots)
    floor = sum((d.floor.w + STRIP) * (d.floor.d + STRIP) for d in drawers)
    fitting = next(fittings(task))
    found, took = timed(freely, lots, drawers, STRIP)
    said = "all in compartments" if isinstance(found, list) else "impossible" if found is False else "not found"
    print(f"full chest: {len(lots)} groups at {area / floor:.0%} of four floors: rows leave "
          f"{sum(lot.count for lot in fitting.left_out)} pieces out; without rows {said}, {took:.2f} s")  # fmt: skip


def chest() -> None:
    """Five drawers and eighty groups."""
    readings = [
        {"id": f"{n}{what}", "section": f"drawer-{n}", "what": what, "value": value}
        for n, high in enumerate((70, 90, 110, 140, 200), 1)
        for what, value in (("width", 900), ("depth", 560), ("height", high))
    ]
    sections = [{"id": f"drawer-{n}", "kind": "drawer"} for n in range(1, 6)]
    survey = Survey.model_validate({"kind": "chest of drawers", "sections": sections, "readings": readings})
    rng = Random(1)
    often = ("daily", "weekly", "monthly", "rarely")
    things = tuple(
        Thing(id=f"t{n}", name=f"Group {n}", kind=rng.choice(KINDS), count=1, frequency=rng.choice(often))  # type: ignore[arg-type]
        for n in range(80)
    )
    rules = HouseRules()
    task = Task("chest", survey, envelopes(survey, rules), things, (), rules)
    start, first, left, used, bound = perf_counter(), 0.0, 0, 0.0, 0.0
    for fitting in fittings(task):
        first = first or perf_counter() - start
        design = design_with(task, fitting)
        if fitting.named == "even":
            left = sum(u.count for u in design.unplaced)
            used, bound = design.outcome.objective, design.outcome.bound or 0.0
    took = perf_counter() - start
    gap = f"bound {bound:.0f} mm, gap {(used - bound) / used:.0%}" if bound else "no bound while something is left out"
    print(f"chest: 5 drawers, 80 groups: first {first:.1f} s, all alternatives {took:.1f} s ({took / 5:.0%} of promise); "
          f"{80 - left} of 80 placed, {used:.0f} mm of depth taken, {gap}")  # fmt: skip


def main() -> None:
    """All of them."""
    pack([Rect(1, 1)], (2, 2))
    part([[Choice(1, 1)]], 2, 2, 1, moves=1)
    trays()
    strips()
    dividers()
    free()
    chest()


if __name__ == "__main__":
    main()
