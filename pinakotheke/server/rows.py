"""Between rows and core models: every JSON column passes the core's validation on the way in and out."""

from typing import Any

from django.db.models import QuerySet
from pydantic import TypeAdapter, ValidationError

from pinakotheke.core import house, install, inventory, layout, materials, survey, systems, upkeep
from pinakotheke.core import housefile as files
from pinakotheke.core.inventory.containers import Container
from pinakotheke.core.inventory.owned import Owned
from pinakotheke.core.inventory.parse import HouseWord
from pinakotheke.core.layout.edit.replay import replayed

from . import models

READING_FIELDS = (
    "section", "what", "level", "face", "side", "at", "out", "value", "called", "instrument", "hand", "taken",
)  # fmt: skip
THING_FIELDS = (
    "name", "kind", "count", "owner", "frequency", "decision", "way", "size", "mass", "note", "label", "together",
    "pin_space", "pin_band", "container", "unsure",
)  # fmt: skip
PERSON_FIELDS = ("name", "stature", "posture", "age", "hand", "pronoun", "kept_from")
WORD_FIELDS = ("word", "kind", "size", "mass")
STOCK_FIELDS = ("name", "kind", "count", "size", "lid", "space", "grade", "note")
TICK_FIELDS = ("design", "step", "minutes", "estimate", "note", "amiss", "on", "by")
PLACE_FIELDS = ("name", "design", "part", "box", "height", "printed", "printed_on", "filled_on")
STAY_FIELDS = ("count", "lent_to", "lent_on")
SUPPLY_FIELDS = ("lasting", "spare", "days", "shop", "pack", "keeps")
SWAP_FIELDS = ("name", "begins", "ends", "rows", "now")
MOVEMENT_FIELDS = ("did", "count", "on", "best_before")
MONEY_FIELDS = ("space", "kind", "amount", "what", "on")


def rules_of(row: models.Household) -> house.HouseRules:
    """A household's rules."""
    return house.HouseRules.model_validate(row.rules)


def people_of(row: models.Household) -> tuple[house.Person, ...]:
    """A household's people, as they were added."""
    return tuple(person_of(p) for p in row.person_set.order_by("pk"))


def person_of(row: models.Person) -> house.Person:
    """One person."""
    return house.Person.model_validate({"id": row.key, **{f: getattr(row, f) for f in PERSON_FIELDS}})


def survey_of(row: models.Space) -> survey.Survey:
    """A space's survey: its facts and its readings."""
    readings = [
        {"id": r.key, **{f: getattr(r, f) for f in READING_FIELDS}}
        for r in sorted(row.readings.all(), key=lambda r: r.pk)
    ]
    return survey.Survey.model_validate({**row.facts, "readings": readings})


def keep_survey(row: models.Space, new: survey.Survey) -> None:
    """Store a survey: facts on the space, readings as rows (those that stay keep theirs)."""
    row.facts = new.model_dump(mode="json", exclude={"readings"})
    old = {r.key: r for r in row.readings.all()}
    kept = {r.id for r in new.readings}
    row.readings.exclude(key__in=kept).delete()
    models.Reading.objects.bulk_create(
        models.Reading(space=row, key=r.id, **r.model_dump(include=set(READING_FIELDS)))
        for r in new.readings
        if r.id not in old
    )


def stock_of(row: models.Household) -> tuple[Owned, ...]:
    """What the household owns to keep things in."""
    found = row.stock_set.order_by("pk")
    return tuple(Owned.model_validate({"id": o.key, **{f: getattr(o, f) for f in STOCK_FIELDS}}) for o in found)


def sawing_of(row: models.Household) -> materials.Sawing:
    """What the household has sawn."""
    return tuple(materials.Sawn.model_validate(one) for one in row.sawing)


def price_lists_of(row: models.Household) -> tuple[materials.PriceList, ...]:
    """Suppliers' lists the household brought."""
    return tuple(materials.PriceList.model_validate(one) for one in row.price_lists)


def money_of(row: models.Household) -> tuple[materials.MoneyEntry, ...]:
    """The household's money, as it was written down."""
    found = row.moneyentry_set.order_by("pk")
    return tuple(
        materials.MoneyEntry.model_validate({"id": m.key, **{f: getattr(m, f) for f in MONEY_FIELDS}}) for m in found
    )


def tick_of(row: models.Tick) -> install.Tick:
    """A step that was done at the wall."""
    return install.Tick.model_validate(
        {"id": row.key, "space": row.space.key, **{f: getattr(row, f) for f in TICK_FIELDS}}
    )


def place_of(row: models.Place) -> upkeep.Place:
    """A place that things are put back into."""
    return upkeep.Place.model_validate(
        {"id": row.key, "space": row.space.key, **{f: getattr(row, f) for f in PLACE_FIELDS}}
    )


def stay_of(row: models.Stay) -> upkeep.Stay:
    """So many of a thing in a place."""
    return upkeep.Stay.model_validate(
        {"id": row.key, "place": row.place.key, "thing": row.thing.key, **{f: getattr(row, f) for f in STAY_FIELDS}}
    )


def supply_of(row: models.Supply) -> upkeep.Supply:
    """A thing that is used up."""
    return upkeep.Supply.model_validate(
        {"id": row.key, "thing": row.thing.key, **{f: getattr(row, f) for f in SUPPLY_FIELDS}}
    )


def movement_of(row: models.Movement) -> upkeep.Movement:
    """What happened to a supply."""
    return upkeep.Movement.model_validate(
        {"id": row.key, "supply": row.supply.key, **{f: getattr(row, f) for f in MOVEMENT_FIELDS}}
    )


_MOVEMENTS = TypeAdapter(list[upkeep.Movement])


def movements_of(found: QuerySet[models.Movement]) -> list[upkeep.Movement]:
    """Movements in the order in which they were told: years of them, so all at once."""
    read = found.order_by("pk").values_list("key", "supply__key", *MOVEMENT_FIELDS)
    return _MOVEMENTS.validate_python([dict(zip(("id", "supply", *MOVEMENT_FIELDS), row, strict=True)) for row in read])


def swap_of(row: models.Swap) -> upkeep.Swap:
    """Things that take turns."""
    return upkeep.Swap.model_validate({"id": row.key, **{f: getattr(row, f) for f in SWAP_FIELDS}})


def review_of(row: models.Review) -> upkeep.Review:
    """A look at a space."""
    return upkeep.Review.model_validate(_of_space(row, ("on", "next_on", "answers")))


def leaving_of(row: models.Leaving) -> upkeep.Leaving:
    """Where a thing goes."""
    return upkeep.Leaving(id=row.key, thing=row.thing.key, to=row.to, by=row.by)


def hunt_of(row: models.Hunt) -> upkeep.Hunt:
    """A game of finding things."""
    return upkeep.Hunt.model_validate(_of_space(row, ("moment", "on", "finds")))


def before_of(row: models.Before) -> upkeep.Before:
    """What was noted before the work."""
    return upkeep.Before.model_validate(_of_space(row, ("pieces", "floor", "rail", "shelf")))


def _of_space(row: models.Review | models.Hunt | models.Before, fields: tuple[str, ...]) -> dict[str, Any]:
    return {"id": row.key, "space": row.space.key, **{f: getattr(row, f) for f in fields}}


def choice_of(row: models.Space) -> install.InstallChoice | None:
    """How a space is installed; None where nobody said."""
    return None if row.install is None else install.InstallChoice.model_validate(row.install)


def range_of(row: models.Range) -> systems.Range:
    """A range of the household's own."""
    return systems.Range.model_validate({"id": row.key, **row.data})


def ranges_of(row: models.Household) -> tuple[systems.Range, ...]:
    """The household's own ranges, as they were made; the families they make are known from here on."""
    found = tuple(range_of(r) for r in row.range_set.order_by("pk"))
    for own in found:
        systems.family_of_range(own)
    return found


def containers_of(row: models.Household) -> tuple[Container, ...]:
    """What containers the household can buy."""
    return tuple(Container.model_validate({"id": c.key, **c.data}) for c in row.container_set.order_by("pk"))


def words_of(row: models.Household) -> dict[str, HouseWord]:
    """What the household calls its things, by its word."""
    return {w.word: HouseWord.model_validate({f: getattr(w, f) for f in WORD_FIELDS}) for w in row.word_set.all()}


def session_of(row: models.WorkSession) -> house.WorkSession:
    """One session of work."""
    fields = {f: getattr(row, f) for f in ("goal", "minutes", "done", "spent")}
    return house.WorkSession.model_validate({"id": row.key, "space": row.space.key, **fields})


def use_of(row: models.Space) -> house.SpaceUse:
    """What a space is for."""
    return house.SpaceUse.model_validate(row.use)


def thing_of(row: models.Thing) -> inventory.Thing:
    """One thing."""
    fields = {f: getattr(row, f) for f in THING_FIELDS}
    return inventory.Thing.model_validate({"id": row.key, "space": row.space.key if row.space else "", **fields})


def things_of(space: models.Space) -> tuple[inventory.Thing, ...]:
    """The things of a space, as they were added."""
    return tuple(thing_of(t) for t in space.things.select_related("space").order_by("pk"))


def thing_fields(thing: inventory.Thing) -> dict[str, Any]:
    """A thing's columns."""
    return thing.model_dump(mode="json", include=set(THING_FIELDS))


def history_of(row: models.Design) -> layout.History:
    """A design with its edits."""
    marks = {"kept": row.kept, "chosen": row.chosen, "signed": row.signed}
    return layout.History.model_validate({"base": row.base, "done": row.done, "undone": row.undone, **marks})


def agreed_of(row: models.Design) -> tuple[house.Agreed | None, house.Agreed | None]:
    """Who chose a design, and who signed it off."""
    chosen, signed = (house.Agreed.model_validate(one) if one else None for one in (row.chosen, row.signed))
    return chosen, signed


def remark_of(row: models.Remark) -> house.Remark:
    """What a client said."""
    fields = ("by", "on", "text", "part", "about", "settled")
    return house.Remark(id=row.key, **{name: getattr(row, name) for name in fields})


def sound_history_of(row: models.Design) -> layout.History | None:
    """A design with its edits; None for one that cannot be carried out, which the gallery sets aside."""
    try:
        history = history_of(row)
    except ValidationError:
        return None
    return None if any(replayed(history)) else history


def house_of(row: models.Household) -> files.House:
    """The whole household as its house file says it."""
    spaces = list(row.space_set.prefetch_related("readings").order_by("pk"))
    return files.House(
        name=row.name,
        units=row.units,
        currency=row.currency,
        people=people_of(row),
        rules=rules_of(row),
        spaces=tuple(
            files.Space.model_validate(
                {"id": s.key, "name": s.name, "survey": survey_of(s), "use": s.use, "install": s.install}
            )
            for s in spaces
        ),
        things=tuple(thing_of(t) for t in row.thing_set.select_related("space").order_by("pk")),
        stock=stock_of(row),
        sawing=sawing_of(row),
        price_lists=price_lists_of(row),
        money=money_of(row),
        ticks=tuple(tick_of(t) for t in row.tick_set.select_related("space").order_by("pk")),
        places=tuple(place_of(p) for p in row.place_set.select_related("space").order_by("pk")),
        stays=tuple(stay_of(s) for s in row.stay_set.select_related("place", "thing").order_by("pk")),
        supplies=tuple(supply_of(s) for s in row.supply_set.select_related("thing").order_by("pk")),
        movements=tuple(movements_of(row.movement_set.all())),
        swaps=tuple(swap_of(s) for s in row.swap_set.order_by("pk")),
        reviews=tuple(review_of(r) for r in row.review_set.select_related("space").order_by("pk")),
        leaving=tuple(leaving_of(x) for x in row.leaving_set.select_related("thing").order_by("pk")),
        hunts=tuple(hunt_of(h) for h in row.hunt_set.select_related("space").order_by("pk")),
        before=tuple(before_of(b) for b in row.before_set.select_related("space").order_by("pk")),
        ranges=ranges_of(row),
        containers=containers_of(row),
        words=tuple(words_of(row).values()),
        work=tuple(session_of(w) for w in row.worksession_set.select_related("space").order_by("pk")),
        designs=tuple(
            history.model_copy(update={"remarks": tuple(remark_of(r) for r in d.remarks.all())})
            for d in models.Design.objects.filter(space__household=row)
            .prefetch_related("remarks")
            .order_by("space_id", "pk")
            if (history := sound_history_of(d)) is not None
        ),
    )
