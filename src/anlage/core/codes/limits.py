"""Numbers of a code as its two unit columns have them: `13` means 13 mm, `{si = 13, us = 0.5}` 13 mm or 1/2 in.

A code's limits come in pairs that do not convert into each other. A case is judged wholly in one system: values
convert exactly, limits come from that system's column.
"""

from dataclasses import dataclass

from anlage.core.quantities.units import System

# What a number of the US column is, in the base unit that ends the variable's name: factor, and offset of a level.
_US = {"_mm": (25.4, 0.0), "_c": (1 / 1.8, -32 / 1.8), "_kj_mm": (1 / 25.4, 0.0), "_l_min": (0.4719474432, 0.0)}


@dataclass(frozen=True, slots=True)
class Limit:
    """One number of a code in base units, by system."""

    si: float
    us: float

    def of(self, units: System) -> float:
        """Return the number of one column, in the base unit."""
        return self.si if units == "si" else self.us


def limit(number: float | dict[str, float], variable: str, *, difference: bool = False) -> Limit:
    """Return a limit as written in a pack, in the base unit of `variable`.

    Parameters
    ----------
    number : one number in the base unit, or `{si = …, us = …}` with the US number in in, °F, kJ/in or ft³/h
    variable : the name whose ending tells the unit
    difference : whether it is a difference of temperatures, not a temperature

    Raises
    ------
    KeyError : a pair lacks a column, or the ending has no US unit

    Examples
    --------
    >>> limit({"si": -55, "us": -100}, "preheat_c", difference=True).us
    -55.56
    """
    if isinstance(number, int | float):
        return Limit(float(number), float(number))
    ending = next(end for end in sorted(_US, key=len, reverse=True) if f"{variable}".endswith(end))
    factor, offset = _US[ending]
    return Limit(float(number["si"]), number["us"] * factor + (0.0 if difference else offset))
