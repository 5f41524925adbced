"""One step of time: two stages of a linearly implicit method, a chain of cells at a time in each direction.

The method is of second order whatever stands in for the derivative, so neither iteration nor an exact solve is needed;
it is not damped enough to be run without its error control. What leaves is carried as further components of the same
method, so that the books close to rounding.
"""

import math
from dataclasses import dataclass

import numpy as np
from scipy.linalg.lapack import dpttrf, dpttrs  # type: ignore[import-untyped]

from anlage.core.errors import InputError
from anlage.core.thermal.section.grid import Array
from anlage.core.thermal.section.losses import Shedding
from anlage.core.thermal.section.system import System, Whole
from anlage.core.thermal.section.tables import INTERVALS, Tables

GAMMA = 1 - 1 / math.sqrt(2)
NORM_AREA = 100.0  # mm²: over which the error is weighed, whatever the grid and the plate


@dataclass(frozen=True)
class Tolerance:
    """How far a step may be off: kelvin, and share of the rise; or a fixed step [s]."""

    absolute_k: float = 2.0
    relative: float = 0.01
    fixed_step_s: float | None = None


@dataclass(frozen=True)
class Medium:
    """What does not change from step to step between two switches."""

    system: System
    tables: Tables
    metal: Whole  # number of each cell's metal
    shedding: Shedding
    source: Array  # W/mm into each cell
    ambient_c: float

    def state(self, enthalpy: Array) -> "Found":
        """Return temperature, heat capacity and conductivity of every cell from its enthalpy [J/mm]."""
        tables, metal = self.tables, self.metal
        density = enthalpy / self.system.volume
        offset = (density - tables.least[metal]) * tables.per_step[metal]
        at = np.clip(offset.astype(np.intp), 0, INTERVALS - 1)
        flat = at + metal * INTERVALS
        slope = tables.slope[flat]
        celsius = tables.temperature[flat] + (offset - at) / tables.per_step[metal] * slope
        return Found(celsius, self.system.volume / slope, tables.conductivity[flat])


@dataclass(frozen=True)
class Found:
    """Temperatures [°C], heat capacities of the cells [J/mm·K] and conductivities [W/mm·K]."""

    celsius: Array
    capacity: Array
    conductivity: Array


@dataclass(frozen=True)
class Books:
    """Where heat went so far [J/mm]."""

    supplied: float = 0.0
    lost: float = 0.0
    along: float = 0.0
    lost_trapezium: float = 0.0


@dataclass(frozen=True)
class Stepped:
    """A step as it was taken: the new enthalpies, what left meanwhile [J/mm], and how far off it may be."""

    enthalpy: Array
    lost: float
    along: float
    error: float
    given_off: float  # at its start, W/mm


@dataclass(frozen=True)
class Sink:
    """What leaves along the seam: κ [1/s] of the enthalpy above that of the plate beyond [J/mm³]."""

    share: float = 0.0
    beyond: Array | float = 0.0


def step(medium: Medium, enthalpy: Array, here: Found, dt: float, told: tuple[Sink, Tolerance]) -> Stepped:
    """Return the state after a step of `dt` seconds, with the error that its second stage shows.

    Parameters
    ----------
    medium : what does not change from step to step
    enthalpy : of every cell at the start [J/mm]
    here : what `medium.state` finds for it
    dt : [s]
    told : what leaves along the seam, and how far off a step may be
    """
    system, (sink, tolerance) = medium.system, told
    conduct = _Conduction(system, here)
    shed, slope = medium.shedding.heat(here.celsius, medium.ambient_c)
    leaves = sink.share * (enthalpy - system.volume * sink.beyond)
    implicit = slope + sink.share * here.capacity
    solve = _Factors(system, conduct, here.capacity, GAMMA * dt, implicit)
    x1, m1 = solve(conduct.flow(here.celsius) - shed - leaves + medium.source)
    k1 = here.capacity * m1
    between = enthalpy + dt * k1
    there = medium.state(between)
    shed2, _ = medium.shedding.heat(there.celsius, medium.ambient_c)
    leaves2 = sink.share * (between - system.volume * sink.beyond)
    flow2 = _Conduction(system, there).flow(there.celsius)
    x2, m2 = solve(flow2 - shed2 - leaves2 + medium.source - 2 * k1)
    k2 = here.capacity * m2
    reach = GAMMA * dt
    lost1 = float(shed.sum() + reach * (slope @ x1))
    lost2 = float(shed2.sum() - 2 * lost1 + reach * (slope @ x2))
    lead = sink.share * here.capacity
    along1 = float(leaves.sum() + reach * (lead @ x1))
    along2 = float(leaves2.sum() - 2 * along1 + reach * (lead @ x2))
    error = dt * (m1 + m2) / 2
    allowed = tolerance.absolute_k + tolerance.relative * np.abs(here.celsius - medium.ambient_c)
    weighed = float((system.norm_area * (error / allowed) ** 2).sum() / NORM_AREA)
    return Stepped(
        enthalpy + dt * (1.5 * k1 + 0.5 * k2),
        dt * (1.5 * lost1 + 0.5 * lost2),
        dt * (1.5 * along1 + 0.5 * along2),
        math.sqrt(weighed),
        float(shed.sum()),
    )


class _Conduction:
    """Conductances between neighbours in both directions [W/mm·K], from half the resistance of each cell."""

    def __init__(self, system: System, found: Found) -> None:
        self._system = system
        self.by_y, self.by_z = (
            chain.faces / _resistance(chain.half / found.conductivity[chain.order])
            for chain in (system.along_y, system.along_z)
        )

    def flow(self, celsius: Array) -> Array:
        """Return what flows into every cell [W/mm]."""
        total = np.zeros_like(celsius)
        for chain, conductance in ((self._system.along_y, self.by_y), (self._system.along_z, self.by_z)):
            flow = conductance * np.diff(celsius[chain.order])
            into = np.zeros_like(celsius)
            into[:-1] = flow
            into[1:] -= flow
            total += into[chain.place]
        return total


def _resistance(half: Array) -> Array:
    return half[:-1] + half[1:]


class _Factors:
    """The two tridiagonal matrices of a step, factored once for both of its stages."""

    def __init__(self, system: System, conduct: _Conduction, capacity: Array, reach: float, implicit: Array) -> None:
        self._system, self._capacity = system, capacity
        z = system.along_z.order
        self._z = _factored(capacity[z] + reach * implicit[z], reach * conduct.by_z)
        self._y = _factored(capacity[system.along_y.order], reach * conduct.by_y)

    def __call__(self, right: Array) -> tuple[Array, Array]:
        """Return the solutions of the first and of both factors [K/s]."""
        first = _solved(self._z, right[self._system.along_z.order])[self._system.along_z.place]
        second = _solved(self._y, (self._capacity * first)[self._system.along_y.order])
        return first, second[self._system.along_y.place]


def _factored(diagonal: Array, links: Array) -> tuple[Array, Array]:
    diagonal = diagonal.copy()
    diagonal[:-1] += links
    diagonal[1:] += links
    if diagonal.size == 1:
        return diagonal, links
    d, e, fault = dpttrf(diagonal, -links)
    if fault:
        raise InputError("cannot be stepped", where="section", mend="state positive conductivities and heat capacities")
    return d, e


def _solved(factors: tuple[Array, Array], right: Array) -> Array:
    if right.size == 1:
        return np.asarray(right / factors[0])
    found, _ = dpttrs(*factors, right)
    return np.asarray(found)
