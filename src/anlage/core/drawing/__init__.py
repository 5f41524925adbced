"""Pictures as values: what every display list is made of; each drawing is a module beside it."""

from anlage.core.drawing.display import (
    DisplayList,
    Item,
    Marker,
    Measure,
    Path,
    Point,
    Text,
    arrow_head,
    bounds,
    fitted,
)

__all__ = [
    "DisplayList",
    "Item",
    "Marker",
    "Measure",
    "Path",
    "Point",
    "Text",
    "arrow_head",
    "bounds",
    "fitted",
]
