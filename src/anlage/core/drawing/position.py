"""How a joint stands while it is welded: plate or pipe, gravity, the way the weld goes, the clock of a fixed pipe."""

import math
from collections.abc import Iterator, Sequence
from typing import Literal

from msgspec import Struct
from msgspec.structs import replace

from anlage.core.drawing.display import DisplayList, Item, Marker, Path, Point, Text
from anlage.core.drawing.solids import Eye, Vector, added, box, cross, dot, drawn, ring, tube, turned

HALF, THICK, RADIUS = 1.0, 0.11, 0.46  # of a plate: half its length and half its thickness; of a pipe: its radius
WELD = 0.09  # half the width of the weld
TEXT_MM, NOTE_MM = 3.2, 2.6
CELL_MM = (25.0, 24.0)  # of one small drawing to choose from
SMALL = 6.2  # mm of paper per length of space, in a small drawing
GONE_TO = {"uphill": (0, 180), "downhill": (180, 0)}  # half a turn, from the top


class Standing(Struct, frozen=True, kw_only=True):
    """One position: its word, plate or pipe, groove or fillet, the directions it stands in, and what it is in words.

    `place` is what its seam is to the welder; `round` goes through all of them.
    """

    token: str
    product: str
    weld: str
    along: Vector
    out: Vector
    place: Literal["flat", "horizontal", "vertical", "overhead", "round"]
    turns: bool = False
    says: str = ""

    @property
    def target(self) -> str:
        """What choosing it names: product and word."""
        return f"{self.product}/{self.token}"


class Wanted(Struct, frozen=True):
    """What is stated: the positions, and which way the weld goes, "" where nobody says."""

    tokens: tuple[str, ...]
    progression: str = ""


def chart(offered: Sequence[Standing], wanted: Wanted, size_mm: Point) -> DisplayList:
    """Return the positions to choose from, and over them the first chosen one as it stands.

    Parameters
    ----------
    offered : the positions to choose from, in their order
    wanted : which of them are stated, and the progression
    size_mm : of the whole picture on paper [mm]
    """
    width, height = size_mm
    columns = max(min(len(offered), int(width // CELL_MM[0])), 1)
    rows = math.ceil(len(offered) / columns)
    items: list[Item] = []
    left = (width - columns * CELL_MM[0]) / 2
    for n, each in enumerate(offered):
        corner = (left + n % columns * CELL_MM[0], (rows - 1 - n // columns) * CELL_MM[1])
        items += _cell(each, corner, is_chosen=each.token in wanted.tokens)
    foot = rows * CELL_MM[1] + 4.0
    chosen = next((each for each in offered if each.token in wanted.tokens), None)
    room = height - foot - 8.0
    if chosen is not None and room > 20.0:
        scale = min(room / 2.6, (width - 8) / 4.0)
        items += _placed(_whole(chosen, wanted.progression), (width / 2, foot + 6.0 + room / 2), scale)
        says = f"{chosen.token}: {chosen.says[0].lower()}{chosen.says[1:]}"
        items.append(Text(role="value", at=(width / 2, foot), text=says, height_mm=TEXT_MM))
    elif chosen is None and room > 10.0:
        text = "Choose how the joint stands."
        if wanted.tokens:
            are = "is" if len(wanted.tokens) == 1 else "are"
            text = f"{' and '.join(wanted.tokens)} {are} none of this weld and product."
        items.append(Text(role="tick", at=(width / 2, foot + room / 2), text=text, height_mm=TEXT_MM))
    return DisplayList(tuple(items), 1.0, (0.0, 0.0), size_mm)


def _cell(each: Standing, corner: Point, *, is_chosen: bool) -> Iterator[Item]:
    x, y = corner
    (right, top) = (x + CELL_MM[0] - 1.5, y + CELL_MM[1] - 1.5)
    frame = ((x, y), (right, y), (right, top), (x, top))
    yield Path(role="layer", points=frame, closed=True, target=each.target)
    yield from _placed(_solid(each), ((x + right) / 2, y + 13.6), SMALL)
    if each.turns:  # else it looks like one that is fixed
        turn = _placed(_way_round(each, "", eye_of(each)), ((x + right) / 2, y + 13.6), SMALL)
        yield from (replace(item, size_mm=1.6) if isinstance(item, Marker) else item for item in turn)
    yield Text(role="value", at=((x + right) / 2, y + 1.6), text=f"{each.token} {each.product}", height_mm=NOTE_MM,
               target=each.target)  # fmt: skip
    yield Path(role="chosen" if is_chosen else "grid", points=(*frame, frame[0]), target=each.target)


def _placed(items: Iterator[Item], at: Point, scale: float) -> Iterator[Item]:
    """Yield items of space, moved and scaled on paper."""

    def there(point: Point) -> Point:
        return (at[0] + point[0] * scale, at[1] + point[1] * scale)

    for item in items:
        if isinstance(item, Path):
            yield replace(item, points=tuple(map(there, item.points)))
        else:
            yield replace(item, at=there(item.at))


def eye_of(each: Standing) -> Eye:
    """Return how a position is seen: one that is welded from below is seen from below."""
    return Eye(is_below=each.out[1] < -0.5)


def _solid(each: Standing) -> Iterator[Item]:
    if each.product == "pipe":
        return _pipe(each)
    return _tee(each) if each.weld == "fillet" else _butt(each)


def _butt(each: Standing) -> Iterator[Item]:
    eye, across = eye_of(each), cross(each.along, each.out)
    middle: Vector = (0.0, 0.0, 0.0)
    faces = []
    for sign in (1.0, -1.0):
        at = added(middle, (across, sign * (HALF / 2 + WELD * 0.5)))
        faces += box(at, ((each.along, HALF), (across, HALF / 2), (each.out, THICK)), "metal")
    yield from drawn(faces, eye)
    yield from _bead(each, eye, added(middle, (each.out, THICK)), across)


def _tee(each: Standing) -> Iterator[Item]:
    eye = eye_of(each)
    base, upright = turned(each.out, each.along, 45.0), turned(each.out, each.along, -45.0)
    corner: Vector = added((0.0, 0.0, 0.0), (each.out, -0.3))
    faces = box(
        added(corner, (base, 0.1), (upright, -THICK)), ((each.along, HALF), (base, 0.8), (upright, THICK)), "metal"
    )
    faces += box(
        added(corner, (upright, 0.55), (base, -THICK)), ((each.along, HALF), (upright, 0.55), (base, THICK)), "metal"
    )
    yield from drawn(faces, eye)
    yield from _bead(each, eye, added(corner, (each.out, 0.1)), cross(each.along, each.out))


def _bead(each: Standing, eye: Eye, middle: Vector, across: Vector) -> Iterator[Item]:
    """Yield the weld of a plate as a strip along it."""
    signs = ((1, 1), (1, -1), (-1, -1), (-1, 1))
    corners = [added(middle, (each.along, a * HALF), (across, b * WELD)) for a, b in signs]
    yield Path(role="print", points=tuple(map(eye.on_paper, corners)), closed=True)


def _pipe(each: Standing) -> Iterator[Item]:
    eye, middle = eye_of(each), (0.0, 0.0, 0.0)
    ends = (added(middle, (each.along, -HALF)), added(middle, (each.along, HALF)))
    far, near = ends if eye.faces(each.along) else ends[::-1]
    parts: list[tuple[tuple[Vector, Vector], float]] = [((far, near), RADIUS)]
    if each.weld == "fillet":  # a sleeve over one half
        sleeve = (ends[0], middle)
        parts.append((sleeve, RADIUS * 1.3))
        parts.sort(key=lambda part: part[0] == sleeve, reverse=each.along == far)
    for (one, other), radius in parts:
        along = each.along if dot(added(other, (one, -1.0)), each.along) > 0 else added(middle, (each.along, -1.0))
        yield from tube((one, other), along, radius, eye)
    front = [(point, out) for point, out in ring(middle, each.along, RADIUS * 1.02) if dot(out, eye.toward) > 0]
    start = _break_of(front)
    row = front[start:] + front[:start]
    edges = [[eye.on_paper(added(point, (each.along, side * WELD))) for point, _ in row] for side in (1.0, -1.0)]
    yield Path(role="print", points=(*edges[0], *reversed(edges[1])), closed=True)


def _break_of(front: Sequence[tuple[Vector, Vector]]) -> int:
    """Return where the seen part of a ring begins: it may run over the end of the list."""
    gaps = [dot(front[n][1], front[n - 1][1]) for n in range(len(front))]
    return gaps.index(min(gaps))


def _whole(each: Standing, progression: str) -> Iterator[Item]:
    """Yield a position in full: the joint, the torch, the way it goes, gravity, the clock of a fixed pipe."""
    eye = eye_of(each)
    yield from _solid(each)
    reach = (RADIUS if each.product == "pipe" else THICK) + 0.12
    tip, end = (eye.on_paper(added((0.0, 0.0, 0.0), (each.out, reach + far))) for far in (0.0, 0.75))
    yield Path(role="weld_line", points=(end, tip))
    yield Marker(role="symbol_full", at=tip, kind="arrow", direction_deg=_direction(end, tip), size_mm=3.2)
    yield from _way(each, progression, eye)
    yield from _gravity()
    if each.product == "pipe" and not each.turns and abs(each.along[1]) < 0.9:
        yield from _hours(each, eye)


def _direction(start: Point, end: Point) -> float:
    return math.degrees(math.atan2(end[1] - start[1], end[0] - start[0]))


def _arrow(points: Sequence[Point]) -> Iterator[Item]:
    yield Path(role="chosen", points=tuple(points))
    yield Marker(role="chosen_arrow", at=points[-1], kind="arrow", direction_deg=_direction(points[-2], points[-1]),
                 size_mm=3.0)  # fmt: skip


def _way(each: Standing, progression: str, eye: Eye) -> Iterator[Item]:
    """Yield the way the weld goes; of a seam that goes up or down only once it is said which."""
    middle: Vector = (0.0, 0.0, 0.0)
    if each.product == "pipe":
        yield from _way_round(each, progression, eye)
        return
    sign = {"downhill": -1.0, "uphill": 1.0}.get(progression, 0.0 if each.along[1] > 0.5 else 1.0)
    if sign:
        side = added(middle, (each.out, THICK + 0.05), (cross(each.along, each.out), 0.3))
        yield from _arrow([eye.on_paper(added(side, (each.along, sign * along))) for along in (-0.6, 0.6)])


def _way_round(each: Standing, progression: str, eye: Eye) -> Iterator[Item]:
    """Yield the way round a pipe: the turn of one that is turned, else up or down both halves, or once round it."""
    middle: Vector = (0.0, 0.0, 0.0)
    round_it = ring(added(middle, (each.along, 0.32)), each.along, RADIUS * 1.06)
    if each.turns or abs(each.along[1]) > 0.9:
        turn = [eye.on_paper(point) for point, out in round_it if dot(out, eye.toward) > 0.35]
        yield from _arrow(turn)
        return
    if progression in GONE_TO:
        half = STEPS_OF_HALF
        seen = (
            round_it[half:] + round_it[:1]
            if dot(round_it[half + half // 2][1], eye.toward) > 0
            else round_it[: half + 1]
        )
        points = [eye.on_paper(point) for point, out in seen if dot(out, eye.toward) > 0.5]
        rises = points[-1][1] > points[0][1]
        yield from _arrow(points if rises == (progression == "uphill") else points[::-1])


STEPS_OF_HALF = 24


def _hours(each: Standing, eye: Eye) -> Iterator[Item]:
    """Yield the clock of a fixed pipe, at the end that is seen."""
    end = added((0.0, 0.0, 0.0), (each.along, HALF if eye.faces(each.along) else -HALF))
    hours = ring(end, each.along, RADIUS * 1.3)
    for n, word in ((0, "12"), (12, "3"), (24, "6"), (36, "9")):
        place = n if dot(hours[12][1], (0.0, 0.0, -1.0)) > 0 else (48 - n) % 48
        yield Text(role="tick", at=eye.on_paper(hours[place][0]), text=word, height_mm=NOTE_MM, offset_mm=(0.0, -0.9))


def _gravity() -> Iterator[Item]:
    start, end = (-1.75, 0.55), (-1.75, -0.35)
    yield Path(role="symbol", points=(start, end))
    yield Marker(role="symbol_full", at=end, kind="arrow", direction_deg=-90.0, size_mm=3.0)
    yield Text(role="tick", at=(-1.75, 0.62), text="gravity", height_mm=NOTE_MM)
