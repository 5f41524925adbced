"""The plan of starts and stops of a procedure: by electrode, progression and rule, round the pipe or along the seam."""

from dataclasses import dataclass

from anlage.core.beads import electrode_metal
from anlage.core.drawing import Around, DisplayList, Ring, clock, strip
from anlage.core.errors import InputError
from anlage.core.procedure import Deposit, Wps, pass_energy
from anlage.core.quantities import parse, show
from anlage.core.quantities.units import System
from anlage.core.stops import DOWNHILL_ARCS, Half, Stops, barred_on, halves, marked_stops, stops_along
from anlage.data.tables import unit_table
from anlage.session.bead_areas import density_of, usual_settings
from anlage.session.beads import bead_layout
from anlage.session.pictures import Sheet
from anlage.session.takes import seam_mm

TACKS = {"2": (0.0, 180.0), "3": (0.0, 90.0, 270.0), "4": (0.0, 90.0, 180.0, 270.0)}  # common practice, no source
TURN_DEG = 6.0  # meeting places of successive passes are turned so far from 6 and 12 o'clock; own choice
BARRED_WORD = "the stretch from 3 to 5 o'clock"


@dataclass(frozen=True, slots=True)
class Way:
    """One pass on one way: the half, `None` on a plate, its length and its stops [mm]."""

    half: Half | None
    length_mm: float
    stops: Stops


@dataclass(frozen=True, slots=True)
class PassPlan:
    """One pass: its id and number, how far one electrode goes [mm], and its ways."""

    pass_id: str
    number: int
    reach_mm: float | None
    known: bool
    ways: tuple[Way, ...]

    @property
    def count(self) -> int:
        """How many electrodes it takes, as starts."""
        return sum(len(way.stops.at_mm) + 1 for way in self.ways)


def reach_of(deposit: Deposit, area_mm2: float) -> tuple[float | None, bool]:
    """Return how far one electrode goes [mm], `None` when it has no end; and whether that is known."""
    if deposit.process != "SMAW":
        return None, True
    row = usual_settings(deposit)
    if row is None or row.electrode_length_mm is None or area_mm2 <= 0:
        return None, False
    density = density_of(deposit)
    metal = electrode_metal(
        row.diameter_mm, consumed_length_mm=row.electrode_length_mm - (row.stub_mm or 0.0),
        recovery=(row.electrode_efficiency_percent or 100.0) / 100, density_g_cm3=density,
    )  # fmt: skip
    return metal / density * 1e6 / area_mm2, True


def stop_plan(wps: Wps) -> tuple[PassPlan, ...]:
    """Return starts and stops of every pass; none while the beads cannot be laid."""
    found = bead_layout(wps)
    if found is None:
        return ()
    passes = {each.id: (n, each) for n, each in enumerate(wps.passes, 1)}
    homes = {each.id: each for each in wps.deposits}
    plans: list[PassPlan] = []
    below: dict[int, tuple[float, ...]] = {}
    for bead in found.beads:
        number, each = passes[bead.key]
        reach, known = reach_of(homes[each.deposit], bead.area_mm2)
        ways = []
        for place, (half, length) in enumerate(_ways(wps, len(plans))):
            arcs = DOWNHILL_ARCS if wps.seam.stop_rule == "downhill" else ()
            barred = barred_on(half, length, arcs, BARRED_WORD) if half else ()
            before = tuple(share * length for share in below.get(place, ()))
            stagger, marks = wps.seam.stagger_mm or 0.0, marks_of(wps)
            if marks and half is None:
                stops = marked_stops(length, reach, marks, before=before, stagger_mm=stagger)
            else:
                stops = stops_along(length, reach, barred=barred, before=before, stagger_mm=stagger)
            below[place] = tuple(at / length for at in stops.at_mm)
            ways.append(Way(half, length, stops))
        plans.append(PassPlan(each.id, number, reach, known, tuple(ways)))
    return tuple(plans)


def marks_of(wps: Wps) -> tuple[float, ...]:
    """Return the marked stops from the start of a plate seam [mm]; what is no length is left out, and told."""
    return tuple(mark for _, mark in _marks(wps) if mark is not None)


def _marks(wps: Wps) -> list[tuple[str, float | None]]:
    found: list[tuple[str, float | None]] = []
    for word in filter(None, (part.strip() for part in (wps.seam.marks or "").split(","))):
        try:
            found.append((word, parse(word, "length", unit_table(), where="marked stops", bare="mm").low))
        except InputError:
            found.append((word, None))
    return found


def is_round(wps: Wps) -> bool:
    """Return whether the seam goes round a pipe."""
    return seam_mm(wps)[1] == "the whole ring"


def _ways(wps: Wps, place: int) -> list[tuple[Half | None, float]]:
    length, _ = seam_mm(wps)
    if not is_round(wps):
        return [(None, length)]
    turned = TURN_DEG * (1 if place % 2 else -1) if wps.seam.stagger_mm else 0.0
    return [(half, length / 2) for half in halves(wps.technique.progression, turned)]


def stop_picture(wps: Wps, chosen: str, sheet: Sheet) -> DisplayList | None:
    """Return the clock of a pipe or the rows of a plate; `None` when nothing can be laid."""
    plans = stop_plan(wps)
    if not plans:
        return None
    heats = {each.id: energy.high.energy_kj_mm for each in wps.passes if (energy := pass_energy(each))}
    rings = tuple(
        Ring(f"passes/{each.pass_id}", str(each.number), _runs(each), heats.get(each.pass_id), each.pass_id == chosen)
        for each in plans
    )
    if is_round(wps):
        arcs = DOWNHILL_ARCS if wps.seam.stop_rule == "downhill" else ()
        around = Around(arcs, TACKS.get(wps.seam.tacks or "", ()))
        return clock(rings, around, min(sheet.width_mm, sheet.height_mm) / 2 - 7.0, sheet.measure)
    length = show(seam_mm(wps)[0], "length", sheet.system, unit_table())
    size = (max(0.84 * sheet.width_mm - 10.0, 30.0), max(sheet.height_mm - 10.0, 20.0))
    return strip(rings, length, size, sheet.measure)


def _runs(plan: PassPlan) -> tuple[tuple[float, float], ...]:
    found = []
    for way in plan.ways:
        for start, end in way.stops.runs(way.length_mm):
            shares = (start / way.length_mm, end / way.length_mm)
            found.append((way.half.at(shares[0]), way.half.at(shares[1])) if way.half else shares)
    return tuple(found)


def stop_sentences(wps: Wps, chosen: str, system: System) -> tuple[str, ...]:
    """Return what the chosen pass comes to, and every rule that a pass cannot keep."""
    plans = stop_plan(wps)
    own = next((each for each in plans if each.pass_id == chosen), None)
    found = []
    if own is not None and not own.known:
        found.append(f"Pass {own.number}: how far an electrode goes is not known; state filler and size.")
    elif own is not None and own.reach_mm is not None:
        reach = show(own.reach_mm, "length", system, unit_table())
        found.append(f"Pass {own.number}: {own.count} electrodes, one lays {reach}.")
    elif own is not None:
        found.append(f"Pass {own.number}: wire and rods are led by hand, no stop is planned on the way.")
    told: dict[str, list[str]] = {}
    for each in plans:
        for way in each.ways:
            if way.stops.problem:
                told.setdefault(way.stops.problem, []).append(str(each.number))
    found += [f"Pass {', '.join(dict.fromkeys(numbers))}: {problem}." for problem, numbers in told.items()]
    unread = [word for word, mark in _marks(wps) if mark is None]
    if unread:
        found.append(f"Marked stop {', '.join(unread)} is no length; write 120 mm.")
    elif marks_of(wps) and is_round(wps):
        found.append("Marked stops are lengths from the start of a plate; round a pipe they are not planned.")
    if is_round(wps) and wps.seam.welders == "2":
        found.append("Two welders, one on each half, start together.")
    return tuple(found)
