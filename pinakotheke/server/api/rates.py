"""How often somebody may ask for what costs much or is guessed at: by account, by address, by the name that is tried.
The rates are `NINJA_DEFAULT_THROTTLE_RATES` in the settings.
"""

import hashlib
import json
import threading
from abc import ABC, abstractmethod

from django.http import HttpRequest
from ninja.throttling import BaseThrottle, SimpleRateThrottle


class _Limit(SimpleRateThrottle, threading.local, ABC):
    """It remembers what it counts while it counts, so each thread has its own."""

    def __init__(self, scope: str) -> None:
        self.scope = scope
        super().__init__()

    @abstractmethod
    def who(self, request: HttpRequest) -> str | None:
        """Whose requests are counted together."""

    def get_cache_key(self, request: HttpRequest) -> str | None:
        who = self.who(request)
        digest = hashlib.sha256(who.encode()).hexdigest()[:32] if who else None
        return self.cache_format % {"scope": self.scope, "ident": digest} if digest else None


class ByAddress(_Limit):
    """Of one address in the network."""

    def who(self, request: HttpRequest) -> str | None:
        return self.get_ident(request)


class ByAccount(_Limit):
    """Of one user."""

    def who(self, request: HttpRequest) -> str | None:
        return str(request.user.pk)


class ByName(_Limit):
    """Of one name that is tried, from wherever."""

    def who(self, request: HttpRequest) -> str | None:
        try:
            return str(json.loads(request.body)["name"]).strip().casefold()
        except (ValueError, KeyError, TypeError):
            return None


sign_ins: list[BaseThrottle] = [ByAddress("sign-in"), ByName("sign-in-name")]
registrations = ByAddress("registration")
demos = ByAddress("demo")
links = ByAddress("link")
"""Of links that let somebody in: they are not to be guessed."""
passwords = ByAccount("password")
households = ByAccount("households")
searches = ByAccount("searches")
uploads = ByAccount("uploads")
exports = ByAccount("exports")
