"""`manage.py demo` in processes of its own: a real worker on a database of its own, twice."""

import os
import subprocess
import sys
from pathlib import Path
from tempfile import TemporaryDirectory
from unittest import TestCase

ROOT = Path(__file__).parents[2]
COUNT = """
import django; django.setup()
from pinakotheke.server import models
solve = models.Solve.objects.order_by("pk").first()
print(models.Household.objects.count(), models.Design.objects.count(), solve.status, solve.progress)
"""


class DemoTests(TestCase):
    def run_in(self, folder: str, *args: str) -> str:
        environment = {**os.environ, "PINAKOTHEKE_VAR": folder, "PINAKOTHEKE_EFFORT": "0.3",
                       "DJANGO_SETTINGS_MODULE": "pinakotheke.server.settings"}  # fmt: skip
        done = subprocess.run(
            [sys.executable, *args], cwd=ROOT, env=environment, capture_output=True, text=True, timeout=180
        )
        self.assertEqual(done.returncode, 0, done.stderr[-2000:])
        return done.stdout

    def test_prepared_once_and_found_again(self) -> None:
        with TemporaryDirectory() as folder:
            first = self.run_in(folder, "manage.py", "demo", "--prepare-only")
            self.assertIn("First closet solved", first)
            again = self.run_in(folder, "manage.py", "demo", "--prepare-only")
            self.assertNotIn("solved", again)
            houses, designs, status, progress = self.run_in(folder, "-c", COUNT).split()
            self.assertEqual((houses, status, progress), ("1", "done", "1.0"))
            self.assertGreaterEqual(int(designs), 2)
            self.assertEqual((Path(folder) / "secret-key").stat().st_mode & 0o777, 0o600)
