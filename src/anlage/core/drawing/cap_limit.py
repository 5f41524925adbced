"""How high a cap may be, as a line over it in a section."""

import math
from collections.abc import Iterator

from msgspec import Struct

from anlage.core.drawing.display import Item, Path, Point, Text
from anlage.core.joint import Shape

BEYOND_MM = 1.5  # of work: how far the line goes beyond the mouth
LABEL_MM = 2.6
TARGET = "joint/reinforcement_mm"


class CapLimit(Struct, frozen=True):
    """The most that a cap may stand over the surface [mm], how it is written, and whether the one drawn is over it."""

    most_mm: float
    text: str
    is_exceeded: bool = False


def cap_lines(shape: Shape, limit: CapLimit) -> Iterator[Item]:
    """Yield a line over each cap of a joint, as high as it may be, and what it says at its end."""
    role = "gap" if limit.is_exceeded else "limit_other"
    for number, groove in enumerate(each for each in shape.grooves if each.cap and len(each.mouth) > 1):
        start, end = groove.mouth[0], groove.mouth[-1]
        along = math.dist(start, end)
        if not along:
            continue
        ux, uy = (end[0] - start[0]) / along, (end[1] - start[1]) / along
        top = max(groove.cap, key=lambda point: abs(_across(point, start, (ux, uy))))
        up = math.copysign(limit.most_mm, _across(top, start, (ux, uy)))
        nx, ny = -uy * up, ux * up
        left = (start[0] - ux * BEYOND_MM + nx, start[1] - uy * BEYOND_MM + ny)
        right = (end[0] + ux * BEYOND_MM + nx, end[1] + uy * BEYOND_MM + ny)
        yield Path(role=role, points=(left, right), target=TARGET)
        if number == 0:
            yield Text(role="tick", at=max(left, right), text=limit.text, height_mm=LABEL_MM, anchor="start",
                       offset_mm=(4.0, -0.9), target=TARGET)  # fmt: skip


def _across(point: Point, start: Point, along: Point) -> float:
    """Return how far a point lies to the left of a line."""
    return along[0] * (point[1] - start[1]) - along[1] * (point[0] - start[0])
