"""The code packs, a folder each; apart from `tables`, so that a calculation loads no rules."""

from collections.abc import Mapping
from functools import cache, lru_cache, partial
from typing import TYPE_CHECKING, Any

from anlage.core.catalogue import GROUP_COLUMNS, Catalogue, Filler
from anlage.core.codes.loader import read_pack, written_rules
from anlage.core.codes.marked import marked, overlaid
from anlage.core.codes.names import Names
from anlage.core.codes.pack import Pack, Rule
from anlage.core.errors import FormatError, UnknownNameError
from anlage.data.installed_codes import HEAD, code_folders, pack_files
from anlage.data.tables import catalogue, shipped_catalogue, unit_table, variables, vocabulary

if TYPE_CHECKING:  # a document: what judges a coupon stated by hand needs none
    from anlage.core.rulebook import Overlay, Rulebook


def code_pack(code: str) -> Pack:
    """Return the pack of a code, without edition: `asme-ix`; it knows the fillers that the works at hand adds.

    Raises
    ------
    UnknownNameError : no pack ships for the code
    FormatError : the pack is at fault, or names another code than its folder
    """
    return _pack(code, _known())


@lru_cache(maxsize=64)
def _pack(code: str, known: Catalogue) -> Pack:
    folders = code_folders()
    if code not in folders:
        raise UnknownNameError(code, folders, where="code")
    pack = read_pack(pack_files(folders[code]), names=_names(known))
    if pack.code != code:  # what is kept of a code is kept under its name
        where = f"{folders[code].name}/{HEAD}"
        raise FormatError(f"its code is {pack.code}", where=where, mend=f"write {code}, or rename the folder")
    return pack


def marked_pack(code: str, book: "Rulebook") -> Pack:
    """Return the pack of a code with the overlays of a rulebook.

    Raises
    ------
    UnknownNameError : no pack ships for the code
    """
    shipped = code_pack(code)
    return marked(shipped, book, lambda overlay: overlaid_rules(code, overlay))


def overlaid_rules(code: str, overlay: "Overlay") -> tuple[Rule, ...]:
    """Return what an overlay makes of a rule.

    Raises
    ------
    UnknownNameError : no pack ships for the code, or it has no such rule
    FormatError : the overlay is at fault
    """
    shipped, files = code_pack(code), pack_files(code_folders()[code])
    return overlaid(shipped, overlay, lambda instead: read_pack(files, names=pack_names(), instead=instead))


@cache
def written_pack(code: str) -> Mapping[str, Mapping[str, Any]]:
    """Return the rules of a code as they are written, by their id.

    Raises
    ------
    UnknownNameError : no pack ships for the code
    """
    code_pack(code)
    return written_rules(pack_files(code_folders()[code]))


def pack_names() -> Names:
    """Return what a pack may name: the shipped variables, words, units and columns of the catalogue."""
    return _names(_known())


def _known() -> Catalogue:
    """Return the catalogue whose columns a pack reads: only of fillers it reads any that a works adds to."""
    return catalogue() if catalogue().has_own_fillers else shipped_catalogue()


@lru_cache(maxsize=4)
def _names(known: Catalogue) -> Names:
    columns = {"metals": frozenset(GROUP_COLUMNS), "filler": frozenset(Filler.__struct_fields__)}
    return Names(variables(), vocabulary(), unit_table(), partial(_column, known), columns)


def _column(known: Catalogue, name: str) -> Mapping[str, str]:
    """Return a catalogue column, such as `fillers.hydrogen_class`, as key -> value."""
    table, column = name.split(".")
    rows = known.filler_rows() if table == "fillers" else {row.id: row for row in getattr(known, table)}
    return {key: _word(getattr(row, column)) for key, row in rows.items()}


def _word(value: object) -> str:
    return f"{value:g}" if isinstance(value, float) else str(value or "")
