"""The stack of passes in the section: each pass one layer across the groove, as thick as it is stated.

The width of a bead follows from its deposit area, which a pass does not state yet; so a layer here says where in the
thickness a pass lies and in what order, and nothing about its width.
"""

from collections.abc import Iterator, Sequence
from dataclasses import dataclass

from anlage.core.drawing.display import DisplayList, Item, Marker, Measure, Path, Point, Text, bounds
from anlage.core.drawing.section import edges, metal
from anlage.core.joint import Preparation, Sketch

STEPS = 24  # corners of the curve of a layer that stands over the plate
LABEL_MM, PLATE_MM = 2.8, 3.8
LEAST_HALF_MM = 0.3  # a closed root still shows its layer


@dataclass(frozen=True, slots=True)
class Layer:
    """One pass in the stack: where it is stated, its number, thickness [mm] or `None`, and hottest energy [kJ/mm]."""

    target: str
    label: str
    thickness_mm: float | None = None
    heat: float | None = None
    chosen: bool = False


def bead_stack(sketch: Sketch, layers: Sequence[Layer], *, scale: float, measure: Measure) -> DisplayList:
    """Return the section with a layer a pass, root first; passes without thickness share what is left, dashed.

    Parameters
    ----------
    sketch : the joint
    layers : the passes in the order they are laid
    scale : paper millimetres per work millimetre
    measure : measures a text, for the corners of the picture
    """
    joint = sketch.preparation
    stack = tuple(zip(layers, heights(joint, layers), strict=True))
    laid = [item for layer, (low, high) in stack for item in _layer(joint, layer, low, high)]
    labels = [item for layer, ends in stack for item in _label(layer, ends, scale, measure)]
    labels += [_handle(joint, layer, ends) for layer, ends in stack if layer.chosen]
    items = (*(item for item in metal(joint) if item.role != "cap"), *edges(joint), *laid, *labels)
    return DisplayList(items, scale, *bounds(items, scale, measure))


def heights(joint: Preparation, layers: Sequence[Layer]) -> tuple[Point, ...]:
    """Return from which to which height [mm] each layer reaches; those without thickness share what is left equally.

    Examples
    --------
    >>> v = Preparation(kind="single-v", thickness_mm=10, root_opening_mm=3, groove_angle_deg=60)
    >>> heights(v, [Layer("passes/p1", "1", 3.0), Layer("passes/p2", "2"), Layer("passes/p3", "3")])
    ((0.0, 3.0), (3.0, 6.5), (6.5, 10.0))
    """
    stated = [layer.thickness_mm for layer in layers if layer.thickness_mm is not None]
    open_layers = len(layers) - len(stated)
    left = joint.thickness_mm + joint.reinforcement_mm - sum(stated)
    share = max(left / open_layers, joint.thickness_mm / 20) if open_layers else 0.0
    found: list[Point] = []
    height = 0.0
    for layer in layers:
        top = height + (share if layer.thickness_mm is None else layer.thickness_mm)
        found.append((height, top))
        height = top
    return tuple(found)


def _layer(joint: Preparation, layer: Layer, low: float, high: float) -> Iterator[Item]:
    corner = [(half, joint.root_face_mm) for half in (joint.root_opening_mm / 2,) if low < joint.root_face_mm < high]
    surface = [(joint.face_width_mm / 2, joint.thickness_mm)] if low < joint.thickness_mm < high else []
    right = [(max(x, LEAST_HALF_MM), y) for x, y in (*corner, *surface)]
    left = [(-x, y) for x, y in reversed(right)]
    bottom, top = _across(joint, low), _across(joint, high)
    points = (*bottom, *right, *reversed(top), *left)
    unstated = layer.thickness_mm is None
    yield Path(role="layer", points=points, closed=True, target=layer.target, heat=layer.heat)
    role = "chosen" if layer.chosen else "sketched" if unstated else "outline"
    yield Path(role=role, points=(*points, points[0]), target=layer.target)


def _across(joint: Preparation, height: float) -> tuple[Point, ...]:
    """Return the way across the groove at a height, left to right; over the plate a parabola like the cap's."""
    top = joint.thickness_mm
    if height > top:
        half, rise = joint.face_width_mm / 2, height - top
        xs = [-half + 2 * half * n / STEPS for n in range(STEPS + 1)]
        return tuple((x, top + rise * (1 - (x / half) ** 2 if half else 0.0)) for x in xs)
    half = joint.root_opening_mm / 2
    if height > joint.root_face_mm and not joint.is_square:
        share = (height - joint.root_face_mm) / (top - joint.root_face_mm)
        half += share * (joint.face_width_mm / 2 - half)
    half = max(half, LEAST_HALF_MM)
    return ((-half, height), (half, height))


def _handle(joint: Preparation, layer: Layer, ends: Point) -> Marker:
    """Return the handle by which the thickness of the chosen layer is dragged, at the right of its upper edge."""
    x = _across(joint, min(ends[1], joint.thickness_mm))[-1][0]
    return Marker(role="handle", at=(0.6 * x, ends[1]), kind="handle", target=f"{layer.target}/thickness_mm")


def _label(layer: Layer, ends: Point, scale: float, measure: Measure) -> Iterator[Item]:
    low, high = ends
    half = (measure(layer.label, LABEL_MM) + 1.6) / 2 / scale
    middle, reach = (low + high) / 2, PLATE_MM / 2 / scale
    plate = ((-half, middle - reach), (half, middle - reach), (half, middle + reach), (-half, middle + reach))
    yield Path(role="plate", points=plate, closed=True, target=layer.target)
    yield Text(role="value", at=(0.0, middle), text=layer.label, offset_mm=(0.0, -1.0), target=layer.target)
