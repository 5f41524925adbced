"""The section of a joint to scale: members, groove, cap, backing, and a dimension for every stated value."""

import math
from collections.abc import Callable, Iterator

from anlage.core.drawing.dimension import HANDLE_MM, Label, angular, linear
from anlage.core.drawing.display import DisplayList, Item, Marker, Measure, Path, Point, bounds
from anlage.core.joint import Preparation, Sketch

Show = Callable[[float, str], str]  # value, kind of quantity -> text with unit
_Said = Callable[[float, str, str], Label]  # value, kind of quantity, field of the joint

UPRIGHT_MM = 1e-6  # a height of zero keeps its direction
SIDE = 1.0  # plate shown beside the groove, in thicknesses
BACKING = 0.45  # thickness of the drawn backing bar, in thicknesses; a picture, not a size


def section(sketch: Sketch, *, scale: float, show: Show, measure: Measure) -> DisplayList:
    """Return the section of a joint without faults, with its dimensions; ghosts of its fit-up where it has any.

    Parameters
    ----------
    sketch : the preparation; a dimension that is not stated says so instead of a value
    scale : paper millimetres per work millimetre
    show : writes a value with its unit, in the reader's system
    measure : measures a text, for the corners of the picture
    """
    joint = sketch.preparation

    def said(value: float, kind: str, field: str) -> Label:
        stated = field not in sketch.unstated
        return Label(show(value, kind) if stated else _spoken(field), f"joint/{field}", stated=stated)

    items = (*metal(joint), *_ghosts(sketch), *_dimensions(joint, scale, said), *edges(joint))
    return DisplayList(items, scale, *bounds(items, scale, measure))


def profile(joint: Preparation, scale: float) -> DisplayList:
    """Return the bare section, without dimensions: a small drawing of itself at true proportion."""
    items = (*(item for item in metal(joint) if item.role != "cap"), *edges(joint))
    return DisplayList(items, scale, *bounds(items, scale, lambda _text, _height: 0.0))


def _spoken(field: str) -> str:
    return field.rpartition("_")[0].replace("_", " ")


def _member(joint: Preparation) -> tuple[Point, ...]:
    """Return the right member, from the root up its prepared edge and round."""
    half, wide, top = joint.root_opening_mm / 2, joint.face_width_mm / 2, joint.thickness_mm
    far = wide + SIDE * top
    edge = ((half, 0.0), (half, top)) if joint.is_square else ((half, 0.0), (half, joint.root_face_mm), (wide, top))
    return (*edge, (far, top), (far, 0.0))


def metal(joint: Preparation) -> Iterator[Item]:
    """Yield backing, both members, the groove and the cap as areas."""
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


def _ghosts(sketch: Sketch) -> Iterator[Item]:
    """Yield the groove faces of the tightest and the widest fit-up."""
    for ghost in sketch.ghosts:
        half, wide, top = ghost.root_opening_mm / 2, ghost.face_width_mm / 2, ghost.thickness_mm
        face = ((half, 0.0), (half, top if ghost.is_square else ghost.root_face_mm), (wide, top))
        yield Path(role="ghost", points=face)
        yield Path(role="ghost", points=_mirrored(face))


def edges(joint: Preparation) -> Iterator[Item]:
    """Yield the outlines of both members, last, so that no line is drawn over them; their far ends are broken off."""
    *face, above, below = _member(joint)
    outline = (below, *face, above)
    height = above[1] - below[1]
    steps = ((0.0, 0.0), (0.0, 0.44), (0.05, 0.47), (-0.05, 0.53), (0.0, 0.56), (0.0, 1.0))
    torn = tuple((below[0] + x * height, below[1] + y * height) for x, y in steps)
    for side in (outline, _mirrored(outline)):
        yield Path(role="edge", points=side)
    for side in (torn, _mirrored(torn)):
        yield Path(role="break", points=side)


def _mirrored(points: tuple[Point, ...]) -> tuple[Point, ...]:
    return tuple((-x, y) for x, y in points)


def _cap(joint: Preparation) -> tuple[Point, ...]:
    """Return the cap as the parabola that its area is counted by."""
    half, height, steps = joint.face_width_mm / 2, joint.reinforcement_mm, 32
    places = [half - 2 * half * n / steps for n in range(steps + 1)]
    return tuple((x, joint.thickness_mm + height * (1 - (x / half) ** 2 if half else 0.0)) for x in places)


def _dimensions(joint: Preparation, scale: float, said: _Said) -> Iterator[Item]:
    half, wide, top = joint.root_opening_mm / 2, joint.face_width_mm / 2, joint.thickness_mm
    far = wide + SIDE * top
    below = -BACKING * top if joint.kind.endswith("backing") else 0.0

    opening = said(joint.root_opening_mm, "length", "root_opening_mm")
    yield from linear((-half, 0.0), (half, 0.0), opening, offset_mm=below * scale - 7.0, scale=scale)
    thickness = said(top, "length", "thickness_mm")
    yield from linear((far, 0.0), (far, top), thickness, offset_mm=-6.0, scale=scale)
    if not joint.is_square:
        face = said(joint.root_face_mm, "length", "root_face_mm")
        yield from linear((-far, 0.0), (-far, max(joint.root_face_mm, UPRIGHT_MM)), face, offset_mm=6.0, scale=scale)
    cap = said(joint.reinforcement_mm, "length", "reinforcement_mm")
    crown = top + max(joint.reinforcement_mm, UPRIGHT_MM)
    yield from linear((-wide, top), (-wide, crown), cap, offset_mm=0.4 * top * scale, scale=scale)
    yield Path(role="extension", points=((0.0, crown), (-wide, crown)))
    if not joint.is_square:
        yield from _groove_angle(joint, scale, said)


def groove_apex(joint: Preparation) -> Point:
    """Return the point where both faces of a V would meet, about which its angle is measured."""
    tangent = math.tan(math.radians(joint.groove_angle_deg / 2))
    return (0.0, joint.root_face_mm - joint.root_opening_mm / 2 / tangent)


def grip(joint: Preparation, field: str, at: Point) -> float:
    """Return the value of a dimension whose handle stands at a point; differences of it are what a drag adds.

    Parameters
    ----------
    joint : the preparation at the start of the drag
    field : name of the dimension
    at : a point of the work [mm]

    Returns
    -------
    float : [mm], or [°] for the groove angle

    Examples
    --------
    >>> v = Preparation(kind="single-v", thickness_mm=10, root_opening_mm=3, groove_angle_deg=60)
    >>> grip(v, "root_opening_mm", (2.5, 0)) - grip(v, "root_opening_mm", (1.5, 0))
    2.0
    """
    if field == "root_opening_mm":  # the joint stays centred on its opening: the handle goes half the way
        return 2 * at[0]
    if field == "groove_angle_deg":
        apex = groove_apex(joint)
        return 2 * math.degrees(math.atan2(at[0] - apex[0], at[1] - apex[1]))
    return at[1]


def _groove_angle(joint: Preparation, scale: float, said: _Said) -> Iterator[Item]:
    """Yield the included angle about the point where both faces would meet, its arc above the plate and the cap."""
    apex = groove_apex(joint)
    radius = joint.thickness_mm + joint.reinforcement_mm - apex[1] + 9.0 / scale
    radius /= math.cos(math.radians(min(joint.groove_angle_deg, 100.0) / 4))
    sides = (90 - joint.groove_angle_deg / 2, 90 + joint.groove_angle_deg / 2)
    for side in sides:
        reach = (radius * math.cos(math.radians(side)), apex[1] + radius * math.sin(math.radians(side)))
        corner = (math.copysign(joint.face_width_mm / 2, reach[0]), joint.thickness_mm)
        yield Path(role="extension", points=(corner, reach))
    label = said(joint.groove_angle_deg, "angle", "groove_angle_deg")
    yield from angular(apex, label, from_deg=sides[0], to_deg=sides[1], radius=radius)
    handle = radius + HANDLE_MM / scale
    place = (apex[0] + handle * math.cos(math.radians(sides[0])), apex[1] + handle * math.sin(math.radians(sides[0])))
    yield Marker(role="handle", at=place, kind="handle", target=label.target)
