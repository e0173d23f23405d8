"""Clients: what they said of a design, chose and signed, and where the work for them stands."""

from typing import Annotated, Final, Literal, get_args

from pydantic import Field, StringConstraints

from ..base import Frozen, Id, Name, Seen

Step = Literal["measure", "sort", "design", "choose", "sign", "buy", "install", "keep"]
STEPS: Final[tuple[Step, ...]] = get_args(Step)
MOST_REMARKS = 200


class Agreed(Frozen):
    """Somebody agreed to something on a day."""

    by: Name
    on: Annotated[str, Field(pattern=r"^\d{4}-\d\d-\d\d$")]


class Remark(Frozen):
    """What was said of a design, or of one of its parts; `about` names the part as it was then."""

    id: Id
    by: Name
    on: Annotated[str, Field(pattern=r"^\d{4}-\d\d-\d\d$")]
    text: Annotated[str, StringConstraints(strip_whitespace=True, min_length=1, max_length=1000), Seen]
    part: Annotated[str, Field(max_length=120)] = ""
    about: Annotated[str, Field(max_length=160)] = ""
    settled: bool = False


def next_step(done: frozenset[Step], *, for_client: bool) -> Step:
    """What is to be done next in a space, after the furthest step that is done. Nothing is designed before it is measured
    and sorted; without a client nobody has to choose or sign.
    """
    begun = [step for step in STEPS[2:] if step in done]
    if not begun:
        return next(step for step in STEPS if step not in done)
    after = STEPS[STEPS.index(begun[-1]) + 1 :]
    return next(step for step in after if for_client or step not in ("choose", "sign"))


def most_urgent(steps: dict[str, Step]) -> tuple[str, Step] | None:
    """Of some spaces the one to go on with, and its step: the furthest of those that are not done, since work that is
    begun is finished first (*common practice*); None where all are in use.
    """
    open_ones = [(STEPS.index(step), name, step) for name, step in steps.items() if step != "keep"]
    if not open_ones:
        return None
    _, name, step = max(open_ones, key=lambda row: row[0])
    return name, step
