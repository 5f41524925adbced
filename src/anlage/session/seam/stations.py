"""Fit-up round the joint: the section, the metal and the root as they are at each measured station; the worst named."""

from msgspec import Struct

from anlage.core.document import Dimension, with_at
from anlage.core.drawing import DisplayList
from anlage.core.errors import InputError
from anlage.core.joint import JointMetal, faults, joint_metal
from anlage.core.procedure import Station, Wps, pass_energy, sketch_of, with_element
from anlage.core.quantities import show
from anlage.core.quantities.units import System
from anlage.data.joint_tables import root_styles
from anlage.data.tables import unit_table
from anlage.session.seam.seam_places import is_round, place, reach_named
from anlage.session.weld.advice import as_fitted
from anlage.session.weld.bead_sizes import bead_counts
from anlage.session.weld.beads import bead_layout
from anlage.session.weld.fill_notices import fill_notices
from anlage.session.weld.picture_sheet import Sheet
from anlage.session.weld.pictures import bead_picture

CLOCK = ("12 o'clock", "3 o'clock", "6 o'clock", "9 o'clock")
SEAM = ("start", "first third", "second third", "end")
AIM_MM, STOP_MM = 25.4 / 32, 25.4 / 16  # mismatch aimed at, and where many shops stop; common practice, no source
MISMATCH = "Mismatch"
FULL = 0.97  # filled less than this, a station is told of; own choice


class AtStation(Struct, frozen=True):
    """One station: what the joint is there, the metal it takes, beads, energy [kJ/mm], and what to mind.

    `off` is the measure that is farthest from where it should be, and by how much [mm]; `fill` is what the passes lay
    as a share of the room there, `None` where a bead's area is not known.
    """

    station: Station
    wps: Wps
    metal: JointMetal | None
    beads: int | None
    energy: tuple[float, float] | None
    sentences: tuple[str, ...]
    off: tuple[str, float] | None = None
    fill: float | None = None


def at_station(wps: Wps, station: Station) -> Wps:
    """Return the procedure with the root as it was measured at a station; what was not measured stays as stated."""
    for path, value in (("joint/root_opening_mm", station.gap_mm), ("joint/root_face_mm", station.land_mm)):
        if value is not None:
            wps = with_at(wps, path, Dimension.stated(nominal=value))
    return wps


def style_at(wps: Wps, where: str | None) -> str | None:
    """Return the root style at a place: of one that goes by the clock, that of its part; all of them elsewhere."""
    stated = root_styles().styles.get(wps.joint.root_style or "")
    if stated is None or not stated.by_clock or not where or not is_round(wps):
        return wps.joint.root_style
    try:
        at = place(wps, where)
    except InputError:
        return wps.joint.root_style
    parts = ((reach_named(wps, reach), own) for reach, own in stated.by_clock)
    return next((own for reach, own in parts if reach.holds(at)), wps.joint.root_style)


def station_picture(wps: Wps, station: Station, chosen: str, sheet: Sheet) -> DisplayList | None:
    """Return the beads as they lie at a station, the second member as much higher as was measured."""
    return bead_picture(at_station(wps, station), chosen, sheet, mismatch_mm=station.mismatch_mm or 0.0)


def stations(wps: Wps, system: System) -> tuple[AtStation, ...]:
    """Return every station with what the joint is there."""
    return tuple(_at(wps, each, system) for each in wps.stations)


def _at(wps: Wps, station: Station, system: System) -> AtStation:
    there = at_station(wps, station)
    there = with_at(there, "joint/root_style", style_at(wps, station.place))
    sketch = sketch_of(there.joint)
    fitted = as_fitted(there, system)
    sentences, off = [each.text for each in fitted], [(each.measure, each.off_mm) for each in fitted]
    if station.mismatch_mm is not None and station.mismatch_mm > AIM_MM + 1e-6:
        said = show(station.mismatch_mm, "length", system, unit_table())
        word = "many shops stop here: set it anew" if station.mismatch_mm > STOP_MM + 1e-6 else "over what is aimed at"
        sentences.append(f"Mismatch {said}: {word}.")
        off.append((MISMATCH, station.mismatch_mm - AIM_MM))
    for path, value in (("joint/root_opening_mm", station.gap_mm), ("joint/root_face_mm", station.land_mm)):
        stated = getattr(wps.joint, path.partition("/")[2])
        if stated is None or value is None or stated.span.is_single or stated.span.contains(value):
            continue  # nothing is off a tolerance that nobody stated
        word = "Gap" if path.endswith("opening_mm") else "Land"
        sentences.append(f"{word} {show(value, 'length', system, unit_table())} is outside the tolerance stated.")
        off.append((word, max(stated.span.low - value, value - stated.span.high)))
    most = max(off, key=lambda each: each[1], default=None)
    if sketch is None or sketch.incomplete or faults(sketch.preparation):
        return AtStation(station, there, None, None, None, tuple(sentences), most)
    metal = joint_metal(sketch.preparation)
    (beads,) = bead_counts(there, (sketch.preparation,))
    share = _grown(wps, metal)
    energy = None if share is None else _energy(wps, share)
    fill = None if share is None else _fill(wps, share)
    return AtStation(station, there, metal, beads, energy, tuple(sentences), most, fill)


def _grown(wps: Wps, metal: JointMetal) -> float | None:
    """Return the metal there as a multiple of what the joint takes as it is drawn; `None` while that is not known."""
    nominal = sketch_of(wps.joint)
    if nominal is None or nominal.incomplete or faults(nominal.preparation):
        return None
    whole = joint_metal(nominal.preparation).whole_area_mm2
    return metal.whole_area_mm2 / whole if whole > 0 else None


def _energy(wps: Wps, share: float) -> tuple[float, float] | None:
    """Return the arc energy of all passes where the joint is so large: it goes with the metal [kJ/mm]."""
    spans = [energy.interval for each in wps.passes if (energy := pass_energy(each))]
    if len(spans) < len(wps.passes) or not spans:
        return None
    return share * sum(each.low for each in spans), share * sum(each.high for each in spans)


def _fill(wps: Wps, share: float) -> float | None:
    """Return what the passes as stated lay of the room where the joint is so large; `None` where that is not known."""
    found = bead_layout(wps)
    if found is None or not found.fillings or any(bead.shared for bead in found.beads):
        return None
    return found.laid_mm2 / sum(each.room_mm2 for each in found.fillings) / share


def worst(found: tuple[AtStation, ...]) -> tuple[AtStation, str] | None:
    """Return the station where a measure is farthest off, else the one that is filled least, and which measure it is.

    `None` where nothing is off and the passes fill every station.
    """
    off = [each for each in found if each.off is not None]
    if off:
        own = max(off, key=_off_mm)
        return own, (own.off or ("", 0.0))[0]
    low = [each for each in found if each.fill is not None and each.fill < FULL]
    return (min(low, key=lambda each: each.fill or 0.0), "Fill") if low else None


def _off_mm(each: AtStation) -> float:
    return each.off[1] if each.off else 0.0


def with_four(wps: Wps) -> Wps:
    """Return the procedure with four stations to measure, by the clock round a pipe, else along the seam."""
    for spot in CLOCK if wps.joint.product == "pipe" else SEAM:
        wps, _ = with_element(wps, "stations", place=spot)
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
        said.append(_worst_sentence(*bad, system))
    elif found:
        said.append("No station asks for another root style, gap or land.")
    return tuple(said)


def _worst_sentence(bad: AtStation, measure: str, system: System) -> str:
    """Return which station is worst, by which measure, and by how much."""
    place = bad.station.place or "unnamed"
    if bad.off is None:
        return f"Worst station: {place}, filled to {100 * (bad.fill or 0.0):.0f} %."
    by = show(bad.off[1], "length", system, unit_table())
    return f"Worst station: {place}, {measure.lower()} {'over its aim' if measure == MISMATCH else 'off'} by {by}."
