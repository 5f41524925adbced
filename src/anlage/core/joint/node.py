"""A node of tubes: members set on a run and into each other, the weld each takes, in which order, and how each is cut.

Glossary
--------
node : one run with its members; the run lies along x, up is z, its axis passes through the origin
angle : between the axes of member and run, from the run's far end; 90° square, below it leaning that way
turn : place round the run, 0° up, to the far side
heel, toe : where the angle between member and run is sharpest (azimuth 0°), and where it is bluntest (180°)
onto : what a member stands on at a place: the run, or a member that was welded before it
"""

import math
from collections.abc import Iterator, Mapping, Sequence
from functools import lru_cache
from itertools import pairwise
from types import MappingProxyType

from msgspec import Struct
from msgspec.structs import replace

from anlage.core.errors import InputError

STEPS = 360
RUN = -1
LEAST_DEG = 15.0
QUARTERS_DEG = (90.0, 270.0, 180.0)  # to either side before below; own choice
JUMP = 0.05  # of a tube's diameter: neighbouring corners farther apart than this, on two surfaces, are no weld
Vector = tuple[float, float, float]


class Tube(Struct, frozen=True, kw_only=True):
    """One member: diameter and wall [mm], angle and turn [°], where its axis crosses the run's [mm from the middle]."""

    od_mm: float
    wall_mm: float
    angle_deg: float = 90.0
    turn_deg: float = 0.0
    along_mm: float = 0.0

    @property
    def axis(self) -> Vector:
        """Direction away from the run."""
        lean, turn = math.radians(self.angle_deg), math.radians(self.turn_deg)
        return math.cos(lean), math.sin(lean) * math.sin(turn), math.sin(lean) * math.cos(turn)

    @property
    def heel(self) -> Vector:
        """Direction square to the axis towards the heel."""
        lean, turn = math.radians(self.angle_deg), math.radians(self.turn_deg)
        return math.sin(lean), -math.cos(lean) * math.sin(turn), -math.cos(lean) * math.cos(turn)

    @property
    def slope_deg(self) -> float:
        """Sharper angle between the axes."""
        return min(self.angle_deg, 180.0 - self.angle_deg)


class Corner(Struct, frozen=True):
    """One place of a weld: azimuth [°], where it is, how far along the member's axis [mm], onto what, angle [°]."""

    azimuth_deg: float
    at: Vector
    height_mm: float
    onto: int
    dihedral_deg: float


class TubeWeld(Struct, frozen=True):
    """The weld of one member.

    Parameters
    ----------
    corners : places round it, the first one again at the end
    length_mm : along the line where the surfaces meet
    onto_mm : length on the run (`RUN`) and on each earlier member, by its number
    hidden_mm : length that each later member covers, by its number
    dihedral_deg : sharpest and bluntest angle between the surfaces, measured through the weld
    fillet_mm : integral of half the sine of that angle along the weld; times leg² it is the metal of a fillet [mm³]
    """

    corners: tuple[Corner, ...]
    length_mm: float
    onto_mm: Mapping[int, float]
    hidden_mm: Mapping[int, float]
    dihedral_deg: tuple[float, float]
    fillet_mm: float

    def volume_mm3(self, leg_mm: float) -> float:
        """Return the metal of a fillet with equal legs."""
        return self.fillet_mm * leg_mm**2

    def sharp_mm(self, below_deg: float) -> float:
        """Return the length over which the surfaces meet at less than an angle."""
        return sum(length for one, _, length in _chords(self.corners, math.inf) if one.dihedral_deg < below_deg)


def weld_order(tubes: Sequence[Tube]) -> tuple[int, ...]:
    """Return in which order members are set: the squarest first, of equals the largest; those leaning tie into it.

    Sources
    -------
    Common practice, no source: the member at 90° first, then those at 45° that tie into it.

    Examples
    --------
    >>> weld_order([Tube(od_mm=30, wall_mm=2, angle_deg=45), Tube(od_mm=30, wall_mm=2), Tube(od_mm=40, wall_mm=2)])
    (2, 1, 0)
    """
    return tuple(sorted(range(len(tubes)), key=lambda n: (round(90.0 - tubes[n].slope_deg, 6), -tubes[n].od_mm, n)))


def node_faults(run_od_mm: float, tubes: Sequence[Tube]) -> tuple[InputError, ...]:
    """Return what is impossible in a node: walls without a bore, members larger than the run, in one another, too flat.

    Examples
    --------
    >>> print(node_faults(60, [Tube(od_mm=76, wall_mm=3)])[0])
    member 1: 76 mm is larger than the run of 60 mm; state 60 mm at most
    """
    return tuple(_faults(run_od_mm, tubes))


def _faults(run_od_mm: float, tubes: Sequence[Tube]) -> Iterator[InputError]:
    for n, tube in enumerate(tubes, 1):
        where = f"member {n}"
        if tube.od_mm > run_od_mm:
            what = f"{tube.od_mm:g} mm is larger than the run of {run_od_mm:g} mm"
            yield InputError(what, where=where, mend=f"state {run_od_mm:g} mm at most")
        if not 0 < 2 * tube.wall_mm < tube.od_mm:
            what = f"a wall of {tube.wall_mm:g} mm leaves no bore in {tube.od_mm:g} mm"
            yield InputError(what, where=where, mend=f"state a wall under {tube.od_mm / 2:g} mm")
        if not LEAST_DEG <= tube.angle_deg <= 180.0 - LEAST_DEG:
            what = f"{tube.angle_deg:g}° to the run leaves no room to weld"
            yield InputError(what, where=where, mend=f"state {LEAST_DEG:g}° to {180.0 - LEAST_DEG:g}°")
        for k, other in enumerate(tubes[: n - 1], 1):
            if _inside_each_other(tube, other):
                what = f"it lies in member {k}"
                ways = [f"{way.angle_deg:g}° with turn {way.turn_deg:g}°" for way in other_ways(tubes, n - 1)[:2]]
                mend = " or ".join((*ways, "another place along the run"))
                yield InputError(what, where=where, mend=f"state {mend}")


def other_ways(tubes: Sequence[Tube], n: int) -> tuple[Tube, ...]:
    """Return how a member can stand that lies in another: leaning the other way first, else turned round the run.

    Examples
    --------
    >>> post, leaning = Tube(od_mm=40, wall_mm=3), Tube(od_mm=40, wall_mm=3, angle_deg=45.0)
    >>> [(way.angle_deg, way.turn_deg) for way in other_ways([post, leaning, leaning], 2)]
    [(135.0, 0.0), (45.0, 90.0), (45.0, 270.0), (45.0, 180.0)]
    """
    tube = tubes[n]
    turned = (replace(tube, turn_deg=(tube.turn_deg + quarter) % 360.0) for quarter in QUARTERS_DEG)
    ways = (replace(tube, angle_deg=180.0 - tube.angle_deg), *turned)
    others = [other for k, other in enumerate(tubes) if k != n]
    return tuple(way for way in ways if not any(_inside_each_other(way, other) for other in others))


def _inside_each_other(one: Tube, other: Tube) -> bool:
    """Return whether parallel members overlap all the way up."""
    between = _cross(one.axis, other.axis)
    if math.hypot(*between) > 1e-3:
        return False
    apart = (one.along_mm - other.along_mm, 0.0, 0.0)
    return _dot(one.axis, other.axis) > 0 and math.hypot(*_cross(apart, one.axis)) < (one.od_mm + other.od_mm) / 2


def tube_welds(run_od_mm: float, tubes: tuple[Tube, ...]) -> tuple[TubeWeld, ...]:
    """Return the weld of every member, set on the run and on the members before it.

    Parameters
    ----------
    run_od_mm : outside diameter of the run [mm]
    tubes : the members in the order they are welded, without faults

    Validity
    --------
    Straight round tubes whose axes cross the run's axis. A member is welded all round its outside, what a later one
    covers included; where two surfaces pass each other without meeting there is no weld.

    Sources
    -------
    Geometry: each line along a member is followed from outside to the first surface it strikes.

    Examples
    --------
    >>> (square,) = tube_welds(1e6, (Tube(od_mm=100, wall_mm=5),))
    >>> square.length_mm, square.dihedral_deg
    (314.2, (90.0, 90.0))
    """
    return _welds(run_od_mm, tubes)


@lru_cache(maxsize=32)
def _welds(run_od_mm: float, tubes: tuple[Tube, ...]) -> tuple[TubeWeld, ...]:
    rings = [_ring(run_od_mm, tubes, n) for n in range(len(tubes))]
    return tuple(_weld(tubes, n, ring) for n, ring in enumerate(rings))


def _weld(tubes: tuple[Tube, ...], n: int, ring: tuple[Corner, ...]) -> TubeWeld:
    onto: dict[int, float] = {}
    hidden: dict[int, float] = {}
    fillet = 0.0
    for one, other, length in _chords(ring, JUMP * tubes[n].od_mm):
        onto[one.onto] = onto.get(one.onto, 0.0) + length
        middle = (one.dihedral_deg + other.dihedral_deg) / 2
        fillet += 0.5 * math.sin(math.radians(middle)) * length
        for k in range(n + 1, len(tubes)):
            if _is_in(one.at, tubes[k]):
                hidden[k] = hidden.get(k, 0.0) + length
    angles = [corner.dihedral_deg for corner in ring]
    return TubeWeld(
        ring, sum(onto.values()), MappingProxyType(onto), MappingProxyType(hidden), (min(angles), max(angles)), fillet
    )


def _chords(ring: Sequence[Corner], jump: float) -> Iterator[tuple[Corner, Corner, float]]:
    """Yield neighbouring corners and the length between them, without the jumps from surface to surface."""
    for one, other in pairwise(ring):
        length = math.dist(one.at, other.at)
        if one.onto == other.onto or length <= jump:
            yield one, other, length


def _ring(run_od_mm: float, tubes: Sequence[Tube], n: int) -> tuple[Corner, ...]:
    tube = tubes[n]
    return tuple(_corner(run_od_mm, tubes, n, 360.0 * step / STEPS, tube.od_mm / 2) for step in range(STEPS + 1))


def _corner(run_od_mm: float, tubes: Sequence[Tube], n: int, azimuth_deg: float, radius_mm: float) -> Corner:
    """Return where the line along a member at an azimuth and a radius first strikes what was there before."""
    tube, turn = tubes[n], math.radians(azimuth_deg)
    axis, heel = tube.axis, tube.heel
    side = _cross(axis, heel)
    out = tuple(math.cos(turn) * h + math.sin(turn) * s for h, s in zip(heel, side, strict=True))
    start = (tube.along_mm + radius_mm * out[0], radius_mm * out[1], radius_mm * out[2])
    height = _strike((1.0, 0.0, 0.0), (0.0, 0.0, 0.0), run_od_mm / 2, start, axis)
    best, onto = (0.0 if height is None else height), RUN
    for k in range(n):
        other = tubes[k]
        origin = (other.along_mm, 0.0, 0.0)
        found = _strike(other.axis, origin, other.od_mm / 2, start, axis)
        if found is not None and found > best:
            at = _on(start, axis, found)
            if _dot(_less(at, origin), other.axis) > 0:
                best, onto = found, k
    at = _on(start, axis, best)
    normal = _normal(at, (1.0, 0.0, 0.0), (0.0, 0.0, 0.0))
    if onto != RUN:
        normal = _normal(at, tubes[onto].axis, (tubes[onto].along_mm, 0.0, 0.0))
    cosine = max(-1.0, min(1.0, sum(a * b for a, b in zip(out, normal, strict=True))))
    return Corner(azimuth_deg, at, best, onto, 180.0 - math.degrees(math.acos(cosine)))


def _strike(axis: Vector, origin: Vector, radius: float, start: Vector, way: Vector) -> float | None:
    """Return how far out a line leaves an endless cylinder; `None` where it passes it by."""
    away = _less(start, origin)
    a = _less(way, _times(axis, _dot(way, axis)))
    b = _less(away, _times(axis, _dot(away, axis)))
    square, half, rest = _dot(a, a), _dot(a, b), _dot(b, b) - radius**2
    inside = half**2 - square * rest
    if square < 1e-12 or inside < 0:
        return None
    return (-half + math.sqrt(inside)) / square


def _is_in(at: Vector, tube: Tube) -> bool:
    away = _less(at, (tube.along_mm, 0.0, 0.0))
    up = _dot(away, tube.axis)
    return up > 0 and math.sqrt(max(_dot(away, away) - up**2, 0.0)) < tube.od_mm / 2 - 1e-6


def _normal(at: Vector, axis: Vector, origin: Vector) -> Vector:
    away = _less(at, origin)
    out = _less(away, _times(axis, _dot(away, axis)))
    return _times(out, 1.0 / (math.sqrt(_dot(out, out)) or 1.0))


def _on(start: Vector, way: Vector, far: float) -> Vector:
    return start[0] + way[0] * far, start[1] + way[1] * far, start[2] + way[2] * far


def _dot(a: Vector, b: Vector) -> float:
    return a[0] * b[0] + a[1] * b[1] + a[2] * b[2]


def _less(a: Vector, b: Vector) -> Vector:
    return a[0] - b[0], a[1] - b[1], a[2] - b[2]


def _times(a: Vector, by: float) -> Vector:
    return a[0] * by, a[1] * by, a[2] * by


def _cross(a: Vector, b: Vector) -> Vector:
    return a[1] * b[2] - a[2] * b[1], a[2] * b[0] - a[0] * b[2], a[0] * b[1] - a[1] * b[0]


# Cutting -------------------------------------------------------------------------------------


class Cope(Struct, frozen=True):
    """How the end of a member is cut, laid flat: way round its outside and height of the cut [mm], heel first.

    `gap_mm` is the widest gap at the outside when the wall is cut square to the surface of the tube.
    """

    points: tuple[tuple[float, float], ...]
    gap_mm: float

    @property
    def height_mm(self) -> float:
        """How high the pattern is."""
        return max(y for _, y in self.points)


def cope(run_od_mm: float, tubes: tuple[Tube, ...], n: int) -> Cope:
    """Return the pattern that is wrapped round a member to mark its cut.

    Parameters
    ----------
    run_od_mm : outside diameter of the run [mm]
    tubes : the members in the order they are welded, without faults
    n : which of them, 0 the first

    Validity
    --------
    The wall is cut square to the tube's surface, so each line of it stops where its inner or outer edge first
    strikes; the other edge then stands off and is bevelled or filled. Thickness of the pattern's own paper is left out.

    Sources
    -------
    Geometry, as `tube_welds`.

    Examples
    --------
    >>> pattern = cope(60.0, (Tube(od_mm=40, wall_mm=3),), 0)
    >>> pattern.points[-1][0], pattern.height_mm
    (125.7, 5.282)
    """
    tube = tubes[n]
    outer = _ring(run_od_mm, tubes, n)
    inner = [_corner(run_od_mm, tubes, n, each.azimuth_deg, tube.od_mm / 2 - tube.wall_mm).height_mm for each in outer]
    cut = [max(each.height_mm, inside) for each, inside in zip(outer, inner, strict=True)]
    low = min(cut)
    points = tuple(
        (math.radians(each.azimuth_deg) * tube.od_mm / 2, height - low) for each, height in zip(outer, cut, strict=True)
    )
    return Cope(points, max(height - each.height_mm for each, height in zip(outer, cut, strict=True)))
