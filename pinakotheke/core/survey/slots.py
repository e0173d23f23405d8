"""Where readings belong in each kind of section, which are missing, and what is uncertain while they are."""

from collections import defaultdict
from collections.abc import Iterable, Iterator

from ..base import Frozen
from ..saying import say
from ..tables import load, value
from ..units import Units, format_length
from .level import level_length
from .models import Face, Level, Place, Reading, Section, Side, Survey, What


class SlotRef(Frozen):
    """A place a reading belongs to: typing on a dimension line gives a reading there."""

    section: str = "A"
    what: What
    level: Level | None = None
    face: Face | None = None
    side: Side | None = None
    at: float | None = None
    out: float | None = None

    @property
    def place(self) -> Place:
        """As `Reading.place`."""
        return (self.section, self.what, self.level, self.face, self.side, self.at, self.out)


class Slot(SlotRef):
    """A place for a reading that is asked for; `needed` when no design can be called proven without it."""

    label: str
    how: str
    lengths: dict[str, float] = {}
    """Those that `how` names."""
    needed: bool = True

    @property
    def ref(self) -> SlotRef:
        """The place alone."""
        return SlotRef.model_validate(self.model_dump(include=set(SlotRef.model_fields)))

    def label_in(self, units: Units) -> str:
        """What it is called; *{at}* in it is where along the wall."""
        return self.label.replace("{at}", format_length(self.at or 0, units))

    def how_in(self, units: Units) -> str:
        """How it is taken."""
        return say(self.how, self.lengths, units)

    def filled_by(self, reading: Reading) -> bool:
        """Whether a reading was taken here; one taken at a point counts for the places near it."""
        if (reading.section, reading.what) != (self.section, self.what):
            return False
        for wanted, got in ((self.at, reading.at), (self.out, reading.out)):
            if wanted is not None and (got is None or abs(got - wanted) > value("survey.level_near")):
                return False
        if self.what in ("corner diagonal", "stud", "ceiling"):
            return True
        return (reading.level, reading.face or self.face, reading.side) == (self.level, self.face, self.side)


MARK = 100.0
"""How far from skirting and ceiling the low and the high width are read, mm; common practice."""
CORNER = (900.0, 1200.0)
"""Where a corner is marked along its two walls, mm: 3, 4 and 5 times 300."""
LEVELS: tuple[Level, ...] = ("low", "middle", "high")
SIDES: tuple[Side, ...] = ("left", "middle", "right")


def slots(survey: Survey, section_id: str | None = None) -> tuple[Slot, ...]:
    """The readings a space wants, in the order a person with a tape takes them; of one section, or of all."""
    many = len(survey.parts) > 1
    found: list[Slot] = []
    for section in survey.parts:
        if section_id is not None and section.id != survey.section(section_id).id:
            continue
        rows = list(_of_run(survey, section) if section.at_wall else _of_inside(section))
        for row in rows:
            label = f"{section.label}: {row.label}" if many else row.label
            found.append(row.model_copy(update={"section": section.id, "label": label}))
    return tuple(found)


def _how(name: str) -> str:
    """A sentence of `tables/readings.toml`."""
    return str(load("readings")[name])


def _of_run(survey: Survey, section: Section) -> Iterator[Slot]:
    one = survey.only(section.id)
    if section.slope == "none":
        for level in LEVELS:
            yield Slot(what="width", level=level, face="back", label=f"width, {level}, at the back",
                       how=_how(f"width-{level}"), lengths={"mark": MARK})  # fmt: skip
        for side in SIDES:
            yield Slot(what="height", side=side, label=f"height, {side}",
                       how=_how("height"))  # fmt: skip
    else:
        yield Slot(what="width", level="low", face="back", label="width, low, at the back",
                   how=_how("width-low"), lengths={"mark": MARK})  # fmt: skip
        yield from _of_slope(one, section)
    if not survey.is_open_fronted:
        for end in ("left", "right"):
            yield Slot.model_validate({"what": "depth", "side": end, "label": f"depth, {end}",
                                       "how": _how("depth")})  # fmt: skip
    if survey.has_opening and (survey.door.kind != "none" or one.values("opening width")):
        yield Slot(what="opening width", label="opening, width", how=_how("opening-width"))
        yield Slot(what="opening height", label="opening, height", how=_how("opening-height"))
        yield Slot(what="left return", label="left return", how=_how("left-return"))
        yield Slot(what="right return", label="right return", how=_how("right-return"))
    if section.corner != "none":
        yield Slot(what="corner diagonal", label="corner diagonal, right", needed=False,
                   how=_how("corner"), lengths={"along": CORNER[0], "out": CORNER[1]})  # fmt: skip
    yield from _of_floor(one)
    if not survey.is_open_fronted:
        for way in ("left", "right"):
            yield Slot.model_validate({"what": "diagonal", "side": way, "label": f"diagonal from the {way} back corner",
                                       "how": _how(f"diagonal-{way}"),
                                       "needed": False})  # fmt: skip
        for level in LEVELS if section.slope == "none" else ():
            yield Slot(what="width", level=level, face="front", label=f"width, {level}, at the front",
                       how=_how("width-front"), needed=False)  # fmt: skip
    for end in ("left", "middle", "right"):
        where = "back wall" if end == "middle" else f"{end} wall"
        yield Slot.model_validate(
            {"what": "plumb", "side": end, "label": f"plumb, {where}", "needed": False, "how": _how("plumb")}
        )
    yield Slot(what="bow", side="middle", label="bow of the back wall", needed=False,
               how=_how("bow"))  # fmt: skip
    yield Slot(what="skirting height", label="skirting, height", how=_how("skirting-height"), needed=False)
    yield Slot(what="skirting thickness", label="skirting, thickness", how=_how("skirting-thickness"), needed=False)
    yield Slot(what="stud", label="a stud", how=_how("stud"), needed=False)
    if survey.has_opening or survey.is_open_fronted:
        yield Slot(what="passage", label="passage before the door", needed=False,
                   how=_how("passage"))  # fmt: skip


def _of_slope(one: Survey, section: Section) -> Iterator[Slot]:
    if section.slope == "toward back":
        depth = one.least("depth") or section.depth or value("survey.run_depth")
        for out, where in ((0.0, "at the knee wall"), (depth, "at the front")):
            yield Slot(what="ceiling", out=out, label=f"ceiling {where}",
                       how=_how("slope-out"))  # fmt: skip
        return
    yield Slot(what="ceiling", at=0.0, label="ceiling at the left end", how=_how("slope"))
    width = one.least("width")
    if width is not None:
        yield Slot(what="ceiling", at=width, label="ceiling at the right end", how=_how("slope"))
        yield Slot(what="ceiling", at=width / 2, label="ceiling half way", needed=False,
                   how=_how("slope-half"))  # fmt: skip


def _of_floor(one: Survey) -> Iterator[Slot]:
    """Falls at both ends and every so far along the run; across at the ends."""
    width = one.least("width", level="low") or one.least("width")
    if width is None:
        return
    every = value("survey.level_every")
    count = max(1, round(width / every))
    for n in range(count + 1):
        at = float(round(width * n / count))
        yield Slot(what="fall", face="back", at=at, label="floor below the level line, {at} along", how=_how("fall"),
                   lengths={"level": level_length(width)}, needed=False)  # fmt: skip


def _of_inside(section: Section) -> Iterator[Slot]:
    """What the kind of a drawer, a shelf level, a void or a door back asks for: sizes, and what limits the reach."""
    yield from (Slot.model_validate(row.model_dump()) for row in section.traits.readings)


def missing(survey: Survey, section_id: str | None = None) -> tuple[Slot, ...]:
    """Slots without a reading: needed ones first, each in the order of taking."""
    empty = unread(slots(survey, section_id), survey)
    return tuple(sorted(empty, key=lambda s: not s.needed))


def unread(wanted: Iterable[Slot], survey: Survey) -> list[Slot]:
    """Those of some slots at which nothing was read."""
    taken: dict[tuple[str, What], list[Reading]] = defaultdict(list)
    for r in survey.readings:
        taken[r.section, r.what].append(r)
    return [s for s in wanted if not any(s.filled_by(r) for r in taken.get((s.section, s.what), ()))]


class Uncertain(Frozen):
    """How much each clear size may still shrink for want of readings, mm."""

    width: float = 0
    depth: float = 0
    height: float = 0


def uncertain(survey: Survey, section_id: str = "") -> Uncertain:
    """A size read at one of its three places is doubted more than one read at two; read at all, not at all."""
    wanted = [s for s in slots(survey, section_id) if s.needed]
    absent = unread(wanted, survey)

    def doubt(*whats: What) -> float:
        places = [s for s in wanted if s.what in whats]
        lacking = sum(s.what in whats for s in absent)
        if not lacking:
            return 0.0
        return value("survey.doubt_none" if len(places) - lacking <= 1 < len(places) - 1 else "survey.doubt_some")

    return Uncertain(width=doubt("width"), depth=doubt("depth"), height=doubt("height", "ceiling"))


def add_readings(survey: Survey, new: tuple[Reading, ...]) -> Survey:
    """The survey with more readings; each keeps the place it was called for."""
    return Survey.model_validate({**survey.model_dump(), "readings": [*survey.readings, *new]})
