"""Cutting: pieces from boards (`lengths`), parts from sheets (`sheets`), what either must cost at least, and a saw that
goes over every plan (`verify`).
"""

from .lengths import Piece, Stock, cut_lengths
from .sheets import Panel, Sheet, cut_sheets


def prime() -> None:
    """Compile the kernels, so that nobody waits for it at the saw."""
    cut_lengths([Piece("a", 10, 1), Piece("b", 7, 1)], [Stock("s", 20, 1)])
    cut_sheets([Panel("a", 10, 10, 2)], [Sheet("s", 30, 30, 1), Sheet("t", 20, 20, 1)])
