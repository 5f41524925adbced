"""Dimension lines: two extension lines, a line between arrows, the value over it, and a handle to drag."""

import math
from collections.abc import Iterator

from msgspec import Struct

from anlage.core.drawing.display import Anchor, Item, Marker, Path, Point, Text

GAP_MM, BEYOND_MM = 1.0, 1.5  # paper: extension lines start off the work and end past the dimension line
HANDLE_MM = 2.6  # paper: the handle stands past the second arrow, clear of the value
VALUE_MM = 1.6  # paper: between an upright line and its value
SLANTING = 0.3  # of a way that is neither level nor upright, its lesser part
NARROW_MM = 12.0  # paper: under this the arrows come from outside, the handle at the tail of the second
TAIL_MM = 5.0  # paper: length of an arrow that comes from outside


class Label(Struct, frozen=True):
    """What a dimension says, and the leaf it says it of."""

    text: str
    target: str
    stated: bool = True

    @property
    def role(self) -> str:
        """How it is drawn: as a value, or as the name of what is not stated."""
        return "value" if self.stated else "unstated"


def linear(start: Point, end: Point, label: Label, *, offset_mm: float, scale: float) -> Iterator[Item]:
    """Yield a dimension between two points, its line `offset_mm` of paper to the left of the way from start to end.

    Parameters
    ----------
    start, end : the points measured, in work millimetres
    label : the value as shown, and the leaf it shows
    offset_mm : distance of the dimension line [mm] on paper; below 0 to the right
    scale : paper millimetres per work millimetre
    """
    along = math.atan2(end[1] - start[1], end[0] - start[0])
    normal = (-math.sin(along), math.cos(along))
    side = math.copysign(1.0, offset_mm)

    def off(point: Point, paper_mm: float) -> Point:
        return (point[0] + normal[0] * paper_mm / scale, point[1] + normal[1] * paper_mm / scale)

    for point in (start, end):
        yield Path(role="extension", points=(off(point, side * GAP_MM), off(point, offset_mm + side * BEYOND_MM)))
    first, last = off(start, offset_mm), off(end, offset_mm)
    narrow = math.dist(start, end) * scale < NARROW_MM
    yield from _line(first, last, along, narrow=narrow, scale=scale)
    away = (TAIL_MM + 1.6 if narrow else HANDLE_MM) / scale
    handle = (last[0] + away * math.cos(along), last[1] + away * math.sin(along))
    yield Marker(role="handle", at=handle, kind="handle", target=label.target)
    middle = ((first[0] + last[0]) / 2, (first[1] + last[1]) / 2)
    if narrow and min(abs(math.cos(along)), abs(math.sin(along))) > SLANTING:  # the value stands beyond the handle
        side_on: Anchor = "start" if math.cos(along) > 0 else "end"
        place = (math.copysign(VALUE_MM + 0.8, math.cos(along)), -1.0)
        yield Text(role=label.role, at=handle, text=label.text, anchor=side_on, offset_mm=place, target=label.target)
    elif abs(math.cos(along)) < 0.5:  # upright: the value stands beside the line, away from the work
        anchor: Anchor = "end" if normal[0] * side < 0 else "start"
        place = (-VALUE_MM if anchor == "end" else VALUE_MM, 0.8 if narrow else -1.0)  # clear of what is measured
        yield Text(role=label.role, at=middle, text=label.text, anchor=anchor, offset_mm=place, target=label.target)
    else:
        lift = 2.2 if normal[1] * side > 0 else -5.0  # clear of the ends of the extension lines
        yield Text(role=label.role, at=middle, text=label.text, offset_mm=(0.0, lift), target=label.target)


def _line(first: Point, last: Point, along: float, *, narrow: bool, scale: float) -> Iterator[Item]:
    degrees = math.degrees(along)
    if not narrow:
        yield Path(role="dimension", points=(first, last))
        yield Marker(role="dimension", at=first, kind="arrow", direction_deg=degrees + 180)
        yield Marker(role="dimension", at=last, kind="arrow", direction_deg=degrees)
        return
    reach = TAIL_MM / scale
    step = (math.cos(along) * reach, math.sin(along) * reach)
    yield Path(role="dimension", points=((first[0] - step[0], first[1] - step[1]), first))
    yield Path(role="dimension", points=(last, (last[0] + step[0], last[1] + step[1])))
    yield Marker(role="dimension", at=first, kind="arrow", direction_deg=degrees)
    yield Marker(role="dimension", at=last, kind="arrow", direction_deg=degrees + 180)


def angular(apex: Point, label: Label, *, from_deg: float, to_deg: float, radius: float) -> Iterator[Item]:
    """Yield an angle as an arc about its apex, counter-clockwise, the value outside the middle of the arc."""
    steps = 24
    angles = [math.radians(from_deg + (to_deg - from_deg) * n / steps) for n in range(steps + 1)]
    points = tuple((apex[0] + radius * math.cos(a), apex[1] + radius * math.sin(a)) for a in angles)
    yield Path(role="dimension", points=points)
    yield Marker(role="dimension", at=points[0], kind="arrow", direction_deg=from_deg - 90)
    yield Marker(role="dimension", at=points[-1], kind="arrow", direction_deg=to_deg + 90)
    across, up = (turn(math.radians((from_deg + to_deg) / 2)) for turn in (math.cos, math.sin))
    if abs(across) > 0.7:  # beside the arc: the value stands at its height
        anchor: Anchor = "start" if across > 0 else "end"
        place = (math.copysign(1.6, across), -1.0)
    else:
        anchor, place = "middle", (0.0, 1.2 if up > 0 else -4.0)
    middle = points[steps // 2]
    yield Text(role=label.role, at=middle, text=label.text, anchor=anchor, offset_mm=place, target=label.target)
