"""What a picture looked like when it was painted last: only what changed since is painted anew."""

from collections.abc import Iterable
from typing import NamedTuple

from msgspec.structs import replace
from PySide6.QtCore import QRect, QRectF, QSize
from PySide6.QtGui import QPainter, QPixmap

from anlage.core.drawing import Item, Marker, Text
from anlage.ui.kit.look import Look
from anlage.ui.picture.painter import Placed, paint

SPARE_PX = 3.0  # round the bounds of an item: half a stroke, its softened edge, a glyph that hangs over
STRONG = 1.15  # a text in strong letters runs wider than it was measured
GROWN = 1.35  # a handle that is held, against one that is not
MOST_CHANGED = 1 / 3  # of the items; beyond it painting whole is cheaper than looking what lies where


class Manner(NamedTuple):
    """How a picture is painted."""

    size: QSize  # of the view [px]
    ratio: float  # device pixels of one of these
    look: Look
    held: str  # target of the handle that is taken hold of
    dimmed: bool  # the picture is no longer that of what is stated


class Canvas:
    """The pixels of one picture; they are the same whether painted whole or where they changed."""

    def __init__(self) -> None:
        self._pixels = QPixmap()
        self._shown: Placed | None = None
        self._how: Manner | None = None
        self._boxes: list[QRectF] = []  # of the items shown, once they were asked for

    def painted(self, placed: Placed, how: Manner) -> QPixmap:
        """Return the picture in its place as pixels, painted in a manner."""
        before = self._shown
        places = changed(before, placed) if before is not None and how == self._how else None
        self._shown, self._how = placed, how
        if places is None or before is None:
            self._boxes = []
            self._pixels = QPixmap(how.size * how.ratio)
            self._pixels.setDevicePixelRatio(how.ratio)
            self._pixels.fill(how.look.colour["sheet"])
            with QPainter(self._pixels) as painter:
                paint(placed, painter, how.look, held=how.held, dimmed=how.dimmed)
        elif places:
            dirty = self._moved(before, placed, places)
            with QPainter(self._pixels) as painter:
                painter.setClipRect(dirty)  # one rectangle: cutting along many takes longer than what lies between
                painter.fillRect(dirty, how.look.colour["sheet"])
                paint(self._within(dirty), painter, how.look, held=how.held, dimmed=how.dimmed)
        return self._pixels

    def _moved(self, before: Placed, after: Placed, places: Iterable[int]) -> QRect:
        """Return the rectangle within which the items at some places were and are now."""
        self._boxes = self._boxes or [bounds(before, item) for item in before.picture.items]
        dirty = QRectF()
        for place in places:
            now = bounds(after, after.picture.items[place])
            dirty |= self._boxes[place] | now
            self._boxes[place] = now
        return dirty.toAlignedRect()

    def _within(self, dirty: QRect) -> Placed:
        """Return the picture with only those items that lie in what is painted anew."""
        assert self._shown is not None, "something was shown"
        picture, room = self._shown.picture, QRectF(dirty)
        met = tuple(item for item, box in zip(picture.items, self._boxes, strict=True) if box.intersects(room))
        return replace(self._shown, picture=replace(picture, items=met))


def changed(before: Placed, after: Placed) -> list[int] | None:
    """Return the places of the items at which two pictures differ; `None` where all of it may have changed."""
    if (before.origin, before.px_per_mm, before.heat) != (after.origin, after.px_per_mm, after.heat):
        return None
    old, new = before.picture, after.picture
    if old.scale != new.scale or len(old.items) != len(new.items):
        return None
    pairs = enumerate(zip(old.items, new.items, strict=True))
    differ = [place for place, (was, now) in pairs if was is not now and was != now]
    return None if len(differ) > len(new.items) * MOST_CHANGED else differ


def bounds(placed: Placed, item: Item) -> QRectF:
    """Return the rectangle of the screen that an item is painted within."""
    if isinstance(item, Text):
        found = placed.text_rect(item)
        found.setWidth(found.width() * STRONG)
    elif isinstance(item, Marker):
        at, reach = placed.on_screen(item.at), item.size_mm * placed.px_per_mm * GROWN
        found = QRectF(at.x() - reach, at.y() - reach, 2 * reach, 2 * reach)
    else:
        x, y = [each[0] for each in item.points], [each[1] for each in item.points]
        found = QRectF(placed.on_screen((min(x), max(y))), placed.on_screen((max(x), min(y))))
    return found.adjusted(-SPARE_PX, -SPARE_PX, SPARE_PX, SPARE_PX)
