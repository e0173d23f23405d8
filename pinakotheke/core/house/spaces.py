"""What a space is used for, and the sessions of work that put it in order: one area at a time."""

from typing import Annotated, Literal

from pydantic import Field, StringConstraints

from ..base import Frozen, Id

Where = Literal["indoors", "basement", "attached", "outdoors"]


class SpaceUse(Frozen):
    """What lives in a space (names of zones), where it is, and how far from the door one goes out by, in mm."""

    zones: Annotated[tuple[str, ...], Field(max_length=15)] = ()
    """Empty stands for what its kind of space is usually for."""
    where: Where | None = None
    """None: as its kind of space usually is."""
    from_door: Annotated[float, Field(ge=0, le=100_000)] | None = None
    locked: bool = False


class WorkSession(Frozen):
    """One session of work in one space: a goal and a time box; `spent` is what it took, in minutes."""

    id: Id
    space: Id
    goal: Annotated[str, StringConstraints(strip_whitespace=True, min_length=1, max_length=200)]
    minutes: Annotated[int, Field(ge=5, le=600)] = 90
    done: bool = False
    spent: Annotated[int, Field(ge=0, le=1440)] | None = None
