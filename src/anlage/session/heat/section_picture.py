"""The section at a moment of its passes as a picture; apart, for it loads NumPy."""

from collections.abc import Iterator

import numpy as np
import numpy.typing as npt

from anlage.core.document import kept
from anlage.core.drawing import DisplayList, fitted
from anlage.core.drawing.section_heat import Isotherm, Moment, Read, section_heat
from anlage.core.procedure import Wps
from anlage.core.quantities.units import System
from anlage.session.heat.scales import degrees
from anlage.session.heat.section_frames import Box, inside, isotherm, raster, strips_of
from anlage.session.heat.sequence import AMBIENT_C, Film, Waits, outlines_of
from anlage.session.heat.sequence_words import LookedAt
from anlage.session.weld.beads import bead_layout, joint_shape
from anlage.session.weld.picture_sheet import Sheet

HOTTEST_C = 800.0  # the ramp ends: beyond, nothing is claimed
COLOURS = 32
PLACES = 360  # of the raster across
BESIDE_MM, THICK = 10.0, 2.0  # shown beyond the place that is read; and as often the thickness to either side
PROBE = "probe"  # what the probe is dragged as
ABOVE_MM = 2.0


def heat_span(wps: Wps) -> tuple[float, float]:
    """Return the temperatures at the ends of the ramp [°C]."""
    ambient = wps.piece.ambient_c
    return (AMBIENT_C if ambient is None else ambient), HOTTEST_C


def first_look(wps: Wps, film: Film) -> LookedAt:
    """Return what is shown first: the end of the last pass, the probe under the surface halfway to the place."""
    x, y = film.place_mm
    thickness = wps.joint.thickness_mm or 0.0
    return LookedAt(film.frames.end_s, (x / 2, y - thickness / 2))


def section_picture(wps: Wps, waits: Waits, looked_at: LookedAt, sheet: Sheet) -> DisplayList | None:
    """Return the section at a moment, fitted to a sheet; `None` where it was not run."""
    if waits.film is None:
        return None
    moment = _moment(wps, waits, waits.film, looked_at, sheet.system)
    if not moment.strips:
        return None
    return fitted(lambda scale: section_heat(moment, scale, sheet.measure), sheet.width_mm, sheet.height_mm)


def within(wps: Wps, film: Film, place: tuple[float, float]) -> tuple[float, float]:
    """Return a place that is shown, the nearest to another [mm]."""
    (x0, y0), (x1, y1) = _box(wps, film)
    return min(max(place[0], x0), x1), min(max(place[1], y0), y1)


def _box(wps: Wps, film: Film) -> Box:
    """Return the corners of what is shown: the joint with the place that is read to either side [mm]."""
    thickness = wps.joint.thickness_mm or 0.0
    half = max(*(abs(x) + BESIDE_MM for x, _ in film.places_mm), THICK * thickness)
    half = min(half, wps.piece.half_width_mm or half)
    ys = film.frames.lines[1]
    layout, shape = bead_layout(wps), joint_shape(wps)
    bead_ys = [y for bead in (layout.beads if layout else ()) for _, y in bead.outline]
    groove_ys = [y for groove in (shape.grooves if shape else ()) for _, y in groove.outline]
    top, foot = max([film.place_mm[1], *bead_ys]), min([film.place_mm[1], *groove_ys])
    around = THICK * thickness
    return (-half, max(float(ys[0]), foot - around)), (half, min(float(ys[-1]), top + max(ABOVE_MM, around)))


def _moment(wps: Wps, waits: Waits, film: Film, looked_at: LookedAt, system: System) -> Moment:
    box = _box(wps, film)
    step = (box[1][0] - box[0][0]) / PLACES
    field = raster(film.frames.at(looked_at.time_s), film.frames.lines, box, step)
    laid = sum(start <= looked_at.time_s for start in waits.starts_s)
    field = np.where(_metal(wps, box, step, laid), field, np.nan)
    low, high = heat_span(wps)
    strips = tuple(strips_of(field, box, step, np.linspace(low, high, COLOURS)))
    lines = tuple(
        Isotherm(f"{degrees(celsius, system)} {word}", tuple(isotherm(field, box, step, celsius)))
        for word, celsius in (("between passes", wps.preheat.interpass_maximum_c), ("least", wps.preheat.minimum_c))
        if celsius is not None
    )
    read = (*(_read(film, place, looked_at.time_s, system, "read here ") for place in film.places_mm),
            _read(film, looked_at.probe_mm, looked_at.time_s, system, "", PROBE))  # fmt: skip
    return Moment(strips, _outlines(wps, waits, looked_at.time_s), lines, read, _title(waits, looked_at.time_s, system))


@kept
def _metal(wps: Wps, box: Box, step_mm: float, laid: int) -> npt.NDArray[np.bool_]:
    """Return where a raster lies in the members or in a bead that is laid: cells at an edge hold metal in part."""
    shape, half = joint_shape(wps), wps.piece.half_width_mm or box[1][0]
    assert shape is not None
    outlines = [*outlines_of(shape, half), *_outlines_of(wps)[:laid]]
    size = tuple(max(round((b - a) / step_mm), 1) for a, b in zip(*box, strict=True))
    found = np.zeros((size[0], size[1]), dtype=np.bool_)
    for outline in outlines:
        found |= inside(outline, box, step_mm, (size[0], size[1]))
    return found


def _read(  # noqa: PLR0913, PLR0917 - a place and its words
    film: Film, place: tuple[float, float], time_s: float, system: System, word: str, target: str = ""
) -> Read:
    celsius = film.frames.read(time_s, place)
    if celsius is None:
        return Read(place, f"{word}no metal yet", target)
    over = f"over {degrees(HOTTEST_C, system)}: not predicted" if celsius > HOTTEST_C else degrees(celsius, system)
    return Read(place, f"{word}{over}", target)


@kept
def _outlines_of(wps: Wps) -> tuple[tuple[tuple[float, float], ...], ...]:
    layout = bead_layout(wps)
    return tuple((*bead.outline, bead.outline[0]) for bead in (layout.beads if layout else ()))


def _outlines(wps: Wps, waits: Waits, time_s: float) -> tuple[tuple[tuple[float, float], ...], ...]:
    """Return the groove and the beads that are laid by then."""
    shape = joint_shape(wps)
    grooves = tuple(tuple(each.outline) for each in (shape.grooves if shape else ()))
    beads = _outlines_of(wps)
    laid = sum(start <= time_s for start in waits.starts_s)
    return (*grooves, *beads[:laid])


def _title(waits: Waits, time_s: float, system: System) -> str:
    """Return which moment it is, and between which temperatures it is coloured."""
    return f"{_clock(time_s)}: {' '.join(_doing(waits, time_s))}; colours to {degrees(HOTTEST_C, system)}"


def _clock(time_s: float) -> str:
    hours, rest = divmod(round(time_s), 3600)
    return f"{hours}:{rest // 60:02d}:{rest % 60:02d}" if hours else f"{rest // 60}:{rest % 60:02d} min"


def _doing(waits: Waits, time_s: float) -> Iterator[str]:
    laid = sum(start <= time_s for start in waits.starts_s)
    numbers = [each.number for each in waits.passes]
    if laid < len(waits.struck_s) and laid < len(numbers):
        each, struck = waits.passes[laid], waits.struck_s[laid]
        wait = 0.0 if each.wait_s is None else each.wait_s.high
        if struck - wait <= time_s < struck:
            yield f"waiting before pass {each.number}"
            return
        if time_s >= struck:
            yield f"the arc of pass {each.number} is on its way"
            return
    yield f"after pass {numbers[laid - 1]}" if laid else "before the first pass"
