"""Stand-ins for devices outside: a label printer that prints into a folder."""

from collections.abc import Iterable
from datetime import datetime
from pathlib import Path

from django.conf import settings


def print_strips(strips: Iterable[tuple[str, bytes]], at: datetime) -> Path:
    """Print strips, name and PNG, each as a file of the folder; returns the folder. Files of one job share their time."""
    folder = Path(settings.VAR_DIR) / ("test-printer" if settings.TESTING else "label-printer")
    folder.mkdir(parents=True, exist_ok=True)
    for n, (name, png) in enumerate(strips, 1):
        (folder / f"{at:%Y%m%d-%H%M%S}-{n:03}-{name[:60]}.png").write_bytes(png)
    return folder
