"""Yield and tensile strength of base metals and filler as bars over one axis."""

from collections.abc import Callable, Iterator, Sequence

from msgspec import Struct

from anlage.core.drawing.curves import ticks
from anlage.core.drawing.display import DisplayList, Item, Measure, Path, Point, Text, bounds

LABEL_MM, NAME_GAP_MM, BAR_MM, UNIT_MM = 2.8, 3.0, 3.2, 10.0
MOST_ROW_MM = 22.0


class StrengthBar(Struct, frozen=True):
    """One metal: its name, yield and tensile strength in the reader's unit, as texts too."""

    name: str
    low: float | None
    high: float | None
    text: str


def strength_bars(
    rows: Sequence[StrengthBar], weakest: float | None, unit: str, room_mm: Point, measure: Measure
) -> DisplayList:
    """Return a bar from yield to tensile strength for every metal, and a line at what is asked of the filler.

    Parameters
    ----------
    rows : base metals first, the filler last
    weakest : tensile strength of the weaker base metal, `None` where it is not known
    unit : of the reader
    room_mm : width and height on paper
    measure : measures a text
    """
    names = max((measure(row.name, LABEL_MM) for row in rows), default=20.0) + NAME_GAP_MM
    most = max([100.0, *(row.high or 0.0 for row in rows)]) * 1.1
    texts = max((measure(row.text, LABEL_MM) for row in rows), default=0.0) + UNIT_MM
    length = max(room_mm[0] - names - texts, 40.0)
    step = min(max((room_mm[1] - 16.0) / max(len(rows), 1), 8.0), MOST_ROW_MM)
    height = step * len(rows) + 3.0

    def at(value: float) -> float:
        return names + value / most * length

    items: list[Item] = [*_axis(at, most, height, unit)]
    if weakest is not None:
        items.append(Path(role="possible", points=((at(weakest), 0.0), (at(weakest), height))))
    for n, row in enumerate(rows):
        y = height - (n + 0.6) * step
        items.append(
            Text(
                role="value",
                at=(names - NAME_GAP_MM, y),
                text=row.name,
                height_mm=LABEL_MM,
                anchor="end",
                offset_mm=(0, -0.9),
            )
        )
        end = names
        if row.high is not None:
            low = row.high if row.low is None else row.low
            left, end = at(low), at(row.high)
            corners = ((left, y - BAR_MM / 2), (end, y - BAR_MM / 2), (end, y + BAR_MM / 2), (left, y + BAR_MM / 2))
            items.append(Path(role="stated", points=corners, closed=True))
        items.append(
            Text(role="tick", at=(end, y), text=row.text, height_mm=LABEL_MM, anchor="start", offset_mm=(2.0, -0.9))
        )
    return DisplayList(tuple(items), 1.0, *bounds(items, 1.0, measure))


def _axis(at: Callable[[float], float], most: float, height: float, unit: str) -> Iterator[Item]:
    for value in ticks(0.0, most):
        x = at(value)
        yield Path(role="grid", points=((x, 0.0), (x, height)))
        yield Text(role="tick", at=(x, 0.0), text=f"{value:g}", height_mm=LABEL_MM, offset_mm=(0.0, -4.2))
    start, end = at(0.0), at(most)
    yield Path(role="axis", points=((start, 0.0), (end, 0.0)))
    yield Text(role="tick", at=(end, 0.0), text=unit, height_mm=LABEL_MM, anchor="start", offset_mm=(1.2, -0.9))
