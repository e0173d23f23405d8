"""One drawing, many papers: a survey or a design as a neutral `Drawing`, and its SVG renderer.

Coordinates are millimetres of the real thing, x to the right and y *up* (elevation: height; plan: out from the back
wall is *down*, as one stands in front of the closet). Renderers flip and scale; none decides geometry.
"""

from .check_report import Asked, Said, check_report
from .field_sheet import Numbered, field_sheet, numbered
from .models import Dimension, Drawing, Polyline, Rect, Text, TitleBlock
from .of_design import design_elevation, design_plan
from .of_section import design_section
from .of_survey import survey_elevation, survey_plan
from .pdf import SCALES, TEXT_MM, to_pdf
from .round_plan import design_round
from .svg import to_svg
from .walkround import walkround

__all__ = [
    "SCALES",
    "TEXT_MM",
    "Asked",
    "Dimension",
    "Drawing",
    "Numbered",
    "Polyline",
    "Rect",
    "Said",
    "Text",
    "TitleBlock",
    "check_report",
    "design_elevation",
    "design_plan",
    "design_round",
    "design_section",
    "field_sheet",
    "numbered",
    "survey_elevation",
    "survey_plan",
    "to_pdf",
    "to_svg",
    "walkround",
]
