"""Zones: where each group is to live, why, what is wrong with it, and a person's own word over it."""

from typing import Annotated

from django.http import HttpResponse
from ninja import Router, Schema
from pydantic import StringConstraints

from pinakotheke.core.checks.homes import home_findings
from pinakotheke.core.inventory import Thing
from pinakotheke.core.inventory.places import band_heights, house_zone, place_of
from pinakotheke.core.inventory.things import BANDS, Band
from pinakotheke.core.inventory.zones import homes
from pinakotheke.core.units import Units, format_volume, with_unit
from pinakotheke.core.words import why

from .. import models, rows
from ..actions import inventory as actions
from ..actions.base import own_household
from ..memo import remembered
from .common import FindingView, MemberRequest, PathId, Version, finding_views

router = Router(tags=["inventory"])


class HomeView(Schema):
    """A group's home, and why."""

    id: int
    version: int
    key: str
    name: str
    count: int
    frequency: str
    band: Band
    pinned: bool
    why: str
    current: str
    """The space it is in now; empty when it is there already."""


class RoomView(Schema):
    """A space as a home: its groups, and the room that is left."""

    id: int
    key: str
    name: str
    zones: list[str]
    where: str
    bands: list[tuple[Band, str, str]]
    """Band, its heights, the litres left."""
    homes: list[HomeView]


class HomesView(Schema):
    """All spaces as homes."""

    rooms: list[RoomView]
    findings: list[FindingView]
    moves: int
    homeless: list[str]


class Pin(Schema):
    """Where a person wants a group: a space's key, a band, or neither."""

    version: Version
    space: Annotated[str, StringConstraints(max_length=64)] = ""
    band: Band | None = None


class Going(Schema):
    """The space a group moves to."""

    version: Version
    space: Annotated[str, StringConstraints(max_length=64)]


def _homes(household: models.Household) -> HomesView:
    people, rules = rows.people_of(household), rows.rules_of(household)
    units: Units = household.units  # type: ignore[assignment]
    spaces = [s for s in household.space_set.prefetch_related("readings").order_by("pk") if s.practice is None]
    places = tuple(place_of(s.key, s.name, rows.use_of(s), rows.survey_of(s), rules, people) for s in spaces)
    things = {t.key: t for t in household.thing_set.select_related("space").order_by("pk")}
    cores = {key: rows.thing_of(t) for key, t in things.items()}
    found = homes(tuple(cores.values()), places, people)
    names, titles = {k: t.name for k, t in cores.items()}, {p.id: p.name for p in places}
    rooms = []
    for space, place in zip(spaces, places, strict=True):
        heights = band_heights(house_zone(people), place.top)
        bands = [
            (band, f"{with_unit(heights[band][0], units)} to {with_unit(min(heights[band][1], place.top), units)}",
             f"{format_volume(max(found.left[place.id][band], 0), units)} left")
            for band in BANDS if place.room[band] > 0
        ]  # fmt: skip
        living = [_home(things[h.thing], cores[h.thing], h.band, h.pinned, why(h, units),
                        titles.get(h.current, "") if h.current != place.id else "")
                  for h in found.homes if h.space == place.id]  # fmt: skip
        living.sort(key=lambda h: (BANDS.index(h.band), h.name))
        rooms.append(RoomView(id=space.pk, key=space.key, name=space.name, zones=list(place.zones), where=place.where,
                              bands=bands, homes=living))  # fmt: skip
    housed = {h.thing for h in found.homes}
    counts = {k: t.count for k, t in cores.items()}
    return HomesView(
        rooms=rooms, findings=finding_views(home_findings(found.conflicts, names, titles, counts), units),
        moves=sum(h.space != h.current for h in found.homes),
        homeless=[t.name for k, t in cores.items() if t.stays and k not in housed],
    )  # fmt: skip


def _home(row: models.Thing, thing: Thing, band: Band, pinned: bool, reason: str, current: str) -> HomeView:
    return HomeView(id=row.pk, version=row.version, key=thing.id, name=thing.name, count=thing.count,
                    frequency=thing.frequency, band=band, pinned=pinned, why=reason, current=current)  # fmt: skip


@router.get("/households/{household_id}/homes", response=HomesView, operation_id="inventory_homes")
def get(request: MemberRequest, household_id: PathId) -> HttpResponse:
    """Where each group is to live."""
    household = own_household(request.user, household_id)
    return remembered(request, household, lambda: _homes(household))


@router.post("/things/{thing_id}/pin", response=HomesView, operation_id="inventory_pin")
def pin(request: MemberRequest, thing_id: PathId, data: Pin) -> HomesView:
    """Pin a group, or leave it to the suggestion again; the rest flows on."""
    row = actions.pin(request.user, thing_id, data.version, data.space, data.band)
    return _homes(row.household)


@router.post("/things/{thing_id}/go", response=HomesView, operation_id="inventory_go")
def go(request: MemberRequest, thing_id: PathId, data: Going) -> HomesView:
    """Move a group to another space, as suggested."""
    row = actions.go_there(request.user, thing_id, data.version, data.space)
    return _homes(row.household)
