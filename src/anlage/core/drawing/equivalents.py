"""The plane of chromium and nickel equivalents: metals, filler, and the mixture as a handle on the line between them.

Only lines whose equations are known are drawn: equal ferrite by Séférian, the ratios at which solidification changes.
"""

from collections.abc import Iterator, Sequence

from msgspec import Struct

from anlage.core.drawing.curves import Frame, grid
from anlage.core.drawing.display import DisplayList, Item, Marker, Measure, Path, Point, Text, bounds

LABEL_MM, DOT_MM = 2.6, 1.3
FERRITES = (0.0, 10.0, 20.0)  # % by Séférian: used up to 20
RATIOS = ((1.25, "A | AF"), (1.48, "AF | FA"), (1.95, "FA | F"))
SEFERIAN_CR = (16.0, 32.0)


class Place(Struct, frozen=True):
    """A metal: its name, its equivalents [%], whether it is a filler."""

    name: str
    cr_eq: float
    ni_eq: float
    is_filler: bool = False


class Mixing(Struct, frozen=True):
    """The mixture: where it lies, middle of the base metals, the filler, the share of base metal and its usual span."""

    at: Place
    base: Place
    filler: Place
    dilution: float
    usual: Point
    target: str


class EquivalentPlane(Struct, frozen=True):
    """The plot: its far corner [%] and its size on paper [mm]."""

    cr: float
    ni: float
    width: float
    height: float

    @classmethod
    def around(cls, places: Sequence[Place], size_mm: Point) -> "EquivalentPlane":
        """Return a plane with room for some metals."""
        cr = max([28.0, *(place.cr_eq for place in places)]) * 1.05
        ni = max([20.0, *(place.ni_eq for place in places)]) * 1.08
        return cls(cr, ni, *size_mm)

    def at(self, cr_eq: float, ni_eq: float) -> Point:
        """Return where equivalents lie on paper [mm]."""
        return (cr_eq / self.cr * self.width, ni_eq / self.ni * self.height)

    def read(self, point: Point) -> Point:
        """Return the equivalents at a point on paper."""
        return (point[0] / self.width * self.cr, point[1] / self.height * self.ni)


def dilution_at(point: Point, mixing: Mixing) -> float:
    """Return the dilution whose mixture lies nearest to a point of equivalents, 0 to 1."""
    (x, y), (fx, fy) = point, (mixing.filler.cr_eq, mixing.filler.ni_eq)
    dx, dy = mixing.base.cr_eq - fx, mixing.base.ni_eq - fy
    length = dx * dx + dy * dy
    return 0.0 if length <= 0 else min(max(((x - fx) * dx + (y - fy) * dy) / length, 0.0), 1.0)


def equivalents_chart(places: Sequence[Place], mixing: Mixing, plane: EquivalentPlane, measure: Measure) -> DisplayList:
    """Return the plane with the metals of a joint and their mixture."""
    frame = Frame("Cr equivalent (Schaeffler), %", "Ni equivalent, %", 0.0, (plane.width, plane.height))
    items: list[Item] = [*grid(frame, (0.0, plane.cr), (0.0, plane.ni)), *_lines(plane)]
    filler, base = (plane.at(each.cr_eq, each.ni_eq) for each in (mixing.filler, mixing.base))
    if len(places) > 2:
        ends = [plane.at(each.cr_eq, each.ni_eq) for each in places if not each.is_filler]
        items.append(Path(role="extension", points=tuple(ends)))
    items.append(Path(role="dimension", points=(filler, base)))
    low, high = (_between(filler, base, share) for share in mixing.usual)
    items.append(Path(role="chosen", points=(low, high)))
    for each in places:
        items += _spot(each, plane)
    at = plane.at(mixing.at.cr_eq, mixing.at.ni_eq)
    items.append(Marker(role="handle", at=at, kind="handle", target=mixing.target))
    said = f"weld, {100 * mixing.dilution:.0f} % base metal"
    items.append(
        Text(
            role="value",
            at=at,
            text=said,
            height_mm=LABEL_MM,
            anchor="start",
            offset_mm=(1.0, -4.6),
            target=mixing.target,
        )
    )
    return DisplayList(tuple(items), 1.0, *bounds(items, 1.0, measure))


def _between(first: Point, second: Point, share: float) -> Point:
    return (first[0] + share * (second[0] - first[0]), first[1] + share * (second[1] - first[1]))


def _spot(each: Place, plane: EquivalentPlane) -> Iterator[Item]:
    x, y = plane.at(each.cr_eq, each.ni_eq)
    square = ((x - DOT_MM, y - DOT_MM), (x + DOT_MM, y - DOT_MM), (x + DOT_MM, y + DOT_MM), (x - DOT_MM, y + DOT_MM))
    diamond = ((x, y - 1.5 * DOT_MM), (x + 1.5 * DOT_MM, y), (x, y + 1.5 * DOT_MM), (x - 1.5 * DOT_MM, y))
    yield Path(role="school", points=diamond if each.is_filler else square, closed=True)
    yield Text(role="value", at=(x, y), text=each.name, height_mm=LABEL_MM, anchor="start", offset_mm=(2.6, 1.4))


def _lines(plane: EquivalentPlane) -> Iterator[Item]:
    for ferrite in FERRITES:
        ends = []
        for cr in SEFERIAN_CR:
            cr_eq = min(cr, plane.cr)
            ends.append((cr_eq, (cr_eq - 6.7 - ferrite / 3) / 0.93))
        inside = [plane.at(cr, min(ni, plane.ni)) for cr, ni in ends]
        yield Path(role="curve", points=tuple(inside))
        name = f"{ferrite:g} % ferrite" if ferrite == 0 else f"{ferrite:g} %"
        yield Text(role="tick", at=inside[0], text=name, height_mm=LABEL_MM, anchor="end", offset_mm=(-1.2, -0.9))
    for ratio, name in RATIOS:
        end = (plane.cr, plane.cr / ratio) if plane.cr / ratio <= plane.ni else (plane.ni * ratio, plane.ni)
        start = (10.0, 10.0 / ratio)
        yield Path(role="ghost", points=(plane.at(*start), plane.at(*end)))
        yield Text(role="tick", at=plane.at(*end), text=name, height_mm=LABEL_MM, anchor="end", offset_mm=(-0.8, 1.2))
