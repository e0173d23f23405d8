"""Buy: sheets ticked off as sawn, parts spoiled, money written down."""

from typing import Any

from django.db import transaction

from pinakotheke.core.materials import MoneyEntry, PriceList, Sawing, Sawn, spoil, unsawn
from pinakotheke.core.materials.pricelist import PriceRow

from .. import models, rows
from .base import Invalid, NotFound, User, log, own_household

MOST_ENTRIES, MOST_SAWN, MOST_LISTS = 5000, 2000, 40


def _free(taken: set[str], stem: str) -> str:
    return next(f"{stem}{n}" for n in range(1, len(taken) + 2) if f"{stem}{n}" not in taken)


def next_sawn(household: models.Household) -> str:
    """The key of the next sheet or board that is ticked off."""
    return _free({one["id"] for one in household.sawing}, "s")


def _locked(user: User, household_id: int) -> models.Household:
    """The household with its row held, so that two ticks at once are both kept."""
    own_household(user, household_id)
    return models.Household.objects.select_for_update().get(pk=household_id)


def _keep(row: models.Household, sawing: Sawing) -> models.Household:
    row.sawing = [one.model_dump(mode="json") for one in sawing]
    row.save(update_fields=["sawing"])
    return row


@transaction.atomic
def tick_off(user: User, household_id: int, sawn: Sawn) -> models.Household:
    """A sheet or board is sawn."""
    row = _locked(user, household_id)
    if len(row.sawing) >= MOST_SAWN:
        raise Invalid("buying.too-many-sawn", most=MOST_SAWN)
    found = sawn.model_copy(update={"id": next_sawn(row)})
    log(row, user, "cut.sawn", key=found.id)
    return _keep(row, (*rows.sawing_of(row), found))


@transaction.atomic
def untick(user: User, household_id: int, key: str) -> models.Household:
    """It was not sawn after all, nor what came off its rests."""
    row = _locked(user, household_id)
    sawing = rows.sawing_of(row)
    if key not in {one.id for one in sawing}:
        raise NotFound("sheet")
    log(row, user, "cut.unsawn", key=key)
    return _keep(row, unsawn(sawing, key))


@transaction.atomic
def spoil_part(user: User, household_id: int, part: str) -> models.Household:
    """A part that was sawn is spoiled: it is planned anew."""
    row = _locked(user, household_id)
    sawing = rows.sawing_of(row)
    if not any(p.id == part and not p.spoiled for one in sawing for p in one.parts):
        raise NotFound("part")
    log(row, user, "cut.spoiled", part=part)
    return _keep(row, spoil(sawing, part))


@transaction.atomic
def bring_prices(
    user: User, household_id: int, fields: dict[str, Any], priced: tuple[PriceRow, ...]
) -> models.Household:
    """A supplier's list; one of the same name is replaced."""
    row = _locked(user, household_id)
    kept = [one for one in rows.price_lists_of(row) if one.name != fields["name"]]
    if len(kept) >= MOST_LISTS:
        raise Invalid("buying.too-many-lists", most=MOST_LISTS)
    brought = PriceList.model_validate({**fields, "id": _free({one.id for one in kept}, "p"), "rows": priced})
    row.price_lists = [one.model_dump(mode="json") for one in (*kept, brought)]
    row.save(update_fields=["price_lists"])
    log(row, user, "prices.bring", key=brought.id)
    return row


@transaction.atomic
def drop_prices(user: User, household_id: int, key: str) -> models.Household:
    """Take a supplier's list away."""
    row = _locked(user, household_id)
    kept = [one for one in rows.price_lists_of(row) if one.id != key]
    if len(kept) == len(row.price_lists):
        raise NotFound("list")
    row.price_lists = [one.model_dump(mode="json") for one in kept]
    row.save(update_fields=["price_lists"])
    log(row, user, "prices.drop", key=key)
    return row


@transaction.atomic
def write_down(user: User, household_id: int, fields: dict[str, Any]) -> models.Household:
    """Money ordered, received or returned for a space."""
    household = own_household(user, household_id)
    if not household.space_set.filter(key=fields["space"]).exists():
        raise NotFound("space")
    taken = set(household.moneyentry_set.values_list("key", flat=True))
    if len(taken) >= MOST_ENTRIES:
        raise Invalid("buying.too-many", most=MOST_ENTRIES)
    entry = MoneyEntry.model_validate({**fields, "id": _free(taken, "m")})
    models.MoneyEntry.objects.create(household=household, key=entry.id, **entry.model_dump(exclude={"id"}))
    log(household, user, "money.add", space=entry.space, what=entry.what, key=entry.id)
    return household


@transaction.atomic
def strike_out(user: User, household_id: int, key: str) -> models.Household:
    """Take an entry out of the ledger of money."""
    household = own_household(user, household_id)
    if not household.moneyentry_set.filter(key=key).delete()[0]:
        raise NotFound("entry")
    log(household, user, "money.remove", key=key)
    return household
