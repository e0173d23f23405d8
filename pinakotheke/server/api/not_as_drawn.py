"""What is not as drawn at the wall: what was found, and what is planned anew because of it."""

from datetime import date
from typing import Annotated, Literal

from django.utils import timezone
from ninja import Schema
from pydantic import Field, StringConstraints

from pinakotheke.core.checks import check_design
from pinakotheke.core.errors import Refusal
from pinakotheke.core.install.amiss import Way, cut_anew, hole_strayed, holes_changed, short_part
from pinakotheke.core.lengths import parse_length
from pinakotheke.core.words.not_as_drawn import (
    bow_in_words,
    changed_in_words,
    short_in_words,
    strayed_in_words,
    stud_in_words,
)

from ..actions import install as actions
from ..actions.base import Invalid, User, own_design
from .install_view import Installing


class NotAsDrawn(Schema):
    """What is not as drawn, and what was read of it."""

    note: Annotated[str, StringConstraints(max_length=300)] = ""
    what: Literal["", "stud", "bow", "hole", "short"] = ""
    """A stud stands elsewhere, the wall bows, a hole strayed, a part is short; else it is in the note."""
    section: Annotated[str, StringConstraints(max_length=64)] = ""
    number: Annotated[int, Field(ge=1, le=2000)] | None = None
    """Of the stud, counted from the left, or of the hole on the map."""
    part: Annotated[str, StringConstraints(max_length=120)] = ""
    at: Annotated[str, StringConstraints(max_length=40)] = ""
    """Where the stud stands, from the left end of the wall; how far the wall bows, the hole strayed, the part is short."""
    way: Way = ""
    there: str | None = Field(None, pattern=r"^\d{4}-\d{2}-\d{2}$")
    """The day on which a part that is cut anew is there."""


def not_as_drawn(user: User, one: Installing, data: NotAsDrawn) -> str:
    """What was found, in words, with what it changes: what hangs is locked, the rest is planned anew."""
    up = {p for s in one.plan.steps if s.id in one.done for p in s.parts}
    said = _found(user, one, data, up) if data.what else ""
    actions.lock_what_hangs(user, one.row.pk, tuple(up))
    return f"{said} {data.note}".strip()[:500]


def _found(user: User, one: Installing, data: NotAsDrawn, up: set[str]) -> str:
    size, units = parse_length(data.at, one.units).mm, one.units
    if data.what == "short":
        return _short(user, one, data, size)
    before = one.plan.maps.get(data.section)
    if before is None:
        raise Invalid("install.no-map", section=data.section)
    number = data.number or 0
    if data.what == "stud":
        was = actions.stud_elsewhere(user, one.row, data.section, number, size, data.at)
        said = stud_in_words(was, size, units)
    elif data.what == "hole":
        hole, choice = hole_strayed(one.choice, before, number, size, data.way)
        kept = choice.strayed[len(one.choice.strayed) :]
        if kept:
            actions.set_aside(user, one.row, lambda c: c.model_copy(update={"strayed": (*c.strayed, *kept)}))
        said = strayed_in_words(hole, size, data.way, bool(kept), units)
    else:
        if data.way not in ("out", "in"):
            raise Refusal("install.no-way")
        bow = size if data.way == "out" else -size
        actions.wall_bowed(user, one.row, data.section, bow, data.at)
        said = bow_in_words(bow, _stops(user, one), units)
    after = Installing(own_design(user, one.row.pk))
    changed = holes_changed(before, after.plan.maps[data.section], up)
    return f"{said} {changed_in_words(one.case, changed)}"


def _stops(user: User, one: Installing) -> int:
    """How many findings stop the design that did not before."""

    def stops(each: Installing) -> int:
        scene = each.scene
        found = check_design(each.design, scene.survey, scene.regions, scene.things, scene.people, limits=scene.limits,
                             house=scene.rules)  # fmt: skip
        return sum(f.severity == "stop" for f in found)

    return max(stops(Installing(own_design(user, one.row.pk))) - stops(one), 0)


def _short(user: User, one: Installing, data: NotAsDrawn, by: float) -> str:
    part = one.case.parts.get(data.part)
    if part is None:
        raise Invalid("install.no-part", part=data.part)
    verdict, bears = short_part(one.design, part, by)
    there = None
    if verdict == "anew":
        try:
            asked = date.fromisoformat(data.there) if data.there else None
        except ValueError:
            raise Invalid("install.no-day", day=data.there) from None
        today = timezone.localdate()
        there = cut_anew(one.choice, part.id, today, asked).again[-1].there
        actions.set_aside(user, one.row, lambda c: cut_anew(c, part.id, today, asked))
    return short_in_words(one.case, part, by, verdict, bears, there, one.units)
