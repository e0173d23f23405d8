"""Design, second half: complete layouts found by optimisers, proven by a verifier, bent by hand.

The path of one answer: `run` fills a wall with modules, `candidates` and `pool` choose what stands at which wall, `lots`
cuts the things into pieces that fit a compartment, `interior` (with `kernel`, compiled) finds who lives where and in
which order, `bound` says how much better it could be, `build` and `contain` turn it into placed parts, `verify` proves
the result, `solve` does so for every goal, `frontier` and `blocked` say what else could be had and what is in the way.
`fits` and `trouble` are the rules, the same for search, proof and checks. `edits` are hand changes, `ledger` the sums.
"""

from .blocked import Blocked, Relaxation
from .edits import Command, History, apply
from .frontier import Point, Sensitivity
from .ledger import Ledger, LedgerLine, ledger
from .models import Assignment, Design, Goal, Outcome, Unplaced, Weights
from .solve import Solution, design_space
from .task import Task, Watch
from .verify import Fault, verify

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
