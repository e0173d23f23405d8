"""A backup made while people write, restored elsewhere, has every row that was acknowledged before it began."""

import os
import sqlite3
import subprocess
import sys
import tarfile
from collections.abc import Iterator
from concurrent.futures import ThreadPoolExecutor
from contextlib import closing, contextmanager
from pathlib import Path
from tempfile import TemporaryDirectory
from threading import Event
from unittest import TestCase

ROOT = Path(__file__).parents[2]
WRITERS = 20
WRITE = "INSERT INTO server_word (household_id, word, kind) VALUES (?, ?, 'custom')"


def manage(data: Path, *command: str) -> str:
    """What a command of `manage.py` says with its data there; its complaint when it fails."""
    environment = {**os.environ, "PINAKOTHEKE_VAR": str(data), "DATABASE_URL": ""}
    asked = [sys.executable, "manage.py", *command]
    done = subprocess.run(asked, cwd=ROOT, env=environment, capture_output=True, text=True, check=False)
    return done.stdout + done.stderr


def rows(database: Path) -> dict[str, list[tuple[object, ...]]]:
    """Every row of every table."""
    with closing(sqlite3.connect(database)) as found:
        names = [n for (n,) in found.execute("SELECT name FROM sqlite_master WHERE type = 'table'")]
        return {name: sorted(found.execute(f'SELECT * FROM "{name}"'), key=repr) for name in names}


class BackupTests(TestCase):
    @classmethod
    def setUpClass(cls) -> None:
        folder = TemporaryDirectory()
        cls.addClassCleanup(folder.cleanup)
        cls.at = Path(folder.name)
        cls.data = cls.at / "here"
        manage(cls.data, "migrate", "--verbosity", "0")
        cls.database = cls.data / "pinakotheke.sqlite3"
        with closing(sqlite3.connect(cls.database)) as fresh, fresh:
            fresh.execute("INSERT INTO server_household (id, version, name, units, currency, rules, is_demo, sawing,"
                          " price_lists, created, client) VALUES (1, 1, 'Attic', 'metric', 'EUR', '{}', 0, '[]', '[]',"
                          " '2026-01-01', '')")  # fmt: skip
        (cls.data / "media" / "photos").mkdir(parents=True)
        (cls.data / "media" / "photos" / "one.jpg").write_bytes(b"a picture")

    @contextmanager
    def written_to(self) -> Iterator[list[str]]:
        """Twenty people write; what was acknowledged so far."""
        acknowledged: list[str] = []
        stop = Event()

        def write(who: int) -> None:
            with closing(sqlite3.connect(self.database, timeout=30)) as mine:
                for n in range(100_000):
                    if stop.is_set():
                        return
                    with mine:
                        mine.execute(WRITE, (1, f"{who}-{n}-{id(stop)}"))
                    acknowledged.append(f"{who}-{n}-{id(stop)}")

        with ThreadPoolExecutor(WRITERS) as people:
            for who in range(WRITERS):
                people.submit(write, who)
            try:
                while len(acknowledged) < 3 * WRITERS:
                    stop.wait(0.01)
                yield acknowledged
            finally:
                stop.set()

    def archive(self, *more: str) -> Path:
        said = manage(self.data, "backup", str(self.at / "kept"), *more)
        self.assertIn(".tar.gz", said)
        return Path(said.strip())

    def test_while_twenty_people_write(self) -> None:
        with self.written_to() as acknowledged:
            before = set(acknowledged)
            archive = self.archive()
        there = self.at / "there"
        self.assertIn("Restored", manage(there, "restore", str(archive)))
        restored = rows(there / "pinakotheke.sqlite3")
        words = {str(row[1]) for row in restored["server_word"]} | {str(row[2]) for row in restored["server_word"]}
        self.assertEqual(before - words, set())
        self.assertGreater(len(before), 2 * WRITERS)

    def test_every_row_of_every_table_and_every_file(self) -> None:
        archive, there = self.archive(), self.at / "quiet"
        manage(there, "restore", str(archive))
        self.assertEqual(rows(there / "pinakotheke.sqlite3"), rows(self.database))
        self.assertEqual((there / "media" / "photos" / "one.jpg").read_bytes(), b"a picture")
        self.assertEqual((there / "secret-key").read_text(), (self.data / "secret-key").read_text())

    def test_what_is_there_is_not_overwritten_unasked_and_then_moved_aside(self) -> None:
        archive, there = self.archive(), self.at / "full"
        manage(there, "restore", str(archive))
        self.assertIn("--over", manage(there, "restore", str(archive)))
        with closing(sqlite3.connect(there / "pinakotheke.sqlite3")) as left:
            with left:
                left.execute(WRITE, (1, "still in the log beside the database"))
            self.assertIn("Restored", manage(there, "restore", str(archive), "--over"))
        aside = rows(there / "pinakotheke.sqlite3.before-restore")
        self.assertIn("still in the log", str(aside["server_word"]))
        self.assertNotIn("still in the log", str(rows(there / "pinakotheke.sqlite3")["server_word"]))

    def test_what_is_no_archive_is_refused_and_nothing_is_touched(self) -> None:
        wrong = self.at / "wrong.tar.gz"
        wrong.write_bytes(b"no archive at all")
        empty = self.at / "empty.tar.gz"
        with tarfile.open(empty, "w:gz"):
            pass
        before = rows(self.database)
        for archive, says in ((wrong, "no archive"), (empty, "no database"), (self.at / "none", "There is no archive")):
            self.assertIn(says, manage(self.data, "restore", str(archive), "--over"))
        self.assertEqual(rows(self.database), before)

    def test_old_ones_go(self) -> None:
        for _ in range(2):
            last = self.archive("--keep", "1")
        self.assertEqual(sorted((self.at / "kept").glob("*.tar.gz"))[-1], last)
        self.assertEqual(len(list((self.at / "kept").glob("*.tar.gz"))), 1)
