"""The dials of a machine: the current that a meter read at each place of the dial, a curve a tap, its readings handles.

Where a current is wanted a band lies across at its height, the part of each proven curve inside it is drawn strong, and
stands over the dial that gives it.
"""

from collections.abc import Iterator, Sequence

from msgspec import Struct

from anlage.core.drawing.curves import LABEL_MM, Frame, apart, grid, read_at
from anlage.core.drawing.display import DisplayList, Item, Marker, Measure, Path, Point, Text, bounds
from anlage.core.ranges import Interval

SPARE = 0.16  # room over and under the readings
ROW_MM = 4.4  # between the dials that are written over the axis, a row a tap
LEAST_DIAL, LEAST_A = 10.0, 100.0  # of an empty plot


class DialPoint(Struct, frozen=True):
    """One reading: the leaf that its handle drags, the dial, and the current [A]."""

    target: str
    dial: float
    current_a: float


class DialCurve(Struct, frozen=True):
    """One tap: its name, its readings by the dial, whether they prove a current, and the dial that gives the wanted."""

    name: str
    points: tuple[DialPoint, ...]
    proven: bool
    dial: Interval | None = None


class DialPlane(Struct, frozen=True):
    """The plot on paper: its dial from 0 to a far end, its current from least to most [A], and its size [mm]."""

    dial: float
    current_a: Interval
    size_mm: Point

    @classmethod
    def around(cls, lines: Sequence[DialCurve], wanted_a: Interval | None, size_mm: Point) -> "DialPlane":
        """Return a plane with room for every reading and for the current that is wanted."""
        dials = [each.dial for line in lines for each in line.points]
        amps = [each.current_a for line in lines for each in line.points]
        amps += [wanted_a.low, wanted_a.high] if wanted_a is not None else []
        least, most = min(amps, default=0.0), max(amps, default=LEAST_A)
        spare = (most - least or most) * SPARE
        span = Interval(max(least - spare, 0.0), most + spare)
        return cls(max(dials, default=LEAST_DIAL) * (1 + SPARE) or 1.0, span, size_mm)

    def at(self, dial: float, current_a: float) -> Point:
        """Return where a dial and a current [A] lie on paper [mm]."""
        low, high = self.current_a.low, self.current_a.high
        return (dial / self.dial * self.size_mm[0], (current_a - low) / (high - low) * self.size_mm[1])

    def read(self, point: Point) -> Point:
        """Return the dial and the current [A] at a point on paper [mm]."""
        low, high = self.current_a.low, self.current_a.high
        return (point[0] / self.size_mm[0] * self.dial, low + point[1] / self.size_mm[1] * (high - low))


def dial_curves(
    lines: Sequence[DialCurve], wanted_a: Interval | None, plane: DialPlane, measure: Measure
) -> DisplayList:
    """Return the curves of some taps.

    Parameters
    ----------
    lines : the taps that were read, in order
    wanted_a : the current that is wanted, `None` for none [A]
    plane : the plot that they are drawn on
    measure : measures a text, for the corners of the picture
    """
    items = (
        *_wanted(wanted_a, plane),
        *grid(Frame("dial", "current, A", 0.0, plane.size_mm), (0.0, plane.dial),
              (plane.current_a.low, plane.current_a.high)),
        *(item for row, line in enumerate(lines) for item in _line(line, row, plane)),
        *_names(lines, plane),
        *(Marker(role="handle", at=plane.at(each.dial, each.current_a), kind="handle", target=each.target)
          for line in lines for each in line.points),
    )  # fmt: skip
    return DisplayList(items, 1.0, *bounds(items, 1.0, measure))


def _wanted(wanted_a: Interval | None, plane: DialPlane) -> Iterator[Item]:
    if wanted_a is None:
        return
    low, high = (plane.at(0.0, end)[1] for end in (wanted_a.low, wanted_a.high))
    width = plane.size_mm[0]
    if low == high:
        yield Path(role="possible", points=((0.0, low), (width, low)))
    else:
        yield Path(role="pqr_area", points=((0.0, low), (width, low), (width, high), (0.0, high)), closed=True)


def _line(line: DialCurve, row: int, plane: DialPlane) -> Iterator[Item]:
    points = [(each.dial, each.current_a) for each in line.points]
    role = "curve" if line.proven else "sketched"
    yield Path(role=role, points=tuple(plane.at(*each) for each in points))
    if line.dial is None:
        return
    inside = [each for each in points if line.dial.low < each[0] < line.dial.high]
    ends = [(end, read_at(points, end)) for end in (line.dial.low, line.dial.high)]
    strong = [ends[0], *inside, ends[1]]
    yield Path(role="curve_own", points=tuple(plane.at(*each) for each in strong))
    for dial, amps in dict.fromkeys(ends):
        yield Path(role="extension", points=((plane.at(dial, amps)[0], 0.0), plane.at(dial, amps)))
    middle = sum(plane.at(dial, amps)[0] for dial, amps in ends) / 2
    text = "..".join(dict.fromkeys(f"{end:g}" for end in (line.dial.low, line.dial.high)))
    yield Text(role="value", at=(middle, 1.4 + ROW_MM * row), text=text, height_mm=LABEL_MM)


def _names(lines: Sequence[DialCurve], plane: DialPlane) -> Iterator[Item]:
    """Yield the names of the taps at their right ends, kept apart."""
    ends = sorted((plane.at(0.0, line.points[-1].current_a)[1], n) for n, line in enumerate(lines))
    for (y, n), place in zip(ends, apart([y for y, _ in ends]), strict=True):
        line, x = lines[n], plane.size_mm[0]
        last = plane.at(line.points[-1].dial, line.points[-1].current_a)
        yield Path(role="extension", points=(last, (x, y), (x + 2.5, place)))
        yield Text(role="value" if line.proven else "tick", at=(x + 3.2, place), text=line.name, height_mm=LABEL_MM,
                   anchor="start", offset_mm=(0.0, -0.9))  # fmt: skip
