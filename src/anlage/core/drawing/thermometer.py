"""One axis of temperature: what each school and code asks as a row, and what is chosen as lines that are dragged."""

import math
from collections.abc import Iterator, Sequence

from msgspec import Struct

from anlage.core.drawing.curves import ticks
from anlage.core.drawing.display import DisplayList, Item, Marker, Measure, Path, Point, Text, bounds

LEAST_ROW_MM, MOST_ROW_MM, NAME_GAP_MM, LABEL_MM, NOTE_MM = 7.4, 13.0, 3.0, 2.8, 2.4
DOT_MM, BAR_MM, HEAD_MM, FOOT_MM = 1.5, 1.1, 12.0, 3.0
DOT_CORNERS = 20
NOTE_GAP_MM = 2.6
RAISED_MM = 4.2
ROOM_AFTER = 1.08  # of the hottest figure: its number stands after it
MOST_BEYOND = 1.5  # of what counts: a figure far out of a school's field does not stretch the axis


class AskRow(Struct, frozen=True):
    """What one asks, in the reader's unit: a dot, or a bar from the least; `high` is `None` where it says nothing.

    `counts` is false for what was asked outside its range; `is_floor` for a code, whose figure is a least.
    """

    name: str
    low: float | None
    high: float | None
    counts: bool
    is_floor: bool
    governs: bool
    note: str


class Chosen(Struct, frozen=True):
    """A temperature that the procedure states: its word, the leaf it drags, `None` where it is not stated."""

    word: str
    target: str
    value: float | None


class Axis(Struct, frozen=True):
    """The axis: its unit, its ends, its length on paper, the room for names to its left, the height of a row [mm]."""

    unit: str
    least: float
    most: float
    length_mm: float
    names_mm: float
    row_mm: float = LEAST_ROW_MM

    @classmethod
    def around(
        cls, rows: Sequence[AskRow], chosen: Sequence[Chosen], room_mm: Point, unit: str, measure: Measure
    ) -> "Axis":
        """Return an axis from the coldest to the hottest figure, with room for names and notes on a sheet."""
        values = [v for row in rows for v in (row.low, row.high) if v is not None]
        counted = [v for row in rows if row.counts for v in (row.low, row.high) if v is not None]
        lines = [each.value for each in chosen if each.value is not None]
        zero, usual = (0.0, 250.0) if unit == "°C" else (32.0, 480.0)
        last = MOST_BEYOND * max([usual, *counted, *lines])
        least, most = min([zero, *values, *lines]), max(usual, *lines, *(min(v, last) for v in values)) * ROOM_AFTER
        names = max((measure(row.name, LABEL_MM) for row in rows), default=20.0) + NAME_GAP_MM
        row = (room_mm[1] - FOOT_MM - HEAD_MM) / max(len(rows), 1)
        length = max(room_mm[0] - names - 6.0, 40.0)
        return cls(unit, least, most, length, names, min(max(row, LEAST_ROW_MM), MOST_ROW_MM))

    def at(self, value: float) -> float:
        """Return where a temperature lies on paper [mm]."""
        return self.names_mm + (value - self.least) / (self.most - self.least) * self.length_mm

    def read(self, x: float) -> float:
        """Return the temperature at a place on paper [mm]."""
        return self.least + (x - self.names_mm) / self.length_mm * (self.most - self.least)


def thermometer(rows: Sequence[AskRow], chosen: Sequence[Chosen], axis: Axis, measure: Measure) -> DisplayList:
    """Return the rows over one axis, from the top down, with a handle at the top of every chosen line.

    Parameters
    ----------
    rows : what is asked, in the order they are shown
    chosen : temperatures of the procedure
    axis : from `Axis.around`
    measure : measures a text
    """
    height = len(rows) * axis.row_mm + FOOT_MM
    items = [*_scale(axis, height)]
    lines: list[Item] = []
    ends: list[float] = []  # right ends of the words over the lines, so that no two stand on each other
    for each in sorted((e for e in chosen if e.value is not None), key=lambda e: e.value or 0.0):
        half = measure(_said(each, axis), LABEL_MM) / 2
        crowded = bool(ends) and axis.at(each.value or 0.0) - half < ends[-1] + NOTE_GAP_MM
        ends.append(axis.at(each.value or 0.0) + half)
        lines += _line(each, axis, height, raised=crowded)
    items += [item for item in lines if isinstance(item, Path)]
    for n, row in enumerate(rows):
        items += _row(row, axis, height - (n + 0.75) * axis.row_mm, measure)
    items += [item for item in lines if not isinstance(item, Path)]
    return DisplayList(tuple(items), 1.0, *bounds(items, 1.0, measure))


def _scale(axis: Axis, height: float) -> Iterator[Item]:
    for value in ticks(axis.least, axis.most):
        x = axis.at(value)
        yield Path(role="grid", points=((x, 0.0), (x, height)))
        yield Text(role="tick", at=(x, 0.0), text=f"{value:g}", height_mm=LABEL_MM, offset_mm=(0.0, -4.2))
    end = axis.at(axis.most)
    yield Path(role="axis", points=((axis.names_mm, 0.0), (end, 0.0)))
    yield Text(role="tick", at=(end, 0.0), text=axis.unit, height_mm=LABEL_MM, anchor="start", offset_mm=(1.2, -0.9))


def _row(row: AskRow, axis: Axis, y: float, measure: Measure) -> Iterator[Item]:
    role = "value" if row.governs else "tick"
    yield Text(
        role=role,
        at=(axis.names_mm - NAME_GAP_MM, y),
        text=row.name,
        height_mm=LABEL_MM,
        anchor="end",
        offset_mm=(0, -0.9),
    )
    end = axis.names_mm
    if row.high is not None:
        low = row.high if row.low is None else row.low
        end_of_axis = axis.most / ROOM_AFTER
        x, start = axis.at(min(row.high, end_of_axis)), axis.at(min(low, end_of_axis))
        if row.is_floor:
            foot = axis.at(axis.least)
            yield Path(role="allowed", points=((foot, y), (start, y)))
            yield Path(role="allowed", points=((start, y - BAR_MM), (start, y + BAR_MM)))
            if row.high > low:
                yield Path(role="possible", points=((start, y), (x, y), (x, y + BAR_MM), (x, y - BAR_MM)))
        else:
            yield Path(role="school" if row.counts else "school_out", points=_dot((x, y)), closed=True)
        said = f"{row.high:.0f}" if row.high == low else f"{low:.0f} or {row.high:.0f}"
        if row.high > end_of_axis + 0.5:
            said = f"\u2192 {said}"
        yield _ground((x + NOTE_GAP_MM / 2, y), NOTE_GAP_MM / 2 + measure(said, LABEL_MM))
        yield Text(role=role, at=(x, y), text=said, height_mm=LABEL_MM, anchor="start", offset_mm=(NOTE_GAP_MM, -0.9))
        end = x + NOTE_GAP_MM + measure(said, LABEL_MM)
    note = _fitting(row.note, axis.at(axis.most) - end - NOTE_GAP_MM, measure)
    if note:
        yield _ground((end + NOTE_GAP_MM / 2, y), NOTE_GAP_MM + measure(note, NOTE_MM))
        yield Text(
            role="tick", at=(end, y), text=note, height_mm=NOTE_MM, anchor="start", offset_mm=(NOTE_GAP_MM, -0.8)
        )


def _ground(at: Point, length_mm: float) -> Path:
    """Return what keeps a text legible where lines run under it."""
    (x, y), half = at, LABEL_MM * 0.6
    corners = ((x, y - half), (x + length_mm, y - half), (x + length_mm, y + half), (x, y + half))
    return Path(role="layer", points=corners, closed=True)


def _fitting(note: str, room_mm: float, measure: Measure) -> str:
    """Return as much of a note as there is room for, in whole words."""
    if measure(note, NOTE_MM) <= room_mm:
        return note
    words = note.split(" ")
    while words and measure(" ".join(words) + " …", NOTE_MM) > room_mm:
        words.pop()
    return f"{' '.join(words)} …" if len(words) > 1 else ""


def _said(each: Chosen, axis: Axis) -> str:
    return f"{each.word} {each.value:.0f} {axis.unit}"


def _line(each: Chosen, axis: Axis, height: float, *, raised: bool) -> Iterator[Item]:
    assert each.value is not None
    x = axis.at(each.value)
    yield Path(role="chosen_at", points=((x, 0.0), (x, height)), target=each.target)
    yield Marker(role="handle", at=(x, height), kind="handle", target=each.target)
    said, up = _said(each, axis), 2.2 + (RAISED_MM if raised else 0.0)
    yield Text(role="value", at=(x, height), text=said, height_mm=LABEL_MM, offset_mm=(0.0, up), target=each.target)


def _dot(at: Point) -> tuple[Point, ...]:
    turns = (2 * math.pi * n / DOT_CORNERS for n in range(DOT_CORNERS))
    return tuple((at[0] + DOT_MM * math.cos(turn), at[1] + DOT_MM * math.sin(turn)) for turn in turns)
