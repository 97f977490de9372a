"""Paper: PDF by reportlab, in the type of the screen, plain and without a link."""

import io
from collections.abc import Sequence
from functools import cache
from pathlib import Path
from typing import Any
from xml.sax.saxutils import escape

import font_source_sans_pro
from reportlab.lib.colors import HexColor
from reportlab.lib.pagesizes import A4, LETTER, landscape
from reportlab.lib.styles import ParagraphStyle
from reportlab.lib.units import mm
from reportlab.pdfbase.pdfmetrics import registerFont, registerFontFamily
from reportlab.pdfbase.ttfonts import TTFont
from reportlab.pdfgen.canvas import Canvas
from reportlab.platypus import Flowable, Image, KeepTogether, PageBreak, Paragraph, SimpleDocTemplate, Spacer, Table, TableStyle

FONTS = Path(font_source_sans_pro.__file__).parent / "files"
TEXT, STRONG = "Text", "Strong"
INK, SOFT, RULE = HexColor("#1b2330"), HexColor("#505a68"), HexColor("#8d938f")
EDGE = 16 * mm
PICTURE = (170 * mm, 225 * mm)
"""The most that a picture takes of a page, letter or A4 [pt]."""
PADDING = 6.0
"""What reportlab leaves free within a page's edge [pt]."""


@cache
def _fonts() -> None:
    for name, cut in ((TEXT, "Regular"), (STRONG, "Semibold")):
        registerFont(TTFont(name, FONTS / f"SourceSansPro-{cut}.ttf"))
    for name in (TEXT, STRONG):
        registerFontFamily(name, normal=name, bold=STRONG, italic=name, boldItalic=STRONG)


def style(size: float, *, strong: bool = False, soft: bool = False, after: float = 0.0) -> ParagraphStyle:
    """A style of paragraphs.

    Args:
        size: of its letters [pt].
        strong: in the heavier cut.
        soft: in the softer ink.
        after: room below [pt].
    """
    _fonts()
    return ParagraphStyle(
        f"{size}{strong}{soft}{after}",
        fontName=STRONG if strong else TEXT,
        fontSize=size,
        leading=size * 1.25,
        textColor=SOFT if soft else INK,
        spaceAfter=after,
    )


def words(text: str, *, size: float = 9.5, **more: Any) -> Paragraph:
    """A paragraph of plain text; lines stay lines."""
    return Paragraph(escape(text).replace("\n", "<br/>"), style(size, **more))


def gap(height: float) -> Spacer:
    """Room [pt]."""
    return Spacer(0, height)


def together(parts: Sequence[Flowable]) -> KeepTogether:
    """What stays on one page."""
    return KeepTogether(list(parts))


def pages(parts: Sequence[Sequence[Flowable]]) -> list[Flowable]:
    """Parts that each begin on a page of their own."""
    return [x for n, part in enumerate(parts) for x in (*([PageBreak()] if n else []), *part)]


def table(head: Sequence[str], rows: Sequence[Sequence[str]], widths: Sequence[float]) -> Table:
    """A table.

    Args:
        head: its headings.
        rows: a cell for each heading.
        widths: of its columns, as shares of their sum.
    """
    cells = [[words(h, size=7.5, soft=True) for h in head], *[[words(c, size=9) for c in row] for row in rows]]
    made = Table(cells, colWidths=[f"{100 * w / sum(widths):.2f}%" for w in widths], repeatRows=1)
    made.setStyle(
        TableStyle(
            [
                ("VALIGN", (0, 0), (-1, -1), "TOP"),
                ("LINEBELOW", (0, 0), (-1, 0), 0.6, RULE),
                ("LINEBELOW", (0, 1), (-1, -1), 0.25, RULE),
                ("LEFTPADDING", (0, 0), (-1, -1), 0),
                ("TOPPADDING", (0, 0), (-1, -1), 2),
                ("BOTTOMPADDING", (0, 0), (-1, -1), 3),
            ]
        )
    )
    return made


def pictured(data: bytes) -> Flowable:
    """A picture as large as its page holds, whichever way it stands."""
    return Image(io.BytesIO(data), width=PICTURE[0], height=PICTURE[1], kind="proportional")


class _Numbered(Canvas):  # type: ignore[misc]
    """Pages that know how many they are, with a line at the foot of each."""

    foot = ""

    def __init__(self, *args: Any, **more: Any) -> None:
        super().__init__(*args, **more)
        self._kept: list[dict[str, Any]] = []

    def showPage(self) -> None:  # noqa: N802 - reportlab's name
        self._kept.append(dict(self.__dict__))
        self._startPage()

    def save(self) -> None:
        for kept in self._kept:
            self.__dict__.update(kept)
            self.setFont(TEXT, 7.5)
            self.setFillColor(SOFT)
            self.drawString(EDGE + PADDING, 9 * mm, self.foot)
            self.drawRightString(self._pagesize[0] - EDGE - PADDING, 9 * mm, f"{self._pageNumber} of {len(self._kept)}")
            super().showPage()
        super().save()


def printed(title: str, parts: Sequence[Flowable], *, us: bool, wide: bool = False, foot: str = "") -> bytes:
    """A document as PDF, on letter paper where one measures in feet.

    Args:
        title: as a reader shows it.
        parts: what stands on it.
        us: whether the paper is letter, else A4.
        wide: whether it lies.
        foot: the line at the foot of every page.
    """
    size = LETTER if us else A4
    out = io.BytesIO()
    numbered = type("Numbered", (_Numbered,), {"foot": foot})
    document = SimpleDocTemplate(
        out,
        pagesize=landscape(size) if wide else size,
        title=title,
        leftMargin=EDGE,
        rightMargin=EDGE,
        topMargin=EDGE,
        bottomMargin=EDGE,
        invariant=1,
    )
    document.build(list(parts), canvasmaker=numbered)
    return out.getvalue()
