"""What a hand edit would bring, before it is made: what is wrong afterwards that was not, and what no longer is."""

from collections import Counter
from collections.abc import Callable, Iterable
from dataclasses import dataclass
from itertools import pairwise

from ..errors import EditRefused
from ..layout import Command, Design, History, apply
from ..layout.edit.commands import Refound
from .findings import Finding


@dataclass(frozen=True, slots=True)
class Consequence:
    """Of one edit: findings that it brings and that it mends, or the refusal of what cannot be done."""

    brings: tuple[Finding, ...] = ()
    mends: tuple[Finding, ...] = ()
    after: Design | None = None
    refused: EditRefused | None = None

    @property
    def stops(self) -> int:
        """How many of what it brings must not stay."""
        return sum(f.severity == "stop" for f in self.brings)


@dataclass(frozen=True, slots=True)
class Done:
    """An act that was done, the design it was done to, and what it took away."""

    command: Command
    before: Design
    mends: tuple[Finding, ...]


def consequences(design: Design, commands: Iterable[Command], check: Callable[[Design], tuple[Finding, ...]],
                 ) -> list[Consequence]:  # fmt: skip
    """Of each of some edits, each made by itself on the design as it stands; `check` judges a design."""
    before = check(design)
    found = []
    for command in commands:
        try:
            after = apply(design, command)
        except EditRefused as refused:
            found.append(Consequence(refused=refused))
            continue
        now = check(after)
        found.append(Consequence(brings=_more(now, before), mends=_more(before, now), after=after))
    return found


def mended(history: History, check: Callable[[Design], tuple[Finding, ...]], most: int) -> list[Done]:
    """The last acts on a design that took a finding to fix away, the latest first; `most` are looked at."""
    designs = [history.current]
    back = history
    while back.done and len(designs) <= most and not isinstance(back.done[-1], Refound):
        back = back.undo()
        designs.append(back.current)
    found = []
    for n, (after, before) in enumerate(pairwise(designs)):
        gone = [f for f in _more(check(before), check(after)) if f.severity in ("stop", "fix")]
        if gone:
            found.append(Done(history.done[-1 - n], before, tuple(gone)))
    return found


def _more(some: tuple[Finding, ...], others: tuple[Finding, ...]) -> tuple[Finding, ...]:
    """Those of some that are not among the others."""
    there = Counter(about(f) for f in others)
    found = []
    for f in some:
        if there[about(f)]:
            there[about(f)] -= 1
        else:
            found.append(f)
    return tuple(found)


def about(f: Finding) -> tuple[object, ...]:
    """What a finding is about, whatever was measured."""
    return f.code, f.severity, f.where, f.subject, f.person
