"""Curves over one quantity: what other designs of the same joint take, with the one at hand drawn strongest."""

import math
from collections.abc import Iterator, Sequence
from itertools import pairwise

from msgspec import Struct

from anlage.core.drawing.display import DisplayList, Item, Marker, Measure, Path, Point, Text, bounds

TICKS = 5
LABEL_MM, APART_MM = 2.6, 4.2
STEPS = (1, 2, 2.5, 5)


class Curve(Struct, frozen=True):
    """One design: its name, what it takes here as text, and its points in the reader's units."""

    name: str
    here: str
    points: tuple[Point, ...]
    own: bool = False

    @property
    def caption(self) -> str:
        """What stands at its end."""
        return f"{self.name}, {self.here}"


class Frame(Struct, frozen=True):
    """The plot: names of both axes, where the joint at hand lies, and the size on paper [mm].

    With `powers` heights are powers of ten, and said as what they are the power of.
    """

    across: str
    up: str
    at: float
    size_mm: Point
    powers: bool = False


def curves(lines: Sequence[Curve], frame: Frame, measure: Measure) -> DisplayList:
    """Return curves with their names at their right ends, kept apart, and a line at the joint at hand.

    Parameters
    ----------
    lines : the designs, the one at hand among them; each with two points or more
    frame : the plot
    measure : measures a text, for the corners of the picture
    """
    width, height = frame.size_mm
    most_x = max(x for line in lines for x, _ in line.points)
    most_y = max(y for line in lines for _, y in line.points) * 1.05
    least_x = min(x for line in lines for x, _ in line.points)

    def at(point: Point) -> Point:
        return ((point[0] - least_x) / (most_x - least_x) * width, point[1] / most_y * height)

    items: list[Item] = [*grid(frame, (least_x, most_x), (0.0, most_y))]
    here = at((frame.at, 0.0))[0]
    items.append(Path(role="possible", points=((here, 0.0), (here, height))))
    ends = sorted((at(line.points[-1])[1], n) for n, line in enumerate(lines))
    places = apart([y for y, _ in ends])
    for line in lines:
        role = "curve_own" if line.own else "curve"
        items.append(Path(role=role, points=tuple(at(point) for point in line.points)))
        if line.points[0][0] <= frame.at <= line.points[-1][0]:  # none where a curve does not reach
            here_at = at((frame.at, read_at(line.points, frame.at)))
            items.append(Marker(role="curve_own", at=here_at, kind="handle", size_mm=1.6))
    for (y, n), place in zip(ends, places, strict=True):
        line = lines[n]
        items.append(Path(role="extension", points=((width, y), (width + 2.5, place))))
        role = "value" if line.own else "tick"
        beside, text = (width + 3.2, place), line.caption
        items.append(Text(role=role, at=beside, text=text, height_mm=LABEL_MM, anchor="start", offset_mm=(0, -0.9)))
    return DisplayList(tuple(items), 1.0, *bounds(items, 1.0, measure))


def captions_mm(lines: Sequence[Curve], measure: Measure) -> float:
    """Return how wide the widest caption is on paper [mm]."""
    return max(measure(line.caption, LABEL_MM) for line in lines)


def apart(places: list[float]) -> list[float]:
    """Return heights in the same order, none nearer to the one below than a text needs."""
    found: list[float] = []
    for place in places:
        found.append(max(place, found[-1] + APART_MM) if found else place)
    return found


def read_at(points: Sequence[Point], x: float) -> float:
    """Return the height of a curve at a place across, in proportion between its points, level beyond them."""
    for (x1, y1), (x2, y2) in pairwise(points):
        if x1 <= x <= x2:
            return y1 + (y2 - y1) * (x - x1) / (x2 - x1) if x2 > x1 else y2
    return points[-1][1] if x > points[-1][0] else points[0][1]


def grid(frame: Frame, across: Point, up: Point) -> Iterator[Item]:
    """Yield the lines, numbers and names of a plot, each axis from one end to the other."""
    (width, height), (least_x, most_x), (least_y, most_y) = frame.size_mm, across, up
    for value in ticks(least_x, most_x):
        x = (value - least_x) / (most_x - least_x) * width
        yield Path(role="grid", points=((x, 0.0), (x, height)))
        yield Text(role="tick", at=(x, 0.0), text=f"{value:g}", height_mm=LABEL_MM, offset_mm=(0.0, -4.2))
    heights = range(math.ceil(least_y), math.floor(most_y) + 1) if frame.powers else ticks(least_y, most_y)
    for value in heights:
        y = (value - least_y) / (most_y - least_y) * height
        yield Path(role="grid", points=((0.0, y), (width, y)))
        yield Text(
            role="tick", at=(0.0, y), text=f"{10**value:,.0f}" if frame.powers else f"{value:g}", height_mm=LABEL_MM,
            anchor="end", offset_mm=(-1.6, -0.9),
        )  # fmt: skip
    yield Path(role="axis", points=((0.0, height), (0.0, 0.0), (width, 0.0)))
    yield Text(role="tick", at=(width, 0.0), text=frame.across, height_mm=LABEL_MM, anchor="end", offset_mm=(0.0, -8.6))
    yield Text(role="tick", at=(0.0, height), text=frame.up, height_mm=LABEL_MM, anchor="start", offset_mm=(-8.0, 2.4))


def ticks(low: float, high: float) -> tuple[float, ...]:
    """Return round numbers between two ends, about five of them.

    Examples
    --------
    >>> ticks(0, 47)
    (0, 10, 20, 30, 40)
    """
    rough = (high - low) / TICKS
    power = 10 ** math.floor(math.log10(rough))
    step = next((s * power for s in (*STEPS, 10) if s * power >= rough * 0.999), 10 * power)
    first = math.ceil(low / step - 1e-9)
    return tuple(n * step for n in range(first, math.floor(high / step + 1e-9) + 1))
