"""Strips as they are cut: their lengths, and the slots by which they are halved into each other.

Where two strips cross, the one that lies along x has a slot open at the top, the other one a slot open below, each half
as deep as the strip is high (a cross halving). Where a strip ends at another one it runs on through that one's thickness
and is halved there, so that nothing but the joint holds it (an end halving). A slot is as wide as the strip is thick, and
a little more, so that it goes together by hand.
"""

from collections.abc import Iterator, Sequence
from typing import Literal, NamedTuple

from .dividers import Strip

Edge = Literal["top", "bottom"]


class Slot(NamedTuple):
    """A slot of a strip: from its left end (back end, of a strip along y) to the slot's near side, its width and depth in
    mm, and the edge it is open at.
    """

    at: float
    width: float
    depth: float
    edge: Edge


class Piece(NamedTuple):
    """A strip to cut: where it begins in the drawer, its whole length with what runs into others, its slots in order, and
    at how many ends it only butts, glued, because a slot there would run into another one.
    """

    strip: Strip
    start: int
    length: int
    slots: tuple[Slot, ...]
    butts: int = 0


class _Joint(NamedTuple):
    host: int
    """The strip that is slotted somewhere along its length."""
    other: int
    at: int
    """Where the other one's near side is along it."""
    ends: Literal["", "start", "end"]
    """Which end of the other one it is; empty where that one goes on."""


def pieces(strips: Sequence[Strip], thick: int, high: int, *, play: float, web: float) -> tuple[Piece, ...]:
    """Every strip as it is cut, in the order given; `thick` and `high` are the strip's own, `play` what a slot is wider
    than the strip is thick, `web` the least wood between two slots; mm.
    """
    slots: list[list[Slot]] = [[] for _ in strips]
    starts, ends, butts = [s.start for s in strips], [s.end for s in strips], [0] * len(strips)
    taken: list[list[int]] = [[] for _ in strips]
    made = []
    for joint in sorted(_joints(strips, thick), key=lambda j: j.ends != ""):
        host = joint.host
        near = [t for t in taken[host] if t != joint.at and abs(t - joint.at) < thick + web]
        own = strips[host].at
        near += [t for t in taken[joint.other] if t != own and abs(t - own) < thick + web]
        if near and joint.ends:
            butts[joint.other] += 1
            continue
        taken[host].append(joint.at)
        taken[joint.other] += [own] if joint.ends else []
        made.append(joint)
        if joint.ends == "start":
            starts[joint.other] -= thick
        elif joint.ends == "end":
            ends[joint.other] += thick
    for joint in made:
        edge: Edge = "top" if strips[joint.host].along == "x" else "bottom"
        _slot(slots[joint.host], joint.at - starts[joint.host], thick, play, high, edge)
        if joint.ends:
            mine = strips[joint.host].at - starts[joint.other]
            _slot(slots[joint.other], mine, thick, play, high, "bottom" if edge == "top" else "top")
    return tuple(
        Piece(s, starts[n], ends[n] - starts[n], tuple(sorted(slots[n])), butts[n]) for n, s in enumerate(strips)
    )


def _slot(slots: list[Slot], at: float, thick: int, play: float, high: int, edge: Edge) -> None:
    one = Slot(at - play / 2, thick + play, high / 2, edge)
    if one not in slots:
        slots.append(one)


def _joints(strips: Sequence[Strip], thick: int) -> Iterator[_Joint]:
    """Where strips meet: both ways round where they cross, once where one ends at the other."""
    for h, host in enumerate(strips):
        for o, other in enumerate(strips):
            within = host.start <= other.at and other.at + thick <= host.end
            if other.along == host.along or not within:
                continue
            if other.start < host.at and host.at + thick < other.end:
                yield _Joint(h, o, other.at, "")
            elif other.end == host.at:
                yield _Joint(h, o, other.at, "end")
            elif other.start == host.at + thick:
                yield _Joint(h, o, other.at, "start")
