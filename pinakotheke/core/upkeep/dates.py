"""Days of keeping as iCalendar (RFC 5545): all-day events, some of them every year."""

from collections.abc import Iterable
from datetime import UTC, date, datetime, timedelta
from typing import NamedTuple

from icalendar import Calendar, Event

PRODUCT = "-//Pinakotheke//Keeping//EN"


class Occasion(NamedTuple):
    """Something to do on a day; `key` lasts, so that a calendar which is brought again changes it and doubles nothing."""

    key: str
    day: date
    title: str
    text: str = ""
    yearly: bool = False


def calendar_of(occasions: Iterable[Occasion], stamp: datetime) -> bytes:
    """A calendar of occasions; `stamp` is when it was written."""
    found = Calendar()
    found.add("prodid", PRODUCT)
    found.add("version", "2.0")
    for one in occasions:
        event = Event()
        event.add("uid", f"{one.key}@pinakotheke")
        event.add("dtstamp", stamp.astimezone(UTC))
        event.add("dtstart", one.day)
        event.add("dtend", one.day + timedelta(days=1))
        event.add("summary", one.title)
        if one.text:
            event.add("description", one.text)
        if one.yearly:
            event.add("rrule", {"freq": "yearly"})
        found.add_component(event)
    return bytes(found.to_ical())
