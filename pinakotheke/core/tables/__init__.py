"""Sourced values: every number of the trade the rules start from, with unit, basis and source.

Basis: P published (the document is named; *from memory* until someone has checked it), C common practice of the
trade, D derived (the arithmetic is given), I invented by this project (ranges, ratings and prices of its parts).
"""

import csv
import tomllib
from functools import cache
from importlib.resources import files
from typing import Any

from ..base import Frozen


class Entry(Frozen):
    """One sourced value."""

    value: float
    unit: str
    basis: str
    source: str


@cache
def load(name: str) -> dict[str, Any]:
    """A table file as it stands, read once."""
    return tomllib.loads(files(__package__).joinpath(f"{name}.toml").read_text("utf-8"))


@cache
def rows(name: str) -> tuple[dict[str, str], ...]:
    """The rows of a CSV table, read once; each has its basis in a column of that name."""
    text = files(__package__).joinpath(f"{name}.csv").read_text("utf-8")
    return tuple(csv.DictReader(text.splitlines()))


@cache
def entry(key: str) -> Entry:
    """The rule value at a dotted key of `rules.toml`, such as `fit.every_inch`; `KeyError` for an unknown one."""
    node: Any = load("rules")
    for part in key.split("."):
        if not isinstance(node, dict) or part not in node:
            raise KeyError(f"no rule value {key!r} in tables/rules.toml")
        node = node[part]
    return Entry(**node)


def value(key: str) -> float:
    """The number alone; its unit stands in the table."""
    return entry(key).value
