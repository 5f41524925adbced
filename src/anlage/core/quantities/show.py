"""From numbers to what the trade writes: fractions of an inch, rounding by kind, both unit systems."""

import math
from typing import Final

from anlage.core.quantities.units import System, UnitTable
from anlage.core.ranges.interval import Interval

MM_PER_INCH: Final = 25.4
FRACTION_WITHIN_MM: Final = 0.005  # a length further than this from a fraction is shown in decimals
# 12 V, not 12.0 V
TRIMMED: Final = ("length", "distance", "minutes", "hours", "angle", "ratio", "percent", "voltage", "flow")
THIN_SPACE: Final = "\u2009"


def inch_text(length_mm: float, *, wall: bool = False) -> str:
    """Return a length in inches as the trade writes it, without unit: `3/32`, `1-1/2`, `0.531`.

    A fraction only within 0.005 mm of n/32 (n/64 for pipe walls), else three decimals.

    Sources
    -------
    Common practice, no source.

    Examples
    --------
    >>> inch_text(2.38125), inch_text(38.1), inch_text(13.3), inch_text(11.9062, wall=True)
    ('3/32', '1-1/2', '0.524', '15/32')
    """
    steps = 64 if wall else 32
    nearest = round(length_mm / MM_PER_INCH * steps)
    if abs(nearest * MM_PER_INCH / steps - length_mm) > FRACTION_WITHIN_MM:
        return f"{length_mm / MM_PER_INCH:.3f}"
    whole, rest = divmod(abs(nearest), steps)
    shared = math.gcd(rest, steps)
    part = f"{rest // shared}/{steps // shared}" if rest else ""
    shown = "-".join(filter(None, (str(whole) if whole or not rest else "", part)))
    return f"-{shown}" if nearest < 0 else shown


def show(value: float, kind: str, system: System, units: UnitTable, *, finer: bool = False) -> str:
    r"""Return a value in the base unit of `kind` as text with its unit, rounded as the trade does.

    `finer` is one more digit, where two values would read alike.

    Examples
    --------
    >>> from anlage.data.tables import unit_table
    >>> show(9.525, "length", "us", unit_table()), show(1.2345, "heat_input", "si", unit_table())
    ('3/8\u2009in', '1.23\u2009kJ/mm')
    """
    unit, _ = units[kind].shown_in[system]
    return f"{_number(value, kind, system, units, finer=finer)}{_gap(unit.name)}{unit.name}"


def show_interval(interval: Interval, kind: str, system: System, units: UnitTable, *, finer: bool = False) -> str:
    """Return an interval as text: `23..26 V`, `≥ 85 °C`, `≤ 44 mm`, or the single value."""
    unit, _ = units[kind].shown_in[system]
    after = f"{_gap(unit.name)}{unit.name}"
    low, high = (_number(end, kind, system, units, finer=finer) for end in (interval.low, interval.high))
    if interval.is_single:
        return f"{low}{after}"
    if interval.low_open and interval.high_open and low == "-inf" and high == "inf":
        return "any"
    if high == "inf":
        return f"{'>' if interval.low_open else '≥'} {low}{after}"
    if low == "-inf" or (interval.low == 0 and interval.low_open):
        return f"{'<' if interval.high_open else '≤'} {high}{after}"
    return f"{low}..{high}{after}"


def _gap(unit: str) -> str:
    return "" if unit in ("°", "%", "") else THIN_SPACE


def _number(value: float, kind: str, system: System, units: UnitTable, *, finer: bool) -> str:
    if value in (float("inf"), float("-inf")):
        return f"{value}"
    unit, decimals = units[kind].shown_in[system]
    if kind == "length" and system == "us":
        return f"{unit.from_base(value):.4f}" if finer else inch_text(value)
    text = f"{unit.from_base(value):.{decimals + finer}f}"
    trimmed = text.rstrip("0").rstrip(".") if "." in text and kind in TRIMMED else text
    return "0" if trimmed == "-0" else trimmed
