"""Fit-up round the joint: the section, the metal and the root as they are at each measured station; the worst named."""

from msgspec import Struct

from anlage.core.document import Dimension, with_at
from anlage.core.drawing import DisplayList
from anlage.core.errors import InputError
from anlage.core.joint import JointMetal, faults, joint_metal
from anlage.core.procedure import Station, Wps, pass_energy, sketch_of, with_element
from anlage.core.quantities import show
from anlage.core.quantities.units import System
from anlage.data.tables import unit_table
from anlage.session.weld.advice import root_misfits
from anlage.session.weld.bead_sizes import bead_counts
from anlage.session.weld.fill_notices import fill_notices
from anlage.session.weld.pictures import Sheet, bead_picture

CLOCK = ("12 o'clock", "3 o'clock", "6 o'clock", "9 o'clock")
SEAM = ("start", "first third", "second third", "end")
AIM_MM, STOP_MM = 25.4 / 32, 25.4 / 16  # mismatch aimed at, and where many shops stop; common practice, no source


class AtStation(Struct, frozen=True):
    """One station: what the joint is there, the metal it takes, beads, energy [kJ/mm], and what to mind."""

    station: Station
    wps: Wps
    metal: JointMetal | None
    beads: int | None
    energy: tuple[float, float] | None
    sentences: tuple[str, ...]


def at_station(wps: Wps, station: Station) -> Wps:
    """Return the procedure with the root as it was measured at a station; what was not measured stays as stated."""
    for path, value in (("joint/root_opening_mm", station.gap_mm), ("joint/root_face_mm", station.land_mm)):
        if value is not None:
            wps = with_at(wps, path, Dimension.stated(nominal=value))
    return wps


def station_picture(wps: Wps, station: Station, chosen: str, sheet: Sheet) -> DisplayList | None:
    """Return the beads as they lie at a station, the second member as much higher as was measured."""
    return bead_picture(at_station(wps, station), chosen, sheet, mismatch_mm=station.mismatch_mm or 0.0)


def stations(wps: Wps, system: System) -> tuple[AtStation, ...]:
    """Return every station with what the joint is there."""
    return tuple(_at(wps, each, system) for each in wps.stations)


def _at(wps: Wps, station: Station, system: System) -> AtStation:
    there = at_station(wps, station)
    sketch = sketch_of(there.joint)
    sentences = [each.text for each in root_misfits(there, system)]
    if station.mismatch_mm is not None and station.mismatch_mm > AIM_MM + 1e-6:
        said = show(station.mismatch_mm, "length", system, unit_table())
        word = "many shops stop here: set it anew" if station.mismatch_mm > STOP_MM + 1e-6 else "over what is aimed at"
        sentences.append(f"Mismatch {said}: {word}.")
    for path, span in (("joint/root_opening_mm", station.gap_mm), ("joint/root_face_mm", station.land_mm)):
        stated = getattr(wps.joint, path.partition("/")[2])
        if stated is not None and span is not None and not stated.span.contains(span):
            word = "Gap" if path.endswith("opening_mm") else "Land"
            sentences.append(f"{word} {show(span, 'length', system, unit_table())} is outside the tolerance stated.")
    if sketch is None or sketch.incomplete or faults(sketch.preparation):
        return AtStation(station, there, None, None, None, tuple(sentences))
    metal = joint_metal(sketch.preparation)
    (beads,) = bead_counts(there, (sketch.preparation,))
    return AtStation(station, there, metal, beads, _energy(wps, metal), tuple(sentences))


def _energy(wps: Wps, metal: JointMetal) -> tuple[float, float] | None:
    """Return the arc energy of all passes where the joint is so large: it goes with the metal [kJ/mm]."""
    nominal = sketch_of(wps.joint)
    spans = [energy.interval for each in wps.passes if (energy := pass_energy(each))]
    if (
        nominal is None
        or nominal.incomplete
        or faults(nominal.preparation)
        or len(spans) < len(wps.passes)
        or not spans
    ):
        return None
    share = metal.whole_area_mm2 / joint_metal(nominal.preparation).whole_area_mm2
    return share * sum(each.low for each in spans), share * sum(each.high for each in spans)


def worst(found: tuple[AtStation, ...]) -> AtStation | None:
    """Return the station with the most to mind, of equals the one that takes the most metal; none where all is well."""
    bad = [each for each in found if each.sentences]
    return max(
        bad, key=lambda each: (len(each.sentences), each.metal.whole_area_mm2 if each.metal else 0), default=None
    )


def with_four(wps: Wps) -> Wps:
    """Return the procedure with four stations to measure, by the clock round a pipe, else along the seam."""
    for place in CLOCK if wps.joint.product == "pipe" else SEAM:
        wps, _ = with_element(wps, "stations", place=place)
    return wps


def station_sentences(wps: Wps, chosen: str, system: System) -> tuple[str, ...]:
    """Return what is to be said of the chosen station, and which one is worst.

    Raises
    ------
    InputError : there is no such station
    """
    found = stations(wps, system)
    own = next((each for each in found if each.station.id == chosen), None)
    if chosen and own is None:
        raise InputError(f"{chosen} is no station", where="stations", mend="choose one of the list")
    said = []
    if own is not None and own.metal is not None:
        area = show(own.metal.whole_area_mm2, "area", system, unit_table())
        beads = f", {own.beads} beads" if own.beads else ""
        unit = unit_table()["heat_input"].shown_in[system][0]
        energy = (
            ""
            if own.energy is None
            else f", {own.energy[0] / unit.factor:.1f}..{own.energy[1] / unit.factor:.1f} {unit.name}"
        )
        said.append(f"{own.station.place or 'Here'}: {area}{beads}{energy} in all.")
    if own is not None:
        said += own.sentences
        said += [each.text for each in fill_notices(own.wps, system) if not each.good]
    bad = worst(found)
    if bad is not None:
        said.append(f"Worst station: {bad.station.place or 'unnamed'}.")
    elif found:
        said.append("No station asks for another root style, gap or land.")
    return tuple(said)
