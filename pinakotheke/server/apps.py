"""The Django application."""

from django.apps import AppConfig
from django.conf import settings
from django.core.checks import CheckMessage, Warning, register


class ServerConfig(AppConfig):
    """Pinakotheke's only Django application."""

    name = "pinakotheke.server"
    label = "server"

    def ready(self) -> None:
        from prometheus_client import REGISTRY

        from .health import Searches

        register(web_is_built)
        if settings.METRICS and not any(isinstance(c, Searches) for c in REGISTRY._collector_to_names):
            REGISTRY.register(Searches())


def web_is_built(**_: object) -> list[CheckMessage]:
    """pinakotheke.W001: the built pages are there."""
    if (settings.WEB_DIR / "index.html").exists():
        return []
    return [Warning("The web pages are not built.", hint="Run `make web`.", id="pinakotheke.W001")]
