"""What the weld of a procedure takes, from its own beads."""

import math
from collections.abc import Mapping, Sequence

from msgspec import Struct

from anlage.core.beads import electrode_metal
from anlage.core.consumption import PURGE, Rates, Run, Takes, takes
from anlage.core.joint import Preparation, faults, joint_metal
from anlage.core.procedure import Deposit, Pass, Wps, pass_energy, pass_power, sketch_of
from anlage.core.quantities import show
from anlage.core.quantities.units import System
from anlage.core.ranges import Interval
from anlage.core.shrinkage import fillet_transverse, fillet_turn, transverse
from anlage.data.tables import catalogue, unit_table
from anlage.session.seam.seam_places import METRE_MM, reach_of_pass, seam_mm
from anlage.session.weld.bead_areas import (
    bead_area,
    density_of,
    deposition_efficiency,
    lays_sticks,
    rate_of,
    usual_settings,
)
from anlage.session.weld.beads import bead_layout
from anlage.session.weld.figures import Figure, thermal_efficiency_of
from anlage.session.weld.node import node_of

UNKNOWN = "–"
LONG_MIN = 100.0  # from here on times are told in hours
CUBIC_METRE_L = 1000.0
SHRINKAGE_NOTE = "Published schools, each within half of its value at best: to preset by, never a tolerance."
NO_FACTOR = "no operating factor is known for the process"


def weld_takes(wps: Wps, rates: Mapping[str, float], waited_min: Interval | None = None) -> Takes | None:
    """Return what all passes take over the length of the weld; `None` when no bead can be laid.

    `waited_min` are all waits together as the section model finds them; a wait that is stated counts before them.
    """
    found, sketch = bead_layout(wps), sketch_of(wps.joint)
    if found is None or sketch is None or sketch.incomplete or not found.beads:
        return None
    seam = seam_mm(wps)[0]
    length = _length_of_metal(wps, sketch.preparation)
    areas = {bead.key: bead.area_mm2 for bead in found.beads}
    homes = {each.id: each for each in wps.deposits}
    runs = []
    for each in wps.passes:
        deposit, reach = homes[each.deposit], reach_of_pass(wps, each)
        laid = bead_area(deposit, each)
        if reach is None:
            area = areas.get(each.id, laid.middle if laid else None)  # a bead that has no place may have a size
            if area is not None:
                runs.append(_run(deposit, each, area, length, seam))
        elif laid is not None:
            runs.append(_run(deposit, each, laid.middle, reach.length_mm * length / seam, reach.length_mm))
    own = Rates(**{name: rates.get(name) for name in Rates.__struct_fields__})
    return takes(runs, wait_min=_wait_min(rates, waited_min, len(runs)), rates=own)


def _wait_min(rates: Mapping[str, float], waited_min: Interval | None, runs: int) -> float:
    """Return the wait between two passes: as stated, else the middle of what the section model finds [min]."""
    if rates.get("wait_min") or waited_min is None or runs < 2:
        return rates.get("wait_min", 0.0)
    return (waited_min.low + waited_min.high) / 2 / (runs - 1)


def _length_of_metal(wps: Wps, p: Preparation) -> float:
    """Return the length over which the section's metal counts: round a pipe that of its centroid (Pappus)."""
    metal, node = joint_metal(p), node_of(wps)
    if node is not None:
        return node.volume_mm3 / metal.whole_area_mm2
    if metal.circumference_mm is None or not metal.weld_metal_kg or not metal.weld_metal_kg_m:
        return seam_mm(wps)[0]
    return metal.weld_metal_kg / metal.weld_metal_kg_m * METRE_MM


def _run(deposit: Deposit, each: Pass, area: float, metal_mm: float, seam: float) -> Run:
    mass = area * metal_mm * density_of(deposit) * 1e-6
    speed, power = each.travel_speed_mm_min, pass_power(each)
    rate = rate_of(deposit, each)
    arc = None if speed is None else seam / ((speed.low + speed.high) / 2)
    if arc is None and rate is not None:
        arc = mass / rate.middle * 60
    size = deposit.filler_diameter_mm
    name = " ".join(filter(None, (deposit.filler, f"{size.low:g} mm" if size else ""))) or "filler not stated"
    return Run(
        filler=name, metal_kg=mass, efficiency=deposition_efficiency(deposit)[0], arc_min=arc,
        power_w=_middle(power),
        gas=_flowing(deposit.shielding_gas), gas_l_min=_middle(deposit.gas_flow_l_min),
        purge=_flowing(deposit.backing_gas), purge_l_min=_middle(deposit.backing_flow_l_min),
        factor=_factor(deposit), electrode_kg=_electrode(deposit),
    )  # fmt: skip


def _flowing(gas: str | None) -> str:
    return "" if gas is None or gas.casefold() == "none" else gas


def _middle(span: Interval | None) -> float | None:
    return None if span is None else (span.low + span.high) / 2


def _factor(deposit: Deposit) -> float | None:
    """Return the operating factor of a process by hand: the middle of the trade's windows."""
    rows = [row for row in catalogue().process_limits if row.process == deposit.process]
    ends = [
        (row.operating_factor_manual_min_pct, row.operating_factor_manual_max_pct)
        for row in rows
        if row.operating_factor_manual_min_pct and row.operating_factor_manual_max_pct
    ]
    if not ends:
        return None
    return (min(low for low, _ in ends) + max(high for _, high in ends)) / 200


def _electrode(deposit: Deposit) -> float | None:
    row = usual_settings(deposit)
    if not lays_sticks(deposit) or row is None or row.electrode_length_mm is None:
        return None
    return electrode_metal(
        row.diameter_mm, consumed_length_mm=row.electrode_length_mm - (row.stub_mm or 0.0),
        recovery=(row.electrode_efficiency_percent or 100.0) / 100, density_g_cm3=density_of(deposit),
    )  # fmt: skip


class Section(Struct, frozen=True):
    """A titled group of figures, and in a sentence what they rest on."""

    title: str
    figures: tuple[Figure, ...]
    note: str = ""


def rate_fields(system: System) -> tuple[tuple[str, str, float], ...]:
    """Return the user's rates: name, what is asked for, and how often it is in the stored one."""
    mass, gas = (unit_table()[kind].shown_in[system][0] for kind in ("mass", "volume"))
    per_m3 = system == "si"
    return (
        ("labour_per_h", "Labour, per hour", 1.0),
        ("filler_per_kg", f"Filler, per {mass.name}", 1.0 / mass.factor),
        (
            "gas_per_m3",
            "Gas, per m³" if per_m3 else f"Gas, per {gas.name}",
            1.0 if per_m3 else CUBIC_METRE_L / gas.factor,
        ),
        ("power_per_kwh", "Power, per kWh", 1.0),
        ("wait_min", "Wait between passes, min", 1.0),
    )


def takes_sections(
    wps: Wps, rates: Mapping[str, float], system: System, waited_min: Interval | None = None
) -> tuple[Section, ...]:
    """Return what the weld takes, group by group; numbers that are not known say what is missing.

    `waited_min` are all waits together as the section model finds them, where it was run.
    """
    found, (length, what) = weld_takes(wps, rates, waited_min), seam_mm(wps)
    rests_on = _elapsed(rates, len(wps.passes), waited_min)
    if found is None:
        text = "state the joint in full and add passes: Fill the joint (Ctrl+Shift+F) writes a list"
        return (Section("What it takes", (Figure("Nothing is worked out yet", UNKNOWN, text),)),)
    counted = Figure("Counted over", f"{what}, {_say(length, 'length', system)}", "length of the weld")
    metal = (counted, Figure("Weld metal", _mass(found.metal_kg, system), "the beads as laid"))
    return (
        Section(
            "Metal", (*metal, *_fillers(found, system)), "To buy: with stubs and spatter, by deposition efficiency."
        ),
        Section("Time and energy", _times(found, rests_on), f"Elapsed: {rests_on}."),
        *([Section("Gas", _gases(found, system), "Flow times arc time.")] if found.gases_l else []),
        Section("Money", _money(found), "By your own rates, typed below."),
        Section("Shrinkage", shrinkage_figures(wps, system), SHRINKAGE_NOTE),
    )


def _say(value: float, kind: str, system: System) -> str:
    return show(value, kind, system, unit_table())


def _mass(kg: float, system: System) -> str:
    return _say(kg, "mass", system)


def _fillers(found: Takes, system: System) -> list[Figure]:
    rows = []
    for each in found.fillers:
        text = _mass(each.mass_kg, system)
        if each.electrodes is not None:
            text += f", {math.ceil(each.electrodes - 1e-9)} electrodes"
        rows.append(
            Figure(f"Buy {each.filler}", text, "weld metal over deposition efficiency: stubs and spatter in it")
        )
    return rows


def minutes(values: Sequence[float | None]) -> tuple[str, ...]:
    """Return times that are read together in one unit: minutes, or hours where one of them is 100 minutes or more.

    Examples
    --------
    >>> minutes([42, 18]), minutes([42, 180, None])
    (('42 min', '18 min'), ('0.7 h', '3.0 h', '–'))
    """
    hours = any(value is not None and value >= LONG_MIN for value in values)
    return tuple(
        UNKNOWN if value is None else f"{value / 60:.1f} h" if hours else f"{value:.0f} min" for value in values
    )


def _times(found: Takes, rests_on: str) -> tuple[Figure, ...]:
    arc, elapsed = minutes([found.arc_min, found.elapsed_min])
    energy = UNKNOWN if found.energy_kwh is None else f"{found.energy_kwh:.2f} kWh"
    return (
        Figure("Arc time", arc, "length over the middle of the travel speed, pass by pass"),
        Figure("Elapsed", elapsed, rests_on),
        Figure("Energy of the arc", energy, "middle volts times middle amps; the source takes more"),
    )


def _elapsed(rates: Mapping[str, float], passes: int, waited_min: Interval | None) -> str:
    """Return what the elapsed time rests on."""
    wait = rates.get("wait_min", 0.0)
    waits = f"{passes - 1} waits of {wait:g} min" if wait else "no waits stated"
    if waited_min is not None:
        low, high = minutes([waited_min.low, waited_min.high])
        together = low if low == high else f"{low} to {high}"
        waits = f"{waits} (Sequence finds {together})" if wait else f"waits as Sequence finds them, {together} together"
    return f"arc time over the usual operating factor by hand, {waits}"


def _gases(found: Takes, system: System) -> tuple[Figure, ...]:
    return tuple(
        Figure(
            name,
            UNKNOWN if litres is None else _say(litres, "volume", system),
            "flow times the elapsed time of its passes; what displaces the air before is not in it"
            if name.endswith(PURGE)
            else "flow times arc time",
        )
        for name, litres in found.gases_l.items()
    )


def _money(found: Takes) -> tuple[Figure, ...]:
    words = {"labour": "Labour", "filler": "Filler", "gas": "Gas", "power": "Power"}
    rows = [
        Figure(words[name], UNKNOWN if value is None else f"{value:.2f}", "amount times your rate")
        for name, value in found.cost.items()
    ]
    whole = found.whole_cost
    return (*rows, Figure("Together", UNKNOWN if whole is None else f"{whole:.2f}", "in the money of your rates"))


def shrinkage_figures(wps: Wps, system: System) -> tuple[Figure, ...]:
    """Return the shrinkage of the joint by each school, and the presetting it implies."""
    sketch = sketch_of(wps.joint)
    if sketch is None or sketch.incomplete or faults(sketch.preparation):
        return (Figure("Across the weld", UNKNOWN, "state the joint in full"),)
    p = sketch.preparation
    if p.make.form == "fillet":
        rise = fillet_turn(100.0, leg_mm=p.leg_mm, thickness_mm=p.prepared_mm)
        origin = "Blodgett 1966, from memory, H; for an edge 100 mm away, ± 50 %"
        first = "After one fillet, edge 100 mm off rises by" if p.make.sides == 2 else "Edge 100 mm off rises by"
        across = fillet_transverse(leg_mm=p.leg_mm, thickness_mm=p.prepared_mm)
        rule = "handbook rule, from memory, M; a leg of 3/4 of the thickness at most"
        return (
            Figure("Across each fillet", "unknown" if across is None else _say(across, "length", system), rule),
            Figure(first, _say(rise, "length", system), origin),
            Figure("Preset that edge back by", _say(rise, "length", system), "what the school says, never a tolerance"),
        )
    if p.make.family not in ("butt", "corner"):
        return (Figure("Across the weld", UNKNOWN, "no school in our tables covers this joint"),)
    area = joint_metal(p).whole_area_mm2
    if not area > 0:
        return (Figure("Across the weld", UNKNOWN, "no metal is laid between the faces: no school speaks of it"),)
    heat = _single_heat(wps)
    schools = transverse(
        area, thickness_mm=p.prepared_mm, root_opening_mm=p.root_opening_mm,
        heat_input_j_mm=heat,
    )  # fmt: skip
    rows = [
        Figure(
            f"{school.name.replace('_', ', ').title()} ({school.confidence})",
            _say(school.low_mm, "length", system)
            if school.low_mm == school.high_mm
            else f"{_say(school.low_mm, 'length', system)} to {_say(school.high_mm, 'length', system)}",
            f"{school.source}, {school.confidence}; rough, ± 50 %",
        )
        for school in schools
    ]
    low, high = min(s.low_mm for s in schools), max(s.high_mm for s in schools)
    preset = f"{_say(low, 'length', system)} to {_say(high, 'length', system)}"
    turn = Figure("Turning of a butt", "unknown", "no school in our tables: preset by a trial piece")
    return (*rows, Figure("Cut parts longer by", preset, "what the schools span, never a tolerance"), turn)


def _single_heat(wps: Wps) -> float | None:
    """Return the net heat input of a weld of one pass [J/mm]; Okerblom's rule is for no other."""
    if len(wps.passes) != 1:
        return None
    energy, row = pass_energy(wps.passes[0]), thermal_efficiency_of(wps.deposits[0])
    if energy is None or row is None or row.k is None:
        return None
    return 1000 * row.k * energy.interval.high
