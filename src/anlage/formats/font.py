"""The shipped font measured without a window: for sheets that are printed from the command line."""

from functools import cache

from reportlab.pdfbase.ttfonts import TTFont

from anlage.data.look import FONTS
from anlage.formats.pdf import SIZE_OF_FIGURES


@cache
def _font() -> TTFont:
    return TTFont("measured", str(FONTS[0]))


def measure(text: str, height_mm: float) -> float:
    """Return the width of a text in the shipped font [paper mm]; `height_mm` is the height of its figures."""
    return float(_font().stringWidth(text, height_mm * SIZE_OF_FIGURES))
