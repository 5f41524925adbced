"""Temperature over the hours after the last pass: legs, holds that are dragged, levels they are held against."""

from collections.abc import Iterator, Sequence

from msgspec import Struct

from anlage.core.drawing.curves import Frame, apart, grid
from anlage.core.drawing.display import DisplayList, Item, Marker, Measure, Path, Point, Text, bounds

LABEL_MM, GAP_MM = 2.6, 2.0
GROUND_MM, OVER_MM = 1.0, 1.7  # of the ground under the words of a hold: beside them, and above its block
LEFT_MM, FOOT_MM, HEAD_MM = 12.0, 12.0, 8.0


class Leg(Struct, frozen=True):
    """Part of the course in the reader's units (h, degrees); `known` is false where nobody states how fast it goes."""

    points: tuple[Point, ...]
    known: bool = True


class Hold(Struct, frozen=True):
    """A hold: from and to [h], least and most, its words, the leaves that its level and its end drag."""

    start: float
    end: float
    low: float
    high: float
    words: str
    level_leaf: str
    end_leaf: str


class Level(Struct, frozen=True):
    """A temperature across the whole picture, with its name at the right."""

    value: float
    name: str
    role: str


class CycleAxes(Struct, frozen=True):
    """What the picture shows: to how many hours, from and to which temperature, on so much paper [mm]."""

    most_h: float
    least: float
    most: float
    size_mm: Point
    unit: str

    @classmethod
    def around(
        cls, legs: Sequence[Leg], levels: Sequence[Level], room_mm: Point, unit: str, measure: Measure
    ) -> "CycleAxes":
        """Return axes with room for everything, and for the names of the levels beside them."""
        points = [point for leg in legs for point in leg.points]
        values = [*(y for _, y in points), *(each.value for each in levels)]
        names = max((measure(each.name, LABEL_MM) for each in levels), default=0.0) + GAP_MM + 2.0
        size = max(room_mm[0] - LEFT_MM - names, 40.0), max(room_mm[1] - FOOT_MM - HEAD_MM, 25.0)
        return cls(max(x for x, _ in points) * 1.02, 0.0, max(values) * 1.06, size, unit)

    def at(self, point: Point) -> Point:
        """Return where hours and a temperature lie on paper [mm]."""
        x, y = point
        width, height = self.size_mm
        return x / self.most_h * width, (y - self.least) / (self.most - self.least) * height

    def read(self, at: Point) -> Point:
        """Return the hours and the temperature of a place on paper."""
        width, height = self.size_mm
        return at[0] / width * self.most_h, self.least + at[1] / height * (self.most - self.least)


def cycle(
    legs: Sequence[Leg], holds: Sequence[Hold], levels: Sequence[Level], axes: CycleAxes, measure: Measure
) -> DisplayList:
    """Return the course of the temperature, with a handle on every hold and one at its end.

    Parameters
    ----------
    legs : heating, holding and cooling in turn
    holds : the holds among them
    levels : what they are held against
    axes : from `CycleAxes.around`
    measure : measures a text
    """
    items: list[Item] = [*grid(Frame("h", axes.unit, 0.0, axes.size_mm), (0.0, axes.most_h), (axes.least, axes.most))]
    items += _levels(levels, axes)
    for hold in holds:
        corners = ((hold.start, hold.low), (hold.end, hold.low), (hold.end, hold.high), (hold.start, hold.high))
        if hold.high > hold.low:
            items.append(Path(role="stated", points=tuple(axes.at(each) for each in corners), closed=True))
    for leg in legs:
        points = tuple(axes.at(each) for each in leg.points)
        items.append(Path(role="outline" if leg.known else "possible", points=points))
    for hold in holds:
        items += _handles(hold, axes, measure)
    return DisplayList(tuple(items), 1.0, *bounds(items, 1.0, measure))


def _levels(levels: Sequence[Level], axes: CycleAxes) -> Iterator[Item]:
    width = axes.size_mm[0]
    ordered = sorted(levels, key=lambda each: each.value)
    heights = [axes.at((0.0, each.value))[1] for each in ordered]
    for each, y, place in zip(ordered, heights, apart(heights), strict=True):
        yield Path(role=each.role, points=((0.0, y), (width, y)))
        yield Path(role="extension", points=((width, y), (width + GAP_MM, place)))
        beside = (width + GAP_MM, place)
        yield Text(role="tick", at=beside, text=each.name, height_mm=LABEL_MM, anchor="start", offset_mm=(0.8, -0.9))


def _handles(hold: Hold, axes: CycleAxes, measure: Measure) -> Iterator[Item]:
    middle = (hold.low + hold.high) / 2
    at, end = axes.at(((hold.start + hold.end) / 2, middle)), axes.at((hold.end, middle))
    yield Marker(role="handle", at=at, kind="handle", target=hold.level_leaf)
    yield Marker(role="handle", at=end, kind="handle", target=hold.end_leaf)
    middle_x, top = axes.at(((hold.start + hold.end) / 2, hold.high))
    half = measure(hold.words, LABEL_MM) / 2 + GROUND_MM
    x, low = max(middle_x, half), top + OVER_MM
    corners = ((x - half, low), (x + half, low), (x + half, low + 2 * OVER_MM), (x - half, low + 2 * OVER_MM))
    yield Path(role="layer", points=corners, closed=True)
    yield Text(
        role="value", at=(x, top), text=hold.words, height_mm=LABEL_MM, offset_mm=(0.0, 2.6), target=hold.level_leaf
    )
