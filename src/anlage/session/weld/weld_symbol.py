"""The weld symbol of a joint, by ISO 2553 or AWS A2.4."""

from anlage.core.drawing import DisplayList, Measure
from anlage.core.drawing.weld_symbol import SymbolTexts, enlarged, weld_symbol
from anlage.core.procedure import Wps, drawable
from anlage.core.quantities import show
from anlage.core.quantities.units import System
from anlage.data.tables import unit_table
from anlage.session.weld.picture_sheet import Sheet


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
