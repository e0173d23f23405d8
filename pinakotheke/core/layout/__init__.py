"""Design, second half: complete layouts found by optimisers, proven by a verifier, bent by hand.

The path of one answer: `run` fills a wall with modules, `candidates` and `pool` choose what stands at which wall,
`neighbours` what is one step away from it; `search` puts the things into its bays (`options`: every way a group may be
kept in a kind of bay; `arrays` and `kernel`, compiled: which of them, and at which height); `furnish` asks it for one
candidate, `solve` races them for every goal. `build` and `contain` turn an answer into placed parts, `verify` proves it,
`frontier` and `blocked` say what else could be had and what is in the way. `fits`, `limits` and `trouble` are the rules,
the same for search, proof and checks; `sense` is what a practitioner sees. `edits` are hand changes, `ledger` the sums.
"""

from .blocked import Blocked
from .edits import Command, History, apply
from .frontier import Point, Sensitivity
from .ladder import Relaxation
from .ledger import Ledger, LedgerLine, ledger
from .limits import Limits
from .models import Assignment, Design, Goal, Outcome, Unplaced, Weights
from .noplace import NoPlace
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
