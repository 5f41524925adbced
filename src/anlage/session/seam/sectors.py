"""Settings by sector of a pass, and the dial steps of a calibrated machine that give a current."""

from itertools import pairwise

import msgspec
from msgspec import Struct

from anlage.core.drawing import Around, DisplayList, Ring, RingRow, Seam, clock, strip
from anlage.core.heat import EnergyRange
from anlage.core.procedure import Pass, Reading, Sector, Wps, pass_energy
from anlage.core.quantities import show, show_interval
from anlage.core.quantities.units import System
from anlage.core.ranges import Interval
from anlage.data.tables import unit_table
from anlage.session.leaves.table import field_of
from anlage.session.seam.seam_places import is_round, reach_of_pass, seam_mm
from anlage.session.weld.pictures import Sheet

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


# Machines ------------------------------------------------------------------------------------


class DialStep(Struct, frozen=True):
    """Where to set one tap of a machine for a current: dial from least to most, and what it was read with."""

    machine: str
    tap: str
    dial: Interval
    meter: str
    day: str

    @property
    def words(self) -> str:
        """The step in a few words."""
        ends = (f"{end:.3g}" for end in (self.dial.low, self.dial.high))
        span = "..".join(dict.fromkeys(ends))
        where = " ".join(filter(None, (self.machine, f"tap {self.tap}" if self.tap else "")))
        return f"{where} dial {span}".strip()


def dial_steps(wps: Wps, current_a: Interval) -> tuple[DialStep, ...]:
    """Return the dial steps that give a current, for every tap whose readings span it; between readings in proportion.

    Nothing is said beyond the least and the most that was read: there the dial is unproven as amps.
    """
    taps: dict[tuple[str, str], list[Reading]] = {}
    for each in wps.readings:
        if each.dial is not None and each.current_a is not None:
            taps.setdefault((each.machine or "", each.tap or ""), []).append(each)
    found = []
    for (machine, tap), readings in taps.items():
        rows = sorted((each.current_a or 0.0, each.dial or 0.0) for each in readings)
        ends = [_dial(rows, amps) for amps in (current_a.low, current_a.high)]
        if ends[0] is None or ends[1] is None:
            continue
        last = max(readings, key=lambda each: each.day or "")
        span = Interval(min(ends[0], ends[1]), max(ends[0], ends[1]))
        found.append(DialStep(machine, tap, span, last.meter or "", last.day or ""))
    return tuple(found)


def _dial(rows: list[tuple[float, float]], amps: float) -> float | None:
    for (a1, d1), (a2, d2) in pairwise(rows):
        if a1 <= amps <= a2:
            return d1 + (d2 - d1) * (amps - a1) / (a2 - a1) if a2 > a1 else d1
    return None


def dial_sentences(wps: Wps, pass_id: str) -> tuple[str, ...]:
    """Return where to set the machines for a pass, and that a dial is unproven as amps where nothing was read."""
    each = next((one for one in wps.passes if one.id == pass_id), None)
    if each is None or each.current_a is None:
        return ()
    if not wps.readings:
        return ("No machine is calibrated here: a dial setting is unproven as amps.",)
    steps = dial_steps(wps, each.current_a)
    if not steps:
        return ("No tap was read over the whole current of this pass: a dial setting is unproven as amps.",)
    return tuple(f"{step.words} (meter {step.meter or 'not stated'}, {step.day or 'no day'})." for step in steps)
