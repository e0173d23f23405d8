"""What is said of a design beside its findings: what it is built of, what it holds, how it was found, what else."""

import re
from collections.abc import Iterable, Sequence

from ..layout import Design, Ledger, Sensitivity
from ..layout.report.compare import Home
from ..layout.report.sense import Sense
from ..saying import say
from ..systems import Catalogue
from ..tables import load
from ..units import Units, with_unit
from .money import money


def family_names(families: Iterable[str], catalogue: Catalogue, join: str = ", ") -> str:
    """Names of families within a sentence, as far as they are known."""
    return join.join(catalogue[f].spoken for f in families if f in catalogue)


def holds_in_words(ledger: Ledger) -> str:
    """How many pieces have a place."""
    return f"{ledger.pieces - ledger.unplaced} of {ledger.pieces} pieces"


def free_in_words(ledger: Ledger) -> str:
    """How much is left over: the least and the most, and of what."""
    shares: Sequence[tuple[float, str]] = [
        ((line.spare or 0) / line.given, line.storage) for line in ledger.lines if line.given
    ]
    if not shares:
        return ""
    (least, scarce), (most, ample) = min(shares), max(shares)
    return f"free: {least:.0%} of {scarce}" + (f" to {most:.0%} of {ample}" if len(shares) > 1 else "")


def glance_in_words(sense: Sense) -> str:
    """What a practitioner would mind at a glance: nothing, or each measure of sense that misses."""
    table = load("sense")
    minded = [say(table[m]["minds"], {"value": getattr(sense, m)}, "metric") for m in sense.short() if m != "placed"]
    return "At a glance: " + ("; ".join(minded) or "nothing to mind") + "."


LENGTH = re.compile(r"(\d+(?:\.\d+)?) mm\b")


def method_in_words(record: str, units: Units) -> str:
    """How something was found; the record of it is in mm."""
    return LENGTH.sub(lambda said: with_unit(float(said[1]), units), record)


def outcome_in_words(design: Design, units: Units) -> str:
    """What the search can say of its answer, never as one figure *% optimal*."""
    o = design.outcome
    method = method_in_words(o.method, units)
    if o.gap is None or o.bound is None:
        return f"Best found. Objective {o.objective:.0f} points; {method}."
    said = {
        "proven": "Proven best for these bays.",
        "within": f"Within {o.gap:.0%} of the bound for these bays.",
        "best found": f"Best found; the bound proves no better than {o.gap:.0%} away.",
    }[o.status]
    return f"{said} Objective {o.objective:.0f}, bound {o.bound:.0f} points; {method}."


def sensitivity_in_words(s: Sensitivity, units: Units, currency: str, catalogue: Catalogue) -> str:
    """What one more or one less would change, in a sentence."""
    price = f"{money(abs(s.cost), currency, whole=True)} {'less' if s.cost < 0 else 'more'}" if s.cost else ""
    reach = "" if abs(s.reach) < 1 else f"{'easier' if s.reach < 0 else 'harder'} to reach"
    room = "" if abs(s.room) < 0.01 else f"{abs(s.room):.0%} {'more' if s.room > 0 else 'less'} room left"
    change = ", ".join(x for x in (price, room, reach) if x) or "nothing to speak of"
    names = family_names(s.subject.split(", "), catalogue, " and ")
    return {
        "fewer": f"{s.amount:.0f} fewer {s.subject}: {change}.",
        "more": f"{s.amount:.0f} more {s.subject}: {change if s.fits else 'they no longer all fit'}.",
        "stool": f"A step stool at hand: {change}.",
        "wider": f"{with_unit(s.amount, units)} more width if the skirting goes: {change}.",
        "budget": f"Another {money(s.amount, currency, whole=True)} would buy {names}: {change}.",
        "cheaper": f"The next cheaper step, {names}: {change}.",
    }[s.kind]


def home_in_words(homes: Sequence[Home], units: Units) -> str:
    """Where a thing lives in a design: each part and its height."""
    return ", ".join(f"{home.role}, {with_unit(home.height, units)} up" for home in homes) or "no place"
