"""What a search answers."""

from ...base import Frozen
from ..models import Design
from .blocked import Blocked
from .frontier import Point, Sensitivity


class Solution(Frozen):
    """The alternatives, complete ones first; `blocked` when no complete one was found; what else could be had."""

    alternatives: tuple[Design, ...]
    blocked: Blocked | None = None
    frontier: tuple[Point, ...] = ()
    sensitivities: tuple[Sensitivity, ...] = ()
