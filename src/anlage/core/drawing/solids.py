"""Plates and pipes in space, seen at a slant: what is in front hides what lies behind.

Glossary
--------
space : x to the right, y up, z away from the eye; lengths are free, a plate is about 2 long
slant : where a point away from the eye goes on paper, to the right and up, or down where the eye looks from below
"""

import math
from collections.abc import Iterable, Iterator, Sequence

from msgspec import Struct

from anlage.core.drawing.display import Item, Path, Point

Vector = tuple[float, float, float]
RIGHT, UP = 0.42, 0.30  # of the slant: own choice, so that three faces of a plate are seen
STEPS = 48  # of a circle


class Eye(Struct, frozen=True):
    """How space is seen: from above, or from below."""

    is_below: bool = False

    def on_paper(self, at: Vector) -> Point:
        """Return where a point of space lies in the picture."""
        x, y, z = at
        return (x + RIGHT * z, y + (-UP if self.is_below else UP) * z)

    def faces(self, normal: Vector) -> bool:
        """Return whether a face is seen."""
        return dot(normal, self.toward) > 1e-9

    @property
    def toward(self) -> Vector:
        """The direction to the eye."""
        return (RIGHT, -UP if self.is_below else UP, -1.0)


class Face(Struct, frozen=True):
    """A flat face in space: its corners, the way it looks, its role."""

    corners: tuple[Vector, ...]
    normal: Vector
    role: str


def dot(one: Vector, other: Vector) -> float:
    """Return the scalar product."""
    return sum(a * b for a, b in zip(one, other, strict=True))


def cross(one: Vector, other: Vector) -> Vector:
    """Return the vector product."""
    (a, b, c), (d, e, f) = one, other
    return (b * f - c * e, c * d - a * f, a * e - b * d)


def added(at: Vector, *moves: tuple[Vector, float]) -> Vector:
    """Return a point moved along directions by lengths."""
    x, y, z = at
    for (a, b, c), length in moves:
        x, y, z = x + a * length, y + b * length, z + c * length
    return (x, y, z)


def turned(vector: Vector, axis: Vector, degrees: float) -> Vector:
    """Return a vector turned about an axis of length 1 (Rodrigues' rotation)."""
    turn = math.radians(degrees)
    across, along = cross(axis, vector), dot(axis, vector) * (1 - math.cos(turn))
    return added((0.0, 0.0, 0.0), (vector, math.cos(turn)), (across, math.sin(turn)), (axis, along))


def box(middle: Vector, sides: Sequence[tuple[Vector, float]], role: str) -> list[Face]:
    """Return the faces of a box: three directions, each with half its size."""
    faces = []
    for place in range(3):
        (normal, half), (one, a), (other, b) = (sides[(place + k) % 3] for k in range(3))
        for sign in (1.0, -1.0):
            out = added((0.0, 0.0, 0.0), (normal, sign))
            corners = tuple(
                added(middle, (normal, sign * half), (one, p * a), (other, q * b))
                for p, q in ((1, 1), (1, -1), (-1, -1), (-1, 1))
            )
            faces.append(Face(corners, out, role))
    return faces


def drawn(faces: Iterable[Face], eye: Eye) -> Iterator[Item]:
    """Yield the faces that are seen, those farther away first, each with its outline."""
    seen = [face for face in faces if eye.faces(face.normal)]
    for face in sorted(seen, key=lambda each: sum(dot(corner, eye.toward) for corner in each.corners) / 4):
        points = tuple(map(eye.on_paper, face.corners))
        yield Path(role=face.role, points=points, closed=True)
        yield Path(role="face", points=(*points, points[0]))


def ring(middle: Vector, axis: Vector, radius: float) -> list[tuple[Vector, Vector]]:
    """Return the points of a circle about an axis, each with the way it looks; it begins at the top, or at the back."""
    top: Vector = (0.0, 1.0, 0.0) if abs(axis[1]) < 0.99 else (0.0, 0.0, 1.0)
    up = added(top, (axis, -dot(top, axis)))
    length = math.sqrt(dot(up, up))
    up = (up[0] / length, up[1] / length, up[2] / length)
    outs = [turned(up, axis, 360.0 * n / STEPS) for n in range(STEPS)]
    return [(added(middle, (out, radius)), out) for out in outs]


def tube(ends: tuple[Vector, Vector], axis: Vector, radius: float, eye: Eye) -> Iterator[Item]:
    """Yield a pipe between two ends: its body, and the mouth that is seen."""
    first, last = (ring(end, axis, radius) for end in ends)
    body = _hull([eye.on_paper(point) for point, _ in (*first, *last)])
    yield Path(role="metal", points=tuple(body), closed=True)
    yield Path(role="face", points=(*body, body[0]))
    mouth = last if eye.faces(axis) else first
    for share, role in ((1.0, "metal"), (0.78, "groove")):
        end = ends[1] if eye.faces(axis) else ends[0]
        points = tuple(eye.on_paper(added(end, (out, radius * share))) for _, out in mouth)
        yield Path(role=role, points=points, closed=True)
        yield Path(role="face", points=(*points, points[0]))


def _hull(points: Iterable[Point]) -> list[Point]:
    """Return the corners of the least convex area that holds some points (Andrew's monotone chain)."""
    ordered = sorted(set(points))
    chains: list[list[Point]] = []
    for each in (ordered, ordered[::-1]):
        chain: list[Point] = []
        for point in each:
            while len(chain) > 1 and _turn(chain[-2], chain[-1], point) <= 0:
                chain.pop()
            chain.append(point)
        chains.append(chain[:-1])
    return chains[0] + chains[1]


def _turn(one: Point, two: Point, three: Point) -> float:
    return (two[0] - one[0]) * (three[1] - one[1]) - (two[1] - one[1]) * (three[0] - one[0])
