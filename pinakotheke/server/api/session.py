"""Signing in and out."""

from typing import Annotated

from django.conf import settings
from django.contrib.auth import authenticate, login, logout
from django.http import HttpRequest, HttpResponse
from django.views.decorators.csrf import ensure_csrf_cookie
from ninja import Router, Schema
from ninja.decorators import decorate_view
from ninja.security import APIKeyCookie
from pydantic import StringConstraints

from .. import models
from ..actions import house as actions
from ..actions.base import Invalid
from .common import TypedName

router = Router(tags=["session"])
Password = Annotated[str, StringConstraints(min_length=1, max_length=200)]


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


class SessionView(Schema):
    """Who is signed in, and where they may go."""

    user: str | None
    households: list[HouseholdName]
    demo: bool


class Credentials(Schema):
    """A user's name and password."""

    name: TypedName
    password: Password


def _view(request: HttpRequest) -> SessionView:
    user = request.user
    if not user.is_authenticated:
        return SessionView(user=None, households=[], demo=settings.DEMO)
    households = models.Household.objects.filter(members=user.pk).order_by("pk")
    return SessionView(
        user=user.get_username(),
        households=[HouseholdName(id=h.pk, name=h.name, is_demo=h.is_demo) for h in households],
        demo=settings.DEMO,
    )


@router.get("/session", response=SessionView, auth=None, operation_id="session_get")
@decorate_view(ensure_csrf_cookie)
def get_session(request: HttpRequest) -> SessionView:
    """Who am I; also sets the CSRF cookie."""
    return _view(request)


@router.post("/session", response=SessionView, auth=anyone, operation_id="session_sign_in")
def sign_in(request: HttpRequest, data: Credentials) -> SessionView:
    """Sign in."""
    user = authenticate(request, username=data.name, password=data.password)
    if user is None:
        raise Invalid("session.wrong")
    login(request, user)
    return _view(request)


@router.post("/session/register", response=SessionView, auth=anyone, operation_id="session_register")
def register(request: HttpRequest, data: Credentials) -> SessionView:
    """Register and sign in."""
    login(request, actions.register(data.name, data.password))
    return _view(request)


@router.post("/session/demo", response=SessionView, auth=anyone, operation_id="session_demo")
def enter_demo(request: HttpRequest) -> SessionView:
    """Enter the demo household; only where the deployment offers it."""
    member = models.Membership.objects.filter(household__is_demo=True).select_related("user").first()
    if not settings.DEMO or member is None:
        raise Invalid("session.no-demo")
    login(request, member.user, backend="django.contrib.auth.backends.ModelBackend")
    return _view(request)


@router.delete("/session", response={204: None}, operation_id="session_sign_out")
def sign_out(request: HttpRequest) -> HttpResponse:
    """Sign out."""
    logout(request)
    return HttpResponse(status=204)
