"""Papers that are text, tables and pictures one below the other: their styles, and how they are built."""

from collections.abc import Sequence
from io import BytesIO
from xml.sax.saxutils import escape

from reportlab.lib.colors import HexColor
from reportlab.lib.pagesizes import A4, LETTER
from reportlab.lib.styles import ParagraphStyle
from reportlab.lib.units import mm
from reportlab.pdfgen.canvas import Canvas as Pdf
from reportlab.platypus import Flowable, Paragraph, SimpleDocTemplate

from ..units import Units
from .pdf import BOLD, FONT, MARGIN, use_fonts
from .svg import CAPTION, INK

BOX = 3.5 * mm

BODY = ParagraphStyle("body", fontName=FONT, fontSize=9, leading=12, textColor=HexColor(INK))
QUIET = ParagraphStyle("quiet", parent=BODY, fontSize=8, leading=10.5, textColor=HexColor(CAPTION))
HEAD = ParagraphStyle("head", parent=BODY, fontName=BOLD, fontSize=11, leading=15, spaceBefore=8)
TITLE = ParagraphStyle("title", parent=BODY, fontName=BOLD, fontSize=15, leading=20)


class Box(Flowable):
    """A square to tick."""

    def __init__(self) -> None:
        super().__init__()
        self.width = self.height = BOX

    def draw(self) -> None:
        self.canv.setStrokeColor(HexColor(INK))
        self.canv.rect(0, 0, BOX, BOX)


def said_in(text: str, style: ParagraphStyle) -> Paragraph:
    """A paragraph of plain text."""
    use_fonts()
    return Paragraph(escape(text), style)


def page_of(units: Units) -> tuple[float, float]:
    """The paper of a household, width and height in points: A4, or letter where it speaks in inches."""
    return LETTER if units == "imperial" else A4


def room_on(units: Units) -> float:
    """The width between the margins, points."""
    return page_of(units)[0] - 2 * MARGIN


def built(title: str, story: Sequence[Flowable], units: Units) -> bytes:
    """The paper as PDF, its pages numbered."""
    use_fonts()
    out, paper = BytesIO(), page_of(units)
    document = SimpleDocTemplate(out, pagesize=paper, leftMargin=MARGIN, rightMargin=MARGIN, topMargin=MARGIN,
                                 bottomMargin=MARGIN + 6 * mm, title=title, invariant=1, pageCompression=0)  # fmt: skip

    def numbered(pdf: Pdf, _document: object) -> None:
        pdf.setFont(FONT, 8)
        pdf.drawRightString(paper[0] - MARGIN, MARGIN, f"page {pdf.getPageNumber()}")

    document.build(list(story), onFirstPage=numbered, onLaterPages=numbered)
    return out.getvalue()
