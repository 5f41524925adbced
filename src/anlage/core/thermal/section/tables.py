"""A metal as the solver knows it: temperature, heat capacity and conductivity over enthalpy, by one look-up."""

from dataclasses import dataclass

import numpy as np

from anlage.core.errors import InputError
from anlage.core.thermal.section.grid import Array

COLDEST_C, HOTTEST_C = -50.0, 3000.0
INTERVALS = 4096
SMOOTHED_K = 25.0  # to either side: rounds the peak and the latent step, and saves a fifth of the steps
STEP_K = 0.125


@dataclass(frozen=True)
class HeatTable:
    """One metal, in even intervals of enthalpy [J/mm³] from 20 °C; beyond its ends they go straight on."""

    name: str
    least: float  # enthalpy at the first point
    step: float  # of enthalpy
    temperature: Array  # at the start of each interval, °C
    slope: Array  # K per J/mm³ in each interval
    conductivity: Array  # W/mm·K in each interval
    solidus_c: float

    def temperature_at(self, enthalpy: float) -> float:
        """Return the temperature of an enthalpy [°C]."""
        at = min(max(int((enthalpy - self.least) // self.step), 0), INTERVALS - 1)
        return float(self.temperature[at] + (enthalpy - self.least - at * self.step) * self.slope[at])

    def enthalpy_at(self, celsius: float) -> float:
        """Return the enthalpy of a temperature [J/mm³]."""
        at = int(np.clip(np.searchsorted(self.temperature, celsius, side="right") - 1, 0, INTERVALS - 1))
        return float(self.least + at * self.step + (celsius - self.temperature[at]) / self.slope[at])

    def conductivity_at(self, celsius: float) -> float:
        """Return the conductivity at a temperature [W/mm·K]."""
        at = int(np.clip(np.searchsorted(self.temperature, celsius, side="right") - 1, 0, INTERVALS - 1))
        return float(self.conductivity[at])

    def diffusivity_at(self, celsius: float) -> float:
        """Return conductivity over heat capacity at a temperature [mm²/s]."""
        at = int(np.clip(np.searchsorted(self.temperature, celsius, side="right") - 1, 0, INTERVALS - 1))
        return float(self.conductivity[at] * self.slope[at])


@dataclass(frozen=True)
class Tables:
    """Several metals beside each other, looked up by the number of each cell's metal."""

    metals: tuple[HeatTable, ...]
    least: Array
    per_step: Array
    temperature: Array
    slope: Array
    conductivity: Array

    @classmethod
    def of(cls, metals: tuple[HeatTable, ...]) -> "Tables":
        """Return the tables of metals, numbered as given."""
        return cls(
            metals,
            np.array([metal.least for metal in metals]),
            np.array([1 / metal.step for metal in metals]),
            np.concatenate([metal.temperature for metal in metals]),
            np.concatenate([metal.slope for metal in metals]),
            np.concatenate([metal.conductivity for metal in metals]),
        )


def table_of(
    name: str, celsius: Array, enthalpy: Array, conductivity: Array, *, solidus_c: float = np.inf
) -> HeatTable:
    """Return the table of a metal from enthalpy [J/mm³] and conductivity [W/mm·K] over temperature [°C].

    Straight between the points and beyond them.

    Raises
    ------
    InputError : fewer than two points, or temperature or enthalpy that does not rise
    """
    rises = celsius.size > 1 and bool(np.all(np.diff(celsius) > 0) and np.all(np.diff(enthalpy) > 0))
    if not (rises and np.all(np.isfinite(enthalpy)) and np.all(conductivity > 0)):
        text = "its points do not rise, or it does not conduct"
        raise InputError(text, where=f"metal {name}", mend="state rising temperatures and enthalpies")
    ends = np.array([COLDEST_C, HOTTEST_C])
    least, most = _straight(ends, celsius, enthalpy)
    levels = np.linspace(least, most, INTERVALS + 1)
    temperature = _straight(levels, enthalpy, celsius)
    middle = (temperature[:-1] + temperature[1:]) / 2
    step = (most - least) / INTERVALS
    return HeatTable(
        name, float(least), float(step), temperature[:-1], np.diff(temperature) / step,
        np.maximum(_straight(middle, celsius, conductivity), np.min(conductivity) / 2), solidus_c,
    )  # fmt: skip


def constant_table(name: str, *, conductivity_w_mm_k: float, heat_capacity_j_mm3_k: float) -> HeatTable:
    """Return the table of a metal with constant properties.

    Raises
    ------
    InputError : a value is not above 0
    """
    if not (0 < conductivity_w_mm_k < np.inf and 0 < heat_capacity_j_mm3_k < np.inf):
        raise InputError("is not above 0", where=f"metal {name}", mend="state conductivity and heat capacity above 0")
    celsius = np.array([COLDEST_C, HOTTEST_C])
    return table_of(name, celsius, heat_capacity_j_mm3_k * (celsius - 20), np.full(2, conductivity_w_mm_k))


def smoothed(celsius: Array, enthalpy: Array) -> Array:
    """Return the running mean of an enthalpy curve over 25 K to either side, straight on at both ends."""
    fine = np.arange(celsius[0] - SMOOTHED_K, celsius[-1] + SMOOTHED_K + STEP_K / 2, STEP_K)
    values = _straight(fine, celsius, enthalpy)
    total = np.concatenate([[0.0], np.cumsum((values[1:] + values[:-1]) / 2 * STEP_K)])
    high, low = (np.interp(celsius + side * SMOOTHED_K, fine, total) for side in (1, -1))
    return np.asarray((high - low) / (2 * SMOOTHED_K))


def _straight(x: Array, xs: Array, ys: Array) -> Array:
    """Return values between points, straight on beyond the first and the last."""
    found = np.interp(x, xs, ys)
    low, high = x < xs[0], x > xs[-1]
    found = np.where(low, ys[0] + (x - xs[0]) * (ys[1] - ys[0]) / (xs[1] - xs[0]), found)
    return np.where(high, ys[-1] + (x - xs[-1]) * (ys[-1] - ys[-2]) / (xs[-1] - xs[-2]), found)
