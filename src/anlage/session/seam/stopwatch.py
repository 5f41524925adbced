"""Travel speed from stopped runs: the way by a length or by the clock on a pipe, the time by start and stop."""

import re
from collections.abc import Sequence

from msgspec import Struct

from anlage.core.errors import InputError
from anlage.core.heat import clock_arc, clock_position, travel_speed_range
from anlage.core.procedure import Joint
from anlage.core.quantities import parse
from anlage.core.quantities.units import System
from anlage.core.ranges import Interval
from anlage.data.tables import unit_table

_CLOCK = re.compile(r"(.+?)\s*(?:to|\.\.|–)\s*(.+?)\s*(?:o'?clock)?", re.IGNORECASE)


class Run(Struct, frozen=True):
    """One stopped run: the way [mm] and the time [s]."""

    length_mm: float
    time_s: float

    @property
    def speed_mm_min(self) -> float:
        """Its travel speed [mm/min]."""
        return self.length_mm / self.time_s * 60


def way(text: str, joint: Joint, system: System) -> float:
    """Return the length that a text names [mm]: `150 mm`, or on a pipe `6 to 3`, by the clock.

    Raises
    ------
    InputError : it is no length above zero, or no two places on the clock of this pipe

    Examples
    --------
    >>> way("150", Joint(), "si"), way("6 to 3", Joint(product="pipe", od_mm=100), "si")
    (150.0, 78.54)
    """
    match = _CLOCK.fullmatch(text.strip())
    if match:
        if joint.product != "pipe" or joint.od_mm is None:
            mend = "state the length, or the pipe's outside diameter at Joint"
            raise InputError(f"{text} is no length", where="way", mend=mend)
        ends = [clock_position(end, where="way") for end in match.groups()]
        return clock_arc(joint.od_mm, *ends).length_mm
    unit = unit_table()["length"].shown_in[system][0].name
    length = parse(text, "length", unit_table(), where="way", bare=unit)
    if not (length.is_single and length.low > 0):
        mend = "state the length between the marks"
        raise InputError(f"{text} is no single length above zero", where="way", mend=mend)
    return length.low


def speed_of(runs: Sequence[Run]) -> Interval:
    """Return the travel speed of some runs from the slowest to the fastest [mm/min].

    Raises
    ------
    InputError : there is no run, or one took no time
    """
    if not runs:
        raise InputError("no run was stopped", where="travel speed", mend="start and stop at two marks")
    each = [travel_speed_range(Interval.single(run.length_mm), Interval.single(run.time_s)) for run in runs]
    return Interval(min(speed.low for speed in each), max(speed.high for speed in each))


def change_of(stated: Interval, read: Interval) -> str:
    """Return in words what taking a measured speed does to the one that is stated.

    Examples
    --------
    >>> change_of(Interval(60, 80), Interval(62, 66)), change_of(Interval(60, 80), Interval(70, 90))
    ('narrow it to', 'replace it by')
    """
    if stated.low <= read.low and read.high <= stated.high:
        return "narrow it to"
    return "widen it to" if read.low <= stated.low and stated.high <= read.high else "replace it by"
