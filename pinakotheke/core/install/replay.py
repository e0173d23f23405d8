"""The proof of an order of work: it is done part by part, and at every moment the house must hold what is there.

It shares nothing with what makes the steps but the words they are written in and the sizes of the table.
"""

from collections.abc import Sequence

from ..checks import Case
from ..systems import Part
from ..tables import value
from .levels import work
from .steps import Step

SLIDES = frozenset({"container", "basket", "drawer", "tray", "hamper", "trouser rack"})


def faults(case: Case, steps: Sequence[Step]) -> tuple[str, ...]:
    """What is wrong with doing the steps one after another as they stand: `CODE: id` for each fault, none for a good order.

    *early*: before a step that comes before it. *twice*, *never*: a part put up more than once, or not at all. *carried*:
    a part before what carries it. *lean*: over something lower that stands out further than one leans. *heavy*: more
    mass on the screws of a part than they carry at that moment.
    """
    found: list[str] = []
    done: set[str] = set()
    standing: dict[str, Part] = {}
    parts = {p.id: p for p in case.made.parts}
    for step in steps:
        found += [f"early: {step.id} before {name}" for name in step.after if name not in done]
        for name in step.parts:
            part = parts[name]
            if name in standing:
                found.append(f"twice: {name}")
            found += _carried(case, part, parts, standing) + _leaned_over(case, part, parts, standing)
            standing[name] = part
            found += _held(case, part, parts, standing)
        done.add(step.id)
    wanted = {p.id for p in case.made.parts if p.role not in ("base", "floor") and case.made.family_of(p).built}
    return (*found, *(f"never: {name}" for name in sorted(wanted - set(standing))))


def _carried(case: Case, part: Part, parts: dict[str, Part], standing: dict[str, Part]) -> list[str]:
    needed = [part.carrier] if part.carrier in parts and parts[part.carrier].role not in ("base", "floor") else []
    needed += [p.id for p in parts.values() if p.belongs_to == part.id and p.role not in ("container",)]
    return [f"carried: {part.id} before {name}" for name in needed if name not in standing]


def _leaned_over(case: Case, part: Part, parts: dict[str, Part], standing: dict[str, Part]) -> list[str]:
    """Only what hangs on a wall is reached over what is before that wall; into a frame one reaches from its front, and what
    slides goes in from its own.
    """
    root = part
    for _ in range(len(parts)):
        if root.carrier not in parts:
            break
        root = parts[root.carrier]
    if root.fixed_to not in ("wall", "ceiling") or root.role in ("frame", "trolley") or part.role in SLIDES:
        return []
    lean = work("lean_over")
    return [
        f"lean: {part.id} over {low.id}" for low in standing.values()
        if low.section == part.section and low.z + low.h <= part.z and low.y + low.d > part.y + lean
        and min(low.x + low.w, part.x + part.w) - max(low.x, part.x) >= 150
        and low.role != "container"
    ]  # fmt: skip


def _held(case: Case, part: Part, parts: dict[str, Part], standing: dict[str, Part]) -> list[str]:
    """The mass that hangs from what is screwed on now, against what its screws bear across their shanks (an anchor in a
    hollow wall the least); a screw at every usual distance, two at least.
    """
    root = part
    for _ in range(len(parts)):
        if root.carrier not in parts:
            break
        root = parts[root.carrier]
    if root.fixed_to != "wall" or root.role in ("frame", "panel", "filler"):
        return []
    hangs = 0.0
    for other in standing.values():
        top = other
        for _ in range(len(parts)):
            if top.carrier not in parts:
                break
            top = parts[top.carrier]
        if top.id == root.id:
            hangs += case.made.family_of(other).mass(other)
    screws = max(2, round(max(root.w, root.d) / value("fixing.every")))
    bears = screws * min(value("fixing.screw_shear"), max(case.goes_by.anchor, value("fixing.anchor_shear")))
    return [f"heavy: {part.id} on {root.id}"] if hangs > bears else []
