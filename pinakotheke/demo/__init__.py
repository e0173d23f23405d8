"""The demo household, in the project's own file format."""

from datetime import date, timedelta

from pinakotheke.core.housefile import House


def as_of(house: House, today: date) -> House:
    """The house with what happened in it moved in time, so that the last of it was the day before `today`."""
    if not house.movements:
        return house
    late = (today - date.fromisoformat(max(m.on for m in house.movements))).days - 1

    def moved(day: str) -> str:
        return (date.fromisoformat(day) + timedelta(days=late)).isoformat() if day else ""

    found = [m.model_copy(update={"on": moved(m.on), "best_before": moved(m.best_before)}) for m in house.movements]
    return house.model_copy(update={"movements": tuple(found)})
