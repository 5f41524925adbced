"""The shipped font measured without a window: for sheets that are printed from the command line."""

from functools import cache

from reportlab.pdfbase.ttfonts import TTFont

from anlage.data.look import FONT_OVER_HEIGHT, FONTS


@cache
def _font() -> TTFont:
    return TTFont("measured", str(FONTS[0]))


def measure(text: str, height_mm: float) -> float:
    """Return the width of a text in the shipped font [paper mm]; `height_mm` is its stated height."""
    return float(_font().stringWidth(text, height_mm * FONT_OVER_HEIGHT))
