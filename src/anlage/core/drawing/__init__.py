"""Pictures as values: display lists of the section of a joint, for every renderer."""

from anlage.core.drawing.display import DisplayList, Item, Marker, Measure, Path, Point, Text, bounds
from anlage.core.drawing.operating_window import Axes, PassBox, operating_window
from anlage.core.drawing.section import Show, section

__all__ = [
    "Axes",
    "DisplayList",
    "Item",
    "Marker",
    "Measure",
    "PassBox",
    "Path",
    "Point",
    "Show",
    "Text",
    "bounds",
    "operating_window",
    "section",
]
