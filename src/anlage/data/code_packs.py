"""The code packs and the tables that only they need; apart from `tables`, so that a calculation loads no rules."""

from functools import cache

from anlage.core.codes.a_number import ANumberRow, read_a_numbers
from anlage.core.codes.derive import LowerTransformation, read_lower_transformations
from anlage.core.codes.loader import read_pack
from anlage.core.codes.pack import Pack
from anlage.core.errors import UnknownNameError
from anlage.data.files import FOLDER, text_of
from anlage.data.tables import catalogue


@cache
def a_number_table() -> tuple[ANumberRow, ...]:
    """Return the shipped limits of A-Numbers."""
    return read_a_numbers(text_of("a_numbers.toml"))


@cache
def lower_transformations() -> tuple[LowerTransformation, ...]:
    """Return the shipped lower transformation temperatures."""
    return read_lower_transformations(text_of("transformation_temperatures.toml"))


def code_names() -> tuple[str, ...]:
    """Return the names of the codes that have a pack."""
    return tuple(sorted(path.stem.replace("_", "-") for path in (FOLDER / "codes").glob("*.toml")))


@cache
def code_pack(code: str) -> Pack:
    """Return the pack of a code, without edition: `asme-ix`.

    Raises
    ------
    UnknownNameError : no pack ships for the code
    """
    if code not in code_names():
        raise UnknownNameError(code, code_names(), where="code")
    name = f"codes/{code.replace('-', '_')}.toml"
    return read_pack(text_of(name), where=name, column=_column)


def _column(name: str) -> dict[str, str]:
    """Return a catalogue column, such as `fillers.hydrogen_class`, as key -> value."""
    table, column = name.split(".")
    rows = getattr(catalogue(), table)
    key = "classification" if table == "fillers" else "id"
    return {getattr(row, key): str(getattr(row, column) or "") for row in rows}
