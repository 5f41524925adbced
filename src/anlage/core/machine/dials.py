"""Where to set a machine for a current: between what a meter read, never beyond it, inward to half a division."""

import math
from collections.abc import Sequence
from itertools import pairwise

from msgspec import Struct

from anlage.core.machine.calibration import Point, Tap
from anlage.core.ranges import Interval

HALVES = 2  # a dial is set to half a division
CLOSE = 1e-9


class DialStep(Struct, frozen=True, kw_only=True):
    """Where to set one tap of a machine.

    Parameters
    ----------
    tap : which, with the day and the meters of its readings
    dial : from least to most, on half divisions inside the current; `None` where none lies inside
    covered_a : the part of the current over which it was read [A]
    is_whole : whether that is all of the current
    """

    tap: Tap
    dial: Interval | None
    covered_a: Interval
    is_whole: bool

    @property
    def dial_text(self) -> str:
        """The dial in a few characters, "" where no half division lies inside."""
        if self.dial is None:
            return ""
        return "..".join(dict.fromkeys(f"{end:g}" for end in (self.dial.low, self.dial.high)))


def dial_steps(taps: Sequence[Tap], current_a: Interval) -> tuple[DialStep, ...]:
    """Return the dial steps that give a current, for every tap that is proven over some of it.

    Between readings in proportion, inward to half a division: what the dial says is never more than the current lets.
    Nothing is said beyond the least and the most that was read: there the dial is unproven as amps.

    Parameters
    ----------
    current_a : the current that is wanted, from least to most [A]
    """
    found = []
    for tap in taps:
        if tap.why_not:
            continue
        rows = sorted(tap.points, key=lambda each: each.current_a)
        low, high = max(current_a.low, rows[0].current_a), min(current_a.high, rows[-1].current_a)
        if low > high or (low == high and not current_a.is_single):
            continue
        covered = Interval(low, high)
        dial = _inward(dial_at(rows, low), dial_at(rows, high))
        found.append(DialStep(tap=tap, dial=dial, covered_a=covered, is_whole=covered == current_a))
    return tuple(found)


def dial_at(rows: Sequence[Point], current_a: float) -> float:
    """Return the place of a dial at a current that was read over, in proportion between its neighbours.

    Parameters
    ----------
    rows : the readings by rising current
    current_a : between the least and the most of them [A]
    """
    for one, other in pairwise(rows):
        if one.current_a <= current_a <= other.current_a:
            span = other.current_a - one.current_a
            return one.dial + (other.dial - one.dial) * (current_a - one.current_a) / span if span else one.dial
    return rows[0].dial


def _inward(one: float, other: float) -> Interval | None:
    """Return the half divisions between two places of a dial."""
    low, high = sorted((one, other))
    least, most = math.ceil(HALVES * low - CLOSE) / HALVES, math.floor(HALVES * high + CLOSE) / HALVES
    return Interval(least, most) if least <= most else None
