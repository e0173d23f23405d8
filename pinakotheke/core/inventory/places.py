"""Spaces as homes for things: what usually lives there, how damp, how much room at which height."""

from ..base import Frozen
from ..house import HouseRules, Person, ReachZone, SpaceUse, reach_zone, shared_zone
from ..house.spaces import Where
from ..survey import Survey, envelopes
from ..tables import load, value
from .things import BANDS, Band


class Place(Frozen):
    """A space as a home: `room` is the litres that things may take at each height."""

    id: str
    name: str
    zones: tuple[str, ...]
    where: Where
    damp: bool
    sockets: int
    from_door: float
    locked: bool
    room: dict[Band, float]
    top: float
    """Height of the clear space, mm."""


HOUSE_DOOR = {"indoors": 8000.0, "basement": 12_000.0, "attached": 5000.0, "outdoors": 15_000.0}
"""Distance from the door in mm where nothing was said, by where a space is; this project's own guess."""


def where_of(use: SpaceUse, survey: Survey) -> Where:
    """Where a space is: as was said, or as its kind usually is."""
    where: Where = use.where or load("spaces")[survey.kind]["where"]
    return where


def place_of(
    space_id: str, name: str, use: SpaceUse, survey: Survey, rules: HouseRules, people: tuple[Person, ...]
) -> Place:
    """A space as a home. What cannot be computed from its readings yet counts as no room."""
    usual = load("spaces")[survey.kind]
    where = where_of(use, survey)
    zone = house_zone(people)
    room: dict[Band, float] = dict.fromkeys(BANDS, 0.0)
    top = 0.0
    found = envelopes(survey, rules)
    for section in survey.parts:
        region = found.get(section.id)
        if region is None:
            continue
        area = (region.x_to - region.x_from) * (region.y_to - region.y_from)
        foot = max(survey.values("shelf height", section=section.id), default=0.0)
        top = max(top, foot + region.z_to)
        for band, (low, high) in band_heights(zone, foot + region.z_to).items():
            tall = max(min(high, foot + region.z_to) - max(low, foot), 0.0)
            fill = value("inventory.space_fill" if section.kind == "run" else "inventory.shelf_fill")
            room[band] += area * tall / 1e6 * fill
    return Place(
        id=space_id, name=name, zones=use.zones or tuple(usual["zones"]), where=where, damp=survey.damp,
        sockets=sum(o.kind == "socket" for o in survey.obstacles), locked=use.locked, room=room, top=top,
        from_door=use.from_door if use.from_door is not None else HOUSE_DOOR[where],
    )  # fmt: skip


def house_zone(people: tuple[Person, ...]) -> ReachZone:
    """Heights of the bands for what belongs to nobody: easy for every adult, high as far as one of them reaches."""
    shared = shared_zone(people)
    adults = [p for p in people if p.age != "child" and p.posture == "standing"]
    return shared.model_copy(update={"high": max([shared.high, *(reach_zone(p).high for p in adults)])})


def band_heights(zone: ReachZone, top: float) -> dict[Band, tuple[float, float]]:
    """From and to of each band in mm for someone's reach, up to the top of a space."""
    low, easy, high = zone.easy_low, zone.easy_high, max(zone.high, zone.easy_high)
    return {"low": (0, low), "easy": (low, easy), "high": (easy, high), "top": (high, max(top, high))}
