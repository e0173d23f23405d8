"""Keep in words: places with what lies in them, labels, and what was found."""

from collections import defaultdict
from collections.abc import Sequence

from django.db.models import Case, When
from ninja import Schema

from pinakotheke.core.drawing import Drawing
from pinakotheke.core.drawing.labels import set_label
from pinakotheke.core.inventory.kinds import KINDS, kind_of
from pinakotheke.core.layout import Design
from pinakotheke.core.units import Units, format_length
from pinakotheke.core.upkeep import Label, LabelSheet, differences, filling_order, label_of, sheets
from pinakotheke.core.words.upkeep import difference_in_words, stick_in_words

from .. import models, rows
from ..actions.upkeep import MOST_PRINTED
from .install_view import Installing
from .layout_view import DrawingOptions, Scene
from .restock_view import open_days

FLOOR = 50
"""What lies lower stands on the floor, and no height is said of it, mm."""


class StayView(Schema):
    """So many of a thing in a place."""

    thing: str
    name: str
    count: int
    owner: str
    lent_to: str
    lent_on: str


class PlaceView(Schema):
    """A place: what lies in it, what its label says, and in which order it is filled."""

    id: int
    key: str
    name: str
    part: str
    height: str
    order: int
    filled_on: str
    stays: list[StayView]
    title: str
    lines: list[str]
    printed_on: str
    outdated: bool
    """Whether its label says something else than is true now."""
    left_out: str
    """What does not go onto its label on the sheet asked for."""
    stick: str
    """Where its label goes on what is seen of it."""


class LooseView(Schema):
    """A thing of this space of which some have no place."""

    thing: str
    name: str
    count: int
    of: int


class SheetView(Schema):
    """A label sheet."""

    id: str
    name: str
    count: int


class UpkeepView(Schema):
    """The places of a space."""

    household: int
    space: int
    design: int | None
    """The design that was moved into."""
    design_title: str
    places: list[PlaceView]
    differences: list[str]
    loose: list[LooseView]
    sheets: list[SheetView]
    sheet: str


class FoundPlace(Schema):
    """Where something is."""

    space: int
    space_name: str
    place: int | None
    place_name: str
    count: int
    lent_to: str


class FoundView(Schema):
    """Something that was found."""

    what: str
    """`thing`, `place` or `space`."""
    id: int
    key: str
    name: str
    count: int
    owner: str
    where: list[FoundPlace]
    beside: FoundPlace | None = None
    """Of a thing that has no place: where those like it lie."""


class Keeping:
    """A space with its places, read once for a request."""

    def __init__(self, space: models.Space) -> None:
        self.space, self.household = space, space.household
        self.rows = list(space.places.order_by("pk"))
        stays = models.Stay.objects.filter(place__space=space).select_related("place", "thing__space").order_by("pk")
        self.stay_rows = list(stays)
        self.places = [rows.place_of(p) for p in self.rows]
        self.stays = [rows.stay_of(s) for s in self.stay_rows]
        here = space.things.select_related("space")
        self.things = {t.key: rows.thing_of(t) for t in (*(s.thing for s in self.stay_rows), *here)}
        self.people = rows.people_of(self.household)

    def design(self) -> models.Design | None:
        """The design that was moved into, while it is there."""
        keys = {p.design for p in self.rows if p.design}
        return self.space.designs.filter(key__in=keys).first() if keys else None

    def picture(self) -> Drawing | None:
        """The design that was moved into, as it is seen from before it."""
        row = self.design()
        if row is None:
            return None
        return Scene(row.space).elevation(rows.history_of(row).current, DrawingOptions(dimensions=False))

    def labels(self, origin: str = "", date: str = "", only: Sequence[int] = (), *,
               pictured: bool = False) -> list[tuple[models.Place, Label]]:  # fmt: skip
        """The label of every place, or of some; codes lead to `origin`."""
        some, days = set(only), open_days(self.space)
        return [
            (row, label_of(place, self.stays, self.things, self.people, date=date, code=f"{origin}/at/{row.pk}",
                           use_by=days, pictured=pictured))
            for row, place in zip(self.rows, self.places, strict=True)
            if not some or row.pk in some
        ]  # fmt: skip


def upkeep_view(one: Keeping, origin: str, sheet: str = "", pictured: bool = False) -> UpkeepView:
    """The places of a space in words; with a sheet, what does not go onto its labels."""
    units: Units = one.household.units  # type: ignore[assignment]
    order = {p.id: n for n, p in enumerate(filling_order(one.places, one.stays, one.things), 1)}
    names = {p.id: p.name for p in one.people}
    held: dict[str, list[StayView]] = defaultdict(list)
    placed: dict[str, int] = defaultdict(int)
    for stay in one.stays:
        thing = one.things[stay.thing]
        placed[thing.id] += stay.count
        held[stay.place].append(StayView(thing=thing.id, name=thing.name, count=stay.count, lent_to=stay.lent_to,
                                         owner=names.get(thing.owner, ""), lent_on=stay.lent_on))  # fmt: skip
    found = sheets().get(sheet)
    design = one.design()
    case = Installing(design).case if design is not None else None
    sticks = _sticks(one, case.made, found, units) if case is not None and found is not None else {}
    places = [
        PlaceView(
            id=row.pk, key=row.key, name=row.name, part=row.part, order=order[row.key], stays=held[row.key],
            filled_on=row.filled_on, stick=sticks.get(row.key, ""),
            height=format_length(row.height, units) if row.height and row.height > FLOOR else "", title=label.title,
            lines=list(label.lines), printed_on=row.printed_on, left_out=_left_out(label, found),
            outdated=bool(row.printed) and row.printed != label.text[:MOST_PRINTED],
        )
        for row, label in one.labels(origin, pictured=pictured)
    ]  # fmt: skip
    said: list[str] = []
    title = ""
    if case is not None:
        title = case.made.title
        at = {p.id: p.name for p in one.places}
        said = [difference_in_words(d, at[d.place], one.things[d.thing])
                for d in differences(case.made, one.places, one.stays, case.things) if d.thing in one.things]  # fmt: skip
    away = models.Stay.objects.filter(thing__space=one.space).exclude(place__space=one.space)
    for thing_key, count in away.values_list("thing__key", "count"):
        placed[thing_key] += count
    loose = [LooseView(thing=t.id, name=t.name, count=t.count - placed[t.id], of=t.count)
             for t in one.things.values() if t.stays and t.space == one.space.key and placed[t.id] < t.count]  # fmt: skip
    return UpkeepView(household=one.household.pk, space=one.space.pk, design=design.pk if design else None,
                      design_title=title, places=places,
                      differences=said, loose=loose, sheet=sheet if found else "",
                      sheets=[SheetView(id=s.id, name=s.name, count=s.count) for s in sheets().values()])  # fmt: skip


def _sticks(one: Keeping, design: Design, sheet: LabelSheet, units: Units) -> dict[str, str]:
    """By place, where a label goes on the front of its part, or of its box."""
    parts = {p.id: p for p in design.parts}
    found = {}
    for place in one.places:
        part, box = parts.get(place.part), design.box(place.box) if place.box else None
        if part is not None:
            front = (box.width, box.height) if box is not None else (float(part.w), float(part.h))
            found[place.id] = stick_in_words(front, sheet.label, units)
    return found


def _left_out(label: Label, sheet: LabelSheet | None) -> str:
    if sheet is None:
        return ""
    one = set_label(label, *sheet.label)
    said = [*one.left_out]
    if one.unprinted:
        said.append(f"no letters for {one.unprinted}")
    if label.code and not one.code:
        said.append("the code")
    return ", ".join(said)


def _at(space: models.Space, place: models.Place | None = None, count: int = 0, lent_to: str = "") -> FoundPlace:
    return FoundPlace(space=space.pk, space_name=space.name, place=place.pk if place else None, count=count,
                      place_name=place.name if place else "", lent_to=lent_to)  # fmt: skip


def _beside(household: models.Household, thing: models.Thing) -> FoundPlace | None:
    """Where things like one lie that has no place: those of its kind, else those of its group, in its own space first."""
    group = kind_of(thing.kind).group
    kinds = [k for k, row in KINDS.items() if group and row.group == group]
    stays = household.stay_set.select_related("place__space").annotate(
        here=Case(When(place__space=thing.space_id, then=0), default=1)
    )  # fmt: skip
    stay = (stays.filter(thing__kind=thing.kind).order_by("here", "-count").first()
            or stays.filter(thing__kind__in=kinds).order_by("here", "-count").first())  # fmt: skip
    return _at(stay.place.space, stay.place) if stay else None


def found_views(household: models.Household, keys: Sequence[str]) -> list[FoundView]:
    """What was found, in the order of its keys, with where it is."""
    ids: dict[str, list[int]] = {"t": [], "p": [], "s": []}
    for key in keys:
        ids[key[0]].append(int(key[1:]))
    people = dict(household.person_set.values_list("key", "name"))
    things = {t.pk: t for t in household.thing_set.filter(pk__in=ids["t"]).select_related("space")}
    places = {p.pk: p for p in household.place_set.filter(pk__in=ids["p"]).select_related("space")}
    spaces = {s.pk: s for s in household.space_set.filter(pk__in=ids["s"])}
    stays: dict[int, list[FoundPlace]] = defaultdict(list)
    for s in household.stay_set.filter(thing__in=ids["t"]).select_related("place__space").order_by("pk"):
        stays[s.thing_id].append(_at(s.place.space, s.place, s.count, s.lent_to))
    found = []
    for key in keys:
        pk = int(key[1:])
        if key[0] == "t" and pk in things:
            t = things[pk]
            where = stays[pk] or ([_at(t.space, count=t.count)] if t.space else [])
            beside = None if stays[pk] else _beside(household, t)
            found.append(FoundView(what="thing", id=pk, key=t.key, name=t.name, count=t.count,
                                   owner=people.get(t.owner, ""), where=where, beside=beside))  # fmt: skip
        elif key[0] == "p" and pk in places:
            p = places[pk]
            found.append(FoundView(what="place", id=pk, key=p.key, name=p.name, count=0, owner="",
                                   where=[_at(p.space, p)]))  # fmt: skip
        elif key[0] == "s" and pk in spaces:
            one = spaces[pk]
            found.append(FoundView(what="space", id=pk, key=one.key, name=one.name, count=0, owner="",
                                   where=[_at(one)]))  # fmt: skip
    return found
