"""A made-up check: what adding one takes, with the table beside it."""

import tomllib
from collections.abc import Iterator
from pathlib import Path

from pinakotheke.core.checks import Case, Finding
from pinakotheke.core.checks.check import of_design

TABLE = tomllib.loads(Path(__file__).with_suffix(".toml").read_text("utf-8"))


@of_design("noise.squeak")
def squeaks(case: Case) -> Iterator[Finding]:
    """Every drawer."""
    for part in case.made.parts:
        if part.role == "drawer":
            yield case.found("noise.squeak", where=(part.id,), place=case.place(part), measured=part.w, limit=600)


CHECKS = (squeaks,)
