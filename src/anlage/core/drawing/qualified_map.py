"""The map of what is qualified: procedures and records as rectangles over thickness and diameter, gaps hatched.

Both scales are logarithmic: a wall of 4 mm is as far from 8 mm as 40 from 80.
"""

import math
from collections.abc import Iterator, Sequence

from msgspec import Struct
from msgspec.structs import replace

from anlage.core.drawing.display import DisplayList, Item, Marker, Measure, Path, Point, Text
from anlage.core.ranges import Interval

THICKNESS_MM, DIAMETER_MM = (1.0, 300.0), (10.0, 3000.0)  # of the map; common practice lies well inside
LEFT_MM, FOOT_MM, TOP_MM = 15.0, 12.0, 6.0  # room for numbers and names
LABEL_MM, PLATE_MM, HATCH_MM = 2.6, 3.6, 2.2
MOST_NAMED = 60
HANDLE_MM, SPOT_MM = 2.4, 6.4
DASH_MM = 0.6  # a rectangle of a single value is still seen

Taken = tuple[float, float, float]  # left, right and foot of a plate, where no other may stand


class Area(Struct, frozen=True):
    """One document on the map: `None` is every thickness or diameter; `gaps` are thicknesses that nothing covers."""

    target: str
    label: str
    kind: str  # wps or pqr
    thickness_mm: Interval | None
    diameter_mm: Interval | None
    gaps: tuple[Interval, ...] = ()
    chosen: bool = False


class Ticks(Struct, frozen=True):
    """What is written at the scales: names with units, and value [mm] with text for every mark."""

    thickness_name: str
    diameter_name: str
    thickness: tuple[tuple[float, str], ...]
    diameter: tuple[tuple[float, str], ...]


class _Map(Struct, frozen=True):
    width: float
    height: float

    def x(self, thickness_mm: float) -> float:
        return LEFT_MM + _share(thickness_mm, THICKNESS_MM) * (self.width - LEFT_MM - 2)

    def y(self, diameter_mm: float) -> float:
        return FOOT_MM + _share(diameter_mm, DIAMETER_MM) * (self.height - FOOT_MM - TOP_MM)

    def depth(self, area: Area) -> tuple[bool, float]:
        """Return the order in which areas lie: the smallest procedure on top, where a click finds it."""
        left, foot, right, top = self.box(area.thickness_mm, area.diameter_mm)
        return area.kind == "wps", -(right - left) * (top - foot)

    def box(self, thickness: Interval | None, diameter: Interval | None) -> tuple[float, float, float, float]:
        """Return left, foot, right and top of a rectangle."""
        t, d = thickness or Interval(*THICKNESS_MM), diameter or Interval(*DIAMETER_MM)
        left, right, foot, top = self.x(t.low), self.x(t.high), self.y(d.low), self.y(d.high)
        return left, foot, max(right, left + DASH_MM), max(top, foot + DASH_MM)


def _share(value: float, scale: tuple[float, float]) -> float:
    low, high = scale
    inside = min(max(value, low), high)
    return math.log(inside / low) / math.log(high / low)


def qualified_map(
    areas: Sequence[Area], ticks: Ticks, size_mm: Point, measure: Measure, clear: Sequence[Taken] = ()
) -> DisplayList:
    """Return the map of some documents; records lie under procedures, the chosen one on top.

    Parameters
    ----------
    areas : the documents in their order
    ticks : what is written at the scales
    size_mm : size of the whole picture on paper [mm]
    measure : measures a text in the shipped font
    clear : where no name of a document may stand
    """
    plane = _Map(*size_mm)
    areas = areas if len(areas) <= MOST_NAMED else _told_apart(plane, areas)
    ordered = sorted(areas, key=lambda area: (area.chosen, area.kind == "wps"))
    items = (
        *_scales(plane, ticks),
        *(_fill(plane, area) for area in sorted(areas, key=plane.depth)),
        *(item for area in ordered for item in _lines(plane, area)),
        *_labels(plane, areas, measure, clear),
    )
    return DisplayList(items, 1.0, (0.0, 0.0), size_mm)


def _told_apart(plane: _Map, areas: Sequence[Area]) -> list[Area]:
    """Return of many documents one for each rectangle that an eye tells apart; of so many the chosen one is named."""
    found: dict[object, Area] = {}
    for area in areas:
        boxes = [plane.box(area.thickness_mm, area.diameter_mm), *(plane.box(gap, None) for gap in area.gaps)]
        ends = tuple(round(end / DASH_MM) for box in boxes for end in box)
        found.setdefault((area.kind, ends, area.chosen), area if area.chosen else replace(area, label=""))
    return list(found.values())


def _scales(plane: _Map, ticks: Ticks) -> Iterator[Item]:
    left, foot, right, top = plane.box(None, None)
    yield Path(role="axis", points=((left, top), (left, foot), (right, foot)))
    for value, text in ticks.thickness:
        x = plane.x(value)
        yield Path(role="grid", points=((x, foot), (x, top)))
        yield Text(role="tick", at=(x, foot), text=text, height_mm=LABEL_MM, offset_mm=(0.0, -4.2))
    for value, text in ticks.diameter:
        y = plane.y(value)
        yield Path(role="grid", points=((left, y), (right, y)))
        yield Text(role="tick", at=(left, y), text=text, height_mm=LABEL_MM, anchor="end", offset_mm=(-1.4, -0.9))
    middle = ((left + right) / 2, foot)
    yield Text(role="tick", at=middle, text=ticks.thickness_name, height_mm=LABEL_MM, offset_mm=(0.0, -9.0))
    yield Text(
        role="tick", at=(0.0, top), text=ticks.diameter_name, height_mm=LABEL_MM, anchor="start", offset_mm=(0, 2)
    )


def _fill(plane: _Map, area: Area) -> Item:
    corners = _corners(plane.box(area.thickness_mm, area.diameter_mm))
    return Path(role=f"{area.kind}_area", points=corners, closed=True, target=area.target)


def _lines(plane: _Map, area: Area) -> Iterator[Item]:
    """Yield outline and gaps; all fills lie under all lines, so that no document hides where another ends."""
    for gap in area.gaps:
        yield from _hatched(plane.box(gap, area.diameter_mm), area.target)
    corners = _corners(plane.box(area.thickness_mm, area.diameter_mm))
    role = "chosen" if area.chosen else f"{area.kind}_outline"
    yield Path(role=role, points=(*corners, corners[0]), target=area.target)


def _corners(box: tuple[float, float, float, float]) -> tuple[Point, ...]:
    left, foot, right, top = box
    return ((left, foot), (right, foot), (right, top), (left, top))


def _hatched(box: tuple[float, float, float, float], target: str) -> Iterator[Item]:
    """Yield slanting lines clipped to a rectangle, and its outline."""
    left, foot, right, top = box
    corners = _corners(box)
    yield Path(role="gap", points=(*corners, corners[0]), target=target)
    start = left - (top - foot)
    for count in range(int((right - start) / HATCH_MM) + 1):
        x = start + count * HATCH_MM  # the line y - foot = X - x within the rectangle
        low, high = max(x, left), min(x + (top - foot), right)
        if low < high:
            yield Path(role="gap", points=((low, foot + low - x), (high, foot + high - x)), target=target)


def _labels(plane: _Map, areas: Sequence[Area], measure: Measure, clear: Sequence[Taken]) -> Iterator[Item]:
    """Yield the number of every document in the upper left corner of its rectangle, under those that stand there."""
    taken = list(clear)
    for area in areas:
        if not area.label:
            continue
        left, _, _, top = plane.box(area.thickness_mm, area.diameter_mm)
        width, x, y = measure(area.label, LABEL_MM) + 1.6, left, top - PLATE_MM
        while any(x < other[1] and other[0] < x + width and abs(y - other[2]) < PLATE_MM for other in taken):
            y -= PLATE_MM  # under the plate that stands there already
        taken.append((x, x + width, y))
        yield Path(role="plate", points=_corners((x, y, x + width, y + PLATE_MM)), closed=True, target=area.target)
        yield Text(role="value", at=(x + 0.8, y + 0.9), text=area.label, height_mm=LABEL_MM, anchor="start",
                   target=area.target)  # fmt: skip


# Coupons that are planned ---------------------------------------------------------------------


class Spot(Struct, frozen=True):
    """A coupon on the map where it would be welded: it is dragged along the thicknesses; a plate has no diameter."""

    target: str
    label: str
    thickness_mm: float
    diameter_mm: float | None


def coupon_map(
    areas: Sequence[Area], spots: Sequence[Spot], ticks: Ticks, size_mm: Point, measure: Measure
) -> DisplayList:
    """Return the map of joints over what coupons buy, each coupon with its handle.

    Parameters
    ----------
    areas : joints (`wps`) and what coupons buy (`pqr`)
    spots : the coupons
    ticks, size_mm, measure : as in `qualified_map`
    """
    plane = _Map(*size_mm)
    placed = _placed(plane, spots, measure)
    clear = [plate for (x, y), width, _ in placed for plate in _plates(x, y, width)]
    bare = qualified_map(areas, ticks, size_mm, measure, clear)
    return replace(bare, items=(*bare.items, *(item for each in placed for item in _spot(*each))))


def _placed(plane: _Map, spots: Sequence[Spot], measure: Measure) -> list[tuple[Point, float, Spot]]:
    """Return every coupon with its place and the width of its name: within the map, under those that it would hide."""
    found: list[tuple[Point, float, Spot]] = []
    highest = plane.y(DIAMETER_MM[1]) - SPOT_MM
    for spot in spots:
        x, y = plane.x(spot.thickness_mm), min(plane.y(spot.diameter_mm or DIAMETER_MM[1]), highest)
        width = measure(spot.label, LABEL_MM) + 1.6
        while any(abs(x - other) < (width + wide) / 2 and abs(y - up) < SPOT_MM for (other, up), wide, _ in found):
            y -= SPOT_MM
        found.append(((x, y), width, spot))
    return found


def _plates(x: float, y: float, width: float) -> Iterator[Taken]:
    """Yield what a coupon takes up: its name and, under that, its handle."""
    for foot in (y + HANDLE_MM / 2 + 0.3, y - HANDLE_MM / 2):
        yield x - width / 2, x + width / 2, foot


def _spot(at: Point, width: float, spot: Spot) -> Iterator[Item]:
    left, foot = at[0] - width / 2, at[1] + HANDLE_MM / 2 + 0.3
    corners = _corners((left, foot, left + width, foot + PLATE_MM))
    yield Path(role="plate", points=corners, closed=True, target=spot.target)
    yield Text(role="value", at=(at[0], foot + 0.9), text=spot.label, height_mm=LABEL_MM, target=spot.target)
    yield Marker(role="handle", at=at, kind="handle", size_mm=HANDLE_MM, target=spot.target)


def thickness_at(x_mm: float, size_mm: Point) -> float:
    """Return the thickness at a place across the map [mm]."""
    low, high = THICKNESS_MM
    share = (x_mm - LEFT_MM) / (size_mm[0] - LEFT_MM - 2)
    return float(low * (high / low) ** min(max(share, 0.0), 1.0))
