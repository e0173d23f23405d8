"""A demo house of its own, started for a browser and stopped after it."""

import os
import subprocess
import sys
from collections.abc import Iterator
from contextlib import contextmanager
from pathlib import Path
from tempfile import TemporaryDirectory

ROOT = Path(__file__).parents[2]


@contextmanager
def demo(port: int) -> Iterator[str]:
    """The address of a demo that runs on a port, with data that go with it."""
    here = f"http://127.0.0.1:{port}"
    with TemporaryDirectory() as data:
        running = subprocess.Popen(
            [sys.executable, "manage.py", "demo", "--port", str(port)],
            cwd=ROOT, env={**os.environ, "PINAKOTHEKE_VAR": data}, stdout=subprocess.PIPE, text=True,
        )  # fmt: skip
        try:
            assert running.stdout is not None
            while here not in (line := running.stdout.readline()):
                if not line:
                    raise RuntimeError("the demo did not start")
            yield here
        finally:
            running.terminate()
            running.wait(timeout=30)
