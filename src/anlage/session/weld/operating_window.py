"""The operating window of an open procedure: every pass as a box over speed and power, and the heat scale."""

from collections.abc import Sequence
from types import MappingProxyType

from anlage.core.drawing import DisplayList
from anlage.core.drawing.operating_window import Axes, HeatLimit, PassBox, Plane, operating_window
from anlage.core.procedure import Wps, pass_power
from anlage.core.quantities.units import System
from anlage.data.tables import unit_table
from anlage.session.weld.picture_sheet import Sheet


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


def window_picture(wps: Wps, chosen: str, plane: Plane, sheet: Sheet, limits: Sequence[HeatLimit] = ()) -> DisplayList:
    """Return the operating window of the passes on a plane, with the energies that may not be exceeded."""
    return operating_window(boxes(wps, chosen), AXES[sheet.system], plane, sheet.measure, limits)


def _axes(system: System) -> Axes:
    speed, energy = (unit_table()[kind].shown_in[system][0] for kind in ("speed", "heat_input"))
    return Axes(speed.name, speed.factor, energy.name, energy.factor)


AXES = MappingProxyType({"si": _axes("si"), "us": _axes("us")})
