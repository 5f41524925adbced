"""Prepared edges: from the dimensions of a preparation to the line of one cut edge.

An edge is a polyline (setback, height) from the lower surface up; the setback is measured from where the edge comes
nearest to the other member. Arcs are replaced by corners that keep the arc's area exactly.
"""

import math
from itertools import pairwise

from anlage.core.joint.preparation import Point, Preparation

ARC_STEPS = 14


def square_edge(thickness_mm: float) -> tuple[Point, ...]:
    """Return the edge that is cut square, from the lower surface up [mm]."""
    return ((0.0, 0.0), (0.0, thickness_mm))


def prepared_edge(p: Preparation) -> tuple[Point, ...]:
    """Return the edge as the kind cuts it: the second side's groove below, the root face, the first side's above."""
    first, second = p.depths_mm
    angles = p.wall_angles_deg
    land = second + p.root_face_mm
    above = [(s, land + h) for s, h in wall(p, first, angles[0])]
    if p.make.sides == 1:
        return ((0.0, 0.0), *above) if p.root_face_mm > 0 else tuple(above)
    below = [(s, second - h) for s, h in reversed(wall(p, second, angles[1]))]
    return tuple(dict.fromkeys((*below, *above)))


def wall(p: Preparation, depth_mm: float, angle_deg: float) -> tuple[Point, ...]:
    """Return one side's wall from the top edge of the root face to the surface: (setback, height) [mm]."""
    tangent = math.tan(math.radians(angle_deg))
    match p.make.form:
        case "u" | "j":
            return (*arc_wall(p.radius_mm, angle_deg), (_arc_setback(p.radius_mm, angle_deg, depth_mm), depth_mm))
        case "compound-v":
            corner = (p.break_height_mm * tangent, p.break_height_mm)
            rest = (depth_mm - p.break_height_mm) * math.tan(math.radians(p.upper_angle_deg / 2))
            return ((0.0, 0.0), corner, (corner[0] + rest, depth_mm))
        case "square":
            return ((0.0, 0.0), (0.0, depth_mm))
        case _:
            return ((0.0, 0.0), (depth_mm * tangent, depth_mm))


def arc_wall(radius_mm: float, angle_deg: float) -> tuple[Point, ...]:
    """Return the root radius of a U or J: it starts level at the root face and ends where it meets the straight wall.

    The corners between lie a few micrometres outside the arc, so that the area is that of the arc.
    """
    sweep = math.radians(90 - angle_deg)
    out = area_keeping(sweep, ARC_STEPS)
    points = [(0.0, 0.0)]
    for n in range(1, ARC_STEPS):
        turn = sweep * n / ARC_STEPS
        points.append((out * radius_mm * math.sin(turn), radius_mm - out * radius_mm * math.cos(turn)))
    points.append((radius_mm * math.sin(sweep), radius_mm - radius_mm * math.cos(sweep)))
    return tuple(points)


def area_keeping(sweep_rad: float, steps: int) -> float:
    """Return by how much the inner corners of a polyline for an arc stand out, so that its sector keeps its area.

    With both ends on the arc, `2·s·sin δ + (steps − 2)·s²·sin δ = steps·δ`, where δ is the step.
    """
    step = sweep_rad / steps
    if step == 0:
        return 1.0
    a, b, c = (steps - 2), 2.0, -steps * step / math.sin(step)
    return (-b + math.sqrt(b * b - 4 * a * c)) / (2 * a)


def _arc_setback(radius_mm: float, angle_deg: float, depth_mm: float) -> float:
    angle = math.radians(angle_deg)
    return radius_mm * math.cos(angle) + (depth_mm - radius_mm * (1 - math.sin(angle))) * math.tan(angle)


def setback_at(edge: tuple[Point, ...], height_mm: float) -> float:
    """Return the setback of an edge at a height [mm]; on a level part the larger one."""
    if height_mm >= edge[-1][1]:
        return edge[-1][0]
    corners = [s for s, y in edge if y == height_mm]
    if corners:
        return max(corners)
    for (s1, y1), (s2, y2) in pairwise(edge):
        if y1 < height_mm < y2:
            return s1 + (s2 - s1) * (height_mm - y1) / (y2 - y1)
    return edge[0][0]


def between(edge: tuple[Point, ...], low_mm: float, high_mm: float) -> tuple[Point, ...]:
    """Return the part of an edge between two heights."""
    inner = [(s, y) for s, y in edge if low_mm < y < high_mm]
    start, end = (setback_at(edge, low_mm), low_mm), (setback_at(edge, high_mm), high_mm)
    level = [(s, y) for s, y in edge if y == low_mm and (s, y) != start]
    return tuple(dict.fromkeys((*sorted(level), start, *inner, end)))
