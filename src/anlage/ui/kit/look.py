"""The look on screen: fonts, colours and pens of a theme, millimetres of paper in pixels."""

from functools import cache
from string import Template
from typing import Literal, NamedTuple

from PySide6.QtCore import QRectF, Qt
from PySide6.QtGui import QBrush, QColor, QFont, QFontDatabase, QFontMetricsF, QPalette, QPen

from anlage.data.files import text_of
from anlage.data.look import FONT_OVER_HEIGHT, FONTS, Style, Theme, colours, heat_colour, role_styles

FAMILY = "Source Sans 3"
BODY_PX, NOTE_PX, TITLE_PX, HERO_PX = 14, 12, 17, 23  # this family is small for its size: a pixel more than stated
PX_PER_MM = 96 / 25.4

Size = Literal["body", "note", "title", "hero"]
_PIXELS: dict[Size, int] = {"body": BODY_PX, "note": NOTE_PX, "title": TITLE_PX, "hero": HERO_PX}


def load_fonts() -> None:
    """Make the shipped fonts known; once, before the first widget."""
    for path in FONTS:
        if QFontDatabase.addApplicationFont(str(path)) < 0:
            raise RuntimeError(f"{path.name} is damaged: install Anlage again")


def font(size: Size = "body", *, strong: bool = False) -> QFont:
    """Return the font of a size, semibold when `strong`."""
    found = QFont(FAMILY)
    found.setPixelSize(_PIXELS[size])
    if strong:
        found.setWeight(QFont.Weight.DemiBold)
    return found


class Look(NamedTuple):
    """One theme, ready to draw with."""

    theme: Theme
    colour: dict[str, QColor]
    styles: dict[str, Style]

    @classmethod
    def of(cls, theme: Theme) -> "Look":
        """Return the look of a theme."""
        return cls(theme, {token: QColor(value) for token, value in colours(theme).items()}, role_styles(theme))

    def pen(self, role: str, px_per_mm: float) -> QPen:
        """Return the pen of a role."""
        style = self.styles[role]
        if style.stroke == "none":
            return QPen(Qt.PenStyle.NoPen)
        pen = QPen(QColor(style.stroke), max(style.width_mm * px_per_mm, 1.0))
        pen.setJoinStyle(Qt.PenJoinStyle.RoundJoin)
        if style.dashed:
            pen.setDashPattern([5.0, 3.5])
        return pen

    def brush(self, role: str) -> QBrush:
        """Return the brush of a role."""
        fill = self.styles[role].fill
        return QBrush(Qt.BrushStyle.NoBrush) if fill == "none" else QBrush(QColor(fill))

    def heat(self, value: float, span: tuple[float, float]) -> QColor:
        """Return the colour of an energy on the ramp over a span."""
        return QColor(heat_colour(value, coldest=span[0], hottest=span[1]))

    def palette(self) -> QPalette:
        """Return the palette for what the stylesheet does not reach."""
        c, palette, role = self.colour, QPalette(), QPalette.ColorRole
        for name, token in (
            (role.Window, "ground"), (role.Base, "sheet"), (role.AlternateBase, "ground"), (role.Button, "ground"),
            (role.WindowText, "ink"), (role.Text, "ink"), (role.ButtonText, "ink"), (role.ToolTipBase, "sheet"),
            (role.ToolTipText, "ink"), (role.PlaceholderText, "muted"), (role.Highlight, "accent"),
            (role.HighlightedText, "sheet"), (role.Link, "accent"),
        ):  # fmt: skip
            palette.setColor(name, c[token])
        for name in (role.WindowText, role.Text, role.ButtonText):
            palette.setColor(QPalette.ColorGroup.Disabled, name, c["muted"])
        return palette

    def stylesheet(self) -> str:
        """Return the stylesheet of the window."""
        tokens = {token: value.name() for token, value in self.colour.items()}
        return Template(text_of("window.qss")).substitute(tokens, note=NOTE_PX)


def measure(text: str, height_mm: float) -> float:
    """Return the width of a text in the shipped font [paper mm]; `height_mm` is its size."""
    return _metrics().horizontalAdvance(text) / 100 * text_px(height_mm, 1.0)


@cache
def _metrics() -> QFontMetricsF:
    found = QFont(FAMILY)
    found.setPixelSize(100)
    return QFontMetricsF(found)


def text_px(height_mm: float, px_per_mm: float) -> float:
    """Return the font size [px] of a text of a stated height."""
    return height_mm * FONT_OVER_HEIGHT * px_per_mm


def paper(rect: QRectF) -> tuple[float, float]:
    """Return width and height of a rectangle of the screen in paper millimetres."""
    return rect.width() / PX_PER_MM, rect.height() / PX_PER_MM
