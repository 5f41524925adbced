"""The metals of a procedure as a picture: the plane of equivalents for stainless ones, bars of strength for others."""

from anlage.core.drawing import DisplayList
from anlage.core.drawing.equivalents import EquivalentPlane, Mixing, Place, equivalents_chart
from anlage.core.drawing.strengths import StrengthBar, strength_bars
from anlage.core.procedure import Wps
from anlage.core.quantities import show
from anlage.core.quantities.units import System
from anlage.data.tables import unit_table
from anlage.session.metals.together import Spot, Together, together
from anlage.session.weld.picture_sheet import Sheet

DILUTION = "metals/dilution"
ROOM_MM = (20.0, 20.0)


def places_of(found: Together) -> tuple[Place, ...]:
    """Return the metals of the plane, the filler last."""
    if found.filler_spot is None:
        return ()
    return (*(_place(spot) for spot in found.spots), _place(found.filler_spot, is_filler=True))


def mixing_of(found: Together) -> Mixing | None:
    """Return the mixture as it is drawn; `None` where there is none."""
    if found.mixture is None or found.filler_spot is None or not found.spots:
        return None
    first, last = found.spots[0], found.spots[-1]
    base = Place("", (first.cr_eq + last.cr_eq) / 2, (first.ni_eq + last.ni_eq) / 2)
    filler = _place(found.filler_spot, is_filler=True)
    return Mixing(_place(found.mixture.spot), base, filler, found.dilution, found.usual_dilution, DILUTION)


def plane_of(found: Together, sheet: Sheet) -> EquivalentPlane:
    """Return the plane with room for all metals."""
    size = (max(sheet.width_mm - ROOM_MM[0], 40.0), max(sheet.height_mm - ROOM_MM[1], 25.0))
    return EquivalentPlane.around(places_of(found), size)


def metals_picture(wps: Wps, deposit_id: str, plane: EquivalentPlane, sheet: Sheet) -> DisplayList | None:
    """Return the picture; `None` while no metal is named."""
    found = together(wps, deposit_id)
    mixing = mixing_of(found)
    if mixing is not None:
        return equivalents_chart(places_of(found), mixing, plane, sheet.measure)
    if not any(each.tensile_mpa for each in found.strengths):
        return None
    rows = [
        StrengthBar(
            e.name,
            _in(e.yield_mpa, sheet.system),
            _in(e.tensile_mpa, sheet.system),
            _text(e.yield_mpa, e.tensile_mpa, sheet.system),
        )
        for e in found.strengths
    ]
    asked = [side.metal.smts_mpa for side in found.sides if side.metal and side.metal.smts_mpa]
    weakest = _in(min(asked), sheet.system) if asked else None
    unit = unit_table()["stress"].shown_in[sheet.system][0].name
    return strength_bars(rows, weakest, unit, (sheet.width_mm, sheet.height_mm), sheet.measure)


def _place(spot: Spot, *, is_filler: bool = False) -> Place:
    return Place(spot.name, spot.cr_eq, spot.ni_eq, is_filler)


def _in(mpa: float | None, system: System) -> float | None:
    return None if mpa is None else mpa / unit_table()["stress"].shown_in[system][0].factor


def _text(low: float | None, high: float | None, system: System) -> str:
    said = [show(each, "stress", system, unit_table()) for each in (low, high) if each is not None]
    return " yield, ".join(said) + " tensile" if len(said) == 2 else said[0] if said else "no strength stated"
