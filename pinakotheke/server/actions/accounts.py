"""Accounts: a new one, its password, the address for letters, and its end."""

import tomllib
from pathlib import Path
from typing import Any, cast

from django.contrib.auth import get_user_model
from django.contrib.auth.models import User as Account
from django.contrib.auth.password_validation import validate_password
from django.contrib.auth.tokens import default_token_generator
from django.core.exceptions import ValidationError
from django.core.mail import send_mail
from django.db import IntegrityError, transaction
from django.utils.encoding import force_bytes
from django.utils.http import urlsafe_base64_decode, urlsafe_base64_encode

from .. import models
from ..models import Role
from .access import clear_away
from .base import Invalid, User


@transaction.atomic
def register(name: str, password: str, email: str = "") -> Any:
    """A new user; the name must be free and the password not a common one."""
    users = get_user_model()
    name = users.normalize_username(name)
    if users.objects.filter(username__iexact=name).exists():
        raise Invalid("house.name-taken")
    _strong(password)
    try:
        with transaction.atomic():
            return users.objects.create_user(username=name, password=password, email=email)
    except IntegrityError:
        raise Invalid("house.name-taken") from None


def _strong(password: str, user: Any = None) -> None:
    try:
        validate_password(password, user)
    except ValidationError as error:
        raise Invalid("house.weak-password", faults=error.messages) from None


def change_password(user: User, old: str, new: str) -> Account:
    """Another password; every other session of this user ends."""
    row = cast(Account, user)
    if not row.check_password(old):
        raise Invalid("session.wrong-password")
    return _take(row, new)


def _take(row: Account, password: str) -> Account:
    _strong(password, row)
    row.set_password(password)
    row.save(update_fields=["password"])
    return row


def change_email(user: User, password: str, email: str) -> None:
    """Where letters go; none with an empty one."""
    row = cast(Account, user)
    if not row.check_password(password):
        raise Invalid("session.wrong-password")
    row.email = email
    row.save(update_fields=["email"])


LETTERS = tomllib.loads((Path(__file__).parents[1] / "letters.toml").read_text("utf-8"))


def ask_for_reset(name: str, page: str) -> None:
    """A letter with a link to a new password, to the address of that name. Who asks is told the same where there is
    none, so that nobody learns who is registered.
    """
    row = get_user_model().objects.filter(username__iexact=name, is_active=True).exclude(email="").first()
    if row is None or not row.has_usable_password():
        return
    link = f"{page}/{urlsafe_base64_encode(force_bytes(row.pk))}/{default_token_generator.make_token(row)}"
    letter = LETTERS["new-password"]
    send_mail(letter["subject"], letter["body"].format(name=row.get_username(), link=link), None, [row.email])


def reset(uid: str, token: str, password: str) -> Account:
    """A new password by the link of a letter, which holds once."""
    try:
        pk = int(urlsafe_base64_decode(uid).decode())
    except (ValueError, OverflowError):
        raise Invalid("session.old-link") from None
    row = get_user_model().objects.filter(pk=pk, is_active=True).first() if pk < 2**63 else None
    if row is None or not default_token_generator.check_token(row, token):
        raise Invalid("session.old-link")
    return _take(row, password)


def only_theirs(user: User) -> list[models.Household]:
    """Households that nobody else owns: they would be nobody's without this user."""
    mine = models.Membership.objects.filter(user_id=cast(int, user.pk), role=Role.OWNER).select_related("household")
    others = models.Membership.objects.filter(role=Role.OWNER).exclude(user_id=cast(int, user.pk))
    return [one.household for one in mine.exclude(household__in=others.values("household")).order_by("household_id")]


@transaction.atomic
def delete_account(user: User, password: str, households: list[int]) -> None:
    """The end of an account, and of the households that only it owns: each is named, so that none goes unseen."""
    row = cast(Account, user)
    if not row.check_password(password):
        raise Invalid("session.wrong-password")
    theirs = only_theirs(user)
    left = [h.name for h in theirs if h.pk not in households]
    if left:
        raise Invalid("session.households-left", names=left)
    for household in theirs:
        clear_away(household)
    row.delete()
