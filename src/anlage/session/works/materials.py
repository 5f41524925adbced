"""The metals and fillers that a works adds to the catalogue: brought in as a table, taken out by name, counted."""

import csv
import re
from collections.abc import Sequence
from io import StringIO

from anlage.core.catalogue import FILLER_COLUMNS, METAL_COLUMNS, Catalogue
from anlage.core.catalogue.names import filler_key, metal_key
from anlage.core.document import forget_kept, read_strict, with_
from anlage.core.errors import FormatError, UnknownNameError
from anlage.core.materials import MATERIALS, Materials
from anlage.data.own_materials import catalogue_adding
from anlage.data.tables import catalogue, shipped_catalogue, take_catalogue

DECIMAL_COMMA = re.compile(r"^(-?\d+),(\d+)$")
Rows = list[dict[str, str]]
NAMES = {"metals": ("id", metal_key), "fillers": ("classification", filler_key)}
COLUMNS = {"metals": METAL_COLUMNS, "fillers": FILLER_COLUMNS}


def materials_of(body: str | None) -> Materials:
    """Return what a works adds, as it lies in the file; `None` where it adds nothing.

    Raises
    ------
    FormatError : it is not what was saved
    """
    return Materials() if body is None else read_strict(body, MATERIALS, where="metals and fillers of the works")


def catalogue_of(materials: Materials) -> Catalogue:
    """Return the catalogue with what a works adds.

    Raises
    ------
    FormatError : a row cannot be read, does not say what it is or where that is from, or is called as another
    """
    return catalogue_adding(materials.metals, materials.fillers)


def take_materials(body: str | None) -> None:
    """Count the metals and fillers of a works from now on, and those of no other.

    Where they cannot be read there are none: whatever is made of them is of an unknown metal, and so unproven.
    """
    try:
        found = catalogue_of(materials_of(body))
    except FormatError:
        found = shipped_catalogue()
    if found is not catalogue():
        take_catalogue(found)
        forget_kept()


def with_table(materials: Materials, text: str) -> Materials:
    """Return what a works adds with the rows of a table beside it: fillers where it has a column `classification`.

    Raises
    ------
    FormatError : a row cannot be read, does not say what it is or where that is from, or is called as another
    """
    text = _with_commas(text)
    head = next(csv.reader(StringIO(text)), [])
    table = "fillers" if "classification" in (name.strip() for name in head) else "metals"
    alone = Materials(fillers=text) if table == "fillers" else Materials(metals=text)
    catalogue_of(alone)  # by itself first: what is wrong in it is told by its own lines
    joined = [*_rows(getattr(materials, table)), *_rows(text)]
    made = with_(materials, **{table: _text(joined, COLUMNS[table])})
    catalogue_of(made)
    return made


def without(materials: Materials, name: str) -> Materials:
    """Return what a works adds without a metal or filler of it.

    Raises
    ------
    UnknownNameError : it adds nothing of that name
    """
    known = []
    for table, (column, key_of) in NAMES.items():
        rows = _rows(getattr(materials, table))
        left = [row for row in rows if key_of(row[column]) != key_of(name)]
        if len(left) < len(rows):
            return with_(materials, **{table: _text(left, COLUMNS[table])})
        known += [row[column] for row in rows]
    raise UnknownNameError(name, known, where="metals and fillers of the works")


def names_of(materials: Materials) -> tuple[str, ...]:
    """Return the names of all that a works adds."""
    return tuple(row[column] for table, (column, _) in NAMES.items() for row in _rows(getattr(materials, table)))


def table_text(materials: Materials, table: str) -> str:
    """Return a table, `metals` or `fillers`, with all columns that it may have: to go on from in another program."""
    return _text(_rows(getattr(materials, table)), COLUMNS[table], every=True)


def _with_commas(text: str) -> str:
    """Return a table as it is kept: where a spreadsheet wrote semicolons and decimal commas, commas and points."""
    text = text.lstrip("\ufeff\r\n")
    head = text.partition("\n")[0]
    if ";" not in head or "," in head:
        return text
    written = StringIO()
    rows = csv.reader(StringIO(text), delimiter=";")
    csv.writer(written, lineterminator="\n").writerows(
        [DECIMAL_COMMA.sub(r"\1.\2", cell.strip()) for cell in row] for row in rows
    )
    return written.getvalue()


def _rows(text: str) -> Rows:
    found = csv.DictReader(StringIO(text), restval="")
    return [{name.strip(): cell for name, cell in row.items()} for row in found]


def _text(rows: Rows, columns: Sequence[str], *, every: bool = False) -> str:
    if not rows and not every:
        return ""
    used = [name for name in columns if every or any(row.get(name) for row in rows)]
    written = StringIO()
    table = csv.DictWriter(written, used, restval="", extrasaction="ignore", lineterminator="\n")
    table.writeheader()
    table.writerows(rows)
    return written.getvalue()
