"""What only a person can answer: asked, and the answer kept with name and date. The tool never says that anything is
permitted; it says who said so, and when.
"""

from collections.abc import Iterator

from ..base import Frozen
from ..tables import load
from .check import Case, of_design
from .findings import Finding


class Question(Frozen):
    """A question about an obstacle, a thing or the walls."""

    id: str
    about: str
    subject: str
    where: tuple[str, ...]


def questions(case: Case) -> Iterator[Question]:
    """Every question that a design in its space raises."""
    design = case.made
    screwed = tuple(p.id for p in design.parts if p.fixed_to in ("wall", "ceiling") and design.family_of(p).drills)
    for key, row in load("questions").items():
        of = set(row["of"])
        for obstacle in case.survey.obstacles:
            if obstacle.kind in of:
                yield Question(id=key, about=obstacle.id, subject=obstacle.name, where=(obstacle.id,))
        for thing_id in dict.fromkeys(a.thing for a in design.assignments):
            thing = case.by_id.get(thing_id)
            if thing is not None and of & set(thing.hazards):
                parts = tuple(a.part for a in design.assignments if a.thing == thing_id)
                yield Question(id=key, about=thing_id, subject=thing.name, where=parts)
        if "walls" in of and screwed:
            yield Question(id=key, about="", subject="", where=screwed)


@of_design("ask.open", "ask.no", "ask.yes")
def asked(case: Case) -> Iterator[Finding]:
    """Questions without an answer, and the answers there are."""
    answers = {(a.question, a.about): a for a in (case.use.answers if case.use else ())}
    for q in questions(case):
        row, answer = load("questions")[q.id], answers.get((q.id, q.about))
        facts: list[tuple[str, float | str]] = [("ask", q.id), ("about", q.about), ("mend", row["mend"])]
        common = {"where": q.where, "subject": q.subject, "source": row["source"]}
        if answer is None:
            facts.append(("text", row["asks"].format(subject=q.subject)))
            yield case.found("ask.open", unknown=True, facts=tuple(facts), **common)
            continue
        facts += [("by", answer.by), ("on", answer.on), ("note", f" {answer.note}" if answer.note else "")]
        facts.append(("text", row["asks" if answer.says == "yes" else "no"].format(subject=q.subject)))
        yield case.found(f"ask.{answer.says}", facts=tuple(facts), **common)


CHECKS = (asked,)
