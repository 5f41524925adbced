"""One function a table; each file is read once in a process."""

from collections.abc import Mapping
from functools import cache

from anlage.core.beads import Deposition, read_depositions
from anlage.core.catalogue import Catalogue, Vocabulary, read_vocabulary
from anlage.core.heat.efficiency import Efficiency, read_efficiencies
from anlage.core.heat.run_out import RunOutFactor, read_run_out_factors
from anlage.core.joint import Detail, RootStyles, read_details, read_root_styles
from anlage.core.quantities import UnitTable, read_units
from anlage.data.files import text_of


@cache
def unit_table() -> UnitTable:
    """Return the shipped unit table."""
    return read_units(text_of("units.toml"))


@cache
def vocabulary() -> Vocabulary:
    """Return the shipped vocabulary."""
    return read_vocabulary(text_of("vocabulary.toml"))


@cache
def catalogue() -> Catalogue:
    """Return the shipped catalogue."""
    return Catalogue(lambda table: text_of(f"catalogue/{table}.csv"))


@cache
def run_out_factors() -> tuple[RunOutFactor, ...]:
    """Return the shipped factors of the run-out formula."""
    return read_run_out_factors(text_of("run_out.toml"))


@cache
def efficiencies() -> tuple[Efficiency, ...]:
    """Return the shipped thermal efficiencies."""
    return read_efficiencies(text_of("thermal_efficiency.toml"))


@cache
def depositions() -> Mapping[str, Deposition]:
    """Return the shipped deposition efficiencies by process."""
    return read_depositions(text_of("deposition.toml"))


@cache
def root_styles() -> RootStyles:
    """Return the shipped root styles."""
    return read_root_styles(text_of("root_styles.toml"))


@cache
def standard_details() -> Mapping[str, Detail]:
    """Return the shipped standard details by id."""
    return read_details(text_of("standard_details.toml"))
