"""`manage.py restore ARCHIVE`: put back what `backup` made, into an empty place or over what is there, on demand."""

import shutil
import sqlite3
import tarfile
from contextlib import closing
from pathlib import Path
from tempfile import TemporaryDirectory
from typing import Any

from django.conf import settings
from django.core.management import call_command
from django.core.management.base import BaseCommand, CommandError, CommandParser
from django.db import connections

from .backup import DATABASE, KEY, MEDIA

ASIDE = ".before-restore"


class Command(BaseCommand):
    """What was there is moved aside, not deleted: `NAME.before-restore`."""

    requires_system_checks = []
    help = "Restore an archive of `backup`. Stop the web process and the workers first."

    def add_arguments(self, parser: CommandParser) -> None:
        parser.add_argument("archive", type=Path)
        parser.add_argument("--over", action="store_true", help="over a database that is there; it is moved aside")

    def handle(self, *args: Any, archive: Path, over: bool = False, **options: Any) -> None:
        database = Path(settings.DATABASES["default"]["NAME"])
        if not archive.is_file():
            raise CommandError(f"There is no archive {archive}.")
        if database.exists() and not over:
            raise CommandError(f"{database} is there already. Stop everything, then say --over to move it aside.")
        with TemporaryDirectory(dir=settings.VAR_DIR) as scratch:
            try:
                with tarfile.open(archive) as packed:
                    packed.extractall(scratch, filter="data")
            except (tarfile.TarError, EOFError, OSError) as error:
                raise CommandError(f"{archive} is no archive of `backup`: {error}") from None
            fresh = Path(scratch)
            if not (fresh / DATABASE).exists():
                raise CommandError(f"{archive} holds no database.")
            with closing(sqlite3.connect(fresh / DATABASE)) as copy:
                if copy.execute("PRAGMA integrity_check").fetchone()[0] != "ok":
                    raise CommandError("The database in the archive is not sound. Take an older archive.")
            connections.close_all()
            # What is in the log beside the database is part of it: it goes aside by the name that belongs to it there.
            for ending in ("-wal", "-shm"):
                log, aside = (database.with_name(f"{database.name}{middle}{ending}") for middle in ("", ASIDE))
                aside.unlink(missing_ok=True)
                if log.exists():
                    log.rename(aside)
            for name, there in (
                (DATABASE, database),
                (MEDIA, Path(settings.MEDIA_ROOT)),
                (KEY, settings.VAR_DIR / KEY),
            ):
                if (fresh / name).exists():
                    _aside(there)
                    shutil.move(fresh / name, there)
        call_command("migrate", verbosity=0)
        self.stdout.write(f"Restored {archive.name}; the database is at the version of this program.")


def _aside(there: Path) -> None:
    """Move what is there out of the way; what an earlier restore moved goes."""
    aside = there.with_name(there.name + ASIDE)
    if aside.is_dir():
        shutil.rmtree(aside)
    else:
        aside.unlink(missing_ok=True)
    if there.exists():
        there.rename(aside)
