"""The code packs, a folder each; apart from `tables`, so that a calculation loads no rules."""

import tomllib
from collections.abc import Mapping
from functools import cache
from pathlib import Path

from anlage.core.catalogue import GROUP_COLUMNS, Filler
from anlage.core.codes.head import FILE
from anlage.core.codes.loader import read_pack
from anlage.core.codes.names import Names
from anlage.core.codes.pack import Pack
from anlage.core.errors import UnknownNameError
from anlage.data.files import FOLDER
from anlage.data.tables import catalogue, unit_table, variables, vocabulary

CODES = FOLDER / "codes"


def code_folders() -> Mapping[str, Path]:
    """Return the folders of the codes that have a pack, by the name of the code: `asme-ix`."""
    return {path.parent.name.replace("_", "-"): path.parent for path in sorted(CODES.glob(f"*/{FILE}"))}


def code_names() -> tuple[str, ...]:
    """Return the names of the codes that have a pack."""
    return tuple(code_folders())


def code_choices() -> Mapping[str, str]:
    """Return how a document may name a code and its editions, and how each is said: the newest without its year."""
    found: dict[str, str] = {}
    for code, folder in code_folders().items():
        head = tomllib.loads((folder / FILE).read_text(encoding="utf-8"))["pack"]
        found[code] = f"{head['name']}, newest"
        found |= {f"{code}:{year}": f"{head['name']} {year}" for year in reversed(head["editions"][:-1])}
    return found


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


def pack_files(folder: Path) -> Mapping[str, str]:
    """Return the text of every file of a pack by its name, the head first."""
    paths = sorted(folder.glob("*.toml"), key=lambda path: (path.name != FILE, path.name))
    return {path.name: path.read_text(encoding="utf-8") for path in paths}


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
