"""Travel speed by stopwatch: the number nobody in a shop has, from marks on a plate or clock positions on a pipe."""

import math
import re

from msgspec import Struct

from anlage.core.errors import InputError, shortened
from anlage.core.ranges import Interval
from anlage.core.results import require_above_zero

_CLOCK = re.compile(r"\s*(\d{1,2})(?::([0-5]\d)|\.(\d+))?\s*(?:h|o'?clock)?\s*", re.IGNORECASE)


class ClockArc(Struct, frozen=True):
    """The way between two clock positions on a pipe: hours travelled and length on the outside [mm]."""

    hours: float
    length_mm: float


def clock_position(text: str, *, where: str = "clock") -> float:
    """Return the clock position that `text` names, in hours above 0 up to 12.

    Raises
    ------
    InputError : it is no position on a clock

    Examples
    --------
    >>> clock_position("4:30"), clock_position("12"), clock_position("7.5")
    (4.5, 12.0, 7.5)
    """
    match = _CLOCK.fullmatch(text[:40])
    hours = -1.0
    if match:
        hours = int(match[1]) + (int(match[2]) / 60 if match[2] else float(f"0.{match[3] or 0}"))
    if hours == 0 or not 0 <= hours <= 12:
        raise InputError(f"{shortened(text)} is no clock position", where=where, mend="write 1 to 12, or 4:30")
    return hours


def clock_arc(od_mm: float, from_clock: float, to_clock: float) -> ClockArc:
    """Return the length on a pipe's outside between two clock positions, the shorter way round.

    Parameters
    ----------
    od_mm : outside diameter of the pipe [mm], above 0
    from_clock, to_clock : positions on the clock in hours, above 0 up to 12

    Returns
    -------
    ClockArc : hours travelled, at most 6, and π·OD·hours / 12 [mm]

    Raises
    ------
    InputError : the diameter is not above 0, or both positions are the same place

    Validity
    --------
    Measured on the outside surface; no pass on fixed pipe goes further than half round.

    Sources
    -------
    Geometry. That a shop names places by the clock: common practice, no source.

    Examples
    --------
    >>> clock_arc(114.3, 6, 3)
    ClockArc(hours=3.0, length_mm=89.77)
    """
    require_above_zero(od_mm=od_mm)
    apart = abs(from_clock - to_clock) % 12
    hours = float(min(apart, 12 - apart))
    if hours == 0:
        mend = "state two places, or length for a whole turn"
        raise InputError("from_clock and to_clock are the same place", where="to_clock", mend=mend)
    return ClockArc(hours, math.pi * od_mm * hours / 12)


def travel_speed_range(length_mm: Interval, time_s: Interval) -> Interval:
    """Return the travel speed of a run of stopped length and time [mm/min]; fastest is longest over shortest.

    Raises
    ------
    InputError : length or time reaches zero

    Examples
    --------
    >>> print(travel_speed_range(Interval.single(190), Interval.single(38)))
    [300, 300]
    """
    require_above_zero(length_mm=length_mm.low, time_s=time_s.low)
    return Interval(length_mm.low / time_s.high * 60, length_mm.high / time_s.low * 60)
