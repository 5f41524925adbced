"""A works file open: its documents, drafts and issued revisions.

Glossary
--------
works file : one database, `*.anlage`, of everything a works has written
draft : a document's last good value, with the texts that do not parse yet, by field path
revision : a value with number, author, time and hash; it never changes
"""

import hashlib
import json
import sqlite3
import threading
import uuid
from collections.abc import Iterator, Mapping
from contextlib import AbstractContextManager, contextmanager
from pathlib import Path
from typing import Self

from msgspec import Struct

from anlage.core.errors import FormatError, InputError, UnknownNameError
from anlage.core.results import Notice
from anlage.store.lock import WriterLock
from anlage.store.opening import check_body, check_header, connect, damaged
from anlage.store.tables import APPLICATION_ID, LAYOUT, SCHEMA


class Entry(Struct, frozen=True):
    """One document in the list: what it is, and how many revisions were issued."""

    id: str
    kind: str
    number: str
    title: str
    revisions: int
    deleted: bool


class Draft(Struct, frozen=True):
    """A document's last good value as JSON text, and the texts that do not parse, by field path.

    `flaws` says what of it could not be read as it was saved.
    """

    body: str
    pending: Mapping[str, str]
    flaws: tuple[str, ...] = ()


class Revision(Struct, frozen=True):
    """An issued value: JSON text, its number and hash, who issued it and when (UTC, ISO 8601)."""

    number: int
    body: str
    sha256: str
    author: str
    issued_at: str


def _draft(body: object, pending: object, *, where: str) -> Draft:
    """Return a draft from what stands in its row, damaged or not."""
    flaws: list[str] = []
    if isinstance(body, str):
        text = body  # the bytes of a text, marked as one
    elif isinstance(body, bytes):
        text = body.decode(errors="replace")
        if text.encode() != body:
            flaws.append("some of its bytes were no text and are replaced")
    else:
        raise FormatError("a draft holds no text", where=where, mend="take a copy of the file, or an issued revision")
    waiting: dict[str, str] = {}
    try:
        read = json.loads(pending) if isinstance(pending, str | bytes) else None
    except ValueError:  # no JSON, no UTF-8
        read = None
    if isinstance(read, dict):
        waiting = {path: typed for path, typed in read.items() if isinstance(typed, str)}
    if not isinstance(read, dict) or len(waiting) < len(read):
        flaws.append("texts that waited in its fields could not be read")
    return Draft(text, waiting, tuple(flaws))


def create_works(path: Path, *, holder: str = "") -> "WorksFile":
    """Make a new works file and return it open for writing.

    Raises
    ------
    FormatError : something of that name exists, or the folder cannot be written
    """
    try:
        path.open("xb").close()
    except FileExistsError as fault:
        raise FormatError("it exists already", where=path.name, mend="choose another name, or open it") from fault
    except OSError as fault:
        raise FormatError("it cannot be made there", where=path.name, mend="choose a folder you can write") from fault
    connection = connect(path, write=True)
    connection.execute(f"PRAGMA application_id = {APPLICATION_ID}")
    connection.execute(f"PRAGMA user_version = {LAYOUT}")
    connection.close()
    return open_works(path, holder=holder, new=True)


def open_works(path: Path, *, holder: str = "", read_only: bool = False, new: bool = False) -> "WorksFile":
    """Open a works file; for reading only when someone else writes in it or the file cannot be written.

    Parameters
    ----------
    path : the file
    holder : the name that a second opener is told
    read_only : do not ask for the right to write
    new : the file was just made and has no tables yet

    Raises
    ------
    FormatError : broken, foreign, newer or missing; the file is left as it was
    """
    check_header(path)
    lock = WriterLock(path)
    write = not read_only and lock.take(holder)
    try:
        return WorksFile(path, lock, write=write, new=new)
    except sqlite3.OperationalError as fault:
        lock.release()
        if write and not new:  # the file itself may not be written, though its folder may
            return open_works(path, read_only=True)
        if not write and _recovered(path, lock, holder):
            return open_works(path, holder=holder, read_only=True)
        raise damaged(path, fault) from fault
    except sqlite3.DatabaseError as fault:
        lock.release()
        raise damaged(path, fault) from fault
    except FormatError:
        lock.release()
        raise


def _recovered(path: Path, lock: WriterLock, holder: str) -> bool:
    """Undo what a killed writer left half done, which a reader may not; return whether there was something to undo."""
    if not path.with_name(path.name + "-journal").exists() or not lock.take(holder):
        return False
    try:
        connection = connect(path, write=True)
        connection.execute("SELECT count(*) FROM sqlite_master").fetchone()
        connection.close()
    except sqlite3.DatabaseError:
        return False
    finally:
        lock.release()
    return not path.with_name(path.name + "-journal").exists()


class WorksFile:
    """An open works file. All access goes through one connection, one thread at a time."""

    def __init__(self, path: Path, lock: WriterLock, *, write: bool, new: bool = False) -> None:
        self.path, self.can_write = path, write
        self._lock = lock
        self._connection = connect(path, write=write)
        self._one_at_a_time = threading.RLock()
        try:
            if new:
                self._connection.executescript(f"BEGIN;{SCHEMA}COMMIT;")
            check_body(self._connection, path)
        except Exception:
            self._close_connection()
            raise

    @property
    def held_by(self) -> str:
        """Who else writes in the file, when it could be opened for reading only; "" when nobody can be named."""
        return "" if self.can_write else self._lock.holder()

    def __enter__(self) -> Self:
        return self

    def __exit__(self, *_: object) -> None:
        self.close()

    def close(self) -> None:
        """Close the file and let another write."""
        with self._one_at_a_time:
            self._close_connection()
            if self.can_write:
                self._lock.release()

    def _close_connection(self) -> None:
        self._connection.close()

    # Reading ---------------------------------------------------------------------------------

    def entries(self, *, deleted: bool = False) -> tuple[Entry, ...]:
        """Return the documents in the order they were made; the deleted ones only when asked for."""
        query = f"""
            SELECT id, kind, number, title, deleted_at,
              (SELECT count(*) FROM revisions WHERE document_id = documents.id) AS issued
            FROM documents WHERE deleted_at IS {"NOT" if deleted else ""} NULL ORDER BY rowid
        """  # noqa: S608 - one of two words of our own
        with self._transaction() as connection:
            rows = connection.execute(query).fetchall()
        return tuple(
            Entry(row["id"], row["kind"], row["number"], row["title"], row["issued"], row["deleted_at"] is not None)
            for row in rows
        )

    def draft(self, document_id: str) -> Draft:
        """Return a document's draft.

        Raises
        ------
        UnknownNameError : there is no such document
        FormatError : no text is saved as its draft
        """
        with self._transaction() as connection:
            query = "SELECT body, pending FROM drafts WHERE document_id = ?"
            row = connection.execute(query, (document_id,)).fetchone()
        if row is None:
            raise UnknownNameError(document_id, [entry.id for entry in self.entries()], where=self.path.name)
        return _draft(row["body"], row["pending"], where=self.path.name)

    def revisions(self, document_id: str) -> tuple[Revision, ...]:
        """Return a document's issued revisions, oldest first."""
        query = "SELECT * FROM revisions WHERE document_id = ? ORDER BY number"
        with self._transaction() as connection:
            rows = connection.execute(query, (document_id,)).fetchall()
        return tuple(
            Revision(
                row["number"], row["body"].decode(errors="replace"), row["sha256"], row["author"], row["issued_at"]
            )
            for row in rows
        )

    def verify(self) -> tuple[Notice, ...]:
        """Return a notice for every issued revision that is not what was issued; none means all are intact."""
        query = """
            SELECT revisions.*, documents.number AS name
            FROM revisions LEFT JOIN documents ON documents.id = document_id
            ORDER BY document_id, revisions.number
        """
        notices: list[Notice] = []
        expected: dict[str, int] = {}
        with self._transaction() as connection:
            rows = connection.execute(query).fetchall()
        for row in rows:
            number, owner = row["number"], row["document_id"]
            place = f"{row['name'] or owner}@{number}"
            if hashlib.sha256(row["body"]).hexdigest() != row["sha256"]:
                text = f"{place} is not what was issued: its bytes no longer give its hash"
                notices.append(Notice("works.revision_changed", place, text))
            following = expected.get(owner, 1)
            if number != following:
                text = f"{place} follows {following - 1}: a revision between them is gone"
                notices.append(Notice("works.revision_missing", place, text))
            expected[owner] = number + 1
        return tuple(notices)

    # Writing ---------------------------------------------------------------------------------

    def add(self, kind: str, body: str, *, now: str, number: str = "", title: str = "") -> str:
        """Add a document with its first draft and return its id.

        Raises
        ------
        InputError : the file is open for reading only
        """
        document_id = uuid.uuid4().hex
        with self._writing() as connection:
            columns = "INSERT INTO documents (id, kind, number, title, created_at) VALUES (?, ?, ?, ?, ?)"
            connection.execute(columns, (document_id, kind, number, title, now))
            draft = "INSERT INTO drafts (document_id, body, saved_at) VALUES (?, ?, ?)"
            connection.execute(draft, (document_id, body.encode(), now))
        return document_id

    def save_draft(self, document_id: str, draft: Draft, *, now: str, number: str = "", title: str = "") -> None:
        """Save a draft over the last one; either the whole new draft is in the file afterwards or the whole old one.

        Raises
        ------
        InputError : the file is open for reading only
        UnknownNameError : there is no such document
        """
        pending = json.dumps(dict(draft.pending))  # escaped: half a surrogate pair can be typed, and is not lost
        with self._writing() as connection:
            values = (draft.body.encode(), pending, now, document_id)
            done = connection.execute(
                "UPDATE drafts SET body = ?, pending = ?, saved_at = ? WHERE document_id = ?", values
            )
            if done.rowcount != 1:
                raise UnknownNameError(document_id, (), where=self.path.name)
            names = (number, title, document_id)
            connection.execute("UPDATE documents SET number = ?, title = ? WHERE id = ?", names)

    def issue(self, document_id: str, body: str, *, author: str, now: str) -> Revision:
        """Store a value as the next revision and return it.

        Raises
        ------
        InputError : no author is stated, or the file is open for reading only
        """
        if not author.strip():
            raise InputError("nobody issues it", where="author", mend="state your name in the settings")
        data = body.encode()
        digest = hashlib.sha256(data).hexdigest()
        with self._writing() as connection:
            last = "SELECT coalesce(max(number), 0) AS last FROM revisions WHERE document_id = ?"
            number = connection.execute(last, (document_id,)).fetchone()["last"] + 1
            columns = "INSERT INTO revisions (document_id, number, body, sha256, author, issued_at)"
            values = (document_id, number, data, digest, author, now)
            connection.execute(f"{columns} VALUES (?, ?, ?, ?, ?, ?)", values)
        return Revision(number, body, digest, author, now)

    def delete(self, document_id: str, *, now: str) -> None:
        """Put a document away; it is kept and can be restored.

        Raises
        ------
        InputError : the file is open for reading only
        """
        self._mark(document_id, now)

    def restore(self, document_id: str) -> None:
        """Bring a deleted document back.

        Raises
        ------
        InputError : the file is open for reading only
        """
        self._mark(document_id, None)

    def _mark(self, document_id: str, deleted_at: str | None) -> None:
        with self._writing() as connection:
            connection.execute("UPDATE documents SET deleted_at = ? WHERE id = ?", (deleted_at, document_id))

    @contextmanager
    def _transaction(self) -> Iterator[sqlite3.Connection]:
        """Yield the one connection: all that is done with it is in the file afterwards, or nothing."""
        with self._one_at_a_time:
            self._connection.execute("BEGIN")
            try:
                yield self._connection
            except BaseException:
                self._connection.execute("ROLLBACK")
                raise
            self._connection.execute("COMMIT")

    def _writing(self) -> AbstractContextManager[sqlite3.Connection]:
        if not self.can_write:
            who = self.held_by
            what = f"it is open for reading only{f', {who} writes in it' if who else ''}"
            raise InputError(what, where=self.path.name, mend="save under another name, or ask for it to be closed")
        return self._transaction()
