"""The waits of a procedure in words, and as a curve over time."""

from msgspec import Struct

from anlage.core.drawing import DisplayList
from anlage.core.drawing.curves import Frame
from anlage.core.drawing.sequence_curve import Cursor, Level, Stretch, sequence_curve
from anlage.core.procedure import Wps
from anlage.core.quantities.units import System
from anlage.core.ranges import Interval
from anlage.session.heat.measured import MM_PER_INCH, reading_distance
from anlage.session.heat.meters import meter_sentences
from anlage.session.heat.scales import degrees, degrees_span, in_reader, scale
from anlage.session.heat.sequence import AMBIENT_C, FROM_END_MM, STOP_S, PassWait, Waits, seam_length
from anlage.session.leaves.marks import spans
from anlage.session.weld.picture_sheet import Sheet

LONG_S = 600.0  # from here on whole minutes are enough
SHORT_WAIT_S = 30.0  # less is no wait: the stop takes as long
ROOM_MM = (34.0, 18.0)
MOMENT = "moment"  # what the cursor over the curve is dragged as


class LookedAt(Struct, frozen=True):
    """The moment of the section that is shown [s], and the place of the probe in it [mm]."""

    time_s: float
    probe_mm: tuple[float, float]


def headline(waits: Waits) -> str:
    """Return what the view is about: the first wait, or that there is none, and where the joint gets too cold."""
    cold = f" Heat again ahead of the arc of pass {spans(waits.cold)}." if waits.cold else ""
    return f"{_waiting(waits)}{cold}"


def _waiting(waits: Waits) -> str:
    waiting = [each for each in waits.passes if each.wait_s is not None and each.wait_s.high >= SHORT_WAIT_S]
    never = [each for each in waits.passes if each.wait_s is None]
    if not waiting:
        if never:
            return f"No number from pass {never[0].number} on."
        return "No waiting: the stop is enough before every pass."
    first, longest = waiting[0], max(waiting, key=lambda each: each.wait_s.high if each.wait_s else 0.0)
    rest = "" if longest is first else f"; the longest is {minutes(longest.wait_s)}, before pass {longest.number}"
    return f"Wait {minutes(first.wait_s)} before pass {first.number}{rest}."


def total_sentence(waits: Waits) -> str:
    """Return how long the whole seam takes with its waits."""
    if waits.total_s is None:
        return ""
    return f"First arc to last: {minutes(waits.total_s)}, stops and waits in it."


def minutes(span: Interval | None) -> str:
    """Return a span of seconds in minutes, or in hours where it is long."""
    if span is None:
        return "–"
    if span.high >= 2 * 3600:
        low, high = (f"{end / 3600:.1f}" for end in (span.low, span.high))
        return f"{high} h" if low == high else f"{low} to {high} h"
    low, high = (f"{end / 60:.0f}" if end >= LONG_S else f"{end / 60:.1f}" for end in (span.low, span.high))
    if span.low < 1:
        return f"up to {high} min"
    return f"{high} min" if low == high else f"{low} to {high} min"


def pass_rows(waits: Waits, system: System) -> tuple[tuple[str, str, str, str, str], ...]:
    """Return a row a pass: its number, the wait before it, what is read before it, what its arc comes to, the peak."""
    return tuple(
        (
            str(each.number),
            _wait(each),
            _read(each.before_c, system),
            _read(each.reached_c, system),
            _read(each.peak_c, system),
        )
        for each in waits.passes
    )


def sequence_picture(wps: Wps, waits: Waits, sheet: Sheet, looked_at: LookedAt | None = None) -> DisplayList | None:
    """Return the curve of the longest waits; `None` while there is none.

    `looked_at` is the moment of the section that is shown beside, and the place of the probe in it.
    """
    if len(waits.curve) < 2 or waits.curve[-1][0] <= 0:
        return None
    per, word = _time_scale(waits)
    unit = scale(sheet.system)
    points = [(t / per, in_reader(c, sheet.system)) for t, c in waits.curve]
    levels = [
        Level(name, in_reader(value, sheet.system))
        for name, value in (("between passes", wps.preheat.interpass_maximum_c), ("least", wps.preheat.minimum_c))
        if value is not None
    ]
    stretches = [
        Stretch(each.number, struck / per, start / per, 0.0 if each.wait_s is None else each.wait_s.high / per)
        for each, struck, start in zip(waits.passes, waits.struck_s, waits.starts_s, strict=False)
    ]
    cursor = None
    if looked_at is not None and waits.film is not None:
        probe = waits.film.frames.over_time(looked_at.probe_mm)
        shown = tuple((t / per, in_reader(c, sheet.system)) for t, c in probe)
        cursor = Cursor(looked_at.time_s / per, MOMENT, shown)
    return sequence_curve((points, cursor), levels, stretches, Frame(word, unit, 0.0, _size(sheet)), sheet.measure)


def moment_at(waits: Waits, sheet: Sheet, x: float) -> float:
    """Return the moment of a place across the curve [s]."""
    last = waits.curve[-1][0]
    return min(max(x / _size(sheet)[0] * last, 0.0), last)


def _time_scale(waits: Waits) -> tuple[float, str]:
    return (3600.0, "h") if waits.curve[-1][0] >= 3 * 3600 else (60.0, "min")


def _size(sheet: Sheet) -> tuple[float, float]:
    return max(sheet.width_mm - ROOM_MM[0], 40.0), max(sheet.height_mm - ROOM_MM[1], 25.0)


def _cold(waits: Waits) -> str:
    passes = spans(waits.cold)
    return f"Heat again ahead of the arc of pass {passes}: it comes to metal below the least." if passes else ""


def _wait(each: PassWait) -> str:
    if each.wait_s is None:
        return "no number"
    return "none" if each.wait_s.high < 1 else minutes(each.wait_s)


def _read(span: Interval | None, system: System) -> str:
    return "–" if span is None else degrees_span((span.low, span.high), system)


def stated_sentences(waits: Waits, system: System) -> tuple[str, ...]:
    """Return what waits were worked out for, in the reader's units: seam, piece, air and stop, meters."""
    from anlage.session.heat.section_of import emissivities  # it loads NumPy, which the run has loaded already

    wps, piece = waits.worked.wps, waits.worked.wps.piece
    low, _, high = emissivities(wps)
    is_pipe = wps.joint.product == "pipe"
    station = "the start of each lap" if is_pipe else f"a station {_length(FROM_END_MM, system)} before the end"
    far = reading_distance(wps, system)
    beyond = "" if is_pipe else f", {_beyond(piece.beyond_mm, system)}"
    air = degrees(AMBIENT_C if piece.ambient_c is None else piece.ambient_c, system)
    stop, seam = STOP_S if piece.stop_s is None else piece.stop_s.low, _length(seam_length(wps) or 0.0, system)
    return (
        f"Seam of {seam}; read at {station}, {far} from the groove, before each arc.",
        f"Piece {_length(piece.half_width_mm or 0.0, system)} from the weld to its edge{beyond}; all of it preheated.",
        f"Air {air}, emissivity {low:g} to {high:g}, stop {stop:.0f} s; heat from least to most, k in it.",
        *meter_sentences(wps, waits.worked.works),
    )


def _length(millimetres: float, system: System) -> str:
    return f"{millimetres:.0f} mm" if system == "si" else f"{millimetres / MM_PER_INCH:.1f} in"


def _beyond(beyond_mm: float | None, system: System) -> str:
    return "plate that goes on" if beyond_mm is None else f"{_length(beyond_mm, system)} of plate beyond the seam"


def wait_sentences(waits: Waits) -> tuple[str, ...]:
    """Return the waits for the floor: which passes wait how long, what to mind where the joint gets too cold."""
    waiting = [each for each in waits.passes if each.wait_s is not None and each.wait_s.high >= SHORT_WAIT_S]
    said = [f"before pass {each.number} {minutes(each.wait_s)}" for each in waiting]
    text = f"Wait {', '.join(said)}; or until the place that is read is below the most." if said else headline(waits)
    never = [each.number for each in waits.passes if each.wait_s is None]
    return tuple(filter(None, (
        text,
        f"No number from pass {never[0]} on." if never and said else "",
        _cold(waits) if said else "",
        total_sentence(waits),
    )))  # fmt: skip
