"""The shape of a joint: members, grooves to fill, caps, backing, and where each dimension is measured.

Glossary
--------
mouth : the open side of a groove, from left to right as one looks into it; the weld grows towards it
cap : what stands over a mouth, a parabola as wide as the mouth and its overlap
tear : where a member goes on and the drawing does not: between the end of one of its lines and the start of the next
"""

import math
from itertools import pairwise
from typing import Literal

from msgspec import Struct

from anlage.core.joint.preparation import Point

Outline = tuple[Point, ...]
CAP_STEPS = 24


class Member(Struct, frozen=True):
    """One member: its edges as drawn, one after the other, torn off between them; `target` is its metal."""

    target: str
    lines: tuple[Outline, ...]

    @property
    def outline(self) -> Outline:
        """The whole outline."""
        return tuple(point for line in self.lines for point in line)


class Groove(Struct, frozen=True, kw_only=True):
    """One area to fill, counter-clockwise, with its mouth.

    Parameters
    ----------
    outline : corners of the area [mm]
    mouth : its open side
    side : 1 or 2, the side of the joint it is welded from; 0: buttered before the joint is put together
    cap_mm : height of the cap over the mouth [mm]
    overlap_mm : how far the cap reaches over each end of the mouth [mm]
    reinforcing : whether it is a fillet laid over a finished groove
    surfacing : whether it is a layer on a plate, without a root
    lean : rise of the mouth over its width where one member lies higher; the walls stay upright then
    root_cap_mm : height of the root beyond an open lower surface [mm]
    root : that lower opening, as one looks into it; `None` where there is none
    """

    outline: Outline
    mouth: tuple[Point, Point]
    side: int = 1
    cap_mm: float = 0.0
    overlap_mm: float = 0.0
    reinforcing: bool = False
    surfacing: bool = False
    lean: float = 0.0
    root_cap_mm: float = 0.0
    root: tuple[Point, Point] | None = None

    @property
    def up(self) -> Point:
        """Direction out of the groove, of length 1."""
        (ax, ay), (bx, by) = self.mouth
        length = math.hypot(bx - ax, by - ay)
        if length == 0:  # a closed square joint: its mouth is a point
            return (0.0, 1.0 if self.side == 1 else -1.0)
        return (-(by - ay) / length, (bx - ax) / length)

    @property
    def chord(self) -> tuple[Point, Point]:
        """The mouth with the edges that the cap overlaps."""
        (ax, ay), (bx, by), up, by_mm = *self.mouth, self.up, self.overlap_mm
        return (ax - up[1] * by_mm, ay + up[0] * by_mm), (bx + up[1] * by_mm, by - up[0] * by_mm)

    @property
    def face_width_mm(self) -> float:
        """Width of the mouth [mm]."""
        return math.dist(*self.mouth)

    @property
    def cap_area_mm2(self) -> float:
        """Area of the cap [mm²]: a parabola."""
        return 2 / 3 * (self.face_width_mm + 2 * self.overlap_mm) * self.cap_mm

    @property
    def root_area_mm2(self) -> float:
        """Area beyond the lower surface [mm²]: a parabola over the root opening."""
        return 2 / 3 * math.dist(*self.root) * self.root_cap_mm if self.root else 0.0

    @property
    def cap(self) -> Outline:
        """The cap as an outline; empty without height."""
        return parabola(*self.chord, self.cap_mm) if self.cap_mm else ()

    @property
    def root_cap(self) -> Outline:
        """The root beyond the lower surface as an outline; empty without height."""
        return parabola(*self.root, self.root_cap_mm) if self.root and self.root_cap_mm else ()


class Measured(Struct, frozen=True, kw_only=True):
    """Where a length is measured, and how its handle moves it.

    Parameters
    ----------
    field : name of the dimension
    start, end : the points measured [mm]; the dimension line lies to the left of the way between them, or with
        `away` below 0 to the right
    clear_mm : how far the line stands off in the work [mm], to be clear of other metal
    away : on which side, and how far out in rows of dimension lines
    gain : by how much the dimension grows while its handle moves 1 mm from start to end
    """

    field: str
    start: Point
    end: Point
    clear_mm: float = 0.0
    away: float = 1.0
    gain: float = 1.0

    def read(self, at: Point) -> float:
        """Return the value of a handle at a point; differences are what a drag adds [mm].

        A dimension of no length is opened sideways, as the closed root of a butt is.
        """
        length = math.dist(self.start, self.end)
        along = (1.0, 0.0)
        if length > 0:
            along = ((self.end[0] - self.start[0]) / length, (self.end[1] - self.start[1]) / length)
        return self.gain * ((at[0] - self.start[0]) * along[0] + (at[1] - self.start[1]) * along[1])


class Turned(Struct, frozen=True, kw_only=True):
    """Where an angle is measured: counter-clockwise about an apex.

    Parameters
    ----------
    field : name of the angle
    apex : centre of the arc [mm]
    from_deg, to_deg : where the arc starts and ends [°]
    radius_mm : its radius in the work [mm]
    at_start : whether the handle is at the start of the arc, else at its end
    gain : by how much the angle grows while its handle opens the arc by 1°
    """

    field: str
    apex: Point
    from_deg: float
    to_deg: float
    radius_mm: float
    at_start: bool = False
    gain: float = 1.0
    reach: tuple[Point, ...] = ()  # corners of the work from which lines lead to the ends of the arc

    def read(self, at: Point) -> float:
        """Return the value of a handle at a point; differences are what a drag adds [°]."""
        place = math.degrees(math.atan2(at[1] - self.apex[1], at[0] - self.apex[0]))
        middle = (self.from_deg + self.to_deg) / 2
        away = (place - middle + 180) % 360 - 180
        return self.gain * (-away if self.at_start else away)


Dimensioned = Measured | Turned


class Shape(Struct, frozen=True):
    """A joint as areas and dimensions."""

    members: tuple[Member, ...]
    grooves: tuple[Groove, ...]
    dimensions: tuple[Dimensioned, ...]
    backing: Outline = ()
    axis_y_mm: float | None = None  # height of the pipe's axis
    width: Literal["section", "piece"] = "section"  # of a piece (plug, slot) the section is cut once, not along a seam

    @property
    def face_width_mm(self) -> float:
        """Width of the first mouth [mm]."""
        return next(each for each in self.grooves if each.side).face_width_mm

    def dimension(self, field: str) -> Dimensioned:
        """Return where a dimension is measured."""
        return next(each for each in self.dimensions if each.field == field)


def parabola(left: Point, right: Point, height_mm: float) -> Outline:
    """Return a parabola standing on a chord, counter-clockwise for a height above 0, its area kept exactly.

    The corners of an inscribed polyline would lose 1/steps² of the area; the height makes up for it.
    """
    (ax, ay), (bx, by) = left, right
    length = math.hypot(bx - ax, by - ay) or 1.0
    up = (-(by - ay) / length, (bx - ax) / length)
    top = height_mm / (1 - 1 / CAP_STEPS**2)
    points = []
    for n in range(CAP_STEPS + 1):
        share = 1 - n / CAP_STEPS
        rise = 4 * top * share * (1 - share)
        points.append((ax + (bx - ax) * share + up[0] * rise, ay + (by - ay) * share + up[1] * rise))
    return tuple(points)


def area_and_centroid(outline: Outline) -> tuple[float, float]:
    """Return the area [mm²] of a counter-clockwise outline and the height of its centroid [mm].

    An outline without area has its centroid at half its height.

    Examples
    --------
    >>> area_and_centroid(((0, 0), (4, 0), (4, 2), (0, 2)))
    (8.0, 1.0)
    """
    edges = list(pairwise((*outline, outline[0])))
    crosses = [x1 * y2 - x2 * y1 for (x1, y1), (x2, y2) in edges]
    area = sum(crosses) / 2
    if area <= 0:
        return 0.0, max(y for _, y in outline) / 2
    moment = sum(cross * (y1 + y2) for cross, ((_, y1), (_, y2)) in zip(crosses, edges, strict=True))
    return area, moment / (6 * area)
