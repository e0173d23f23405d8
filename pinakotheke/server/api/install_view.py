"""An installation in words: steps with their times, holes, bases, what to lay ready."""

from collections import defaultdict
from collections.abc import Sequence
from functools import cached_property
from typing import Annotated, Literal

from ninja import Schema
from pydantic import Field, StringConstraints

from pinakotheke.core.base import Id
from pinakotheke.core.checks import Case
from pinakotheke.core.drawing import Drawing
from pinakotheke.core.drawing.of_install import drilling_drawing
from pinakotheke.core.install import (
    BasePlan,
    DrillingMap,
    InstallChoice,
    InstallPlan,
    LevelLine,
    OwnTimes,
    Step,
    Tick,
    install_plan,
    own_times,
    when,
)
from pinakotheke.core.install.choice import Aim, Old, Said
from pinakotheke.core.layout import Design
from pinakotheke.core.units import Units, format_length
from pinakotheke.core.words.installing import (
    bit_in_words,
    check_in_words,
    hole_in_words,
    instrument_in_words,
    lights_in_words,
    map_cautions,
    part_in_words,
    small_in_words,
    step_facts,
    step_in_words,
    times_in_words,
)
from pinakotheke.core.words.not_as_drawn import again_aside, strayed_aside

from .. import models, rows
from .layout_view import Scene


class TickView(Schema):
    """A step that was done, or was not as drawn."""

    key: str
    step: str
    minutes: float | None
    note: str
    amiss: bool
    by: str
    on: str


class StepPhoto(Schema):
    """A photo of a step."""

    id: int
    url: str


class StepView(Schema):
    """One step: what, how, with whom, when. `starts` and `ends` are local times of its first and its last piece."""

    id: str
    number: int
    turn: str
    title: str
    how: list[str]
    minutes: float
    hands: int
    wait: float
    tools: list[str]
    parts: list[str]
    part_names: list[str]
    """What `parts` are called, and where each is."""
    section: str
    after: list[int]
    starts: str | None
    ends: str | None
    people: list[int]
    ticks: list[TickView]
    photos: list[StepPhoto]
    done: bool


class HoleView(Schema):
    """A hole: number, what part it is of, where from the datum corner and from the line, what goes into it."""

    number: int
    part: str
    part_name: str
    along: str
    from_line: str
    says: str
    bit: str
    depth: str
    refused: bool
    moved: bool


class WallView(Schema):
    """The map of one wall."""

    section: str
    name: str
    drawing: Drawing
    holes: list[HoleView]
    cautions: list[str]
    instrument: str
    check: str
    unsure: bool
    studs: list[str]
    """Where each stud was read, from the left end of the wall."""


class AlongView(Schema):
    """A place along the wall and a height there."""

    at: str
    height: str
    joint: bool = False


class FillerView(Schema):
    """A filler as its four corners."""

    side: str
    foot: str
    top: str
    height: str
    scribed: bool


class BaseView(Schema):
    """The base of one wall."""

    section: str
    name: str
    known: bool
    highest: str
    out_by: str
    packing: list[AlongView]
    plinth: list[str]
    scribe: list[AlongView]
    feet: list[AlongView]
    fillers: list[FillerView]


class StrayedData(Schema):
    """A hole where none should be, mm from the left end of the wall and above the highest point of the floor."""

    section: Id
    along: float
    height: float


class AgainData(Schema):
    """A part that is cut or bought anew, and the day on which it is there."""

    part: Id
    there: str = Field(pattern=r"^\d{4}-\d{2}-\d{2}$")


class AsideView(Schema):
    """What was set aside at the wall: a hole that strayed, a part cut anew; `place` counts in its list of the choice."""

    what: Literal["strayed", "again"]
    place: int
    says: str


class ChoiceData(Schema):
    """How a space is installed, as it is said on the page."""

    start: str = Field(pattern=r"^\d{4}-\d{2}-\d{2}$")
    old: Old = "nothing"
    paint: bool = False
    people: int = Field(2, ge=1, le=4)
    evening: int = Field(120, ge=0, le=360)
    weekend: int = Field(360, ge=0, le=720)
    aim: Aim = "soonest"
    delivered: str | None = Field(None, pattern=r"^\d{4}-\d{2}-\d{2}$")
    waits_at: Annotated[str, StringConstraints(strip_whitespace=True, max_length=200)] = ""
    has: Annotated[list[Said], Field(max_length=200)] = []
    strayed: Annotated[list[StrayedData], Field(max_length=200)] = []
    again: Annotated[list[AgainData], Field(max_length=200)] = []


class InstallView(Schema):
    """The installation of a design."""

    design: int
    space_version: int
    choice: ChoiceData
    aside: list[AsideView]
    steps: list[StepView]
    walls: list[WallView]
    bases: list[BaseView]
    tools: list[str]
    bits: list[str]
    small: list[str]
    lights: list[str]
    times: str
    hours: float
    done_hours: float
    share: float
    timed: int
    unread: list[str]


class Installing:
    """A design with its plan, read once for a request."""

    def __init__(self, row: models.Design, scene: Scene | None = None) -> None:
        self.row, self.scene = row, scene or Scene(row.space)
        self.ticks = [
            rows.tick_of(t) for t in row.space.ticks.select_related("space").filter(design=row.key).order_by("pk")
        ]

    @cached_property
    def design(self) -> Design:
        """As it is now."""
        return rows.history_of(self.row).current

    @property
    def units(self) -> Units:
        """The household's."""
        return self.scene.units

    @cached_property
    def case(self) -> Case:
        """What the plan is made from."""
        scene = self.scene
        return Case(scene.survey, scene.regions, self.design, scene.things, scene.people, limits=scene.limits,
                    house=scene.rules)  # fmt: skip

    @cached_property
    def choice(self) -> InstallChoice:
        """What was said, or the usual from today on; with the household's own times."""
        said = rows.choice_of(self.row.space) or InstallChoice.model_validate({"start": self.scene.today})
        return said.model_copy(update={"share": self.own.share})

    @cached_property
    def own(self) -> OwnTimes:
        """The household's times over the table's, from every space."""
        ticks = self.row.space.household.tick_set.select_related("space")
        return own_times(rows.tick_of(t) for t in ticks)

    @cached_property
    def done(self) -> set[str]:
        """Steps that are ticked."""
        return {t.step for t in self.ticks if not t.amiss}

    @cached_property
    def photos(self) -> dict[str, list[models.Photo]]:
        """Photos of the work, by step."""
        found: dict[str, list[models.Photo]] = defaultdict(list)
        for photo in self.row.photos.order_by("pk"):
            found[photo.step].append(photo)
        return found

    @cached_property
    def plan(self) -> InstallPlan:
        """The plan; what is done is not timed again."""
        return install_plan(self.case, self.choice, frozenset(self.done), units=self.units)

    @cached_property
    def facts(self) -> dict[str, dict[str, object]]:
        """For the sentences of the steps."""
        highest = {name: base.highest for name, base in self.plan.bases.items()}
        return step_facts(self.case, self.choice, self.plan.lines, self.scene.space.name, self.units, highest)

    def told(self, step: Step) -> tuple[str, list[str]]:
        """A step in words."""
        return step_in_words(step, self.case, self.facts, self.units)

    def named(self, section: str) -> str:
        """A section's name; the space's where it has only one."""
        one = self.scene.survey.section(section)
        return one.label if len(self.scene.survey.parts) > 1 else self.scene.space.name

    def drawing(self, section: str, text: float = 0) -> Drawing:
        """The map of a wall."""
        found, scene = self.plan, self.scene
        return drilling_drawing(self.design, scene.survey, scene.survey.section(section), found.maps[section],
                                found.lines[section], self.units, scene.space.name, scene.today, text)  # fmt: skip


def install_view(one: Installing) -> InstallView:
    """All of it in words."""
    found, times, units = one.plan, one.plan.times, one.units
    numbers = {s.id: n for n, s in enumerate(found.steps, 1)}
    spans: dict[str, tuple[int, int, set[int]]] = {}
    for b in times.booked if times else ():
        start, end, people = spans.get(b.step, (b.start, b.end, set()))
        spans[b.step] = min(start, b.start), max(end, b.end), people | set(b.people)
    steps = []
    for step in found.steps:
        title, how = one.told(step)
        span = spans.get(step.id)
        ticks = [tick_view(t) for t in one.ticks if t.step == step.id]
        steps.append(StepView(
            id=step.id, number=numbers[step.id], turn=step.turn, title=title, how=how, minutes=round(step.minutes, 1),
            hands=step.hands, wait=step.wait, tools=list(step.tools), parts=list(step.parts),
            part_names=[part_in_words(one.case, p) for p in step.parts], section=step.section,
            after=sorted(numbers[a] for a in step.after if a in numbers), ticks=ticks, done=step.id in one.done,
            photos=[StepPhoto(id=p.pk, url=f"/api/photos/{p.pk}/file") for p in one.photos.get(step.id, ())],
            starts=when(one.choice, span[0]).isoformat(timespec="minutes") if span else None,
            ends=when(one.choice, span[1]).isoformat(timespec="minutes") if span else None,
            people=sorted(span[2]) if span else [],
        ))  # fmt: skip
    choice, lights = one.choice, found.lights
    sockets = sum(o.kind == "socket" for o in one.scene.survey.obstacles)
    return InstallView(
        design=one.row.pk, space_version=one.row.space.version,
        choice=ChoiceData.model_validate(choice.model_dump(mode="json", exclude={"share"})),
        aside=_aside(one),
        steps=steps, walls=[_wall(one, s, m, found.lines[s]) for s, m in found.maps.items()],
        bases=[_base(one, b) for b in found.bases.values()],
        tools=[name for name, _ in found.tools.tools],
        bits=[bit_in_words(bit, units) for bit in found.tools.bits],
        small=[small_in_words(s, units) for s in found.tools.small],
        lights=lights_in_words(lights, sockets, units) if lights else [],
        times=times_in_words(times, choice), hours=round(found.minutes / 60, 1),
        done_hours=round(sum(t.minutes or 0 for t in one.ticks) / 60, 1), share=round(one.own.share, 2),
        timed=one.own.steps, unread=[one.named(s) for s in found.unread],
    )  # fmt: skip


def _aside(one: Installing) -> list[AsideView]:
    units, found = one.units, []
    for n, hole in enumerate(one.choice.strayed):
        line = one.plan.lines.get(hole.section)
        if line is not None:
            said = strayed_aside(one.named(hole.section), hole, line, units)
            found.append(AsideView(what="strayed", place=n, says=said))
    for n, again in enumerate(one.choice.again):
        if again.part in one.case.parts:
            found.append(AsideView(what="again", place=n, says=again_aside(one.case, again)))
    return found


def tick_view(tick: Tick) -> TickView:
    """A tick as it is shown."""
    return TickView(key=tick.id, step=tick.step, minutes=tick.minutes, note=tick.note, amiss=tick.amiss, by=tick.by,
                    on=tick.on)  # fmt: skip


def hole_views(one: Installing, found: DrillingMap, line: LevelLine) -> list[HoleView]:
    """The holes of a wall as a table."""
    units, parts = one.units, one.case.parts
    return [
        HoleView(
            number=h.number, part=h.part, part_name=one.design.family_of(parts[h.part]).named(parts[h.part]),
            along=format_length(h.along, units), from_line=_signed(line.from_line(h.height), units),
            says=hole_in_words(h, units), bit=format_length(h.bit, units) if h.bit else "–",
            depth=format_length(h.depth, units) if h.depth else "–", refused=h.refused, moved=bool(h.moved),
        )
        for h in found.holes
    ]  # fmt: skip


def _signed(mm: float, units: Units) -> str:
    return f"{'+' if mm >= 0 else '−'}{format_length(abs(mm), units)}"


def _wall(one: Installing, section: str, found: DrillingMap, line: LevelLine) -> WallView:
    return WallView(section=section, name=one.named(section), drawing=one.drawing(section),
                    holes=hole_views(one, found, line), cautions=map_cautions(found), unsure=found.unsure,
                    studs=[format_length(s, one.units) for s in one.scene.survey.only(section).studs],
                    instrument=instrument_in_words(line, one.units), check=check_in_words(line, one.units))  # fmt: skip


def _base(one: Installing, base: BasePlan) -> BaseView:
    def said(mm: float) -> str:
        return format_length(mm, one.units)

    return BaseView(
        section=base.section, name=one.named(base.section), known=base.known, highest=said(base.highest),
        out_by=said(base.out_by), plinth=[said(p) for p in base.plinth],
        packing=[AlongView(at=said(p.at), height=said(p.height), joint=p.joint) for p in base.packing],
        scribe=[AlongView(at=said(s.at), height=said(s.off)) for s in base.scribe],
        feet=[AlongView(at=said(f.at), height=f"{f.turns:.1f}") for f in base.feet],
        fillers=[FillerView(side=f.side, foot=said(f.foot), top=said(f.top), height=said(f.height), scribed=f.scribed)
                 for f in base.fillers],
    )  # fmt: skip


def rows_of_holes(one: Installing) -> Sequence[Sequence[str]]:
    """The holes of every wall as rows of a table, its header first."""
    table = [("wall", "hole", "part", "from the left", "from the line", "into", "bit", "depth")]
    for section, found in one.plan.maps.items():
        table += [(one.named(section), str(h.number), h.part_name, h.along, h.from_line, h.says, h.bit, h.depth)
                  for h in hole_views(one, found, one.plan.lines[section])]  # fmt: skip
    return table
