"""The Django application."""

from django.apps import AppConfig
from django.core.checks import CheckMessage, Warning, register


class ServerConfig(AppConfig):
    """Pinakotheke's only Django application."""

    name = "pinakotheke.server"
    label = "server"

    def ready(self) -> None:
        register(web_is_built)


def web_is_built(**_: object) -> list[CheckMessage]:
    """pinakotheke.W001: the built pages are there."""
    from django.conf import settings

    if (settings.WEB_DIR / "index.html").exists():
        return []
    return [Warning("The web pages are not built.", hint="Run `make web`.", id="pinakotheke.W001")]
