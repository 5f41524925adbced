"""Settings for one role in one place: current, voltage, speed, wire feed and bead together, so that metal is conserved.

Glossary
--------
band : the currents usual for a role and place, within the catalogue's window of the filler
pace : the travel speeds usual there, and where the bead leads the speed, how large it is
drive : what melts the filler: the current of an electrode or a rod, the feed of a wire
"""

import math
from collections.abc import Sequence
from itertools import pairwise

from msgspec import Struct
from msgspec.structs import replace

from anlage.core.beads import HEIGHT_OF_DIAMETER, PITCH_OF_DIAMETER, bead_area_of_rate
from anlage.core.catalogue import FillerCurrent, ProcessLimits
from anlage.core.errors import InputError
from anlage.core.proposal.melting import Melting
from anlage.core.proposal.tables import Circumstances, PaceRow, Pair, Spread, Usual, VoltsRow
from anlage.core.ranges import Interval

FIVE, ROUNDED_FROM = 5.0, 12.0  # a band at least so wide is given in steps of five amps; own choice
LEAST_HALF_A = 4.0  # a current is stated at least so far to both sides where its band is as wide; own choice
FEED_STEP, VOLT_STEP = 20.0, 0.5  # mm/min, V; own choice
SURE = "HML"


class Case(Struct, frozen=True, kw_only=True):
    """What is to be welded with what.

    Parameters
    ----------
    at : process, family of the filler, mode, place, role and size
    row : the catalogue's window of the filler in its size
    melting : how much metal it lays
    burn_off : of a wire: (feed [mm/min], current [A]), rising; `None` of what is led by hand
    density_g_cm3 : of the weld metal
    """

    at: Circumstances
    row: FillerCurrent
    melting: Melting
    burn_off: tuple[Pair, ...] | None = None
    density_g_cm3: float = 7.85


class Fitted(Struct, frozen=True, kw_only=True):
    """Settings that lay a bead: current [A], travel speed and wire feed [mm/min], the section they lay [mm²]."""

    current_a: Interval
    travel_speed_mm_min: Interval
    wire_speed_mm_min: Interval | None
    area_mm2: float


class Typed(Struct, frozen=True, kw_only=True):
    """Settings that somebody stated [A, V, mm/min]; they stay as they are."""

    current_a: Interval | None = None
    voltage_v: Interval | None = None
    travel_speed_mm_min: Interval | None = None
    wire_speed_mm_min: Interval | None = None


class Proposal(Struct, frozen=True, kw_only=True):
    """What is usual for a case.

    Parameters
    ----------
    case, spread : what it was made for, and how wide its ranges are
    band : currents within which a pass of this role is set [A]
    voltage_v : `None` where the catalogue has none
    speeds, woven : travel speeds of stringers and of weaves [mm/min]
    settings : the usual ones
    pitch_mm, height_mm : how far apart stringers lie, and how high a layer of them is
    cap_pitch_mm : how far apart those of a cap lie
    widest_mm : the widest bead; `None`: not limited
    technique : in a few words
    reason, confidence : where all of it comes from
    typed : what somebody stated, which is kept
    """

    case: Case
    spread: Spread
    band: Interval
    voltage_v: Interval | None
    speeds: Interval
    woven: Interval
    settings: Fitted
    pitch_mm: float
    height_mm: float
    cap_pitch_mm: float
    widest_mm: float | None
    technique: str
    reason: str
    confidence: str
    typed: Typed = Typed()

    @property
    def words(self) -> str:
        """What it was made for and where it comes from, with the technique."""
        return f"{self.reason}; {self.technique}"

    def sections(self, *, weave: bool = False) -> tuple[float, float]:
        """Return the least and the most section that one bead of it has, all settings inside their windows [mm²]."""
        slow, fast = _middles(self.woven if weave else self.speeds, self.spread.speed)
        cold, hot = (self.case.melting.rate(drive) for drive in _drives(self.case, self.band))
        return self._area(cold, fast), self._area(hot, slow)

    def _area(self, rate: float, speed: float) -> float:
        return bead_area_of_rate(rate, travel_speed_mm_min=speed, density_g_cm3=self.case.density_g_cm3)


def refuse(at: Circumstances, usual: Usual) -> None:
    """Refuse what cannot be welded so.

    Raises
    ------
    InputError : the process, filler or mode is not for that place
    """
    if cannot := at.first_of(usual.cannot):
        raise InputError(cannot.what, where="position", mend=cannot.mend)


def propose(case: Case, usual: Usual, limits: Sequence[ProcessLimits], *, most_a: float | None = None) -> Proposal:
    """Return what is usual for a case.

    Parameters
    ----------
    case : what is to be welded with what
    usual : the table of proposals
    limits : windows of the process variants
    most_a : the middle of the current is at most this [A]; `None`: not limited

    Raises
    ------
    InputError : the process, filler or mode is not for that place, or the table has nothing for the process

    Validity
    --------
    A proposal to start from and to be proved: common practice, no limit of any code. No value lies outside the window
    of the filler's size and of the process.
    """
    refuse(case.at, usual)
    current, volts, pace = case.at.first_of(usual.current), case.at.first_of(usual.volts), case.at.first_of(usual.pace)
    window = next((row for row in limits if pace and row.id == pace.limits), None)
    if current is None or pace is None or window is None:
        what = f"no usual settings are known for {case.at.process or 'a process not stated'}"
        raise InputError(what, where="process", mend="state current, voltage and speed")
    row = case.row
    amps = _window((row.amps_min, row.amps_max), (window.amps_min, window.amps_max))
    band = _cut(current.a or _share(current.share or (0.0, 1.0), (row.amps_min, row.amps_max)), amps)
    if most_a is not None:
        band = _about_at_most(band, most_a, amps[0])
    speeds = Interval(*_window(pace.speed, (window.travel_min_mm_min, window.travel_max_mm_min)))
    woven = Interval(*_window(pace.woven or pace.speed, (window.travel_min_mm_min, window.travel_max_mm_min)))
    rows = (current, pace, *([volts] if volts else ()))
    doubts = [each.confidence or usual.confidence for each in rows]
    found = Proposal(
        case=case, spread=usual.spread, band=_rounded(band, amps),
        voltage_v=_usual_volts(row, volts, window), speeds=speeds, woven=woven,
        settings=Fitted(current_a=band, travel_speed_mm_min=speeds, wire_speed_mm_min=None, area_mm2=1.0),
        pitch_mm=0.0, height_mm=0.0, cap_pitch_mm=0.0,
        widest_mm=pace.widest * row.diameter_mm if pace.widest else None, technique=pace.technique,
        reason=f"usual for {_words(case.at)}: {usual.source}",
        confidence=max((*doubts, row.confidence, case.melting.confidence), key=SURE.index),
    )  # fmt: skip
    return _with_bead(found, pace)


def _about_at_most(band: Interval, most_a: float, least_a: float) -> Interval:
    """Return a band of current whose middle is at most so much [A], as wide as before where there is room below."""
    if (band.low + band.high) / 2 <= most_a:
        return band
    half = min((band.high - band.low) / 2, max(most_a - least_a, LEAST_HALF_A))
    return Interval(max(most_a - half, least_a), max(most_a + half, least_a + LEAST_HALF_A))


def _usual_volts(row: FillerCurrent, volts: VoltsRow | None, window: ProcessLimits) -> Interval | None:
    """Return the voltage of a filler's size within its process; `None` where the tables do not say."""
    if volts is None or row.volts_min is None or row.volts_max is None:
        return None
    own = (row.volts_min, row.volts_max)
    wide = _window(own, (window.volts_min, window.volts_max))
    return _volts(volts.volts or _share(volts.share or (0.0, 1.0), own), wide)


def _with_bead(bare: Proposal, pace: PaceRow) -> Proposal:
    """Return a proposal with its bead: as large as the pace says, or as its usual speed lays it."""
    size = bare.case.row.diameter_mm
    drive = _usual_drive(bare)
    rate = bare.case.melting.rate(drive)
    slow, fast = _middles(bare.speeds, bare.spread.speed)
    if pace.bead is not None:
        pitch, height = pace.bead.pitch * size, pace.bead.height * size
        speed = bead_area_of_rate(rate, travel_speed_mm_min=1.0, density_g_cm3=bare.case.density_g_cm3)
        speed /= pitch * height
    else:
        speed, (pitch, height) = pace.usual or math.sqrt(slow * fast), (PITCH_OF_DIAMETER, HEIGHT_OF_DIAMETER)
    settings = _set(bare, drive, min(max(speed, slow), fast), bare.speeds)
    scale = math.sqrt(settings.area_mm2 / (pitch * height))
    cap_pitch = pace.cap_pitch * size if pace.cap_pitch else pitch * scale
    return replace(bare, settings=settings, pitch_mm=pitch * scale, height_mm=height * scale, cap_pitch_mm=cap_pitch)


def as_typed(proposal: Proposal, typed: Typed) -> Proposal:
    """Return a proposal in which what somebody stated is kept, and the rest goes with it."""
    band, case, speeds, woven = proposal.band, proposal.case, proposal.speeds, proposal.woven
    if typed.wire_speed_mm_min is not None and case.burn_off is not None:
        band = Interval.single(_line(case.burn_off, _middle(typed.wire_speed_mm_min)))
    elif typed.current_a is not None:
        band = Interval.single(_middle(typed.current_a))
    if typed.travel_speed_mm_min is not None:
        speeds = woven = Interval.single(_middle(typed.travel_speed_mm_min))
    free = replace(
        proposal, band=band, speeds=speeds, woven=woven, typed=typed, voltage_v=typed.voltage_v or proposal.voltage_v
    )
    kept = fitted(free, proposal.settings.area_mm2)
    scale = math.sqrt(kept.area_mm2 / proposal.settings.area_mm2)
    return replace(
        free, settings=kept, pitch_mm=proposal.pitch_mm * scale, height_mm=proposal.height_mm * scale,
        cap_pitch_mm=proposal.cap_pitch_mm * scale,
    )  # fmt: skip


class Narrow(Struct, frozen=True, kw_only=True):
    """How far the settings of all passes of one filler may lie apart.

    Parameters
    ----------
    speed, current : how far the range of one pass goes to both sides at most, as a share of its middle
    band : within which the middle of every pass's current lies [A]; `None`: as is usual for its role
    voltage_v : within which every voltage lies; `None`: as is usual
    why : what narrows them
    """

    speed: float = 1.0
    current: float = 1.0
    band: Interval | None = None
    voltage_v: Interval | None = None
    why: str = ""


def narrowed(proposal: Proposal, narrow: Narrow) -> Proposal:
    """Return a proposal for passes that share one range with others; what somebody stated stays."""
    spread, typed = proposal.spread, proposal.typed
    is_led = typed.current_a is not None or typed.wire_speed_mm_min is not None
    volts = proposal.voltage_v
    if volts is not None and narrow.voltage_v is not None and typed.voltage_v is None:
        volts = narrow.voltage_v
    return replace(
        proposal, voltage_v=volts, band=proposal.band if is_led or narrow.band is None else narrow.band,
        spread=replace(spread, speed=min(spread.speed, narrow.speed), current=min(spread.current, narrow.current)),
        reason=f"{proposal.reason}; {narrow.why}" if narrow.why else proposal.reason,
    )  # fmt: skip


def _middle(span: Interval) -> float:
    return (span.low + span.high) / 2


def fitted(proposal: Proposal, area_mm2: float, *, weave: bool = False) -> Fitted:
    """Return the settings that lay a bead of a section: another speed, and where that does not do, another current.

    Where no setting inside the windows lays so little or so much, the nearest that does: its own section says so.
    """
    speeds = proposal.woven if weave else proposal.speeds
    slow, fast = _middles(speeds, proposal.spread.speed)
    drive = _usual_drive(proposal)
    per_rate = bead_area_of_rate(1.0, travel_speed_mm_min=1.0, density_g_cm3=proposal.case.density_g_cm3)
    speed = per_rate * proposal.case.melting.rate(drive) / area_mm2
    if not slow <= speed <= fast:
        speed = min(max(speed, slow), fast)
        cold, hot = _drives(proposal.case, proposal.band)
        drive = min(max(proposal.case.melting.middle_for(speed * area_mm2 / per_rate), cold), hot)
        speed = min(max(per_rate * proposal.case.melting.rate(drive) / area_mm2, slow), fast)
    return _set(proposal, drive, speed, speeds)


def _set(proposal: Proposal, drive: float, speed: float, speeds: Interval) -> Fitted:
    """Return settings about a drive and a speed, in round numbers, with the section that they lay."""
    case, spread = proposal.case, proposal.spread
    travel = _about(speed, spread.speed, speeds, 1.0)
    if case.burn_off is None:
        current, feed = _current_about(drive, proposal.band), None
        middle = (current.low + current.high) / 2
    else:
        row = case.row
        wide = Interval(1000 * (row.wire_speed_min_m_min or 0.0), 1000 * (row.wire_speed_max_m_min or math.inf))
        feed = _about(round(drive / FEED_STEP) * FEED_STEP, spread.feed, wide, FEED_STEP)
        middle = (feed.low + feed.high) / 2
        amps = _line(case.burn_off, middle)
        current = _about(amps, spread.current, Interval(row.amps_min, row.amps_max), 1.0)
    area = bead_area_of_rate(
        case.melting.rate(middle), travel_speed_mm_min=(travel.low + travel.high) / 2, density_g_cm3=case.density_g_cm3
    )
    typed = proposal.typed
    return Fitted(
        current_a=typed.current_a or current, travel_speed_mm_min=typed.travel_speed_mm_min or travel,
        wire_speed_mm_min=typed.wire_speed_mm_min or feed, area_mm2=area,
    )  # fmt: skip


def _current_about(middle: float, band: Interval) -> Interval:
    """Return the whole band where its own middle is meant, else as much of it as lies about the middle."""
    if abs(middle - (band.low + band.high) / 2) < 0.5:
        return band
    half = max(min(middle - band.low, band.high - middle), min(LEAST_HALF_A, (band.high - band.low) / 2))
    return Interval(max(round(middle - half), band.low), min(round(middle + half), band.high))


def _usual_drive(proposal: Proposal) -> float:
    """Return the middle of the band: as a current, or as the feed that draws it; the known point of a wire in it."""
    case, band = proposal.case, proposal.band
    if case.burn_off is None:
        return (band.low + band.high) / 2
    known = [feed for feed, amps in case.burn_off[1:-1] if band.contains(amps)]
    return known[0] if known else _feed_at(case.burn_off, (band.low + band.high) / 2)


def _drives(case: Case, band: Interval) -> Pair:
    """Return the least and the most middle that a current, or a feed, has within a band."""
    if case.burn_off is None:
        half = min(LEAST_HALF_A, (band.high - band.low) / 2)
        return band.low + half, band.high - half
    return _feed_at(case.burn_off, band.low), _feed_at(case.burn_off, band.high)


def current_at(burn_off: Sequence[Pair], feed_mm_min: float) -> float:
    """Return the current that a wire draws at a feed [A]."""
    return _line(burn_off, feed_mm_min)


def _feed_at(burn_off: Sequence[Pair], amps: float) -> float:
    return _line([(current, feed) for feed, current in burn_off], amps)


def _line(points: Sequence[Pair], x: float) -> float:
    pieces = list(pairwise(points))
    (x1, y1), (x2, y2) = next((piece for piece in pieces if x <= piece[1][0]), pieces[-1])
    return y1 + (y2 - y1) * (x - x1) / (x2 - x1) if x2 > x1 else y1


def burn_off(row: FillerCurrent, described: Sequence[FillerCurrent]) -> tuple[Pair, ...] | None:
    """Return which current a wire draws at which feed: the ends of its window and the point known between.

    Parameters
    ----------
    row : the wire in its size; `None` comes back without a window of feeds
    described : rows of the process whose point is known, the nearest first: their point is taken in proportion where
        the row has none of its own

    Returns
    -------
    tuple of (feed [mm/min], current [A]) : rising

    Validity
    --------
    Straight between the points, ±15 %: extension, gas and make of the wire move it.

    Sources
    -------
    Typical trade range, from memory, M; by likeness L.
    """
    if row.wire_speed_min_m_min is None or row.wire_speed_max_m_min is None:
        return None
    low, high = (1000 * row.wire_speed_min_m_min, row.amps_min), (1000 * row.wire_speed_max_m_min, row.amps_max)
    for each in (row, *described):
        if each.at_amps is None or each.at_wire_speed_m_min is None:
            continue
        if each.wire_speed_min_m_min is None or each.wire_speed_max_m_min is None:
            continue
        feed = (each.at_wire_speed_m_min - each.wire_speed_min_m_min) / (
            each.wire_speed_max_m_min - each.wire_speed_min_m_min
        )
        amps = (each.at_amps - each.amps_min) / (each.amps_max - each.amps_min)
        return low, (low[0] + feed * (high[0] - low[0]), low[1] + amps * (high[1] - low[1])), high
    return low, high


# Windows -------------------------------------------------------------------------------------


def _window(own: Pair, other: Pair) -> Pair:
    """Return what two windows share; the own one where they share nothing."""
    low, high = max(own[0], other[0]), min(own[1], other[1])
    return (low, high) if low < high else own


def _share(share: Pair, window: Pair) -> Pair:
    low, high = window
    return low + share[0] * (high - low), low + share[1] * (high - low)


def _cut(wanted: Pair, window: Pair) -> Interval:
    """Return the part of what is wanted that lies in a window; where none does, the third of it that is nearest."""
    low, high = max(wanted[0], window[0]), min(wanted[1], window[1])
    if low < high:
        return Interval(low, high)
    third = (window[1] - window[0]) / 3
    return Interval(window[0], window[0] + third) if wanted[1] <= window[0] else Interval(window[1] - third, window[1])


def _rounded(band: Interval, window: Pair) -> Interval:
    """Return a band in round amps, still within its window."""
    step = FIVE if band.high - band.low >= ROUNDED_FROM else 1.0
    low, high = round(band.low / step) * step, round(band.high / step) * step
    low = low if low >= window[0] else math.ceil(window[0])
    high = high if high <= window[1] else math.floor(window[1])
    return Interval(low, high) if low < high else band


def _volts(wanted: Pair, window: Pair) -> Interval:
    cut = _cut(wanted, window)
    low, high = round(cut.low / VOLT_STEP) * VOLT_STEP, round(cut.high / VOLT_STEP) * VOLT_STEP
    low, high = max(low, window[0]), min(high, window[1])
    return Interval(low, high) if low < high else cut


def _middles(speeds: Interval, spread: float) -> Pair:
    """Return between which speeds the middle of a range lies; at the ends of the window a range is half as wide."""
    slow, fast = speeds.low / (1 - spread / 2), speeds.high / (1 + spread / 2)
    return (slow, fast) if slow <= fast else ((speeds.low + speeds.high) / 2,) * 2


def _about(middle: float, spread: float, window: Interval, step: float) -> Interval:
    """Return a range about a middle that goes equally far to both sides, in round steps and within a window."""
    half = max(min(spread * middle, middle - window.low, window.high - middle), 0.0)
    low, high = round((middle - half) / step) * step, round((middle + half) / step) * step
    odd = (low + high) / 2 - middle
    if abs(odd) >= step / 4:  # the nearer of what one end can be
        high -= math.copysign(step, odd)
    return Interval(max(low, window.low), min(max(high, low), window.high)) if low <= high else Interval.single(middle)


def _words(at: Circumstances) -> str:
    place = {"up": "vertical up", "down": "vertical down"}.get(at.place, at.place)
    size = f"{at.size_mm:g} mm" if at.size_mm else ""
    return " ".join(filter(None, (at.process, at.mode, at.filler, size, f"as {at.role}" if at.role else "", place)))
