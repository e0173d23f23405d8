"""Signing in and out, and one's account."""

from typing import Annotated, Any

from django.conf import settings
from django.contrib.auth import authenticate, login, logout, update_session_auth_hash
from django.http import HttpRequest, HttpResponse
from django.views.decorators.csrf import ensure_csrf_cookie
from ninja import Router, Schema
from ninja.decorators import decorate_view
from ninja.security import APIKeyCookie
from pydantic import StringConstraints

from .. import models
from ..actions import accounts as actions
from ..actions import demo
from ..actions.access import invitations_for
from ..actions.base import Invalid
from . import rates
from .common import MemberRequest, RowId, TypedName

router = Router(tags=["session"])
Password = Annotated[str, StringConstraints(min_length=1, max_length=200)]
Email = Annotated[str, StringConstraints(strip_whitespace=True, max_length=254, pattern=r"^([^@\s]+@[^@\s]+)?$")]
DJANGOS = "django.contrib.auth.backends.ModelBackend"


class AnyoneWithCsrf(APIKeyCookie):
    """Lets anyone in who carries the CSRF token: signing in is a write too."""

    param_name = settings.CSRF_COOKIE_NAME

    def authenticate(self, request: HttpRequest, key: str | None) -> str | None:
        return key


anyone = AnyoneWithCsrf(csrf=True)


class HouseholdName(Schema):
    """A household one may enter."""

    id: int
    name: str
    is_demo: bool
    role: models.Role


class SessionView(Schema):
    """Who is signed in, and where they may go."""

    user: str | None
    email: str
    households: list[HouseholdName]
    demo: bool
    invitations: int
    """How many wait for an answer."""


class Credentials(Schema):
    """A user's name and password."""

    name: TypedName
    password: Password


class NewAccount(Credentials):
    """A name, a password, and where a letter goes when it is forgotten."""

    email: Email = ""


def _view(request: HttpRequest) -> SessionView:
    user: Any = request.user
    if not user.is_authenticated:
        return SessionView(user=None, email="", households=[], demo=settings.DEMO, invitations=0)
    mine = models.Membership.objects.filter(user=user.pk).select_related("household").order_by("household_id")
    return SessionView(
        user=user.get_username(),
        email=user.email,
        households=[HouseholdName(id=m.household_id, name=m.household.name, is_demo=m.household.is_demo,
                                  role=models.Role(m.role)) for m in mine],
        demo=settings.DEMO,
        invitations=invitations_for(user).count(),
    )  # fmt: skip


@router.get("/session", response=SessionView, auth=None, operation_id="session_get")
@decorate_view(ensure_csrf_cookie)
def get_session(request: HttpRequest) -> SessionView:
    """Who am I; also sets the CSRF cookie."""
    return _view(request)


@router.post("/session", response=SessionView, auth=anyone, operation_id="session_sign_in", throttle=rates.sign_ins)
def sign_in(request: HttpRequest, data: Credentials) -> SessionView:
    """Sign in."""
    user = authenticate(request, username=data.name, password=data.password)
    if user is None:
        raise Invalid("session.wrong")
    login(request, user)
    return _view(request)


@router.post(
    "/session/register", response=SessionView, auth=anyone, operation_id="session_register",
    throttle=rates.registrations,
)  # fmt: skip
def register(request: HttpRequest, data: NewAccount) -> SessionView:
    """Register and sign in."""
    login(request, actions.register(data.name, data.password, data.email), backend=DJANGOS)
    return _view(request)


@router.post("/session/demo", response=SessionView, auth=anyone, operation_id="session_demo", throttle=rates.demos)
def enter_demo(request: HttpRequest) -> SessionView:
    """Enter a copy of the demo household of one's own; only where the deployment offers it."""
    if not settings.DEMO:
        raise Invalid("session.no-demo")
    login(request, demo.visit(), backend=DJANGOS)
    return _view(request)


@router.delete("/session", response={204: None}, operation_id="session_sign_out")
def sign_out(request: HttpRequest) -> HttpResponse:
    """Sign out."""
    logout(request)
    return HttpResponse(status=204)


class PasswordChange(Schema):
    """The password as it is, and another one."""

    old: Password
    new: Password


@router.post("/session/password", response=SessionView, operation_id="session_password", throttle=rates.passwords)
def change_password(request: MemberRequest, data: PasswordChange) -> SessionView:
    """Change the password; one stays signed in here, and is signed out everywhere else."""
    update_session_auth_hash(request, actions.change_password(request.user, data.old, data.new))
    return _view(request)


class EmailChange(Schema):
    """Where letters go; empty for nowhere."""

    password: Password
    email: Email


@router.put("/session/email", response=SessionView, operation_id="session_email", throttle=rates.passwords)
def change_email(request: MemberRequest, data: EmailChange) -> SessionView:
    """Change where the letter goes when the password is forgotten."""
    actions.change_email(request.user, data.password, data.email)
    return _view(request)


class ResetAsked(Schema):
    """Whose password was forgotten."""

    name: TypedName


@router.post(
    "/session/forgotten", response={204: None}, auth=anyone, operation_id="session_forgotten", throttle=rates.sign_ins
)
def forgotten(request: HttpRequest, data: ResetAsked) -> tuple[int, None]:
    """A letter with a link to a new password, where an address is known; the answer is the same where none is."""
    actions.ask_for_reset(data.name, request.build_absolute_uri("/new-password"))
    return 204, None


class Reset(Schema):
    """What a letter's link carries, and the new password."""

    uid: Annotated[str, StringConstraints(max_length=40)]
    token: Annotated[str, StringConstraints(max_length=100)]
    password: Password


@router.post("/session/reset", response=SessionView, auth=anyone, operation_id="session_reset", throttle=rates.links)
def reset(request: HttpRequest, data: Reset) -> SessionView:
    """A new password by a letter's link; one is signed in."""
    login(request, actions.reset(data.uid, data.token, data.password), backend=DJANGOS)
    return _view(request)


class AccountEnd(Schema):
    """The password, and the households that go with the account."""

    password: Password
    households: list[RowId] = []


class OnlyTheirs(Schema):
    """Households that nobody else owns."""

    households: list[HouseholdName]


@router.get("/session/account", response=OnlyTheirs, operation_id="session_account")
def account(request: MemberRequest) -> OnlyTheirs:
    """What would go with the account."""
    return OnlyTheirs(households=[
        HouseholdName(id=h.pk, name=h.name, is_demo=h.is_demo, role=models.Role.OWNER)
        for h in actions.only_theirs(request.user)
    ])  # fmt: skip


@router.post("/session/end", response={204: None}, operation_id="session_end", throttle=rates.passwords)
def end(request: MemberRequest, data: AccountEnd) -> tuple[int, None]:
    """Delete the account, and the households that only it owns."""
    user = request.user
    actions.delete_account(user, data.password, data.households)
    logout(request)
    return 204, None
