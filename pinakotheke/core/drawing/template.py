"""Drawers from above, as they are printed full size: the bare floor, to be cut out and laid in before anything is bought,
and the floor with its compartments, to cut and set by, or small as a map of what lies where. The front is below.
"""

from collections.abc import Mapping

from ..inventory import Thing
from ..layout import Design
from ..survey import Envelope, Section
from ..units import Units, format_length
from .canvas import Canvas
from .models import Drawing, TitleBlock
from .of_design import below

TEXT = 4.0
"""Height of text at full size, mm."""


def floor_template(envelope: Envelope, section: Section, units: Units, space: str, date: str = "") -> Drawing:
    """The floor an insert may take: least width and depth less its play, and what is closed on it."""
    canvas, floor = Canvas(TEXT, units), _floor(envelope)
    _outline(canvas, envelope, floor)
    x0, _, x1, y1 = floor
    canvas.note(
        "note", (x0 + x1) / 2, -y1 / 2, f"{section.label}: lay it in, it must neither bend nor slide", halo=True
    )
    return canvas.drawing("plan", _title(f"Floor of {section.label}", units, space, date))


def insert_template(design: Design, envelope: Envelope, section: Section, things: Mapping[str, Thing], units: Units,
                    space: str, date: str = "", scale: float = 1.0) -> Drawing:  # fmt: skip
    """The floor of one drawer with its strips or trays, and what lies in each compartment; `scale` is how much smaller it
    is printed, so that its letters are as high on paper.
    """
    canvas, floor = Canvas(TEXT * scale if scale == 1 else 2.6 * scale, units), _floor(envelope)
    _outline(canvas, envelope, floor)
    under = {p.carrier for p in design.parts}
    for part in design.parts:
        if part.section != section.id:
            continue
        y = -part.y - part.d
        if part.role == "divider":
            canvas.rect("part", part.x, y, part.w, part.d, of=part.id, weight="medium", cut=True)
        elif part.role == "compartment":
            canvas.rect("part", part.x, y, part.w, part.d, of=part.id, role=part.role, weight="fine")
            held = [f"{a.count} {things[a.thing].name}" for a in design.held_by(part.id) if a.thing in things]
            held += [f"over {a.count} {things[a.thing].name}" for a in below(design, part) if a.thing in things]
            size = " × ".join(format_length(mm, units) for mm in (part.w, part.d))
            if part.id not in under:
                canvas.label_in(part.x, y, part.w, part.d, [*(held or ["free"]), size], part.id)
    return canvas.drawing("plan", _title(f"{section.label} from above", units, space, date))


def _floor(envelope: Envelope) -> tuple[float, float, float, float]:
    x0, x1 = envelope.span(0, envelope.z_to)
    return float(x0), float(envelope.y_from), float(x1), float(envelope.y_to)


def _outline(canvas: Canvas, envelope: Envelope, floor: tuple[float, float, float, float]) -> None:
    x0, y0, x1, y1 = floor
    canvas.rect("wall", x0, -y1, x1 - x0, y1 - y0, weight="heavy", of="floor")
    for c in envelope.closed:
        a, b = max(c.x0, x0), min(c.x1, x1)
        back, front = max(c.y0, y0), min(c.y1, y1)
        if a < b and back < front:
            canvas.rect("closed", a, -front, b - a, front - back, weight="fine", cut=True)
    canvas.across(x0, x1, -y1 - canvas.text * 2, x1 - x0, "width", from_y=-y1)
    canvas.upright(x1 + canvas.text * 2, -y1, -y0, y1 - y0, "depth", from_x=x1)
    canvas.note("note", (x0 + x1) / 2, -y1 - canvas.text * 4.2, "front")


def _title(shows: str, units: Units, space: str, date: str) -> TitleBlock:
    return TitleBlock(space=space, shows=shows, scale="1:1", units="mm" if units == "metric" else "inches", date=date,
                      sheet="T1")  # fmt: skip
