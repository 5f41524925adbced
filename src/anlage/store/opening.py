"""Is this a works file? Told from its first bytes, before a database touches it: a refused file is left as it was."""

import sqlite3
from pathlib import Path

from anlage.core.errors import FormatError
from anlage.store.tables import APPLICATION_ID, COLUMNS, LAYOUT

_MAGIC = b"SQLite format 3\x00"


def check_header(path: Path) -> int:
    """Return the layout of a works file.

    Raises
    ------
    FormatError : there is no such file, it is no works file, or it is one of a newer Anlage
    """
    where = path.name
    try:
        with path.open("rb") as file:
            head = file.read(100)
    except IsADirectoryError as fault:
        raise FormatError("it is a folder", where=where, mend="choose a file that ends in .anlage") from fault
    except FileNotFoundError as fault:
        raise FormatError("there is no such file", where=where, mend="check the name and folder") from fault
    except OSError as fault:
        raise FormatError("it cannot be read", where=where, mend="ask for the right to read it") from fault
    layout, application = (int.from_bytes(head[at : at + 4], "big") for at in (60, 68))
    if len(head) < 100 or not head.startswith(_MAGIC) or application != APPLICATION_ID:
        raise FormatError("it is no works file", where=where, mend="choose a file that Anlage made")
    if layout > LAYOUT:
        raise FormatError(f"its layout {layout} is of a newer Anlage", where=where, mend="open it with a newer Anlage")
    return layout


def connect(path: Path, *, write: bool) -> sqlite3.Connection:
    """Return a connection that trusts nothing in the file; without `write` it cannot change it."""
    mode = "rw" if write else "ro"
    where = f"{path.absolute().as_uri()}?mode={mode}"
    connection = sqlite3.connect(where, uri=True, check_same_thread=False, isolation_level=None)
    connection.row_factory = sqlite3.Row
    try:
        _set_up(connection, write=write)
    except sqlite3.DatabaseError:
        connection.close()
        raise
    return connection


def _set_up(connection: sqlite3.Connection, *, write: bool) -> None:
    for pragma in ("trusted_schema = OFF", "foreign_keys = ON", "journal_mode = DELETE", "synchronous = FULL"):
        if write or "journal" not in pragma:
            connection.execute(f"PRAGMA {pragma}")


def damaged(path: Path, fault: Exception | None = None) -> FormatError:
    """Return the refusal of a file that the database cannot read."""
    if "locked" in str(fault):
        return FormatError("another program holds it", where=path.name, mend="close it there first")
    return FormatError("it is damaged", where=path.name, mend="take a copy from the backup")


def check_body(connection: sqlite3.Connection, path: Path) -> None:
    """Refuse a file whose pages are damaged or whose tables are not those of a works file.

    Raises
    ------
    FormatError : the database finds faults in itself, or another program keeps it locked
    """
    try:
        sound = connection.execute("PRAGMA quick_check(1)").fetchone()[0] == "ok"
        for table, columns in COLUMNS.items():
            found = {row[0] for row in connection.execute("SELECT name FROM pragma_table_info(?)", (table,))}
            sound = sound and columns <= found
    except sqlite3.DatabaseError as fault:
        raise damaged(path, fault) from fault
    if not sound:
        raise damaged(path)
