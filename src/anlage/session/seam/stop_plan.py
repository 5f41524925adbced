"""The plan of starts and stops of a procedure: by electrode, progression and rule, round the pipe or along the seam."""

import math
from itertools import accumulate, pairwise

from msgspec import Struct
from msgspec.structs import replace

from anlage.core.beads import electrode_metal
from anlage.core.document import kept
from anlage.core.drawing import DisplayList
from anlage.core.drawing.clock import Around, Ring, Seam, clock, strip
from anlage.core.procedure import Deposit, Pass, Wps, pass_energy
from anlage.core.quantities import show
from anlage.core.quantities.units import System
from anlage.core.stops import DOWNHILL_ARCS, Half, Rules, Stops, barred_on, halves, share_of, stops_along
from anlage.data.tables import unit_table
from anlage.data.usual_table import usual_table
from anlage.session.seam.seam_places import Places, Reach, is_round, places, reach_of_pass, seam_mm
from anlage.session.seam.tacks import tack_marks
from anlage.session.weld.bead_areas import bead_area, density_of, lays_sticks, process_of, usual_settings
from anlage.session.weld.beads import bead_layout
from anlage.session.weld.node import node_of
from anlage.session.weld.picture_sheet import Sheet

TURN_DEG = 6.0  # meeting places of successive passes are turned so far from 6 and 12 o'clock; own choice
NO_MARKS = "none"  # what a pass says that has no marked stop, whatever the seam says
MECHANISED = ("machine", "automatic")
SAME_MM = 5.0  # stops nearer than this lie over each other; own choice
BARRED_WORD = "the stretch from 3 to 5 o'clock"


class Way(Struct, frozen=True):
    """One pass on one way: the half or the part of it, `None` on a whole plate, its length and its stops [mm]."""

    half: Half | None
    length_mm: float
    stops: Stops


class PassPlan(Struct, frozen=True):
    """One pass: its id and number, how far one electrode goes or the welder reaches [mm], and its ways.

    `led` says that rods or wire have no end: the welder stops where he takes his place anew; `at_tacks` that he stops
    at every tack.
    """

    pass_id: str
    number: int
    reach_mm: float | None
    known: bool
    ways: tuple[Way, ...]
    led: bool = False
    at_tacks: bool = False

    @property
    def count(self) -> int:
        """How many electrodes it takes, as starts."""
        return sum(len(way.stops.at_mm) + 1 for way in self.ways)


def electrode_reach(deposit: Deposit, area_mm2: float) -> tuple[float | None, bool]:
    """Return how far one electrode goes [mm], `None` when it has no end; and whether that is known."""
    if not lays_sticks(deposit):
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


@kept
def stop_plan(wps: Wps) -> tuple[PassPlan, ...]:
    """Return starts and stops of every pass; none while the beads cannot be laid."""
    found = bead_layout(wps)
    if found is None:
        return ()
    areas = {bead.key: bead.area_mm2 for bead in found.beads}
    homes = {each.id: each for each in wps.deposits}
    plans: list[PassPlan] = []
    below: dict[int, tuple[float, ...]] = {}
    for number, each in enumerate(wps.passes, 1):
        part, laid = reach_of_pass(wps, each), bead_area(homes[each.deposit], each)
        area = areas.get(each.id) or (laid.middle if laid else 0.0)
        home = homes[each.deposit]
        reach, known = electrode_reach(home, area)
        led, at_tacks = not lays_sticks(home), each.role == "root" and _leads_tungsten(home)
        if led:
            reach = _reposition_mm(wps, home)
        marks = (*marks_of(wps, each).at, *(_tacks(wps) if at_tacks else ()))
        if part is not None:  # short: nobody marks stops in it
            ways = tuple(
                Way(half, long, stops_along(long, reach, _rules(wps, half, long))) for half, long in _parts(wps, part)
            )
            plans.append(PassPlan(each.id, number, reach, known, ways, led))
            continue
        ways = ()
        for place, (half, length) in enumerate(_ways(wps, len(plans))):
            before = tuple(share * length for share in below.get(place, ()))
            stops = stops_along(length, reach, replace(_rules(wps, half, length, marks), before=before))
            below[place] = tuple(at / length for at in stops.at_mm)
            ways = (*ways, Way(half, length, stops))
        plans.append(PassPlan(each.id, number, reach, known, ways, led, at_tacks))
    return tuple(plans)


def marks_of(wps: Wps, each: Pass) -> Places:
    """Return where a pass must stop: where it says itself, else where the seam says for all."""
    own = (each.marks or "").strip()
    if own.casefold() == NO_MARKS:
        return Places((), ())
    return places(wps, own or wps.seam.marks)


def _leads_tungsten(deposit: Deposit) -> bool:
    process = process_of(deposit)
    return process is not None and process.electrode == "tungsten" and deposit.operation not in MECHANISED


def _tacks(wps: Wps) -> tuple[float, ...]:
    """Return where the tacks sit, by the clock or from the start."""
    long = 1.0 if is_round(wps) else seam_mm(wps)[0]
    return tuple(each.at * long for each in tack_marks(wps))


def _reposition_mm(wps: Wps, deposit: Deposit) -> float | None:
    """Return how far a welder goes from one place [mm]; `None` for a machine, and where the process is not stated."""
    if process_of(deposit) is None or deposit.operation in MECHANISED:
        return None
    usual, length = usual_table().reposition, seam_mm(wps)[0]
    return min(usual.ring_share * length, usual.most_mm) if is_round(wps) else usual.most_mm


def _rules(wps: Wps, half: Half | None, length: float, marks: tuple[float, ...] = ()) -> Rules:
    """Return the rules of the seam for a way; the marks as they are typed, by the clock or from the start."""
    stagger = wps.seam.stagger_mm or 0.0
    if half is None or not is_round(wps):
        return Rules(stagger_mm=stagger, marks=marks)
    arcs = DOWNHILL_ARCS if wps.seam.stop_rule == "downhill" else ()
    own = tuple(share * length for mark in marks if (share := share_of(half, mark)) is not None)
    return Rules(barred_on(half, length, arcs, BARRED_WORD), stagger_mm=stagger, marks=own)


def _ways(wps: Wps, place: int) -> list[tuple[Half | None, float]]:
    (length, _), node = seam_mm(wps), node_of(wps)
    if node is not None:  # one way a member, one behind the other
        starts = [0.0, *accumulate(each.weld.length_mm / length for each in node.members)]
        return [(Half("", one, other), (other - one) * length) for one, other in pairwise(starts)]
    if not is_round(wps):
        return [(None, length)]
    turned = TURN_DEG * (1 if place % 2 else -1) if wps.seam.stagger_mm else 0.0
    return [(half, length / 2) for half in halves(wps.technique.progression, turned)]


def _parts(wps: Wps, part: Reach) -> list[tuple[Half, float]]:
    """Return the stretches of a pass that is laid on a part of the way, each in the direction it is welded."""
    length, ring = seam_mm(wps)[0], is_round(wps)
    found = []
    for start, end in part.stretches:
        if not ring:
            found.append((Half("", start / length, end / length), end - start))
            continue
        rising = math.sin(math.radians((start + end) / 2)) < 0  # clockwise goes up on the left
        uphill = wps.technique.progression != "downhill"
        ends = (start, end) if rising == uphill else (end, start)
        found.append((Half("", *ends), (end - start) / 360.0 * length))
    return found


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
        around = Around(arcs, tack_marks(wps))
        return clock(rings, around, min(sheet.width_mm, sheet.height_mm) / 2 - 7.0, sheet.measure)
    length = show(seam_mm(wps)[0], "length", sheet.system, unit_table())
    size = (max(0.84 * sheet.width_mm - 10.0, 30.0), max(sheet.height_mm - 10.0, 20.0))
    seam = Seam(length, has_tabs=node_of(wps) is None)
    return strip(rings, tack_marks(wps), seam, size, sheet.measure)


def _lies_over(one: PassPlan, other: PassPlan) -> bool:
    """Return whether a stop of a pass lies where one of another does, on the same way."""
    return any(
        abs(a - b) < SAME_MM
        for before, after in zip(one.ways, other.ways, strict=False)
        for a in before.stops.at_mm
        for b in after.stops.at_mm
    )


def _runs(plan: PassPlan) -> tuple[tuple[float, float], ...]:
    found = []
    for way in plan.ways:
        for start, end in way.stops.runs(way.length_mm):
            shares = (start / way.length_mm, end / way.length_mm)
            found.append((way.half.at(shares[0]), way.half.at(shares[1])) if way.half else shares)
    return tuple(found)


def _said_of(wps: Wps, own: PassPlan, system: System) -> str:
    """Return how often a pass starts, and why."""
    if not own.known:
        return "how far an electrode goes is not known; state filler and size"
    if own.reach_mm is None:
        return "led by a machine, no stop is planned on the way"
    reach = show(own.reach_mm, "length", system, unit_table())
    if not own.led:
        return f"{own.count} electrodes, one lays {reach}"
    at_tacks = "stops at every tack, quarter by quarter; " if own.at_tacks and tack_marks(wps) else ""
    return f"{own.count} starts; {at_tacks}the welder takes his place anew after {reach}"


def stop_sentences(wps: Wps, chosen: str, system: System) -> tuple[str, ...]:
    """Return what the chosen pass comes to, and every rule that a pass cannot keep."""
    plans = stop_plan(wps)
    own = next((each for each in plans if each.pass_id == chosen), None)
    found = [] if own is None else [f"Pass {own.number}: {_said_of(wps, own, system)}."]
    told: dict[str, list[str]] = {}
    for each in plans:
        for way in each.ways:
            if way.stops.problem:
                told.setdefault(way.stops.problem, []).append(str(each.number))
    found += [f"Pass {', '.join(dict.fromkeys(numbers))}: {problem}." for problem, numbers in told.items()]
    marked = wps.seam.marks or any(each.marks for each in wps.passes)
    meant = wps.seam.stagger_mm or marked  # marked stops lie over each other on purpose
    over = 0 if meant else sum(_lies_over(one, other) for one, other in pairwise(plans))
    if over:
        passes = "one pass" if over == 1 else f"{over} passes"
        found.append(f"Stops of {passes} lie over those of the pass before: state a stagger.")
    unread = tuple(dict.fromkeys(word for each in wps.passes for word in marks_of(wps, each).unread))
    if unread:
        example = "no place on the clock; write 4:30" if is_round(wps) else "no length; write 120 mm"
        found.append(f"Marked stop {', '.join(unread)} is {example}.")
    if is_round(wps) and wps.seam.welders == "2":
        found.append("Two welders, one on each half, start together.")
    return tuple(found)
