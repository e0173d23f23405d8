"""The demo household, which nobody enters, and a copy of it for each visitor, which expires."""

import secrets
from datetime import timedelta
from importlib.resources import files
from typing import Any

from django.apps import apps
from django.contrib.auth import get_user_model
from django.db import transaction
from django.db.models import ForeignKey, Model
from django.utils import timezone

from pinakotheke.core.housefile import load_house
from pinakotheke.demo import as_of

from .. import models
from .access import clear_away
from .base import Invalid
from .house import import_house
from .layout import OVER, ask

LASTS = timedelta(days=2)
MOST_VISITORS = 200
NOT_COPIED = (models.Household, models.Membership, models.Invitation, models.Showing, models.Arrival, models.Photo)
BATCH = 200


def load_demo() -> models.Household:
    """The demo household, made when it is not there."""
    found = models.Household.objects.filter(is_demo=True, expires=None).first()
    if found:
        return found
    text = files("pinakotheke.demo").joinpath("halt.house.json").read_text("utf-8")
    return import_house(None, as_of(load_house(text), timezone.localdate()), demo=True)


@transaction.atomic
def visit() -> Any:
    """A visitor with a copy of the demo household; spaces without designs are searched for them."""
    template = models.Household.objects.filter(is_demo=True, expires=None).first()
    if template is None:
        raise Invalid("session.no-demo")
    if models.Household.objects.filter(is_demo=True).count() > MOST_VISITORS:
        raise Invalid("session.demo-full")
    visitor = get_user_model().objects.create_user(username=f"visitor-{secrets.token_hex(4)}")
    copy = copy_of(template)
    models.Household.objects.filter(pk=copy.pk).update(expires=timezone.now() + LASTS)
    models.Membership.objects.create(household=copy, user=visitor, role=models.Role.OWNER)
    for space in copy.space_set.order_by("pk"):
        if not space.designs.exists() and not space.solves.filter(status__in=OVER).exists():
            space.solves.all().delete()
            ask(visitor, space.pk)
    return visitor


def clear_expired() -> int:
    """Visitors' copies whose time is over go, and the visitors with them; how many."""
    over = list(models.Household.objects.filter(is_demo=True, expires__lt=timezone.now()))
    for household in over:
        with transaction.atomic():
            get_user_model().objects.filter(
                pk__in=household.members.values("pk"), username__startswith="visitor-"
            ).delete()
            clear_away(household)
    return len(over)


def copy_of(household: models.Household) -> models.Household:
    """A household with all its rows once more, but for members, photos and what devices sent."""
    copy = models.Household.objects.get(pk=household.pk)
    copy.pk = None
    copy.save()
    new: dict[type[Model], dict[int, int]] = {models.Household: {household.pk: copy.pk}}
    for model in _in_order():
        links = [f for f in model._meta.fields if isinstance(f, ForeignKey) and f.related_model in (*_models(), *new)]
        belongs = next(f for f in links if f.related_model in new and not f.null)
        rows = list(model._default_manager.filter(**{f"{belongs.attname}__in": list(new[belongs.related_model])}))
        old = [row.pk for row in rows]
        for row in rows:
            row.pk = None
            for link in links:
                there = getattr(row, link.attname)
                if there is not None:
                    setattr(row, link.attname, new.get(link.related_model, {}).get(there))
        made = model._default_manager.bulk_create(rows, batch_size=BATCH)
        new[model] = dict(zip(old, (row.pk for row in made), strict=True))
    return copy


def _models() -> list[type[Model]]:
    """Those of a household's rows."""
    own = apps.get_app_config("server").get_models()
    return [m for m in own if m not in NOT_COPIED and _owners(m)]


def _owners(model: type[Model]) -> list[type[Model]]:
    """What a row cannot be without, of this application."""
    links = (f for f in model._meta.fields if isinstance(f, ForeignKey) and not f.null)
    return [f.related_model for f in links if getattr(f.related_model, "_meta").app_label == "server"]  # noqa: B009


def _in_order() -> list[type[Model]]:
    """Each after those that it names, where it names them."""
    todo, done = _models(), [models.Household]
    while todo:
        ready = [m for m in todo if all(
            f.related_model not in todo or f.related_model is m
            for f in m._meta.fields if isinstance(f, ForeignKey))]  # fmt: skip
        done += ready  # type: ignore[arg-type]
        todo = [m for m in todo if m not in ready]
    return done[1:]  # type: ignore[return-value]
