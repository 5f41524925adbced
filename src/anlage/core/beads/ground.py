"""The ground a bead is laid on: the surface of a groove as it fills, as a height over the width.

Glossary
--------
ground : a polyline (x, y) with x never falling, in the groove's own frame: the mouth lies at height 0, from x = 0 to
    its width; walls may be upright
level : height of the flat surface that some metal would have
"""

import math
from bisect import bisect_left, bisect_right
from collections.abc import Sequence
from dataclasses import dataclass
from itertools import pairwise

from anlage.core.joint import Groove, Point

Ground = tuple[Point, ...]
NEWTON_STEPS = 40
CLOSE, CLOSE_MM = 1e-12, 1e-9


@dataclass(frozen=True, slots=True)
class Frame:
    """The frame of a groove: its origin at the left end of the mouth, x along it, y out of the groove.

    A groove that does not lie under its mouth, a skewed fillet or a buttering, is sheared until it does; a shear keeps
    every area.
    """

    origin: Point
    along: Point
    shear: float = 0.0

    @classmethod
    def of(cls, groove: Groove) -> "Frame":
        """Return the frame of a groove."""
        up = groove.up
        plain = cls(groove.mouth[0], (up[1], -up[0]))
        points = [plain.inward(point) for point in walk_of(groove)]
        lowest = min(y for _, y in points)
        if lowest >= 0 or all(one[0] <= other[0] + CLOSE_MM for one, other in pairwise(points)):
            return plain
        deepest = [x for x, y in points if y <= lowest + CLOSE_MM]
        middle = (min(deepest) + max(deepest)) / 2
        return cls(plain.origin, plain.along, (middle - groove.face_width_mm / 2) / lowest)

    def inward(self, point: Point) -> Point:
        """Return a point of the section in the frame."""
        dx, dy = point[0] - self.origin[0], point[1] - self.origin[1]
        up = dy * self.along[0] - dx * self.along[1]
        return (dx * self.along[0] + dy * self.along[1] - self.shear * up, up)

    def outward(self, point: Point) -> Point:
        """Return a point of the frame in the section."""
        x, y = point[0] + self.shear * point[1], point[1]
        return (
            self.origin[0] + x * self.along[0] - y * self.along[1],
            self.origin[1] + x * self.along[1] + y * self.along[0],
        )


def walk_of(groove: Groove) -> list[Point]:
    """Return the outline of a groove from the left end of its mouth down and up to the right end."""
    outline = groove.outline
    start = min(range(len(outline)), key=lambda n: _apart(outline[n], groove.mouth[0]))
    return [*outline[start:], *outline[:start]]


def ground_of(groove: Groove) -> Ground:
    """Return the bare surface of a groove, with the edges that its cap overlaps and the root beyond its opening."""
    walk = walk_of(groove)
    if groove.root and groove.root_cap:
        right, left = groove.root
        place = next((n for n, each in enumerate(walk) if _apart(each, left) < 1e-12), None)
        if place is not None and _apart(walk[place + 1], right) < 1e-12:
            walk[place + 1 : place + 1] = groove.root_cap[1:-1]
    frame = Frame.of(groove)
    points = [frame.inward(point) for point in walk]
    if groove.overlap_mm:
        left, right = (frame.inward(end) for end in groove.chord)
        points = [left, *points, right]
    ordered: list[Point] = []
    reach = points[0][0]
    for x, y in points:  # rounding must not make x fall by an atom
        reach = max(reach, x)
        ordered.append((reach, y))
    return tuple(ordered)


def _apart(one: Point, two: Point) -> float:
    return (one[0] - two[0]) ** 2 + (one[1] - two[1]) ** 2


def under(ground: Sequence[Point], level: float) -> list[Point]:
    """Return the part of a ground that lies under a level; where it stands over the level it is cut off flat."""
    found: list[Point] = []
    for (x1, y1), (x2, y2) in pairwise(ground):
        if not found and y1 <= level:
            found.append((x1, y1))
        if (y1 < level < y2) or (y2 < level < y1):
            found.append((x1 + (x2 - x1) * (level - y1) / (y2 - y1), level))
        if y2 <= level:
            found.append((x2, y2))
    while len(found) > 1 and found[0][1] == level and found[1][1] == level:
        found.pop(0)
    while len(found) > 1 and found[-1][1] == level and found[-2][1] == level:
        found.pop()
    return found


def area_under(ground: Sequence[Point], level: float) -> tuple[float, float]:
    """Return the area between a ground and a level over it [mm²], and the width of that surface [mm]."""
    area = width = 0.0
    x1, one = ground[0][0], level - ground[0][1]
    for x2, y2 in ground:
        two = level - y2
        if one >= 0 and two >= 0:
            step = x2 - x1
            area += step * (one + two)
            width += step
        elif one > 0 or two > 0:
            deep = one if one > two else two
            step = (x2 - x1) * deep / abs(two - one)
            area += step * deep
            width += step
        x1, one = x2, two
    return area / 2, width


def level_for(ground: Sequence[Point], area_mm2: float, *, above: float = -math.inf) -> float:
    """Return the level under which a ground holds an area, starting to look from a level that is too low.

    Over the ground's ends it goes on upright.
    """
    low, high = min(y for _, y in ground), max(y for _, y in ground)
    whole, width = area_under(ground, high)
    if area_mm2 >= whole:
        return high + (area_mm2 - whole) / max(ground[-1][0] - ground[0][0], CLOSE)
    start = max(above, low)
    held, width = area_under(ground, start)
    level = min(start + (area_mm2 - held) / width, high) if width > CLOSE else high
    for _ in range(NEWTON_STEPS):
        found, width = area_under(ground, level)
        if found > area_mm2:
            high = level
        else:
            low = level
        step = (found - area_mm2) / width if width > CLOSE else high - low
        if abs(step) < 1e-10:
            break
        level = level - step if low < level - step < high else (low + high) / 2
    return level


class Slab:
    """What lies between a ground and a surface over it, to be cut across where some area is reached.

    Both are given at the same places: (x, lower, upper), x never falling; a `level` one has no corners on top.
    """

    def __init__(self, nodes: Sequence[tuple[float, float, float]], *, level: bool) -> None:
        self.nodes, self.level = list(nodes), level
        self.xs = [x for x, _, _ in nodes]
        self.sums = [0.0]
        for (x1, low1, up1), (x2, low2, up2) in pairwise(nodes):
            self.sums.append(self.sums[-1] + (x2 - x1) * (up1 - low1 + up2 - low2) / 2)

    @property
    def area_mm2(self) -> float:
        """The whole area."""
        return self.sums[-1]

    def place(self, area_mm2: float) -> float:
        """Return the x up to which an area is reached."""
        if area_mm2 <= 0:
            return self.nodes[0][0]
        n = min(bisect_right(self.sums, area_mm2), len(self.nodes) - 1)
        (x1, low1, up1), (x2, low2, up2) = self.nodes[n - 1], self.nodes[n]
        left, step = area_mm2 - self.sums[n - 1], x2 - x1
        one, two = up1 - low1, up2 - low2
        if step <= 0 or left <= 0:
            return x1
        slope = (two - one) / step
        if abs(slope) < CLOSE:
            share = left / one if one > 0 else step
        else:  # one·s + slope·s²/2 = left
            root = max(one * one + 2 * slope * left, 0.0) ** 0.5
            share = 2 * left / (one + root) if one + root > 0 else step
        return min(x1 + max(share, 0.0), x2)

    def between(self, start: float, end: float) -> tuple[list[Point], list[Point]]:
        """Return the lower and the upper line from one x to another, both from left to right."""
        first, last = bisect_right(self.xs, start), bisect_left(self.xs, end)
        inside = self.nodes[first:last]
        left, right = self._at(start, first - 1), self._at(end, last)
        lower = [(start, left[0]), *((x, low) for x, low, _ in inside), (end, right[0])]
        upper = [(start, left[1]), *(() if self.level else ((x, up) for x, _, up in inside)), (end, right[1])]
        return lower, upper

    def _at(self, x: float, n: int) -> Point:
        """Return lower and upper at an x; node `n` lies at it, or it lies between that node and its neighbour."""
        n = min(max(n, 0), len(self.nodes) - 1)
        if self.xs[n] == x:
            return self.nodes[n][1:]
        one, two = (n, n + 1) if self.xs[n] < x else (n - 1, n)
        one, two = max(one, 0), min(two, len(self.nodes) - 1)
        (x1, low1, up1), (x2, low2, up2) = self.nodes[one], self.nodes[two]
        share = (x - x1) / (x2 - x1) if x2 > x1 else 0.0
        return (low1 + (low2 - low1) * share, up1 + (up2 - up1) * share)


def flat_slab(ground: Sequence[Point], level: float) -> Slab:
    """Return what lies between a ground and a level over it."""
    return Slab([(x, min(y, level), level) for x, y in under(ground, level)], level=True)


def crowned_slab(ground: Sequence[Point], crown: Sequence[Point]) -> Slab:
    """Return what lies between a ground and a crown over it that reaches from end to end of the ground."""
    nodes: list[tuple[float, float, float]] = []
    n = 0
    for place, (x, y) in enumerate(ground):
        while n < len(crown) and crown[n][0] < x:
            cx, cy = crown[n]
            if place:
                (x1, y1), (x2, y2) = ground[place - 1], (x, y)
                low = y1 + (y2 - y1) * (cx - x1) / (x2 - x1) if x2 > x1 else y2
                nodes.append((cx, low, cy))
            n += 1
        nodes.append((x, y, max(_height(crown, n, x), y)))
    return Slab(nodes, level=False)


def _height(crown: Sequence[Point], n: int, x: float) -> float:
    n = min(max(n, 1), len(crown) - 1)
    (x1, y1), (x2, y2) = crown[n - 1], crown[n]
    return y1 + (y2 - y1) * (x - x1) / (x2 - x1) if x2 > x1 else y2


class Widths:
    """About how wide the surface of a bare ground is once it holds some metal: in proportion between its corners."""

    def __init__(self, ground: Sequence[Point]) -> None:
        rows = [area_under(ground, level) for level in sorted({min(y, 0.0) for _, y in ground})] or [(0.0, 0.0)]
        self._areas, self._widths = [area for area, _ in rows], [width for _, width in rows]

    def at(self, area_mm2: float) -> float:
        """Return the width once so much is laid; a full groove is as wide as its mouth."""
        n = min(max(bisect_right(self._areas, area_mm2), 1), len(self._areas) - 1)
        low, high = self._areas[n - 1], self._areas[n]
        share = min((area_mm2 - low) / (high - low), 1.0) if high > low else 1.0
        return self._widths[n - 1] + (self._widths[n] - self._widths[n - 1]) * share
