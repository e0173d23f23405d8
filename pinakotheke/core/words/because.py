"""Why a part is where it is, in the household's words and units."""

from collections.abc import Iterable

from ..layout.report.because import Because
from ..saying import say
from ..tables import load
from ..units import Units


def because_in_words(reasons: Iterable[Because], units: Units) -> list[str]:
    """A sentence a reason, each once."""
    table = load("because")
    how_often = table["how_often"]
    said = (
        say(table[r.rule]["says"], {**r.facts, "often": how_often.get(r.facts.get("often"), "")}, units)
        for r in reasons
    )  # fmt: skip
    return list(dict.fromkeys(s[:1].upper() + s[1:] for s in said))
