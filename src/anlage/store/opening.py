"""Opening and making works files: judged before a database touches them; a refused file is left as it was."""

import os
import sqlite3
from collections.abc import Callable
from contextlib import closing, suppress
from pathlib import Path
from typing import Final

from msgspec import Struct

from anlage.core.errors import FormatError
from anlage.core.results import Notice
from anlage.store.chain import link_all
from anlage.store.connection import Connection, Database, connect
from anlage.store.faults import HeldError, refusal
from anlage.store.hold import Hold
from anlage.store.tables import APPLICATION_ID, DRAFTS, LAYOUT, LINKS, SCHEMA, parts_of, parts_of_layout
from anlage.store.works import WorksFile, draft_hash

_MAGIC: Final = b"SQLite format 3\x00"


def inspect_works(path: Path) -> WorksFile:
    """Open a works file for reading, whatever was planted in it or taken out: `verify` tells it.

    Raises
    ------
    FormatError : its pages are damaged, or it lacks a table
    """
    return _open(path, _Wanted(read_only=True, inspect=True))


def open_works(path: Path, *, holder: str = "", read_only: bool = False, now: str = "") -> WorksFile:
    """Open a works file; for reading only when someone else writes in it or it cannot be written.

    Parameters
    ----------
    path : the file
    holder : the name that a second opener is told
    read_only : do not ask for the right to write
    now : the time (UTC, ISO 8601), with which a file of an older layout is marked when it is brought to this one;
        without it such a file is opened for reading only

    Raises
    ------
    FormatError : broken, foreign, newer or missing; the file is left as it was
    """
    return _open(path, _Wanted(holder=holder, read_only=read_only, now=now))


class _Wanted(Struct, frozen=True):
    """How a file is to be opened."""

    holder: str = ""
    read_only: bool = False
    now: str = ""
    inspect: bool = False  # and tell what was planted in it, instead of refusing it


def _open(path: Path, wanted: _Wanted) -> WorksFile:
    hold = Hold(path)
    try:
        layout = check_header(hold)
        why = _why_not(hold, wanted.holder) if not wanted.read_only else "it was opened for reading"
        if not why and layout < LAYOUT and not wanted.now:
            hold.stop_writing()
            why = "it is of an older Anlage"
        try:
            return _opened(hold, why, wanted)
        except sqlite3.OperationalError as fault:
            if not hold.writes and _recovered(hold, wanted.holder):
                return _opened(hold, why, wanted)
            if not hold.writes or refusal(fault, path.name).__class__ is HeldError:
                raise
            hold.stop_writing()  # the system said that it can be written, and was wrong
            return _opened(hold, refusal(fault, path.name).what, wanted)
    except sqlite3.DatabaseError as fault:
        hold.release()
        raise refusal(fault, path.name) from fault
    except BaseException:
        hold.release()
        raise


def check_header(hold: Hold) -> int:
    """Return the layout of a works file, told from its first bytes.

    Raises
    ------
    FormatError : it is no works file, or one of a newer Anlage
    """
    head, where = hold.header(100), hold.path.name
    layout, application = (int.from_bytes(head[at : at + 4], "big") for at in (60, 68))
    if len(head) < 100 or not head.startswith(_MAGIC) or application != APPLICATION_ID:
        raise FormatError("it is no works file", where=where, mend="choose a file that Anlage made")
    if layout > LAYOUT:
        raise FormatError(f"its layout {layout} is of a newer Anlage", where=where, mend="open it with a newer Anlage")
    return layout


def is_works_file(path: Path) -> bool:
    """Return whether a file is a works file by its first bytes; a path that leads to no file is none."""
    try:
        hold = Hold(path)
    except FormatError:
        return False
    try:
        check_header(hold)
    except FormatError as fault:
        return "newer" in fault.what
    finally:
        hold.release()
    return True


def _why_not(hold: Hold, holder: str) -> str:
    """Ask for the right to write; return why it is not given, "" when it is."""
    real = hold.path.resolve()
    if not os.access(real, os.W_OK):
        return "the file may not be written"
    if not os.access(real.parent, os.W_OK):
        return "its folder may not be written"
    if hold.take(holder):
        return ""
    return f"{hold.holder() or 'another window'} writes in it"


def _opened(hold: Hold, why: str, wanted: _Wanted) -> WorksFile:
    write = hold.writes
    flaws: tuple[Notice, ...] = ()

    def checked(path: Path) -> Connection:
        nonlocal flaws
        connection = connect(path, write=write)
        try:
            flaws = check_body(connection, path, inspect=wanted.inspect)
        except BaseException:
            connection.close()
            raise
        return connection

    first = checked(hold.path)
    try:
        layout = first.execute("PRAGMA user_version").fetchone()[0]
        if write and layout < LAYOUT:
            _bring_up(first, wanted.now)
            layout = LAYOUT
    except BaseException:
        first.close()
        raise
    works = WorksFile(Database(hold, first, checked), hold, layout=layout, why_read_only=why)
    works.flaws = flaws
    return works


def check_body(connection: Connection, path: Path, *, inspect: bool = False) -> tuple[Notice, ...]:
    """Refuse a file whose pages are damaged or that holds anything but the tables of a works file.

    With `inspect` what was planted or taken out is returned instead, as long as the tables themselves are there.

    Raises
    ------
    FormatError : the database finds faults in itself, or something was planted in it
    sqlite3.OperationalError : it cannot be read now
    """
    try:
        layout = connection.execute("PRAGMA user_version").fetchone()[0]
        found = parts_of(connection)
        wanted = parts_of_layout(layout) if 1 <= layout <= LAYOUT else frozenset()
        said = [f"its {kind} {name} is not of a works file" for kind, name, _ in sorted(found - wanted)]
        said += [
            f"its {kind} {name} is missing" for kind, name, _ in sorted(wanted - found)
            if (kind, name) not in {(other, own) for other, own, _ in found}
        ]  # fmt: skip
        has_tables = {part for part in wanted if part[0] == "table"} <= found
        if said and not (inspect and has_tables):
            raise FormatError(said[0], where=path.name, mend="take a copy from the backup, or try anlage recover")
        sound = connection.execute("PRAGMA quick_check(1)").fetchone()[0] == "ok"
    except sqlite3.OperationalError:
        raise
    except sqlite3.DatabaseError as fault:
        raise refusal(fault, path.name) from fault
    if not sound:
        raise refusal(sqlite3.DatabaseError(), path.name)
    return tuple(Notice("works.planted", path.name, each) for each in said)


def _bring_up(connection: Connection, now: str) -> None:
    """Bring a file to the present layout: what was issued stays byte for byte, and is linked with the date of today."""
    connection.execute("BEGIN IMMEDIATE")
    try:
        rows = connection.execute("SELECT document_id, body, pending, saved_at FROM drafts ORDER BY rowid").fetchall()
        connection.execute("DROP TABLE drafts")
        for statement in _statements(DRAFTS + LINKS):
            connection.execute(statement)
        for row in rows:
            values = (*row, draft_hash(row["body"], row["pending"]))
            connection.execute("INSERT INTO drafts VALUES (?, ?, ?, ?, ?)", values)
        link_all(connection, now)
        connection.execute(f"PRAGMA user_version = {LAYOUT}")
        connection.execute("COMMIT")
    except BaseException:
        with suppress(sqlite3.Error):
            connection.execute("ROLLBACK")
        raise


def _statements(script: str) -> tuple[str, ...]:
    found, begun = [], ""
    for line in script.splitlines(keepends=True):
        begun += line
        if sqlite3.complete_statement(begun):
            found.append(begun.strip())
            begun = ""
    return tuple(found)


def _recovered(hold: Hold, holder: str) -> bool:
    """Undo what a killed writer left half done, which a reader may not; return whether there was something to undo."""
    journal = hold.path.with_name(f"{hold.path.name}-journal")
    if not journal.exists() or not hold.take(holder):
        return False
    try:
        with closing(connect(hold.path, write=True)) as connection:
            connection.execute("SELECT count(*) FROM sqlite_master").fetchone()
    except sqlite3.DatabaseError:
        return False
    finally:
        hold.stop_writing()
    return not journal.exists()


# Making --------------------------------------------------------------------------------------


def create_works(
    path: Path, *, holder: str = "", fill: Callable[[WorksFile], object] = lambda _works: None
) -> WorksFile:
    """Make a new works file and return it open for writing; it is there whole or not at all.

    Parameters
    ----------
    path : where it is to lie
    holder : the name that a second opener is told
    fill : puts in what is to be in it from the start

    Raises
    ------
    FormatError : something of that name exists, or the folder cannot be written
    """
    if os.path.lexists(path):
        raise FormatError("it exists already", where=path.name, mend="choose another name, or open it")
    beside = build_beside(path, fill)
    try:
        put_in_place(beside, path)
    finally:
        with suppress(OSError):
            beside.unlink()
    return open_works(path, holder=holder)


def empty_beside(path: Path) -> Path:
    """Make an empty file in the folder of another, under a name that nobody takes for one, and return where.

    Raises
    ------
    FormatError : the folder cannot be written
    """
    try:
        beside = path.with_name(f".{path.name}.{os.getpid()}.new")
        beside.unlink(missing_ok=True)
        beside.open("xb").close()
    except (OSError, ValueError) as fault:
        raise FormatError("it cannot be made there", where=path.name, mend="choose a folder you can write") from fault
    return beside


def build_beside(path: Path, fill: Callable[[WorksFile], object]) -> Path:
    """Make a works file in the folder of another, under a name that nobody takes for one, and return where.

    Raises
    ------
    FormatError : the folder cannot be written, or the disk is full
    """
    beside = empty_beside(path)
    try:
        with closing(connect(beside, write=True)) as connection:
            connection.executescript(f"BEGIN;{SCHEMA}COMMIT;")
            connection.execute(f"PRAGMA user_version = {LAYOUT}")
            connection.execute(f"PRAGMA application_id = {APPLICATION_ID}")
        with open_works(beside) as works:
            fill(works)
    except BaseException as fault:
        with suppress(OSError):
            beside.unlink()
        if isinstance(fault, sqlite3.Error):
            raise refusal(fault, path.name) from fault
        raise
    return beside


def put_in_place(beside: Path, path: Path) -> None:
    """Give a finished file its name, if nothing has it.

    Raises
    ------
    FormatError : something of that name exists by now, or the folder cannot be written
    """
    try:
        os.link(beside, path)
    except FileExistsError as fault:
        raise FormatError("it exists already", where=path.name, mend="choose another name, or open it") from fault
    except OSError:  # no second name for a file there, as on many sticks
        _rename(beside, path)
    sync_folder(path.parent)


def exchange(beside: Path, path: Path, kept: Path) -> None:
    """Give a finished file the name of another, which keeps a second one: at no moment is there none of that name.

    Raises
    ------
    OSError : the folder cannot be written
    """
    try:
        os.link(path, kept)
    except OSError:  # no second name for a file there
        path.replace(kept)
    beside.replace(path)
    sync_folder(path.parent)


def sync_folder(folder: Path) -> None:
    """Have the names in a folder on the disk, as far as the system does that."""
    with suppress(OSError):
        descriptor = os.open(folder, os.O_RDONLY | os.O_DIRECTORY)
        try:
            os.fsync(descriptor)
        finally:
            os.close(descriptor)


def _rename(beside: Path, path: Path) -> None:
    try:
        if os.path.lexists(path):
            raise FormatError("it exists already", where=path.name, mend="choose another name, or open it")
        beside.rename(path)
    except OSError as fault:
        raise FormatError("it cannot be made there", where=path.name, mend="choose a folder you can write") from fault
