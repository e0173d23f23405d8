"""`manage.py demo`: the demo household, a worker and the server, until Ctrl-C."""

import os
import signal
import subprocess
import sys
import time
from importlib.resources import files
from typing import Any

from django.conf import settings
from django.contrib.auth import get_user_model
from django.core.management import call_command
from django.core.management.base import BaseCommand, CommandParser

from pinakotheke.core.housefile import load_house
from pinakotheke.server import models
from pinakotheke.server.actions.house import import_house
from pinakotheke.server.actions.layout import OVER, ask
from pinakotheke.server.jobs import pick_up_again

DEMO_USER = "demo"
WORKER = [sys.executable, "manage.py", "db_worker", "--interval", "0.1"]


def load_demo() -> models.Household:
    """The demo household, made when it is not there."""
    found = models.Household.objects.filter(is_demo=True).first()
    if found:
        return found
    user, made = get_user_model().objects.get_or_create(username=DEMO_USER)
    if made:
        user.set_unusable_password()
        user.save()
    text = files("pinakotheke.demo").joinpath("halt.house.json").read_text("utf-8")
    return import_house(user, load_house(text), demo=True)


class Command(BaseCommand):
    """See the module."""

    help = "Run the demo: migrations, the demo household with solved alternatives, a worker and the server."

    def add_arguments(self, parser: CommandParser) -> None:
        parser.add_argument("--port", type=int, default=8420)
        parser.add_argument("--prepare-only", action="store_true", help="prepare the data and leave")

    def handle(self, *args: Any, port: int = 8420, prepare_only: bool = False, **options: Any) -> None:
        started = time.monotonic()
        call_command("migrate", verbosity=0)
        pick_up_again()
        household = load_demo()
        self.worker = self._start(WORKER)
        try:
            self._solve(household)
            if prepare_only:
                return
            server = self._start(
                [sys.executable, "-m", "gunicorn", "pinakotheke.server.wsgi", "--bind", f"127.0.0.1:{port}",
                 "--workers", "1", "--threads", "4", "--log-level", "warning"]
            )  # fmt: skip
            took = time.monotonic() - started
            self.stdout.write(f"Pinakotheke is at http://127.0.0.1:{port}/ (ready in {took:.1f} s). Ctrl-C stops it.")
            self.stdout.flush()
            self._wait(server)
        finally:
            self.worker.terminate()
            self.worker.wait(timeout=20)

    def _start(self, command: list[str]) -> "subprocess.Popen[bytes]":
        environment = {**os.environ, "PINAKOTHEKE_DEMO": "1"}
        return subprocess.Popen(command, cwd=settings.BASE_DIR, env=environment)

    def _solve(self, household: models.Household) -> None:
        """Alternatives for every space, by the worker, as the page would ask for them. The first is waited for; the
        others follow while one looks round.
        """
        user = household.members.get()
        spaces = list(household.space_set.order_by("pk"))
        waiting = [s for s in spaces if not s.designs.exists() and not s.solves.exclude(status__in=OVER).exists()]
        asked = [ask(user, s.pk) for s in waiting]
        if asked and asked[0].space_id == spaces[0].pk:
            while not asked[0].is_over:
                time.sleep(0.2)
                asked[0].refresh_from_db()
            self.stdout.write(f"First closet solved: {spaces[0].designs.count()} alternatives.")

    def _wait(self, server: "subprocess.Popen[bytes]") -> None:
        def stop(*_: object) -> None:
            server.terminate()

        signal.signal(signal.SIGTERM, stop)
        try:
            while server.poll() is None:
                time.sleep(0.3)
                if self.worker.poll() is not None:
                    # A worker that died: another one takes up what it left.
                    self.worker = self._start(WORKER)
                    pick_up_again()
        except KeyboardInterrupt:
            pass
        server.terminate()
        server.wait(timeout=20)
