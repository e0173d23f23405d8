"""The search's inner loop, compiled: a wall of bays, each a stack of compartments from the floor up.

Heights are derived, not searched: a compartment is as high as its tallest content asks, and an exact dynamic programme
over the pitches of a bay says where each stands (`bay.stand`). Groups are set in by best fit (`fit.place`). The search
ruins a part of the wall, sets what came out in again, and accepts by annealing (`moves.improve`).

Plain arrays in, plain arrays out; `arrays` fills and `answer` reads them. Compiled by numba, kept on disk; with
`NUMBA_DISABLE_JIT=1` the same functions run as plain Python, slowly.

`wall` is the tuple of what is given, `plan` that of what is searched: compartments of each bay, what is in them and
what is left out. The last row of the plan's arrays is a scratch bay, on which changes are tried.
"""

from hashlib import sha256
from pathlib import Path
from typing import Any

from numba import njit

from .. import columns
from .compiled import HOW
from .moves import begin, improve, line_up, reckon
from .wall import all_points

BEGIN, IMPROVE, LINE_UP, RECKON = range(4)
"""What `run` is asked to do."""


def _entry(sources: int) -> Any:
    """The one way in, so that one piece of machine code is kept and fetched. Numba keeps it under the file it is in and
    what it closes over: here a digest of all that is compiled into it.
    """

    @njit(**HOW, cache=True)
    def run(what, wall, plan, best, kept, removed, moves, hot, cold, state, points):
        """Begin a plan, improve it, line its shelves up or weigh it anew. Returns (state, points)."""
        if sources < 0:  # never: it is named so that it counts
            return state, points
        if what == BEGIN:
            return begin(wall, plan, removed, state, hot)
        if what == IMPROVE:
            return improve(wall, plan, best, kept, removed, moves, hot, cold, state, points)
        if what == LINE_UP:
            line_up(wall, plan, points)
        else:
            reckon(wall, plan)
        return state, all_points(wall, plan)

    return run


def _digest(*files: str | Path) -> int:
    """A number that differs with what these files say."""
    said = b"".join(Path(file).read_bytes() for file in files)
    return int.from_bytes(sha256(said).digest()[:7])


run = _entry(_digest(columns.__file__, *sorted(Path(__file__).parent.glob("*.py"))))
