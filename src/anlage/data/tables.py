"""One function a table; each file is read once in a process. Those of the joint and of the codes stand apart."""

from functools import cache

from anlage.core.catalogue import Catalogue, Vocabulary, read_vocabulary
from anlage.core.heat.run_out import RunOutFactor, read_run_out_factors
from anlage.core.processes import Processes, read_processes
from anlage.core.quantities import UnitTable, read_units
from anlage.core.variables import Variables, read_variables
from anlage.data.files import text_of

_AT_HAND: list[Catalogue] = []  # empty: none but the shipped one


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
def shipped_catalogue() -> Catalogue:
    """Return the catalogue as it ships."""
    return Catalogue(lambda table: text_of(f"catalogue/{table}.csv"))


def catalogue() -> Catalogue:
    """Return the catalogue as it counts in this process: as it ships, with what the works at hand adds."""
    return _AT_HAND[-1] if _AT_HAND else shipped_catalogue()


def take_catalogue(own: Catalogue) -> None:
    """Count a catalogue from now on, in place of the one before: one works is at hand in a process."""
    _AT_HAND[:] = [own]


@cache
def run_out_factors() -> tuple[RunOutFactor, ...]:
    """Return the shipped factors of the run-out formula."""
    return read_run_out_factors(text_of("run_out.toml"))


@cache
def processes() -> Processes:
    """Return the shipped processes by their id."""
    return read_processes(text_of("processes.toml"))
