"""Hydrogen leaving a plate: how fast it wanders, and how much is left after a hold."""

import math

from anlage.core.errors import InputError
from anlage.core.results import require_above_zero

GAS_CONSTANT = 8.314  # J/mol·K
ZERO_C = -273.15
TURN_C = 200.0  # °C: below, traps hold it
SLOW = (1.2e-5, 32700.0)  # D0 [m²/s] and E [J/mol] below 200 °C
FAST = (1.4e-7, 13400.0)  # above


def diffusivity(temperature_c: float) -> float:
    """Return the diffusivity of hydrogen in ferritic steel [mm²/s].

    Parameters
    ----------
    temperature_c : [°C]

    Raises
    ------
    InputError : not above absolute zero

    Validity
    --------
    20 to 350 °C; below 200 °C real steels lie a factor of 10 to 100 to either side.

    Sources
    -------
    Johnson and Hill 1960, from memory, M.

    Examples
    --------
    >>> round(diffusivity(250), 7), round(diffusivity(20), 7)
    (0.0064289, 1.79e-05)
    """
    kelvin = temperature_c - ZERO_C
    if not kelvin > 0:
        raise InputError(f"{temperature_c:g} °C does not exist", where="temperature", mend="state a temperature")
    d0, energy = SLOW if temperature_c < TURN_C else FAST
    return 1e6 * d0 * math.exp(-energy / (GAS_CONSTANT * kelvin))


def hydrogen_left(thickness_mm: float, *, temperature_c: float, hours: float) -> float:
    """Return the share of hydrogen that a plate still holds after a time, losing it from both faces.

    Parameters
    ----------
    thickness_mm : of the plate h [mm]
    temperature_c : of the hold [°C]
    hours : of the hold [h]; 0 or more

    Raises
    ------
    InputError : the thickness is not above 0, or the time below 0

    Validity
    --------
    Hydrogen spread evenly at the start; as `diffusivity`.

    Sources
    -------
    Crank 1975, slab losing from both faces, H.

    Examples
    --------
    >>> hydrogen_left(40, temperature_c=250, hours=4)
    0.4584
    """
    require_above_zero(thickness_mm=thickness_mm)
    if not 0 <= hours < math.inf:
        raise InputError(f"{hours:g} h is no time", where="time", mend="state hours from 0 up")
    age = math.pi**2 * diffusivity(temperature_c) * 3600 * hours / thickness_mm**2
    if age < 0.2:  # the other series: early, only the faces have lost
        return 1 - 4 / math.pi * math.sqrt(age / math.pi)
    return 8 / math.pi**2 * sum(math.exp(-((2 * n + 1) ** 2) * age) / (2 * n + 1) ** 2 for n in range(30))


def hold_time(thickness_mm: float, *, temperature_c: float, left: float) -> float:
    """Return how long a plate must be held until a share of its hydrogen is left [h].

    Parameters
    ----------
    thickness_mm : of the plate h [mm]
    temperature_c : of the hold [°C]
    left : share that may be left, above 0 and below 0.7

    Raises
    ------
    InputError : the thickness is not above 0, or the share out of its range

    Validity
    --------
    Long times, a share below 0.7; as `diffusivity`.

    Sources
    -------
    Crank 1975, first term of the slab, H.

    Examples
    --------
    >>> hold_time(40, temperature_c=250, left=0.2)
    9.80
    """
    require_above_zero(thickness_mm=thickness_mm)
    if not 0 < left < 0.7:
        raise InputError(f"{left:g} is no share left", where="left", mend="state a share above 0 and below 0.7")
    scale = thickness_mm**2 / (math.pi**2 * diffusivity(temperature_c))
    return scale * math.log(8 / (math.pi**2 * left)) / 3600
