"""Places that are read: a probe between the centres of cells that hold metal."""

from dataclasses import dataclass

import numpy as np

from anlage.core.thermal.section.grid import Array
from anlage.core.thermal.section.system import System

BESIDE_MM = 1e-3  # so far off the outermost line a place still lies on it


@dataclass(frozen=True)
class Reading:
    """Which cells a probe reads, with what weight, and the place that this makes; no cells while there is no metal."""

    cells: tuple[int, ...]
    weights: tuple[float, ...]
    at_mm: tuple[float, float] | None

    def of(self, celsius: Array) -> float:
        """Return the temperature read [°C]; not a number while there is no metal."""
        if not self.cells:
            return float("nan")
        return float(sum(w * celsius[cell] for cell, w in zip(self.cells, self.weights, strict=True)))


def reading_of(place: tuple[float, float], system: System, lines: tuple[Array, Array]) -> Reading:
    """Return how a place is read: straight between the centres of the cells round it, those without metal left out.

    Beyond the last centre its value. A place off the grid, or whose four cells hold no metal, reads none.
    """
    if not all(each[0] - BESIDE_MM <= value <= each[-1] + BESIDE_MM for value, each in zip(place, lines, strict=True)):
        return Reading((), (), None)
    centres = [(each[:-1] + each[1:]) / 2 for each in lines]
    (columns, over), (rows, up) = (_between(value, each) for value, each in zip(place, centres, strict=True))
    total, cells, weights, at = 0.0, [], [], np.zeros(2)
    found: dict[int, float] = {}
    for i, share_y in zip(columns, (1 - over, over), strict=True):
        for j, share_z in zip(rows, (1 - up, up), strict=True):
            owner, weight = int(system.number[i, j]), share_y * share_z
            if owner >= 0 and weight > 0:
                found[owner] = found.get(owner, 0.0) + weight
                at += weight * np.array([centres[0][i], centres[1][j]])
                total += weight
    if not total > 0:
        return Reading((), (), None)
    cells, weights = list(found), [weight / total for weight in found.values()]
    return Reading(tuple(cells), tuple(weights), (float(at[0] / total), float(at[1] / total)))


def _between(value: float, centres: Array) -> tuple[tuple[int, int], float]:
    """Return the two cells whose centres a value lies between, and how far it is from the first to the second."""
    at = int(np.searchsorted(centres, value)) - 1
    if at < 0:
        return (0, 0), 0.0
    if at >= centres.size - 1:
        return (centres.size - 1, centres.size - 1), 0.0
    return (at, at + 1), float((value - centres[at]) / (centres[at + 1] - centres[at]))
