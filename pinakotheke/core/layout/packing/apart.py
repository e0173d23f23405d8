"""What keeps apart: shoes from what is clean, agents from food and paper, the wash from what is washed."""

from functools import cache
from typing import Any

import numpy as np

from ...inventory import Thing
from ...tables import load
from .columns import AGENTS, CLEANING, CLOTHES, FOOD, PAPER, SHOES, WASH

BITS = {"clothes": CLOTHES, "shoes": SHOES, "food": FOOD, "agents": AGENTS, "wash": WASH, "cleaning": CLEANING,
        "paper": PAPER}  # fmt: skip


@cache
def _classes() -> dict[str, int]:
    return {group: BITS[name] for name, groups in load("sense")["class"].items() for group in groups}


def class_of(thing: Thing) -> int:
    """The bit of what a thing is to its neighbours; 0 for what goes with anything."""
    return _classes().get(thing.kind, _classes().get(thing.row.group, 0))


def apart_bits() -> Any:
    """By bit, the bits of all it keeps apart from."""
    found = np.zeros(max(BITS.values()) + 1, np.int64)
    for name, others in load("sense")["apart"].items():
        for other in others:
            found[BITS[name]] |= BITS[other]
    return found
