"""What a survey lacks, doubts and warns of."""

from collections.abc import Iterator

from ..survey import doubts, missing
from ..survey.level import level_base
from ..survey.passages import passages
from ..tables import entry, load
from .check import Case, of_survey
from .findings import Finding


@of_survey("survey.missing")
def lacking(case: Case) -> Iterator[Finding]:
    """Readings that are needed and were not taken."""
    needed = [s for s in missing(case.survey) if s.needed]
    if needed:
        yield case.found("survey.missing", measured=len(needed), subject=needed[0].label,
                         unknown=True)  # fmt: skip


@of_survey("survey.repeat", "survey.neighbour", "survey.sum", "survey.triangle", "survey.outside")
def doubted(case: Case) -> Iterator[Finding]:
    """Readings that do not agree."""
    for d in doubts(case.survey):
        yield case.found(f"survey.{d.code}", where=d.readings, subject=d.subject, measured=d.one, limit=d.other,
                         basis=d.why.basis, source=d.why.source)  # fmt: skip


@of_survey("survey.square", "survey.plinth", "survey.damp")
def shape(case: Case) -> Iterator[Finding]:
    """Corners out of square and floors out of level by more than a base or a filler takes; damp."""
    limit, square = case.rule("survey.square").entry, case.envelope.square
    for side, angle, comes_in in (("left", square.left, square.left_lean), ("right", square.right, square.right_lean)):
        if angle is not None and abs(comes_in) > limit.value:
            yield case.found("survey.square", where=("diagonal",), subject=f"{side} corner", measured=comes_in,
                             detail=f"{angle:.1f}°")  # fmt: skip
    shim = case.rule("survey.plinth").entry
    for section in case.survey.runs:
        base = level_base(case.survey, section.id)
        if base and base.out_by > shim.value:
            yield case.found("survey.plinth", where=("floor",), subject=section.label, measured=base.out_by,
                             detail=f"{len(base.plinth)}")  # fmt: skip
    if case.survey.damp:
        yield case.found("survey.damp", subject="space")


@of_survey("clear.passage")
def room_to_walk(case: Case) -> Iterator[Finding]:
    """Room to walk between runs, and beside a parked car with its door open."""
    least, door = case.rule("clear.passage").entry, entry("passage.car_door")
    for passage in passages(case.survey):
        rule = door if passage.before == "the car" else least
        if passage.width < rule.value:
            yield case.found("clear.passage", where=(passage.section,),
                             subject=case.survey.section(passage.section).label, measured=max(passage.width, 0),
                             limit=rule.value, detail=passage.before, basis=rule.basis, source=rule.source)  # fmt: skip


@of_survey("clear.caution")
def cautions(case: Case) -> Iterator[Finding]:
    """What stands in the space and can hurt someone."""
    for obstacle in case.survey.obstacles:
        caution = load("obstacles")[obstacle.kind]["caution"]
        if caution:
            yield case.found("clear.caution", where=(obstacle.id,), subject=obstacle.name,
                             measured=obstacle.keep_out or obstacle.access, source=caution)  # fmt: skip


CHECKS = (lacking, doubted, shape, room_to_walk, cautions)
