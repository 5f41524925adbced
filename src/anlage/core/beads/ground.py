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
from itertools import accumulate, pairwise

from msgspec import Struct

from anlage.core.joint import Groove, Outline, Point

Ground = tuple[Point, ...]
NEWTON_STEPS = 40
CLOSE, CLOSE_MM = 1e-12, 1e-9


class Frame(Struct, frozen=True):
    """The frame of a groove: its origin at the left end of the mouth, x along it, y out of the groove.

    A groove that does not lie under its mouth, a skewed fillet or a buttering, is sheared until it does; one whose
    mouth leans is sheared upright until that lies level. A shear keeps every area.
    """

    origin: Point
    along: Point
    shear: float = 0.0
    lean: float = 0.0

    @classmethod
    def of(cls, groove: Groove) -> "Frame":
        """Return the frame of a groove."""
        up = groove.up
        if groove.lean:
            return cls(groove.mouth[0], (math.copysign(1.0, up[1]), 0.0), lean=groove.lean)
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
        dy -= self.lean * dx
        up = dy * self.along[0] - dx * self.along[1]
        return (dx * self.along[0] + dy * self.along[1] - self.shear * up, up)

    def outline(self, points: Sequence[Point]) -> Outline:
        """Return points of the frame in the section, without corners that stand on each other."""
        (x0, y0), (c, s), shear = self.origin, self.along, self.shear
        if shear:
            points = [(x + shear * y, y) for x, y in points]
        if s:
            found = [(x0 + x * c - y * s, y0 + x * s + y * c) for x, y in points]
        else:  # most mouths lie level
            found = [(x0 + x * c, y0 + y * c) for x, y in points]
        if self.lean:
            found = [(x, y + self.lean * (x - x0)) for x, y in found]
        kept = [one for one, other in zip(found, (*found[1:], found[0]), strict=True) if one != other]
        return tuple(kept or found[:1])


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


Climb = tuple[int, float]
"""Where a wall is left by a level: the first corner over it, and the x of the wall at it."""


def flat_slab(ground: Sequence[Point], area_mm2: float) -> tuple[float, "Slab"]:
    """Return the level under which a ground holds an area, at most that of the mouth, and what lies under it."""
    left, right = _feet(ground)
    crest = max(y for _, y in ground[left : right + 1])
    walls = (ground[left::-1], ground[right:])
    at = (_climbed(walls[0], crest), _climbed(walls[1], crest))
    held, _ = area_under(ground[max(left - at[0][0], 0) : right + at[1][0] + 1], crest)
    if area_mm2 < held:
        level = _level_under(ground, area_mm2, crest)
        return level, Slab(_trimmed([(x, y, level) for x, y in under(ground, level)]), level=True)
    level, at = _risen(walls, at, crest, area_mm2 - held)
    if level > 0.0:
        level, at = 0.0, (_climbed(walls[0], 0.0), _climbed(walls[1], 0.0))
    nodes = [(x, y, level) for x, y in ground[left - at[0][0] + 1 : right + at[1][0]]]
    return level, Slab(_trimmed([(at[0][1], level, level), *nodes, (at[1][1], level, level)]), level=True)


def _feet(ground: Sequence[Point]) -> tuple[int, int]:
    """Return where the left wall has come down to its foot, and the right one: between them metal may lie in heaps."""
    left, right = 0, len(ground) - 1
    while left < right and ground[left + 1][1] <= ground[left][1]:
        left += 1
    while right > left and ground[right - 1][1] <= ground[right][1]:
        right -= 1
    return left, right


def _risen(
    walls: tuple[Sequence[Point], Sequence[Point]], at: tuple[Climb, Climb], level: float, area_mm2: float
) -> tuple[float, tuple[Climb, Climb]]:
    """Return the level that an area more rises to between two walls, and where it leaves them: band by band, exactly.

    Over the ends of the walls it goes on upright.
    """
    while True:
        (n, x1), (k, x2) = at
        height = min(
            walls[0][n][1] if n < len(walls[0]) else math.inf, walls[1][k][1] if k < len(walls[1]) else math.inf
        )
        wide = x2 - x1
        if math.isinf(height):
            return level + (area_mm2 / wide if wide > CLOSE else 0.0), at
        end1, end2 = _leaning(walls[0], at[0], level, height), _leaning(walls[1], at[1], level, height)
        opens = (end2 - end1 - wide) / (height - level)
        if (height - level) * (wide + end2 - end1) / 2 >= area_mm2:  # wide·h + opens·h²/2
            root = wide + math.sqrt(max(wide * wide + 2 * opens * area_mm2, 0.0))
            risen = level + (2 * area_mm2 / root if root > CLOSE else 0.0)
            return risen, (
                (n, _leaning(walls[0], at[0], level, risen)),
                (k, _leaning(walls[1], at[1], level, risen)),
            )
        area_mm2 -= (height - level) * (wide + end2 - end1) / 2
        level = height
        at = (
            _climbed(walls[0], level, n) if n < len(walls[0]) and walls[0][n][1] <= level else (n, end1),
            _climbed(walls[1], level, k) if k < len(walls[1]) and walls[1][k][1] <= level else (k, end2),
        )


def _leaning(wall: Sequence[Point], at: Climb, level: float, height: float) -> float:
    """Return the x of a wall at a height up to its next corner."""
    n, x = at
    return x if n == len(wall) else x + (wall[n][0] - x) * (height - level) / (wall[n][1] - level)


def _climbed(wall: Sequence[Point], level: float, n: int = 0) -> Climb:
    """Return where a wall, given from its foot up, is left by a level."""
    while n < len(wall) and wall[n][1] <= level:
        n += 1
    (x, y) = wall[n - 1]
    return n, x if n == len(wall) else x + (wall[n][0] - x) * (level - y) / (wall[n][1] - y)


def _trimmed(nodes: list[tuple[float, float, float]]) -> list[tuple[float, float, float]]:
    """Return nodes without the stretches at the ends that have no height."""
    first, last = 0, len(nodes)
    while last - first > 1 and nodes[first][1] == nodes[first][2] and nodes[first + 1][1] == nodes[first + 1][2]:
        first += 1
    while last - first > 1 and nodes[last - 1][1] == nodes[last - 1][2] and nodes[last - 2][1] == nodes[last - 2][2]:
        last -= 1
    return nodes[first:last]


def _level_under(ground: Sequence[Point], area_mm2: float, high: float) -> float:
    """Return the level of an area that does not cover the heaps on a ground, by halving and tangents."""
    low = level = min(y for _, y in ground)
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
        steps = [(b[0] - a[0]) * (a[2] - a[1] + b[2] - b[1]) / 2 for a, b in pairwise(self.nodes)]
        self.sums = list(accumulate(steps, initial=0.0))

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


def crowned_slab(ground: Sequence[Point], crown: Sequence[Point]) -> Slab:
    """Return what lies between a ground and a crown over it that reaches from end to end of the ground."""
    nodes: list[tuple[float, float, float]] = []
    corners, last = iter(crown), crown[0]
    (x1, y1), following = ground[0], next(corners)
    for x, y in ground:
        while following[0] < x:
            cx, cy = last = following
            nodes.append((cx, y1 + (y - y1) * (cx - x1) / (x - x1), cy))
            following = next(corners, (math.inf, 0.0))
        (cx, cy), (dx, dy) = last, following
        over = dy if dx == x else cy if dx == math.inf or cx == x else cy + (dy - cy) * (x - cx) / (dx - cx)
        nodes.append((x, y, over if over > y else y))
        x1, y1 = x, y
    return Slab(nodes, level=False)


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
