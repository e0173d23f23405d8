"""Sessions of work, what a space is for, and what the household owns to keep things in."""

from typing import Any, Literal, NamedTuple

from django.db import transaction
from django.utils import timezone

from pinakotheke.core.house import Answer, SpaceUse, WorkSession
from pinakotheke.core.inventory.owned import Owned, read_size
from pinakotheke.core.lengths import parse_length
from pinakotheke.core.materials import taken_apart
from pinakotheke.core.mechanics.materials import Grade
from pinakotheke.core.units import Units

from .. import models, rows
from .base import Invalid, NotFound, User, bump, log, own_household, own_space

MOST = 500


def _free(taken: set[str], stem: str) -> str:
    return next(f"{stem}{n}" for n in range(1, len(taken) + 2) if f"{stem}{n}" not in taken)


class Said(NamedTuple):
    """An answer before it has a name and a day."""

    question: str
    about: str
    says: Literal["yes", "no"] | None
    note: str


@transaction.atomic
def set_use(user: User, space_id: int, version: int, use: SpaceUse) -> models.Space:
    """What a space is for."""
    row = own_space(user, space_id)
    bump(row, version, "space")
    kept = use.model_copy(update={"answers": rows.use_of(row).answers})
    row.use = kept.model_dump(mode="json")
    row.save(update_fields=["use"])
    log(row.household, user, "space.use", key=row.key)
    return row


@transaction.atomic
def answer(user: User, space_id: int, version: int, said: Said) -> models.Space:
    """What somebody answers to a question about a space, with their name and the day; without *yes* or *no* it is open
    again.
    """
    row = own_space(user, space_id)
    bump(row, version, "space")
    use = rows.use_of(row)
    if said.says is None:
        use = use.without(said.question, said.about)
    else:
        day = timezone.localdate().isoformat()
        use = use.answered(Answer(question=said.question, about=said.about, says=said.says, note=said.note,
                                  by=user.get_username(), on=day))  # fmt: skip
    row.use = SpaceUse.model_validate(use.model_dump()).model_dump(mode="json")
    row.save(update_fields=["use"])
    log(row.household, user, "space.answer", key=row.key, question=said.question, about=said.about, says=said.says)
    return row


@transaction.atomic
def plan_session(user: User, household_id: int, fields: dict[str, Any], key: str | None = None) -> models.Household:
    """A session of work, new or changed."""
    household = own_household(user, household_id)
    taken = set(household.worksession_set.values_list("key", flat=True))
    if key is not None and key not in taken:
        raise NotFound("session")
    if key is None and len(taken) >= MOST:
        raise Invalid("work.too-many-sessions", most=MOST)
    space = household.space_set.filter(key=fields["space"]).first()
    if space is None:
        raise NotFound("space")
    session = WorkSession.model_validate({**fields, "id": key or _free(taken, "w")})
    values = session.model_dump(exclude={"id", "space"})
    household.worksession_set.update_or_create(key=session.id, defaults={**values, "space": space})
    log(household, user, "session.plan", key=session.id, done=session.done)
    return household


@transaction.atomic
def drop_session(user: User, household_id: int, key: str) -> models.Household:
    """Take a session out of the plan."""
    household = own_household(user, household_id)
    if not household.worksession_set.filter(key=key).delete()[0]:
        raise NotFound("session")
    log(household, user, "session.drop", key=key)
    return household


@transaction.atomic
def own(user: User, household_id: int, fields: dict[str, Any]) -> models.Household:
    """Containers, furniture or boards the household has already; `size` as it is said."""
    household = own_household(user, household_id)
    taken = set(household.stock_set.values_list("key", flat=True))
    if len(taken) >= MOST:
        raise Invalid("work.too-many-containers", most=MOST)
    units: Units = household.units  # type: ignore[assignment]
    owned = Owned.model_validate({**fields, "id": _free(taken, "o"), "size": read_size(fields["size"], units)})
    models.Stock.objects.create(household=household, key=owned.id, **owned.model_dump(mode="json", exclude={"id"}))
    log(household, user, "stock.add", key=owned.id)
    return household


@transaction.atomic
def take_apart(user: User, household_id: int, key: str, shelves: int, thickness: str, grade: Grade) -> models.Household:
    """A piece of furniture becomes the boards it is made of."""
    household = own_household(user, household_id)
    piece = next((o for o in rows.stock_of(household) if o.id == key and o.kind == "furniture"), None)
    if piece is None:
        raise NotFound("furniture")
    units: Units = household.units  # type: ignore[assignment]
    boards = taken_apart(piece, shelves, round(parse_length(thickness, units).mm), grade)
    if not boards:
        raise Invalid("work.nothing-left", name=piece.name)
    household.stock_set.filter(key=key).delete()
    taken = set(household.stock_set.values_list("key", flat=True))
    for board in boards:
        fresh = _free(taken, "o")
        taken.add(fresh)
        models.Stock.objects.create(household=household, key=fresh, **board.model_dump(mode="json", exclude={"id"}))
    log(household, user, "stock.apart", key=key)
    return household


@transaction.atomic
def disown(user: User, household_id: int, key: str) -> models.Household:
    """Take something owned off the list; what lay in it lies loose."""
    household = own_household(user, household_id)
    if not household.stock_set.filter(key=key).delete()[0]:
        raise NotFound("container")
    household.thing_set.filter(container=key).update(container="")
    log(household, user, "stock.remove", key=key)
    return household
