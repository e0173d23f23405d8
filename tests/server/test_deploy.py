"""What `deploy/` ships: its settings pass Django's own check, and a database of the program before migrates."""

import os
import sqlite3
import subprocess
import sys
from contextlib import closing
from pathlib import Path
from tempfile import TemporaryDirectory
from unittest import TestCase

from .test_backup import ROOT, manage


class DeployTests(TestCase):
    def shipped(self) -> dict[str, str]:
        """The settings as they stand in the file."""
        lines = (ROOT / "deploy" / "pinakotheke.env").read_text("utf-8").splitlines()
        return dict(line.split("=", 1) for line in lines if line and not line.startswith("#"))

    def test_the_shipped_settings_are_clean(self) -> None:
        with TemporaryDirectory() as data:
            environment = {**os.environ, **self.shipped(), "PINAKOTHEKE_VAR": data, "PROMETHEUS_MULTIPROC_DIR": data}
            asked = [sys.executable, "manage.py", "check", "--deploy", "--fail-level", "WARNING"]
            done = subprocess.run(asked, cwd=ROOT, env=environment, capture_output=True, text=True, check=False)
            self.assertEqual((done.returncode, done.stderr), (0, ""))

    def test_every_setting_is_told_in_the_handbook_of_deployment(self) -> None:
        told = (ROOT / "docs" / "deploy.md").read_text("utf-8")
        for name in self.shipped():
            self.assertIn(name, told)

    def test_a_database_of_the_program_before_migrates(self) -> None:
        with TemporaryDirectory() as folder:
            data = Path(folder)
            manage(data, "migrate", "server", "0014", "--verbosity", "0")
            manage(data, "migrate", "auth", "--verbosity", "0")
            database = data / "pinakotheke.sqlite3"
            with closing(sqlite3.connect(database)) as rows, rows:
                for n, name in enumerate(("ada", "eve"), 1):
                    rows.execute("INSERT INTO auth_user (id, password, is_superuser, username, first_name, last_name, "
                                 "email, is_staff, is_active, date_joined) VALUES (?, '', 0, ?, '', '', '', 0, 1, '')",
                                 (n, name))  # fmt: skip
                rows.execute("INSERT INTO server_household (id, version, name, units, currency, rules, is_demo, sawing,"
                             " price_lists, created) VALUES (1, 1, 'Attic', 'metric', 'EUR', '{}', 1, '[]', '[]',"
                             " '2026-01-01')")  # fmt: skip
                rows.executemany("INSERT INTO server_membership (household_id, user_id) VALUES (1, ?)", [(1,), (2,)])
            said = manage(data, "migrate", "--verbosity", "0")
            with closing(sqlite3.connect(database)) as rows:
                roles = rows.execute("SELECT user_id, role FROM server_membership ORDER BY id").fetchall()
                self.assertEqual(roles, [(1, "owner"), (2, "member")], said)
                self.assertEqual(rows.execute("SELECT is_demo, client FROM server_household").fetchall(), [(0, "")])
