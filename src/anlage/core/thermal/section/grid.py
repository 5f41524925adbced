"""Lines of a grid: even and fine where something happens, growing outward to the real edge."""

import math
from collections.abc import Iterable, Sequence
from itertools import pairwise

import numpy as np
import numpy.typing as npt

from anlage.core.errors import InputError

Array = npt.NDArray[np.float64]

LEAST_THROUGH = 4  # cells through a plate, whatever its thickness
FINEST_MM, MOST_LINES = 0.02, 2000
SAME = 1e-6  # mm: lines closer than this are one


def grid_lines(
    marks: Iterable[float], *, core: tuple[float, float], fine_mm: float, growth: float, least: int = 1
) -> Array:
    """Return lines through every mark: cells of `fine_mm` at most within the core, growing by `growth` away from it.

    Parameters
    ----------
    marks : where a line must lie; the first and the last of them are the ends of the grid [mm]
    core : from and to [mm]
    fine_mm : greatest width of a cell in the core [mm]
    growth : of a cell over its neighbour nearer to the core, 1 or more
    least : fewest cells in the longest part between two marks within the core

    Raises
    ------
    InputError : no two marks, a width or growth that makes no grid
    """
    ordered = _apart(sorted(marks))
    if len(ordered) < 2:
        raise InputError("has no extent", where="grid", mend="state areas that have one")
    if not (FINEST_MM <= fine_mm < math.inf and 1 <= growth < math.inf):
        raise InputError("makes no grid", where="grid", mend=f"state cells of {FINEST_MM:g} mm or more, growth from 1")
    low, high = max(core[0], ordered[0]), min(core[1], ordered[-1])
    if not low < high:
        low, high = ordered[0], ordered[-1]
    inner = _apart(sorted([low, high, *(mark for mark in ordered if low < mark < high)]))
    lines = list(inner[:1])
    longest = max(end - start for start, end in pairwise(inner))
    for start, end in pairwise(inner):
        count = max(math.ceil((end - start) / fine_mm - 1e-9), least if end - start == longest else 1)
        lines += [start + (end - start) * n / count for n in range(1, count + 1)]
    width_low, width_high = lines[1] - lines[0], lines[-1] - lines[-2]
    outward = _growing(high, [m for m in ordered if m > high + SAME], width_high, growth)
    inward = _growing(-low, [-m for m in reversed(ordered) if m < low - SAME], width_low, growth)
    found = np.array([*(-line for line in reversed(inward)), *lines, *outward], dtype=np.float64)
    if found.size > MOST_LINES:
        raise InputError(f"{found.size} lines", where="grid", mend="state larger cells")
    return found


def _apart(values: Sequence[float]) -> list[float]:
    found: list[float] = []
    for value in values:
        if not found or value - found[-1] > SAME:
            found.append(value)
    return found


def _growing(start: float, marks: Sequence[float], width: float, growth: float) -> list[float]:
    """Return lines from `start` through every mark, each cell wider than the one before."""
    lines: list[float] = []
    for mark in marks:
        length = mark - start
        widths: list[float] = []
        while sum(widths) < length * (1 - 1e-9) and len(widths) < MOST_LINES:
            width *= growth
            widths.append(width)
        if len(widths) > 1 and sum(widths) - length > widths[-1] / 2:
            widths.pop()
        scale = length / sum(widths)
        for each in widths[:-1]:
            start += each * scale
            lines.append(start)
        width = widths[-1] * scale
        start = mark
        lines.append(mark)
    return lines
