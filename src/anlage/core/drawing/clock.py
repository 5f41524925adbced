"""Starts and stops of every pass: rings round the clock of a pipe, or rows along a plate with run-on and run-off."""

import math
from collections.abc import Callable, Iterator, Sequence

from msgspec import Struct

from anlage.core.drawing.display import DisplayList, Item, Marker, Measure, Path, Point, Text, bounds

TEXT_MM, SMALL_MM = 2.8, 2.2
INNER, OUTER = 0.36, 0.93  # of the radius: where the first pass lies, and the last
SHARE = 0.66  # of a ring's room that the ring takes; the rest is air
STEP_DEG = 3.0
LEAST_NUMBER_MM = 0.9
LEAST_ARROW_MM = 1.2  # a thinner ring has no room for its arrow
TACK_MM, FEATHER, TACK_STEPS = 3.2, 0.35, 6  # height on paper, share of the length that a dressed end takes
TAB = 0.06  # of a plate's drawn length: run-on and run-off


class Ring(Struct, frozen=True):
    """One pass: the leaf it is stated at, its number, every run from start to end [° or share], its hottest energy."""

    target: str
    label: str
    runs: tuple[tuple[float, float], ...]
    heat: float | None = None
    chosen: bool = False


RingRow = Ring | tuple[Ring, ...]
"""What lies on one radius or in one row: a pass, or parts of it beside each other, each with its own label."""


class TackMark(Struct, frozen=True):
    """One tack: the leaf it is stated at, its middle and half its length [° or share], its ends, whether it bridges."""

    target: str
    at: float
    half: float
    feathered: tuple[bool, bool] = (False, False)
    bridge: bool = False

    @property
    def ends(self) -> tuple[float, float]:
        """Where it starts and ends."""
        return self.at - self.half, self.at + self.half


class Seam(Struct, frozen=True):
    """A plate seam or welds laid end to end: the length as text, and whether it has run-on and run-off."""

    length: str
    has_tabs: bool = True


class Around(Struct, frozen=True):
    """What lies round the pipe beside the passes: barred arcs and tacks [°, 12 o'clock is 0, to the right]."""

    barred: tuple[tuple[float, float], ...] = ()
    tacks: tuple[TackMark, ...] = ()


def clock(rows: Sequence[RingRow], around: Around, radius_mm: float, measure: Measure) -> DisplayList:
    """Return the clock of a pipe, the first pass innermost; a gap in a ring is a stop, the arrow the way it goes.

    Parameters
    ----------
    rows : every pass in its order, runs in degrees; a tuple lies on one radius, each labelled where it is
    around : barred arcs and tacks
    radius_mm : of the numbers of the clock, on paper [mm]
    measure : measures a text, for the corners of the picture
    """
    items: list[Item] = []
    for start, end in around.barred:
        near, far = (_arc(share * radius_mm, start, end) for share in (0.8 * INNER, 1.06 * OUTER))
        wedge = (*near, *reversed(far))
        items.append(Path(role="clock_barred", points=wedge, closed=True))
    items += _face(radius_mm)
    room = (OUTER - INNER) * radius_mm / max(len(rows), 1)
    for n, row in enumerate(rows):
        low = INNER * radius_mm + n * room
        for ring in _rings(row):
            items += _ring(ring, low, low + SHARE * room)
    for tack in around.tacks:
        inner = INNER * 0.82 * radius_mm
        items.append(_tack(tack, lambda at, up, inner=inner: _at(inner + TACK_MM * (up - 0.5), at)))  # type: ignore[misc]
    for n, row in enumerate(rows):
        radius = INNER * radius_mm + (n + 0.5 * SHARE) * room
        for ring in _rings(row):
            height = min(SMALL_MM, 0.62 * room)
            turn = math.degrees(4.0 / radius) if isinstance(row, Ring) else _middle(ring)
            if isinstance(row, tuple) and measure(ring.label, height) > radius * math.radians(_widest(ring)):
                continue
            items += _number(ring, _at(radius, turn), height, measure)
    return DisplayList(tuple(items), 1.0, *bounds(items, 1.0, measure))


def _rings(row: RingRow) -> tuple[Ring, ...]:
    return (row,) if isinstance(row, Ring) else row


def _middle(ring: Ring) -> float:
    return sum(ring.runs[0]) / 2 if ring.runs else 0.0


def _widest(ring: Ring) -> float:
    return max((abs(end - start) for start, end in ring.runs), default=0.0)


def _tack(tack: TackMark, at: Callable[[float, float], Point]) -> Path:
    """Return a tack: a feathered end runs out to nothing, a whole one is cut square; a bridge is hollow.

    `at` places a share of its height, 0 its foot, at a place of the way.
    """
    (start, end), run = tack.ends, FEATHER * 2 * tack.half
    foot = [start + (end - start) * n / TACK_STEPS for n in range(TACK_STEPS + 1)]
    top = [min(max(place, start + run * tack.feathered[0]), end - run * tack.feathered[1]) for place in foot]
    points = (*(at(place, 0.0) for place in foot), *(at(place, 1.0) for place in reversed(top)))
    role = "clock_bridge" if tack.bridge else "clock_tack"
    return Path(role=role, points=tuple(dict.fromkeys(points)), closed=True, target=tack.target)


def _number(ring: Ring, at: Point, height: float, measure: Measure) -> Iterator[Item]:
    """Yield the label of a ring on a plate; a thin ring has no room for it."""
    if height < LEAST_NUMBER_MM:
        return
    x, y = at
    half = measure(ring.label, height) / 2 + 0.5
    plate = (
        (x - half, y - 0.7 * height),
        (x + half, y - 0.7 * height),
        (x + half, y + 0.7 * height),
        (x - half, y + 0.7 * height),
    )
    yield Path(role="plate", points=plate, closed=True, target=ring.target)
    yield Text(
        role="value", at=(x, y), text=ring.label, height_mm=height, offset_mm=(0.0, -0.36 * height), target=ring.target
    )


def _at(radius: float, degrees: float) -> Point:
    """Return a point of the clock: 12 o'clock up, degrees to the right."""
    turn = math.radians(degrees)
    return (radius * math.sin(turn), radius * math.cos(turn))


def _arc(radius: float, start: float, end: float) -> tuple[Point, ...]:
    steps = max(2, math.ceil(abs(end - start) / STEP_DEG))
    return tuple(_at(radius, start + (end - start) * n / steps) for n in range(steps + 1))


def _face(radius: float) -> Iterator[Item]:
    for hour in range(12):
        long = 0.03 if hour % 3 else 0.06
        yield Path(role="axis", points=(_at(radius * (1 - long), 30.0 * hour), _at(radius, 30.0 * hour)))
    for hour in (12, 3, 6, 9):
        at = _at(radius + 4.0, 30.0 * hour)
        yield Text(role="tick", at=at, text=str(hour), height_mm=TEXT_MM, offset_mm=(0.0, -1.0))
    yield Path(role="grid", points=_arc(INNER * 0.82 * radius, 0, 360))


def _ring(ring: Ring, low: float, high: float) -> Iterator[Item]:
    middle = (low + high) / 2
    for start, end in ring.runs:
        gap = math.copysign(min(math.degrees(0.5 / middle), abs(end - start) / 4), end - start)
        a, b = start + gap, end - gap
        shape = (*_arc(low, a, b), *reversed(_arc(high, a, b)))
        yield Path(role="clock_run", points=shape, closed=True, target=ring.target, heat=ring.heat)
        yield Path(role="chosen" if ring.chosen else "outline", points=(*shape, shape[0]), target=ring.target)
        if high - low < LEAST_ARROW_MM:
            continue
        tip = _at(middle, b)
        before = _at(middle, b - math.copysign(2.0, end - start))
        turn = math.degrees(math.atan2(tip[1] - before[1], tip[0] - before[0]))
        yield Marker(role="clock_stop", at=tip, kind="arrow", direction_deg=turn, size_mm=min(2.4, 0.9 * (high - low)))


def strip(
    rows: Sequence[RingRow], tacks: Sequence[TackMark], seam: Seam, size_mm: Point, measure: Measure
) -> DisplayList:  # fmt: skip
    """Return the rows of a plate seam, the first pass at the foot, run-on at the left and run-off at the right.

    Parameters
    ----------
    rows : every pass in its order, runs as shares of the length; a tuple lies in one row, each labelled where it is
    tacks : in a row under the first pass, as shares of the length
    seam : its length as text, and whether it has run-on and run-off
    size_mm : room on paper [mm]
    measure : measures a text, for the corners of the picture
    """
    width, height = size_mm
    tab = TAB * width if seam.has_tabs else 0.0
    row = min(height / max(len(rows), 1), 9.0)
    top = row * len(rows)
    items: list[Item] = [
        Path(role="metal", points=((-tab, 0.0), (0.0, 0.0), (0.0, top), (-tab, top)), closed=True),
        Path(role="metal", points=((width, 0.0), (width + tab, 0.0), (width + tab, top), (width, top)), closed=True),
    ]
    for n, own in enumerate(rows):
        low, high = n * row + 0.17 * row, (n + 1) * row - 0.17 * row
        for ring, (start, end) in ((each, run) for each in _rings(own) for run in each.runs):
            a, b = start * width, end * width
            a, b = (a - tab if start == 0 else a + 0.5), (b + tab if end == 1 else b - 0.5)
            shape = ((a, low), (b, low), (b, high), (a, high))
            items.append(Path(role="clock_run", points=shape, closed=True, target=ring.target, heat=ring.heat))
            role = "chosen" if ring.chosen else "outline"
            items.append(Path(role=role, points=(*shape, shape[0]), target=ring.target))
            at = (b, (low + high) / 2)
            items.append(Marker(role="clock_stop", at=at, kind="arrow", direction_deg=0.0, size_mm=min(2.4, 0.4 * row)))
        if isinstance(own, tuple):
            for ring in own:
                at = (_middle(ring) * width, (low + high) / 2)
                items += _number(ring, at, min(SMALL_MM, 0.5 * row), measure)
            continue
        items.append(
            Text(role="tick", at=(-tab - 2.0, (low + high) / 2), text=own.label, height_mm=SMALL_MM, anchor="end",
                 offset_mm=(0.0, -0.8), target=own.target)
        )  # fmt: skip
    items.append(Path(role="edge", points=((0.0, 0.0), (0.0, top))))
    items.append(Path(role="edge", points=((width, 0.0), (width, top))))
    under = -(TACK_MM + 1.2) if tacks else 0.0
    items += [_tack(tack, lambda at, up: (at * width, under + TACK_MM * up)) for tack in tacks]
    tabs = ((-tab / 2, "run-on"), (width + tab / 2, "run-off")) if seam.has_tabs else ()
    for x, text in (*tabs, (width / 2, seam.length)):
        items.append(Text(role="tick", at=(x, under), text=text, height_mm=SMALL_MM, offset_mm=(0.0, -4.4)))
    return DisplayList(tuple(items), 1.0, *bounds(items, 1.0, measure))
