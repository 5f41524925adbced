"""Hardness over heat input as a picture, and the heat that both hardness and cooling allow as lines for a window."""

from anlage.core.drawing import DisplayList
from anlage.core.drawing.curves import Curve, Frame, captions_mm, curves
from anlage.core.drawing.operating_window import HeatLimit
from anlage.core.procedure import Wps
from anlage.core.quantities import show
from anlage.core.quantities.units import System
from anlage.data.tables import unit_table
from anlage.session.heat.cooling import CoolingView, cooling_view, hardness_curves, heat_band
from anlage.session.weld.figures import thermal_efficiency_of
from anlage.session.weld.picture_sheet import Sheet

POINTS = 48
ROOM_MM = (24.0, 18.0)
LEAST_SPAN_KJ_MM = 1.5


def cooling_picture(wps: Wps, sheet: Sheet) -> DisplayList | None:
    """Return hardness by both models over heat input, the limit beside; `None` while something is missing."""
    view = cooling_view(wps)
    if view.missing:
        return None
    unit = unit_table()["heat_input"].shown_in[sheet.system][0]
    low = min(each.heat_kj_mm.low for each in view.passes)
    top = max(LEAST_SPAN_KJ_MM, 1.2 * max(each.heat_kj_mm.high for each in view.passes))
    heats = [0.1 + (top - 0.1) * n / POINTS for n in range(POINTS + 1)]
    values = hardness_curves(wps, heats)
    here = hardness_curves(wps, [low])[0]
    lines = []
    for n, name in enumerate(("Yurioka", "Düren")):
        points = tuple(
            (q / unit.factor, v) for q, pair in zip(heats, values, strict=True) if (v := pair[n]) is not None
        )
        if len(points) > 1:
            said = "no number" if here[n] is None else f"{here[n]:.0f} HV10 at the least heat"
            lines.append(Curve(name, said, points, own=n == 0))
    if not lines:
        return None
    if view.limit_hv is not None:
        flat = ((heats[0] / unit.factor, view.limit_hv), (heats[-1] / unit.factor, view.limit_hv))
        lines.append(Curve("limit", f"{view.limit_hv:.0f} HV10", flat))
    size = (
        max(sheet.width_mm - captions_mm(lines, sheet.measure) - ROOM_MM[0], 40.0),
        max(sheet.height_mm - ROOM_MM[1], 25.0),
    )
    return curves(lines, Frame(f"heat input, {unit.name}", "HV10", low / unit.factor, size), sheet.measure)


def band_sentence(view: CoolingView, system: System) -> str:
    """Return the heat input in which hardness and cooling hold, in words."""
    low, high = (
        None if each is None else show(each, "heat_input", system, unit_table())
        for each in (view.band.least, view.band.most)
    )
    if low and high and view.band.least is not None and view.band.most is not None:
        if view.band.least > view.band.most:
            return f"No heat input keeps both {view.band.why_least} and {view.band.why_most}: preheat decides."
        return f"{low} to {high} of heat input keep {view.band.why_least} and {view.band.why_most}."
    if low:
        return f"{low} of heat input or more keep {view.band.why_least}."
    if high:
        return f"{high} of heat input at most keep {view.band.why_most}."
    return ""


def pass_rows(view: CoolingView, system: System) -> tuple[tuple[str, ...], ...]:
    """Return a row a pass: number, heat input, t8/5, hardness at the shortest."""
    rows = []
    for each in view.passes:
        unit = unit_table()["heat_input"].shown_in[system][0]
        heat = _span(each.heat_kj_mm.low / unit.factor, each.heat_kj_mm.high / unit.factor, 2)
        models = [f"{value:.0f}" for value in (each.yurioka_hv, each.duren_hv) if value is not None]
        rows.append((str(each.number), heat, _span(each.t85_s.low, each.t85_s.high, 1), " / ".join(models) or "–"))
    return tuple(rows)


def cooling_limits(wps: Wps, chosen: str, system: System) -> tuple[HeatLimit, ...]:
    """Return the band of the chosen pass as arc energies for the operating window; none where nothing limits it."""
    band = heat_band(wps)
    own = next((each for each in wps.passes if each.id == chosen), None)
    deposit = next((each for each in wps.deposits if own is not None and each.id == own.deposit), None)
    row = thermal_efficiency_of(deposit) if deposit is not None else None
    if row is None or not row.k:
        return ()
    if band.least is not None and band.most is not None and band.least > band.most:
        return ()  # no heat keeps both: the preheat decides, not this window
    found = []
    for heat, why, is_least in (
        (band.least, band.why_least, True),
        (band.most, band.why_most, False),
    ):
        if heat is not None:
            energy = heat / row.k
            sign = "≥" if is_least else "≤"
            label = f"{sign} {show(energy, 'heat_input', system, unit_table())} for {why}"
            found.append(HeatLimit(energy, label, chosen=True, is_least=is_least))
    return tuple(found)


def _span(low: float, high: float, decimals: int) -> str:
    first, second = f"{low:.{decimals}f}", f"{high:.{decimals}f}"
    return first if first == second else f"{first} to {second}"
