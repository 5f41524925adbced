"""How long to wait before each pass: the section model on the joint and the beads of an open procedure.

The answer is a range: the longest wait with the most heat and the brightest surface, the shortest with the least and
the darkest. What the picture may not claim stands beside it.
"""

import math
from collections.abc import Callable, Iterator
from functools import partial
from typing import TYPE_CHECKING, Literal

from msgspec import Struct

from anlage.core.document import kept
from anlage.core.errors import AnlageError
from anlage.core.joint import MAKES, Member, Shape
from anlage.core.machine import Calibrated
from anlage.core.procedure import Wps
from anlage.core.ranges import Interval
from anlage.session.heat.meters import NO_MACHINES
from anlage.session.heat.preheat import heat_inputs
from anlage.session.weld.analyses import sides_of
from anlage.session.weld.beads import bead_layout

if TYPE_CHECKING:
    from anlage.session.heat.section_frames import Frames
    from anlage.session.heat.section_runs import Ran

STOP_S, AMBIENT_C = 60.0, 20.0
POOL_MM = 12.0  # length of the pool: a station is under the arc for so long (M)
FROM_END_MM = 50.0  # the station that is hottest when the next arc is struck
LONGEST_LUMP_MM = 600.0  # a longer piece cools at its ends alone
FINE_MM = 2.0
STEEL_MM2_S = 10.0  # diffusivity of warm carbon steel, for the question whether a piece heats as one
SHORT_BY_K = 0.5
PLACE, OTHER_PLACE = "place", "place of the other side"
PLATES = ("tee", "corner", "lap")  # families whose members are plates: run where the product is no pipe
GIVEN_UP = "Given up."
Corner = Literal["long", "short"]
CORNERS: tuple[Corner, Corner] = ("long", "short")


class Film(Struct, frozen=True):
    """The section over the passes: its temperatures frame by frame, and the places that are read, by side [mm]."""

    frames: "Frames"
    places_mm: tuple[tuple[float, float], ...]

    @property
    def place_mm(self) -> tuple[float, float]:
        """The place of the first side."""
        return self.places_mm[0]


class Worked(Struct, frozen=True):
    """What waits were worked out for."""

    wps: Wps
    works: Calibrated = NO_MACHINES


class PassWait(Struct, frozen=True):
    """One pass: its number and id, the wait before it [s], and two temperatures [°C], shortest to longest.

    `before_c` is what is read at the hottest place before the arc is struck, against the most between passes;
    `reached_c` what the arc comes to there at the end of a lap, when the joint is coldest, against the least preheat;
    `peak_c` the most that the place comes to after it.
    """

    number: int
    pass_id: str
    wait_s: Interval | None
    before_c: Interval | None
    reached_c: Interval | None = None
    peak_c: Interval | None = None


class Waits(Struct, frozen=True):
    """The waits of a procedure, the total time [s], for what they were worked out, and what to mind."""

    passes: tuple[PassWait, ...]
    total_s: Interval | None
    worked: "Worked"  # for what
    minding: tuple[str, ...]
    curve: tuple[tuple[float, float], ...] = ()  # of the longest: time [s] and what the place reads [°C]
    starts_s: tuple[float, ...] = ()
    struck_s: tuple[float, ...] = ()  # when each arc is struck, before it comes to the place
    cold: tuple[int, ...] = ()  # the passes whose arc may come to a joint colder than the least preheat
    film: "Film | None" = None  # of the longest: the whole section over time

    @property
    def waited_s(self) -> Interval | None:
        """All waits together, shortest to longest [s]; `None` where one of them has no number."""
        spans = [each.wait_s for each in self.passes if each.wait_s is not None]
        if not spans or len(spans) < len(self.passes):
            return None
        return Interval(sum(each.low for each in spans), sum(each.high for each in spans))


class Asked(Struct, frozen=True):
    """What is missing before the model can run: a leaf and a sentence each."""

    missing: tuple[tuple[str, str], ...]


@kept
def asked_of(wps: Wps) -> Asked:
    """Return what a procedure must state before its waits can be worked out."""
    heats, layout = heat_inputs(wps), bead_layout(wps)
    missing = []
    if wps.joint.kind is not None and not is_run(wps):
        missing.append(("joint/kind", "a butt joint, or a tee, corner or lap joint of plates: no other is run yet"))
    elif layout is None or not layout.beads:
        missing.append(("joint/kind", "a joint that can be drawn, with passes in it"))
    elif any(bead.key not in heats for bead in layout.beads):
        numbers = [n for n, each in enumerate(wps.passes, 1) if each.id not in heats and each.reach is None]
        which = ", ".join(map(str, numbers[:6]))
        missing.append((f"passes/{wps.passes[numbers[0] - 1].id}/travel_speed_mm_min" if numbers else "passes",
                        f"current, volts and speed of pass {which}"))  # fmt: skip
    if wps.preheat.minimum_c is None:
        missing.append(("preheat/minimum_c", "the least preheat"))
    if wps.preheat.interpass_maximum_c is None:
        missing.append(("preheat/interpass_maximum_c", "the most between passes"))
    if wps.piece.half_width_mm is None:
        missing.append(("piece/half_width_mm", "how wide the piece is"))
    if seam_length(wps) is None:
        missing.append(("joint/seam_length_mm", "how long the seam is"))
    if not any(side.family for side in sides_of(wps)):
        missing.append(("metals/one/name", "a base metal of the catalogue"))
    return Asked(tuple(missing))


def is_run(wps: Wps) -> bool:
    """Return whether the section of such a joint is the same all along its seam."""
    family = MAKES[wps.joint.kind].family if wps.joint.kind else ""
    return family == "butt" or (family in PLATES and wps.joint.product != "pipe")


def seam_length(wps: Wps) -> float | None:
    """Return how long the seam is: as stated, or round the pipe [mm]."""
    if wps.joint.product == "pipe" and wps.joint.od_mm is not None:
        return math.pi * wps.joint.od_mm
    return wps.joint.seam_length_mm


def waits_of(
    wps: Wps, goes_on: Callable[[float], bool] = lambda _share: True, works: Calibrated = NO_MACHINES
) -> Waits | str:
    """Return the waits of a procedure, or a sentence why there are none.

    Parameters
    ----------
    wps : a procedure of which nothing is asked any more, by `asked_of`
    goes_on : told after every step how much is done, 0 to 1; once it says no, the run is given up
    works : the machines; how far their meters may be off widens the range
    """
    from anlage.session.heat.section_runs import run_corner

    def of_corner(n: int, share: float) -> bool:
        return goes_on((n + share) / len(CORNERS))

    found = []
    for n, corner in enumerate(CORNERS):
        try:
            run = run_corner(wps, corner, partial(of_corner, n), works)
        except AnlageError as fault:
            return f"The section cannot be run: {fault}"
        if run is None:
            return GIVEN_UP
        found.append(run)
    return _together(wps, found[0], found[1], works)


def _together(wps: Wps, longest: "Ran", shortest: "Ran", works: Calibrated) -> Waits:
    numbers = {each.id: n for n, each in enumerate(wps.passes, 1)}
    rows = []
    reached = [*zip(longest.reached_c, shortest.reached_c, strict=False)]
    for n, (long, short) in enumerate(zip(longest.passes, shortest.passes, strict=False)):
        came = _span(*reached[n]) if n < len(reached) else None
        rows.append(PassWait(
            numbers[long.id], long.id, _span(short.wait_s, long.wait_s), _span(short.before_c, long.before_c), came,
            _span(short.peak_c, long.peak_c),
        ))  # fmt: skip
    return Waits(
        tuple(rows),
        _span(shortest.total_s, longest.total_s),
        Worked(wps, works),
        tuple(_minding(wps, longest)),
        _thinned(longest.curve),
        longest.starts_s,
        longest.struck_s,
        tuple(_cold(wps.preheat.minimum_c, shortest)),
        longest.film,
    )


def _cold(least: float | None, shortest: "Ran") -> Iterator[int]:
    """Yield the passes whose arc may come to a joint under the least preheat: a long seam cools for a whole lap."""
    for number, celsius in enumerate(shortest.reached_c, 1):
        if least is not None and celsius < least - SHORT_BY_K:
            yield number


def _span(first: float | None, second: float | None) -> Interval | None:
    if first is None or second is None:
        return None
    return Interval(min(first, second), max(first, second))


def _thinned(curve: tuple[tuple[float, float], ...], most: int = 600) -> tuple[tuple[float, float], ...]:
    step = max(1, math.ceil(len(curve) / most))
    return curve[::step] + curve[-1:]


def _minding(wps: Wps, longest: "Ran") -> Iterator[str]:
    yield "Molten metal and the first seconds beside it are not predicted; a reading on the piece beats all of this."
    if longest.total_s is None:
        yield "The piece does not cool so far within 24 hours: no number for the rest."
    half, beyond = wps.piece.half_width_mm, wps.piece.beyond_mm
    waits = [each.wait_s for each in longest.passes if each.wait_s]
    reach = math.sqrt(STEEL_MM2_S * max(waits, default=0.0))
    if half is not None and reach > half and (wps.joint.product == "pipe" or beyond == 0):
        yield "The piece heats as one: a longer pause or a second piece in turn is the only help."


def outlines_of(shape: Shape, half_mm: float) -> tuple[tuple[tuple[float, float], ...], ...]:
    """Return the members of a joint, each torn edge moved out to the edge of the piece."""
    return tuple(_extended(member, half_mm) for member in shape.members)


def _extended(member: Member, half_mm: float) -> tuple[tuple[float, float], ...]:
    lines = [list(line) for line in member.lines]
    for n, line in enumerate(lines):
        after = lines[(n + 1) % len(lines)]
        (x0, y0), (x1, y1) = line[-1], after[0]
        if math.hypot(x1 - x0, y1 - y0) < 1e-9:
            continue
        if abs(x1 - x0) <= abs(y1 - y0):
            side = math.copysign(half_mm, x0 + x1)
            line[-1], after[0] = (side, y0), (side, y1)
        else:
            side = math.copysign(half_mm, y0 + y1)
            line[-1], after[0] = (x0, side), (x1, side)
    return tuple(point for line in lines for point in line)
