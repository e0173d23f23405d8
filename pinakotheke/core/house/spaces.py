"""What a space is used for, and the sessions of work that put it in order: one area at a time."""

from typing import Annotated, Literal

from pydantic import Field, StringConstraints

from ..base import Frozen, Id

Where = Literal["indoors", "basement", "attached", "outdoors"]


class Answer(Frozen):
    """What somebody answered to a question that only a person can: about which obstacle or thing, by whom, and when."""

    question: Id
    about: Annotated[str, StringConstraints(max_length=80)] = ""
    says: Literal["yes", "no"]
    note: Annotated[str, StringConstraints(strip_whitespace=True, max_length=300)] = ""
    by: Annotated[str, StringConstraints(strip_whitespace=True, min_length=1, max_length=80)]
    on: Annotated[str, StringConstraints(pattern=r"^\d{4}-\d{2}-\d{2}$")]


class SpaceUse(Frozen):
    """What lives in a space (names of zones), where it is, and how far from the door one goes out by, in mm."""

    zones: Annotated[tuple[str, ...], Field(max_length=15)] = ()
    """Empty stands for what its kind of space is usually for."""
    where: Where | None = None
    """None: as its kind of space usually is."""
    from_door: Annotated[float, Field(ge=0, le=100_000)] | None = None
    locked: bool = False
    answers: Annotated[tuple[Answer, ...], Field(max_length=200)] = ()
    """What persons answered about it."""

    def answered(self, answer: Answer) -> "SpaceUse":
        """With one answer in the place of what was said before to the same question."""
        return self.model_copy(update={"answers": (*self.without(answer.question, answer.about).answers, answer)})

    def without(self, question: str, about: str) -> "SpaceUse":
        """With a question open again."""
        kept = tuple(a for a in self.answers if (a.question, a.about) != (question, about))
        return self.model_copy(update={"answers": kept})


class WorkSession(Frozen):
    """One session of work in one space: a goal and a time box; `spent` is what it took, in minutes."""

    id: Id
    space: Id
    goal: Annotated[str, StringConstraints(strip_whitespace=True, min_length=1, max_length=200)]
    minutes: Annotated[int, Field(ge=5, le=600)] = 90
    done: bool = False
    spent: Annotated[int, Field(ge=0, le=1440)] | None = None
