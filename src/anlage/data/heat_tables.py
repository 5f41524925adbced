"""Properties of metals for the section model; apart from `metal_tables`, for it loads NumPy."""

from collections.abc import Mapping
from functools import cache

from anlage.core.thermal.section.metals import MetalHeat, read_metals
from anlage.data.files import text_of


@cache
def heat_metals() -> Mapping[str, MetalHeat]:
    """Return the shipped properties of metals by their id."""
    return read_metals(text_of("metal/heat_tables.toml"))
