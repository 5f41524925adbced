"""Cooling time from 800 to 500 °C of unalloyed and low-alloy ferritic steel, as the standard works it out.

Glossary
--------
3D, thick : heat flows into the depth too; the thickness does not count
2D, thin : the plate is hot all through; the thickness counts
transition thickness d_t : where both give the same
shape factors F2, F3 : how a joint draws heat off, against a bead on a plate, thin and thick
image series : the line source on a plate of finite thickness, exact between thin and thick as well
"""

import math
from collections.abc import Mapping
from typing import Literal

from msgspec import Struct

from anlage.core.errors import InputError
from anlage.core.results import Source, require_above_zero
from anlage.core.toml_rows import rows_by_id

CLOSE = 1e-11  # of the logarithm of a time
HOTTEST_C = 500.0  # the formulas divide by what is left of it
TRANSITION = (0.6, 1.0)  # of the thickness over d_t·√(F2/F3): between thin and thick
Regime = Literal["2D", "3D"]

STANDARD = Source("t8/5", "EN 1011-2:2001 Annex D, from memory", "H")
SERIES = Source("t8/5 between 2D and 3D", "Carslaw and Jaeger 1959, with the constants of EN 1011-2 Annex D", "H")


class CoolingJoint(Struct, frozen=True, forbid_unknown_fields=True):
    """A joint by its shape factors; F2 is an interval where the standard leaves it open.

    `between` are the thicknesses over d_t between which the joint is in transition, where they are not the usual ones;
    `between_f2` is the lower F2 that conduction gives there.
    """

    id: str
    title: str
    f2: tuple[float, float]
    f3: float
    confidence: str
    source: str
    between: tuple[float, float] | None = None
    between_f2: float | None = None


class CoolingTime(Struct, frozen=True):
    """t8/5 [s] as an interval over the shape factor, where it lies between thin and thick, and by the image series.

    `low_s` and `high_s` are equal where the joint has one shape factor. `series_low_s` and `series_high_s` are `None`
    away from the transition. `shortest_s` is what hardness is judged by, `longest_s` what toughness is.
    """

    low_s: float
    high_s: float
    regimes: tuple[Regime, Regime]
    transition_thickness_mm: float
    series_low_s: float | None = None
    series_high_s: float | None = None

    @property
    def shortest_s(self) -> float:
        """The shorter of all readings: what hardens most."""
        return min(self.low_s, self.low_s if self.series_low_s is None else self.series_low_s)

    @property
    def longest_s(self) -> float:
        """The longer of all readings: what coarsens most."""
        return max(self.high_s, self.high_s if self.series_high_s is None else self.series_high_s)


def read_cooling_joints(text: str) -> Mapping[str, CoolingJoint]:
    """Return the joints written in `text` (TOML) by their id."""
    return rows_by_id(text, "joint", CoolingJoint, where="cooling.toml")


def cooling_time_thick(heat_input_kj_mm: float, *, preheat_c: float) -> float:
    """Return t8/5 of a bead on thick plate [s].

    Parameters
    ----------
    heat_input_kj_mm : Q with the efficiency k [kJ/mm]
    preheat_c : temperature of the plate before the pass, T0 [°C]

    Raises
    ------
    InputError : the heat is not above 0, or the plate is not below 500 °C

    Validity
    --------
    Unalloyed and low-alloy ferritic steel, T0 well below 500 °C, a long steady pass.

    Sources
    -------
    EN 1011-2:2001 Annex D, from memory, H.

    Examples
    --------
    >>> cooling_time_thick(1.6, preheat_c=120)
    11.33
    """
    require_above_zero(heat_input_kj_mm=heat_input_kj_mm)
    _require_cool(preheat_c)
    return (6700 - 5 * preheat_c) * heat_input_kj_mm * (1 / (500 - preheat_c) - 1 / (800 - preheat_c))


def cooling_time_thin(heat_input_kj_mm: float, *, thickness_mm: float, preheat_c: float) -> float:
    """Return t8/5 of a bead on thin plate [s].

    Parameters
    ----------
    heat_input_kj_mm : Q with the efficiency k [kJ/mm]
    thickness_mm : plate thickness d, the same on both sides [mm]
    preheat_c : temperature of the plate before the pass, T0 [°C]

    Raises
    ------
    InputError : heat or thickness is not above 0, or the plate is not below 500 °C

    Validity
    --------
    Unalloyed and low-alloy ferritic steel, T0 well below 500 °C, a long steady pass.

    Sources
    -------
    EN 1011-2:2001 Annex D, from memory, H.

    Examples
    --------
    >>> cooling_time_thin(1.6, thickness_mm=18, preheat_c=120)
    14.24
    """
    require_above_zero(heat_input_kj_mm=heat_input_kj_mm, thickness_mm=thickness_mm)
    _require_cool(preheat_c)
    spread = 1 / (500 - preheat_c) ** 2 - 1 / (800 - preheat_c) ** 2
    return (4300 - 4.3 * preheat_c) * 1e5 * (heat_input_kj_mm / thickness_mm) ** 2 * spread


def transition_thickness(heat_input_kj_mm: float, *, preheat_c: float) -> float:
    """Return the thickness at which thin and thick plate cool alike, without shape factors [mm].

    Parameters
    ----------
    heat_input_kj_mm : Q with the efficiency k [kJ/mm]
    preheat_c : temperature of the plate before the pass, T0 [°C]

    Raises
    ------
    InputError : the heat is not above 0, or the plate is not below 500 °C

    Validity
    --------
    As `cooling_time_thick` and `cooling_time_thin`, which it makes equal.

    Sources
    -------
    EN 1011-2:2001 Annex D, from memory, H.

    Examples
    --------
    >>> transition_thickness(1.6, preheat_c=120)
    20.18
    """
    require_above_zero(heat_input_kj_mm=heat_input_kj_mm)
    _require_cool(preheat_c)
    spread = 1 / (500 - preheat_c) + 1 / (800 - preheat_c)
    return math.sqrt((4300 - 4.3 * preheat_c) * 1e5 / (6700 - 5 * preheat_c) * heat_input_kj_mm * spread)


def cooling_time_series(
    heat_input_kj_mm: float, *, thickness_mm: float, preheat_c: float, f2: float = 1.0, f3: float = 1.0
) -> float:
    """Return t8/5 of a line source on a plate of finite thickness [s], thin, thick and between.

    Parameters
    ----------
    heat_input_kj_mm : Q with the efficiency k [kJ/mm]
    thickness_mm : plate thickness d [mm]
    preheat_c : temperature of the plate before the pass, T0 [°C]
    f2, f3 : shape factors; they enter so that thin and thick come out as the standard has them

    Raises
    ------
    InputError : a value is not above 0, or the plate is not below 500 °C

    Validity
    --------
    As the standard's formulas, whose effective conductivity and heat capacity it takes.

    Sources
    -------
    Carslaw and Jaeger 1959 with the constants of EN 1011-2:2001 Annex D, H.

    Examples
    --------
    >>> cooling_time_series(1.6, thickness_mm=18, preheat_c=120)
    12.55
    >>> cooling_time_series(1.6, thickness_mm=60, preheat_c=120)
    11.33
    """
    require_above_zero(heat_input_kj_mm=heat_input_kj_mm, thickness_mm=thickness_mm, f2=f2, f3=f3)
    _require_cool(preheat_c)
    conductivity = 1e3 / (2 * math.pi * (6700 - 5 * preheat_c))  # W/mm·K
    product = 1e6 / (4 * math.pi * (4300 - 4.3 * preheat_c) * 1e5)  # conductivity times ρc
    diffusivity = conductivity**2 / product
    heat, depth = 1e3 * f3 * heat_input_kj_mm, thickness_mm * f3 / math.sqrt(f2)
    rise_at_1s = heat / (2 * math.pi * conductivity)  # K·s, without images
    times = [_time_to(rise, rise_at_1s, depth**2 / diffusivity) for rise in (800 - preheat_c, 500 - preheat_c)]
    return times[1] - times[0]


def cooling_time(heat_input_kj_mm: float, *, thickness_mm: float, preheat_c: float, joint: CoolingJoint) -> CoolingTime:
    """Return t8/5 of a pass in a joint, with both ends of its shape factor and the value between thin and thick.

    Parameters
    ----------
    heat_input_kj_mm : Q with the efficiency k [kJ/mm]
    thickness_mm : plate thickness d [mm]
    preheat_c : temperature of the plate before the pass, T0 [°C]
    joint : row of `data/metal/cooling.toml`

    Raises
    ------
    InputError : a value is not above 0, or the plate is not below 500 °C

    Validity
    --------
    Unalloyed and low-alloy ferritic steel, T0 well below 500 °C, equal thickness on both sides, a long steady pass.

    Sources
    -------
    EN 1011-2:2001 Annex D; between thin and thick the image series of Carslaw and Jaeger 1959, H.

    Examples
    --------
    >>> from anlage.data.metal_tables import cooling_joints
    >>> found = cooling_time(1.2, thickness_mm=12, preheat_c=120, joint=cooling_joints()["tee"])
    >>> found.low_s, found.high_s, found.series_low_s, found.series_high_s
    (8.11, 12.07, 6.74, 10.27)
    """
    thick = joint.f3 * cooling_time_thick(heat_input_kj_mm, preheat_c=preheat_c)
    thin = cooling_time_thin(heat_input_kj_mm, thickness_mm=thickness_mm, preheat_c=preheat_c)
    d_t = transition_thickness(heat_input_kj_mm, preheat_c=preheat_c)
    times = [max(thick, f2 * thin) for f2 in joint.f2]
    regimes: list[Regime] = ["3D" if thick >= f2 * thin else "2D" for f2 in joint.f2]
    series: tuple[float | None, float | None] = (None, None)
    if _is_between(thickness_mm / d_t, joint):
        lowest = joint.f2[0] if joint.between_f2 is None else joint.between_f2
        series = tuple(
            cooling_time_series(heat_input_kj_mm, thickness_mm=thickness_mm, preheat_c=preheat_c, f2=f2, f3=joint.f3)
            for f2 in (lowest, joint.f2[1])
        )  # type: ignore[assignment]
    return CoolingTime(times[0], times[1], (regimes[0], regimes[1]), d_t, *series)


def _is_between(share: float, joint: CoolingJoint) -> bool:
    if joint.between is not None:
        return joint.between[0] < share < joint.between[1]
    return any(TRANSITION[0] < share / math.sqrt(f2 / joint.f3) < TRANSITION[1] for f2 in joint.f2)


def _time_to(rise: float, rise_at_1s: float, spread_s: float) -> float:
    """Return when the surface has cooled to a `rise` [K]: the one root of rise_at_1s/t·θ(spread/t) = rise."""
    low = rise_at_1s / rise  # thick plate: images only add
    high = 4 * max(low, math.pi * low**2 / spread_s)

    def over(log_time: float) -> float:
        time = math.exp(log_time)
        return math.log(rise_at_1s / (time * rise) * _images(spread_s / time))

    x, y = math.log(low), math.log(high)
    at_x, at_y, before = over(x), over(y), 0
    for _ in range(60):  # false position in logarithms, where the curve is nearly straight
        if at_x <= 0 or y - x < CLOSE:
            break
        z = x + (y - x) * at_x / (at_x - at_y)
        at_z = over(z)
        if abs(at_z) < CLOSE:
            return math.exp(z)
        if at_z > 0:
            x, at_x, at_y, before = z, at_z, at_y / 2 if before > 0 else at_y, 1
        else:
            y, at_y, at_x, before = z, at_z, at_x / 2 if before < 0 else at_x, -1
    return math.exp(x)


def _images(x: float) -> float:
    """Return 1 + 2·Σ exp(-k²x), by whichever of its two series ends soon."""
    if x < math.pi:
        return math.sqrt(math.pi / x) * _images_far(math.pi**2 / x)
    return _images_far(x)


def _images_far(x: float) -> float:
    return 1 + 2 * sum(math.exp(-k * k * x) for k in range(1, 5))


def _require_cool(preheat_c: float) -> None:
    if not preheat_c < HOTTEST_C:
        raise InputError(f"{preheat_c:g} °C is no preheat", where="preheat", mend="state a temperature below 500 °C")
