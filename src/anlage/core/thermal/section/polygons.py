"""Plain polygons cut by the lines of a grid: exact areas, and what part of a line lies inside.

A polygon is a closed ring of corners (y, z), the last one joined to the first; which way round does not count.
"""

from collections.abc import Iterable, Sequence
from itertools import pairwise

Point = tuple[float, float]
Polygon = Sequence[Point]
Span = tuple[float, float]

TINY = 1e-9  # mm: nothing in a joint is as small


def area(polygon: Polygon) -> float:
    """Return the area of a polygon, whichever way round.

    Examples
    --------
    >>> area([(0, 0), (2, 0), (2, 1)])
    1.0
    """
    if len(polygon) < 3:
        return 0.0
    ring = [*polygon, polygon[0]]
    return abs(sum(y * next_z - next_y * z for (y, z), (next_y, next_z) in pairwise(ring))) / 2


def bounds(polygons: Iterable[Polygon]) -> tuple[Span, Span]:
    """Return the extent of polygons in y and in z."""
    points = [point for polygon in polygons for point in polygon]
    ys, zs = [y for y, _ in points], [z for _, z in points]
    return (min(ys), max(ys)), (min(zs), max(zs))


def crosses_itself(polygon: Polygon) -> bool:
    """Return whether an outline crosses itself, or touches itself between its corners.

    Examples
    --------
    >>> crosses_itself([(0, 0), (2, 2), (2, 0), (0, 2)]), crosses_itself([(0, 0), (2, 0), (2, 2)])
    (True, False)
    """
    sides = list(pairwise([*polygon, polygon[0]]))
    count = len(sides)
    return any(
        _cross(sides[i], sides[j]) for i in range(count) for j in range(i + 2, count) if (i, j) != (0, count - 1)
    )


def cut(polygon: Polygon, axis: int, at: float) -> tuple[list[Point], list[Point]]:
    """Return the parts of a polygon below and above a line across `axis` (0: y, 1: z).

    Parts that hang together along the line alone stay one ring; areas are exact all the same.
    """
    below: list[Point] = []
    above: list[Point] = []
    before = polygon[-1]
    for point in polygon:
        if (before[axis] - at) * (point[axis] - at) < 0:
            share = (at - before[axis]) / (point[axis] - before[axis])
            crossing = (before[0] + share * (point[0] - before[0]), before[1] + share * (point[1] - before[1]))
            crossing = (at, crossing[1]) if axis == 0 else (crossing[0], at)
            below.append(crossing)
            above.append(crossing)
        if point[axis] <= at:
            below.append(point)
        if point[axis] >= at:
            above.append(point)
        before = point
    return below, above


def trace(polygon: Polygon, axis: int, at: float) -> list[Span]:
    """Return which parts of a line across `axis` lie inside a polygon; the line goes through none of its corners.

    Examples
    --------
    >>> trace([(0, 0), (4, 0), (4, 2), (0, 2)], 0, 1.0)
    [(0.0, 2.0)]
    """
    other = 1 - axis
    met = sorted(
        start[other] + (at - start[axis]) / (end[axis] - start[axis]) * (end[other] - start[other])
        for start, end in pairwise([*polygon, polygon[0]])
        if (start[axis] < at) != (end[axis] < at)
    )
    return [(low, high) for low, high in zip(met[::2], met[1::2], strict=True) if high > low]


def united(spans: Iterable[Span]) -> list[Span]:
    """Return spans as few as they make together, in order."""
    found: list[Span] = []
    for low, high in sorted(spans):
        if found and low <= found[-1][1] + TINY:
            found[-1] = (found[-1][0], max(found[-1][1], high))
        else:
            found.append((low, high))
    return found


def shared(first: Sequence[Span], second: Sequence[Span]) -> list[Span]:
    """Return what lies in both of two lists of spans, each in order."""
    both = ((max(a[0], b[0]), min(a[1], b[1])) for a in first for b in second)
    return [(low, high) for low, high in both if high > low]


def without(spans: Sequence[Span], taken: Sequence[Span]) -> list[Span]:
    """Return what of spans lies in none of `taken`."""
    left = list(spans)
    for low, high in taken:
        left = [part for a, b in left for part in ((a, min(b, low)), (max(a, high), b)) if part[1] > part[0] + TINY]
    return left


def inside(polygon: Polygon, point: Point) -> bool:
    """Return whether a point lies in a polygon (on its outline either way)."""
    y, z = point
    found = False
    for (y0, z0), (y1, z1) in pairwise([*polygon, polygon[0]]):
        if (z0 < z) != (z1 < z) and y < y0 + (z - z0) / (z1 - z0) * (y1 - y0):
            found = not found
    return found


def _cross(first: tuple[Point, Point], second: tuple[Point, Point]) -> bool:
    (a, b), (c, d) = first, second
    one, two = _turn(a, b, c), _turn(a, b, d)
    three, four = _turn(c, d, a), _turn(c, d, b)
    return one * two < -TINY and three * four < -TINY


def _turn(a: Point, b: Point, c: Point) -> float:
    return (b[0] - a[0]) * (c[1] - a[1]) - (b[1] - a[1]) * (c[0] - a[0])
