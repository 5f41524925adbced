"""The pictures of an open procedure: from its value, the reader's units and what is chosen to display lists."""

from collections.abc import Callable
from dataclasses import dataclass, replace
from types import MappingProxyType

from anlage.core.beads import Layout
from anlage.core.document import kept
from anlage.core.drawing import (
    Amiss,
    Axes,
    DisplayList,
    Marked,
    Measure,
    PassBox,
    Plane,
    bead_map,
    fitted,
    operating_window,
    outlined_map,
    section,
)
from anlage.core.joint import KINDS, MAKES, Family, Kind, Point, Shape, Sketch, faults
from anlage.core.procedure import Joint, Wps, pass_energy, pass_power, sketch_of
from anlage.core.quantities import show
from anlage.core.quantities.units import System
from anlage.data.tables import unit_table
from anlage.session.beads import OVER_MM, bead_layout, joint_shape


@dataclass(frozen=True, slots=True)
class Sheet:
    """What a picture is drawn on: room on paper [mm], the reader's units, and how texts are measured."""

    width_mm: float
    height_mm: float
    system: System
    measure: Measure


def drawable(joint: Joint) -> Sketch | None:
    """Return the joint as a sketch that can be drawn; `None` when no kind is chosen or its values clash."""
    sketch = sketch_of(joint)
    return None if sketch is None or faults(sketch.preparation) else sketch


def section_picture(sketch: Sketch, sheet: Sheet) -> DisplayList:
    """Return the section with its dimensions, as large as the sheet lets it."""
    return fitted(lambda scale: section_at(sketch, sheet, scale), sheet.width_mm, sheet.height_mm)


def section_at(sketch: Sketch, sheet: Sheet, scale: float) -> DisplayList:
    """Return the section at a scale, for a drag that must not change it."""

    def say(value: float, kind: str) -> str:
        return show(value, kind, sheet.system, unit_table())

    return section(sketch, scale=scale, show=say, measure=sheet.measure)


def chooser_sketch(joint: Joint, kind: Kind) -> Sketch:
    """Return a preparation with the values of a joint as far as they fit it, else with those of a picture."""
    sketch = drawable(joint.model_copy(update={"kind": kind})) or drawable(Joint(kind=kind))
    assert sketch is not None, kind
    return sketch


@dataclass(frozen=True, slots=True)
class Choices:
    """What the chooser offers: the families, the kinds of one family, and the other ways to weld the chosen form."""

    families: tuple[Family, ...]
    kinds: tuple[Kind, ...]
    ways: tuple[tuple[str, Kind], ...]


WAYS = {(1, False): "One side", (2, False): "Both sides", (1, True): "On backing"}


def choices_of(family: Family, kind: Kind | None) -> Choices:
    """Return what the chooser offers in a family: each form once, welded as the chosen kind where it can be.

    Examples
    --------
    >>> choices_of("butt", "double-v").kinds[1:3]
    ('double-v', 'double-bevel')
    """
    make = MAKES[kind] if kind else None
    forms: dict[str, list[Kind]] = {}
    for each in KINDS:
        if MAKES[each].family == family:
            forms.setdefault(MAKES[each].form, []).append(each)

    def alike(each: Kind) -> bool:
        return make is not None and (MAKES[each].sides, MAKES[each].backing) == (make.sides, make.backing)

    kinds = tuple(next((each for each in row if alike(each)), row[0]) for row in forms.values())
    own = forms.get(make.form, []) if make and make.family == family else []
    ways = tuple((WAYS[MAKES[each].sides, MAKES[each].backing], each) for each in own)
    return Choices(FAMILIES, kinds, ways if len(ways) > 1 else ())


FAMILIES: tuple[Family, ...] = ("butt", "tee", "corner", "lap", "flare", "pipe", "surface")
FAMILY_WORDS = {"butt": "Butt", "tee": "T", "corner": "Corner", "lap": "Lap", "flare": "Flare", "pipe": "Pipe",
                "surface": "Plug"}  # fmt: skip


def bead_picture(
    wps: Wps, chosen: str, sheet: Sheet, *, heated: bool = True, mismatch_mm: float = 0.0
) -> DisplayList | None:
    """Return the map of all beads in the section; `None` when the section cannot be drawn.

    On paper that shows no heat the beads carry none: hatch and numbers tell them apart.
    """
    shape, found = joint_shape(wps, mismatch_mm), bead_layout(wps, mismatch_mm)
    if shape is None or found is None:
        return None
    shown = marked(wps, chosen)
    if not heated:
        shown = {key: replace(each, heat=None) for key, each in shown.items()}
    beads = [(bead, shown[bead.key]) for bead in found.beads]

    stated = {groove.side: groove.cap_mm for groove in shape.grooves}
    otherwise = any(abs(each.reach_mm - stated[each.side]) > OVER_MM for each in found.fillings)
    amiss = Amiss(found.empty, otherwise) if beads else None

    def make(scale: float) -> DisplayList:
        return bead_map(shape, beads, scale=scale, measure=sheet.measure, amiss=amiss)

    return fitted(make, sheet.width_mm, sheet.height_mm, _outlined(shape, found, sheet))


def _outlined(shape: Shape, found: Layout, sheet: Sheet) -> Callable[[float], DisplayList]:
    return lambda scale: outlined_map(shape, found.beads, scale=scale, measure=sheet.measure)


def weld_extent(wps: Wps, sheet: Sheet) -> tuple[tuple[Point, Point], float] | None:
    """Return the corners of the weld in the section, without the plate beside it, and the scale of the whole map.

    `None` when it cannot be drawn.
    """
    shape, found = joint_shape(wps), bead_layout(wps)
    if shape is None or found is None or not shape.grooves:
        return None
    whole = fitted(_outlined(shape, found, sheet), sheet.width_mm, sheet.height_mm).scale
    points = [point for each in shape.grooves for point in (*each.outline, *each.cap, *each.root_cap)]
    xs, ys = zip(*points, strict=True)
    return ((min(xs), min(ys)), (max(xs), max(ys))), whole


def marked(wps: Wps, chosen: str = "") -> dict[str, Marked]:
    """Return how every pass is marked in the bead map."""
    homes = {each.id: each for each in wps.deposits}
    found = {}
    for number, each in enumerate(wps.passes, 1):
        energy = pass_energy(each)
        heat = energy.high.energy_kj_mm if energy else None
        process = homes[each.deposit].process or ""
        found[each.id] = Marked(f"passes/{each.id}", str(number), process, heat, chosen=each.id == chosen)
    return found


def boxes(wps: Wps, chosen: str = "") -> tuple[PassBox, ...]:
    """Return every pass whose current, voltage and speed are stated as a box."""
    found = []
    for number, each in enumerate(wps.passes, 1):
        power = pass_power(each)
        if power is not None and each.travel_speed_mm_min is not None:
            target, is_chosen = f"passes/{each.id}", each.id == chosen
            found.append(PassBox(target, str(number), each.travel_speed_mm_min, power, chosen=is_chosen))
    return tuple(found)


_ROOM_MM = (24.0, 20.0)  # what numbers and names take round the plane


def plane_of(wps: Wps, sheet: Sheet) -> Plane:
    """Return the plane of the operating window with room for every pass."""
    size = (max(sheet.width_mm - _ROOM_MM[0], 20.0), max(sheet.height_mm - _ROOM_MM[1], 15.0))
    return Plane.around(boxes(wps), size)


def window_picture(wps: Wps, chosen: str, plane: Plane, sheet: Sheet) -> DisplayList:
    """Return the operating window of the passes on a plane."""
    return operating_window(boxes(wps, chosen), AXES[sheet.system], plane, sheet.measure)


def _axes(system: System) -> Axes:
    speed, energy = (unit_table()[kind].shown_in[system][0] for kind in ("speed", "heat_input"))
    return Axes(speed.name, speed.factor, energy.name, energy.factor)


AXES = MappingProxyType({"si": _axes("si"), "us": _axes("us")})


@kept
def heat_span(wps: Wps) -> tuple[float, float] | None:
    """Return the coldest and the hottest arc energy of all passes [kJ/mm], for the heat scale."""
    energies = [energy.interval for each in wps.passes if (energy := pass_energy(each))]
    if not energies:
        return None
    return min(each.low for each in energies), max(each.high for each in energies)
