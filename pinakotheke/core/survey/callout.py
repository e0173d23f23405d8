"""The call-out line: readings as people with a tape call them to each other.

    width 1846 1849 1843            low, middle, high at the back wall
    front width 1840 1838 1839      the same, just behind the returns
    low back width 1846             one reading, its place in any order
    height 2412 2408 2415           left, middle, right
    depth 612 618                   left, right
    opening 1250 x 2030             width by height; `opening width 1250` and `opening height 2030` alone
    left nib 290                    or `left return`; `nibs 290 306` for both
    studs 112 then every 600        or `studs 112 712 1312`, `stud 1490`
    skirting 90 x 15                height by thickness; `no skirting`
    socket at 640, 300 up, 80 x 80  left edge, lower edge, width by height; then `out 12`, `access 150`, `clear 50`
    door sliding                    none, hinged left, hinged right, double, curtain; `swings in`

Clauses are parted by `;` or a new line. Words come in any order; what is not understood is said, with the mend,
and the rest of the line is still heard.
"""

import re
from itertools import count
from typing import get_args

from ..base import Frozen
from ..errors import CallOutError, LengthError
from ..lengths import Length, Units, scan_lengths, with_unit
from ..tables import load
from .models import Door, Level, Obstacle, ObstacleKind, Reading, Side, Survey, What
from .slots import add_readings

LEVELS: tuple[Level, ...] = get_args(Level)
SIDES: tuple[Side, ...] = get_args(Side)
MOST_STUDS = 200

EXAMPLES = (
    "width 1846 1849 1843", "height 2412 2408 2415", "depth 612 618", "opening 1250 x 2030", "left nib 290",
    "studs 112 then every 600", "skirting 90 x 15", "socket at 640, 300 up, 80 x 80", "door hinged left",
)  # fmt: skip


class CallOut(Frozen):
    """One clause as it was understood."""

    said: str
    echo: str
    readings: tuple[Reading, ...] = ()
    obstacles: tuple[Obstacle, ...] = ()
    door: Door | None = None
    skirting: str | None = None


class Misheard(Frozen):
    """One clause that was not understood."""

    said: str
    problem: str
    mend: str


class Heard(Frozen):
    """A whole line: what would be kept, and what was not understood."""

    understood: tuple[CallOut, ...]
    misheard: tuple[Misheard, ...]

    def kept_in(self, survey: Survey) -> Survey:
        """The survey with all that was understood added."""
        new = survey.model_dump()
        for call in self.understood:
            new["readings"] = (*new["readings"], *call.readings)
            new["obstacles"] = (*new["obstacles"], *call.obstacles)
            if call.door:
                new["door"] = call.door
            if call.skirting:
                new["skirting"] = call.skirting
        return Survey.model_validate(new)


def hear(line: str, survey: Survey, units: Units, *, hand: str = "", taken: str = "") -> Heard:
    """Understand a call-out line against the survey so far (it numbers new rows and knows the width)."""
    ear = _Ear(survey, units, hand, taken)
    understood, misheard = [], []
    for clause in (c.strip() for c in re.split(r"[;\n]", line)):
        if not clause:
            continue
        try:
            call = ear.clause(clause)
            understood.append(call)
            ear.survey = add_readings(ear.survey, call.readings)
        except (CallOutError, LengthError) as error:
            misheard.append(Misheard(said=clause, problem=error.problem, mend=error.mend))
    return Heard(understood=tuple(understood), misheard=tuple(misheard))


class _Ear:
    """Understands clauses one after the other, numbering what it hears."""

    def __init__(self, survey: Survey, units: Units, hand: str, taken: str) -> None:
        used = {r.id for r in survey.readings} | {o.id for o in survey.obstacles}
        self._ids = (f"r{n}" for n in count(1) if f"r{n}" not in used)
        self._obstacle_ids = (f"o{n}" for n in count(1) if f"o{n}" not in used)
        self.survey, self._units, self._hand, self._taken = survey, units, hand, taken

    def clause(self, said: str) -> CallOut:
        text = re.sub(r"\bnibs?\b", lambda m: m[0].replace("nib", "return"), said.lower())
        words = set(re.findall(r"[a-z]+", text))
        for known, handler in (
            ({"opening"}, self._opening),
            ({"return", "returns"}, self._returns),
            ({"skirting"}, self._skirting),
            ({"door", "doors", "curtain"}, self._door),
            (set(get_args(ObstacleKind)), self._obstacle),
            ({"stud", "studs"}, self._studs),
            ({"width", "widths", "wide"}, self._width),
            ({"height", "heights", "high"}, self._height),
            ({"depth", "depths", "deep"}, self._depth),
        ):
            if words & known:
                return handler(said, text, words)
        raise CallOutError(said, "this names nothing that is measured here", f"Say for instance: {EXAMPLES[0]}.")

    def _lengths(self, said: str, text: str) -> list[Length]:
        start = re.search(r"[\d.]", text.translate(str.maketrans("½¼¾⅛⅜⅝⅞", "0000000")))
        if start is None:
            raise CallOutError(said, "no number was called", "Add the reading, such as 1846 or 70 3/4.")
        minus = text[: start.start()].rstrip().endswith("-")
        return scan_lengths(("-" if minus else "") + text[start.start() :], self._units)

    def _reading(self, said: str, what: What, length: Length, **place: str | None) -> Reading:
        if length.exact_mm == 0:
            raise CallOutError(said, f"{what} cannot be 0", "Leave it out, or call what was read.")
        return Reading.model_validate(
            {"id": next(self._ids), "what": what, "value": length.mm, "called": said[:200], "hand": self._hand,
             "taken": self._taken, **place}
        )  # fmt: skip

    def _call(self, said: str, readings: list[Reading]) -> CallOut:
        parts = []
        for r in readings:
            place = " ".join(p for p in (r.level, r.face, r.side) if p)
            name = "stud at" if r.what == "stud" else r.what
            parts.append(f"{f'{place} ' if place else ''}{name} {with_unit(r.value, self._units)}")
        return CallOut(said=said, echo=", ".join(parts), readings=tuple(readings))

    def _width(self, said: str, text: str, words: set[str]) -> CallOut:
        face = "front" if "front" in words else "back"
        level = next((lv for lv in LEVELS if lv in words), None)
        lengths = self._lengths(said, text)
        if level is None and len(lengths) == 3:
            rows = [self._reading(said, "width", n, level=lv, face=face) for lv, n in zip(LEVELS, lengths, strict=True)]
        elif level is None and len(lengths) == 2:
            raise CallOutError(said, "two widths: at which heights?", "Call three (low, middle, high), or say low.")
        else:
            rows = [self._reading(said, "width", n, level=level, face=face) for n in lengths]
        return self._call(said, rows)

    def _height(self, said: str, text: str, words: set[str]) -> CallOut:
        side = next((s for s in SIDES if s in words), None)
        lengths = self._lengths(said, text)
        if side is None and len(lengths) == 3:
            rows = [self._reading(said, "height", n, side=s) for s, n in zip(SIDES, lengths, strict=True)]
        elif side is None and len(lengths) == 2:
            raise CallOutError(said, "two heights: where?", "Call three (left, middle, right), or say left.")
        else:
            rows = [self._reading(said, "height", n, side=side) for n in lengths]
        return self._call(said, rows)

    def _depth(self, said: str, text: str, words: set[str]) -> CallOut:
        side = next((s for s in ("left", "right") if s in words), None)
        lengths = self._lengths(said, text)
        if side is None and len(lengths) == 2:
            rows = [self._reading(said, "depth", n, side=s) for s, n in zip(("left", "right"), lengths, strict=True)]
        else:
            rows = [self._reading(said, "depth", n, side=side) for n in lengths]
        return self._call(said, rows)

    def _opening(self, said: str, text: str, words: set[str]) -> CallOut:
        lengths = self._lengths(said, text)
        if "height" in words or "high" in words:
            rows = [self._reading(said, "opening height", n) for n in lengths]
        elif re.search(r"[\d\"'¼½¾]\s*[x×]\s*\d", text):
            if len(lengths) != 2:
                raise CallOutError(said, "width by height wants two numbers", "Say opening 1250 x 2030.")
            rows = [
                self._reading(said, "opening width", lengths[0]),
                self._reading(said, "opening height", lengths[1]),
            ]
        else:
            rows = [self._reading(said, "opening width", n) for n in lengths]
        return self._call(said, rows)

    def _returns(self, said: str, text: str, words: set[str]) -> CallOut:
        lengths = self._lengths(said, text)
        if "left" in words or "right" in words:
            what: What = "left return" if "left" in words else "right return"
            return self._call(said, [self._reading(said, what, n) for n in lengths])
        if len(lengths) != 2:
            raise CallOutError(said, "which return?", "Say left return 290, or returns 290 306 for both.")
        return self._call(
            said, [self._reading(said, "left return", lengths[0]), self._reading(said, "right return", lengths[1])]
        )

    def _skirting(self, said: str, text: str, words: set[str]) -> CallOut:
        if words & {"no", "remove", "removed"}:
            return CallOut(said=said, echo="no skirting, or it is taken away", skirting="remove")
        lengths = self._lengths(said, text)
        if len(lengths) == 2 and not words & {"height", "thickness"}:
            rows = [
                self._reading(said, "skirting height", lengths[0]),
                self._reading(said, "skirting thickness", lengths[1]),
            ]
        elif words & {"height", "high"}:
            rows = [self._reading(said, "skirting height", n) for n in lengths]
        elif words & {"thickness", "thick"}:
            rows = [self._reading(said, "skirting thickness", n) for n in lengths]
        else:
            raise CallOutError(said, "height or thickness?", "Say skirting 90 x 15: height by thickness.")
        return self._call(said, rows)

    def _studs(self, said: str, text: str, words: set[str]) -> CallOut:
        pattern = re.search(
            r"^(?P<first>.*?\d.*?)(?:,?\s*then)?\s+every\s+(?P<every>.+?)(?:\s+to\s+(?P<to>.+))?$", text
        )
        if pattern is None:
            return self._call(said, [self._reading(said, "stud", n) for n in self._lengths(said, text)])
        first = self._lengths(said, pattern["first"])
        every = self._lengths(said, pattern["every"])[0]
        end = self._lengths(said, pattern["to"])[0].mm if pattern["to"] else self.survey.least("width")
        if end is None:
            raise CallOutError(said, "how far do they go?", "Read the width first, or say: … every 600 to 1800.")
        if every.exact_mm == 0 or (end - first[-1].mm) / every.mm > MOST_STUDS:
            raise CallOutError(said, "that spacing gives too many studs", "Call the spacing again, such as 600.")
        rows = list(first)
        while rows[-1].mm + every.mm < end:
            rows.append(Length(rows[-1].exact_mm + every.exact_mm, every.unit, every.text))
        return self._call(said, [self._reading(said, "stud", n) for n in rows])

    def _door(self, said: str, text: str, words: set[str]) -> CallOut:
        kind = next(
            (k for word, k in (("no", "none"), ("none", "none"), ("sliding", "sliding"), ("curtain", "curtain"),
                               ("double", "double hinged"), ("hinged", "hinged")) if word in words),
            None,
        )  # fmt: skip
        if kind is None:
            raise CallOutError(said, "what kind of door?", "Say door hinged left, sliding, double, curtain or none.")
        door = Door.model_validate(
            {"kind": kind, "hinge": "right" if "right" in words else "left", "swings": "in" if "in" in words else "out"}
        )
        hinge = f", hinged {door.hinge}, swings {door.swings}" if kind == "hinged" else ""
        return CallOut(said=said, echo=f"door: {kind}{hinge}", door=door)

    def _obstacle(self, said: str, text: str, words: set[str]) -> CallOut:
        kind = next(k for k in get_args(ObstacleKind) if k in words)
        sizes = r"(?P<{}>[\d\s./'\"¼½¾⅛⅜⅝⅞cm-]+?)"
        shape = re.search(
            rf"\bat\s+{sizes.format('x')}\s*,\s*{sizes.format('z')}\s*up\s*,\s*(?P<size>[^,]*[x×][^,]*)(?P<rest>,.*)?$",
            text,
        )
        if shape is None:
            raise CallOutError(said, f"where is the {kind}, and how big?", f"Say {kind} at 640, 300 up, 80 x 80.")
        size = self._lengths(said, shape["size"])
        if len(size) != 2:
            raise CallOutError(said, "a size is width by height", f"Say {kind} at 640, 300 up, 80 x 80.")
        facts = {key: load("obstacles")[kind][key] for key in ("projection", "access", "keep_out")}
        for word, key in (("out", "projection"), ("access", "access"), ("clear", "keep_out")):
            given = re.search(rf"\b{word}\s+([^,]+)", shape["rest"] or "")
            if given:
                facts[key] = self._lengths(said, given[1])[0].mm
        x, z = self._lengths(said, shape["x"])[0], self._lengths(said, shape["z"])[0]
        obstacle = Obstacle.model_validate(
            {"id": next(self._obstacle_ids), "kind": kind, "x": x.mm, "z": z.mm, "width": size[0].mm,
             "height": size[1].mm, **facts}
        )  # fmt: skip
        show = [with_unit(mm, self._units) for mm in (x.mm, z.mm, size[0].mm, size[1].mm)]
        echo = f"{kind} {show[0]} from the left, {show[1]} up, {show[2]} wide, {show[3]} high"
        return CallOut(said=said, echo=echo, obstacles=(obstacle,))
