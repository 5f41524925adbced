"""Beads laid in order inside the true groove: layer on layer, each layer split into beads by their areas.

Every bead keeps its area: a layer rises until its beads have room, is cut across where their areas end, and its beads
are rounded on top by a share of their own metal. What does not fit under the mouth stands over it as a cap.

Glossary
--------
laid : one bead to lay, by area, by how much it builds up, or neither: then it shares what is left
reach : how far under the mouth (below 0) or over it the surface stands after a layer
"""

import itertools
import math
from collections.abc import Iterator, Sequence
from typing import Literal

from msgspec import Struct, field

from anlage.core.beads.ground import (
    Frame,
    Ground,
    Slab,
    Widths,
    area_under,
    crowned_slab,
    flat_slab,
    ground_of,
)
from anlage.core.joint import Groove, Outline, Point, Shape, area_and_centroid, parabola

ROUND = 0.10  # share of a bead's metal in its rounded top, where beads lie side by side; a picture's choice
ROUND_STEPS = 4
EMPTY_MM = 0.15  # lower than this on the whole is not drawn as empty; own choice
CROWN_STEPS, CLOSE_MM2, CLOSE_MM = 40, 1e-9, 1e-6
PITCH_OVER_HEIGHT = 2.65  # of a bead in a layer; common practice, no source (beads 2.25 × 0.85 electrode diameters)


class Laid(Struct, frozen=True, kw_only=True):
    """One bead to lay.

    Parameters
    ----------
    key : names the bead
    area_mm2 : its section; `None`: not known
    thickness_mm : how much it builds up over the whole width, where the area is not known
    side : the side it is welded from, 1 or 2; 0 for buttering
    role : root, hot, fill, cap, back; each begins a layer of its own
    layer : whether it starts a layer or lies beside the last; `None` leaves it to the layout
    weave : whether it takes the whole width
    """

    key: str
    area_mm2: float | None = None
    thickness_mm: float | None = None
    side: int = 1
    role: str | None = None
    layer: Literal["new", "beside"] | None = None
    weave: bool = False


class Bead(Struct, frozen=True, kw_only=True):
    """One bead where it lies; `up` is the way out of its groove, `shared` when its area is only a share of the rest."""

    key: str
    side: int
    layer: int
    outline: Outline
    area_mm2: float
    width_mm: float
    height_mm: float
    up: Point
    shared: bool = False


class Layer(Struct, frozen=True, kw_only=True):
    """One layer: how many beads, and its reach: how far its surface stands over the mouth, below 0 under it [mm]."""

    side: int
    number: int
    beads: int
    area_mm2: float
    role: str | None
    reach_mm: float
    capping: bool


class Filling(Struct, frozen=True, kw_only=True):
    """How a side is filled: its room with cap and root, what is laid, what is missing up to the surface [mm²].

    `reach_mm` is how far the metal stands over the mouth, below 0 under it.
    """

    side: int
    room_mm2: float
    laid_mm2: float
    missing_mm2: float
    reach_mm: float


class Layout(Struct, frozen=True):
    """All beads in the order they are laid, the layers, how each side is filled, and the outlines of what is empty."""

    beads: tuple[Bead, ...] = ()
    layers: tuple[Layer, ...] = ()
    fillings: tuple[Filling, ...] = ()
    empty: tuple[Outline, ...] = ()

    @property
    def laid_mm2(self) -> float:
        """All metal laid [mm²]."""
        return sum(bead.area_mm2 for bead in self.beads)


class _Region(Struct):
    """A groove as it fills: `left_mm2` is the room up to the mouth that is still open."""

    groove: Groove
    frame: Frame
    ground: Ground
    room_mm2: float
    bare: Widths
    level: float
    left_mm2: float
    crown_mm: float = 0.0
    reach_mm: float = -math.inf

    @classmethod
    def of(cls, groove: Groove) -> "_Region":
        ground = ground_of(groove)
        room = area_and_centroid(groove.outline)[0] + groove.cap_area_mm2 + groove.root_area_mm2
        left = area_under(ground, 0.0)[0]
        return cls(groove, Frame.of(groove), ground, room, Widths(ground), min(y for _, y in ground), left)

    def covered_by(self, surface: list[Point], laid_mm2: float) -> None:
        """Go on from the surface of a layer."""
        top = max(y for _, y in surface)
        width = surface[-1][0] - surface[0][0]
        self.reach_mm = top if self.crown_mm or width <= 0 else _mean_height(surface, width)
        self.ground = _after(self.ground, surface)
        if self.crown_mm:
            self.left_mm2 = 0.0
        elif top <= 0.0:  # all of it lies under the mouth
            self.left_mm2 = max(self.left_mm2 - laid_mm2, 0.0)
        else:
            self.left_mm2 = area_under(self.ground, 0.0)[0]


class _Side(Struct):
    """One side of the joint: its regions in welding order."""

    number: int
    regions: list[_Region]
    layers: int = 0
    laid: float = 0.0
    carried: float = 0.0  # metal that did not fit under the mouth of a region that has another over it
    at: int = 0
    known_left: float = 0.0
    open_left: int = 0
    beads: list[tuple[int, Bead]] = field(default_factory=list)


def layout(shape: Shape, laid: Sequence[Laid]) -> Layout:
    """Return where every bead lies.

    Parameters
    ----------
    shape : the joint
    laid : the beads in the order they are welded

    Returns
    -------
    Layout : beads in that order; their areas are those asked for, the sum of a side's beads is what fills it. A groove
        without an opening takes none.
    """
    open_grooves = [each for each in shape.grooves if each.face_width_mm > CLOSE_MM]
    sides = {
        number: _Side(number, [_Region.of(each) for each in open_grooves if each.side == number])
        for number in sorted({each.side for each in open_grooves})
    }
    for each in laid:
        own = sides.get(each.side)
        if own is not None:
            own.known_left += each.area_mm2 or 0.0
            own.open_left += each.area_mm2 is None
    layers: list[Layer] = []
    for group in _groups(laid, sides):
        layers += _lay(sides[laid[group[0]].side], [(n, laid[n]) for n in group])
    beads = sorted(((n, bead) for side in sides.values() for n, bead in side.beads), key=lambda pair: pair[0])
    fillings = tuple(_filling(side) for side in sides.values())
    empty = tuple(_empty(region) for side in sides.values() for region in side.regions if _is_open(region))
    return Layout(tuple(bead for _, bead in beads), tuple(layers), fillings, empty)


def _is_open(region: _Region) -> bool:
    return region.left_mm2 > EMPTY_MM * (region.ground[-1][0] - region.ground[0][0])


def _empty(region: _Region) -> Outline:
    """Return the outline of what is still open under the mouth of a region."""
    _, slab = flat_slab(region.ground, region.left_mm2)
    lower, upper = slab.between(slab.nodes[0][0], slab.nodes[-1][0])
    return region.frame.outline((*lower, *reversed(upper)))


def _groups(laid: Sequence[Laid], sides: dict[int, _Side]) -> list[list[int]]:
    """Return the beads that begin in one layer together, by what is stated and by what fits side by side."""
    rows: dict[int, list[int]] = {number: [] for number in sides}
    for n, each in enumerate(laid):
        if each.side in rows:
            rows[each.side].append(n)
    found: list[list[int]] = []
    for number, row in rows.items():
        found += _rows_of(laid, row, sides[number])
    return sorted(found, key=lambda group: group[0])


def _rows_of(laid: Sequence[Laid], row: list[int], side: _Side) -> list[list[int]]:
    """Group one side's beads; how many lie side by side follows from the width where the metal will stand."""
    groups: list[list[int]] = []
    room = 0  # beads that still fit beside in the automatic layer
    laid_so_far = 0.0
    last: Laid | None = None
    for n in row:
        each = laid[n]
        beside = each.layer == "beside" or (
            each.layer is None and last is not None and each.role == last.role and room > 0 and not each.weave
        )
        if beside and groups:
            groups[-1].append(n)
            room -= 1
        else:
            groups.append([n])
            room = _beside(side, laid_so_far, each) - 1
        laid_so_far += each.area_mm2 or 0.0
        last = each
    return groups


def _beside(side: _Side, laid_mm2: float, each: Laid) -> int:
    """Return how many beads like this one lie side by side once some metal is laid."""
    if each.area_mm2 is None or each.weave or each.role in ("hot",):
        return 1
    pitch = math.sqrt(PITCH_OVER_HEIGHT * each.area_mm2)
    region = side.regions[0]
    for region in side.regions:
        if laid_mm2 < region.room_mm2 - region.groove.cap_area_mm2:
            break
        laid_mm2 -= region.room_mm2
    count = 1
    for _ in range(2):  # the width in the middle of a layer of so many
        width = region.bare.at(max(laid_mm2 + 0.5 * count * each.area_mm2, 0.0))
        count = max(1, round(width / pitch))
    return count


def _lay(side: _Side, group: list[tuple[int, Laid]]) -> list[Layer]:
    """Lay one layer of beads on a side; return what it came to."""
    region = side.regions[side.at]
    areas, shared = _areas(side, region, [each for _, each in group])
    smallest = min(areas)
    if side.at + 1 < len(side.regions) and region.left_mm2 < 0.35 * smallest:
        side.carried -= region.left_mm2
        side.at += 1
        region = side.regions[side.at]
    follows = side.at + 1 < len(side.regions)
    total = sum(areas) + side.carried
    scale = max(total, 1e-6) / sum(areas)
    side.carried = 0.0
    left = region.left_mm2
    drawn = [area * scale for area in areas]
    if follows and total > left > 0:
        side.carried = total - left
        drawn = [area * left / sum(drawn) for area in drawn]
    level_top = follows and sum(drawn) > left - CLOSE_MM  # another region lies flat on this one
    slab, tops, capping = _slab(region, drawn, rounded=not level_top)
    side.layers += 1
    cuts = _cuts(slab, drawn)
    surface: list[Point] = []
    for (n, each), start, end, top, area, is_shared in zip(group, cuts, cuts[1:], tops, areas, shared, strict=False):
        lower, upper = slab.between(start, end)
        upper = _rounded(upper, top)
        surface += upper
        outline = region.frame.outline((*lower, *reversed(upper)))
        side.beads.append(
            (
                n,
                Bead(
                    key=each.key, side=side.number, layer=side.layers, outline=outline, area_mm2=area,
                    width_mm=end - start, height_mm=area * scale / max(end - start, 1e-9), up=region.groove.up,
                    shared=is_shared,
                ),
            )
        )  # fmt: skip
    region.covered_by(surface, sum(drawn))
    side.laid += sum(areas)
    return [
        Layer(
            side=side.number, number=side.layers, beads=len(group), area_mm2=sum(areas), role=group[0][1].role,
            reach_mm=region.reach_mm, capping=capping,
        )
    ]  # fmt: skip


def _areas(side: _Side, region: _Region, group: list[Laid]) -> tuple[list[float], list[bool]]:
    """Return the area of each bead of a layer: as known, from what it builds up, or a share of what is left."""
    areas, shared = [], []
    for each in group:
        if each.area_mm2 is not None:
            areas.append(each.area_mm2)
            shared.append(False)
            side.known_left -= each.area_mm2
            continue
        if each.thickness_mm is not None:
            area = _built_up(region, each.thickness_mm) / len(group)
        else:
            room = sum(each.room_mm2 for each in side.regions) - side.laid - sum(areas) - side.known_left
            area = max(room / max(side.open_left, 1), 0.02 * region.room_mm2)
        side.open_left -= 1
        areas.append(max(area, 1e-3))
        shared.append(each.thickness_mm is None)
    return areas, shared


def _built_up(region: _Region, thickness: float) -> float:
    """Return the metal that raises the surface by a thickness over the whole width."""
    if region.crown_mm:
        return 2 / 3 * thickness * (region.ground[-1][0] - region.ground[0][0])
    level = region.level + thickness
    flat = area_under(region.ground, min(level, 0.0))[0]
    over = 2 / 3 * max(level, 0.0) * (region.ground[-1][0] - region.ground[0][0])
    return flat + over


def _slab(region: _Region, areas: list[float], *, rounded: bool) -> tuple[Slab, list[float], bool]:
    """Return the room of a layer, the metal in the rounded top of each bead, and whether it stands over the mouth."""
    total, left = sum(areas), region.left_mm2
    share = ROUND if len(areas) > 1 and rounded else 0.0
    if (1 - share) * total < left <= total + CLOSE_MM:  # a full groove is full: only what is over is rounded
        share = max(total - left, 0.0) / total if rounded else 0.0
    tops = [share * area for area in areas]
    flat = total - sum(tops)
    if flat <= left + CLOSE_MM2 and not region.crown_mm:
        region.level, slab = flat_slab(region.ground, flat)
        return slab, tops, False
    left_end, right_end = (region.ground[0][0], 0.0), (region.ground[-1][0], 0.0)
    per_mm = 2 / 3 * (right_end[0] - left_end[0])
    region.crown_mm += (flat - left) / per_mm
    region.level = 0.0
    slope, before = per_mm, (0.0, 0.0)
    for step in range(CROWN_STEPS):  # what already stands over the mouth takes some of the room: secants find the rest
        crown = tuple(reversed(parabola(left_end, right_end, region.crown_mm)))
        slab = crowned_slab(region.ground, crown)
        lacking = flat - slab.area_mm2
        if abs(lacking) < CLOSE_MM2:
            break
        here = (region.crown_mm, slab.area_mm2)
        if step and here[0] != before[0]:
            slope = max((here[1] - before[1]) / (here[0] - before[0]), 1e-3 * per_mm)
        before = here
        region.crown_mm = max(region.crown_mm + lacking / slope, 0.0)
    return slab, tops, True


def _cuts(slab: Slab, areas: list[float]) -> list[float]:
    """Return where the beads of a layer end, from left to right."""
    whole, total = slab.area_mm2, sum(areas)
    cuts, sum_so_far = [slab.nodes[0][0]], 0.0
    for area in areas[:-1]:
        sum_so_far += area
        cuts.append(slab.place(whole * sum_so_far / total))
    return [*cuts, slab.nodes[-1][0]]


def _rounded(upper: list[Point], top_mm2: float) -> list[Point]:
    """Return the upper line of a bead with some metal added as a parabola over it."""
    start, end = upper[0][0], upper[-1][0]
    width = end - start
    if top_mm2 <= 0 or width <= 0:
        return upper
    rise = 1.5 * top_mm2 / width / (1 - 1 / ROUND_STEPS**2)
    shares = [n / ROUND_STEPS for n in range(ROUND_STEPS + 1)]
    bump = [(start + width * share, 4 * rise * share * (1 - share)) for share in shares]
    bump[-1] = (end, 0.0)  # to the last digit
    if len(upper) == 2:  # a level line
        return [(x, upper[0][1] + y) for x, y in bump]
    return _sum(upper, bump)


def _sum(one: list[Point], two: list[Point]) -> list[Point]:
    """Return the sum of two lines over the same width."""
    xs = sorted({x for x, _ in (*one, *two)})
    return [(x, a + b) for x, a, b in zip(xs, _read(one, xs), _read(two, xs), strict=True)]


def _read(line: list[Point], xs: list[float]) -> Iterator[float]:
    """Yield how high a line is at each of some places in order; beyond its end, as high as there."""
    at = 0
    for x in xs:
        while at + 2 < len(line) and line[at + 1][0] < x:
            at += 1
        (x1, y1), (x2, y2) = line[at], line[at + 1]
        yield line[-1][1] if x > x2 else y1 + (y2 - y1) * (x - x1) / (x2 - x1) if x2 > x1 else y2


def _after(ground: Ground, surface: list[Point]) -> Ground:
    """Return the ground after a layer: its walls, and the new surface between them."""
    start, end = surface[0][0], surface[-1][0]
    low_left, low_right = surface[0][1], surface[-1][1]
    left = [(x, y) for x, y in ground if x < start or (x == start and y > low_left)]
    right = [(x, y) for x, y in ground if x > end or (x == end and y > low_right)]
    return (*left, *surface, *right)


def _mean_height(line: list[Point], width: float) -> float:
    """Return how high a line lies on the whole."""
    return sum((x2 - x1) * (y1 + y2) for (x1, y1), (x2, y2) in itertools.pairwise(line)) / 2 / width


def _filling(side: _Side) -> Filling:
    room = sum(each.room_mm2 for each in side.regions)
    last = side.regions[-1]
    missing = sum(each.left_mm2 for each in side.regions)
    return Filling(
        side=side.number, room_mm2=room, laid_mm2=side.laid, missing_mm2=missing,
        reach_mm=last.reach_mm,
    )  # fmt: skip
