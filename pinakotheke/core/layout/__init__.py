"""Design, second half: complete layouts found by optimisers, proven by a verifier, bent by hand.

The path of one answer, a room a step. `placement`: a run is filled with modules, candidates say what stands at which
wall, neighbours what is one step from it. `packing`: every way a group may be kept in a kind of bay, what must never be,
how hard a place is to reach, and the compiled fill. `build`: an answer as placed parts. `search`: the race for every
goal, and what else could be had or is in the way. `verify`: the proof. `edit`: hand changes. `report`: sums, cost, sense
and reasons. What a design is stands in `models`, what is asked in `task` and `goals`.
"""

from .edit.commands import Command
from .edit.edits import History, apply
from .models import Assignment, Design, Goal, Outcome, Unplaced, Weights
from .packing.limits import Limits
from .packing.task import Task, Watch
from .report.ledger import Ledger, LedgerLine, ledger
from .search.blocked import Blocked
from .search.frontier import Point, Sensitivity
from .search.ladder import Relaxation
from .search.noplace import NoPlace
from .search.solution import Solution
from .search.solve import design_space
from .verify.verifier import Fault, verify

__all__ = [
    "Assignment",
    "Blocked",
    "Command",
    "Design",
    "Fault",
    "Goal",
    "History",
    "Ledger",
    "LedgerLine",
    "Limits",
    "NoPlace",
    "Outcome",
    "Point",
    "Relaxation",
    "Sensitivity",
    "Solution",
    "Task",
    "Unplaced",
    "Watch",
    "Weights",
    "apply",
    "design_space",
    "ledger",
    "verify",
]
