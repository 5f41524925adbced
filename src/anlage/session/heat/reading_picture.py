"""The section of a joint with the places at which its least and its most are read, and the crayon for each."""

from anlage.core.drawing import DisplayList, Point, fitted
from anlage.core.drawing.reading_places import Far, Place, Reach, reading_places
from anlage.core.joint import MAKES, Groove
from anlage.core.procedure import Wps
from anlage.core.quantities.units import System
from anlage.data.metal_tables import measuring
from anlage.session.heat.measured import measuring_mm, reading_distance
from anlage.session.heat.preheat_picture import crayons_of
from anlage.session.heat.scales import degrees, scale
from anlage.session.heat.sequence import outlines_of
from anlage.session.weld.beads import joint_shape
from anlage.session.weld.pictures import Sheet

BESIDE_MM = 12.0  # metal that is shown beyond the place


def reading_picture(wps: Wps, sheet: Sheet) -> DisplayList | None:
    """Return the picture; `None` for what is no butt joint, cannot be drawn, or states neither temperature."""
    shape, least, most = joint_shape(wps), wps.preheat.minimum_c, wps.preheat.interpass_maximum_c
    is_butt = wps.joint.kind is not None and MAKES[wps.joint.kind].family == "butt"
    if shape is None or not is_butt or (least is None and most is None) or wps.joint.thickness_mm is None:
        return None
    groove = next((each for each in shape.grooves if each.side), None)
    if groove is None:
        return None
    edge, far = _right_edge(groove), measuring_mm(wps)
    left = min(x for x, _ in groove.mouth)
    half = max(edge[0] + far, -left) + BESIDE_MM
    metal = outlines_of(shape, half)
    place, words = (edge[0] + far, edge[1]), reading_distance(wps, sheet.system)
    where = None if least is None else _least(wps, place, metal, sheet.system)
    start = (left, edge[1])
    reach = None if most is None else Reach((start[0] - far, start[1]), start, _most(wps, sheet.system))
    return fitted(
        lambda per: reading_places(metal, where, reach, Far(edge, place, words), (per, sheet.measure)),
        sheet.width_mm, sheet.height_mm,
    )  # fmt: skip


def _right_edge(groove: Groove) -> Point:
    return max(groove.mouth)


def _least(wps: Wps, place: Point, metal: tuple[tuple[Point, ...], ...], system: System) -> Place:
    """Return where the least is read: of a thick piece on the other face."""
    thickness, stated = wps.joint.thickness_mm or 0.0, wps.preheat.minimum_c or 0.0
    words = [f"least {degrees(stated, system)}"]
    pair, asked, _ = crayons_of(wps, system)
    if asked and pair.must_melt is not None:
        words.append(f"{pair.must_melt:g} {scale(system)} must melt")
    if measuring().is_thin(thickness):
        return Place(place, 1, tuple(words))
    foot = min(y for outline in metal for _, y in outline)
    return Place((place[0], foot), -1, (*words, "across from the heating"))


def _most(wps: Wps, system: System) -> tuple[str, ...]:
    pair, _, asked = crayons_of(wps, system)
    words = [f"most {degrees(wps.preheat.interpass_maximum_c or 0.0, system)}, hottest place"]
    if asked and pair.must_not is not None:
        words.append(f"{pair.must_not:g} {scale(system)} must not melt")
    return tuple(words)
