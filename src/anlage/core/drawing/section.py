"""The section of a joint to scale: members, grooves, caps, backing, and a dimension for every stated value."""

import math
from collections.abc import Callable, Iterator

from anlage.core.drawing.cap_limit import CapLimit, cap_lines
from anlage.core.drawing.dimension import HANDLE_MM, Label, angular, linear
from anlage.core.drawing.display import Anchor, DisplayList, Item, Marker, Measure, Path, Point, Text, bounds
from anlage.core.joint import OPTIONAL, Measured, Preparation, Shape, Sketch, Turned, drawn_default, shape_of

Show = Callable[[float, str], str]  # value, kind of quantity -> text with unit

ROW_MM = 6.5  # paper: from one row of dimension lines to the next
LEADER_MM = 7.0  # paper: the value of a radius stands so far beyond its arc
ARC_MM = 9.0  # paper: an angle's arc stands clear of the work by this
FILLETS = ("fillet", "socket", "slip-on")  # what these weld is seen by its face alone
TEAR = ((0.0, 0.0), (0.44, 0.0), (0.47, -0.05), (0.53, 0.05), (0.56, 0.0), (1.0, 0.0))


def section(sketch: Sketch, *, scale: float, show: Show, measure: Measure, caps: CapLimit | None = None) -> DisplayList:
    """Return the section of a joint without faults, with its dimensions; ghosts of its fit-up where it has any.

    Parameters
    ----------
    sketch : the preparation; a dimension that is not stated says so instead of a value
    scale : paper millimetres per work millimetre
    show : writes a value with its unit, in the reader's system
    measure : measures a text, for the corners of the picture
    caps : how high a cap may be, where somebody limits it
    """
    shape = shape_of(sketch.preparation)
    limits = cap_lines(shape, caps) if caps is not None else ()
    items = (*metal(shape), *_ghosts(sketch), *_dimensions(sketch, shape, scale, show), *edges(shape), *limits)
    return DisplayList(items, scale, *bounds(items, scale, measure))


def profile(joint: Preparation, scale: float) -> DisplayList:
    """Return the bare section, without dimensions: a small drawing of itself at true proportion."""
    shape = shape_of(joint)
    hidden = {"cap"} if joint.make.form in FILLETS else {"cap", "face"}
    items = (*(item for item in metal(shape) if item.role not in hidden), *edges(shape))
    return DisplayList(items, scale, *bounds(items, scale, lambda _text, _height: 0.0))


def metal(shape: Shape) -> Iterator[Item]:
    """Yield backing, members, grooves and caps as areas."""
    if shape.backing:
        yield Path(role="backing", points=shape.backing, closed=True, target="joint/backing")
    for member in shape.members:
        yield Path(role="metal", points=member.outline, closed=True, target=member.target)
    for groove in shape.grooves:
        yield Path(role="groove", points=groove.outline, closed=True, target="joint")
        if groove.side == 0:
            yield Path(role="cap", points=groove.outline, closed=True, target="joint/buttering_mm")
        if groove.reinforcing:
            yield Path(role="cap", points=groove.outline, closed=True, target="joint/leg_mm")
        if groove.cap:
            yield Path(role="cap", points=groove.cap, closed=True, target="joint/reinforcement_mm")
        elif groove.side:
            yield Path(role="face", points=groove.mouth, target="joint/reinforcement_mm")
        if groove.root_cap:
            yield Path(role="cap", points=groove.root_cap, closed=True, target="joint/root_reinforcement_mm")


def _ghosts(sketch: Sketch) -> Iterator[Item]:
    """Yield the groove faces of the tightest and the widest fit-up: each groove without its mouth."""
    for ghost in sketch.ghosts:
        for groove in shape_of(ghost).grooves:
            if groove.side == 0:
                continue
            outline = groove.outline
            start = next(n for n, point in enumerate(outline) if math.dist(point, groove.mouth[0]) < 1e-6)
            yield Path(role="ghost", points=(*outline[start:], *outline[:start]))


def edges(shape: Shape) -> Iterator[Item]:
    """Yield the outlines of the members, last, so that no line is drawn over them; where they go on they are torn."""
    for member in shape.members:
        for line in member.lines:
            yield Path(role="edge", points=line)
        for line, following in zip(member.lines, (*member.lines[1:], member.lines[0]), strict=True):
            start, end = line[-1], following[0]
            along = (end[0] - start[0], end[1] - start[1])
            torn = tuple(
                (start[0] + u * along[0] - v * along[1], start[1] + u * along[1] + v * along[0]) for u, v in TEAR
            )
            yield Path(role="break", points=torn)


def _dimensions(sketch: Sketch, shape: Shape, scale: float, show: Show) -> Iterator[Item]:
    for each in shape.dimensions:
        value = getattr(sketch.preparation, each.field)
        stated = each.field not in sketch.unstated and value is not None
        kind = "angle" if isinstance(each, Turned) else "length"
        default = drawn_default(sketch.preparation, each.field) if each.field in OPTIONAL else 0.0
        said = show(value, kind) if stated else f"({show(default, kind)})" if default else _spoken(each.field)
        label = Label(said, f"joint/{each.field}", stated=stated or bool(default))
        if isinstance(each, Turned):
            yield from _turned(each, label, scale)
        elif each.field == "radius_mm" and each.away == 0:
            yield from _leader(each, label, scale)
        else:
            yield from _measured(each, label, scale)


def _spoken(field: str) -> str:
    return field.rpartition("_")[0].replace("_", " ")


def _measured(each: Measured, label: Label, scale: float) -> Iterator[Item]:
    side = -1.0 if each.away < 0 else 1.0
    offset = side * (each.clear_mm * scale + abs(each.away) * ROW_MM)
    yield from linear(each.start, each.end, label, offset_mm=offset, scale=scale)
    if each.field == "reinforcement_mm" and each.clear_mm:
        yield Path(role="extension", points=((0.0, each.end[1]), each.end))


def _leader(each: Measured, label: Label, scale: float) -> Iterator[Item]:
    """Yield a radius: an arrow from its centre to the arc, the value beyond it."""
    length = math.dist(each.start, each.end) or 1.0
    along = ((each.end[0] - each.start[0]) / length, (each.end[1] - each.start[1]) / length)
    beyond = (each.end[0] + along[0] * LEADER_MM / scale, each.end[1] + along[1] * LEADER_MM / scale)
    degrees = math.degrees(math.atan2(along[1], along[0]))
    yield Path(role="dimension", points=(each.start, beyond))
    yield Marker(role="dimension", at=each.end, kind="arrow", direction_deg=degrees)
    yield Marker(role="handle", at=beyond, kind="handle", target=label.target)
    side = -1.0 if along[0] < 0 else 1.0
    anchor: Anchor = "end" if side < 0 else "start"
    yield Text(role=label.role, at=beyond, text=f"R {label.text}" if label.stated else label.text, anchor=anchor,
               offset_mm=(2.2 * side, -1.0), target=label.target)  # fmt: skip


def _turned(each: Turned, label: Label, scale: float) -> Iterator[Item]:
    """Yield an angle about its apex, its arc clear of the plate and the cap."""
    opening = min(each.to_deg - each.from_deg, 100.0)
    radius = (each.radius_mm + ARC_MM / scale) / (math.cos(math.radians(opening / 4)) if opening < 180 else 1.0)
    for corner in each.reach:
        turn = math.atan2(corner[1] - each.apex[1], corner[0] - each.apex[0])
        end = (each.apex[0] + radius * math.cos(turn), each.apex[1] + radius * math.sin(turn))
        yield Path(role="extension", points=(corner, end))
    if len(each.reach) == 1:  # the other leg of the angle is no edge: draw it from the apex side
        for turn in (each.from_deg, each.to_deg):
            direction = (math.cos(math.radians(turn)), math.sin(math.radians(turn)))
            start = (each.apex[0] + each.radius_mm * direction[0], each.apex[1] + each.radius_mm * direction[1])
            end = (each.apex[0] + radius * direction[0], each.apex[1] + radius * direction[1])
            yield Path(role="extension", points=(start, end))
    yield from angular(each.apex, label, from_deg=each.from_deg, to_deg=each.to_deg, radius=radius)
    handle = radius + HANDLE_MM / scale
    turn = math.radians(each.from_deg if each.at_start else each.to_deg)
    place = (each.apex[0] + handle * math.cos(turn), each.apex[1] + handle * math.sin(turn))
    yield Marker(role="handle", at=place, kind="handle", target=label.target)


def grip(joint: Preparation, field: str, at: Point) -> float:
    """Return the value of a dimension whose handle stands at a point; differences of it are what a drag adds.

    Parameters
    ----------
    joint : the preparation at the start of the drag
    field : name of the dimension
    at : a point of the work [mm]

    Returns
    -------
    float : [mm], or [°] for an angle

    Examples
    --------
    >>> v = Preparation(kind="single-v", thickness_mm=10, root_opening_mm=3, groove_angle_deg=60)
    >>> grip(v, "root_opening_mm", (2.5, 0)) - grip(v, "root_opening_mm", (1.5, 0))
    2.0
    """
    return shape_of(joint).dimension(field).read(at)
