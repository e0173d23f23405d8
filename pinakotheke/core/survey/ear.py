"""The ear of the call-out line: which section is spoken of, what is corrected, and the readings it makes."""

import re
from collections.abc import Callable
from dataclasses import dataclass, replace
from functools import cache
from itertools import count

from ..errors import CallOutError
from ..lengths import Length, scan_lengths
from ..units import Units, with_unit
from .heard import CallOut
from .models import ZERO_ALLOWED, Reading, Survey, What
from .sections import section_kinds


@cache
def _section_named(kinds: tuple[str, ...]) -> re.Pattern[str]:
    """The beginning of a line that says which section is meant."""
    names = "|".join(re.escape(kind).replace(r"\ ", r"\s+") for kind in kinds)
    return re.compile(rf"^(?:(?P<kind>{names})\s+)?(?P<name>[a-z]|\d{{1,2}})\s*(?P<colon>:)?(?:\s+|$)", re.I)


@dataclass(frozen=True)
class Clause:
    """A clause: as said, in lower case, its words, and the section it speaks of; and what its thing is called, as it was
    said.
    """

    said: str
    text: str
    words: frozenset[str]
    section: str
    label: str = ""

    def pick(self, names: tuple[str, ...]) -> str | None:
        """The first of some words that was said."""
        return next((n for n in names if n in self.words), None)


class Ear:
    """Understands clauses one after the other, numbering what it hears."""

    def __init__(self, survey: Survey, units: Units, readers: "tuple[tuple[frozenset[str], Reader], ...]", *,
                 section: str, hand: str, taken: str, instrument: str) -> None:  # fmt: skip
        self._readers = readers
        used = {r.id for r in survey.readings} | {o.id for o in survey.obstacles}
        self._ids = (f"r{n}" for n in count(1) if f"r{n}" not in used)
        self.obstacle_ids = (f"o{n}" for n in count(1) if f"o{n}" not in used)
        self.survey, self.units, self._instrument = survey, units, instrument
        self._hand, self._taken = hand, taken
        self.section = survey.section(section).id

    def clause(self, said: str) -> CallOut | None:
        """One clause; None when it only names a section."""
        # What it is called says nothing of what it is, and is kept as it was said.
        spoken, _, label = re.sub(r"\s+called\s+", "\0", said, count=1, flags=re.IGNORECASE).partition("\0")
        text = self._listen_for_section(spoken.lower())
        if not text:
            return None
        text = re.sub(r"\bnibs?\b", lambda m: m[0].replace("nib", "return"), text)
        clause = Clause(said, text, frozenset(re.findall(r"[a-z]+", text)), self.section, label.strip(" ,"))
        correction = re.search(r"\bnot\s+(\S.*)$", text)
        if correction:
            return self._corrected(clause, text[: correction.start()].strip(), correction[1])
        return self._understand(clause)

    def _understand(self, clause: Clause) -> CallOut:
        for known, reader in self._readers:
            if clause.words & known:
                return reader(self, clause)
        raise CallOutError("call.names-nothing", clause.said)

    def _listen_for_section(self, text: str) -> str:
        spoken = {kind: {kind, traits.called, *traits.said} for kind, traits in section_kinds().items()}
        match = _section_named(tuple(sorted(set().union(*spoken.values())))).match(text)
        if match is None or not (match["kind"] or match["colon"]):
            return text
        name, kind = match["name"].lower(), re.sub(r"\s+", " ", match["kind"] or "").lower()
        for section in self.survey.parts:
            own = section.id.rpartition("-")[2].lower()
            if own == name and (not kind or kind in spoken[section.kind]):
                self.section = section.id
                return text[match.end() :].strip()
        known = [s.label for s in self.survey.parts]
        raise CallOutError("call.no-section", text, kind=kind or "section", name=name.upper(), known=known)

    def _corrected(self, clause: Clause, right: str, wrong: str) -> CallOut:
        words = frozenset(re.findall(r"[a-z]+", right))
        call = self._understand(replace(clause, text=right, words=words))
        was = self.lengths(clause, wrong)
        if len(call.readings) != 1 or len(was) != 1:
            raise CallOutError("call.one-correction", clause.said)
        new = call.readings[0]
        back = [r for r in self.survey.readings if r.place == new.place and abs(r.value - was[0].mm) < 0.5]
        if not back:
            there = [r.value for r in self.survey.readings if r.place == new.place]
            code = "call.not-read-so" if there else "call.nothing-to-correct"
            raise CallOutError(code, clause.said, mm=was[0].mm, there=there)
        echo = f"{call.echo}, not {with_unit(was[0].mm, self.units)}"
        return call.model_copy(update={"takes_back": (back[-1].id,), "echo": echo})

    def lengths(self, clause: Clause, text: str | None = None) -> list[Length]:
        """The lengths in a text, from its first number on; a minus before the first is kept."""
        text = clause.text if text is None else text
        start = re.search(r"[\d.]", text.translate(str.maketrans("½¼¾⅛⅜⅝⅞", "0000000")))
        if start is None:
            raise CallOutError("call.no-number", clause.said)
        minus = text[: start.start()].rstrip().endswith("-")
        return scan_lengths(("-" if minus else "") + text[start.start() :], self.units)

    def reading(self, clause: Clause, what: What, mm: float, **place: str | float | None) -> Reading:
        """One reading at a place of the clause's section."""
        if mm == 0 and what not in ZERO_ALLOWED:
            raise CallOutError("call.nought", clause.said, what=what)
        return Reading.model_validate(
            {"id": next(self._ids), "section": clause.section, "what": what, "value": mm, "called": clause.said[:200],
             "hand": self._hand, "taken": self._taken, "instrument": self._instrument, **place}
        )  # fmt: skip

    def call(self, clause: Clause, readings: list[Reading]) -> CallOut:
        """Readings with their echo."""
        return CallOut(said=clause.said, echo=", ".join(self._echo(r) for r in readings), readings=tuple(readings))

    def _echo(self, r: Reading) -> str:
        place = " ".join(p for p in (r.level, r.face, r.side) if p)
        name = {"stud": "stud at", "fall": "floor, below the line"}.get(r.what, r.what)
        many = f"{self.survey.section(r.section).label}: " if len(self.survey.parts) > 1 else ""
        at = f" at {with_unit(r.at, self.units)}" if r.at is not None else ""
        out = f" out {with_unit(r.out, self.units)}" if r.out is not None else ""
        return f"{many}{f'{place} ' if place else ''}{name} {with_unit(r.value, self.units)}{at}{out}"


Reader = Callable[[Ear, Clause], CallOut]
"""Understands one clause that holds one of its words."""
