"""Heat tables of real metals, from their heat capacity, conductivity and latent heat over temperature."""

from collections.abc import Mapping
from typing import Literal

import numpy as np
from msgspec import Struct

from anlage.core.errors import UnknownNameError
from anlage.core.thermal.section.grid import Array
from anlage.core.thermal.section.tables import HeatTable, smoothed, table_of
from anlage.core.toml_rows import rows_by_id

FROM_C, TO_C, STEP_K = -100.0, 3100.0, 0.125
COLD_C = 20.0  # below, heat capacity stays what it is here
COLDEST_C = -30.0  # so far down the formulas go on, that rounding finds no corner at 20 °C


class MetalHeat(Struct, frozen=True, forbid_unknown_fields=True, kw_only=True):
    """A row of `data/metal/heat_tables.toml`: properties of one metal, with source and confidence."""

    id: str
    names: tuple[str, ...]
    families: tuple[str, ...]
    density: float
    latent: float
    melting: tuple[float, float]
    emissivity: tuple[float, float, float]
    source: str
    confidence: str
    capacity_curve: Literal["", "en1993"] = ""
    capacity: tuple[tuple[float, float, float, float, float], ...] = ()
    capacity_points: tuple[tuple[float, float], ...] = ()
    conductivity: tuple[tuple[float, float, float], ...] = ()
    conductivity_points: tuple[tuple[float, float], ...] = ()


def read_metals(text: str) -> Mapping[str, MetalHeat]:
    """Return the metals written in `text` (TOML) by their id."""
    return rows_by_id(text, "metal", MetalHeat, where="heat_tables.toml")


def metal_named(name: str, metals: Mapping[str, MetalHeat]) -> MetalHeat:
    """Return the metal of a name, a family or an id; capitals, blanks and hyphens do not count.

    Raises
    ------
    UnknownNameError : none has it
    """
    wanted = _bare(name)
    for metal in metals.values():
        if wanted in map(_bare, (metal.id, *metal.names, *metal.families)):
            return metal
    raise UnknownNameError(name, metals, where="metal")


def heat_table(metal: MetalHeat, *, smooth: bool = True) -> HeatTable:
    """Return the table of a metal that the solver works with.

    Parameters
    ----------
    metal : row of `data/metal/heat_tables.toml`
    smooth : whether peak and latent heat are rounded over 25 K to either side; changes a total time by 0.01 %
    """
    celsius = np.arange(FROM_C, TO_C + STEP_K / 2, STEP_K)
    enthalpy = enthalpy_curve(metal, celsius)
    if smooth:
        enthalpy = smoothed(celsius, enthalpy)
    at, slope = np.interp(COLD_C, celsius, enthalpy), metal.density * 1e-9 * capacity_curve(metal, np.array([COLD_C]))
    enthalpy = np.where(celsius < COLD_C, at + slope * (celsius - COLD_C), enthalpy)
    return table_of(metal.id, celsius, enthalpy, conductivity_curve(metal, celsius), solidus_c=metal.melting[0])


def enthalpy_curve(metal: MetalHeat, celsius: Array) -> Array:
    """Return the enthalpy over even temperatures [J/mm³], 0 at 20 °C, latent heat included.

    Validity
    --------
    Above 20 °C; above the last row straight on.

    Sources
    -------
    As the row says.

    Examples
    --------
    >>> from anlage.data.heat_tables import heat_metals
    >>> even = np.arange(-100, 3100.01, 0.125)
    >>> round(float(np.interp(485.0, even, enthalpy_curve(heat_metals()["carbon-steel"], even))), 3)
    2.001
    """
    middle = (celsius[:-1] + celsius[1:]) / 2
    ends, middles = capacity_curve(metal, celsius), capacity_curve(metal, middle)
    pieces = (ends[:-1] + 4 * middles + ends[1:]) / 6 * np.diff(celsius)
    heat = np.concatenate([[0.0], np.cumsum(pieces)])
    heat -= np.interp(COLD_C, celsius, heat)
    solidus, liquidus = metal.melting
    melted = np.clip((celsius - solidus) / (liquidus - solidus), 0, 1)
    return np.asarray((heat + 1e3 * metal.latent * melted) * metal.density * 1e-9)


def capacity_curve(metal: MetalHeat, celsius: Array) -> Array:
    """Return the heat capacity without latent heat over temperatures [J/kg·K]."""
    t = np.maximum(celsius, COLDEST_C)
    if metal.capacity_curve == "en1993":
        return _en1993(t)
    if metal.capacity_points:
        xs, ys = (np.array(each) for each in zip(*metal.capacity_points, strict=True))
        beyond = ys[-1] + (t - xs[-1]) * (ys[-1] - ys[-2]) / (xs[-1] - xs[-2])
        return np.asarray(np.where(t > xs[-1], beyond, np.interp(t, xs, ys)))
    found = np.zeros_like(t)
    for start, a, b, c, d in metal.capacity:
        found = np.where(t >= start, a + b * t + c * t**2 + d * t**3, found)
    return found


def conductivity_curve(metal: MetalHeat, celsius: Array) -> Array:
    """Return the conductivity over temperatures [W/mm·K]."""
    if metal.conductivity_points:
        xs, ys = (np.array(each) for each in zip(*metal.conductivity_points, strict=True))
        return np.asarray(np.interp(celsius, xs, ys) / 1000)
    found = np.full_like(celsius, metal.conductivity[0][1])
    for start, a, b in metal.conductivity:
        found = np.where(celsius >= start, a + b * celsius, found)
    return np.asarray(found / 1000)


def _en1993(t: Array) -> Array:
    """Return the heat capacity of carbon steel by EN 1993-1-2 [J/kg·K], from 20 °C up."""
    low = 425 + 0.773 * t - 1.69e-3 * t**2 + 2.22e-6 * t**3
    before = 666 + 13002 / np.maximum(738 - t, 3.0)
    after = 545 + 17820 / np.maximum(t - 731, 4.0)
    return np.asarray(np.where(t < 600, low, np.where(t < 735, before, np.where(t < 900, after, 650.0))))


def _bare(name: str) -> str:
    return "".join(filter(str.isalnum, name)).casefold()
