"""The code packs, a folder each; apart from `tables`, so that a calculation loads no rules."""

from collections.abc import Mapping
from functools import cache

from anlage.core.catalogue import GROUP_COLUMNS, Filler
from anlage.core.codes.loader import read_pack
from anlage.core.codes.names import Names
from anlage.core.codes.pack import Pack
from anlage.core.errors import UnknownNameError
from anlage.data.installed_codes import code_folders, pack_files
from anlage.data.tables import catalogue, unit_table, variables, vocabulary


@cache
def code_pack(code: str) -> Pack:
    """Return the pack of a code, without edition: `asme-ix`.

    Raises
    ------
    UnknownNameError : no pack ships for the code
    """
    folders = code_folders()
    if code not in folders:
        raise UnknownNameError(code, folders, where="code")
    return read_pack(pack_files(folders[code]), names=pack_names())


@cache
def pack_names() -> Names:
    """Return what a pack may name: the shipped variables, words, units and columns of the catalogue."""
    columns = {"metals": frozenset(GROUP_COLUMNS), "filler": frozenset(Filler.__struct_fields__)}
    return Names(variables(), vocabulary(), unit_table(), _column, columns)


def _column(name: str) -> Mapping[str, str]:
    """Return a catalogue column, such as `fillers.hydrogen_class`, as key -> value."""
    table, column = name.split(".")
    rows = catalogue().filler_rows() if table == "fillers" else {row.id: row for row in getattr(catalogue(), table)}
    return {key: str(getattr(row, column) or "") for key, row in rows.items()}
