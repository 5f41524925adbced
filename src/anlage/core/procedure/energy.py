"""Arc energy and heat input of a pass over its whole stated range."""

from anlage.core.heat import EnergyRange, arc_energy, over_range
from anlage.core.procedure.parts import Pass
from anlage.core.ranges import Interval


def pass_energy(each: Pass) -> EnergyRange | None:
    """Return the arc energy of a pass at the corners of its range [kJ/mm]; `None` when a value is not stated.

    Validity
    --------
    As `arc_energy`: mean volts times mean amps, not for pulsed or controlled waveforms.

    Sources
    -------
    As `arc_energy`.

    Examples
    --------
    >>> fill = Pass(id="p1", deposit="d1", current_a=[110, 125], voltage_v=[22, 24], travel_speed_mm_min=[90, 120])
    >>> print(pass_energy(fill).interval)
    [1.21, 2]
    """
    if each.current_a is None or each.voltage_v is None or each.travel_speed_mm_min is None:
        return None
    speed = each.travel_speed_mm_min
    rising = {"voltage": each.voltage_v, "current": each.current_a}
    return over_range(arc_energy, rising=rising, falling={"travel speed": Interval(speed.low / 60, speed.high / 60)})


def pass_power(each: Pass) -> Interval | None:
    """Return the power U·I of a pass from its least to its most [W]; `None` when a value is not stated."""
    if each.current_a is None or each.voltage_v is None:
        return None
    return Interval(each.current_a.low * each.voltage_v.low, each.current_a.high * each.voltage_v.high)
