"""Display lists: pictures as values, drawn alike by every renderer.

Glossary
--------
work : millimetres of the weld, x to the right, y up
paper : millimetres of the sheet or screen; line widths, text heights, arrows and offsets are stated in it
scale : paper millimetres per work millimetre
role : what an item is (`metal`, `groove`, `dimension`, …); the renderer turns it into pens and fills
target : the leaf of the document it shows (`joint/root_opening_mm`, `passes/p3`), for clicks and for marks
heat : the number behind a heat colour [kJ/mm]; the renderer turns it into a step of the ramp
"""

import math
from collections.abc import Callable, Iterable
from typing import Literal

from msgspec import Struct

CLOSE_MM = 0.1  # paper: a picture fits that is no larger than its room by more than this
Point = tuple[float, float]
Measure = Callable[[str, float], float]  # text, height [paper mm] -> width [paper mm], from the shipped font
Anchor = Literal["start", "middle", "end"]


class Path(Struct, frozen=True, kw_only=True):
    """A line or, when closed, an area."""

    role: str
    points: tuple[Point, ...]
    closed: bool = False
    target: str = ""
    heat: float | None = None


class Text(Struct, frozen=True, kw_only=True):
    """A text whose baseline's `anchor` stands at a point, moved by `offset` on paper."""

    role: str
    at: Point
    text: str
    height_mm: float = 2.8
    anchor: Anchor = "middle"
    offset_mm: Point = (0.0, 0.0)
    target: str = ""


class Marker(Struct, frozen=True, kw_only=True):
    """A small shape of fixed size on paper: an arrow head that points along `direction_deg`, or a drag handle."""

    role: str
    at: Point
    kind: Literal["arrow", "handle"]
    direction_deg: float = 0.0
    size_mm: float = 1.8
    target: str = ""


Item = Path | Text | Marker


def arrow_head(marker: Marker) -> tuple[Point, Point, Point]:
    """Return the corners of an arrow [paper mm], its tip at the origin, y up."""
    size, turn = marker.size_mm, math.radians(marker.direction_deg)

    def turned(u: float, v: float) -> Point:
        return (u * math.cos(turn) - v * math.sin(turn), u * math.sin(turn) + v * math.cos(turn))

    return ((0.0, 0.0), turned(-size, size * 0.18), turned(-size, -size * 0.18))


class DisplayList(Struct, frozen=True):
    """A picture: its items from back to front, the scale it is drawn for, and the work it covers."""

    items: tuple[Item, ...]
    scale: float
    low: Point
    high: Point

    def targets(self) -> frozenset[str]:
        """Return every leaf that the picture shows."""
        return frozenset(item.target for item in self.items if item.target)


def fitted(
    make: Callable[[float], DisplayList],
    width_mm: float,
    height_mm: float,
    outlined: Callable[[float], DisplayList] | None = None,
) -> DisplayList:
    """Return the picture at the scale at which it just fits a sheet.

    What is drawn in paper millimetres does not grow with the scale, so the size on paper is a straight line over it:
    two pictures tell it, a third is the answer.

    Parameters
    ----------
    make : draws the picture for a scale
    width_mm, height_mm : room on paper [mm]
    outlined : draws as much of the picture as sets its size, where all of it takes long
    """
    draw = outlined or make
    picture = draw(1.0)
    for _ in range(2):  # once more where another item sets the size at the scale that was found
        scale = picture.scale
        sizes = (_paper_size(picture), _paper_size(draw(2 * scale)))
        room = ((width_mm, sizes[0][0], sizes[1][0]), (height_mm, sizes[0][1], sizes[1][1]))
        growth = [(there, (two - one) / scale, 2 * one - two) for there, one, two in room]
        fits = [(there - fixed) / slope for there, slope, fixed in growth if slope > 0]
        picture = draw(max(min(fits, default=1.0), 0.02))
        width, height = _paper_size(picture)
        if width <= width_mm + CLOSE_MM and height <= height_mm + CLOSE_MM:
            break
    return make(picture.scale) if outlined else picture


def _paper_size(picture: DisplayList) -> Point:
    (left, low), (right, high) = picture.low, picture.high
    return ((right - left) * picture.scale, (high - low) * picture.scale)


def bounds(items: Iterable[Item], scale: float, measure: Measure) -> tuple[Point, Point]:
    """Return the corners of the work that the items cover, texts and markers with their size on paper.

    Raises
    ------
    ValueError : there are no items
    """
    points: list[Point] = []
    for item in items:
        match item:
            case Path(points=own):
                points += own
            case Marker(at=(x, y), size_mm=size):
                points += [(x - size / scale, y - size / scale), (x + size / scale, y + size / scale)]
            case Text():
                points += _text_corners(item, scale, measure)
    xs, ys = [x for x, _ in points], [y for _, y in points]
    return (min(xs), min(ys)), (max(xs), max(ys))


def _text_corners(text: Text, scale: float, measure: Measure) -> list[Point]:
    width, height = measure(text.text, text.height_mm) / scale, text.height_mm / scale
    left = {"start": 0.0, "middle": width / 2, "end": width}[text.anchor]
    x, y = text.at[0] + text.offset_mm[0] / scale - left, text.at[1] + text.offset_mm[1] / scale
    return [(x, y - 0.25 * height), (x + width, y + height)]
