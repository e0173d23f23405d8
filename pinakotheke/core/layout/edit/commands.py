"""The commands that a hand can give a design, as data: what they do stands in `edits` and `restand`."""

from typing import Annotated, Literal

from pydantic import Field

from ...base import Frozen, Id
from ...inventory.kinds import Way
from ...mechanics.shelves import ShelfMake
from ...systems import Finish, Holder, Range
from ..models import Design

MOST_AT_ONCE = 120
"""Edits that are made as one act."""
BayIndex = Annotated[int, Field(ge=0, le=400)]
Steps = Annotated[int, Field(ge=-200, le=200)]


class MovePart(Frozen):
    """Move a part up (positive) or down so many pitches; in a drawer, back or forward."""

    do: Literal["move"] = "move"
    part: Id
    steps: Steps


class MoveEdge(Frozen):
    """Move the divider at one side of a compartment in a drawer so many pitches, away from it (positive) or into it; what
    lies at its other side gives way.
    """

    do: Literal["edge"] = "edge"
    part: Id
    side: Literal["left", "right", "back", "front"]
    steps: Steps


class TurnTray(Frozen):
    """Turn a tray in a drawer, and what stands on each other with it, a quarter round."""

    do: Literal["turn"] = "turn"
    part: Id


class ShiftTray(Frozen):
    """Shift a tray in a drawer, and what stands on each other with it, so many pitches to the right and to the front."""

    do: Literal["shift"] = "shift"
    part: Id
    right: Steps = 0
    front: Steps = 0


class ResizePart(Frozen):
    """Give a drawer or basket the next higher (positive) or lower front of its range."""

    do: Literal["resize"] = "resize"
    part: Id
    steps: Annotated[int, Field(ge=-10, le=10)]


class MakeShelf(Frozen):
    """Make one shelf of another board, or stiffen its front with a lipping."""

    do: Literal["make"] = "make"
    part: Id
    make: ShelfMake


class SwapPart(Frozen):
    """Make a part another of its family at the same place: a shelf a tray, a rail hooks."""

    do: Literal["swap"] = "swap"
    part: Id
    role: Holder
    ways: Annotated[tuple[tuple[Id, Way], ...], Field(max_length=400)] = ()
    """How things that are kept in it are kept then, where the new part does not keep them as the old one did."""


class AddPart(Frozen):
    """Add an empty part to a bay at the pitch nearest to z."""

    do: Literal["add"] = "add"
    role: Holder
    bay: BayIndex
    z: Annotated[int, Field(ge=0, le=100_000)]


class RemovePart(Frozen):
    """Take a part out; what lived in it has no place for now."""

    do: Literal["remove"] = "remove"
    part: Id


class AssignGroup(Frozen):
    """Send so many pieces of a thing from a part (or from those without a place) to another (or to none)."""

    do: Literal["assign"] = "assign"
    thing: Id
    way: Way
    count: Annotated[int, Field(ge=1, le=10_000)]
    source: Id | None = None
    target: Id | None = None


class LockPart(Frozen):
    """Fix a part where it is, or let it go: a new search leaves it and what is in it alone."""

    do: Literal["lock"] = "lock"
    part: Id
    locked: bool = True


class LockBay(Frozen):
    """Fix a whole bay, or let it go."""

    do: Literal["lock bay"] = "lock bay"
    bay: BayIndex
    locked: bool = True


Joined = AssignGroup | LockPart | LockBay | SwapPart | MovePart | RemovePart
"""Edits that may be one act with others."""


class Several(Frozen):
    """Edits made as one act and taken back as one: all that is in a part sent elsewhere, the contents of two exchanged,
    half a wall locked.
    """

    do: Literal["several"] = "several"
    commands: Annotated[
        tuple[Annotated[Joined, Field(discriminator="do")], ...],
        Field(min_length=1, max_length=MOST_AT_ONCE),
    ]


class CopyBay(Frozen):
    """Give a bay the parts of another one, empty; what lived there has no place for now."""

    do: Literal["copy bay"] = "copy bay"
    bay: BayIndex
    onto: BayIndex


class WidenBay(Frozen):
    """Give a bay the next wider (positive) or narrower module of its range; its row grows or shrinks with it."""

    do: Literal["widen"] = "widen"
    bay: BayIndex
    steps: Annotated[int, Field(ge=-10, le=10)]


class ReshapeRow(Frozen):
    """Give the row a bay is in the next taller (positive) or lower height, or the next greater or lesser depth."""

    do: Literal["reshape"] = "reshape"
    bay: BayIndex
    taller: Annotated[int, Field(ge=-10, le=10)] = 0
    deeper: Annotated[int, Field(ge=-10, le=10)] = 0


class MirrorRow(Frozen):
    """Turn the row a bay is in about its middle, with everything in it."""

    do: Literal["mirror"] = "mirror"
    bay: BayIndex


class SwapFamily(Frozen):
    """Stand the row a bay is in anew in another family; what lived there has no place until the rest is found."""

    do: Literal["swap family"] = "swap family"
    bay: BayIndex
    family: Id
    own: Range | None = None
    """The household's own range of that id, when it is one."""


class SetFinish(Frozen):
    """Doors, base, crown, lights, fascias."""

    do: Literal["finish"] = "finish"
    finish: Finish


class Refound(Frozen):
    """What a search found around the locked parts; kept whole, so that it can be undone."""

    do: Literal["refound"] = "refound"
    design: Design


Command = Annotated[
    MovePart | MoveEdge | TurnTray | ShiftTray | ResizePart | MakeShelf | SwapPart | AddPart | RemovePart | AssignGroup
    | Several | LockPart | LockBay | CopyBay | WidenBay | ReshapeRow | MirrorRow | SwapFamily | SetFinish | Refound,
    Field(discriminator="do"),
]  # fmt: skip
