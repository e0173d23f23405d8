"""Measure: what was read, what it means, and what is still missing.

Glossary. *Section*: what is fitted by itself: a run of wall, a shelf level, a drawer. *Reading*: one number called
out at one place. *Slot*: a place where a reading belongs. *Return* (nib): the short wall beside an opening. *Level*
low/middle/high: heights at which a width is read. *Face* back/front: at the back wall, or just behind the returns.
*Side* left/middle/right: seen from the front. *Fall*: how far the floor lies below a level line. *Envelope*: the
region in which parts may stand, derived from the readings.
"""

from .callout import examples_for, hear
from .closed import ClosedRegion
from .doubts import Doubt, doubts
from .envelope import Envelope, envelope, envelopes
from .heard import CallOut, Heard
from .models import Door, Obstacle, Reading, Section, SpaceKind, Survey
from .next_reading import NextReading, next_reading
from .slots import Slot, add_readings, missing, slots
from .stacks import with_stacks

__all__ = [
    "CallOut",
    "ClosedRegion",
    "Door",
    "Doubt",
    "Envelope",
    "Heard",
    "NextReading",
    "Obstacle",
    "Reading",
    "Section",
    "Slot",
    "SpaceKind",
    "Survey",
    "add_readings",
    "doubts",
    "envelope",
    "envelopes",
    "examples_for",
    "hear",
    "missing",
    "next_reading",
    "slots",
    "with_stacks",
]
