"""What a practitioner would see at a glance: what the house hangs is hung, shoes lie apart from clothes."""

from collections.abc import Iterator

from ..layout.sense import Seen
from .check import Case, of_design
from .findings import Finding


@of_design("sense.hung", "sense.clean")
def at_a_glance(case: Case) -> Iterator[Finding]:
    """The measures of sense that a rule of the house or of hygiene stands behind."""
    seen = Seen(case.made, case.things, case.people)
    laid_away, dirty = seen.laid_away(), seen.clean()
    if laid_away:
        yield case.found("sense.hung", measured=laid_away, limit=sum(seen.wanted().values()), count=laid_away)
    if dirty:
        yield case.found("sense.clean", measured=dirty, limit=0, count=dirty)


CHECKS = (at_a_glance,)
