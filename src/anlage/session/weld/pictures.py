"""The pictures of an open procedure: from its value, the reader's units and what is chosen to display lists."""

from collections.abc import Callable

from msgspec.structs import replace

from anlage.core.beads import Layout
from anlage.core.document import kept
from anlage.core.drawing import DisplayList, fitted
from anlage.core.drawing.bead_map import Amiss, Marked, bead_map, outlined_map
from anlage.core.drawing.cap_limit import CapLimit, cap_lines
from anlage.core.drawing.section import section
from anlage.core.joint import Point, Shape, Sketch
from anlage.core.procedure import Wps, pass_energy
from anlage.core.quantities import show
from anlage.data.tables import unit_table
from anlage.session.weld.bead_areas import process_of
from anlage.session.weld.beads import bead_layout, joint_shape
from anlage.session.weld.fill_notices import OVER_MM
from anlage.session.weld.picture_sheet import Sheet


def section_picture(sketch: Sketch, sheet: Sheet, caps: CapLimit | None = None) -> DisplayList:
    """Return the section with its dimensions, as large as the sheet lets it; with how high its caps may be."""
    return fitted(lambda scale: section_at(sketch, sheet, scale, caps), sheet.width_mm, sheet.height_mm)


def section_at(sketch: Sketch, sheet: Sheet, scale: float, caps: CapLimit | None = None) -> DisplayList:
    """Return the section at a scale, for a drag that must not change it."""

    def say(value: float, kind: str) -> str:
        return show(value, kind, sheet.system, unit_table())

    return section(sketch, scale=scale, show=say, measure=sheet.measure, caps=caps)


def bead_picture(
    wps: Wps, chosen: str, sheet: Sheet, *, heated: bool = True, mismatch_mm: float = 0.0
) -> DisplayList | None:
    """Return the map of all beads in the section; `None` when the section cannot be drawn.

    On paper that shows no heat the beads carry none: hatch and numbers tell them apart.
    """
    shape, found = joint_shape(wps, mismatch_mm), bead_layout(wps, mismatch_mm)
    if shape is None or found is None:
        return None
    shown = marked(wps, chosen)
    if not heated:
        shown = {key: replace(each, heat=None) for key, each in shown.items()}
    beads = [(bead, shown[bead.key]) for bead in found.beads]

    stated = {groove.side: groove.cap_mm for groove in shape.grooves}
    otherwise = any(abs(each.reach_mm - stated[each.side]) > OVER_MM for each in found.fillings)
    amiss = Amiss(found.empty, otherwise) if beads else None

    def make(scale: float) -> DisplayList:
        return bead_map(shape, beads, scale=scale, measure=sheet.measure, amiss=amiss)

    return fitted(make, sheet.width_mm, sheet.height_mm, _outlined(shape, found, sheet))


def with_cap_limit(picture: DisplayList | None, wps: Wps, limit: CapLimit | None) -> DisplayList | None:
    """Return a map of beads with a line over its caps, as high as they may be, where somebody limits them."""
    shape = joint_shape(wps) if picture is not None and limit is not None else None
    if picture is None or limit is None or shape is None:
        return picture
    return replace(picture, items=(*picture.items, *cap_lines(shape, limit)))


def _outlined(shape: Shape, found: Layout, sheet: Sheet) -> Callable[[float], DisplayList]:
    return lambda scale: outlined_map(shape, found.beads, scale=scale, measure=sheet.measure)


def weld_extent(wps: Wps, sheet: Sheet) -> tuple[tuple[Point, Point], float] | None:
    """Return the corners of the weld in the section, without the plate beside it, and the scale of the whole map.

    `None` when it cannot be drawn.
    """
    shape, found = joint_shape(wps), bead_layout(wps)
    if shape is None or found is None or not shape.grooves:
        return None
    whole = _whole_scale(found, shape, sheet)
    points = [point for each in shape.grooves for point in (*each.outline, *each.cap, *each.root_cap)]
    xs, ys = zip(*points, strict=True)
    return ((min(xs), min(ys)), (max(xs), max(ys))), whole


@kept  # settings of a pass leave the beads as they lie
def _whole_scale(found: Layout, shape: Shape, sheet: Sheet) -> float:
    return fitted(_outlined(shape, found, sheet), sheet.width_mm, sheet.height_mm).scale


def marked(wps: Wps, chosen: str = "") -> dict[str, Marked]:
    """Return how every pass is marked in the bead map."""
    homes = {each.id: each for each in wps.deposits}
    found = {}
    for number, each in enumerate(wps.passes, 1):
        energy = pass_energy(each)
        heat = energy.high.energy_kj_mm if energy else None
        process = process_of(homes[each.deposit])
        hatch = process.hatch_deg if process else ()
        found[each.id] = Marked(f"passes/{each.id}", str(number), hatch, heat, chosen=each.id == chosen)
    return found
