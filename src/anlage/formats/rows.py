"""Rows of a table in a file by the names of its columns: CSV with commas or semicolons, or the sheet of a workbook."""

import csv
import io
import zipfile
from collections.abc import Mapping
from pathlib import Path
from typing import Final

from openpyxl import load_workbook
from openpyxl.utils.exceptions import InvalidFileException

from anlage.core.errors import FormatError

ENDINGS: Final = (".csv", ".xlsx")
MOST_ROWS: Final = 20_000  # own choice
LARGEST_BYTES: Final = 20_000_000


def rows_of_file(path: Path) -> tuple[Mapping[str, str], ...]:
    """Return the rows of a table; empty rows and cells are left out.

    Raises
    ------
    FormatError : the file cannot be read, is no table, or has no head
    """
    try:
        if path.stat().st_size > LARGEST_BYTES:
            raise FormatError("it is too large for a table", where=path.name, mend="take another file")
        cells = _workbook(path) if path.suffix.casefold() == ".xlsx" else _lines(path)
    except (OSError, UnicodeDecodeError, csv.Error) as fault:
        raise FormatError("it cannot be read as a table", where=path.name, mend="take a CSV or XLSX file") from fault
    if not cells or not any(cells[0]):
        raise FormatError("it has no head", where=path.name, mend="name the columns in the first row")
    head = [each.strip().casefold() for each in cells[0]]
    rows = ({name: cell for name, cell in zip(head, row, strict=False) if name and cell} for row in cells[1:])
    return tuple(row for row in rows if row)


def _lines(path: Path) -> list[list[str]]:
    text = path.read_text(encoding="utf-8-sig")
    first = text.partition("\n")[0]
    apart = ";" if first.count(";") > first.count(",") else ","
    found = list(csv.reader(io.StringIO(text), delimiter=apart))
    return [[cell.strip() for cell in row] for row in found[: MOST_ROWS + 1]]


def _workbook(path: Path) -> list[list[str]]:
    try:
        book = load_workbook(path, read_only=True, data_only=True)
    except (InvalidFileException, zipfile.BadZipFile, KeyError, ValueError) as fault:
        raise FormatError("it is no workbook", where=path.name, mend="take a CSV or XLSX file") from fault
    sheet = book.worksheets[0]
    rows = sheet.iter_rows(max_row=MOST_ROWS + 1, values_only=True)
    return [["" if cell is None else str(cell).strip() for cell in row] for row in rows]
