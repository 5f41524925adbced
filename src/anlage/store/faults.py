"""What the database says of a fault, as one sentence that says how to mend it."""

import sqlite3

from anlage.core.errors import FormatError


class HeldError(FormatError):
    """Another program holds the file for the moment; what was wanted is tried again."""


class ConflictError(FormatError):
    """The file no longer holds what was read from it: nothing is written over what nobody has seen."""


SAID = {
    sqlite3.SQLITE_FULL: ("the disk is full", "make room on it, or save under another name"),
    sqlite3.SQLITE_READONLY: ("it may not be written", "ask for the right to write it, or save under another name"),
    sqlite3.SQLITE_PERM: ("it may not be written", "ask for the right to write it, or save under another name"),
    sqlite3.SQLITE_CANTOPEN: ("its folder cannot be written", "ask for the right to, or save under another name"),
    sqlite3.SQLITE_IOERR: ("the disk refused it", "look after the disk, and save under another name"),
    sqlite3.SQLITE_CORRUPT: ("it is damaged", "take a copy from the backup, or try anlage recover"),
    sqlite3.SQLITE_NOTADB: ("it is damaged", "take a copy from the backup, or try anlage recover"),
    sqlite3.SQLITE_INTERRUPT: ("it takes beyond all measure to read", "take a copy from the backup"),
    sqlite3.SQLITE_TOOBIG: ("it holds more than any document", "take a copy from the backup"),
}
HELD = {sqlite3.SQLITE_BUSY, sqlite3.SQLITE_LOCKED}


def refusal(fault: Exception, name: str) -> FormatError:
    """Return what is told of a fault of the database, or of the system, in a works file of some name."""
    code = getattr(fault, "sqlite_errorcode", None)
    code = None if code is None else code & 0xFF  # what is above is finer than anybody can use
    if code in HELD or (code is None and "locked" in str(fault)):
        return HeldError("another program holds it", where=name, mend="close it there, or try again in a moment")
    what, mend = SAID.get(code or -1, ("it is damaged", "take a copy from the backup, or try anlage recover"))
    if code == sqlite3.SQLITE_CONSTRAINT:
        what, mend = f"it refused what it was given: {fault}", "take a copy from the backup"
    return FormatError(what, where=name, mend=mend)
