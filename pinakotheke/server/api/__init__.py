"""The HTTP API under `/api/`: one router a stage, bodies of a few lines; rules live in the core, changes in actions."""

from ninja import NinjaAPI
from ninja.security import django_auth

from .errors import add_handlers

api = NinjaAPI(title="Pinakotheke", version="1", auth=django_auth, docs_url="docs", urls_namespace="api")
add_handlers(api)


def _routers() -> None:
    from . import (
        before_after,
        checks,
        homes,
        house,
        install,
        inventory,
        layout,
        lists,
        log,
        materials,
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
