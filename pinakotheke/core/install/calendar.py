"""The schedule as iCalendar (RFC 5545): an event a day of work, from its first step to its last."""

from collections.abc import Callable
from datetime import UTC, datetime

from icalendar import Calendar, Event

from .choice import InstallChoice
from .schedule import DAY, Schedule, when

PRODUCT = "-//Pinakotheke//Order of work//EN"


def calendar(times: Schedule, choice: InstallChoice, space: str, key: str, told: Callable[[str], str],
             stamp: datetime) -> bytes:  # fmt: skip
    """A calendar of a space's work in floating local time. `key` makes the events' ids lasting, `told` says a step by its
    id, `stamp` is when it was written (UTC).
    """
    found = Calendar()
    found.add("prodid", PRODUCT)
    found.add("version", "2.0")
    days: dict[int, list[str]] = {}
    spans: dict[int, tuple[int, int]] = {}
    for booked in times.booked:
        day = booked.start // DAY
        days.setdefault(day, []).append(booked.step)
        start, end = spans.get(day, (booked.start, booked.end))
        spans[day] = min(start, booked.start), max(end, booked.end)
    for day, steps in sorted(days.items()):
        event = Event()
        event.add("uid", f"{key}-{day}@pinakotheke")
        event.add("dtstamp", stamp.astimezone(UTC))
        event.add("dtstart", when(choice, spans[day][0]))
        event.add("dtend", when(choice, spans[day][1]))
        event.add("summary", space)
        event.add("description", "\n".join(told(step) for step in dict.fromkeys(steps)))
        found.add_component(event)
    return bytes(found.to_ical())
