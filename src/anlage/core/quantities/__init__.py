"""Quantities as people type and read them; the core itself computes in base units."""

from anlage.core.quantities.commas import with_points
from anlage.core.quantities.parse import Reading, parse, read
from anlage.core.quantities.show import inch_text, show, show_interval
from anlage.core.quantities.units import Kind, System, Unit, UnitTable, read_units

__all__ = [
    "Kind",
    "Reading",
    "System",
    "Unit",
    "UnitTable",
    "inch_text",
    "parse",
    "read",
    "read_units",
    "show",
    "show_interval",
    "with_points",
]
