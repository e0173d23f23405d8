"""What the log says of each act."""

from collections.abc import Mapping
from functools import cache
from typing import Any

from ..tables import load

ABOUT = ("name", "said", "thing", "place", "step", "what", "space", "design", "key")
"""What an act was about: the first of these that it noted."""


@cache
def kinds() -> dict[str, str]:
    """Kinds of acts with what each is called."""
    return dict(load("log")["kinds"])


def kind_of_act(action: str) -> str:
    """The kind of an act; that of designs where nothing is known of it."""
    return str(_row(action)["kind"])


def acts_of(kind: str) -> tuple[str, ...]:
    """The beginnings of the names of acts of a kind."""
    table = load("log")
    own = [name for name, row in table["acts"].items() if row["kind"] == kind]
    return (*own, *(f"{stage}." for stage, row in table["stages"].items() if row["kind"] == kind))


def acts_saying(word: str) -> list[str]:
    """The acts whose words have this in them."""
    return [name for name, row in load("log")["acts"].items() if word.casefold() in row["says"].casefold()]


def act_in_words(action: str, detail: Mapping[str, Any]) -> str:
    """An act and what it was about: `put: hall-closet-shelf-2, shirts, 4`."""
    # A name says more than any key beside it.
    about = [str(detail["name"])] if detail.get("name") else [str(detail[key]) for key in ABOUT if detail.get(key)][:2]
    if "count" in detail:
        about.append(str(detail["count"]))
    said = str(_row(action)["says"])
    return f"{said}: {', '.join(about)}" if about else said


def _row(action: str) -> Mapping[str, Any]:
    table = load("log")
    stages = table["stages"]
    found: Mapping[str, Any] = table["acts"].get(action) or stages.get(action.split(".")[0]) or stages["layout"]
    return found
