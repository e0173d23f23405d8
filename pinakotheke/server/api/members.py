"""Brief: who is in a household, in which role; invitations; the end of a household."""

from typing import Annotated

from django.http import HttpRequest
from ninja import Router, Schema
from pydantic import StringConstraints

from .. import models
from ..actions import access as actions
from ..actions.base import own_household
from ..models import Role
from . import rates
from .access import looking
from .common import MemberRequest, PathId, TypedName

router = Router(tags=["house"])
Token = Annotated[str, StringConstraints(min_length=20, max_length=100)]


class MemberView(Schema):
    """A member."""

    id: int
    name: str
    role: Role
    since: str
    you: bool


class InvitationView(Schema):
    """An invitation that nobody has accepted yet."""

    id: int
    for_whom: str
    by_name: bool
    """For a registered user; else for whoever holds the link."""
    role: Role
    hands_over: bool
    expires: str


class MembersView(Schema):
    """Who is in a household, who is invited, and what one may do oneself."""

    role: Role
    members: list[MemberView]
    invitations: list[InvitationView]
    link: str
    """Of an invitation that was just made: where it is accepted; told once."""


def _view(request: MemberRequest, household: models.Household, link: str = "") -> MembersView:
    rows = models.Membership.objects.filter(household=household).select_related("user").order_by("pk")
    members = [
        MemberView(id=m.pk, name=m.user.get_username(), role=Role(m.role), you=m.user_id == request.user.pk,
                   since=m.since.date().isoformat() if m.since else "")
        for m in rows
    ]  # fmt: skip
    mine = next(m.role for m in members if m.you)
    waiting = household.invitations.select_related("user").order_by("pk") if actions.RANK[mine] >= 2 else []
    invitations = [
        InvitationView(id=i.pk, for_whom=i.user.get_username() if i.user else i.note, by_name=i.user is not None,
                       role=Role(i.role), hands_over=i.hands_over, expires=i.expires.date().isoformat())
        for i in waiting
    ]  # fmt: skip
    return MembersView(role=mine, members=members, invitations=invitations, link=link)


@router.get("/households/{household_id}/members", response=MembersView, operation_id="house_members")
def members(request: MemberRequest, household_id: PathId) -> MembersView:
    """Who is in a household, and who is invited."""
    return _view(request, own_household(request.user, household_id))


class NewInvitation(Schema):
    """For a registered user by name, or, without one, for whoever holds the link."""

    role: Role = Role.MEMBER
    name: Annotated[str, StringConstraints(strip_whitespace=True, max_length=150)] = ""
    note: Annotated[str, StringConstraints(strip_whitespace=True, max_length=120)] = ""
    hands_over: bool = False


@router.post(
    "/households/{household_id}/invitations", response={201: MembersView}, operation_id="house_invite",
    throttle=rates.households,
)  # fmt: skip
def invite(request: MemberRequest, household_id: PathId, data: NewInvitation) -> tuple[int, MembersView]:
    """Invite somebody; they come in when they accept."""
    made, token = actions.invite(request.user, household_id, data.role, name=data.name, note=data.note,
                                 hands_over=data.hands_over)  # fmt: skip
    link = "" if made.user_id else request.build_absolute_uri(f"/invited/{token}")
    return 201, _view(request, made.household, link)


@router.delete(
    "/households/{household_id}/invitations/{invitation_id}", response=MembersView, operation_id="house_uninvite"
)
def uninvite(request: MemberRequest, household_id: PathId, invitation_id: PathId) -> MembersView:
    """Take back an invitation."""
    return _view(request, actions.take_back(request.user, household_id, invitation_id))


class RoleChange(Schema):
    """Another role."""

    role: Role


@router.put("/households/{household_id}/members/{member_id}", response=MembersView, operation_id="house_change_role")
def change_role(request: MemberRequest, household_id: PathId, member_id: PathId, data: RoleChange) -> MembersView:
    """Give a member another role."""
    return _view(request, actions.change_role(request.user, household_id, member_id, data.role))


@router.delete(
    "/households/{household_id}/members/{member_id}", response={204: None}, operation_id="house_remove_member",
    auth=looking,
)  # fmt: skip
def remove_member(request: MemberRequest, household_id: PathId, member_id: PathId) -> tuple[int, None]:
    """Let a member out, or leave oneself, as a guest may too."""
    actions.remove_member(request.user, household_id, member_id)
    return 204, None


class HouseholdEnd(Schema):
    """The household's name as it stands."""

    name: TypedName


@router.post("/households/{household_id}/end", response={204: None}, operation_id="house_end")
def end(request: MemberRequest, household_id: PathId, data: HouseholdEnd) -> tuple[int, None]:
    """Delete a household and all it has."""
    actions.delete_household(request.user, household_id, data.name)
    return 204, None


class InvitedView(Schema):
    """An invitation as the invited sees it."""

    id: int
    household: str
    by: str
    role: Role
    hands_over: bool
    expires: str


class InvitedList(Schema):
    """Invitations that wait for an answer."""

    each: list[InvitedView]


def _invited(row: models.Invitation) -> InvitedView:
    return InvitedView(id=row.pk, household=row.household.name, by=row.by.get_username(), role=Role(row.role),
                       hands_over=row.hands_over, expires=row.expires.date().isoformat())  # fmt: skip


@router.get("/session/invitations", response=InvitedList, operation_id="session_invitations")
def invitations(request: MemberRequest) -> InvitedList:
    """Invitations for oneself, by name."""
    return InvitedList(each=[_invited(row) for row in actions.invitations_for(request.user)])


@router.get("/invited/{token}", response=InvitedView, auth=None, operation_id="session_invited", throttle=rates.links)
def invited(request: HttpRequest, token: str) -> InvitedView:
    """What a link invites into."""
    return _invited(actions.invitation_at(token))


class Entered(Schema):
    """The household one came into."""

    id: int


@router.post("/invited/{token}", response=Entered, operation_id="session_accept_link", throttle=rates.links)
def accept_link(request: MemberRequest, token: str) -> Entered:
    """Accept the invitation of a link."""
    return Entered(id=actions.accept(request.user, actions.invitation_at(token, request.user)).pk)


@router.post("/session/invitations/{invitation_id}", response=Entered, operation_id="session_accept")
def accept(request: MemberRequest, invitation_id: PathId) -> Entered:
    """Accept an invitation for oneself."""
    return Entered(id=actions.accept(request.user, actions.invitation_of(request.user, invitation_id)).pk)


@router.delete("/session/invitations/{invitation_id}", response={204: None}, operation_id="session_decline")
def decline(request: MemberRequest, invitation_id: PathId) -> tuple[int, None]:
    """Decline an invitation."""
    actions.decline(request.user, invitation_id)
    return 204, None
