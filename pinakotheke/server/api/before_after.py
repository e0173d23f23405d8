"""Keep: before and after, in photos and figures, and a game of finding things."""

from typing import Annotated

from django.http import HttpResponse
from django.utils import timezone
from ninja import Router, Schema
from pydantic import Field
from shapely import box, unary_union

from pinakotheke.core.base import Id
from pinakotheke.core.drawing.before_after_report import Figure, before_after_report
from pinakotheke.core.layout import Design, ledger
from pinakotheke.core.materials.ledger import accounts
from pinakotheke.core.units import Units, format_volume
from pinakotheke.core.upkeep import Before
from pinakotheke.core.upkeep.before_after import TO_FIND, Find, Moment, last, times, to_find
from pinakotheke.core.words.before_after import FEET, SQUARE_FEET, metres, square_metres, times_in_words
from pinakotheke.core.words.money import money

from .. import models, rows
from ..actions import before_after as actions
from ..actions.base import own_space
from .common import MemberRequest, PathId
from .layout_view import Scene
from .survey_view import PhotoView, photo_view
from .upkeep_view import Keeping

router = Router(tags=["upkeep"])
ON_FLOOR = 50
"""What begins lower stands on the floor, mm."""
MOST_PAIRS = 6


class BeforeData(Schema):
    """What was there before the work: floor in m² or square feet, rail and shelf in m or feet, as the household speaks."""

    pieces: Annotated[int, Field(ge=0, le=1_000_000)] | None = None
    floor: Annotated[float, Field(ge=0, le=10_000)] | None = None
    rail: Annotated[float, Field(ge=0, le=10_000)] | None = None
    shelf: Annotated[float, Field(ge=0, le=10_000)] | None = None


class HuntData(Schema):
    """A game that was played; the key is made by the device that says it."""

    key: Id
    moment: Moment
    finds: Annotated[list[Find], Field(min_length=1, max_length=50)]


class FigureView(Schema):
    """A figure before and after; empty where nobody knows."""

    name: str
    before: str
    after: str


class HuntView(Schema):
    """A game that was played."""

    key: str
    moment: Moment
    on: str
    says: str


class BeforeAfterView(Schema):
    """A space before and after."""

    figures: list[FigureView]
    noted: BeforeData
    length_unit: str
    area_unit: str
    photos: list[PhotoView]
    hunts: list[HuntView]
    to_find: list[str]
    """Things of the next game."""


class _Won:
    """What was won in a space, read once."""

    def __init__(self, space: models.Space) -> None:
        self.space, self.household = space, space.household
        self.units: Units = space.household.units  # type: ignore[assignment]
        row = models.Before.objects.select_related("space").filter(space=space).first()
        self.noted = rows.before_of(row) if row else Before(id="none", space=space.key)
        self.hunts = [rows.hunt_of(h) for h in space.hunts.select_related("space").order_by("on", "pk")]
        self.photos = list(space.photos.filter(moment__in=("before", "after")).order_by("taken", "pk"))
        self.keeping = Keeping(space)

    def figures(self) -> list[Figure]:
        """Every figure, before and after."""
        units, noted = self.units, self.noted
        scene = Scene(self.space)
        design_row = self.keeping.design()
        design = rows.history_of(design_row).current if design_row else None
        staying = sum(t.count for t in scene.things if t.stays)
        gone = self.household.log.filter(action="upkeep.gone", detail__space=self.space.key)
        out = sum(t.count for t in scene.things if not t.stays) + sum(int(e.detail["count"]) for e in gone)
        pieces = noted.pieces if noted.pieces is not None else staying + out
        found = [Figure("pieces", str(pieces), str(staying)), Figure("pieces out", "", str(out))]
        if design is not None:
            given = {line.storage: line.given or 0 for line in ledger(scene.things, scene.rules, design).lines}
            shelf = sum(given.get(s, 0) for s in ("folded", "shoes", "containers")) / 1000
            found += [
                Figure("rail", metres(noted.rail, units), metres(given.get("hanging", 0) / 1000, units)),
                Figure("shelf", metres(noted.shelf, units), metres(shelf, units)),
                Figure("floor covered", square_metres(noted.floor, units), square_metres(covered(design), units)),
            ]
            if given.get("drawers"):
                found.append(Figure("drawers", "", format_volume(given["drawers"], units)))
            out_of_reach = sum(f.code.startswith("reach.") for f in scene.findings(design))
            found.append(Figure("out of easy reach", "", str(out_of_reach)))
        return [*found, *self._spent(), Figure("finding things", times_in_words(last(self.hunts, "before")),
                                               times_in_words(last(self.hunts, "after")))]  # fmt: skip

    def _spent(self) -> list[Figure]:
        work = sum(s.spent or 0 for s in self.space.work.all())
        ticked = sum(t.minutes or 0 for t in self.space.ticks.all())
        entries = [e for e in rows.money_of(self.household) if e.space == self.space.key]
        spent = next((a.spent for a in accounts({}, entries) if a.space == self.space.key), None)
        return [
            Figure("hours of work", "", f"{(work + ticked) / 60:.1f} h" if work + ticked else ""),
            Figure("money spent", "", money(spent, self.household.currency) if spent else ""),
        ]


def covered(design: Design) -> float:
    """Floor that the parts of a design cover, m²: those that stand on it, what lies over each other once."""
    total = 0.0
    for section in {p.section for p in design.parts}:
        stands = [box(p.x, p.y, p.x + p.w, p.y + p.d) for p in design.parts if p.section == section and p.z < ON_FLOOR]
        total += unary_union(stands).area if stands else 0.0
    return total / 1e6


def _spoken(noted: Before, units: Units) -> BeforeData:
    """What was noted, in the household's units."""
    area, length = (1.0, 1.0) if units == "metric" else (SQUARE_FEET, FEET)
    return BeforeData(pieces=noted.pieces, floor=_times(noted.floor, area), rail=_times(noted.rail, length),
                      shelf=_times(noted.shelf, length))  # fmt: skip


def _times(value: float | None, factor: float) -> float | None:
    return None if value is None else round(value * factor, 3)


def _view(space: models.Space) -> BeforeAfterView:
    won = _Won(space)
    placed = [won.keeping.things[s.thing].name for s in won.keeping.stays if not s.lent_to]
    names = placed or [t.name for t in won.keeping.things.values() if t.stays]
    return BeforeAfterView(
        figures=[FigureView(**f._asdict()) for f in won.figures()],
        noted=_spoken(won.noted, won.units), length_unit="m" if won.units == "metric" else "ft",
        area_unit="m²" if won.units == "metric" else "sq ft",
        photos=[photo_view(p) for p in won.photos], to_find=to_find(names, len(won.hunts), TO_FIND),
        hunts=[HuntView(key=h.id, moment=h.moment, on=h.on, says=times_in_words(times(h))) for h in reversed(won.hunts)],
    )  # fmt: skip


@router.get("/spaces/{space_id}/before-after", response=BeforeAfterView, operation_id="upkeep_before_after")
def before_after(request: MemberRequest, space_id: PathId) -> BeforeAfterView:
    """A space before and after."""
    return _view(own_space(request.user, space_id))


@router.put("/spaces/{space_id}/before", response=BeforeAfterView, operation_id="upkeep_note_before")
def note(request: MemberRequest, space_id: PathId, data: BeforeData) -> BeforeAfterView:
    """What was there before the work."""
    units = own_space(request.user, space_id).household.units
    area, length = (1.0, 1.0) if units == "metric" else (1 / SQUARE_FEET, 1 / FEET)
    fields = {"pieces": data.pieces, "floor": _times(data.floor, area), "rail": _times(data.rail, length),
              "shelf": _times(data.shelf, length)}  # fmt: skip
    return _view(actions.note(request.user, space_id, fields))


@router.post("/spaces/{space_id}/hunts", response=BeforeAfterView, operation_id="upkeep_hunted")
def hunted(request: MemberRequest, space_id: PathId, data: HuntData) -> BeforeAfterView:
    """A game was played; sent twice it is kept once."""
    return _view(actions.hunted(request.user, space_id, data.key, data.model_dump(exclude={"key"})))


@router.delete("/households/{household_id}/hunts/{key}", response=BeforeAfterView, operation_id="upkeep_unhunted")
def unhunted(request: MemberRequest, household_id: PathId, key: Id) -> BeforeAfterView:
    """A game does not count."""
    return _view(actions.forget(request.user, household_id, key))


@router.get("/spaces/{space_id}/before-after.pdf", operation_id="upkeep_before_after_report")
def report(request: MemberRequest, space_id: PathId) -> HttpResponse:
    """What was won, on paper, for whoever pays for it."""
    won = _Won(own_space(request.user, space_id))
    before, after = ([p.file.open("rb").read() for p in won.photos if p.moment == m] for m in ("before", "after"))
    pairs = [(before[n] if n < len(before) else b"", after[n] if n < len(after) else b"")
             for n in range(min(max(len(before), len(after)), MOST_PAIRS))]  # fmt: skip
    title, today = f"{won.space.name}: before and after", timezone.localdate().isoformat()
    data = before_after_report(title, today, won.figures(), pairs, [], won.units)
    response = HttpResponse(data, content_type="application/pdf")
    response["Content-Disposition"] = f'inline; filename="{won.space.key}-before-after.pdf"'
    return response
