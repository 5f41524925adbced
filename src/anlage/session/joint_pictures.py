"""Pictures of a joint beside its section: other designs over thickness, and the weld symbol."""

from collections.abc import Sequence

from anlage.core.drawing import (
    Curve,
    DisplayList,
    Frame,
    Measure,
    SymbolTexts,
    captions_mm,
    curves,
    enlarged,
    weld_symbol,
)
from anlage.core.procedure import Joint, Wps
from anlage.core.quantities import show
from anlage.core.quantities.units import System
from anlage.data.tables import unit_table
from anlage.session.designs import designs
from anlage.session.pictures import Sheet, drawable

_BESIDE_MM = 24.0  # what the axis takes beside the plot, and the lines to the names


def design_picture(wps: Wps, sheet: Sheet, kept: Sequence[Joint] = ()) -> DisplayList | None:
    """Return what other preparations of the same plate take, over thickness; `None` when the joint is not stated."""
    found = [each for each in designs(wps, sheet.system, kept) if len(each.curve) > 1 and each.area_mm2 is not None]
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


def symbol_on_sheet(wps: Wps, sheet: Sheet) -> DisplayList | None:
    """Return the weld symbol as large as a sheet lets it, three times its own size at most."""
    found = symbol_picture(wps, sheet.system, sheet.measure)
    if found is None:
        return None
    width, height = (high - low for low, high in zip(found.low, found.high, strict=True))
    return enlarged(found, min(0.9 * sheet.width_mm / width, 0.9 * sheet.height_mm / height, 3.0))


def symbol_picture(wps: Wps, system: System, measure: Measure) -> DisplayList | None:
    """Return the weld symbol of the joint; by ISO 2553 in SI units, by AWS A2.4 in US units.

    `None` when the joint is not stated in full.
    """
    sketch = drawable(wps.joint)
    if sketch is None or sketch.incomplete:
        return None
    p, make = sketch.preparation, sketch.preparation.make

    def say(value: float, kind: str) -> str:
        text = show(value, kind, system, unit_table())
        return text if kind == "angle" else text.removesuffix("mm").removesuffix("in").strip()

    opening, angles = "", ("", "")
    if make.form == "fillet" or make.form in ("socket", "slip-on"):
        one, two = p.leg_mm, p.leg_mm if p.second_leg_mm is None else p.second_leg_mm
        leg = say(one, "length") if one == two else f"{say(one, 'length')} × {say(two, 'length')}"
        size = f"z {leg}" if system == "si" else leg
        sizes = (size, size)
    elif make.form in ("plug", "slot"):
        sizes = (say(p.hole_mm, "length"), "")
    elif make.form == "cladding":
        sizes = (say(p.layer_mm, "length"), "")
    elif make.family == "flare":
        sizes = (say(p.radius_mm, "length"), "")
    else:
        opening = say(p.root_opening_mm, "length")
        if make.form != "square":
            first, second = (2 * a if make.form in ("v", "u", "compound-v") else a for a in p.wall_angles_deg)
            angles = (say(first, "angle"), say(second, "angle"))
        deep = p.depths_mm
        partial = make.sides == 2 or (p.root_opening_mm == 0 and p.root_face_mm > 0)
        sizes = (say(deep[0], "length"), say(deep[1], "length")) if partial and make.form != "square" else ("", "")
    processes = dict.fromkeys(each.process for each in wps.deposits if each.process)
    texts = SymbolTexts(opening, angles, sizes, " ".join(processes))
    return weld_symbol(p, texts, "iso" if system == "si" else "aws", measure)
