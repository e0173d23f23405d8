"""What people say they have, read into things: a line, a pasted note, an amount."""

from .line import quick_add
from .names import Named, guesses, named
from .note import note_lines

__all__ = ["Named", "guesses", "named", "note_lines", "quick_add"]
