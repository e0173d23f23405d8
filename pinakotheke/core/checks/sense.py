"""What a practitioner would see at a glance: what the house hangs is hung, shoes lie apart from clothes, like with like,
lines that run through, nothing built for nothing. What is out of reach or has no place is said by checks of their own.
"""

from collections.abc import Iterator

from ..layout.report.sense import Measure, Seen, holds
from ..tables import load
from .check import Case, of_design
from .findings import Finding

SHARES: tuple[Measure, ...] = ("together", "owners", "lines")
"""Measures that are shares, which are said in percent."""
COUNTS: tuple[Measure, ...] = ("systems", "slivers", "empties")


@of_design("sense.hung", "sense.clean", *(f"sense.{m}" for m in (*SHARES, *COUNTS)))
def at_a_glance(case: Case) -> Iterator[Finding]:
    """The measures of sense that miss their wanted value."""
    seen = Seen(case.made, case.things, case.people)
    laid_away, dirty = seen.laid_away(), seen.clean()
    if laid_away:
        yield case.found("sense.hung", measured=laid_away, limit=sum(seen.wanted().values()), count=laid_away)
    if dirty:
        yield case.found("sense.clean", measured=dirty, limit=0, count=dirty)
    for measure in (*SHARES, *COUNTS):
        value, wanted = getattr(seen, measure)(), load("sense")[measure]
        if not holds(measure, value):
            as_said, limit = 100 if measure in SHARES else 1, wanted.get("least", wanted.get("most"))
            limit = load("sense")["sliver"] if measure == "slivers" else limit * as_said
            yield case.found(f"sense.{measure}", measured=value * as_said, limit=limit)


CHECKS = (at_a_glance,)
