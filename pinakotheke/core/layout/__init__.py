"""Design, second half: complete layouts found by optimisers, proven by a verifier, bent by hand.

The path of one answer: `run` fills the wall with modules, `lots` cuts the things into pieces that fit a compartment,
`interior` finds who lives where and in which order, `bound` says how much better it could be, `build` turns it into
placed parts, `verify` proves the result, `solve` does so for every goal. `edits` are hand changes, `ledger` the sums.
"""

from .edits import AddPart, AssignGroup, Command, History, MovePart, RemovePart, ResizePart, apply
from .ledger import Ledger, LedgerLine, ledger
from .models import Assignment, Design, Goal, Outcome, Unplaced
from .solve import Blocked, Relaxation, Solution, design_space
from .verify import Fault, verify

__all__ = [
    "AddPart",
    "AssignGroup",
    "Assignment",
    "Blocked",
    "Command",
    "Design",
    "Fault",
    "Goal",
    "History",
    "Ledger",
    "LedgerLine",
    "MovePart",
    "Outcome",
    "Relaxation",
    "RemovePart",
    "ResizePart",
    "Solution",
    "Unplaced",
    "apply",
    "design_space",
    "ledger",
    "verify",
]
