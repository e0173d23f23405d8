"""The canvas of a survey: it knows every slot, what was read there, and which comes next."""

from ..survey import Section, Slot, Survey, doubts, next_reading, slots
from ..survey.slots import SlotRef
from ..units import Units
from .canvas import Canvas
from .models import DimensionState


class SurveySheet(Canvas):
    """A canvas that knows which readings are there, which are doubted, and which is to be taken next."""

    def __init__(self, survey: Survey, units: Units, text: float) -> None:
        super().__init__(text, units)
        self.survey = survey
        self.slots = slots(survey)
        self._doubted = {
            r.place for d in doubts(survey) for r in survey.readings if r.id in d.readings and d.code != "sum"
        }
        upcoming = next_reading(survey)
        self._next = upcoming.slot.place if upcoming else None

    def read(self, slot: Slot | SlotRef) -> tuple[float | None, DimensionState]:
        """The ruling (least) value at a slot and how it stands."""
        found = [r.value for r in self.survey.readings if r.place == slot.place]
        if not found:
            return None, "missing"
        return min(found), "doubted" if slot.place in self._doubted else "read"

    def find(self, section: Section, **place: object) -> Slot | None:
        """The slot at a place, if this kind of section has it."""
        for slot in self.slots:
            if slot.section == section.id and all(getattr(slot, k) == v for k, v in place.items()):
                return slot
        return None

    def shown(self, slot: Slot) -> bool:
        """Whether a slot is drawn: what is needed, what was read, and what comes next."""
        return slot.needed or slot.place == self._next or any(slot.filled_by(r) for r in self.survey.readings)
