"""The oxygen behind a root over the minutes of a purge, well mixed and with a poor vent."""

import math

from anlage.core.drawing import DisplayList
from anlage.core.drawing.curves import Curve, Frame, captions_mm, curves
from anlage.core.procedure import Wps
from anlage.core.purge import AIR_PPM, Oxygen, oxygen_left, purge_time
from anlage.session.heat.purging import GAS_PPM, POOR_MIXING, purge_plan, purged_l
from anlage.session.weld.picture_sheet import Sheet

POINTS = 60
ROOM_MM = (28.0, 18.0)


def purge_picture(wps: Wps, sheet: Sheet) -> DisplayList | None:
    """Return the curves, oxygen as its power of ten; `None` while something is missing."""
    plan, volume, purge = purge_plan(wps), purged_l(wps), wps.purge
    if plan.missing or volume is None or purge.flow_l_min is None or purge.target_ppm is None:
        return None
    if not GAS_PPM < purge.target_ppm < AIR_PPM:
        return None
    flow, mixing = purge.flow_l_min.low, purge.mixing or 1.0
    poor = purge_time(volume, flow_l_min=flow, oxygen=Oxygen(purge.target_ppm, gas_ppm=GAS_PPM), mixing=POOR_MIXING)
    end = poor.mixing_min * 1.1
    lines = [
        _curve(
            "mixed as stated" if purge.mixing else "well mixed", mixing, (volume, flow, end), purge.target_ppm, own=True
        ),
        _curve("poor vent", POOR_MIXING, (volume, flow, end), purge.target_ppm),
    ]
    width = sheet.width_mm - captions_mm(lines, sheet.measure) - ROOM_MM[0]
    size = (max(width, 40.0), max(sheet.height_mm - ROOM_MM[1], 25.0))
    at = purge_time(volume, flow_l_min=flow, oxygen=Oxygen(purge.target_ppm, gas_ppm=GAS_PPM), mixing=mixing)
    return curves(lines, Frame("min", "ppm of oxygen", at.mixing_min, size, powers=True), sheet.measure)


def _curve(name: str, mixing: float, space: tuple[float, float, float], target: float, *, own: bool = False) -> Curve:
    volume, flow, end = space
    times = [end * n / POINTS for n in range(POINTS + 1)]
    points = tuple((t, math.log10(oxygen_left(t * flow / volume, gas_ppm=GAS_PPM, mixing=mixing))) for t in times)
    needs = purge_time(volume, flow_l_min=flow, oxygen=Oxygen(target, gas_ppm=GAS_PPM), mixing=mixing)
    return Curve(name, f"{needs.mixing_min:.1f} min to {target:g} ppm", points, own=own)
