"""Where the work in a household stands, and what comes next, in words."""

from collections import Counter

from ..house.clients import STEPS, Agreed, Step, most_urgent
from ..saying import say
from ..tables import load


def state_in_words(steps: dict[str, Step]) -> str:
    """How many of some spaces are at which step: *2 to measure, 1 in use*."""
    table = load("standing")
    counts = Counter(steps.values())
    said = [say(table["counts"][step], {"n": counts[step]}, "metric") for step in STEPS if counts[step]]
    return ", ".join(said) or table["said"]["none"]


def next_in_words(steps: dict[str, Step], remarks: int) -> str:
    """What is to be done next; who said something waits for an answer first. Empty where nothing is."""
    table = load("standing")
    if remarks:
        return say(table["said"]["remarks"], {"n": remarks}, "metric")
    if not steps:
        return str(table["said"]["first"])
    urgent = most_urgent(steps)
    return say(table["next"][urgent[1]], {"space": urgent[0]}, "metric") if urgent else ""


def agreed_in_words(chosen: Agreed | None, signed: Agreed | None) -> str:
    """What the paper of a design says: who signed it off and when, or else who chose it; empty where nobody did."""
    agreed = signed or chosen
    if agreed is None:
        return ""
    return say(load("standing")["paper"]["signed" if signed else "chosen"], agreed.model_dump(), "metric")
