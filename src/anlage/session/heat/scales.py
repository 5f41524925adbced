"""Temperatures and lengths in the reader's scale."""

from anlage.core.quantities.units import System
from anlage.core.ranges import Interval, Numbers
from anlage.session.leaves.set_text import set_text


def in_reader(celsius: float, system: System) -> float:
    """Return a temperature in the reader's scale."""
    return celsius if system == "si" else celsius * 9 / 5 + 32


def in_celsius(shown: float, system: System) -> float:
    """Return a temperature of the reader's scale in °C."""
    return shown if system == "si" else (shown - 32) * 5 / 9


def scale(system: System) -> str:
    """Return the sign of the reader's scale."""
    return "°C" if system == "si" else "°F"


def degrees(celsius: float, system: System) -> str:
    """Return a temperature in words, whole degrees."""
    return f"{in_reader(celsius, system):.0f} {scale(system)}"


def degrees_span(span: tuple[float, float], system: System) -> str:
    """Return two temperatures in words, once where they are one."""
    low, high = (f"{in_reader(each, system):.0f}" for each in span)
    return f"{low if low == high else f'{low} to {high}'} {scale(system)}"


def degrees_more(kelvin: float, system: System) -> str:
    """Return a difference in words."""
    return f"{kelvin:.0f} K" if system == "si" else f"{kelvin * 9 / 5:.0f} °F"


def length_text(length_mm: float, system: System) -> str:
    """Return a thickness in words."""
    return set_text("thicker_member_mm", Numbers((Interval(length_mm, length_mm),)), system)
