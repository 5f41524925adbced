"""Other designs of a joint as curves over thickness."""

from collections.abc import Sequence

from anlage.core.drawing import DisplayList
from anlage.core.drawing.curves import Curve, Frame, captions_mm, curves
from anlage.core.procedure import Joint, Wps
from anlage.core.quantities import show
from anlage.data.tables import unit_table
from anlage.session.takes.designs import designs
from anlage.session.weld.picture_sheet import Sheet

_BESIDE_MM = 24.0  # what the axis takes beside the plot, and the lines to the names


def design_picture(wps: Wps, sheet: Sheet, others: Sequence[Joint] = ()) -> DisplayList | None:
    """Return what other preparations of the same plate take, over thickness; `None` when the joint is not stated."""
    found = [
        each for each in designs(wps, sheet.system, tuple(others)) if len(each.curve) > 1 and each.area_mm2 is not None
    ]
    if not found or wps.joint.thickness_mm is None:
        return None
    units = unit_table()
    length, area = (units[kind].shown_in[sheet.system][0] for kind in ("length", "area"))
    own = found[0].area_mm2 or 1.0
    lines = []
    for n, each in enumerate(found):
        assert each.area_mm2 is not None, "kept above"
        text = show(each.area_mm2, "area", sheet.system, units)
        beside = "" if n == 0 else f" ({100 * (each.area_mm2 / own - 1):+.0f} %)".replace("-", "−")
        points = tuple((x / length.factor, y / area.factor) for x, y in each.curve)
        lines.append(Curve(each.name, text + beside, points, own=n == 0))
    wide = sheet.width_mm - captions_mm(lines, sheet.measure) - _BESIDE_MM
    size = (max(wide, 30.0), max(sheet.height_mm - 18, 25.0))
    frame = Frame(f"thickness, {length.name}", f"weld metal, {area.name}", wps.joint.thickness_mm / length.factor, size)
    return curves(lines, frame, sheet.measure)
