"""Readings that contradict each other, in words: what was read, and the slip of the hand that would explain it."""

from ..lengths import Units, with_unit
from ..survey.doubts import Doubt, Slip

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
