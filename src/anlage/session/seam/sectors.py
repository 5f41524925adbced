"""Settings by sector of a pass: its parts of the way with currents, voltages and speeds of their own."""

import msgspec

from anlage.core.drawing import DisplayList
from anlage.core.drawing.clock import Around, Ring, RingRow, Seam, clock, strip
from anlage.core.heat import EnergyRange
from anlage.core.procedure import Pass, Sector, Wps, pass_energy
from anlage.core.quantities import show, show_interval
from anlage.core.quantities.units import System
from anlage.data.tables import unit_table
from anlage.session.leaves.table import field_of
from anlage.session.seam.seam_places import is_round, reach_of_pass, seam_mm
from anlage.session.weld.picture_sheet import Sheet

SETTINGS = ("current_a", "voltage_v", "travel_speed_mm_min")


def in_sector(each: Pass, sector: Sector) -> Pass:
    """Return a pass as it is welded in a sector: what the sector does not state is that of the pass."""
    own = {name: value for name in SETTINGS if (value := getattr(sector, name)) is not None}
    return msgspec.structs.replace(each, **own)


def sector_energy(wps: Wps, sector: Sector) -> EnergyRange | None:
    """Return the arc energy in a sector; `None` when something is not stated."""
    each = next((one for one in wps.passes if one.id == sector.of), None)
    return None if each is None else pass_energy(in_sector(each, sector))


def sector_picture(wps: Wps, pass_id: str, sheet: Sheet) -> DisplayList | None:
    """Return a pass with its sectors beside it, by the clock or along the seam; `None` without a pass.

    Inside lies the pass as it is stated for the whole way, outside each sector with its own energy and current.
    """
    number = next((n for n, one in enumerate(wps.passes, 1) if one.id == pass_id), None)
    if number is None:
        return None
    each = wps.passes[number - 1]
    round_pipe = is_round(wps)
    whole = 360.0 if round_pipe else seam_mm(wps)[0]
    share = 1.0 if round_pipe else 1.0 / whole
    energy = pass_energy(each)
    rows: list[RingRow] = [Ring(f"passes/{each.id}", str(number), ((0.0, whole * share),), _hottest(energy))]
    parts = []
    for sector in (one for one in wps.sectors if one.of == pass_id and one.reach):
        reach = reach_of_pass(wps, msgspec.structs.replace(each, reach=sector.reach))
        for start, end in reach.stretches if reach else ():
            label = show_interval(sector.current_a, "current", sheet.system, unit_table()) if sector.current_a else "–"
            run = ((start * share, end * share),)
            parts.append(Ring(f"sectors/{sector.id}", label, run, _hottest(sector_energy(wps, sector))))
    if parts:
        rows.append(tuple(parts))
    if round_pipe:
        return clock(rows, Around(), min(sheet.width_mm, sheet.height_mm) / 2 - 7.0, sheet.measure)
    size = (max(0.84 * sheet.width_mm - 10.0, 30.0), max(sheet.height_mm - 10.0, 20.0))
    return strip(rows, (), Seam(show(whole, "length", sheet.system, unit_table())), size, sheet.measure)


def _hottest(energy: EnergyRange | None) -> float | None:
    return energy.high.energy_kj_mm if energy else None


def sector_sentences(wps: Wps, pass_id: str, system: System) -> tuple[str, ...]:
    """Return the energy in every sector of a pass, the hottest named, and settings outside those of the pass."""
    each = next((one for one in wps.passes if one.id == pass_id), None)
    own = [sector for sector in wps.sectors if sector.of == pass_id]
    if each is None or not own:
        return ("No sector: the pass is welded with the same settings all the way.",) if each else ()
    said, hottest = [], ("", 0.0)
    for sector in own:
        name, energy = sector.reach or "A sector", sector_energy(wps, sector)
        if energy is not None:
            said.append(f"{name}: {show_interval(energy.interval, 'heat_input', system, unit_table())}.")
            hottest = max(hottest, (name, energy.interval.high), key=lambda pair: pair[1])
        for leaf in SETTINGS:
            there, whole = getattr(sector, leaf), getattr(each, leaf)
            if (
                there is not None
                and whole is not None
                and not (whole.contains(there.low) and whole.contains(there.high))
            ):
                said.append(f"{name}: {field_of(f'passes/*/{leaf}').label.lower()} lies outside what the pass states.")
    if hottest[0] and len(own) > 1:
        said.append(f"Hottest: {hottest[0]}.")
    return tuple(said)
