"""Who may call what: a guest of a household only looks. Addresses that are sent a body and change nothing say so."""

from typing import Any, cast

from django.http import HttpRequest
from ninja.security import SessionAuth

from .. import models
from ..actions.base import NotAllowed
from ..models import Role

SAFE = ("GET", "HEAD", "OPTIONS")
HOUSEHOLDS = {
    "household_id": "", "space_id": "space", "thing_id": "thing", "design_id": "space__designs",
    "solve_id": "space__solves", "photo_id": "space__photos", "place_id": "place",
}  # fmt: skip
"""How the household is found from what an address names."""


class SignedIn(SessionAuth):
    """Whoever is signed in, with the request's token; a household's guest may not write."""

    def __init__(self, *, looks: bool = False) -> None:
        super().__init__(csrf=True)
        self.looks = looks

    def authenticate(self, request: HttpRequest, key: str | None) -> Any:
        user = super().authenticate(request, key)
        if user is not None and request.method not in SAFE and not self.looks and is_guest(request):
            raise NotAllowed("access.guest")
        return user


signed_in = SignedIn()
looking = SignedIn(looks=True)
"""For what is sent a body and changes nothing: a guest may ask for it too."""


def is_guest(request: HttpRequest) -> bool:
    """Whether the sender only looks at the household that the address names."""
    named = request.resolver_match.kwargs if request.resolver_match else {}
    for name, path in HOUSEHOLDS.items():
        if name in named:
            mine = models.Membership.objects.filter(user_id=cast(int, request.user.pk), role=Role.GUEST)
            there = {"__".join(filter(None, ("household", path))): named[name]}
            return str(named[name]).isdecimal() and int(named[name]) < 2**53 and mine.filter(**there).exists()
    return False
