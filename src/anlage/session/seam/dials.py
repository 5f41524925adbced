"""Where to set a calibrated machine for a current: between what a meter read, never beyond it."""

import math
from itertools import pairwise

from msgspec import Struct

from anlage.core.procedure import Reading, Wps
from anlage.core.quantities import show_interval
from anlage.core.quantities.units import System
from anlage.core.ranges import Interval
from anlage.data.tables import unit_table

HALVES = 2  # a dial is set to half a division
CLOSE = 1e-9


class DialStep(Struct, frozen=True, kw_only=True):
    """Where to set one tap of a machine.

    Parameters
    ----------
    machine, tap : which
    dial : from least to most, on half divisions inside the current; `None` where none lies inside
    covered_a : the part of the current over which it was read [A]
    is_whole : whether that is all of the current
    meter, day : what it was read with last, and when
    """

    machine: str
    tap: str
    dial: Interval | None
    covered_a: Interval
    is_whole: bool
    meter: str
    day: str

    @property
    def words(self) -> str:
        """The step in a few words."""
        where = " ".join(filter(None, (self.machine, f"tap {self.tap}" if self.tap else "")))
        if self.dial is None:
            return f"{where} dial: no half division gives it".strip()
        ends = (f"{end:g}" for end in (self.dial.low, self.dial.high))
        return f"{where} dial {'..'.join(dict.fromkeys(ends))}".strip()


def dial_steps(wps: Wps, current_a: Interval) -> tuple[DialStep, ...]:
    """Return the dial steps that give a current, for every tap that was read over some of it.

    Between readings in proportion, inward to half a division: what the dial says is never more than the current lets.
    Nothing is said beyond the least and the most that was read: there the dial is unproven as amps.
    """
    taps: dict[tuple[str, str], list[Reading]] = {}
    for each in wps.readings:
        if each.dial is not None and each.current_a is not None:
            taps.setdefault((each.machine or "", each.tap or ""), []).append(each)
    found = []
    for (machine, tap), readings in taps.items():
        rows = sorted((each.current_a or 0.0, each.dial or 0.0) for each in readings)
        low, high = max(current_a.low, rows[0][0]), min(current_a.high, rows[-1][0])
        if low > high or (low == high and not current_a.is_single):
            continue
        covered = Interval(low, high)
        last = max(readings, key=lambda each: each.day or "")
        found.append(DialStep(
            machine=machine, tap=tap, dial=_inward(_dial(rows, low), _dial(rows, high)), covered_a=covered,
            is_whole=covered == current_a, meter=last.meter or "", day=last.day or "",
        ))  # fmt: skip
    return tuple(found)


def _inward(one: float, other: float) -> Interval | None:
    """Return the half divisions between two places of a dial."""
    low, high = sorted((one, other))
    least, most = math.ceil(HALVES * low - CLOSE) / HALVES, math.floor(HALVES * high + CLOSE) / HALVES
    return Interval(least, most) if least <= most else None


def _dial(rows: list[tuple[float, float]], amps: float) -> float:
    """Return the place of a dial at a current that was read over."""
    for (a1, d1), (a2, d2) in pairwise(rows):
        if a1 <= amps <= a2:
            return d1 + (d2 - d1) * (amps - a1) / (a2 - a1) if a2 > a1 else d1
    return rows[0][1]


def dial_sentences(wps: Wps, pass_id: str, system: System) -> tuple[str, ...]:
    """Return where to set the machines for a pass, and that a dial is unproven as amps where nothing was read."""
    each = next((one for one in wps.passes if one.id == pass_id), None)
    if each is None or each.current_a is None:
        return ()
    if not wps.readings:
        return ("No machine is calibrated here: a dial setting is unproven as amps.",)
    steps = dial_steps(wps, each.current_a)
    if not steps:
        return ("No tap was read over the current of this pass: a dial setting is unproven as amps.",)
    return tuple(_said(step, system) for step in steps)


def _said(step: DialStep, system: System) -> str:
    covered = show_interval(step.covered_a, "current", system, unit_table())
    part = "" if step.is_whole else f" for {covered} of it, the rest was not read"
    return f"{step.words}{part} (meter {step.meter or 'not stated'}, {step.day or 'no day'})."
