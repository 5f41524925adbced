"""The figures that stand beside the pictures: a name, a number with unit, and what it was worked out from."""

from msgspec import Struct

from anlage.core.beads import MOST_BEADS
from anlage.core.document import kept
from anlage.core.heat import EnergyRange
from anlage.core.joint import STEEL_G_CM3, Preparation, Sketch, faults, joint_metal, saddle
from anlage.core.procedure import Deposit, Pass, Wps, deposit_of_pass, pass_energy, sketch_of
from anlage.core.processes import Efficiency
from anlage.core.quantities import show, show_interval
from anlage.core.quantities.show import THIN_SPACE
from anlage.core.quantities.units import System
from anlage.data.tables import unit_table
from anlage.session.leaves.iso_numbers import efficiency_of
from anlage.session.weld.bead_sizes import bead_counts
from anlage.session.weld.node import node_of

UNKNOWN = "–"


class Figure(Struct, frozen=True):
    """One number: its name, how it is written, and in a sentence where it comes from or what is missing.

    `fits` holds the same number of the tightest and of the widest fit-up, where tolerances are stated.
    """

    name: str
    text: str
    origin: str
    fits: tuple[str, ...] = ()


@kept
def joint_figures(wps: Wps, system: System) -> tuple[Figure, ...]:
    """Return area, weld metal and face width of the joint, and of its tightest and widest fit-up."""
    sketch = sketch_of(wps.joint)
    names = ("Groove area", "Cap area", "Face width", f"Weld metal per {'metre' if system == 'si' else 'foot'}")
    if sketch is None or sketch.incomplete or faults(sketch.preparation):
        missing = "choose a preparation" if sketch is None else "state every dimension of the joint"
        return tuple(Figure(name, UNKNOWN, f"not worked out: {missing}") for name in names)
    fits = [joint_metal(each) for each in (sketch.preparation, *sketch.ghosts)]
    density = f"steel weld metal, {STEEL_G_CM3:g} g/cm³"

    def figure(name: str, kind: str, values: list[float], origin: str) -> Figure:
        nominal, *others = (show(value, kind, system, unit_table()) for value in values)
        return Figure(name, nominal, origin, tuple(others))

    found = [
        figure(names[0], "area", [m.groove_area_mm2 for m in fits], "up to the plate's surface, root opening included"),
        figure(names[1], "area", [m.reinforcement_area_mm2 for m in fits], "a parabola over the face"),
        figure(names[2], "length", [m.face_width_mm for m in fits], "of the groove at the plate's surface"),
    ]
    per_metre = [m.weld_metal_kg_m for m in fits if m.weld_metal_kg_m is not None]
    if per_metre:  # a plug has no length
        found.append(_per_length(names[3], per_metre, system, density))
    if sketch.preparation.make.form.startswith("branch"):
        found.append(_round_the_saddle(sketch.preparation, system))
    found += _fits_of_passes(wps, sketch, system)
    rings = [m.weld_metal_kg for m in fits if m.weld_metal_kg is not None]
    if rings:
        what, by = _what_is_whole(sketch.preparation)
        found.append(figure(f"Weld metal, {what}", "mass", rings, f"{density}{by}"))
    node = node_of(wps)
    if node is not None:
        mass = node.volume_mm3 * STEEL_G_CM3 * 1e-6
        found.append(figure("Welds of all members", "length", [node.length_mm], "round every member, in its order"))
        found.append(figure("Weld metal, all members", "mass", [mass], density))
    return tuple(found)


def _round_the_saddle(branch: Preparation, system: System) -> Figure:
    """Return the area of a branch's weld, which is another one at the crotch than at the flank."""
    (low, high), fillets = saddle(branch).groove_area_mm2, saddle(branch).fillet_area_mm2
    ends = (show(each, "area", system, unit_table()) for each in (low + min(fillets), high + max(fillets)))
    return Figure("Round the saddle", " to ".join(ends), "groove and fillet, from the crotch to the flank")


def _what_is_whole(preparation: Preparation) -> tuple[str, str]:
    """Return what the mass of a weld that comes round is of, and by what it is worked out."""
    if preparation.make.form in ("plug", "slot"):
        return "one piece", ""
    return "first member" if preparation.kind == "tube-node" else "whole ring", "; the ring by its centroid"


def _fits_of_passes(wps: Wps, sketch: Sketch, system: System) -> list[Figure]:
    """Return bead count and energy of nominal, tightest and widest joint, at the bead sizes of the procedure.

    The energy that goes into a length of seam follows the metal: beads keep their size and settings, their number goes
    along with the area.
    """
    if not wps.deposits:
        return []
    over = f"over {MOST_BEADS}"
    nominal, *fits = (
        over if each is None else f"{each}" for each in bead_counts(wps, (sketch.preparation, *sketch.ghosts))
    )
    counts = Figure("Beads to fill it", nominal, "at the sizes of this procedure's deposits", tuple(fits))
    energies = [energy.interval for each in wps.passes if (energy := pass_energy(each))]
    if not energies or len(energies) < len(wps.passes):
        return [counts]
    own = joint_metal(sketch.preparation).whole_area_mm2
    whole = (sum(each.low for each in energies), sum(each.high for each in energies))
    unit = unit_table()["heat_input"].shown_in[system][0]
    texts = []
    for each in (sketch.preparation, *sketch.ghosts):
        share = joint_metal(each).whole_area_mm2 / own / unit.factor
        texts.append(f"{whole[0] * share:.1f}..{whole[1] * share:.1f}")
    name = f"All energy, {unit.name}"
    return [
        counts,
        Figure(name, texts[0], "arc energy of all passes together; it goes with the metal", tuple(texts[1:])),
    ]


def _per_length(name: str, values: list[float], system: System, origin: str) -> Figure:
    units = unit_table()
    foot_m, pound_kg = units["length"].unit("ft").factor / 1000, units["mass"].unit("lb").factor
    unit, factor = ("kg/m", 1.0) if system == "si" else ("lb/ft", foot_m / pound_kg)
    nominal, *others = (f"{value * factor:.3f}{THIN_SPACE}{unit}" for value in values)
    return Figure(name, nominal, origin, tuple(others))


class PassFigures(Struct, frozen=True):
    """What a pass comes to: arc energy, the corners it ends at, and heat input with its efficiency."""

    energy: str
    hottest: str
    coldest: str
    heat_input: str


def pass_figures(wps: Wps, each: Pass, system: System) -> PassFigures:
    """Return the figures of a pass; texts say what is missing where something is."""
    energy = pass_energy(each)
    if energy is None:
        stated = {"current": each.current_a, "voltage": each.voltage_v, "travel speed": each.travel_speed_mm_min}
        *others, last = (name for name, value in stated.items() if value is None)
        missing = f"{', '.join(others)} and {last}" if others else last
        return PassFigures(UNKNOWN, f"state {missing}", "", "")
    units = unit_table()
    kinds = {"voltage": "voltage", "current": "current", "travel speed": "speed"}

    def corner(values: tuple[tuple[str, float], ...]) -> str:
        scaled = {name: value * 60 if name == "travel speed" else value for name, value in values}
        return ", ".join(show(value, kinds[name], system, units) for name, value in scaled.items())

    return PassFigures(
        show_interval(energy.interval, "heat_input", system, units),
        f"hottest at {corner(energy.high.values)}",
        f"coldest at {corner(energy.low.values)}",
        _heat_input(deposit_of_pass(wps, each), energy, system),
    )


def _heat_input(deposit: Deposit, energy: EnergyRange, system: System) -> str:
    row = thermal_efficiency_of(deposit)
    if deposit.process is None:
        return "heat input: state the process, which has an efficiency"
    if row is None or row.k is None:
        return "heat input: no efficiency is known for the process"
    text = show_interval(energy.scaled(row.k), "heat_input", system, unit_table())
    return f"heat input {text} with k = {row.k:g} ({row.source})"


def thermal_efficiency_of(deposit: Deposit) -> Efficiency | None:
    """Return the thermal efficiency of a deposit's process, `None` when no process is stated."""
    return efficiency_of(deposit.process, deposit.filler, deposit.shielding_gas)
