"""Pages as PDF: true millimetres, the shipped font inside, the same bytes for the same pages."""

import io
from collections.abc import Sequence
from datetime import UTC, datetime
from typing import Any

from reportlab.lib.colors import HexColor
from reportlab.lib.utils import TimeStamp
from reportlab.pdfbase import pdfmetrics
from reportlab.pdfbase.ttfonts import TTFont
from reportlab.pdfgen.canvas import Canvas

from anlage.core.drawing import DisplayList, Item, Marker, Path, Point, Text, arrow_head
from anlage.data.look import FONT_OVER_HEIGHT, FONTS, Style, role_styles
from anlage.formats.svg import Heat, warmed

PT_PER_MM = 72 / 25.4
REGULAR, STRONG = "sheet", "sheet-strong"


def pdf(
    pages: Sequence[DisplayList], *, title: str, author: str = "", made_at: str = "", heat: Heat | None = None
) -> bytes:
    """Return pages as PDF; without random marks, so that equal pages of one time give equal bytes.

    Parameters
    ----------
    pages : display lists of scale 1 in millimetres of paper
    title, author : of the document
    made_at : when it was made, as ISO 8601 in UTC; "" leaves the date to a fixed one, for what has none
    heat : gives the colour of a heat number [kJ/mm]; without it areas with heat are filled as their role is
    """
    for name, path in zip((REGULAR, STRONG), FONTS, strict=True):
        pdfmetrics.registerFont(TTFont(name, str(path)))
    target = io.BytesIO()
    (_, _), (width, height) = pages[0].low, pages[0].high
    canvas = Canvas(target, pagesize=(width * PT_PER_MM, height * PT_PER_MM), invariant=1, pageCompression=1)
    canvas.setTitle(title)
    canvas.setAuthor(author)
    if made_at:
        canvas._doc._timeStamp = _stamp(made_at)  # noqa: SLF001 - the package knows only now, or a time of the machine
    canvas.setCreator("Anlage")
    styles = role_styles("light")
    for page in pages:
        canvas.scale(PT_PER_MM, PT_PER_MM)
        for item in page.items:
            _draw(canvas, item, warmed(item, styles[item.role], heat))
        canvas.showPage()
    canvas.save()
    return target.getvalue()


def _stamp(made_at: str) -> TimeStamp:
    moment = datetime.fromisoformat(made_at.replace("Z", "+00:00")).astimezone(UTC)
    found = TimeStamp(True)  # noqa: FBT003 - not the time of the machine
    found.t = moment.timestamp()
    found.lt = moment.timetuple()
    found.YMDhms = tuple(found.lt)[:6]
    return found


def _draw(canvas: Canvas, item: Item, style: Style) -> None:
    match item:
        case Path(points=points, closed=closed):
            _path(canvas, points, style, closed=closed)
        case Text():
            _text(canvas, item, style)
        case Marker(kind="arrow"):
            corners = [(item.at[0] + u, item.at[1] + v) for u, v in arrow_head(item)]
            _path(canvas, corners, Style(style.stroke, "none", 0.0), closed=True)
        case Marker():
            pass  # a handle is for the screen


def _path(canvas: Canvas, points: Sequence[Point], style: Style, *, closed: bool) -> None:
    outline = canvas.beginPath()
    outline.moveTo(*points[0])
    for point in points[1:]:
        outline.lineTo(*point)
    fills = closed and style.fill != "none"
    strokes = style.stroke != "none"
    if closed:
        outline.close()
    if fills:
        canvas.setFillColor(HexColor(style.fill))
    if strokes:
        canvas.setStrokeColor(HexColor(style.stroke))
        canvas.setLineWidth(style.width_mm)
        canvas.setDash([1.6, 1.2] if style.dashed else [])
    canvas.drawPath(outline, stroke=int(strokes), fill=int(fills))


def _text(canvas: Canvas, item: Text, style: Style) -> None:
    canvas.setFont(STRONG if style.strong else REGULAR, item.height_mm * FONT_OVER_HEIGHT)
    canvas.setFillColor(HexColor(style.fill))
    draw: dict[str, Any] = {
        "start": canvas.drawString, "middle": canvas.drawCentredString, "end": canvas.drawRightString,
    }  # fmt: skip
    draw[item.anchor](item.at[0] + item.offset_mm[0], item.at[1] + item.offset_mm[1], item.text)
