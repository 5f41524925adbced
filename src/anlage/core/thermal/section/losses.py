"""What a hot surface gives off: radiation and natural convection, or a constant coefficient.

The efficiency k of a process already holds what the pool gives off, so nothing above the cap counts.
"""

from collections.abc import Iterable
from dataclasses import dataclass

import numpy as np
import numpy.typing as npt

from anlage.core.errors import InputError
from anlage.core.thermal.section.grid import Array

Whole = npt.NDArray[np.intp]

STEFAN_BOLTZMANN = 5.670374e-14  # W/mm²K⁴
KELVIN = 273.15
CAP_C = 1450.0
CONVECTION = 1e-6 / 0.3**0.25  # W/mm²K^1.25: a plate of 0.3 m, mean of up and down (Holman), M
EMISSIVITY = 0.8


@dataclass(frozen=True)
class Loss:
    """One surface: emissivity, convection c_n of q = c_n·ΔT^1.25 and a constant coefficient [W/mm²K].

    `cap_c` is the temperature above which a surface loses no more; `None` for no cap.
    """

    emissivity: float = EMISSIVITY
    convection: float = CONVECTION
    coefficient: float = 0.0
    cap_c: float | None = CAP_C

    @property
    def is_none(self) -> bool:
        """Whether it gives off nothing."""
        return self.emissivity == self.convection == self.coefficient == 0

    def flux(self, celsius: Array, ambient_c: float) -> tuple[Array, Array]:
        """Return what a surface gives off [W/mm²] and how that grows with its temperature [W/mm²K]."""
        top = np.inf if self.cap_c is None else self.cap_c
        hot = np.minimum(celsius, top)
        below = celsius < top
        rise = hot - ambient_c
        flux, slope = self.coefficient * rise, np.where(below, self.coefficient, 0.0)
        if self.emissivity:
            kelvin = hot + KELVIN
            cube = kelvin**3
            flux = flux + self.emissivity * STEFAN_BOLTZMANN * (cube * kelvin - (ambient_c + KELVIN) ** 4)
            slope = slope + np.where(below, 4 * self.emissivity * STEFAN_BOLTZMANN * cube, 0.0)
        if self.convection:
            quarter = np.abs(rise) ** 0.25
            flux = flux + self.convection * quarter * rise
            slope = slope + np.where(below, 1.25 * self.convection * quarter, 0.0)
        return flux, slope


NO_LOSS = Loss(0.0, 0.0, 0.0)


def require_loss(loss: Loss, where: str) -> None:
    """Refuse a surface that gives off less than nothing.

    Raises
    ------
    InputError : emissivity not between 0 and 1, another coefficient below 0
    """
    if not 0 <= loss.emissivity <= 1:
        raise InputError(f"{loss.emissivity:g} is no emissivity", where=f"{where}.emissivity", mend="state 0 to 1")
    if not (0 <= loss.convection < np.inf and 0 <= loss.coefficient < np.inf):
        raise InputError("is below 0", where=where, mend="state coefficients from 0 up")


@dataclass(frozen=True)
class Shedding:
    """Free surface by how it gives off heat: which cells have it, and how much of it [mm]."""

    parts: tuple[tuple[Loss, Whole, Array], ...]

    @classmethod
    def of(cls, parts: Iterable[tuple[Loss, Array]]) -> "Shedding":
        """Return the free surface from its length on every cell [mm]."""
        return cls(tuple((loss, np.flatnonzero(lengths), lengths[lengths != 0]) for loss, lengths in parts))

    def heat(self, celsius: Array, ambient_c: float) -> tuple[Array, Array]:
        """Return what every cell gives off [W/mm] and how that grows with its temperature [W/mm·K]."""
        heat, slope = np.zeros_like(celsius), np.zeros_like(celsius)
        for loss, cells, length in self.parts:
            flux, rising = loss.flux(celsius[cells], ambient_c)
            heat[cells] += length * flux
            slope[cells] += length * rising
        return heat, slope
