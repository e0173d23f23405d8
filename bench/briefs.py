"""The ten briefs: what the search builds of them beside the hand layout, in pieces, money, hours, parts, sense and seconds.

python -m bench.briefs [number ...]
"""

import sys
import tomllib
from pathlib import Path
from time import perf_counter
from typing import Any

from pinakotheke.core.house import HouseRules, Person
from pinakotheke.core.inventory import Thing, quick_add
from pinakotheke.core.layout import Design, Task, Watch, design_space
from pinakotheke.core.layout.report.sense import MEASURES, sense
from pinakotheke.core.layout.search.furnish import prime
from pinakotheke.core.materials import bill, hours
from pinakotheke.core.survey import Survey, envelopes, hear, with_stacks
from pinakotheke.core.systems import HOLDERS

from .hands import hand_cost
from .traits import Trial

BRIEFS = Path(__file__).parents[1] / "tests" / "briefs"
PROMISED_FIRST_S, PROMISED_ALL_S = 1.0, 10.0


def read_brief(path: Path) -> tuple[dict[str, Any], Survey, tuple[Thing, ...], tuple[Person, ...], HouseRules]:
    """A brief as the program takes it: its call-outs heard, its heap read."""
    brief = tomllib.loads(path.read_text("utf-8"))
    people = tuple(Person.model_validate(row) for row in brief["people"])
    survey = Survey(kind=brief["kind"])
    for call in brief["calls"]:
        heard = hear(call, survey, brief["units"])
        assert not heard.misheard, heard.misheard
        survey = heard.kept_in(survey)
    things: list[Thing] = []
    for line in brief["heap"]:
        taken = frozenset(t.id for t in things)
        things += quick_add(line, people, brief["units"], space="space", taken=taken)
    return brief, with_stacks(survey), tuple(things), people, HouseRules.model_validate(brief.get("rules", {}))


def main() -> None:
    """All briefs, or those whose numbers are asked for."""
    asked = [a for a in sys.argv[1:] if a.isdigit()]
    start = perf_counter()
    prime()  # as the worker does before its first search
    print(f"the kernel is fetched in {perf_counter() - start:.1f} s, once for a worker")
    for path in sorted(BRIEFS.glob("*.toml")):
        if not asked or path.name[:2] in asked:
            _brief(path)


def _brief(path: Path) -> None:
    brief, survey, things, people, rules = read_brief(path)
    first: list[float] = []
    start = perf_counter()

    def arrived(design: Design) -> None:
        if not design.unplaced and not first:
            first.append(perf_counter() - start)

    task = Task("space", survey, envelopes(survey, rules), things, people, rules, watch=Watch(found=arrived))
    got = design_space(task)
    took = perf_counter() - start
    pieces = sum(t.count for t in things)
    complete = [d for d in got.alternatives if not d.unplaced]
    said = f"first complete {first[0]:.2f} s" if first else "none complete"
    print(f"brief {path.stem}: {pieces} pieces, {said}, all {took:.1f} s ({took / PROMISED_ALL_S:.0%} of promise), "
          f"{len(complete)} of {len(got.alternatives)} complete")  # fmt: skip
    by_hand = [c for bay in brief["bays"] for c in bay["compartments"]]
    hung = sum(h["count"] for c in by_hand if c["role"] == "rail" for h in c["holds"])
    print(f"  hand: {len(brief['bays'])} bays, {len(by_hand)} compartments, {hand_cost(brief, task.envelopes)} money, "
          f"{hung} hung, all placed")  # fmt: skip
    lacked: list[set[str]] = []
    for design in complete or got.alternatives[:1]:
        seen = sense(design, things, people)
        holders = sum(p.role in HOLDERS for p in design.parts)
        numbers = " ".join(f"{m} {getattr(seen, m):.2f}".replace(".00", "") for m in MEASURES)
        print(f"  {design.title}: {len(design.bays)} bays, {holders} compartments, {bill(design).total} money, "
              f"{hours(design).hours:.1f} h; {numbers}")  # fmt: skip
        print(f"    misses: {', '.join(seen.short()) or 'nothing'}")
        lacked.append(set(Trial(design, task).failing(brief["traits"])))
    every, number = set.intersection(*lacked), len(brief["traits"])
    print(f"  traits: {number - len(every)} of {number} in some alternative, {number - min(map(len, lacked))} in one")
    for lack in sorted(every):
        print(f"    in none: {lack}")


if __name__ == "__main__":
    main()
