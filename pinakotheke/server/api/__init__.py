"""The HTTP API under `/api/`: one router a stage, bodies of a few lines; rules live in the core, changes in actions."""

from functools import cached_property
from typing import Any

from ninja import NinjaAPI

from .access import signed_in
from .errors import add_handlers


class _Api(NinjaAPI):
    """Its description is made once: it takes a second of work, and does not change."""

    @cached_property
    def _described(self) -> Any:
        return super().get_openapi_schema()

    def get_openapi_schema(self, **options: Any) -> Any:
        return self._described


api = _Api(title="Pinakotheke", version="1", auth=signed_in, docs_url="docs", urls_namespace="api")
add_handlers(api)


def _routers() -> None:
    from . import (
        before_after,
        checks,
        clients,
        homes,
        house,
        install,
        inventory,
        layout,
        lists,
        log,
        materials,
        members,
        papers,
        practice,
        restock,
        reviewing,
        seasons,
        session,
        survey,
        systems,
        upkeep,
        work,
    )

    stages = (
        house,
        members,
        clients,
        work,
        survey,
        practice,
        papers,
        inventory,
        lists,
        homes,
        systems,
        layout,
        checks,
        materials,
        install,
        restock,
        reviewing,
        seasons,
        before_after,
        upkeep,
        log,
    )
    for module in (session, *stages):
        api.add_router("", module.router)


_routers()
