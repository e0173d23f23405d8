"""What people say they have, read into things: a line, a pasted note, an amount."""

from .line import quick_add
from .names import HouseWord, Named, guesses, named, word_of
from .note import NoteRow, note_lines, read_note

__all__ = [
    "HouseWord",
    "Named",
    "NoteRow",
    "guesses",
    "named",
    "note_lines",
    "quick_add",
    "read_note",
    "word_of",
]
