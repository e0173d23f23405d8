"""Readings that contradict each other, and why one is to be taken next, in words."""

from ..survey.doubts import Doubt, Slip
from ..survey.next_reading import Reason
from ..units import Units, with_unit

SLIPS: dict[Slip, str] = {
    "foot": "a foot may have been misread",
    "hundred": "{hundred} may have been misread",
    "thousand": "a metre may have been misread",
    "inches for centimetres": "inches may have been taken for centimetres",
    "digits swapped": "two digits may have been swapped",
    "tape case": "the length of the tape's case may have been forgotten",
    "": "one may be misread",
}


def doubt_in_words(doubt: Doubt, units: Units) -> str:
    """What contradicts what, and the mend."""
    one, other = with_unit(doubt.one, units), with_unit(doubt.other, units)
    apart = with_unit(abs(doubt.one - doubt.other), units)
    slip, subject = SLIPS[doubt.slip].format(hundred=with_unit(100, units)), doubt.subject
    return {
        "repeat": f"{subject} was read as {one} and {other}, {apart} apart: {slip}; read it once more.",
        "neighbour": f"{subject} reads {one} here and {other} there, {apart} apart: {slip}.",
        "sum": f"{subject} add up to {one}, the width is {other}: {slip}.",
        "triangle": f"{subject} reads {one}; with its sides it would be about {other}: {slip}.",
        "outside": f"{subject} reaches {one} along a wall of {other}: {slip}.",
    }[doubt.code]


NEXT: dict[Reason, str] = {
    "unblocks": "Nothing can be planned before it.",
    "doubted": "What was read here contradicts its neighbours.",
    "uncertain": "It takes most off what is still uncertain.",
    "needed": "No design is proven without it.",
    "level": "No carcase is called ready before the floor was read.",
    "square": "It shows whether the corners are square.",
    "fixing": "What hangs is fixed to the studs.",
    "useful": "It tightens what is known.",
}
"""Why a reading is the next to take."""
