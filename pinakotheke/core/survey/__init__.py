"""Measure: what was read, what it means, and what is still missing.

Glossary. *Reading*: one number called out at one place. *Slot*: a place where a reading belongs. *Return* (nib):
the short wall beside an opening. *Level* low/middle/high: heights at which a width is read. *Face* back/front: at
the back wall, or just behind the returns. *Side* left/middle/right: seen from the front. *Envelope*: the region in
which parts may stand, derived from the readings.
"""

from .callout import CallOut, Heard, hear
from .envelope import ClosedRegion, Envelope, envelope
from .models import Door, Obstacle, Reading, Survey
from .slots import Doubt, Slot, add_readings, doubts, missing, slots

__all__ = [
    "CallOut",
    "ClosedRegion",
    "Door",
    "Doubt",
    "Envelope",
    "Heard",
    "Obstacle",
    "Reading",
    "Slot",
    "Survey",
    "add_readings",
    "doubts",
    "envelope",
    "hear",
    "missing",
    "slots",
]
