"""One rung of the ladder: the allowed band as a line above, the stated band as a block below, on a scale of its own.

What of the stated band lies where nothing is allowed is marked as overhang.
"""

import math
from collections.abc import Iterator

from anlage.core.drawing.display import DisplayList, Item, Marker, Path, Point
from anlage.core.ranges import Interval, Numbers, Range, is_none, without

HEIGHT_MM = 6.0  # of the whole rung on paper
ALLOWED_Y, STATED_Y, BLOCK_MM = 4.4, 0.8, 2.0  # of the line, and foot and height of the block
MARGIN = 0.14  # of the scale, beyond the outermost end on each side
LEAST_MM = 0.8  # a block of a single value is still seen
TICK_MM = 0.9


def rung(stated: Range | None, sure: Range, possible: Range, width_mm: float) -> DisplayList | None:
    """Return the bands of a variable that is a number; `None` when there is nothing to draw on a scale.

    Parameters
    ----------
    stated : what the procedure states, `None` when it does not
    sure, possible : what is allowed in every reading, and in any
    width_mm : width on paper [mm]
    """
    sets = [each for each in (stated, sure, possible) if isinstance(each, Numbers)]
    ends = [end for each in sets for part in each.parts for end in (part.low, part.high) if math.isfinite(end)]
    if not ends:
        return None
    low, high = min(ends), max(ends)
    room = (high - low) * MARGIN or max(abs(high) * MARGIN, 1.0)
    scale = _Scale(low - room, high + room, width_mm)
    items = (
        *(_lines(scale, possible, "possible") if possible != sure else ()),
        *_lines(scale, sure, "allowed"),
        *_blocks(scale, stated, "stated"),
        *(_blocks(scale, without(stated, possible), "overhang") if isinstance(stated, Numbers) else ()),
    )
    return DisplayList(items, 1.0, (0.0, 0.0), (width_mm, HEIGHT_MM))


class _Scale:
    """From a value to millimetres of paper; absent ends lie at the edge."""

    def __init__(self, low: float, high: float, width_mm: float) -> None:
        self.low, self.high, self.width_mm = low, high, width_mm

    def at(self, value: float) -> float:
        share = (value - self.low) / (self.high - self.low)
        return min(max(share, 0.0), 1.0) * self.width_mm


def _parts(band: Range | None) -> tuple[Interval, ...]:
    return band.parts if isinstance(band, Numbers) and not is_none(band) else ()


def _lines(scale: _Scale, band: Range, role: str) -> Iterator[Item]:
    for part in _parts(band):
        left, right = scale.at(part.low), scale.at(part.high)
        yield Path(role=role, points=((left, ALLOWED_Y), (right, ALLOWED_Y)))
        for end, x, direction in ((part.low, left, 180.0), (part.high, right, 0.0)):
            if math.isfinite(end):
                yield Path(role=role, points=((x, ALLOWED_Y - TICK_MM), (x, ALLOWED_Y + TICK_MM)))
            else:
                yield Marker(role=role, at=(x, ALLOWED_Y), kind="arrow", direction_deg=direction)


def _blocks(scale: _Scale, band: Range | None, role: str) -> Iterator[Item]:
    for part in _parts(band):
        left, right = scale.at(part.low), scale.at(part.high)
        short = max(LEAST_MM - (right - left), 0.0) / 2
        yield Path(role=role, points=_box(left - short, right + short), closed=True)


def _box(left: float, right: float) -> tuple[Point, ...]:
    foot, top = STATED_Y, STATED_Y + BLOCK_MM
    return ((left, foot), (right, foot), (right, top), (left, top))
