"""`manage.py backup FOLDER`: everything a practice has, in one archive, consistent while people work."""

import os
import sqlite3
import tarfile
from contextlib import closing
from pathlib import Path
from tempfile import TemporaryDirectory
from typing import Any

from django.conf import settings
from django.core.management.base import BaseCommand, CommandError, CommandParser
from django.db import connection
from django.utils import timezone

DATABASE, MEDIA, KEY = "pinakotheke.sqlite3", "media", "secret-key"
PREFIX = "pinakotheke-"


class Command(BaseCommand):
    """Photos are files that are written once and named by chance: those of rows that the copy of the database knows are
    there when it is made, since a row is kept after its file and a file goes after its row.
    """

    requires_system_checks = []  # it is to be quick, and needs no page
    help = "Back up the database (SQLite's own backup interface), the photographs and the key into FOLDER."

    def add_arguments(self, parser: CommandParser) -> None:
        parser.add_argument("folder", type=Path)
        parser.add_argument(
            "--keep", type=int, default=0, metavar="N", help="delete all but the newest N archives there"
        )

    def handle(self, *args: Any, folder: Path, keep: int = 0, **options: Any) -> None:
        if connection.vendor != "sqlite":
            raise CommandError("With DATABASE_URL, back up by pg_dump and copy the media folder; see docs/deploy.md.")
        folder.mkdir(parents=True, exist_ok=True)
        name = f"{PREFIX}{timezone.now():%Y%m%d-%H%M%S-%f}.tar.gz"
        with TemporaryDirectory(dir=folder) as scratch:
            copy, archive = Path(scratch) / DATABASE, Path(scratch) / name
            with (
                closing(sqlite3.connect(connection.settings_dict["NAME"])) as source,
                closing(sqlite3.connect(copy)) as to,
            ):
                source.backup(to)
                sound = to.execute("PRAGMA integrity_check").fetchone()[0]
            if sound != "ok":
                raise CommandError(f"The copy is not sound: {sound}")
            with tarfile.open(archive, "w:gz", compresslevel=3) as packed:
                packed.add(copy, DATABASE)
                if Path(settings.MEDIA_ROOT).is_dir():
                    packed.add(settings.MEDIA_ROOT, MEDIA)
                if (settings.VAR_DIR / KEY).exists():
                    packed.add(settings.VAR_DIR / KEY, KEY)
            archive.chmod(0o600)
            os.replace(archive, folder / name)
        old = sorted(folder.glob(f"{PREFIX}*.tar.gz"))[:-keep] if keep else []
        for one in old:
            one.unlink()
        self.stdout.write(f"{folder / name}")
