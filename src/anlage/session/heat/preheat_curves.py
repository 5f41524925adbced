"""The preheat that is asked over thickness and over heat input, a line where the procedure stands."""

import math
from collections.abc import Iterator
from typing import Final, Literal

from anlage.core.document import kept
from anlage.core.drawing import DisplayList
from anlage.core.drawing.curves import Curve, Frame, captions_mm, curves
from anlage.core.procedure import Wps
from anlage.data.metal_tables import hydrogen_control
from anlage.data.tables import unit_table
from anlage.session.heat.preheat import heat_inputs, least_heat, preheat_view, schools_at, thickest_mm
from anlage.session.heat.scales import degrees, in_reader, scale
from anlage.session.weld.picture_sheet import Sheet

Over = Literal["length", "heat_input"]
Held = tuple[str, tuple[tuple[float, float], ...]]  # a school, and where it holds: thickness or heat, and °C
POINTS: Final = 16
ROOM_MM: Final = (20.0, 16.0)
LEAST_MM, LEAST_KJ_MM = 3.0, 0.2
SPAN_MM, SPAN_KJ_MM = 50.0, 3.0  # shown at least; what is twice as thick or a fifth hotter is shown too
STEP: Final = 1e-6  # a table steps at a thickness: it is read so far on both sides of it
NAMES: Final = {
    "en1011_2_cet": "method B", "ito_bessyo": "Ito", "seferian": "Séférian", "aws_d1_1_hydrogen_control": "D1.1",
}  # fmt: skip
ACROSS: Final = {"length": "thickness", "heat_input": "heat input"}


@kept
def schools_over(wps: Wps, over: Over) -> tuple[Held, ...]:
    """Return what each school asks where it holds; nothing where the metals harden not, or no place is known.

    Parameters
    ----------
    over : `length` for the thickness [mm] with the least heat input as it is, `heat_input` [kJ/mm] the other way round
    """
    here = _here(wps, over)
    if here is None:
        return ()
    places = sorted(_places(wps, over, here))
    asked = schools_at(wps, places, ()) if over == "length" else schools_at(wps, (), places)
    found: dict[str, list[tuple[float, float]]] = {}
    for place, asks in zip(places, asked, strict=True):
        for ask in asks:
            if ask.within and ask.high_c is not None:
                found.setdefault(ask.id, []).append((place, max(ask.high_c, 0.0)))
    return tuple((own, tuple(points)) for own, points in found.items() if own in NAMES and len(points) > 1)


def preheat_curves(wps: Wps, over: Over, sheet: Sheet) -> DisplayList | None:
    """Return the schools as curves, each only where it holds; `None` where there is none."""
    held, here = schools_over(wps, over), _here(wps, over)
    if not held or here is None:
        return None
    system, view = sheet.system, preheat_view(wps)
    unit = unit_table()[over].shown_in[system][0]
    asks = {each.id: each for each in view.asks}
    lines = []
    for own, points in held:
        ask = asks[own]
        said = degrees(ask.high_c, system) if ask.within and ask.high_c is not None else "not here"
        shown = tuple((place / unit.factor, in_reader(celsius, system)) for place, celsius in points)
        lines.append(Curve(NAMES[own], said, shown, own=view.governing is ask))
    if (chosen := wps.preheat.minimum_c) is not None:
        ends = (min(x for line in lines for x, _ in line.points), max(x for line in lines for x, _ in line.points))
        level = in_reader(chosen, system)
        lines.append(Curve("chosen", degrees(chosen, system), tuple((x, level) for x in ends)))
    width = max(sheet.width_mm - captions_mm(lines, sheet.measure) - ROOM_MM[0], 15.0)
    size = (width, max(sheet.height_mm - ROOM_MM[1], 15.0))
    frame = Frame(f"{ACROSS[over]}, {unit.name}", scale(system), here / unit.factor, size)
    return curves(lines, frame, sheet.measure)


def _here(wps: Wps, over: Over) -> float | None:
    """Return where the procedure stands."""
    return least_heat(wps) if over == "heat_input" else thickest_mm(wps)


def _places(wps: Wps, over: Over, here: float) -> Iterator[float]:
    """Yield where the schools are asked, the place at hand among them."""
    if over == "heat_input":
        hottest = max(span.high for span in heat_inputs(wps).values())
        low, high = min(LEAST_KJ_MM, here), max(SPAN_KJ_MM, 1.2 * hottest)
    else:
        low, high = min(LEAST_MM, here), max(SPAN_MM, 2 * here)
        for edge in {band.si_to for band in hydrogen_control().bands if math.isfinite(band.si_to)}:
            if low < edge < high:
                yield from (edge * (1 - STEP), edge * (1 + STEP))
    yield here
    yield from (low + (high - low) * n / POINTS for n in range(POINTS + 1))
