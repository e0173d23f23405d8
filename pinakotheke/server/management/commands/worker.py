"""`manage.py worker`: carry out searches, and take up those that another worker left."""

import logging
import os
import socket
import threading
import time
from typing import Any

from django.db import DatabaseError, close_old_connections
from django_tasks_db.management.commands.db_worker import Command as DatabaseWorker

from pinakotheke.core.layout.search.furnish import prime
from pinakotheke.server.jobs import SILENT_AFTER, beat, pick_up_again
from pinakotheke.server.tidying import tidy

logger = logging.getLogger(__name__)
TIDY_EVERY_S = 3600.0


class Command(DatabaseWorker):
    """The tasks backend's own worker, with a look for what was left at its start and every now and then."""

    help = "Carry out searches, and take up those that a stopped worker left."

    def handle(self, **options: Any) -> None:
        threading.Thread(target=prime, daemon=True).start()  # so that the first search need not
        threading.Thread(target=_look, daemon=True).start()
        super().handle(**options)


def _look() -> None:
    """A beat, a look for what was left, and now and then a tidying up."""
    name, tidied = f"{socket.gethostname()}-{os.getpid()}", 0.0
    while True:
        try:
            beat(name)
            pick_up_again()
            if time.monotonic() - tidied > TIDY_EVERY_S or not tidied:
                tidied = time.monotonic()
                tidy()
        except DatabaseError:
            logger.exception("the worker's look at the queue failed")
        close_old_connections()
        threading.Event().wait(SILENT_AFTER.total_seconds() / 2)
