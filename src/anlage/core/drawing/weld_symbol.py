"""The weld symbol of a joint, drawn from its preparation after the rules of AWS A2.4 or ISO 2553 (system A).

Glossary
--------
arrow side : the side that the arrow points to, here the first side of the joint; below the line by AWS A2.4, on the
    full line by ISO 2553, whose dashed line carries the other side
The shapes follow the published rules from memory (M); proportions are our own.
"""

import math
from collections.abc import Iterator, Mapping
from types import MappingProxyType
from typing import Literal

from msgspec import Struct
from msgspec.structs import replace

from anlage.core.drawing.display import DisplayList, Item, Marker, Measure, Path, Point, Text, bounds
from anlage.core.joint import Preparation

System = Literal["aws", "iso"]
HIGH, STEM, ROUND = 6.0, 2.0, 3.0  # of the glyphs [paper mm]
LINE_MM, LEAD_MM, DASHED_MM = 54.0, 17.0, 1.6
TEXT_MM = 2.8
CLEAR_MM = 0.5  # round a root opening
FREE_MM = {"v": 4.3, "bevel": 2.7, "square": 3.2}  # between the lines of a glyph where the opening stands
ROLE = "symbol"


class SymbolTexts(Struct, frozen=True):
    """What stands at a symbol, as text: root opening, angle, size of each side, process in the tail."""

    opening: str = ""
    angles: tuple[str, str] = ("", "")
    sizes: tuple[str, str] = ("", "")
    process: str = ""


def weld_symbol(p: Preparation, texts: SymbolTexts, system: System, measure: Measure) -> DisplayList:
    """Return the weld symbol of a joint, in paper millimetres.

    Parameters
    ----------
    p : the joint
    texts : what stands at it, in the reader's units
    system : whose rules
    measure : measures a text, for the corners of the picture
    """
    first = -1.0 if system == "aws" else 1.0
    items: list[Item] = [Path(role=ROLE, points=((0.0, 0.0), (LINE_MM, 0.0)))]
    items += _leader(p)
    other = -first
    if system == "iso":
        items.append(Path(role="symbol_dashed", points=((2.0, -DASHED_MM), (LINE_MM - 2.0, -DASHED_MM))))
    if p.od_mm is not None:
        items.append(Path(role="symbol_circle", points=_arc((0.0, 0.0), 1.9, 0, 360)))
    x = 0.5 * LINE_MM
    wide = _stretch(p, texts.opening, measure)
    items += _side(p, (x, wide), first, texts, 0)
    base = -DASHED_MM if system == "iso" else 0.0
    if p.make.sides == 2:
        items += [_moved(item, base) for item in _side(p, (x, wide), other, texts, 1)]
    elif p.make.backing:
        box = ((x - 3.5, 0.0), (x + 3.5, 0.0), (x + 3.5, other * 3), (x - 3.5, other * 3))
        items.append(_moved(Path(role=ROLE, points=(*box, box[0])), base))
    elif p.root_reinforcement_mm > 0 and p.make.is_open:
        half = _arc((x, 0.0), ROUND, 0, 180 * other)
        items.append(_moved(Path(role="symbol_full", points=half, closed=True), base))
    if texts.process:
        tail = LINE_MM + 4.0
        for sign in (1, -1):
            items.append(Path(role=ROLE, points=((LINE_MM, 0.0), (tail, 4.0 * sign))))
        items.append(_text((LINE_MM + 5.0, -1.0), texts.process, anchor="start"))
    return DisplayList(tuple(items), 1.0, *bounds(items, 1.0, measure))


def _leader(p: Preparation) -> Iterator[Item]:
    """Yield the arrow; it is broken where it points to the one member that is cut."""
    tip = (-LEAD_MM, -LEAD_MM)
    points: tuple[Point, ...] = ((0.0, 0.0), tip)
    if p.make.form in ("bevel", "j") and p.make.family != "flare":
        points = ((0.0, 0.0), (-6.0, -9.0), (-9.0, -6.0), tip)
    yield Path(role=ROLE, points=points)
    before = points[-2]
    turn = math.degrees(math.atan2(tip[1] - before[1], tip[0] - before[0]))
    yield Marker(role=ROLE, at=tip, kind="arrow", direction_deg=turn, size_mm=3.0)


def _is_one_sided(p: Preparation) -> bool:
    return p.make.form in ("bevel", "j") or p.make.form.startswith("branch")


def _stretch(p: Preparation, opening: str, measure: Measure) -> float:
    """Return how much wider than usual the glyph is drawn, so that the root opening stands between its lines."""
    if not opening:
        return 1.0
    free = FREE_MM["bevel" if _is_one_sided(p) else "square" if p.make.form == "square" else "v"]
    return max(1.0, (measure(opening, TEXT_MM) + 2 * CLEAR_MM) / free)


def _side(p: Preparation, placed: tuple[float, float], sign: float, texts: SymbolTexts, place: int) -> Iterator[Item]:
    """Yield glyph and texts of one side, growing away from the line; placed at an x, so many times as wide as usual."""
    x, wide = placed
    for points in glyph(p):
        yield Path(role=ROLE, points=tuple((x + wide * u, sign * v) for u, v in points))
    low = -0.36 * TEXT_MM
    if texts.sizes[place]:
        yield _text((x - 3.9 - 3.6 * wide, sign * 3.2 + low), texts.sizes[place], anchor="end")
    if place == 0 and texts.opening:
        beside = 1.36 * wide if _is_one_sided(p) else 0.0
        yield _text((x + beside, sign * 4.6 + low), texts.opening)
    if texts.angles[place]:
        yield _text((x, sign * 8.6 + low), texts.angles[place])


def glyph(p: Preparation) -> tuple[tuple[Point, ...], ...]:
    """Return the lines of a weld's symbol over the reference line, as (along, away) [paper mm]."""
    if p.make.family == "flare":
        right = _arc((5.2, 0.0), 4.6, 180, 95)
        left = ((0.0, 0.0), (0.0, HIGH)) if p.make.form == "bevel" else tuple((-u, v) for u, v in right)
        return left, right
    return GLYPHS.get(p.make.form, GLYPHS["v"])


def _arc(centre: Point, radius: float, start: float, end: float) -> tuple[Point, ...]:
    turns = [math.radians(start + (end - start) * n / 16) for n in range(17)]
    return tuple((centre[0] + radius * math.cos(t), centre[1] + radius * math.sin(t)) for t in turns)


_UPRIGHT: tuple[Point, ...] = ((0.0, 0.0), (0.0, HIGH))
_FILLET: tuple[Point, ...] = ((-3.0, 0.0), (-3.0, HIGH), (3.0, 0.0))
_HOLE: tuple[Point, ...] = ((-3.5, 0.0), (-3.5, 4.0), (3.5, 4.0), (3.5, 0.0))
_BEVEL = (_UPRIGHT, ((0.0, 0.0), (4.6, HIGH)))
GLYPHS: Mapping[str, tuple[tuple[Point, ...], ...]] = MappingProxyType(
    {
        "v": (((-3.6, HIGH), (0.0, 0.0), (3.6, HIGH)),),
        "fillet": (_FILLET,),
        "socket": (_FILLET,),
        "slip-on": (_FILLET,),
        "square": (((-1.6, 0.0), (-1.6, HIGH)), ((1.6, 0.0), (1.6, HIGH))),
        "bevel": _BEVEL,
        "branch-set-on": _BEVEL,
        "branch-set-in": _BEVEL,
        "u": (((0.0, 0.0), (0.0, STEM)), _arc((0.0, STEM + ROUND), ROUND, 180, 360)),
        "j": (_UPRIGHT, _arc((0.0, STEM + ROUND), ROUND, 270, 360)),
        "plug": (_HOLE,),
        "slot": (_HOLE,),
        "cladding": (_arc((-2.4, 0.0), 2.4, 180, 0), _arc((2.4, 0.0), 2.4, 180, 0)),
    }
)
"""Lines of each form's symbol over the reference line, as (along, away) [paper mm]."""


def enlarged(picture: DisplayList, times: float) -> DisplayList:
    """Return a picture of scale 1 so many times as large, texts and arrows with it."""

    def grown(point: Point) -> Point:
        return (point[0] * times, point[1] * times)

    items: list[Item] = []
    for item in picture.items:
        match item:
            case Path(points=points):
                items.append(replace(item, points=tuple(map(grown, points))))
            case Text():
                items.append(replace(item, at=grown(item.at), height_mm=item.height_mm * times))
            case Marker():
                items.append(replace(item, at=grown(item.at), size_mm=item.size_mm * times))
    return DisplayList(tuple(items), 1.0, grown(picture.low), grown(picture.high))


def _text(at: Point, text: str, anchor: Literal["start", "middle", "end"] = "middle") -> Text:
    return Text(role="value", at=at, text=text, height_mm=TEXT_MM, anchor=anchor)


def _moved(item: Item, by: float) -> Item:
    if isinstance(item, Path):
        return Path(
            role=item.role, points=tuple((x, y + by) for x, y in item.points), closed=item.closed, target=item.target
        )
    if isinstance(item, Text):
        return _text((item.at[0], item.at[1] + by), item.text, item.anchor)
    return item
