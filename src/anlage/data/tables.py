"""One function a table; each file is read once in a process. Those of the joint and of the codes stand apart."""

from functools import cache

from anlage.core.catalogue import Catalogue, Vocabulary, read_vocabulary
from anlage.core.heat.run_out import RunOutFactor, read_run_out_factors
from anlage.core.processes import Processes, read_processes
from anlage.core.quantities import UnitTable, read_units
from anlage.core.variables import Variables, read_variables
from anlage.data.files import text_of


@cache
def unit_table() -> UnitTable:
    """Return the shipped unit table."""
    return read_units(text_of("units.toml"))


@cache
def vocabulary() -> Vocabulary:
    """Return the shipped vocabulary."""
    return read_vocabulary(
        text_of("vocabulary.toml"), process={row.id: (*row.iso_4063, *row.words) for row in processes().values()}
    )


@cache
def variables() -> Variables:
    """Return the shipped variables by their id."""
    return read_variables(text_of("variables.toml"))


@cache
def catalogue() -> Catalogue:
    """Return the shipped catalogue."""
    return Catalogue(lambda table: text_of(f"catalogue/{table}.csv"))


@cache
def run_out_factors() -> tuple[RunOutFactor, ...]:
    """Return the shipped factors of the run-out formula."""
    return read_run_out_factors(text_of("run_out.toml"))


@cache
def processes() -> Processes:
    """Return the shipped processes by their id."""
    return read_processes(text_of("processes.toml"))
