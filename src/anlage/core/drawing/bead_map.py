"""The bead map: every pass where it lies in the true section, hatched by its process, coloured by its heat."""

import math
from collections.abc import Iterator, Sequence
from functools import lru_cache

from msgspec import Struct

from anlage.core.beads import Bead
from anlage.core.drawing.display import DisplayList, Item, Marker, Measure, Path, Point, Text, bounds
from anlage.core.drawing.section import edges, metal
from anlage.core.joint import Outline, Shape

LABEL_MM, PLATE_MM = 2.6, 3.6
TIGHT_MM = 4.4  # paper: beads smaller than this carry no plate, only their number, and below half of it none
EMPTY_DEG, EMPTY_MM = 60.0, 2.4  # hatch of what no bead fills, its distance on paper
HATCH_MM = 1.5  # paper: distance of hatch lines
MOST_LINES = 400  # of a hatch across one outline


class Marked(Struct, frozen=True):
    """How one bead is shown: where it is stated, its number, its hatch [°], its hottest energy [kJ/mm]."""

    target: str
    label: str
    hatch_deg: tuple[float, ...] = ()
    heat: float | None = None
    chosen: bool = False


class Amiss(Struct, frozen=True):
    """Where metal is missing or in excess: outlines of what no bead fills; whether caps stand otherwise than stated."""

    empty: Sequence[Outline] = ()
    caps: bool = False


def bead_map(
    shape: Shape,
    beads: Sequence[tuple[Bead, Marked]],
    *,
    scale: float,
    measure: Measure,
    amiss: Amiss | None = None,
) -> DisplayList:
    """Return the section with its beads, the first one laid at the back.

    Parameters
    ----------
    shape : the joint
    beads : every bead with how it is marked, in the order they are laid
    scale : paper millimetres per work millimetre
    measure : measures a text, for the corners of the picture
    amiss : where metal is missing or in excess
    """
    laid: list[Item] = []
    labels: list[Item] = []
    heats = [marked.heat for _, marked in beads if marked.heat is not None]
    middle_heat = (min(heats) + max(heats)) / 2 if heats else 0.0
    for bead, marked in beads:
        laid += _bead(bead, marked, scale, middle_heat)
        labels += _label(bead, marked, scale, measure)
    chosen = [
        Path(role="chosen", points=(*bead.outline, bead.outline[0]), target=marked.target)
        for bead, marked in beads
        if marked.chosen
    ]
    handles = [_handle(bead, marked) for bead, marked in beads if marked.chosen]
    for outline in amiss.empty if amiss else ():
        laid += (Path(role="gap", points=line) for line in hatch(outline, EMPTY_DEG, EMPTY_MM / scale))
        laid.append(Path(role="gap", points=(*outline, outline[0])))
    tops = [groove.cap for groove in shape.grooves if groove.cap and amiss and amiss.caps]
    caps = [Path(role=role, points=top) for top in tops for role in ("halo", "ghost")]
    items = (*metal(shape), *laid, *caps, *edges(shape), *chosen, *labels, *handles)
    return DisplayList(items, scale, *bounds(items, scale, measure))


def outlined_map(shape: Shape, beads: Sequence[Bead], *, scale: float, measure: Measure) -> DisplayList:
    """Return as much of the bead map as sets its size: members and the outlines of beads."""
    items = (*metal(shape), *(Path(role="outline", points=bead.outline) for bead in beads), *edges(shape))
    return DisplayList(items, scale, *bounds(items, scale, measure))


def _bead(bead: Bead, marked: Marked, scale: float, middle_heat: float) -> Iterator[Item]:
    yield Path(role="layer", points=bead.outline, closed=True, target=marked.target, heat=marked.heat)
    pen = "hatch" if marked.heat is None else "hatch_on_hot" if marked.heat > middle_heat else "hatch_on_pale"
    for turn in marked.hatch_deg:
        for line in hatch(bead.outline, turn, HATCH_MM / scale):
            yield Path(role=pen, points=line)
    role = "sketched" if bead.shared else "outline"
    yield Path(role=role, points=(*bead.outline, bead.outline[0]), target=marked.target)


@lru_cache(maxsize=256)  # the beads stay as they are while their settings are typed
def hatch(outline: Outline, turn_deg: float, step_mm: float) -> tuple[tuple[Point, Point], ...]:
    """Return parallel lines across an outline, on one grid for the whole picture.

    Parameters
    ----------
    outline : closed outline [mm]
    turn_deg : direction of the lines [°]
    step_mm : distance between them [mm]; twice as much, and again, while there were more lines than anybody tells apart
    """
    along = (math.cos(math.radians(turn_deg)), math.sin(math.radians(turn_deg)))
    offsets = [x * -along[1] + y * along[0] for x, y in outline]
    while (max(offsets) - min(offsets)) / step_mm > MOST_LINES:
        step_mm *= 2
    crossed: dict[int, list[float]] = {}  # by the number of the line, where it crosses the outline
    for (one, a), (two, b) in zip(
        zip(outline, offsets, strict=True),
        zip((*outline[1:], outline[0]), (*offsets[1:], offsets[0]), strict=True),
        strict=True,
    ):
        low, high = min(a, b), max(a, b)
        for n in range(math.floor(low / step_mm), math.ceil(high / step_mm) + 1):
            level = n * step_mm
            if (a < level) != (b < level):
                share = (level - a) / (b - a)
                x, y = one[0] + (two[0] - one[0]) * share, one[1] + (two[1] - one[1]) * share
                crossed.setdefault(n, []).append(x * along[0] + y * along[1])
    lines: list[tuple[Point, Point]] = []
    for n in sorted(crossed):
        level, places = n * step_mm, sorted(crossed[n])
        for start, end in zip(places[::2], places[1::2], strict=False):
            lines.append(
                (
                    (start * along[0] - level * along[1], start * along[1] + level * along[0]),
                    (end * along[0] - level * along[1], end * along[1] + level * along[0]),
                )
            )
    return tuple(lines)


def middle(outline: Outline) -> Point:
    """Return the centroid of an outline [mm]."""
    area = cx = cy = 0.0
    for (x1, y1), (x2, y2) in zip(outline, (*outline[1:], outline[0]), strict=True):
        cross = x1 * y2 - x2 * y1
        area += cross
        cx += (x1 + x2) * cross
        cy += (y1 + y2) * cross
    if abs(area) < 1e-12:
        return outline[0]
    return (cx / (3 * area), cy / (3 * area))


def _label(bead: Bead, marked: Marked, scale: float, measure: Measure) -> Iterator[Item]:
    room = min(bead.width_mm, bead.height_mm) * scale
    if room < TIGHT_MM / 2 and not marked.chosen:
        return
    x, y = middle(bead.outline)
    small = room < TIGHT_MM
    height = LABEL_MM * (0.75 if small else 1.0)
    half = (measure(marked.label, height) + 1.2) / 2 / scale
    reach = PLATE_MM * (0.75 if small else 1.0) / 2 / scale
    plate = ((x - half, y - reach), (x + half, y - reach), (x + half, y + reach), (x - half, y + reach))
    yield Path(role="plate", points=plate, closed=True, target=marked.target)
    yield Text(
        role="value", at=(x, y), text=marked.label, height_mm=height, offset_mm=(0.0, -0.36 * height),
        target=marked.target,
    )  # fmt: skip


def _handle(bead: Bead, marked: Marked) -> Marker:
    """Return the handle by which the chosen bead is made larger or smaller, on its upper edge."""
    x, y = bead.up
    top = max(bead.outline, key=lambda point: (round(point[0] * x + point[1] * y, 9), point[0] * y - point[1] * x))
    return Marker(role="handle", at=top, kind="handle", target=f"{marked.target}/bead_area_mm2")
