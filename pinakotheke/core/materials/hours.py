"""About how long a design takes to install. The household's own log will replace these figures."""

from ..base import Frozen, Why
from ..layout import Design
from ..tables import entry


class Hours(Frozen):
    """Working hours of one person, and how they were estimated."""

    hours: float
    why: Why


def hours(design: Design) -> Hours:
    """Carcases: so many hours each on a level base. Track: so many for ten parts. Common practice."""
    frames = sum(1 for p in design.parts if p.role == "frame")
    if frames:
        each = entry("hours.carcase")
        return _hours(frames * each.value, "carcases × hours each", ("carcases", frames, "pieces"), each.source)
    parts = sum(1 for p in design.parts if p.role not in ("bracket", "track"))
    ten = entry("hours.track_ten")
    return _hours(parts / 10 * ten.value, "parts ÷ 10 × hours for ten", ("parts", parts, "pieces"), ten.source)


def _hours(amount: float, rule: str, counted: tuple[str, float, str], source: str) -> Hours:
    return Hours(hours=amount, why=Why(rule=rule, values=(counted,), basis="C", source=source))
