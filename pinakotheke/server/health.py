"""How it stands, for whoever runs it: an address that answers whether all is well, and figures in the open text format."""

import os
from collections.abc import Iterator
from datetime import timedelta

from django.db import DatabaseError, connection
from django.http import HttpRequest, HttpResponse, JsonResponse
from django.utils import timezone
from django.views.decorators.cache import never_cache
from django.views.decorators.http import require_safe
from prometheus_client import CONTENT_TYPE_LATEST, REGISTRY, CollectorRegistry, Metric, generate_latest, multiprocess
from prometheus_client.core import GaugeMetricFamily
from prometheus_client.registry import Collector

from . import models
from .jobs import GONE_AFTER, worker_is_there

LONG_WAIT = timedelta(minutes=10)


@require_safe
@never_cache
def health(request: HttpRequest) -> JsonResponse:
    """200 while the database answers; with it whether a worker is there and how many searches wait."""
    try:
        with connection.cursor() as cursor:
            cursor.execute("SELECT 1")
        waiting = models.Solve.objects.filter(status=models.Solve.Status.QUEUED)
        late = waiting.filter(asked__lt=timezone.now() - LONG_WAIT).exists()
        there = worker_is_there()
        said = {"database": "ok", "worker": "ok" if there else "none", "searches_waiting": waiting.count(),
                "status": "ok" if there and not late else "degraded"}  # fmt: skip
    except DatabaseError:
        return JsonResponse({"database": "no answer", "status": "down"}, status=503)
    return JsonResponse(said)


@require_safe
@never_cache
def metrics(request: HttpRequest) -> HttpResponse:
    """Requests, answers and times of all web processes, and the queue, in the open text format."""
    registry = CollectorRegistry()
    if "PROMETHEUS_MULTIPROC_DIR" in os.environ:
        multiprocess.MultiProcessCollector(registry)  # type: ignore[no-untyped-call]
    else:
        registry.register(_Process())
    registry.register(Searches())
    return HttpResponse(generate_latest(registry), content_type=CONTENT_TYPE_LATEST)


class _Process(Collector):
    """What this one process counted."""

    def collect(self) -> Iterator[Metric]:
        """As the library keeps it."""
        yield from REGISTRY.collect()

    def describe(self) -> list[Metric]:
        """Nothing is asked at the registration."""
        return []


class Searches(Collector):
    """Gauges of the queue and the workers."""

    def describe(self) -> list[Metric]:
        """Nothing is asked at the registration."""
        return []

    def collect(self) -> Iterator[Metric]:
        """Asked of the database whenever the figures are asked for."""
        searches = GaugeMetricFamily("pinakotheke_searches", "Searches by status", labels=["status"])
        for status in (models.Solve.Status.QUEUED, models.Solve.Status.RUNNING):
            searches.add_metric([status.value], models.Solve.objects.filter(status=status).count())
        yield searches
        there = models.Worker.objects.filter(heard__gt=timezone.now() - GONE_AFTER).count()
        yield GaugeMetricFamily("pinakotheke_workers", "Workers heard of lately", value=there)
