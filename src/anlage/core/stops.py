"""Where electrodes run out: starts and stops of every pass along a seam, staggered, none where a rule forbids.

Glossary
--------
way : one half of a pipe, or a whole plate seam, from 0 to its length in the direction of travel [mm]
barred : a stretch of a way in which no start or stop may lie
reach : the longest run that one electrode lays [mm]; wire and rods have none
"""

import math
from bisect import bisect_right
from collections.abc import Sequence
from itertools import pairwise

from msgspec import Struct
from msgspec.structs import replace

from anlage.core.results import require_above_zero

CLOSE_MM = 1e-6
MOST_STOPS = 2000  # of one way: more are no plan for anybody


class Barred(Struct, frozen=True):
    """A stretch [mm] without starts and stops, and why."""

    start_mm: float
    end_mm: float
    reason: str


class Stops(Struct, frozen=True):
    """The stops of one pass on one way [mm], its ends left out; or why they cannot be set."""

    at_mm: tuple[float, ...]
    problem: str = ""

    def runs(self, length_mm: float) -> tuple[tuple[float, float], ...]:
        """Return start and end of every run [mm]."""
        ends = (0.0, *self.at_mm, length_mm)
        return tuple(pairwise(ends))


class Rules(Struct, frozen=True):
    """What binds the stops of a pass on a way.

    Parameters
    ----------
    barred : stretches without starts and stops; a mark in one of them is kept, and told
    before : stops of the pass below [mm]; marks are not held away from them
    stagger_mm : least distance from each of them [mm]
    marks : places of stops that must be [mm]; those beyond the way are left out
    """

    barred: tuple[Barred, ...] = ()
    before: tuple[float, ...] = ()
    stagger_mm: float = 0.0
    marks: tuple[float, ...] = ()

    def between(self, start_mm: float, end_mm: float) -> "Rules":
        """Return the rules of a part of the way, without the marks, counted from its start."""
        closed = tuple(
            replace(b, start_mm=max(b.start_mm, start_mm) - start_mm, end_mm=min(b.end_mm, end_mm) - start_mm)
            for b in self.barred
            if b.start_mm < end_mm and b.end_mm > start_mm
        )
        below = tuple(at - start_mm for at in self.before if start_mm < at < end_mm and at not in self.marks)
        return Rules(closed, below, self.stagger_mm)


FREE = Rules()


def stops_along(length_mm: float, reach_mm: float | None, rules: Rules = FREE) -> Stops:
    """Return where the electrodes of one pass run out on a way, and where it stops at marks.

    Parameters
    ----------
    length_mm : length of the way [mm]
    reach_mm : longest run of one electrode [mm]; `None` for a filler without end
    rules : what binds the stops

    Returns
    -------
    Stops : as few and as even as the rules let them be; without the rule that cannot be kept, and its name, otherwise

    Raises
    ------
    InputError : a length is not above 0

    Validity
    --------
    A plan on paper: the welder stops where the electrode ends.

    Sources
    -------
    Common practice, no source: starts and stops of successive passes are staggered; none between 3 and 5 o'clock
    downhill; structural tests stop and start again at marked places inside the specimens.

    Examples
    --------
    >>> stops_along(250, 100).at_mm, stops_along(300, 120, Rules(marks=(100,))).at_mm
    ((83.33, 166.67), (100, 200.0))
    """
    require_above_zero(length_mm=length_mm)
    own = sorted({mark for mark in rules.marks if 0 < mark < length_mm})
    ends = [0.0, *own, length_mm]
    found: list[float] = []
    inside = (b.reason for b in rules.barred if any(b.start_mm < at < b.end_mm for at in own))
    problem = next((f"a marked stop lies in {reason}" for reason in inside), "")
    for start, end in pairwise(ends):
        part = _between_marks(end - start, reach_mm, rules.between(start, end) if own else rules)
        found += [*(start + at for at in part.at_mm), end]
        problem = problem or part.problem
    return Stops(tuple(found[:-1]), problem)


def _between_marks(length: float, reach: float | None, rules: Rules) -> Stops:
    if reach is None or reach >= length:
        return Stops(())
    require_above_zero(reach_mm=reach)
    if length / reach > MOST_STOPS:
        return Stops((), f"one electrode lays {reach:.2f} mm: more than {MOST_STOPS} stops are not listed")
    tight = next((b for b in rules.barred if min(b.end_mm, length) - max(b.start_mm, 0.0) > reach), None)
    if tight is not None:
        long = min(tight.end_mm, length) - max(tight.start_mm, 0.0)
        return Stops(_even(length, reach), f"one electrode lays {reach:.0f} mm, {tight.reason} is {long:.0f} mm")
    barred = [(b.start_mm, b.end_mm) for b in rules.barred]
    for apart in (rules.stagger_mm, 0.0):
        closed = [*barred, *((s - apart, s + apart) for s in rules.before)]
        found = _fewest(_Way(length, reach, tuple(_free(length, closed))))
        if found is not None:
            told = "" if apart == rules.stagger_mm else f"no place is {rules.stagger_mm:.0f} mm from the stops below"
            return Stops(found, told)
    return Stops(_even(length, reach), "no stop fits between the barred stretches")


def _even(length: float, reach: float) -> tuple[float, ...]:
    count = math.ceil(length / reach - 1e-9)
    return tuple(length * n / count for n in range(1, count))


def _free(length: float, closed: Sequence[tuple[float, float]]) -> list[tuple[float, float]]:
    """Return the stretches between closed ones."""
    found, start = [], 0.0
    for low, high in sorted(closed):
        if low > start + CLOSE_MM:
            found.append((start, min(low, length)))
        start = max(start, high)
    if start < length - CLOSE_MM:
        found.append((start, length))
    return [(low, high) for low, high in found if high > low]


class _Way(Struct, frozen=True):
    """A way with its free stretches [mm], in order and apart, and the longest run."""

    length: float
    reach: float
    free: tuple[tuple[float, float], ...]

    def nearest(self, wanted: float, low: float, high: float) -> float | None:
        """Return the free place between two bounds that is nearest to a wanted one."""
        best: float | None = None
        after = bisect_right(self.free, (min(max(wanted, low), high), math.inf))
        for start, end in self.free[max(after - 1, 0) : after + 1]:
            a, b = max(start, low), min(end, high)
            if a <= b:
                place = min(max(wanted, a), b)
                if best is None or abs(place - wanted) < abs(best - wanted):
                    best = place
        return best

    def latest(self) -> tuple[float, ...] | None:
        """Return the fewest stops, each as late as it may be; `None` where a run finds no end."""
        found: list[float] = []
        at = 0.0
        while self.length - at > self.reach + CLOSE_MM:
            place = self.nearest(at + self.reach, at + CLOSE_MM, at + self.reach)
            if place is None or place <= at + CLOSE_MM:
                return None
            found.append(place)
            at = place
        return tuple(found)

    def earliest(self, runs: int) -> list[float]:
        """Return from which place on 0, 1, 2 … runs still reach the end, up to so many."""
        found = [self.length]
        for _ in range(runs):
            at = found[-1] - self.reach
            place = self.nearest(at, at, self.length)
            found.append(at if place is None else place)
        return [max(at, 0.0) for at in found]


def _fewest(way: _Way) -> tuple[float, ...] | None:
    """Return the fewest stops in free places with no run over the reach, spread evenly where they can be."""
    latest = way.latest()
    if latest is None:
        return None
    count = len(latest) + 1
    earliest, found = way.earliest(count), [0.0]
    for n in range(1, count):  # each as near to its even place as its neighbours and the rules let it be
        wanted, before = way.length * n / count, found[-1]
        place = way.nearest(wanted, max(earliest[count - n], before + CLOSE_MM), before + way.reach)
        if place is None:
            return latest
        found.append(place)
    return tuple(found[1:])


class Half(Struct, frozen=True):
    """One half of a pipe: its name, where it starts and ends on the clock [°, 12 o'clock is 0, to the right]."""

    name: str
    start_deg: float
    end_deg: float

    def at(self, share: float) -> float:
        """Return the place on the clock after a share of the way [°]."""
        return self.start_deg + (self.end_deg - self.start_deg) * share


def halves(progression: str | None, offset_deg: float = 0.0) -> tuple[Half, Half]:
    """Return the two halves of a pipe: uphill from 6 to 12 o'clock, downhill from 12 to 6.

    Parameters
    ----------
    progression : uphill or downhill; anything else counts as uphill
    offset_deg : by how much the meeting places are turned from 6 and 12 o'clock [°]

    Examples
    --------
    >>> [(half.start_deg, half.end_deg) for half in halves("uphill")]
    [(180.0, 0.0), (180.0, 360.0)]
    """
    top, bottom = 0.0 + offset_deg, 180.0 + offset_deg
    right, left = (
        ("right, 12 to 6", "left, 12 to 6") if progression == "downhill" else ("right, 6 to 12", "left, 6 to 12")
    )
    if progression == "downhill":
        return Half(right, top, bottom), Half(left, top + 360.0, bottom)
    return Half(right, bottom, top), Half(left, bottom, top + 360.0)


def share_of(half: Half, place_deg: float) -> float | None:
    """Return after which share of a half a place of the clock lies; `None` when it lies on the other half.

    Examples
    --------
    >>> right, left = halves("uphill")
    >>> share_of(right, 90.0), share_of(left, 90.0), share_of(left, 270.0)
    (0.5, None, 0.5)
    """
    for turn in (-360.0, 0.0, 360.0):
        share = (place_deg + turn - half.start_deg) / (half.end_deg - half.start_deg)
        if 0.0 < share < 1.0:
            return share
    return None


def barred_on(half: Half, length_mm: float, arcs: Sequence[tuple[float, float]], reason: str) -> tuple[Barred, ...]:
    """Return the stretches of a half that lie in barred arcs of the clock [°, 12 o'clock is 0, to the right]."""
    low, high = sorted((half.start_deg, half.end_deg))
    found = []
    for start, end in arcs:
        for turn in (-360.0, 0.0, 360.0):
            a, b = max(start + turn, low), min(end + turn, high)
            if a < b:
                shares = sorted((angle - half.start_deg) / (half.end_deg - half.start_deg) for angle in (a, b))
                found.append(Barred(shares[0] * length_mm, shares[1] * length_mm, reason))
    return tuple(sorted(found, key=lambda each: each.start_mm))


DOWNHILL_ARCS = ((90.0, 150.0), (210.0, 270.0))
"""From 3 to 5 o'clock and from 7 to 9: where the puddle runs ahead downhill (common practice, no source)."""
