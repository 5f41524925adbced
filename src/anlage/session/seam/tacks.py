"""Tacks of a seam, each with its length, its kind and how its ends are dressed; what the root does at them."""

from msgspec import Struct

from anlage.core.drawing.clock import TackMark
from anlage.core.procedure import Tack, Wps, with_element
from anlage.core.quantities import show
from anlage.core.quantities.units import System
from anlage.core.stops import halves
from anlage.data.tables import unit_table
from anlage.session.seam.seam_places import DEGREES_AN_HOUR, is_round, places, seam_mm

HOURS = {"2": (12, 6), "3": (12, 3, 9), "4": (12, 3, 6, 9)}  # common practice, no source, like the lengths here
USUAL_MM = (12.7, 25.4)
PLATE_MM, PIPE_MM = 19.0, 20.0
UNSTATED_DEG = 5.0  # half of what a tack without a length is drawn with


class Placed(Struct, frozen=True):
    """One tack where it sits: degrees round a pipe, millimetres along a plate."""

    tack: Tack
    at: float


def placed_tacks(wps: Wps) -> tuple[Placed, ...]:
    """Return every tack whose place can be read, in its order."""
    found = []
    for each in wps.tacks:
        read = places(wps, each.place)
        if len(read.at) == 1 and not read.unread:
            found.append(Placed(each, read.at[0]))
    return tuple(found)


def tack_marks(wps: Wps) -> tuple[TackMark, ...]:
    """Return the tacks as they are drawn [° or share]; where none is set out, the usual places of their number."""
    if not wps.tacks:
        usual = HOURS.get(wps.seam.tacks or "", ()) if is_round(wps) else ()
        return tuple(TackMark("seam/tacks", hour * DEGREES_AN_HOUR % 360.0, UNSTATED_DEG) for hour in usual)
    length, ring = seam_mm(wps)[0], is_round(wps)
    found = []
    for each in placed_tacks(wps):
        half = 0.5 * (each.tack.length_mm or 0.0) / length * (360.0 if ring else 1.0)
        if not half:
            half = UNSTATED_DEG if ring else UNSTATED_DEG / 360.0
        found.append(
            TackMark(
                f"tacks/{each.tack.id}", each.at if ring else each.at / length, half,
                feathered=(each.tack.first_end == "feathered", each.tack.second_end == "feathered"),
                bridge=each.tack.form == "bridge",
            )
        )  # fmt: skip
    return tuple(found)


def with_tacks(wps: Wps, *, entered_only: bool = False) -> Wps:
    """Return the procedure with its tacks set out: round a pipe by their number, on a plate at both ends.

    Parameters
    ----------
    wps : the procedure
    entered_only : feather only the ends that the root is welded into, and leave the others whole
    """
    if is_round(wps):
        stated = [(f"{hour} o'clock", PIPE_MM) for hour in HOURS[wps.seam.tacks or "4"]]
    else:
        middles = (PLATE_MM / 2, seam_mm(wps)[0] - PLATE_MM / 2)
        stated = [(f"{middle:g} mm", PLATE_MM) for middle in middles]
    for place, length in stated:
        into = _entered(wps, places(wps, place).at[0])
        ends = ["feathered" if entered or not entered_only else "whole" for entered in into]
        wps, _ = with_element(
            wps, "tacks", place=place, length_mm=length, form="through", first_end=ends[0], second_end=ends[1]
        )
    return wps


def _entered(wps: Wps, at: float) -> tuple[bool, bool]:
    """Return into which ends of a tack the root is welded: first and second end, clockwise or from the start."""
    if not is_round(wps):
        return True, False
    first = second = False
    for half in halves(wps.technique.progression):
        clockwise = half.end_deg > half.start_deg
        for turn in (-360.0, 0.0, 360.0):
            share = (at + turn - half.start_deg) / (half.end_deg - half.start_deg)
            if 0.0 < share <= 1.0:
                first, second = first or clockwise, second or not clockwise
    return first, second


def tack_sentences(wps: Wps, system: System) -> tuple[str, ...]:
    """Return what is to be minded at the tacks: ends left whole that the root runs into, lengths, bridges."""
    said: list[str] = []
    barred = wps.seam.metal_removal == "no"
    read = {each.tack.id: each.at for each in placed_tacks(wps)}
    for each in wps.tacks:
        name = f"Tack at {each.place or 'no place'}"
        if each.id not in read:
            said.append(f"{name}: write 4 o'clock round a pipe, 120 mm along a plate.")
            continue
        for entered, end, word in zip(
            _entered(wps, read[each.id]), (each.first_end, each.second_end), ("first", "second"), strict=True
        ):
            if barred and end == "feathered":
                said.append(f"{name}: its {word} end is to be feathered, but no metal may be removed: only a brush.")
            elif entered and end == "whole" and each.form != "bridge":
                mend = "start on solid metal ahead and carry back" if barred else "feather it"
                said.append(f"{name}: the root runs into its {word} end, which is left whole; {mend}.")
        if each.length_mm is not None and not USUAL_MM[0] <= each.length_mm <= USUAL_MM[1]:
            usual = " to ".join(show(end, "length", system, unit_table()) for end in USUAL_MM)
            said.append(f"{name}: {usual} is usual; hardenable steel takes longer ones and the full preheat.")
    bridges = [each.place or "?" for each in wps.tacks if each.form == "bridge"]
    if bridges:
        said.append(f"Bridge at {', '.join(bridges)}: cut it out as the root reaches it, and dress the bevel.")
    if any(each.form == "through" for each in wps.tacks):
        said.append("Through tacks stay in the weld: made by a qualified welder with the filler of the root.")
    return tuple(said)
