"""`manage.py worker`: carry out searches, and take up those that another worker left."""

import threading
from typing import Any

from django.db import close_old_connections
from django_tasks_db.management.commands.db_worker import Command as DatabaseWorker

from pinakotheke.core.layout.search.furnish import prime
from pinakotheke.server.jobs import SILENT_AFTER, pick_up_again


class Command(DatabaseWorker):
    """The tasks backend's own worker, with a look for what was left at its start and every now and then."""

    help = "Carry out searches, and take up those that a stopped worker left."

    def handle(self, **options: Any) -> None:
        threading.Thread(target=prime, daemon=True).start()  # so that the first search need not
        threading.Thread(target=_look, daemon=True).start()
        super().handle(**options)


def _look() -> None:
    while True:
        pick_up_again()
        close_old_connections()
        threading.Event().wait(SILENT_AFTER.total_seconds() / 2)
