"""Numbers of a code as its two unit columns have them: `13` means 13 mm, `{si = 13, us = 0.5}` 13 mm or 1/2 in.

A code's limits come in pairs that do not convert into each other. A case is judged wholly in one system: values
convert exactly, limits come from that system's column.
"""

from typing import TypeGuard

import msgspec

from anlage.core.errors import InputError
from anlage.core.quantities.units import System, UnitTable


class Limit(msgspec.Struct, frozen=True):
    """One number of a code in base units, by system."""

    si: float
    us: float

    def of(self, units: System) -> float:
        """Return the number of one column, in the base unit."""
        return self.si if units == "si" else self.us


def limit(number: float | dict[str, float], kind: str, units: UnitTable, *, difference: bool = False) -> Limit:
    """Return a limit as written in a pack, in the base unit of its kind of quantity.

    Parameters
    ----------
    number : one number in the base unit, or `{si = …, us = …}`, the US number in the unit that the kind is shown in
    kind : what is measured; "" for words and plain numbers, which have one column
    units : the table of units
    difference : whether it is a difference of temperatures, not a temperature

    Raises
    ------
    InputError : a pair lacks a column, or there is no such pair for the kind

    Examples
    --------
    >>> from anlage.data.tables import unit_table
    >>> limit({"si": -55, "us": -100}, "temperature", unit_table(), difference=True).us
    -55.56
    """
    if _is_number(number):
        return Limit(float(number), float(number))
    if not isinstance(number, dict) or set(number) != {"si", "us"} or not all(map(_is_number, number.values())):
        raise InputError(f"{number} is no limit", where="limit", mend="write a number, or {si = …, us = …}")
    if kind not in units:
        raise InputError("a plain number has no unit columns", where="limit", mend="write one number")
    unit, _ = units["temperature_difference" if difference and kind == "temperature" else kind].shown_in["us"]
    return Limit(float(number["si"]), unit.to_base(number["us"]))


def _is_number(value: object) -> TypeGuard[float]:
    return isinstance(value, int | float) and not isinstance(value, bool)
