"""Arc energy per length and heat input: for single values and for the whole stated range.

Glossary
--------
arc energy : electrical energy of the arc per length of weld; no efficiency in it
heat input : arc energy times the thermal efficiency k of the process
corner : the combination of stated values at which a range ends; the highest heat is at the lowest speed
"""

from collections.abc import Callable

from msgspec import Struct

from anlage.core.errors import InputError
from anlage.core.ranges import Interval
from anlage.core.results import require_above_zero


def arc_energy(voltage_v: float, current_a: float, travel_speed_mm_s: float) -> float:
    """Return the arc energy of a weld run from mean voltage, mean current and travel speed.

    Parameters
    ----------
    voltage_v : arc voltage U [V], above 0
    current_a : welding current I [A], above 0
    travel_speed_mm_s : progress along the joint v [mm/s], above 0; not the path of a weave

    Returns
    -------
    float : arc energy E = U·I / (1000·v) [kJ/mm]

    Raises
    ------
    InputError : a value is not above 0

    Validity
    --------
    Direct current or slowly varying current. Mean voltage times mean current is wrong for pulsed, short-circuit
    and waveform-controlled arcs: use energy or power over length there.

    Sources
    -------
    ISO/TR 18491:2015 and ISO 15614-1:2017 (arc energy, H); ASME BPVC IX QW-409.1(a) is the same without factor (H).

    Examples
    --------
    >>> arc_energy(24.6, 208.0, 285 / 60)
    1.0772
    """
    require_above_zero(voltage_v=voltage_v, current_a=current_a, travel_speed_mm_s=travel_speed_mm_s)
    return voltage_v * current_a / (1000 * travel_speed_mm_s)


def arc_energy_from_energy(energy_j: float, length_mm: float) -> float:
    """Return the arc energy per length from the energy a power source logged over a bead.

    Parameters
    ----------
    energy_j : instantaneous energy, summed over the arc time [J], above 0
    length_mm : length of that bead [mm], above 0

    Returns
    -------
    float : arc energy [kJ/mm]

    Raises
    ------
    InputError : a value is not above 0

    Validity
    --------
    Any waveform, sampled fast enough (at least ten samples a period, M).

    Sources
    -------
    ASME BPVC IX QW-409.1(c) and Appendix H; ISO/TR 18491:2015 (H).

    Examples
    --------
    >>> arc_energy_from_energy(61_200, 2.4 * 25.4)
    1.0039
    """
    require_above_zero(energy_j=energy_j, length_mm=length_mm)
    return energy_j / length_mm / 1000


def arc_energy_from_power(power_w: float, travel_speed_mm_s: float) -> float:
    """Return the arc energy per length from the mean of the instantaneous power.

    Parameters
    ----------
    power_w : average instantaneous power [W], above 0; not mean voltage times mean current
    travel_speed_mm_s : progress along the joint [mm/s], above 0

    Returns
    -------
    float : arc energy [kJ/mm]

    Raises
    ------
    InputError : a value is not above 0

    Validity
    --------
    Any waveform, sampled fast enough (at least ten samples a period, M).

    Sources
    -------
    ASME BPVC IX QW-409.1(c) and Appendix H; ISO/TR 18491:2015 (H).

    Examples
    --------
    >>> arc_energy_from_power(4300, 190 / 38)
    0.860
    """
    require_above_zero(power_w=power_w, travel_speed_mm_s=travel_speed_mm_s)
    return power_w / travel_speed_mm_s / 1000


def heat_input(arc_energy_kj_mm: float, efficiency: float) -> float:
    """Return the heat input: arc energy times the thermal efficiency of the process.

    Parameters
    ----------
    arc_energy_kj_mm : arc energy E [kJ/mm], above 0
    efficiency : thermal efficiency k [-], above 0 and at most 1

    Returns
    -------
    float : heat input Q = k·E [kJ/mm]

    Raises
    ------
    InputError : a value is out of its bounds

    Validity
    --------
    k of EN 1011-1 is a convention for comparing processes, not a measurement.

    Sources
    -------
    EN 1011-1:2009 (formula H, clause 19 M).

    Examples
    --------
    >>> heat_input(1.0772, 0.8)
    0.8618
    """
    require_above_zero(arc_energy_kj_mm=arc_energy_kj_mm)
    if not 0 < efficiency <= 1:
        raise InputError(f"{efficiency:g} is not in 0..1", where="efficiency", mend="state a share such as 0.8")
    return arc_energy_kj_mm * efficiency


class Corner(Struct, frozen=True):
    """One end of a range of energy and the stated values, by key, that give it."""

    energy_kj_mm: float
    values: tuple[tuple[str, float], ...]


class EnergyRange(Struct, frozen=True):
    """The least and the most energy per length over the whole stated range [kJ/mm]."""

    low: Corner
    high: Corner

    @property
    def interval(self) -> Interval:
        """Both ends as an interval [kJ/mm]."""
        return Interval(self.low.energy_kj_mm, self.high.energy_kj_mm)

    def scaled(self, efficiency: float) -> Interval:
        """Return the heat input of both ends [kJ/mm].

        Raises
        ------
        InputError : the efficiency is not above 0 and at most 1
        """
        return Interval(heat_input(self.low.energy_kj_mm, efficiency), heat_input(self.high.energy_kj_mm, efficiency))


def over_range(
    energy: Callable[..., float], *, rising: dict[str, Interval], falling: dict[str, Interval]
) -> EnergyRange:
    """Return the range of `energy` over intervals in which it rises or falls.

    Parameters
    ----------
    energy : `arc_energy` or another formula that takes the named values in this order: rising, then falling
    rising : the values that raise the energy, by name
    falling : the values that lower it, by name: speed or length

    Raises
    ------
    InputError : an interval reaches zero or below

    Examples
    --------
    >>> stated = dict(rising={"volts": Interval(25, 28), "amps": Interval(220, 250)}, falling={"speed": Interval(5, 6)})
    >>> over_range(arc_energy, **stated).high
    Corner(energy_kj_mm=1.4, values=(('volts', 28.0), ('amps', 250.0), ('speed', 5.0)))
    """

    def corner(*, hot: bool) -> Corner:
        values = {name: value.high if hot else value.low for name, value in rising.items()}
        values |= {name: value.low if hot else value.high for name, value in falling.items()}
        return Corner(energy(*values.values()), tuple(values.items()))

    return EnergyRange(corner(hot=False), corner(hot=True))
