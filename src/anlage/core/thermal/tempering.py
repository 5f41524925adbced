"""Heat treatment after welding: what hold and ramps add up to, and how fast a code lets it be heated and cooled."""

import math
from collections.abc import Sequence

from msgspec import Struct

from anlage.core.errors import InputError
from anlage.core.results import require_above_zero

ZERO_C = -273.15
CONSTANT = 20.0  # C of Hollomon and Jaffe, usual for low-alloy steel
LN_10 = 2.3  # as the handbook rounds it in the rule of ramps


class Rates(Struct, frozen=True):
    """Fastest heating and cooling [K/h] that a code allows above `above_c` [°C]."""

    heating_k_h: float
    cooling_k_h: float
    above_c: float


def hollomon_jaffe(temperature_c: float, hours: float, *, constant: float = CONSTANT) -> float:
    """Return the tempering parameter in thousands.

    Parameters
    ----------
    temperature_c : of the hold [°C]
    hours : of the hold [h]
    constant : C, 20 for low-alloy steel

    Returns
    -------
    float : P = T·(C + log t)/1000, T in kelvin, t in hours

    Raises
    ------
    InputError : the time is not above 0, or the temperature not above absolute zero

    Validity
    --------
    Tempering of carbon and low-alloy steel, a hold at one temperature.

    Sources
    -------
    Hollomon and Jaffe 1945, from memory, H.

    Examples
    --------
    >>> hollomon_jaffe(620, 2), hollomon_jaffe(675, 3), hollomon_jaffe(760, 2)
    (18.132, 19.415, 20.974)
    """
    require_above_zero(hours=hours)
    return _kelvin(temperature_c) * (constant + math.log10(hours)) / 1000


def equivalent_time(parameter: float, temperature_c: float, *, constant: float = CONSTANT) -> float:
    """Return how long a hold at a temperature gives the same parameter [h].

    Parameters
    ----------
    parameter : P in thousands, from `hollomon_jaffe`
    temperature_c : of the other hold [°C]
    constant : C

    Raises
    ------
    InputError : the temperature is not above absolute zero

    Validity
    --------
    As `hollomon_jaffe`.

    Sources
    -------
    Hollomon and Jaffe 1945, turned round.

    Examples
    --------
    >>> equivalent_time(hollomon_jaffe(620, 2), 600), equivalent_time(hollomon_jaffe(620, 2), 640)
    (5.84, 0.72)
    """
    exponent = 1000 * parameter / _kelvin(temperature_c) - constant
    return math.inf if exponent > 300 else 10**exponent


class AddedUp(Struct, frozen=True):
    """Holds as one hold at a temperature [h]: each turned into time there and added; and taken one after the other.

    The two differ by a few per cent, for the parameter does not add up; for strength the longer one is safe.
    """

    hours: float
    in_turn_hours: float


def added_up(holds: Sequence[tuple[float, float]], *, reference_c: float, constant: float = CONSTANT) -> AddedUp:
    """Return the hold at one temperature that equals several holds [h].

    Parameters
    ----------
    holds : temperature [°C] and time [h] of each, in their order
    reference_c : temperature of the hold that is asked for [°C]
    constant : C

    Raises
    ------
    InputError : no hold, a time that is not above 0, or a temperature not above absolute zero

    Validity
    --------
    As `hollomon_jaffe`.

    Sources
    -------
    Hollomon and Jaffe 1945: each hold turned into time at the reference, the times added; in turn, what has been done
    turned into time at the next temperature, and so on.

    Examples
    --------
    >>> added_up([(620, 2), (600, 3)], reference_c=620)
    AddedUp(hours=3.04, in_turn_hours=3.000)
    """
    if not holds:
        raise InputError("no hold is stated", where="time", mend="state temperature and time")

    def at(temperature_c: float, done: tuple[float, float]) -> float:
        parameter = hollomon_jaffe(*done, constant=constant)
        return equivalent_time(parameter, temperature_c, constant=constant)

    state = holds[0]
    for temperature, hours in holds[1:]:
        state = temperature, at(temperature, state) + hours
    return AddedUp(sum(at(reference_c, hold) for hold in holds), at(reference_c, state))


def ramp_time(temperature_c: float, *, rate_k_h: float, constant: float = CONSTANT) -> float:
    """Return the time at temperature that a straight ramp to it, or from it, counts as [h].

    Parameters
    ----------
    temperature_c : at the end of the ramp [°C]
    rate_k_h : heating or cooling [K/h]
    constant : C

    Raises
    ------
    InputError : the rate is not above 0 or too fast for the rule

    Validity
    --------
    55 to 111 K/h; 9 % over a stepwise sum there.

    Sources
    -------
    Handbook rule on Hollomon and Jaffe, t = T/(2.3·K·(C - log K)), from memory, M.

    Examples
    --------
    >>> ramp_time(620, rate_k_h=55)
    0.39
    """
    require_above_zero(rate_k_h=rate_k_h)
    rest = constant - math.log10(rate_k_h)
    if not rest > 0:
        raise InputError(f"{rate_k_h:g} K/h is no ramp", where="rate", mend="state a slower rate")
    return _kelvin(temperature_c) / (LN_10 * rate_k_h * rest)


def heating_rates(thickness_mm: float) -> Rates:
    """Return how fast a vessel may be heated and cooled above 425 °C [K/h].

    Parameters
    ----------
    thickness_mm : greatest thickness [mm]

    Raises
    ------
    InputError : the thickness is not above 0

    Validity
    --------
    Vessels under ASME VIII-1; never need it be slower than 56 K/h.

    Sources
    -------
    ASME VIII-1 UCS-56, from memory, H.

    Examples
    --------
    >>> heating_rates(40)
    Rates(heating_k_h=140.97, cooling_k_h=177.8, above_c=425.0)
    """
    require_above_zero(thickness_mm=thickness_mm)
    inches = max(thickness_mm / 25.4, 1.0)
    return Rates(max(222 / inches, 56.0), max(280 / inches, 56.0), 425.0)


def _kelvin(temperature_c: float) -> float:
    if not temperature_c > ZERO_C:
        raise InputError(f"{temperature_c:g} °C does not exist", where="temperature", mend="state a temperature")
    return temperature_c - ZERO_C
