"""The one connection to a works file: what is done with it in one go is in the file afterwards, or nothing of it."""

import sqlite3
import threading
from collections.abc import Callable, Iterator
from contextlib import contextmanager, suppress
from pathlib import Path
from typing import Final

from anlage.core.errors import FormatError
from anlage.store.faults import refusal
from anlage.store.hold import Hold

LONGEST: Final = 256_000_000  # bytes of one text; no document comes near
STEPS: Final = 100_000  # of the database's machine, between two looks at how many they were
MOST_LOOKS: Final = 4000  # in one go; a works file of a thousand documents is checked whole in a hundredth of that
PATIENT_MS: Final = 1000  # that a command waits for another program; a person waits with it
BRIEF_MS: Final = 50  # that a save waits, which is tried again: whoever reads meanwhile waits with it


class Connection(sqlite3.Connection):
    """A connection that gives up what takes beyond all measure."""

    _looks = 0

    def begin_anew(self) -> None:
        """Measure from here."""
        self._looks = 0

    def is_beyond_measure(self) -> bool:
        """Take note that so many steps were made; return whether that is enough."""
        self._looks += 1
        return self._looks > MOST_LOOKS


def connect(path: Path, *, write: bool) -> Connection:
    """Return a connection that trusts nothing in the file; without `write` it cannot change it.

    Raises
    ------
    sqlite3.DatabaseError : it cannot be opened
    """
    where = f"{path.absolute().as_uri()}?mode={'rw' if write else 'ro'}"
    connection = sqlite3.connect(where, uri=True, check_same_thread=False, isolation_level=None, factory=Connection)
    connection.row_factory = sqlite3.Row
    connection.text_factory = lambda data: data.decode(errors="replace")  # a bad byte hides nothing else
    connection.setlimit(sqlite3.SQLITE_LIMIT_LENGTH, LONGEST)
    connection.set_progress_handler(connection.is_beyond_measure, STEPS)
    try:
        _set_up(connection, write=write)
    except sqlite3.DatabaseError:
        connection.close()
        raise
    except UnicodeDecodeError as fault:  # what the database says of itself is no text
        connection.close()
        raise sqlite3.DatabaseError("malformed") from fault
    return connection


def _set_up(connection: sqlite3.Connection, *, write: bool) -> None:
    pragmas = ["trusted_schema = OFF", "foreign_keys = ON", "synchronous = FULL", f"busy_timeout = {PATIENT_MS}"]
    if not write:
        pragmas.append("query_only = ON")
    for pragma in pragmas:
        connection.execute(f"PRAGMA {pragma}")


class Database:
    """The connection of an open works file; one thread at a time.

    Parameters
    ----------
    hold : which file it is, wherever it lies by now
    connection : the connection to it
    opened : makes another one to wherever it lies by then
    """

    def __init__(self, hold: Hold, connection: Connection, opened: Callable[[Path], Connection]) -> None:
        self._hold, self._opened = hold, opened
        self.path = hold.path
        self._one_at_a_time = threading.RLock()
        self._connection: Connection | None = connection
        self._is_closed = False

    @contextmanager
    def reading(self) -> Iterator[sqlite3.Connection]:
        """Yield the connection for questions that see one state of the file.

        Raises
        ------
        FormatError : the database cannot answer
        """
        with self._one_at_a_time, self._in_one_go("BEGIN", PATIENT_MS) as connection:
            yield connection

    @contextmanager
    def writing(self, patience_ms: int = PATIENT_MS) -> Iterator[sqlite3.Connection]:
        """Yield the connection: all that is done with it is in the file afterwards, or nothing.

        Raises
        ------
        HeldError : another program holds the file for longer than the patience
        FormatError : it was not written, and why
        """
        with self._one_at_a_time:
            self._follow()
            with self._in_one_go("BEGIN IMMEDIATE", patience_ms, first="PRAGMA journal_mode = DELETE") as connection:
                yield connection

    @contextmanager
    def _in_one_go(self, begin: str, patience_ms: int, *, first: str = "") -> Iterator[sqlite3.Connection]:
        try:
            connection = self._live()
            connection.execute(f"PRAGMA busy_timeout = {patience_ms}")
            if first:
                connection.execute(first)
            connection.execute(begin)
            yield connection
            connection.execute("COMMIT")
        except UnicodeDecodeError as fault:  # what the database says of itself is no text
            self._roll_back()
            raise refusal(sqlite3.DatabaseError("malformed"), self.path.name) from fault
        except sqlite3.Error as fault:
            self._roll_back()
            raise refusal(fault, self.path.name) from fault
        except BaseException:
            self._roll_back()
            raise

    def _live(self) -> Connection:
        if self._is_closed:
            raise FormatError("it is closed", where=self.path.name, mend="open it again")
        if self._connection is None:
            self._connection = self._opened(self.path)
        self._connection.begin_anew()
        return self._connection

    def _roll_back(self) -> None:
        """Undo what was begun; a connection that cannot even do that is thrown away, which undoes it too."""
        connection = self._connection
        if connection is None or not connection.in_transaction:
            return
        try:
            connection.execute("ROLLBACK")
        except sqlite3.Error:
            self._drop()

    def _drop(self) -> None:
        connection, self._connection = self._connection, None
        if connection is not None:
            with suppress(sqlite3.Error):
                connection.close()

    def _follow(self) -> None:
        """Take note of where the file lies now: a journal beside its old name would be lost at a crash.

        Raises
        ------
        FormatError : it was removed, or another file has taken its place
        """
        lies = self._hold.now_at()
        if lies is None:
            what = "it is no longer there, it was removed or another file was put in its place"
            raise FormatError(what, where=self.path.name, mend="save the works file under another name")
        if lies != self.path:
            self._drop()
            self.path = self._hold.path = lies

    def copy_to(self, target: sqlite3.Connection) -> None:
        """Copy everything into another database.

        Raises
        ------
        FormatError : the file cannot be read whole, or the copy cannot be written
        """
        with self._one_at_a_time:
            try:
                self._live().backup(target)
            except sqlite3.Error as fault:
                raise refusal(fault, self.path.name) from fault

    def close(self) -> None:
        """Close the connection and let go of the file; whatever was begun is undone."""
        with self._one_at_a_time:
            self._is_closed = True
            self._drop()
            self._hold.release()
