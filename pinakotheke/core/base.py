"""What every core model shares."""

import re
from typing import Annotated, Any

from pydantic import BaseModel, BeforeValidator, ConfigDict, Field, GetCoreSchemaHandler, StringConstraints
from pydantic_core import PydanticCustomError, core_schema

LONGEST_MM = 100_000
"""No length in a home is longer than 100 m; a bigger number is a slip of the keyboard."""

Mm = Annotated[float, Field(ge=0, le=LONGEST_MM)]
"""A length in millimetres, zero allowed."""
PositiveMm = Annotated[float, Field(gt=0, le=LONGEST_MM)]
Sides = tuple[PositiveMm, PositiveMm, PositiveMm]
"""Width, depth and height, mm."""
_UNSEEN = re.compile(
    "[\\x00-\\x08\\x0b-\\x1f\\x7f-\\x9f\\u061c\\u200b\\u200e\\u200f\\u202a-\\u202e\\u2060-\\u206f\\ufeff]"
)


def seen(text: Any) -> Any:
    """A text without control signs and without those that turn the writing round: a name is what is seen of it."""
    return _UNSEEN.sub("", text) if isinstance(text, str) else text


Seen = BeforeValidator(seen)
Name = Annotated[str, StringConstraints(strip_whitespace=True, min_length=1, max_length=240), Seen]
Id = Annotated[str, StringConstraints(pattern=r"^[A-Za-z0-9][A-Za-z0-9._-]{0,63}$")]


class Frozen(BaseModel):
    """A value: it is never edited, a step returns a new one; unknown fields, NaN and infinities are refused."""

    model_config = ConfigDict(frozen=True, extra="forbid", allow_inf_nan=False)


class Why(Frozen):
    """Where a number comes from: the rule by its name in `words.slips`, the values put in as (name, amount, unit), and
    who says so.
    """

    rule: str
    values: tuple[tuple[str, float, str], ...] = ()
    basis: str = "D"
    source: str = ""


class AtMost:
    """Of a list: how many entries it may have. Its length is looked at before anything in it, so that a list of a million
    empty objects is refused at once and for one reason.
    """

    def __init__(self, most: int) -> None:
        self.most = most

    def __get_pydantic_core_schema__(self, source: Any, handler: GetCoreSchemaHandler) -> core_schema.CoreSchema:
        return core_schema.no_info_before_validator_function(
            self._counted, handler(Annotated[source, Field(max_length=self.most)])
        )

    def _counted(self, value: Any) -> Any:
        if isinstance(value, list | tuple) and len(value) > self.most:
            raise PydanticCustomError("too_many", "at most {most} entries; there are {number}",
                                      {"most": self.most, "number": len(value)})  # fmt: skip
        return value
