"""The section of a joint to scale: members, groove, cap, backing, and a dimension for every stated value."""

import math
from collections.abc import Callable, Iterator

from anlage.core.drawing.dimension import HANDLE_MM, Label, angular, linear
from anlage.core.drawing.display import DisplayList, Item, Marker, Measure, Path, Point, bounds
from anlage.core.joint import Preparation

Show = Callable[[float, str], str]  # value, kind of quantity -> text with unit

SIDE = 1.6  # plate shown beside the groove, in thicknesses
BACKING = 0.45  # thickness of the drawn backing bar, in thicknesses; a picture, not a size


def section(joint: Preparation, *, scale: float, show: Show, measure: Measure) -> DisplayList:
    """Return the section of a joint without faults, with its dimensions.

    Parameters
    ----------
    joint : the preparation
    scale : paper millimetres per work millimetre
    show : writes a value with its unit, in the reader's system
    measure : measures a text, for the corners of the picture
    """
    items = (*_metal(joint), *_dimensions(joint, scale, show), *_edges(joint))
    return DisplayList(items, scale, *bounds(items, scale, measure))


def _member(joint: Preparation) -> tuple[Point, ...]:
    """Return the right member, from the root up its prepared edge and round."""
    half, wide, top = joint.root_opening_mm / 2, joint.face_width_mm / 2, joint.thickness_mm
    far = wide + SIDE * top
    edge = ((half, 0.0), (half, top)) if joint.is_square else ((half, 0.0), (half, joint.root_face_mm), (wide, top))
    return (*edge, (far, top), (far, 0.0))


def _metal(joint: Preparation) -> Iterator[Item]:
    top, right = joint.thickness_mm, _member(joint)
    if joint.kind.endswith("backing"):
        reach, depth = joint.root_opening_mm / 2 + top, -BACKING * top
        bar = ((-reach, depth), (reach, depth), (reach, 0.0), (-reach, 0.0))
        yield Path(role="backing", points=bar, closed=True, target="joint/backing")
    yield Path(role="metal", points=_mirrored(right), closed=True, target="metals/one")
    yield Path(role="metal", points=right, closed=True, target="metals/other")
    yield Path(role="groove", points=joint.groove_outline, closed=True, target="joint")
    if joint.reinforcement_mm:
        yield Path(role="cap", points=_cap(joint), closed=True, target="joint/reinforcement_mm")


def _edges(joint: Preparation) -> Iterator[Item]:
    """Yield the outlines of both members last, so that no other line is drawn over them."""
    for points in (_member(joint), _mirrored(_member(joint))):
        yield Path(role="edge", points=points, closed=True)


def _mirrored(points: tuple[Point, ...]) -> tuple[Point, ...]:
    return tuple((-x, y) for x, y in points)


def _cap(joint: Preparation) -> tuple[Point, ...]:
    """Return the cap as the parabola that its area is counted by."""
    half, height, steps = joint.face_width_mm / 2, joint.reinforcement_mm, 32
    places = [half - 2 * half * n / steps for n in range(steps + 1)]
    return tuple((x, joint.thickness_mm + height * (1 - (x / half) ** 2 if half else 0.0)) for x in places)


def _dimensions(joint: Preparation, scale: float, show: Show) -> Iterator[Item]:
    half, wide, top = joint.root_opening_mm / 2, joint.face_width_mm / 2, joint.thickness_mm
    far = wide + SIDE * top
    below = -BACKING * top if joint.kind.endswith("backing") else 0.0

    def label(value: float, field: str) -> Label:
        return Label(show(value, "length"), f"joint/{field}")

    opening = label(joint.root_opening_mm, "root_opening_mm")
    yield from linear((-half, 0.0), (half, 0.0), opening, offset_mm=below * scale - 7.0, scale=scale)
    thickness = label(top, "thickness_mm")
    yield from linear((far, 0.0), (far, top), thickness, offset_mm=-6.0, scale=scale)
    if joint.root_face_mm:
        face = label(joint.root_face_mm, "root_face_mm")
        yield from linear((-far, 0.0), (-far, joint.root_face_mm), face, offset_mm=6.0, scale=scale)
    if joint.reinforcement_mm:
        cap, aside = label(joint.reinforcement_mm, "reinforcement_mm"), (wide + 0.5 * top) * scale
        yield from linear((0.0, top), (0.0, top + joint.reinforcement_mm), cap, offset_mm=aside, scale=scale)
    if not joint.is_square:
        yield from _groove_angle(joint, scale, show)


def _groove_angle(joint: Preparation, scale: float, show: Show) -> Iterator[Item]:
    """Yield the included angle about the point where both faces would meet, its arc above the plate and the cap."""
    tangent = math.tan(math.radians(joint.groove_angle_deg / 2))
    apex = (0.0, joint.root_face_mm - joint.root_opening_mm / 2 / tangent)
    radius = joint.thickness_mm + joint.reinforcement_mm - apex[1] + 9.0 / scale
    radius /= math.cos(math.radians(min(joint.groove_angle_deg, 100.0) / 4))
    sides = (90 - joint.groove_angle_deg / 2, 90 + joint.groove_angle_deg / 2)
    for side in sides:
        reach = (radius * math.cos(math.radians(side)), apex[1] + radius * math.sin(math.radians(side)))
        corner = (math.copysign(joint.face_width_mm / 2, reach[0]), joint.thickness_mm)
        yield Path(role="extension", points=(corner, reach))
    label = Label(show(joint.groove_angle_deg, "angle"), "joint/groove_angle_deg")
    yield from angular(apex, label, from_deg=sides[0], to_deg=sides[1], radius=radius)
    handle = radius + HANDLE_MM / scale
    place = (apex[0] + handle * math.cos(math.radians(sides[0])), apex[1] + handle * math.sin(math.radians(sides[0])))
    yield Marker(role="handle", at=place, kind="handle", target=label.target)
