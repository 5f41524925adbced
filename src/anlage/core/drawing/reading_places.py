"""Where a joint's temperature is read: the least far from the groove, the most close beside it, on the section."""

from collections.abc import Iterator, Sequence

from msgspec import Struct

from anlage.core.drawing.display import DisplayList, Item, Marker, Measure, Path, Point, Text, bounds

LABEL_MM, NOTE_MM = 2.8, 2.4
ARROW_MM, ROW_MM, TICK_MM = 5.0, 4.4, 1.2


class Place(Struct, frozen=True):
    """The place of the least: on the face that is read, at it an arrow, its words; `up` is 1 on top and -1 below.

    `arrow_mm` is the length of the arrow on paper: a longer one lifts its words over others.
    """

    at: Point
    up: int
    words: tuple[str, ...]
    arrow_mm: float = ARROW_MM


class Reach(Struct, frozen=True):
    """Where the most is looked for: from the groove edge outward, with its words."""

    start: Point
    end: Point
    words: tuple[str, ...]


class Far(Struct, frozen=True):
    """How far the place is from the groove edge, as a dimension."""

    start: Point
    end: Point
    words: str


def reading_places(
    metal: Sequence[Sequence[Point]], least: Place | None, most: Reach | None, far: Far, sheet: tuple[float, Measure]
) -> DisplayList:
    """Return the section with the places at which it is read.

    Parameters
    ----------
    metal : outlines of the members [mm]
    least : where the least is read; `None` where none is stated
    most : where the most is looked for; `None` where none is stated
    far : the distance between groove edge and place
    sheet : paper millimetres per millimetre of work, and what measures a text
    """
    scale, measure = sheet
    items: list[Item] = [Path(role="metal", points=tuple(each), closed=True) for each in metal]
    items += [Path(role="edge", points=(*each, each[0])) for each in metal]
    if most is not None:
        items += _reach(most, sheet)
    if least is not None:
        items += _place(least, sheet)
    items += _far(far, metal, scale)
    return DisplayList(tuple(items), scale, *bounds(items, scale, measure))


def _place(place: Place, sheet: tuple[float, Measure]) -> Iterator[Item]:
    (x, y), up, scale = place.at, place.up, sheet[0]
    tail = (x, y + up * place.arrow_mm / scale)
    yield Path(role="edge", points=(tail, place.at))
    yield Marker(role="print", at=place.at, kind="arrow", direction_deg=-90.0 * up)
    yield from _words(place.words, tail, up, sheet)


def _reach(reach: Reach, sheet: tuple[float, Measure]) -> Iterator[Item]:
    (x0, y0), (x1, y1), scale = reach.start, reach.end, sheet[0]
    lift = ARROW_MM / scale
    yield Path(role="edge", points=((x0, y0), (x0, y0 + lift), (x1, y1 + lift), (x1, y1)))
    yield from _words(reach.words, ((x0 + x1) / 2, y0 + lift), 1, sheet)


def _words(words: tuple[str, ...], at: Point, up: int, sheet: tuple[float, Measure]) -> Iterator[Item]:
    scale, measure = sheet
    rows = tuple(reversed(words)) if up > 0 else words
    for n, text in enumerate(rows):
        offset = 1.0 + n * ROW_MM if up > 0 else -3.4 - n * ROW_MM
        strong = text == words[0]
        role, height = ("value", LABEL_MM) if strong else ("tick", NOTE_MM)
        half, foot, top = measure(text, height) / 2 / scale, (offset - 0.6) / scale, (offset + height) / scale
        corners = tuple((at[0] + x, at[1] + y) for x, y in ((-half, foot), (half, foot), (half, top), (-half, top)))
        yield Path(role="groove", points=corners, closed=True)  # legible where metal lies under it
        yield Text(role=role, at=at, text=text, height_mm=height, offset_mm=(0.0, offset))


def _far(far: Far, metal: Sequence[Sequence[Point]], scale: float) -> Iterator[Item]:
    foot = min(y for each in metal for _, y in each) - 3.0 / scale
    (x0, y0), (x1, y1) = far.start, far.end
    yield Path(role="extension", points=((x0, y0), (x0, foot)))
    yield Path(role="extension", points=((x1, y1), (x1, foot)))
    yield Path(role="dimension", points=((x0, foot), (x1, foot)))
    for x in (x0, x1):
        yield Path(role="dimension", points=((x, foot - TICK_MM / scale), (x, foot + TICK_MM / scale)))
    at = ((x0 + x1) / 2, foot)
    yield Text(role="tick", at=at, text=far.words, height_mm=NOTE_MM, offset_mm=(0.0, -3.2))
