"""Cells that hold metal and what links them: two sets of lines through the grid, each a chain of neighbours.

A cell with little metal in it would follow the metal around it only slowly: after every step it is evened out with the
neighbour with which it shares most, its leader.
"""

from dataclasses import dataclass

import numpy as np
import numpy.typing as npt

from anlage.core.thermal.section.grid import Array

Whole = npt.NDArray[np.intp]
SLIVER = 0.10  # of a cell: with less metal it follows its leader


@dataclass(frozen=True)
class Chain:
    """Neighbours along one direction: cells in the order of its lines, open faces between, half widths of the cells."""

    order: Whole  # position along the chain -> cell
    place: Whole  # cell -> position along the chain
    faces: Array  # mm of open face times its weight, between one position and the next; 0 where a line ends
    half: Array  # mm, along the chain


@dataclass(frozen=True)
class System:
    """The cells that hold metal, numbered; `number` maps the grid to them, -1 where there is none."""

    number: Whole  # (columns, rows)
    volume: Array  # mm² times weight
    norm_area: Array  # of the whole cell, mm²
    leader: Whole  # whom a cell follows, itself where it holds enough
    led: Whole  # the cells that follow or lead others
    along_y: Chain
    along_z: Chain

    @property
    def count(self) -> int:
        """How many cells hold metal."""
        return int(self.volume.size)

    def gathered(self, values: Array) -> Array:
        """Return values on the grid for the cells that hold metal."""
        return np.asarray(values[self.number >= 0])

    def spread(self, values: Array, empty: float = np.nan) -> Array:
        """Return values of the cells that hold metal on the whole grid."""
        found = np.full(self.number.shape, empty)
        found[self.number >= 0] = values
        return found

    def evened(self, enthalpy: Array) -> Array:
        """Return enthalpies with every sliver as hot as its leader; what they hold together stays."""
        if not self.led.size:
            return enthalpy
        lead = self.leader[self.led]
        together = np.bincount(lead, weights=enthalpy[self.led], minlength=self.count)
        room = np.bincount(lead, weights=self.volume[self.led], minlength=self.count)
        found = enthalpy.copy()
        found[self.led] = together[lead] / room[lead] * self.volume[self.led]
        return found


@dataclass(frozen=True)
class Weights:
    """Radius over that of the outside, for a pipe: at the cells' rows, and at the lines between them; 1 for a plate."""

    cells: Array
    lines: Array


def system_of(
    metal: Array, kinds: Whole, faces: tuple[Array, Array], lines: tuple[Array, Array], weights: Weights
) -> System:
    """Return the cells that hold metal, with their links.

    Parameters
    ----------
    metal : area of metal in every cell of the grid [mm²]
    kinds : number of the metal of every cell; only cells of one metal are evened out
    faces : open length of every face across y and across z [mm]
    lines : of the grid, in y and in z [mm]
    weights : of rows and of the lines between them
    """
    widths, heights = np.diff(lines[0]), np.diff(lines[1])
    whole = widths[:, None] * heights[None, :]
    held = metal > 0
    number = np.full(metal.shape, -1, dtype=np.intp)
    number[held] = np.arange(np.count_nonzero(held))
    leader = number[np.unravel_index(_leaders(metal, kinds, whole, faces)[held], metal.shape)]
    led = np.flatnonzero(np.bincount(leader, minlength=leader.size)[leader] > 1)
    columns, rows = np.nonzero(held)
    along_y = _chain((rows, columns), (number, faces[0], weights.cells[None, :]), widths[columns] / 2)
    along_z = _chain((columns, rows), (number.T, faces[1].T, weights.lines[1:-1][:, None]), heights[rows] / 2)
    volume = (metal * weights.cells[None, :])[held]
    return System(number, volume, whole[held], leader, led, along_y, along_z)


def _leaders(metal: Array, kinds: Whole, whole: Array, faces: tuple[Array, Array]) -> Whole:
    """Return for every cell the cell that it follows, itself where it holds enough."""
    leader = np.arange(metal.size).reshape(metal.shape)
    slivers = np.argwhere((metal > 0) & (metal < SLIVER * whole))
    small = {(int(i), int(j)) for i, j in slivers}
    for i, j in sorted(small, key=lambda cell: metal[cell]):
        beside = [
            (faces[0][i, j], (i - 1, j)), (faces[0][i + 1, j], (i + 1, j)),
            (faces[1][i, j], (i, j - 1)), (faces[1][i, j + 1], (i, j + 1)),
        ]  # fmt: skip
        alike = [each for each in beside if each[0] > 0 and kinds[each[1]] == kinds[i, j]]
        if alike:
            best = max(alike, key=lambda each: (each[1] not in small, each[0]))
            at = int(leader[best[1]])
            while leader.flat[at] != at:
                at = int(leader.flat[at])
            leader[i, j] = at
    flat = leader.ravel()
    while not np.array_equal(flat[flat], flat):
        flat = flat[flat]
    return flat.reshape(metal.shape)


def _chain(places: tuple[Whole, Whole], grid: tuple[Whole, Array, Array], half: Array) -> Chain:
    """Return the chain along one direction.

    `places` are line and position of each cell; `grid` the numbers of cells as (position, line), the open faces between
    positions, and their weights.
    """
    line, position = places
    number, faces, weights = grid
    order = np.lexsort((position, line))
    place = np.empty_like(order)
    place[order] = np.arange(order.size)
    links = np.zeros(max(order.size - 1, 0))
    open_faces = np.broadcast_to(weights, faces[1:-1].shape) * faces[1:-1]
    linked = (open_faces > 0) & (number[:-1] >= 0) & (number[1:] >= 0)
    links[place[number[:-1][linked]]] = open_faces[linked]
    return Chain(order, place, links, half[order])
