"""What was understood of a call-out, and keeping it in a survey."""

from ..base import Frozen
from .models import Car, Door, Obstacle, OverheadDoor, Reading, Section, Survey
from .slots import add_readings


class CallOut(Frozen):
    """One clause as it was understood."""

    said: str
    echo: str
    readings: tuple[Reading, ...] = ()
    takes_back: tuple[str, ...] = ()
    """Readings that a correction replaces."""
    obstacles: tuple[Obstacle, ...] = ()
    sections: tuple[Section, ...] | None = None
    door: Door | None = None
    car: Car | None = None
    overhead: OverheadDoor | None = None
    facts: tuple[tuple[str, str], ...] = ()
    """Plain facts of the space by their field: skirting, lining, damp."""


class Misheard(Frozen):
    """One clause that was not understood."""

    said: str
    problem: str
    mend: str


class Heard(Frozen):
    """A whole line: what would be kept, and what was not understood."""

    understood: tuple[CallOut, ...]
    misheard: tuple[Misheard, ...]

    def kept_in(self, survey: Survey) -> Survey:
        """The survey with all that was understood added."""
        for call in self.understood:
            survey = keep(call, survey)
        return survey


def keep(call: CallOut, survey: Survey) -> Survey:
    """The survey with one call kept."""
    new: dict[str, object] = {name: value == "yes" if name == "damp" else value for name, value in call.facts}
    for name in ("door", "car", "overhead", "sections"):
        if getattr(call, name) is not None:
            new[name] = getattr(call, name)
    if call.obstacles:
        new["obstacles"] = (*survey.obstacles, *call.obstacles)
    if call.readings or call.takes_back:
        stay = tuple(r for r in survey.readings if r.id not in call.takes_back)
        survey = add_readings(survey.model_copy(update={"readings": stay}), call.readings)
    return Survey.model_validate({**survey.model_dump(), **new}) if new else survey
