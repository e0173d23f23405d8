"""All checks of a walk-in whose heap is split piece by piece, once and again after an edit, and the acts that mend one."""

from statistics import median
from time import perf_counter

from pinakotheke.core.checks import Memory, check_design, mends
from pinakotheke.core.errors import EditRefused
from pinakotheke.core.inventory import Thing
from pinakotheke.core.layout import Assignment, Design, Limits, Task, design_space
from pinakotheke.core.layout.edit.commands import MovePart
from pinakotheke.core.layout.edit.edits import apply
from pinakotheke.core.materials import bill
from pinakotheke.core.survey import envelopes

from .briefs import BRIEFS, read_brief

BRIEF, GROUPS = "04", 300
PROMISED_MS, AFTER_EDIT_MS = 100.0, 30.0
ROUNDS = 15


def main() -> None:
    """The checks of the whole, and the acts that mend its worst finding that has some."""
    path = next(p for p in sorted(BRIEFS.glob("*.toml")) if p.name.startswith(BRIEF))
    _, survey, things, people, rules = read_brief(path)
    regions = envelopes(survey, rules)
    task = Task("space", survey, regions, things, people, rules, effort=0.1)
    design, things = split(design_space(task).alternatives[0], things)
    limits = Limits.in_space(people, survey, regions, task.use)

    memory = Memory()

    def check(one: Design) -> tuple[object, ...]:
        return check_design(one, survey, regions, things, people, limits=limits, memory=memory)

    times = []
    for _ in range(ROUNDS):
        start = perf_counter()
        found = check_design(design, survey, regions, things, people, limits=limits)
        times.append(1000 * (perf_counter() - start))
    middle = median(times)
    print(f"checks: {len(design.bays)} bays, {len(things)} groups, {len(design.parts)} parts: median {middle:.0f} ms "
          f"({middle / PROMISED_MS:.0%} of promise), {len(found)} findings")  # fmt: skip
    again = []
    for n, shelf in enumerate(p for p in design.parts if p.role == "shelf"):
        memory = Memory()
        check_design(design, survey, regions, things, people, limits=limits, memory=memory)
        try:
            edited = apply(design, MovePart(part=shelf.id, steps=1 if n % 2 else -1))
        except EditRefused:
            continue
        start = perf_counter()
        check_design(edited, survey, regions, things, people, limits=limits, memory=memory)
        again.append(1000 * (perf_counter() - start))
    print(f"after an edit: median {median(again):.0f} ms, slowest {max(again):.0f} ms "
          f"({max(again) / AFTER_EDIT_MS:.0%} of promise)")  # fmt: skip
    for finding in found:
        start = perf_counter()
        acts = mends(design, finding, things, check, lambda one: bill(one).total)  # type: ignore[arg-type]
        if acts:
            print(f"mends of {finding.code}: {len(acts)} in {perf_counter() - start:.1f} s")
            break


def split(design: Design, things: tuple[Thing, ...]) -> tuple[Design, tuple[Thing, ...]]:
    """The design with its groups split piece by piece until there are enough of them; the heap is the same."""
    by_id = {t.id: t for t in things}
    assigned: list[Assignment] = list(design.assignments)
    spare = GROUPS - len(assigned)
    split_up: list[Assignment] = []
    made: list[Thing] = []
    for a in assigned:
        pieces = min(a.count, spare + 1)
        spare -= pieces - 1
        for n in range(pieces):
            count = a.count - (pieces - 1) if n == 0 else 1
            name = f"{a.thing}-{len(made)}"
            made.append(by_id[a.thing].model_copy(update={"id": name, "count": count}))
            split_up.append(a.model_copy(update={"thing": name, "count": count}))
    return design.model_copy(update={"assignments": tuple(split_up)}), tuple(made)


if __name__ == "__main__":
    main()
