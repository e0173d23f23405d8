"""The check report of a design on paper: question by question what was asked and found, by whose rule, and what could
not be known.
"""

from collections.abc import Sequence
from io import BytesIO
from xml.sax.saxutils import escape

from reportlab.lib.colors import HexColor
from reportlab.lib.pagesizes import A4, LETTER
from reportlab.lib.styles import ParagraphStyle
from reportlab.lib.units import mm
from reportlab.pdfgen.canvas import Canvas as Pdf
from reportlab.platypus import Flowable, KeepTogether, Paragraph, SimpleDocTemplate, Spacer, Table, TableStyle

from ..base import Frozen
from ..tables import load
from ..units import Units
from .pdf import BOLD, FONT, MARGIN, use_fonts
from .svg import CAPTION, INK

BODY = ParagraphStyle("body", fontName=FONT, fontSize=9, leading=12, textColor=HexColor(INK))
QUIET = ParagraphStyle("quiet", parent=BODY, fontSize=8, leading=10.5, textColor=HexColor(CAPTION))
HEAD = ParagraphStyle("head", parent=BODY, fontName=BOLD, fontSize=11, leading=15, spaceBefore=8)
TITLE = ParagraphStyle("title", parent=BODY, fontName=BOLD, fontSize=15, leading=20)


class Said(Frozen):
    """A finding in words."""

    severity: str
    sentence: str
    remedy: str
    source: str
    unknown: bool = False


class Asked(Frozen):
    """A question, and what was found."""

    name: str
    asks: str
    found: tuple[Said, ...]


def check_report(space: str, design: str, date: str, inputs: Sequence[str], asked: Sequence[Asked], defer: str,
                 units: Units) -> bytes:  # fmt: skip
    """The report as PDF: A4, or letter where the household speaks in inches. `inputs` are lines on what was reckoned
    with; `defer` says who decides.
    """
    use_fonts()
    out, words = BytesIO(), load("check_report")
    paper = LETTER if units == "imperial" else A4
    document = SimpleDocTemplate(out, pagesize=paper, leftMargin=MARGIN, rightMargin=MARGIN, topMargin=MARGIN,
                                 bottomMargin=MARGIN + 6 * mm, title=f"{space}: checks", invariant=1,
                                 pageCompression=0)  # fmt: skip
    story: list[Flowable] = [said_in(words["title"].format(space=space), TITLE), said_in(f"{design}, {date}", QUIET)]
    story += [said_in(line, BODY) for line in inputs]
    for one in asked:
        story += _asked(one, paper[0] - 2 * MARGIN)
    unknown = [said for one in asked for said in one.found if said.unknown]
    if unknown:
        story += [said_in(words["unknown"], HEAD),
                  *(said_in(f"{said.sentence} {said.remedy}", BODY) for said in unknown)]  # fmt: skip
    story += [Spacer(1, 4 * mm), said_in(words["closing"].format(defer=defer), BODY)]

    def numbered(pdf: Pdf, _document: object) -> None:
        pdf.setFont(FONT, 8)
        pdf.drawRightString(paper[0] - MARGIN, MARGIN, f"page {pdf.getPageNumber()}")

    document.build(story, onFirstPage=numbered, onLaterPages=numbered)
    return out.getvalue()


def _asked(one: Asked, wide: float) -> list[Flowable]:
    known = [said for said in one.found if not said.unknown]
    head = [said_in(one.name, HEAD), said_in(one.asks, QUIET)]
    if not known:
        return [KeepTogether([*head, said_in(load("check_report")["nothing"], BODY)])]
    rows = [
        [said_in(said.severity, BODY), [said_in(f"{said.sentence} {said.remedy}", BODY), said_in(said.source, QUIET)]]
        for said in known
    ]
    table = Table(rows, colWidths=[16 * mm, wide - 16 * mm])
    table.setStyle(TableStyle([("VALIGN", (0, 0), (-1, -1), "TOP"), ("LEFTPADDING", (0, 0), (0, -1), 0),
                               ("LINEBELOW", (0, 0), (-1, -1), 0.25, HexColor(CAPTION))]))  # fmt: skip
    return [*head, table]


def said_in(text: str, style: ParagraphStyle) -> Paragraph:
    """A paragraph of plain text."""
    return Paragraph(escape(text), style)
