"""The operating window: travel speed against power, lines of equal arc energy, each pass a box.

In this plane equal energy per length is a straight line through the origin, so a box shows at a glance its hottest
corner (slow and strong, upper left) and its coldest (fast and weak, lower right).
"""

import math
from collections.abc import Iterator, Sequence

from msgspec import Struct

from anlage.core.drawing.display import DisplayList, Item, Marker, Measure, Path, Point, Text, bounds
from anlage.core.ranges import Interval

# Energies for which a line may be drawn, in the reader's unit; common practice is read off in such steps.
LINES = tuple(step * 10.0**power for power in range(-2, 4) for step in (1, 1.5, 2, 3, 5, 7))
APART_MM = 11.0  # on paper: names of lines closer than this crowd each other
TICKS = 5
FAR_MM = 24.0  # on paper: a number stands no further from its box
BAR_APART_MM, BAR_MM = 4.0, 1.8  # of the bars of a limit
LABEL_MM, PLATE_MM = 2.8, 3.8  # height of a label, and of the plate that keeps it legible over a heat colour


class PassBox(Struct, frozen=True):
    """One pass over its whole stated range: speed [mm/min], power U·I [W], and the label that stands in its box.

    A chosen one has handles at its sides, for its speed, and at its ends, for its current.
    """

    target: str
    label: str
    travel_speed_mm_min: Interval
    power_w: Interval
    chosen: bool = False

    @property
    def arc_energy_kj_mm(self) -> Interval:
        """Arc energy from the coldest to the hottest corner [kJ/mm]."""
        speed, power = self.travel_speed_mm_min, self.power_w
        return Interval(power.low * 0.06 / speed.high, power.high * 0.06 / speed.low)


class HeatLimit(Struct, frozen=True):
    """An arc energy [kJ/mm] that may not be exceeded, or undercut when it `is_least`.

    That of the chosen pass is barred on the side that is not allowed, and named; others are lines.
    """

    arc_energy_kj_mm: float
    label: str
    chosen: bool = False
    is_least: bool = False


class Axes(Struct, frozen=True):
    """The reader's units: names, and how many mm/min and kJ/mm are in one of them."""

    speed_unit: str
    mm_min_per_unit: float
    energy_unit: str
    kj_mm_per_unit: float


class Plane(Struct, frozen=True):
    """The plot on paper: the highest speed [mm/min] and power [W] at its far corner, and its size [mm]."""

    speed: float
    power: float
    width: float
    height: float

    @classmethod
    def around(cls, passes: Sequence[PassBox], size_mm: Point) -> "Plane":
        """Return a plane with room for some passes; without passes one of common settings."""
        fastest = max((each.travel_speed_mm_min.high for each in passes), default=400.0)
        strongest = max((each.power_w.high for each in passes), default=5000.0)
        return cls(fastest * 1.15, strongest * 1.2, *size_mm)

    def at(self, speed: float, power: float) -> Point:
        """Return where a speed [mm/min] and a power [W] lie on paper [mm]."""
        return (speed / self.speed * self.width, power / self.power * self.height)

    def read(self, point: Point) -> Point:
        """Return the speed [mm/min] and the power [W] at a point on paper [mm]."""
        return (point[0] / self.width * self.speed, point[1] / self.height * self.power)


def operating_window(
    passes: Sequence[PassBox], axes: Axes, plot: Plane, measure: Measure, limits: Sequence[HeatLimit] = ()
) -> DisplayList:
    """Return the operating window of some passes.

    Parameters
    ----------
    passes : the passes whose speed and power are stated, in order
    axes : the reader's units
    plot : the plane they are drawn on
    measure : measures a text, for the corners of the picture
    limits : what a pass may not exceed; that of the chosen one is barred on the side that is not allowed
    """
    rows = {id(limit): n for n, limit in enumerate(limit for limit in limits if limit.chosen)}
    barred = (item for limit in limits for item in _limit(plot, limit, rows.get(id(limit), 0), measure))
    items = (*_lines(plot, axes), *_scales(plot, axes), *_boxes(plot, passes, measure), *barred)
    return DisplayList(items, 1.0, *bounds(items, 1.0, measure))


def _boxes(plot: Plane, passes: Sequence[PassBox], measure: Measure) -> Iterator[Item]:
    """Yield all fills, then all outlines, then the labels, so that no pass hides that another lies under it."""
    corners = [_corners(plot, each) for each in passes]
    for each, points in zip(passes, corners, strict=True):
        yield Path(role="pass", points=points, closed=True, target=each.target, heat=each.arc_energy_kj_mm.high)
    for each, points in zip(passes, corners, strict=True):
        yield Path(role="chosen" if each.chosen else "outline", points=(*points, points[0]), target=each.target)
    taken: list[tuple[float, float, float]] = []  # of every plate so far: left, right, foot
    named = sorted(zip(passes, corners, strict=True), key=lambda pair: not pair[0].chosen)  # the chosen one first
    for each, points in named:
        left, y = points[3]  # the hottest corner
        x, width = left, measure(each.label, LABEL_MM) + 1.6
        while hit := next((p for p in taken if x < p[1] and p[0] < x + width and abs(y - p[2]) < PLATE_MM), None):
            x = hit[1]  # beside the plate that stands there already
        if not each.chosen and (x - left > FAR_MM or x + width > plot.width):
            continue  # among many passes a number far from its box tells nothing; a click on the box does
        taken.append((x, x + width, y))
        plate = ((x, y), (x + width, y), (x + width, y + PLATE_MM), (x, y + PLATE_MM))
        yield Path(role="plate", points=plate, closed=True, target=each.target)
        yield Text(role="value", at=(x + 0.8, y + 1.0), text=each.label, anchor="start", target=each.target)
    for each, points in zip(passes, corners, strict=True):
        if each.chosen:
            yield from _handles(each.target, points)


def _handles(target: str, corners: Sequence[Point]) -> Iterator[Item]:
    (left, low), (right, _), (_, high), _ = corners
    ends = {
        "travel_speed_mm_min/low": (left, (low + high) / 2),
        "travel_speed_mm_min/high": (right, (low + high) / 2),
        "current_a/low": ((left + right) / 2, low),
        "current_a/high": ((left + right) / 2, high),
    }
    for end, at in ends.items():
        yield Marker(role="handle", at=at, kind="handle", target=f"{target}/{end}")


def _corners(plot: Plane, each: PassBox) -> tuple[Point, ...]:
    left, low = plot.at(each.travel_speed_mm_min.low, each.power_w.low)
    right, high = plot.at(each.travel_speed_mm_min.high, each.power_w.high)
    return ((left, low), (right, low), (right, high), (left, high))


def _lines(plot: Plane, axes: Axes) -> Iterator[Item]:
    """Yield lines of equal energy, far enough apart on paper, each named where it leaves the plot."""
    last: Point | None = None
    for number in LINES:
        energy = number * axes.kj_mm_per_unit
        power = energy * plot.speed / 0.06  # at the right edge
        end = plot.at(plot.speed, power) if power <= plot.power else plot.at(0.06 * plot.power / energy, plot.power)
        angle = math.degrees(math.atan2(end[1], end[0]))
        if not 4 <= angle <= 86 or (last is not None and math.dist(end, last) < APART_MM):
            continue
        last = end
        yield Path(role="equal", points=((0.0, 0.0), end), heat=energy)
        at_right = power <= plot.power
        yield Text(role="tick", at=end, text=f"{number:g}", anchor="start" if at_right else "middle",
                   offset_mm=(1.2, -1.0) if at_right else (0.0, 1.2))  # fmt: skip
    yield Text(role="tick", at=(plot.width, plot.height), text=axes.energy_unit, anchor="end", offset_mm=(8.0, 6.5))


def _limit(plot: Plane, limit: HeatLimit, row: int, measure: Measure) -> Iterator[Item]:
    """Yield the line of a limit; that of the chosen pass barred on the side that is not allowed, named at the foot."""
    energy = limit.arc_energy_kj_mm
    power = energy * plot.speed / 0.06  # at the right edge
    end = plot.at(plot.speed, power) if power <= plot.power else plot.at(0.06 * plot.power / energy, plot.power)
    length = math.hypot(*end)
    if not length:
        return
    if not limit.chosen:
        yield Path(role="limit_other", points=((0.0, 0.0), end))
        return
    middle = (end[0] / 2, end[1] / 2)  # a line in two parts is painted alike in part and whole
    yield Path(role="limit", points=((0.0, 0.0), middle, end))
    along = (end[0] / length, end[1] / length)
    for n in range(1, int(length / BAR_APART_MM)):
        foot = (along[0] * n * BAR_APART_MM, along[1] * n * BAR_APART_MM)
        side = -1.0 if limit.is_least else 1.0
        tip = (
            foot[0] - BAR_MM * (side * along[1] + along[0] / 2), foot[1] + BAR_MM * (side * along[0] - along[1] / 2),
        )  # fmt: skip
        if min(tip) >= 0:
            yield Path(role="limit_bar", points=(foot, tip))
    width = measure(limit.label, LABEL_MM) + 1.6
    x, y = max(plot.width - width - 0.8, 0.0), 1.0 + row * (PLATE_MM + 0.6)
    yield Path(role="plate", points=((x, y), (x + width, y), (x + width, y + PLATE_MM), (x, y + PLATE_MM)), closed=True)
    yield Text(role="value", at=(x + 0.8, y + 1.0), text=limit.label, anchor="start")


def _scales(plot: Plane, axes: Axes) -> Iterator[Item]:
    corners = ((0.0, plot.height), (0.0, 0.0), (plot.width, 0.0))
    yield Path(role="axis", points=corners)
    for speed in _steps(plot.speed / axes.mm_min_per_unit):
        x, _ = plot.at(speed * axes.mm_min_per_unit, 0.0)
        yield Path(role="axis", points=((x, 0.0), (x, -1.2)))
        yield Text(role="tick", at=(x, 0.0), text=f"{speed:g}", offset_mm=(0.0, -4.4))
    for kilowatt in _steps(plot.power / 1000):
        _, y = plot.at(0.0, kilowatt * 1000)
        yield Path(role="axis", points=((0.0, y), (-1.2, y)))
        yield Text(role="tick", at=(0.0, y), text=f"{kilowatt:g}", anchor="end", offset_mm=(-2.0, -1.0))
    name = f"travel speed, {axes.speed_unit}"
    yield Text(role="tick", at=(plot.width / 2, 0.0), text=name, offset_mm=(0.0, -8.6))
    yield Text(role="tick", at=(0.0, plot.height), text="power, kW", anchor="start", offset_mm=(-7.0, 6.5))


def _steps(most: float) -> list[float]:
    """Return about five round numbers up to `most`, without 0."""
    raw = most / TICKS
    power = 10.0 ** math.floor(math.log10(raw))
    step = next(factor * power for factor in (1, 2, 2.5, 5, 10) if factor * power >= raw * 0.999)
    return [step * n for n in range(1, int(most / step + 1e-9) + 1)]
