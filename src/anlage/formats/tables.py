"""Tables as values, and as CSV: no cell ever starts a formula in the spreadsheet that opens it."""

import csv
import io

from msgspec import Struct

STARTS_FORMULA = ("=", "+", "-", "@", "\t", "\r", "\n")
Cell = str | float | None


class Table(Struct, frozen=True):
    """A table: its title, the head of each column, and its rows."""

    title: str
    head: tuple[str, ...]
    rows: tuple[tuple[Cell, ...], ...]


def as_csv(table: Table) -> bytes:
    """Return a table as UTF-8 CSV; a text that a spreadsheet would take for a formula gets an apostrophe."""
    target = io.StringIO()
    writer = csv.writer(target, lineterminator="\r\n")
    writer.writerow(table.head)
    writer.writerows([_plain(cell) for cell in row] for row in table.rows)
    return target.getvalue().encode("utf-8-sig")


def _plain(cell: Cell) -> str | float:
    if isinstance(cell, str) and cell.startswith(STARTS_FORMULA):
        return f"'{cell}"
    return "" if cell is None else cell
