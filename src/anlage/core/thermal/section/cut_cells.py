"""A grid cut by polygons: how much metal a cell holds, what part of each face is open, and what surface is free.

All follows from the traces of the metal on the grid lines, just to either side of each, so that edges which two
polygons share, or which lie on a line, count once whatever their shape.
"""

from collections.abc import Sequence
from dataclasses import dataclass, field

import numpy as np

from anlage.core.thermal.section.grid import Array
from anlage.core.thermal.section.polygons import Point, Polygon, Span, bounds, cut, shared, trace, united, without
from anlage.core.thermal.section.polygons import area as area_of

BESIDE = 1e-7  # mm to either side of a line, where its traces are taken


@dataclass(frozen=True)
class Contact:
    """Two metals that touch along a grid line without being fused: closed until `opens` polygons lie there.

    `axis` 0 is a contact along z at y = `at`, 1 one along y at z = `at`. `opens` is `None` for one that stays closed.
    """

    axis: int
    at: float
    span: Span
    opens: int | None = None


@dataclass
class Traces:
    """What of the lines across one axis lies in metal: a list of spans for either side of each line."""

    below: list[list[Span]]
    above: list[list[Span]]

    def copy(self) -> "Traces":
        """Return the same traces, to be added to."""
        return Traces(list(self.below), list(self.above))


@dataclass(frozen=True)
class Surface:
    """Free surface of the cells [mm]: on the outermost faces by side, within groove outlines, and all other."""

    open_air: Array
    sides: dict[str, Array]
    grooves: list[Array]


@dataclass
class CutGrid:
    """A grid and the metal in it; polygons are added one after the other.

    Arrays over cells are (columns, rows); `open_y` has a row of faces more in y, `open_z` in z, all in mm of open face.
    """

    ys: Array
    zs: Array
    metal: Array  # area of metal in each cell, mm²
    traces: tuple[Traces, Traces]
    count: int = 0
    contacts: tuple[Contact, ...] = ()
    groove_traces: list[tuple[Traces, Traces]] = field(default_factory=list)
    groove_area: list[Array] = field(default_factory=list)

    @classmethod
    def empty(cls, ys: Array, zs: Array) -> "CutGrid":
        """Return a grid without metal."""
        return cls(ys, zs, np.zeros((ys.size - 1, zs.size - 1)), (_no_traces(ys), _no_traces(zs)))

    def copy(self) -> "CutGrid":
        """Return the same grid, to be added to."""
        return CutGrid(
            self.ys, self.zs, self.metal.copy(), (self.traces[0].copy(), self.traces[1].copy()), self.count,
            self.contacts, self.groove_traces, self.groove_area,
        )  # fmt: skip

    def add(self, polygon: Polygon) -> Array:
        """Add metal and return its area in each cell [mm²]."""
        areas = self.areas(polygon)
        self.metal = self.metal + areas
        for axis, lines in enumerate((self.ys, self.zs)):
            _add_traces(self.traces[axis], polygon, axis, lines)
        self.count += 1
        return areas

    def add_groove(self, polygon: Polygon) -> None:
        """Note the outline of a groove, whose walls lose heat through its mouth."""
        found = (_no_traces(self.ys), _no_traces(self.zs))
        for axis, lines in enumerate((self.ys, self.zs)):
            _add_traces(found[axis], polygon, axis, lines)
        self.groove_traces.append(found)
        self.groove_area.append(self.areas(polygon))

    def areas(self, polygon: Polygon) -> Array:
        """Return the area of a polygon in each cell [mm²], exactly."""
        found = np.zeros_like(self.metal)
        (y_low, y_high), (z_low, z_high) = bounds([polygon])
        first, last = _within(self.ys, y_low, y_high)
        bottom, top = _within(self.zs, z_low, z_high)
        rest: list[Point] = list(polygon)
        for i in range(first, last):
            strip, rest = cut(rest, 0, self.ys[i + 1]) if i + 1 < last else (rest, [])
            for j in range(bottom, top):
                cell, strip = cut(strip, 1, self.zs[j + 1]) if j + 1 < top else (strip, [])
                if len(cell) > 2:
                    found[i, j] = area_of(cell)
                if not strip:
                    break
            if not rest:
                break
        return found

    def faces(self) -> tuple[Array, Array]:
        """Return the open length of every face across y and across z [mm]."""
        found = []
        for axis, lines in ((0, self.zs), (1, self.ys)):
            traces = self.traces[axis]
            open_spans = [shared(low, high) for low, high in zip(traces.below, traces.above, strict=True)]
            for contact in self.contacts:
                if contact.axis == axis and (contact.opens is None or self.count < contact.opens):
                    at = int(np.argmin(np.abs((self.ys if axis == 0 else self.zs) - contact.at)))
                    open_spans[at] = without(open_spans[at], [contact.span])
            found.append(np.array([_lengths(spans, lines) for spans in open_spans]))
        return found[0], found[1].T

    def surface(self, extent: tuple[Span, Span]) -> Surface:
        """Return the free surface of every cell [mm]; `extent` is where the outermost faces lie, in y and in z."""
        shape = self.metal.shape
        sides = {name: np.zeros(shape) for name in ("left", "right", "bottom", "top")}
        grooves = [np.zeros(shape) for _ in self.groove_area]
        air = np.zeros(shape)
        inner = []
        for axis, lines in ((0, self.zs), (1, self.ys)):
            inner.append(self._free_faces(axis, lines, (air, sides, grooves), extent))
        slanting = np.hypot(inner[0], inner[1])
        for n, where in enumerate(self.groove_area):
            in_groove = where > 0
            grooves[n] += np.where(in_groove, slanting, 0.0)
            slanting = np.where(in_groove, 0.0, slanting)
        above = (self.zs[:-1] >= extent[1][1] - 1e-6)[None, :]
        sides["top"] += np.where(above, slanting, 0.0)
        below = (self.zs[1:] <= extent[1][0] + 1e-6)[None, :]
        sides["bottom"] += np.where(below, slanting, 0.0)
        air += np.where(above | below, 0.0, slanting)
        return Surface(air, sides, grooves)

    def _free_faces(
        self, axis: int, lines: Array, into: tuple[Array, dict[str, Array], list[Array]], extent: tuple[Span, Span]
    ) -> Array:
        """Add what is free on the lines across an axis; return what is free within the cells, as a component."""
        air, sides, grooves = into
        traces, across = self.traces[axis], self.ys if axis == 0 else self.zs
        names = ("left", "right") if axis == 0 else ("bottom", "top")
        low_end, high_end = extent[axis]
        starts = np.array([_lengths(spans, lines) for spans in traces.above[:-1]])  # metal at the low face of a cell
        ends = np.array([_lengths(spans, lines) for spans in traces.below[1:]])  # and at its high face
        for at, place in enumerate(across):
            closed = [c.span for c in self.contacts if c.axis == axis and abs(c.at - place) < 1e-6]
            for inner_spans, outer_spans, cell, name in (
                (traces.above[at], traces.below[at], at, names[0]),
                (traces.below[at], traces.above[at], at - 1, names[1]),
            ):
                if not inner_spans or not 0 <= cell < across.size - 1:
                    continue
                free = without(inner_spans, [*outer_spans, *closed])
                if not free:
                    continue
                rest = free
                for n, groove in enumerate(self.groove_traces):
                    outside = groove[axis].below[at] if name == names[0] else groove[axis].above[at]
                    taken = shared(rest, outside)
                    if taken:
                        _put(grooves[n], axis, cell, _lengths(taken, lines))
                        rest = without(rest, taken)
                target = air
                if name == names[0] and place <= low_end + 1e-6:
                    target = sides[names[0]]
                elif name == names[1] and place >= high_end - 1e-6:
                    target = sides[names[1]]
                _put(target, axis, cell, _lengths(rest, lines))
        change: Array = starts - ends
        return change if axis == 0 else change.T


def _put(target: Array, axis: int, cell: int, lengths: Array) -> None:
    if axis == 0:
        target[cell, :] += lengths
    else:
        target[:, cell] += lengths


def _no_traces(lines: Array) -> Traces:
    return Traces([[] for _ in lines], [[] for _ in lines])


def _add_traces(traces: Traces, polygon: Polygon, axis: int, lines: Array) -> None:
    low, high = bounds([polygon])[axis]
    first = int(np.searchsorted(lines, low - 1e-6))
    last = int(np.searchsorted(lines, high + 1e-6))
    for at in range(first, last):
        for side, spans in ((-BESIDE, traces.below), (BESIDE, traces.above)):
            met = trace(polygon, axis, float(lines[at]) + side)
            if met:
                spans[at] = united([*spans[at], *met])


def _within(lines: Array, low: float, high: float) -> tuple[int, int]:
    """Return the cells from and up to which something reaches."""
    first = max(int(np.searchsorted(lines, low, side="right")) - 1, 0)
    last = min(int(np.searchsorted(lines, high, side="left")), lines.size - 1)
    return first, max(last, first + 1)


def _lengths(spans: Sequence[Span], lines: Array) -> Array:
    """Return how much of each cell along a line the spans cover."""
    if not spans:
        return np.zeros(lines.size - 1)
    covered = np.zeros(lines.size)
    for low, high in spans:
        covered += np.clip(lines - low, 0.0, high - low)
    return np.diff(covered)
