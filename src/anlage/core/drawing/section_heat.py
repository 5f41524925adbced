"""The section of a weld coloured by its temperature at one moment, with lines of equal temperature and what is read."""

from collections.abc import Iterator

from msgspec import Struct

from anlage.core.drawing.display import DisplayList, Item, Marker, Measure, Path, Point, Text, bounds

LABEL_MM, GAP_MM = 2.6, 1.6
CROSS_MM, TITLE_MM = 1.6, 10.0
OVERLAP = 0.25  # of a strip's height


class Strip(Struct, frozen=True):
    """A rectangle of one temperature: left, right, bottom, top [mm], and the number behind its colour [°C]."""

    left: float
    right: float
    bottom: float
    top: float
    celsius: float


class Isotherm(Struct, frozen=True):
    """A line of one temperature in pieces [mm], and its name at the end."""

    name: str
    pieces: tuple[tuple[Point, Point], ...]


class Read(Struct, frozen=True):
    """A place that is read [mm]: its words; a handle where `target` says what it is dragged as."""

    at: Point
    words: str
    target: str = ""


class Moment(Struct, frozen=True):
    """A section at one moment: metal by its temperature, outlines of groove and beads, lines, places, and its words."""

    strips: tuple[Strip, ...]
    outlines: tuple[tuple[Point, ...], ...]
    isotherms: tuple[Isotherm, ...]
    read: tuple[Read, ...]
    title: str


def section_heat(moment: Moment, scale: float, measure: Measure) -> DisplayList:
    """Return the section at one moment.

    Parameters
    ----------
    moment : what is drawn; at least one strip
    scale : paper millimetres per millimetre of work
    measure : measures a text
    """
    items: list[Item] = [_strip(each) for each in moment.strips]
    items += [Path(role="face", points=each) for each in moment.outlines]
    for line in moment.isotherms:
        items += _isotherm(line)
    for each in moment.read:
        items += _read(each, scale, measure)
    at = (min(each.left for each in moment.strips), max(each.top for each in moment.strips))
    title = Text(role="value", at=at, text=moment.title, height_mm=LABEL_MM, anchor="start", offset_mm=(0.0, TITLE_MM))
    items.append(title)
    return DisplayList(tuple(items), scale, *bounds(items, scale, measure))


def _strip(each: Strip) -> Path:
    """Return a strip, a little larger to the right and up, where the next one covers it: no gap shows between them."""
    right, top = (high + OVERLAP * (each.top - each.bottom) for high in (each.right, each.top))
    corners = ((each.left, each.bottom), (right, each.bottom), (right, top), (each.left, top))
    return Path(role="layer", points=corners, closed=True, heat=each.celsius)


def _isotherm(line: Isotherm) -> Iterator[Item]:
    for piece in line.pieces:
        yield Path(role="halo", points=piece)
    for piece in line.pieces:
        yield Path(role="limit", points=piece)
    if line.pieces:
        at = min((point for piece in line.pieces for point in piece), key=lambda point: (round(point[1], 1), -point[0]))
        yield Text(role="tick", at=at, text=line.name, height_mm=LABEL_MM, offset_mm=(0.0, -GAP_MM - 2.4))


def _read(each: Read, scale: float, measure: Measure) -> Iterator[Item]:
    (x, y), arm = each.at, CROSS_MM / scale
    if each.target:
        yield Marker(role="handle", at=each.at, kind="handle", target=each.target)
    else:
        yield Path(role="edge", points=((x, y), (x, y + 2 * arm)))
        yield Path(role="edge", points=((x - arm / 2, y + arm), (x, y), (x + arm / 2, y + arm)))
    width = measure(each.words, LABEL_MM)
    low = (x - (width / 2 + GAP_MM) / scale, y)
    offset = (0.0, -GAP_MM - 2.6) if each.target else (0.0, 2 * CROSS_MM + 0.8)
    if each.target:
        up = -(GAP_MM + 3.2) / scale
        high = (x + (width / 2 + GAP_MM) / scale, y)
        corners = ((low[0], y + up), (high[0], y + up), (high[0], y + up + 4.0 / scale), (low[0], y + up + 4.0 / scale))
        yield Path(role="groove", points=corners, closed=True)
    yield Text(role="value", at=each.at, text=each.words, height_mm=LABEL_MM, offset_mm=offset, target=each.target)
