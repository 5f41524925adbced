"""The section of a joint with the places at which its least and its most are read, and the crayon for each."""

import math
from collections.abc import Sequence

from anlage.core.drawing import DisplayList, Point, fitted
from anlage.core.drawing.reading_places import ARROW_MM, Far, Place, Reach, reading_places
from anlage.core.errors import InputError
from anlage.core.joint import MAKES
from anlage.core.procedure import Wps
from anlage.core.quantities.units import System
from anlage.data.metal_tables import measuring
from anlage.session.heat.measured import measuring_mm, reading_distance
from anlage.session.heat.preheat_picture import crayons_of
from anlage.session.heat.reading_place import reading_places_of
from anlage.session.heat.scales import degrees, scale
from anlage.session.heat.sequence import PLACE, is_run, outlines_of
from anlage.session.weld.beads import joint_shape
from anlage.session.weld.picture_sheet import Sheet

BESIDE_MM = 12.0  # metal that is shown beyond the place
THICK = 2.0  # thicknesses of an upright member that are shown over the weld
LONG_ARROW_MM = 15.0  # its words stand over those of the most


def reading_picture(wps: Wps, sheet: Sheet) -> DisplayList | None:
    """Return the picture; `None` for what is not run, cannot be drawn, or states neither temperature."""
    shape, least, most = joint_shape(wps), wps.preheat.minimum_c, wps.preheat.interpass_maximum_c
    if shape is None or not is_run(wps) or (least is None and most is None) or wps.joint.thickness_mm is None:
        return None
    toes = [point for groove in shape.grooves if groove.side == 1 for point in groove.mouth]
    if not toes:
        return None
    far = measuring_mm(wps)
    half = max(abs(x) for x, _ in toes) + far + BESIDE_MM
    metal = outlines_of(shape, half)
    try:
        place = reading_places_of(wps, metal)[PLACE]
    except InputError:
        return None
    away = math.copysign(1.0, place[0])
    edge = (place[0] - away * far, place[1])
    if not is_butt(wps):
        metal = tuple(_cut(outline, toes, THICK * wps.joint.thickness_mm) for outline in metal)
    where = None if least is None else _least(wps, place, metal, sheet.system)
    reach = None if most is None else Reach(*_reach(wps, edge, place, toes), _most(wps, sheet.system))
    words = reading_distance(wps, sheet.system)
    return fitted(
        lambda per: reading_places(metal, where, reach, Far(edge, place, words), (per, sheet.measure)),
        sheet.width_mm, sheet.height_mm,
    )  # fmt: skip


def is_butt(wps: Wps) -> bool:
    """Return whether both members lie in one plane, the weld between them."""
    return wps.joint.kind is not None and MAKES[wps.joint.kind].family == "butt"


def _cut(outline: tuple[Point, ...], toes: Sequence[Point], around_mm: float) -> tuple[Point, ...]:
    """Return a member as far up and down as it matters here: an upright one goes on beyond the picture."""
    low, high = min(y for _, y in toes) - around_mm, max(y for _, y in toes) + around_mm
    return tuple((x, min(max(y, low), high)) for x, y in outline)


def _reach(wps: Wps, edge: Point, place: Point, toes: Sequence[Point]) -> tuple[Point, Point]:
    """Return where the most is looked for: on the other side of a butt, else on the same face."""
    if not is_butt(wps):
        return min(edge, place), max(edge, place)
    other_x, level = min(toes)
    return (other_x - abs(place[0] - edge[0]), level), (other_x, level)


def _least(wps: Wps, place: Point, metal: tuple[tuple[Point, ...], ...], system: System) -> Place:
    """Return where the least is read: of a thick piece on the other face."""
    thickness, stated = wps.joint.thickness_mm or 0.0, wps.preheat.minimum_c or 0.0
    words = [f"least {degrees(stated, system)}"]
    pair, asked, _ = crayons_of(wps, system)
    if asked and pair.must_melt is not None:
        words.append(f"{pair.must_melt:g} {scale(system)} must melt")
    if measuring().is_thin(thickness):
        return Place(place, 1, tuple(words), ARROW_MM if is_butt(wps) else LONG_ARROW_MM)
    foot = min(y for outline in metal for _, y in outline)
    return Place((place[0], foot), -1, (*words, "across from the heating"))


def _most(wps: Wps, system: System) -> tuple[str, ...]:
    pair, _, asked = crayons_of(wps, system)
    words = [f"most {degrees(wps.preheat.interpass_maximum_c or 0.0, system)}, hottest place"]
    if asked and pair.must_not is not None:
        words.append(f"{pair.must_not:g} {scale(system)} must not melt")
    return tuple(words)
