"""Who is in a household, in which role: invitations, roles, leaving, handing over."""

import hashlib
import secrets
from datetime import timedelta
from typing import cast

from django.contrib.auth import get_user_model
from django.db import transaction
from django.db.models import QuerySet
from django.utils import timezone

from .. import models
from ..models import Role
from .base import Invalid, NotAllowed, NotFound, User, log, own_household

RANK = {role: rank for rank, role in enumerate(Role)}
LASTS = timedelta(days=14)
MOST_INVITATIONS, MOST_MEMBERS = 50, 100


def role_in(household: models.Household, user: User) -> Role:
    """The role of a member."""
    found = models.Membership.objects.filter(household=household, user_id=cast(int, user.pk)).first()
    if found is None:
        raise NotFound("household")
    return Role(found.role)


def household_as(user: User, household_id: int, least: Role) -> models.Household:
    """A household in which this user is at least that."""
    household = own_household(user, household_id)
    if RANK[role_in(household, user)] < RANK[least]:
        raise NotAllowed("access.role", role=least.value)
    return household


def digest_of(token: str) -> str:
    """What is kept of a link: who reads the database cannot follow it."""
    return hashlib.sha256(token.encode()).hexdigest()


def new_token() -> str:
    """What a link carries: nobody guesses it."""
    return secrets.token_urlsafe(24)


@transaction.atomic
def invite(user: User, household_id: int, role: Role, *, name: str = "", note: str = "",
           hands_over: bool = False) -> tuple[models.Invitation, str]:  # fmt: skip
    """An invitation, for a registered user by name or for whoever holds the link; the link's token is told once."""
    household = household_as(user, household_id, Role.OWNER if hands_over or role == Role.OWNER else Role.ORGANIZER)
    if household.is_demo:
        raise Invalid("house.demo")
    open_ones = household.invitations.filter(expires__gt=timezone.now())
    if open_ones.count() >= MOST_INVITATIONS:
        raise Invalid("access.too-many", most=MOST_INVITATIONS)
    whom = get_user_model().objects.filter(username__iexact=name).first() if name else None
    if name and whom is None:
        raise Invalid("house.nobody", name=name)
    if whom is not None and household.members.filter(pk=whom.pk).exists() and not hands_over:
        raise Invalid("access.member-already", name=whom.get_username())
    token = new_token()
    made = models.Invitation.objects.create(
        household=household, role=Role.OWNER if hands_over else role, user=whom, note=note, digest=digest_of(token),
        hands_over=hands_over, by_id=cast(int, user.pk), expires=timezone.now() + LASTS,
    )  # fmt: skip
    log(household, user, "member.invite", name=name or note, role=made.role)
    return made, token


@transaction.atomic
def take_back(user: User, household_id: int, invitation_id: int) -> models.Household:
    """An invitation that nobody has accepted lets nobody in any more."""
    household = household_as(user, household_id, Role.ORGANIZER)
    found = household.invitations.filter(pk=invitation_id).first()
    if found is None:
        raise NotFound("invitation")
    log(household, user, "member.take-back", name=found.user.get_username() if found.user else found.note)
    found.delete()
    return household


def invitations_for(user: User) -> QuerySet[models.Invitation]:
    """Those that wait for this user by name."""
    mine = models.Invitation.objects.select_related("household", "by")
    return mine.filter(user_id=cast(int, user.pk), expires__gt=timezone.now()).order_by("pk")


def invitation_at(token: str, user: User | None = None) -> models.Invitation:
    """The invitation of a link, as long as it holds; one for somebody else is nobody's here."""
    live = models.Invitation.objects.select_related("household", "by").filter(expires__gt=timezone.now())
    found = live.filter(digest=digest_of(token)).first()
    if found is None or (user is not None and found.user_id not in (None, user.pk)):
        raise NotFound("invitation")
    return found


@transaction.atomic
def accept(user: User, invitation: models.Invitation) -> models.Household:
    """Who is invited comes in, in that role; the invitation is used up. Where it hands over, who made it steps back."""
    household = invitation.household
    if household.members.count() >= MOST_MEMBERS:
        raise Invalid("access.too-many", most=MOST_MEMBERS)
    if not models.Invitation.objects.filter(pk=invitation.pk).delete()[0]:
        raise NotFound("invitation")
    mine, new = models.Membership.objects.get_or_create(
        household=household, user_id=cast(int, user.pk), defaults={"role": invitation.role}
    )
    if not new and RANK[Role(invitation.role)] > RANK[Role(mine.role)]:
        models.Membership.objects.filter(pk=mine.pk).update(role=invitation.role)
    if invitation.hands_over and invitation.by_id != user.pk:
        before = models.Membership.objects.filter(household=household, user_id=invitation.by_id)
        before.update(role=Role.ORGANIZER)
        log(household, user, "member.hand-over", name=user.get_username())
    else:
        log(household, user, "member.accept", name=user.get_username(), role=invitation.role)
    return household


def invitation_of(user: User, invitation_id: int) -> models.Invitation:
    """An invitation for this user, by name."""
    found = invitations_for(user).filter(pk=invitation_id).first()
    if found is None:
        raise NotFound("invitation")
    return found


@transaction.atomic
def decline(user: User, invitation_id: int) -> None:
    """An invitation by name that is not wanted."""
    found = invitation_of(user, invitation_id)
    log(found.household, user, "member.decline", name=user.get_username())
    found.delete()


def _member(household: models.Household, member_id: int) -> models.Membership:
    found = models.Membership.objects.select_related("user").filter(household=household, pk=member_id).first()
    if found is None:
        raise NotFound("member")
    return found


def _one_owner_stays(household: models.Household, but: models.Membership) -> None:
    owners = models.Membership.objects.filter(household=household, role=Role.OWNER).exclude(pk=but.pk)
    if but.role == Role.OWNER and not owners.exists():
        raise Invalid("access.last-owner")


@transaction.atomic
def change_role(user: User, household_id: int, member_id: int, role: Role) -> models.Household:
    """Another role for a member; only owners make and unmake owners, and one always stays."""
    household = household_as(user, household_id, Role.ORGANIZER)
    member = _member(household, member_id)
    if Role.OWNER in (role, member.role):
        household_as(user, household_id, Role.OWNER)
    if role != Role.OWNER:
        _one_owner_stays(household, member)
    if RANK[role] < RANK[Role(member.role)]:
        household.invitations.filter(by=member.user).delete()  # what they may no longer give
    member.role = role
    member.save(update_fields=["role"])
    log(household, user, "member.role", name=member.user.get_username(), role=role.value)
    return household


@transaction.atomic
def remove_member(user: User, household_id: int, member_id: int) -> models.Household:
    """A member goes, or is let out; from the next request on the household is not theirs."""
    household = own_household(user, household_id)
    member = _member(household, member_id)
    leaves = member.user_id == user.pk
    if not leaves:
        household_as(user, household_id, Role.OWNER if member.role == Role.OWNER else Role.ORGANIZER)
    _one_owner_stays(household, member)
    log(household, user, "member.leave" if leaves else "member.remove", name=member.user.get_username())
    household.invitations.filter(by=member.user).delete()
    member.delete()
    return household


@transaction.atomic
def delete_household(user: User, household_id: int, name: str) -> None:
    """A household and all it has, photos too; its name is said, so that it is not another one."""
    household = household_as(user, household_id, Role.OWNER)
    if name.strip() != household.name:
        raise Invalid("access.name-it", name=household.name)
    clear_away(household)


def clear_away(household: models.Household) -> None:
    """Delete a household's rows; its photos' files go once that is certain."""
    photos = models.Photo.objects.filter(space__household=household)
    kept = [(photo.file.storage, photo.file.name) for photo in photos if photo.file.name]

    def files_too() -> None:
        for storage, path in kept:
            storage.delete(path)

    household.delete()
    transaction.on_commit(files_too)
