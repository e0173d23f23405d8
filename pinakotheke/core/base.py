"""What every core model shares."""

from typing import Annotated

from pydantic import BaseModel, ConfigDict, Field, StringConstraints

LONGEST_MM = 100_000
"""No length in a home is longer than 100 m; a bigger number is a slip of the keyboard."""

Mm = Annotated[float, Field(ge=0, le=LONGEST_MM)]
"""A length in millimetres, zero allowed."""
PositiveMm = Annotated[float, Field(gt=0, le=LONGEST_MM)]
Name = Annotated[str, StringConstraints(strip_whitespace=True, min_length=1, max_length=120)]
Id = Annotated[str, StringConstraints(pattern=r"^[A-Za-z0-9][A-Za-z0-9._-]{0,63}$")]


class Frozen(BaseModel):
    """A value: it is never edited, a step returns a new one; unknown fields, NaN and infinities are refused."""

    model_config = ConfigDict(frozen=True, extra="forbid", allow_inf_nan=False)


class Why(Frozen):
    """Where a number comes from: the rule in words, the values put in as (name, amount, unit), and who says so."""

    rule: str
    values: tuple[tuple[str, float, str], ...] = ()
    basis: str = "D"
    source: str = ""
