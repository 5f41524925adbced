"""Temperature at one place over the passes of a weld, its limits as lines, the waits as bands."""

from collections.abc import Callable, Iterator, Sequence

from msgspec import Struct

from anlage.core.drawing.curves import Frame, grid
from anlage.core.drawing.display import DisplayList, Item, Marker, Measure, Path, Point, Text, bounds

LABEL_MM = 2.6
APART_MM = 5.0  # numbers of passes closer than this are left out


class Level(Struct, frozen=True):
    """A temperature that is asked or allowed, in the reader's unit."""

    word: str
    value: float


class Stretch(Struct, frozen=True):
    """A pass: its number, when its arc is struck and when it is at the place, and the wait before; reader's units."""

    number: int
    struck: float
    start: float
    wait: float


class Cursor(Struct, frozen=True):
    """The moment that is looked at, in the reader's unit, what it is dragged as, and what a probe reads over time."""

    at: float
    target: str
    probe: tuple[Point, ...] = ()


def sequence_curve(
    curve: tuple[Sequence[Point], Cursor | None], levels: Sequence[Level], stretches: Sequence[Stretch], frame: Frame,
    measure: Measure,
) -> DisplayList:  # fmt: skip
    """Return a curve of temperature over time, with where each pass starts.

    Parameters
    ----------
    curve : time and temperature of the place that is read, in the reader's units; the moment that is looked at
    levels : limits
    stretches : the passes in order
    frame : the plot; `at` is not used
    measure : measures a text
    """
    (width, height), (points, cursor) = frame.size_mm, curve
    most_x = max(x for x, _ in points)
    most_y = max([*(y for _, y in points), *(level.value for level in levels)]) * 1.08
    least_y = min([0.0, *(y for _, y in points)])

    def at(x: float, y: float) -> Point:
        return (x / most_x * width, (y - least_y) / (most_y - least_y) * height)

    items: list[Item] = [*_waits(stretches, at, most_y, least_y)]
    items += grid(frame, (0.0, most_x), (least_y, most_y))
    for level in levels:
        y = at(0.0, level.value)[1]
        items.append(Path(role="limit", points=((0.0, y), (width, y))))
        items.append(
            Text(role="tick", at=(width, y), text=level.word, height_mm=LABEL_MM, anchor="start", offset_mm=(1.5, -0.9))
        )
    if cursor is not None and len(cursor.probe) > 1:
        items += [Path(role="curve", points=tuple(at(*each) for each in part)) for part in _under(cursor.probe, most_y)]
    items.append(Path(role="curve_own", points=tuple(at(x, y) for x, y in points)))
    last = -APART_MM
    for each in stretches:
        x = at(each.start, least_y)[0]
        items.append(Path(role="possible", points=((x, 0.0), (x, height))))
        if x - last >= APART_MM:
            items.append(
                Text(role="value", at=(x, height), text=str(each.number), height_mm=LABEL_MM, offset_mm=(0.0, 1.4))
            )
            last = x
    if cursor is not None:
        x = at(min(cursor.at, most_x), least_y)[0]
        items.append(Path(role="chosen_at", points=((x, 0.0), (x, height)), target=cursor.target))
        items.append(Marker(role="handle", at=(x, 0.0), kind="handle", target=cursor.target))
    return DisplayList(tuple(items), 1.0, *bounds(items, 1.0, measure))


def _under(points: Sequence[Point], most: float) -> Iterator[tuple[Point, ...]]:
    """Yield the parts of a curve that are no higher than the plot."""
    part: list[Point] = []
    for point in points:
        if point[1] <= most:
            part.append(point)
        elif part:
            if len(part) > 1:
                yield tuple(part)
            part = []
    if len(part) > 1:
        yield tuple(part)


def _waits(
    stretches: Sequence[Stretch], at: Callable[[float, float], Point], most: float, least: float
) -> Iterator[Item]:
    for each in stretches:
        if each.wait > 0:
            (left, foot), (right, top) = at(each.struck - each.wait, least), at(each.struck, most)
            yield Path(role="metal", points=((left, foot), (right, foot), (right, top), (left, top)), closed=True)
