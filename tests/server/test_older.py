"""What an older copy of the program wrote: its database migrates, its house file loads, its edited design opens.

Both samples were written by the program as it was at migration 0005, before this one's house files were read by a worker.
"""

import os
import sqlite3
import subprocess
import sys
from pathlib import Path
from tempfile import TemporaryDirectory

from django.conf import settings

from pinakotheke.core.housefile import load_house
from pinakotheke.core.systems.supplier import money

from .base import ServerTestCase

SAMPLES = Path(__file__).parent / "samples"
OPENED = """
from pinakotheke.server import models, rows
from pinakotheke.server.api.layout_view import Scene
for row in models.Design.objects.order_by("pk"):
    shown = Scene(row.space).design(row)
    print(row.key, len(row.done), len(shown.parts), shown.ledger.cost)
"""


def manage(var: str, *words: str) -> str:
    """A management command on another folder of data."""
    command = [sys.executable, str(settings.BASE_DIR / "manage.py"), *words]
    env = {**os.environ, "PINAKOTHEKE_VAR": var}
    return subprocess.run(command, env=env, capture_output=True, text=True, check=True).stdout


class OlderTests(ServerTestCase):
    def test_a_database_migrates_and_its_designs_open(self) -> None:
        with TemporaryDirectory() as var:
            with sqlite3.connect(Path(var) / "pinakotheke.sqlite3") as database:
                database.executescript((SAMPLES / "at_0005.sql").read_text("utf-8"))
            database.close()
            self.assertIn("0006_house_import", manage(var, "migrate"))
            edited, plain = (line.split() for line in manage(var, "shell", "-v", "0", "-c", OPENED).splitlines())
        self.assertEqual((edited[:2], plain[:2]), (["roomiest-edited-1", "4"], ["roomiest", "0"]))
        self.assertTrue(all(int(row[2]) > 5 and money(row[3]) > 0 for row in (edited, plain)), (edited, plain))

    def test_a_house_file_loads_whole(self) -> None:
        sample = (SAMPLES / "at_0005.house.json").read_bytes()
        house = load_house(sample)
        self.assertEqual([len(h.done) for h in house.designs], [4, 0])
        for history in house.designs:
            self.assertTrue(history.current.parts)
        came = self.bring(sample)
        self.assertEqual((came["status"], came["faults"]), ("done", []))
        spaces = self.ada.get(f"/households/{came['household']}").body["spaces"]
        gallery = self.ada.get(f"/spaces/{spaces[0]['id']}/designs").body
        self.assertEqual((len(gallery["designs"]), gallery["aside"]), (2, []))
