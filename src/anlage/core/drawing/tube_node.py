"""A node of tubes from its side with every weld numbered in its order, and the patterns its members are cut by."""

import math
from collections.abc import Iterator, Sequence

from msgspec import Struct
from msgspec.structs import replace

from anlage.core.drawing.display import Anchor, DisplayList, Item, Measure, Path, Point, Text, bounds
from anlage.core.joint import Cope, Tube, TubeWeld

LABEL_MM, NUMBER_MM = 2.6, 2.8
APART_MM = 26.0  # between two patterns, with their words
SHOWN = 1.9  # of a member beyond the run, in diameters of the largest member
BEYOND = 0.8  # of the run beyond the outermost weld, likewise
END_ON = 0.15  # share of a member's length in the picture under which it is seen from its end
REFERENCE_MM = 12.0  # between the reference line of a pattern and the lowest place of its cut
QUARTERS = ("heel", "near", "toe", "far", "heel")


class Drawn(Struct, frozen=True):
    """One member as it is shown: the leaf it is stated at, its place in the order, what stands at its end."""

    target: str
    label: str
    caption: str
    tube: Tube
    weld: TubeWeld
    chosen: bool = False


def tube_node(run_od_mm: float, members: Sequence[Drawn], *, scale: float, measure: Measure) -> DisplayList:
    """Return the node seen square to the run, up is up; members on its far side are dashed.

    Parameters
    ----------
    run_od_mm : outside diameter of the run [mm]
    members : every member with its weld, in the order they are welded
    scale : paper millimetres per work millimetre
    measure : measures a text, for the corners of the picture
    """
    large = max(each.tube.od_mm for each in members)
    ends = [corner.at[0] for each in members for corner in each.weld.corners]
    ends += [each.tube.along_mm + each.tube.axis[0] * _length(each.tube, run_od_mm, large) for each in members
             if each.tube.axis[1] > END_ON and abs(each.tube.axis[2]) < END_ON]  # fmt: skip
    reach = (min(ends) - BEYOND * large, max(ends) + BEYOND * large)
    items: list[Item] = []
    far = sorted((each for each in members if each.tube.axis[1] > END_ON), key=lambda each: -each.tube.axis[1])
    near = sorted((each for each in members if each not in far), key=lambda each: -each.tube.axis[1])
    items += _run(run_od_mm, reach)
    for each in far:  # what the run hides is dashed
        items += (replace(item, role="ghost", closed=False) for item in _member(each, run_od_mm, large))
    for each in near:
        items += _member(each, run_od_mm, large)
    for each in members:
        items += _words(each, run_od_mm, large, scale, measure)
    return DisplayList(tuple(items), scale, *bounds(items, scale, measure))


def _run(od: float, reach: tuple[float, float]) -> Iterator[Item]:
    half = od / 2
    corners = ((reach[0], -half), (reach[1], -half), (reach[1], half), (reach[0], half))
    yield Path(role="metal", points=corners, closed=True, target="joint/run_od_mm")
    for y in (-half, half):
        yield Path(role="edge", points=((reach[0], y), (reach[1], y)))
    for x in reach:
        wave = tuple((x + 0.05 * od * math.sin(2 * math.pi * n / 16), half - od * n / 16) for n in range(17))
        yield Path(role="break", points=wave)
    yield Path(role="axis", points=((reach[0], 0.0), (reach[1], 0.0)))


def _length(tube: Tube, run_od: float, large: float) -> float:
    """Return how far out a member is shown along its axis [mm]."""
    return run_od / 2 / math.sin(math.radians(tube.slope_deg)) + SHOWN * large


def _member(each: Drawn, run_od: float, large: float) -> Iterator[Path]:
    tube, corners = each.tube, each.weld.corners[:-1]
    axis, long = tube.axis, _length(each.tube, run_od, large)
    flat = math.hypot(axis[0], axis[2])
    seam = tuple((corner.at[0], corner.at[2]) for corner in each.weld.corners)
    if flat > END_ON:
        across = (-axis[2] / flat * tube.od_mm / 2, axis[0] / flat * tube.od_mm / 2)
        end = (tube.along_mm + axis[0] * long, axis[2] * long)
        tops = [(end[0] + side * across[0], end[1] + side * across[1]) for side in (1.0, -1.0)]
        shares = [(c.at[0] * across[0] + c.at[2] * across[1], c) for c in corners]
        left, right = max(shares, key=lambda pair: pair[0])[1], min(shares, key=lambda pair: pair[0])[1]
        front = [c for c in corners if _is_near(tube, c.azimuth_deg)]
        front.sort(key=lambda c: -(c.at[0] * across[0] + c.at[2] * across[1]))
        foot = [(c.at[0], c.at[2]) for c in (left, *front, right)]
        yield Path(role="metal", points=(tops[0], *foot, tops[1]), closed=True, target=each.target)
        yield Path(role="edge", points=(tops[0], foot[0]))
        yield Path(role="edge", points=(tops[1], foot[-1]))
        yield Path(role="break", points=(tops[0], tops[1]))
        yield Path(role="axis", points=((tube.along_mm, 0.0), end))
        seam = tuple(foot)
    else:
        ring = [(tube.along_mm + tube.od_mm / 2 * math.cos(t), tube.od_mm / 2 * math.sin(t)) for t in _turns()]
        yield Path(role="metal", points=tuple(ring), closed=True, target=each.target)
        yield Path(role="edge", points=tuple(ring))
    yield Path(role="chosen" if each.chosen else "weld_line", points=seam, target=each.target)


def _turns() -> list[float]:
    return [2 * math.pi * n / 48 for n in range(49)]


def _is_near(tube: Tube, azimuth_deg: float) -> bool:
    """Return whether a place round a member faces the one who looks."""
    turn, heel, axis = math.radians(azimuth_deg), tube.heel, tube.axis
    side_y = axis[2] * heel[0] - axis[0] * heel[2]
    return math.cos(turn) * heel[1] + math.sin(turn) * side_y <= 0.0


def _words(each: Drawn, run_od: float, large: float, scale: float, measure: Measure) -> Iterator[Item]:
    axis, long = each.tube.axis, _length(each.tube, run_od, large)
    at = (each.tube.along_mm + axis[0] * 0.8 * long, axis[2] * 0.8 * long)
    half = max(measure(each.label, NUMBER_MM) / 2 + 0.9, 1.9) / scale
    high = 0.85 * NUMBER_MM / scale
    box = tuple((at[0] + x * half, at[1] + y * high) for x, y in ((-1, -1), (1, -1), (1, 1), (-1, 1)))
    yield Path(role="plate", points=box, closed=True, target=each.target)
    yield Text(
        role="value", at=at, text=each.label, height_mm=NUMBER_MM, offset_mm=(0.0, -0.36 * NUMBER_MM),
        target=each.target,
    )  # fmt: skip
    end = (each.tube.along_mm + axis[0] * long, axis[2] * long)
    out = (axis[0] * 3.0, (3.0 if axis[2] >= 0 else -5.0))
    anchor: Anchor = "middle" if abs(axis[0]) < 0.3 else "start" if axis[0] > 0 else "end"
    if math.hypot(axis[0], axis[2]) < END_ON:  # seen from its end: the name stands beside it, over the run's axis
        out, anchor = (each.tube.od_mm / 2 * scale + 1.2, 0.8), "start"
    yield Text(role="tick", at=end, text=each.caption, height_mm=LABEL_MM, offset_mm=out, anchor=anchor,
               target=each.target)  # fmt: skip


def cope_patterns(
    patterns: Sequence[tuple[str, Sequence[str], Cope]], *, scale: float, measure: Measure
) -> DisplayList:
    """Return patterns to wrap round members, one under the other; at scale 1 they are cut out of paper and used.

    Parameters
    ----------
    patterns : name, notes and pattern of each member
    scale : paper millimetres per work millimetre
    measure : measures a text, for the corners of the picture
    """
    items: list[Item] = []
    top = 0.0
    for name, notes, pattern in patterns:
        items += _pattern(name, notes, pattern, top)
        top -= pattern.height_mm + REFERENCE_MM + APART_MM / scale
    return DisplayList(tuple(items), scale, *bounds(items, scale, measure))


def _pattern(name: str, notes: Sequence[str], pattern: Cope, top: float) -> Iterator[Item]:
    """Yield one pattern as it hangs on the member: the cut below, the line square round the tube on top."""
    around, foot = pattern.points[-1][0], top - REFERENCE_MM - pattern.height_mm
    cut: tuple[Point, ...] = tuple((x, foot + y) for x, y in pattern.points)
    yield Path(role="metal", points=(*cut, (around, top), (0.0, top)), closed=True)
    yield Path(role="edge", points=(cut[0], (0.0, top), (around, top), cut[-1]))
    yield Path(role="weld_line", points=cut)
    for n, word in enumerate(QUARTERS):
        x = around * n / 4
        low = cut[round(n / 4 * (len(cut) - 1))][1]
        yield Path(role="axis", points=((x, low), (x, top)))
        yield Text(role="tick", at=(x, foot), text=word, height_mm=LABEL_MM, offset_mm=(0.0, -4.0))
    middle = (around / 2, top)
    for n, text in enumerate((*reversed(notes), name)):
        role = "value" if text is name else "tick"
        yield Text(role=role, at=middle, text=text, height_mm=LABEL_MM, offset_mm=(0.0, 1.6 + 1.6 * LABEL_MM * n))
