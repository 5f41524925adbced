"""The temperatures of a section over the passes, kept frame by frame; apart, for it loads NumPy."""

from collections.abc import Iterator, Sequence
from dataclasses import dataclass

import numpy as np
import numpy.typing as npt

from anlage.core.drawing.section_heat import Strip

Array = npt.NDArray[np.float64]
Field = npt.NDArray[np.float32]
MOST = 400  # frames that are kept: at twice as many every second is dropped
Point = tuple[float, float]
Box = tuple[Point, Point]  # least and most corner [mm]


@dataclass(frozen=True)
class Frames:
    """Temperatures [°C] at times [s] in the cells between lines [mm]; not a number where there is no metal yet."""

    lines: tuple[Array, Array]
    times: Array
    fields: Field

    @property
    def end_s(self) -> float:
        """When the last frame was taken."""
        return float(self.times[-1])

    def at(self, time_s: float) -> Array:
        """Return the temperatures at a time, straight between two frames; metal of the later one is not there yet."""
        after = int(np.clip(np.searchsorted(self.times, time_s), 1, len(self.times) - 1))
        before = after - 1
        span = self.times[after] - self.times[before]
        share = float(np.clip((time_s - self.times[before]) / span, 0.0, 1.0)) if span > 0 else 1.0
        earlier, later = self.fields[before].astype(np.float64), self.fields[after].astype(np.float64)
        if share == 1.0:
            return np.array(later)
        found: Array = np.where(np.isnan(later), earlier, (1 - share) * earlier + share * later)
        return found

    def read(self, time_s: float, place: Point) -> float | None:
        """Return what a place reads at a time [°C]; `None` where there is no metal."""
        found = float(sampled(self.at(time_s), self.lines, [place[0]], [place[1]])[0, 0])
        return None if np.isnan(found) else found

    def over_time(self, place: Point) -> tuple[Point, ...]:
        """Return time [s] and temperature [°C] of a place, from when there is metal on."""
        (left, over), (low, up) = (_between(np.array([at]), each) for at, each in zip(place, self.lines, strict=True))
        columns, rows = (np.array([at[0], min(at[0] + 1, most - 1)]) for at, most in
                         ((left, self.fields.shape[1]), (low, self.fields.shape[2])))  # fmt: skip
        shares = np.outer([1 - over[0], over[0]], [1 - up[0], up[0]])[None]
        values = self.fields[:, columns][:, :, rows].astype(np.float64)
        there = ~np.isnan(values)
        weight = (there * shares).sum(axis=(1, 2))
        total = (np.where(there, values, 0.0) * shares).sum(axis=(1, 2))
        column, row = (_cell(np.array([at]), each)[0] for at, each in zip(place, self.lines, strict=True))
        own = self.fields[:, column, row]
        known = np.flatnonzero(~np.isnan(own) & (weight > 0))
        return tuple((float(self.times[n]), float(total[n] / weight[n])) for n in known)


class Recorder:
    """Takes frames as a run goes; of a long one it keeps fewer."""

    def __init__(self, lines: tuple[Array, Array]) -> None:
        self._lines = lines
        self._times: list[float] = []
        self._fields: list[Field] = []
        self._every = 1
        self._seen = 0
        self._last: tuple[float, Field] | None = None

    def take(self, time_s: float, celsius: Array) -> None:
        """Keep the temperatures of a time, where it is its turn."""
        self._last, number = (time_s, celsius.astype(np.float32)), self._seen
        self._seen += 1
        if number % self._every:
            return
        self._times.append(time_s)
        self._fields.append(self._last[1])
        if len(self._times) >= 2 * MOST:
            self._times, self._fields = self._times[::2], self._fields[::2]
            self._every *= 2

    def until(self, time_s: float) -> "Recorder":
        """Return what was taken up to a time, to be gone on with."""
        other = Recorder(self._lines)
        count = int(np.searchsorted(self._times, time_s, side="right"))
        other._times, other._fields = self._times[:count], self._fields[:count]
        other._every, other._seen = self._every, count * self._every
        return other

    def frames(self) -> Frames | None:
        """Return what was kept, the last frame in any case; `None` where that is no two frames."""
        if self._last is not None and self._last[0] > self._times[-1]:
            self._times, self._fields = [*self._times, self._last[0]], [*self._fields, self._last[1]]
        if len(self._times) < 2:
            return None
        return Frames(self._lines, np.array(self._times), np.stack(self._fields))


def sampled(field: Array | Field, lines: tuple[Array, Array], xs: Sequence[float], ys: Sequence[float]) -> Array:
    """Return temperatures at places: straight between the centres of cells round each, those without metal left out.

    A place whose own cell holds no metal has none.

    Parameters
    ----------
    field : of the cells, shape (across, up)
    lines : that the cells lie between [mm]
    xs, ys : columns and rows of places [mm]

    Returns
    -------
    Array : shape (len(xs), len(ys))
    """
    (left, over), (low, up) = (_between(np.asarray(at), each) for at, each in zip((xs, ys), lines, strict=True))
    total, weight = np.zeros((len(xs), len(ys))), np.zeros((len(xs), len(ys)))
    for di, share_x in ((0, 1 - over), (1, over)):
        for dj, share_y in ((0, 1 - up), (1, up)):
            values = field[np.minimum(left + di, field.shape[0] - 1)][:, np.minimum(low + dj, field.shape[1] - 1)]
            shares = np.outer(share_x, share_y)
            there = ~np.isnan(values)
            total += np.where(there, values, 0.0) * shares * there
            weight += shares * there
    own = field[_cell(np.asarray(xs), lines[0])][:, _cell(np.asarray(ys), lines[1])]
    with np.errstate(invalid="ignore", divide="ignore"):
        return np.where(np.isnan(own) | (weight <= 0), np.nan, total / weight)


def _between(at: Array, lines: Array) -> tuple[npt.NDArray[np.intp], Array]:
    centres = (lines[:-1] + lines[1:]) / 2
    if len(centres) < 2:
        return np.zeros(len(at), dtype=np.intp), np.zeros(len(at))
    left = np.clip(np.searchsorted(centres, at) - 1, 0, len(centres) - 2)
    share = (at - centres[left]) / (centres[left + 1] - centres[left])
    return left, np.clip(share, 0.0, 1.0)


def _cell(at: Array, lines: Array) -> npt.NDArray[np.intp]:
    return np.clip(np.searchsorted(lines, at) - 1, 0, len(lines) - 2)


def strips_of(field: Array, box: Box, step_mm: float, levels: Array) -> Iterator[Strip]:
    """Yield strips of one colour, row by row.

    Parameters
    ----------
    field : temperatures of a raster over the box, shape (across, up); not a number where there is no metal
    box : corners of the raster
    step_mm : width and height of one place of the raster
    levels : rising edges between colours [°C]
    """
    (x0, y0), _ = box
    middles = np.concatenate([[levels[0]], (levels[:-1] + levels[1:]) / 2, [levels[-1]]])
    steps = np.where(np.isnan(field), -1, np.searchsorted(levels, field))
    for j in range(field.shape[1]):
        row = steps[:, j]
        ends = np.flatnonzero(np.diff(row)) + 1
        for start, stop in zip((0, *ends), (*ends, len(row)), strict=True):
            if row[start] >= 0:
                left, right = x0 + int(start) * step_mm, x0 + int(stop) * step_mm
                bottom = y0 + j * step_mm
                yield Strip(left, right, bottom, bottom + step_mm, float(middles[row[start]]))


def isotherm(field: Array, box: Box, step_mm: float, celsius: float) -> Iterator[tuple[Point, Point]]:
    """Yield the pieces of a line of one temperature through a raster (marching squares) [mm].

    Where a corner of a square holds no metal the line is broken off.
    """
    (x0, y0), _ = box
    above = field > celsius
    square = above[:-1, :-1] * 1 + above[1:, :-1] * 2 + above[1:, 1:] * 4 + above[:-1, 1:] * 8
    whole = ~(np.isnan(field[:-1, :-1]) | np.isnan(field[1:, :-1]) | np.isnan(field[1:, 1:]) | np.isnan(field[:-1, 1:]))
    for i, j in np.argwhere((square > 0) & (square < 15) & whole):
        corners = ((i, j), (i + 1, j), (i + 1, j + 1), (i, j + 1))
        crossed = []
        for (a, b), (c, d) in zip(corners, (*corners[1:], corners[0]), strict=True):
            one, other = field[a, b], field[c, d]
            if bool(one > celsius) != bool(other > celsius):
                share = (celsius - one) / (other - one)
                crossed.append((x0 + (a + share * (c - a) + 0.5) * step_mm, y0 + (b + share * (d - b) + 0.5) * step_mm))
        for n in range(0, len(crossed) - 1, 2):
            yield crossed[n], crossed[n + 1]


def raster(field: Array, lines: tuple[Array, Array], box: Box, step_mm: float) -> Array:
    """Return temperatures at the middles of even places over a box, shape (across, up)."""
    (x0, y0), (x1, y1) = box
    columns, rows = (max(round((b - a) / step_mm), 1) for a, b in ((x0, x1), (y0, y1)))
    xs, ys = (x0 + (np.arange(columns) + 0.5) * step_mm, y0 + (np.arange(rows) + 0.5) * step_mm)
    inside_x = (xs > lines[0][0]) & (xs < lines[0][-1])
    inside_y = (ys > lines[1][0]) & (ys < lines[1][-1])
    found = sampled(field, lines, list(xs), list(ys))
    return np.where(np.outer(inside_x, inside_y), found, np.nan)


def inside(outline: Sequence[Point], box: Box, step_mm: float, shape: tuple[int, int]) -> npt.NDArray[np.bool_]:
    """Return which places of a raster lie within an outline, by how often a line to the right crosses it."""
    (x0, y0), _ = box
    xs, ys = x0 + (np.arange(shape[0]) + 0.5) * step_mm, y0 + (np.arange(shape[1]) + 0.5) * step_mm
    found = np.zeros(shape, dtype=np.bool_)
    for (ax, ay), (bx, by) in zip(outline, (*outline[1:], outline[0]), strict=True):
        rows = np.flatnonzero((ay > ys) != (by > ys))
        if rows.size:
            crossing = ax + (ys[rows] - ay) / (by - ay) * (bx - ax)
            found[:, rows] ^= xs[:, None] < crossing[None, :]
    return found
