"""The pictures of an open procedure: from its value, the reader's units and what is chosen to display lists."""

from dataclasses import dataclass
from types import MappingProxyType

from anlage.core.drawing import (
    Axes,
    DisplayList,
    Layer,
    Measure,
    PassBox,
    Plane,
    bead_stack,
    fitted,
    heights,
    operating_window,
    section,
)
from anlage.core.joint import KINDS, Sketch, faults
from anlage.core.procedure import Joint, Wps, pass_energy, pass_power, sketch_of
from anlage.core.quantities import show
from anlage.core.quantities.units import System
from anlage.data.tables import unit_table


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


def chooser_sketches(joint: Joint) -> dict[str, Sketch]:
    """Return every preparation with the values of a joint as far as they fit it, else with those of a picture."""
    found = {}
    for kind in KINDS:
        sketch = drawable(joint.model_copy(update={"kind": kind})) or drawable(Joint(kind=kind))
        assert sketch is not None, kind
        found[kind] = sketch
    return found


def stack_picture(wps: Wps, chosen: str, sheet: Sheet) -> DisplayList | None:
    """Return the stack of passes in the section; `None` when the section cannot be drawn."""
    sketch = drawable(wps.joint)
    if sketch is None:
        return None
    stack = layers(wps, chosen)

    def make(scale: float) -> DisplayList:
        return bead_stack(sketch, stack, scale=scale, measure=sheet.measure)

    return fitted(make, sheet.width_mm, sheet.height_mm)


def layers(wps: Wps, chosen: str = "") -> tuple[Layer, ...]:
    """Return every pass as a layer; its thickness is the middle of what is stated."""
    found = []
    for number, each in enumerate(wps.passes, 1):
        energy, thick = pass_energy(each), each.thickness_mm
        middle = None if thick is None else (thick.low + thick.high) / 2
        heat = energy.high.energy_kj_mm if energy else None
        found.append(Layer(f"passes/{each.id}", str(number), middle, heat, chosen=each.id == chosen))
    return tuple(found)


def layer_bottom(wps: Wps, pass_id: str) -> float:
    """Return the height at which the layer of a pass starts [mm]."""
    sketch = drawable(wps.joint)
    assert sketch is not None, "a layer is drawn"
    reach = dict(zip((each.id for each in wps.passes), heights(sketch.preparation, layers(wps)), strict=True))
    return reach[pass_id][0]


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


def heat_span(wps: Wps) -> tuple[float, float] | None:
    """Return the coldest and the hottest arc energy of all passes [kJ/mm], for the heat scale."""
    energies = [energy.interval for each in wps.passes if (energy := pass_energy(each))]
    if not energies:
        return None
    return min(each.low for each in energies), max(each.high for each in energies)
