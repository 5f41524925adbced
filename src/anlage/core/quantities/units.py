"""Kinds of quantity and the units of each, read from one table.

Glossary
--------
kind : what is measured (`length`, `speed`, …); a closed list, the tables of `data/units.toml`
base unit : the unit the core computes in, named in variable endings (`_mm`, `_c`, …)
system : `si` or `us`, the unit column a value is shown and a code's limit is read in
"""

from collections.abc import Mapping
from types import MappingProxyType
from typing import Any, Literal

import rtoml
from msgspec import Struct

from anlage.core.errors import FormatError, UnknownNameError

System = Literal["si", "us"]


class Unit(Struct, frozen=True):
    """One unit: `base = number * factor + offset`."""

    name: str
    factor: float
    offset: float = 0.0

    def to_base(self, number: float) -> float:
        """Return `number` of this unit in the base unit of its kind."""
        return number * self.factor + self.offset

    def from_base(self, value: float) -> float:
        """Return a value in the base unit as a number of this unit."""
        return (value - self.offset) / self.factor


class Kind(Struct, frozen=True):
    """A kind of quantity: its base unit, what may be typed at all, and how it is shown in each system."""

    name: str
    base: str
    least: float
    most: float
    units: Mapping[str, Unit]  # by folded spelling
    shown_in: Mapping[str, tuple[Unit, int]]
    endings: tuple[str, ...] = ()  # of names whose numbers are in the base unit: `_mm`

    @property
    def unit_names(self) -> tuple[str, ...]:
        """The names of its units, without their other spellings."""
        return tuple(dict.fromkeys(unit.name for unit in self.units.values()))

    def unit(self, spelling: str, *, where: str = "unit") -> Unit:
        """Return the unit spelled so.

        Raises
        ------
        UnknownNameError : the kind has no such unit
        """
        found = self.units.get(folded(spelling))
        if found is None:
            raise UnknownNameError(spelling, self.unit_names, where=where)
        return found


class UnitTable(Mapping[str, Kind]):
    """All kinds of quantity by name."""

    def __init__(self, kinds: Mapping[str, Kind]) -> None:
        self._kinds = MappingProxyType(dict(kinds))

    def __getitem__(self, name: str) -> Kind:
        return self._kinds[name]

    def __iter__(self) -> Any:
        return iter(self._kinds)

    def __len__(self) -> int:
        return len(self._kinds)


def folded(spelling: str) -> str:
    """Return the form in which spellings are compared: no case, no blanks, superscripts as digits."""
    return (
        "".join(spelling.casefold().split())
        .replace("²", "2")
        .replace("³", "3")
        .replace("^", "")
        .replace("\u00b5", "\u03bc")
    )


def read_units(text: str, *, where: str = "units.toml") -> UnitTable:
    """Return the unit table written in `text` (TOML).

    Raises
    ------
    FormatError : two units of one kind share a spelling, or a kind shows itself in a unit it has not
    """
    tables = {name: table for name, table in rtoml.loads(text).items() if isinstance(table, dict)}
    return UnitTable({name: _kind(name, table, where) for name, table in tables.items()})


def _kind(name: str, table: Mapping[str, Any], where: str) -> Kind:
    units: dict[str, Unit] = {}
    for row in table["units"]:
        unit = Unit(row["name"], row["factor"], row.get("offset", 0.0))
        for spelling in {folded(s) for s in (row["name"], *row["spellings"])}:
            if units.setdefault(spelling, unit) is not unit:
                mend = "keep the spelling for one of them"
                raise FormatError(f"two units of {name} are spelled {spelling}", where=where, mend=mend)
    show = {system: (units[folded(unit)], decimals) for system, (unit, decimals) in table["show"].items()}
    endings = tuple(table.get("endings", ()))
    least, most = table["least"], table["most"]
    return Kind(name, table["base"], least, most, MappingProxyType(units), MappingProxyType(show), endings)
