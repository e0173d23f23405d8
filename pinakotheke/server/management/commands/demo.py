"""`manage.py demo`: the demo household, a worker and the server, until Ctrl-C."""

import contextlib
import os
import signal
import socket
import subprocess
import sys
import time
from typing import Any

from django.conf import settings
from django.core.management import call_command
from django.core.management.base import BaseCommand, CommandParser

from pinakotheke.server import models
from pinakotheke.server.actions.demo import load_demo
from pinakotheke.server.actions.layout import OVER
from pinakotheke.server.jobs import LEAST_PRIORITY, run_solve

WORKER = [sys.executable, "manage.py", "worker", "--interval", "0.1", "--no-startup-delay"]


class Command(BaseCommand):
    """See the module."""

    help = "Run the demo: migrations, the demo household with solved alternatives, a worker and the server."

    def add_arguments(self, parser: CommandParser) -> None:
        parser.add_argument("--port", type=int, default=8420)
        parser.add_argument("--prepare-only", action="store_true", help="prepare the data and leave")

    def handle(self, *args: Any, port: int = 8420, prepare_only: bool = False, **options: Any) -> None:
        started = time.monotonic()
        call_command("migrate", verbosity=0)
        household = load_demo()
        if prepare_only:
            self.worker = self._start(WORKER)
            try:
                self._wait_for_first(self._ask(household))
            finally:
                self._stop(self.worker)
            return
        server = self._start(
            [sys.executable, "-m", "gunicorn", "pinakotheke.server.wsgi", "--bind", f"127.0.0.1:{port}",
             "--workers", "1", "--threads", "4", "--log-level", "warning"]
        )  # fmt: skip
        # The page answers at once; designs follow as they are found.
        self.worker = self._start(WORKER)
        try:
            asked = self._ask(household)
            self._until_it_answers(server, port)
            took = time.monotonic() - started
            self.stdout.write(f"Pinakotheke is at http://127.0.0.1:{port}/ (ready in {took:.1f} s). Ctrl-C stops it.")
            if asked:
                self.stdout.write(f"Designs of {len(asked)} spaces are being found while you look round.")
            self.stdout.flush()
            self._wait(server)
        finally:
            self._stop(self.worker)

    def _until_it_answers(self, server: "subprocess.Popen[bytes]", port: int) -> None:
        while server.poll() is None:
            with contextlib.suppress(OSError), socket.create_connection(("127.0.0.1", port), timeout=1):
                return
            time.sleep(0.05)

    @staticmethod
    def _stop(process: "subprocess.Popen[bytes]") -> None:
        process.terminate()
        process.wait(timeout=20)

    def _start(self, command: list[str]) -> "subprocess.Popen[bytes]":
        environment = {**os.environ, "PINAKOTHEKE_DEMO": "1"}
        return subprocess.Popen(command, cwd=settings.BASE_DIR, env=environment)

    def _ask(self, household: models.Household) -> list[models.Solve]:
        """Ask for alternatives for every space that has none, after whatever visitors ask for."""
        spaces = list(household.space_set.order_by("pk"))
        waiting = [s for s in spaces if not s.designs.exists() and not s.solves.exclude(status__in=OVER).exists()]
        asked = [models.Solve.objects.create(space=s, message="waiting for a worker") for s in waiting]
        for solve in asked:
            run_solve.using(priority=LEAST_PRIORITY).enqueue(solve.pk)
        return asked

    def _wait_for_first(self, asked: list[models.Solve]) -> None:
        if asked:
            while not asked[0].is_over:
                time.sleep(0.2)
                asked[0].refresh_from_db()
            self.stdout.write(f"First closet solved: {asked[0].space.designs.count()} alternatives.")

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
        except KeyboardInterrupt:
            pass
        server.terminate()
        server.wait(timeout=20)
