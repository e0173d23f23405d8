"""The blank sheet to carry where no device goes: the kind of space with numbered places, and a line for each."""

from io import BytesIO

from reportlab.lib.colors import HexColor
from reportlab.lib.pagesizes import A4, LETTER
from reportlab.lib.units import mm
from reportlab.pdfgen.canvas import Canvas as Pdf

from ..base import Frozen
from ..survey import Slot, Survey
from ..survey.models import Place
from ..survey.slots import slots
from ..tables import load
from ..units import Units
from .models import Drawing
from .of_survey import survey_elevation, survey_plan, text_height
from .pdf import BOLD, FONT, MARGIN, WEIGHTS, Plotter, use_fonts
from .svg import INK

FLOOR_PLACES = (0.0, 600.0, 1200.0, 1800.0, 2400.0)
"""Where a blank sheet asks for the floor, since the length of the run is not known yet."""
TICKS = (
    "everything emptied, or what stays is drawn in", "sockets and switches", "vents and hatches", "valves and meters",
    "electrical panel", "heater, boiler, radiator", "pipes and cables", "lights and beams", "door: kind, hinge, swing",
    "way in: narrowest passage", "photographs",
)  # fmt: skip


LARGER = 1.5
"""Numbers are written larger than on the screen: the drawings of a field sheet are small."""


class Numbered(Frozen):
    """A place for a reading with its number on the sheet."""

    number: int
    slot: Slot


def numbered(survey: Survey) -> tuple[Numbered, ...]:
    """The places of a blank sheet for this space, in the order of taking. What was read changes no number."""
    blank = Survey(kind=survey.kind, sections=survey.sections, door=survey.door)
    rows = [s for s in slots(blank) if s.what != "stud"]
    for section in blank.runs:
        many = f"{section.label}: " if len(blank.parts) > 1 else ""
        rows += [Slot(section=section.id, what="fall", face="back", at=at, needed=False, how=load("readings")["sheet-fall"],
                      label=f"{many}floor below the level line, {{at}} along") for at in FLOOR_PLACES]  # fmt: skip
    return tuple(Numbered(number=n, slot=slot) for n, slot in enumerate(rows, 1))


def field_sheet(survey: Survey, units: Units, space: str) -> bytes:
    """The blank sheet as PDF, drawings first, then a line for each number, then the tick list."""
    use_fonts()
    out = BytesIO()
    sheet = _FieldSheet(Pdf(out, pageCompression=0, invariant=1), units, space)
    blank = Survey(kind=survey.kind, sections=survey.sections, door=survey.door)
    places = numbered(survey)
    numbers = {row.slot.place: str(row.number) for row in places}
    large = LARGER * text_height(blank)
    shown = [s.id for s in blank.runs] or [""]
    views = [survey_elevation(blank, units, space, text=large, section_id=s) for s in shown]
    plan = survey_plan(blank, units, space, text=large)
    sheet.drawings([_with_numbers(d, numbers) for d in (*views, plan)])
    sheet.lines(places)
    sheet.ticks()
    return sheet.done(out)


def _with_numbers(drawing: Drawing, numbers: dict[Place, str]) -> Drawing:
    """The drawing with the number of each place in the place of its reading."""
    kept = tuple(
        d.model_copy(update={"text": numbers[d.slot.place]})
        for d in drawing.dimensions
        if d.slot and d.slot.place in numbers
    )
    return drawing.model_copy(update={"dimensions": kept})


class _FieldSheet:
    """Pages that fill from the top."""

    def __init__(self, pdf: Pdf, units: Units, space: str) -> None:
        self.pdf, self.space = pdf, space
        self.units = units
        self.width, self.height = LETTER if units == "imperial" else A4
        self.small = "in" if units == "imperial" else "mm"
        self.page = 0
        self._new_page()

    def _new_page(self) -> None:
        if self.page:
            self.pdf.showPage()
        self.page += 1
        self.pdf.setPageSize((self.width, self.height))
        self.pdf.setFillColor(HexColor(INK))
        self.pdf.setStrokeColor(HexColor(INK))
        self.pdf.setFont(BOLD, 12)
        self.pdf.drawString(MARGIN, self.height - MARGIN - 4 * mm, f"Field sheet: {self.space}")
        self.pdf.setFont(FONT, 8)
        self.pdf.drawRightString(self.width - MARGIN, self.height - MARGIN - 4 * mm,
                                 f"in {self.small} · date ________ hand ________ · page {self.page}")  # fmt: skip
        self.y = self.height - MARGIN - 12 * mm

    def drawings(self, drawings: list[Drawing]) -> None:
        """Drawings side by side, as large as they go, two to a row."""
        cell_w, cell_h = (self.width - 2 * MARGIN - 6 * mm) / 2, 88 * mm
        for n, drawing in enumerate(drawings):
            if n % 2 == 0 and self.y - cell_h < MARGIN:
                self._new_page()
            x0, y0, x1, y1 = drawing.bounds
            factor = min(cell_w / (x1 - x0), (cell_h - 8 * mm) / (y1 - y0))
            self.pdf.saveState()
            self.pdf.translate(MARGIN + (n % 2) * (cell_w + 6 * mm), self.y - (y1 - y0) * factor)
            Plotter(self.pdf, drawing, factor).plot()
            self.pdf.restoreState()
            self.pdf.setFillColor(HexColor(INK))
            self.pdf.setFont(FONT, 8)
            self.pdf.drawString(MARGIN + (n % 2) * (cell_w + 6 * mm), self.y - cell_h + 4 * mm, drawing.title.shows)
            if n % 2 or n == len(drawings) - 1:
                self.y -= cell_h

    def lines(self, places: tuple[Numbered, ...]) -> None:
        """A writing line for each number; needed ones are marked."""
        step = 8 * mm
        for row in places:
            if self.y - step < MARGIN:
                self._new_page()
            self.y -= step
            self.pdf.setFont(BOLD, 9)
            self.pdf.drawRightString(MARGIN + 8 * mm, self.y, str(row.number))
            self.pdf.setFont(FONT, 8.5)
            self.pdf.drawString(MARGIN + 11 * mm, self.y, row.slot.label_in(self.units) + " *" * row.slot.needed)
            self.pdf.setLineWidth(WEIGHTS["fine"])
            right = self.width - MARGIN
            self.pdf.line(right - 92 * mm, self.y - 1 * mm, right - 48 * mm, self.y - 1 * mm)
            self.pdf.line(right - 44 * mm, self.y - 1 * mm, right, self.y - 1 * mm)
        self.y -= 6 * mm
        self.pdf.setFont(FONT, 7.5)
        self.pdf.drawString(MARGIN, self.y, load("readings")["sheet-foot"])

    def ticks(self) -> None:
        """What is easily overlooked."""
        need = (len(TICKS) + 1) // 2 * 7 * mm + 8 * mm
        if self.y - need < MARGIN:
            self._new_page()
        self.y -= 8 * mm
        for n, text in enumerate(TICKS):
            x = MARGIN + (n % 2) * (self.width - 2 * MARGIN) / 2
            y = self.y - n // 2 * 7 * mm
            self.pdf.rect(x, y - 0.5 * mm, 3.2 * mm, 3.2 * mm)
            self.pdf.setFont(FONT, 8.5)
            self.pdf.drawString(x + 6 * mm, y, text)

    def done(self, out: BytesIO) -> bytes:
        """The finished document."""
        self.pdf.showPage()
        self.pdf.save()
        return out.getvalue()
