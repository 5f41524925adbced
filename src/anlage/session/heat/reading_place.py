"""Where a joint is read: on a level face beside its weld, so far from its edge; on each side of a tee or a lap."""

from collections.abc import Sequence

from anlage.core.errors import InputError
from anlage.core.joint import MAKES
from anlage.core.procedure import Wps
from anlage.session.heat.measured import measuring_mm
from anlage.session.heat.sequence import OTHER_PLACE, PLACE, PLATES
from anlage.session.weld.beads import joint_shape

Point = tuple[float, float]
Outline = tuple[Point, ...]
STEPS_ALONG = 6  # places between weld and reading at which there has to be a face
UNDER_MM = 0.2  # how far under a face its metal is looked for


def reading_places_of(wps: Wps, outlines: Sequence[Outline]) -> dict[str, Point]:
    """Return where the most between passes is read: on a face beside the weld, so far from its edge.

    A tee or lap that is welded from both sides is read on the side of the pass: no heat crosses the faces between.

    Raises
    ------
    InputError : no member reaches so far
    """
    shape = joint_shape(wps)
    assert shape is not None
    family = MAKES[wps.joint.kind].family if wps.joint.kind else ""
    sides = {1: PLACE, 2: OTHER_PLACE} if family in PLATES else {1: PLACE}
    found = {}
    for side, name in sides.items():
        ends = [point for groove in shape.grooves if groove.side == side for point in groove.mouth]
        if ends:
            found[name] = _beside(ends, wps, outlines, last=side == 2)
    return found


def _beside(ends: Sequence[Point], wps: Wps, outlines: Sequence[Outline], *, last: bool) -> Point:
    """Return the place beside the outer end of some mouths, on the right where there is metal, else on the left."""
    far = measuring_mm(wps)
    order = sorted(ends, key=lambda each: (each[0], -each[1]), reverse=not last)
    ways = (-1.0, 1.0) if last else (1.0, -1.0)
    for away, (x, y) in ((way, end) for way in ways for end in (order if way == ways[0] else reversed(order))):
        way = [(x + away * far * n / STEPS_ALONG, y) for n in range(1, STEPS_ALONG + 1)]
        if all(_is_on_face(point, outlines) for point in way):
            return way[-1]
    half = wps.piece.half_width_mm or 0.0
    mend = f"state a half width of {max(abs(x) for x, _ in ends) + far:.0f} mm or more"
    raise InputError(f"{half:.0f} mm ends before the place that is read", where="half width", mend=mend)


def _is_on_face(point: Point, outlines: Sequence[Outline]) -> bool:
    """Return whether a point lies on a level face of the metal, and neither within nor off it."""
    x, y = point
    under, over = (any(holds(each, (x, y + off)) for each in outlines) for off in (-UNDER_MM, UNDER_MM))
    return under is not over


def holds(outline: Outline, point: Point) -> bool:
    """Return whether a point lies within an outline."""
    x, y = point
    crossed = [
        ax + (y - ay) / (by - ay) * (bx - ax)
        for (ax, ay), (bx, by) in zip(outline, (*outline[1:], outline[0]), strict=True)
        if (ay > y) != (by > y)
    ]
    return sum(each > x for each in crossed) % 2 == 1
