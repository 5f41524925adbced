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
import uuid
from collections.abc import Mapping
from contextlib import AbstractContextManager, closing
from pathlib import Path
from typing import Self

from msgspec import Struct
from msgspec.structs import replace

from anlage.core.errors import FormatError, InputError, UnknownNameError
from anlage.core.results import Notice
from anlage.store.chain import Link, add_link, faults_of_chain, links_of
from anlage.store.connection import BRIEF_MS, PATIENT_MS, Database, connect
from anlage.store.faults import ConflictError
from anlage.store.hold import Hold, identity

CHAINED = 2  # the first layout with a chain and checksums


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
    """An issued value: JSON text, number and hash, who issued it and when (UTC, ISO 8601), its link in the chain."""

    number: int
    body: str
    sha256: str
    author: str
    issued_at: str
    link: str = ""


def draft_hash(body: object, pending: object) -> str:
    """Return the checksum of a draft as it stands in its row."""
    return hashlib.sha256(as_bytes(body) + b"\0" + as_bytes(pending)).hexdigest()


def as_bytes(stored: object) -> bytes:
    """Return what stands in a column, whatever kind of value a foreign hand put there."""
    return stored if isinstance(stored, bytes) else str(stored).encode(errors="replace")


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
    except (ValueError, RecursionError):  # no JSON, no UTF-8
        read = None
    if isinstance(read, dict):
        waiting = {path: typed for path, typed in read.items() if isinstance(typed, str)}
    if not isinstance(read, dict) or len(waiting) < len(read):
        flaws.append("texts that waited in its fields could not be read")
    return Draft(text, waiting, tuple(flaws))


def _revision(row: sqlite3.Row, link: str = "") -> Revision:
    body = as_bytes(row["body"]).decode(errors="replace")
    return Revision(row["number"], body, row["sha256"], row["author"], row["issued_at"], link)


class WorksFile:
    """An open works file. All access goes through one connection, one thread at a time.

    Parameters
    ----------
    database : its connection
    hold : its lock
    layout : of its tables
    why_read_only : why it cannot be written; "" when it can
    """

    def __init__(self, database: Database, hold: Hold, *, layout: int, why_read_only: str = "") -> None:
        self._database, self._hold, self._layout = database, hold, layout
        self.why_read_only = why_read_only
        self.flaws: tuple[Notice, ...] = ()  # what was planted in it, where that was to be told
        self._seen: dict[str, str] = {}  # by document, the hash of the draft that was read or written last

    @property
    def path(self) -> Path:
        """Where it lies; another name when it was renamed since."""
        return self._database.path

    @property
    def can_write(self) -> bool:
        """Whether it is open for writing."""
        return not self.why_read_only

    @property
    def held_by(self) -> str:
        """Who else writes in the file, when it could be opened for reading only; "" when nobody can be named."""
        return "" if self.can_write else self._hold.holder()

    def is_at(self, path: Path) -> bool:
        """Return whether a path leads to this very file."""
        return identity(path) == self._hold.identity

    def __enter__(self) -> Self:
        return self

    def __exit__(self, *_: object) -> None:
        self.close()

    def close(self) -> None:
        """Close the file and let another write."""
        self._database.close()

    # Reading ---------------------------------------------------------------------------------

    def entries(self, *, deleted: bool = False) -> tuple[Entry, ...]:
        """Return the documents in the order they were made; the deleted ones only when asked for."""
        query = f"""
            SELECT id, kind, number, title, deleted_at,
              (SELECT count(*) FROM revisions WHERE document_id = documents.id) AS issued
            FROM documents WHERE deleted_at IS {"NOT" if deleted else ""} NULL ORDER BY rowid
        """  # noqa: S608 - one of two words of our own
        with self._database.reading() as connection:
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
        with self._database.reading() as connection:
            row = connection.execute("SELECT * FROM drafts WHERE document_id = ?", (document_id,)).fetchone()
        if row is None:
            raise UnknownNameError(document_id, [entry.id for entry in self.entries()], where=self.path.name)
        found = draft_hash(row["body"], row["pending"])
        self._seen[document_id] = found
        draft = _draft(row["body"], row["pending"], where=self.path.name)
        if self._layout > 1 and row["sha256"] != found and not draft.flaws:
            draft = replace(draft, flaws=("it is not what was saved: its checksum is another",))
        return draft

    def revisions(self, document_id: str) -> tuple[Revision, ...]:
        """Return a document's issued revisions, oldest first."""
        query = "SELECT * FROM revisions WHERE document_id = ? ORDER BY number"
        with self._database.reading() as connection:
            rows = connection.execute(query, (document_id,)).fetchall()
        links = {link.number: link.sha256 for link in self.links() if link.document_id == document_id}
        return tuple(_revision(row, links.get(row["number"], "")) for row in rows)

    def last_revision(self, document_id: str) -> Revision | None:
        """Return the revision of a document that was issued last, without its link; `None` before the first."""
        query = "SELECT * FROM revisions WHERE document_id = ? ORDER BY number DESC LIMIT 1"
        with self._database.reading() as connection:
            row = connection.execute(query, (document_id,)).fetchone()
        return None if row is None else _revision(row)

    def stamps(self) -> dict[str, str]:
        """Return of every document that is not put away what is another text once its draft or revisions change."""
        checksum = "d.sha256" if self._layout > 1 else "d.body"
        query = f"""
            SELECT d.document_id, {checksum} AS checksum,
              (SELECT count(*) FROM revisions WHERE document_id = d.document_id) AS issued
            FROM drafts d JOIN documents ON documents.id = d.document_id AND deleted_at IS NULL
        """  # noqa: S608 - one of two words of our own
        with self._database.reading() as connection:
            rows = connection.execute(query).fetchall()
        return {row["document_id"]: f"{row['issued']} {as_bytes(row['checksum']).decode('ascii', 'replace')}"
                for row in rows}  # fmt: skip

    def links(self) -> tuple[Link, ...]:
        """Return the chain of issued revisions, first link first; none in a file older than the chain."""
        if self._layout < CHAINED:
            return ()
        with self._database.reading() as connection:
            return links_of(connection)

    def verify(self) -> tuple[Notice, ...]:
        """Return a notice for every issued revision that is not what was issued; none means all are intact."""
        query = """
            SELECT revisions.*, documents.number AS name
            FROM revisions LEFT JOIN documents ON documents.id = document_id
            ORDER BY document_id, revisions.number
        """
        notices: list[Notice] = []
        expected: dict[str, int] = {}
        with self._database.reading() as connection:
            rows = connection.execute(query).fetchall()
            called = {row["document_id"]: row["name"] or row["document_id"] for row in rows}
            chain = faults_of_chain(connection, called) if self._layout >= CHAINED else ()
        for row in rows:
            number, owner = row["number"], row["document_id"]
            place = f"{called[owner]}@{number}"
            if not isinstance(number, int):
                notices.append(Notice.of("works.revision_changed", place, f"{place} has no number"))
                continue
            if hashlib.sha256(as_bytes(row["body"])).hexdigest() != row["sha256"]:
                text = f"{place} is not what was issued: its bytes no longer give its hash"
                notices.append(Notice.of("works.revision_changed", place, text))
            following = expected.get(owner, 1)
            if number != following:
                text = f"{place} follows {following - 1}: a revision between them is gone"
                notices.append(Notice.of("works.revision_missing", place, text))
            expected[owner] = number + 1
        return (*self.flaws, *notices, *chain)

    def verify_drafts(self) -> tuple[Notice, ...]:
        """Return a notice for every draft that is not what was saved, put away or not."""
        notices = []
        for entry in (*self.entries(), *self.entries(deleted=True)):
            try:
                flaws = self.draft(entry.id).flaws
            except (FormatError, UnknownNameError) as fault:
                flaws = (fault.what if isinstance(fault, FormatError) else "it is gone",)
            name = entry.number or entry.id
            notices += [Notice.of("works.draft_changed", name, f"the draft of {name}: {flaw}") for flaw in flaws]
        return tuple(notices)

    def copy_to(self, target: Path) -> None:
        """Copy everything into a new database beside; whoever calls gives it its name.

        Raises
        ------
        FormatError : the file cannot be read whole, or the copy cannot be written
        """
        with closing(connect(target, write=True)) as copy:
            self._database.copy_to(copy)

    # Writing ---------------------------------------------------------------------------------

    def add(self, kind: str, body: str, *, now: str, number: str = "", title: str = "") -> str:
        """Add a document with its first draft and return its id.

        Raises
        ------
        InputError : the file is open for reading only
        FormatError : it was not written, and why
        """
        document_id = uuid.uuid4().hex
        data, pending = body.encode(), "{}"
        own = draft_hash(data, pending)
        with self._writing() as connection:
            columns = "INSERT INTO documents (id, kind, number, title, created_at) VALUES (?, ?, ?, ?, ?)"
            connection.execute(columns, (document_id, kind, number, title, now))
            draft = "INSERT INTO drafts (document_id, body, pending, saved_at, sha256) VALUES (?, ?, ?, ?, ?)"
            connection.execute(draft, (document_id, data, pending, now, own))
        self._seen[document_id] = own
        return document_id

    def save_draft(self, document_id: str, draft: Draft, *, now: str, number: str = "", title: str = "") -> None:
        """Save a draft over the last one; either the whole new draft is in the file afterwards or the whole old one.

        Raises
        ------
        InputError : the file is open for reading only
        UnknownNameError : there is no such document
        ConflictError : the draft in the file is another than was read from it or written last
        HeldError : another program holds the file
        FormatError : it was not written, and why
        """
        data = draft.body.encode()
        pending = json.dumps(dict(draft.pending))  # escaped: half a surrogate pair can be typed, and is not lost
        own = draft_hash(data, pending)
        with self._writing(BRIEF_MS) as connection:
            query = "SELECT body, pending FROM drafts WHERE document_id = ?"
            before = connection.execute(query, (document_id,)).fetchone()
            if before is None:
                raise UnknownNameError(document_id, (), where=self.path.name)
            there = draft_hash(before["body"], before["pending"])
            if self._seen.setdefault(document_id, there) != there:
                what = f"{number or document_id} was changed in it by another program"
                raise ConflictError(what, where=self.path.name, mend="save under another name, and compare the two")
            values = (data, pending, now, own, document_id)
            query = "UPDATE drafts SET body = ?, pending = ?, saved_at = ?, sha256 = ? WHERE document_id = ?"
            connection.execute(query, values)
            names = (number, title, document_id)
            connection.execute("UPDATE documents SET number = ?, title = ? WHERE id = ?", names)
        self._seen[document_id] = own

    def issue(self, document_id: str, body: str, *, author: str, now: str) -> Revision:
        """Store a value as the next revision, linked to the one issued before it, and return it.

        Raises
        ------
        InputError : no author is stated, or the file is open for reading only
        FormatError : it was not written, and why
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
            query = "SELECT * FROM revisions WHERE document_id = ? AND number = ?"
            link = add_link(connection, connection.execute(query, (document_id, number)).fetchone(), now)
        return Revision(number, body, digest, author, now, link)

    def delete(self, document_id: str, *, now: str) -> None:
        """Put a document away; it is kept and can be restored.

        Raises
        ------
        InputError : the file is open for reading only
        FormatError : it was not written, and why
        """
        self._mark(document_id, now)

    def restore(self, document_id: str) -> None:
        """Bring a deleted document back.

        Raises
        ------
        InputError : the file is open for reading only
        FormatError : it was not written, and why
        """
        self._mark(document_id, None)

    def _mark(self, document_id: str, deleted_at: str | None) -> None:
        with self._writing() as connection:
            connection.execute("UPDATE documents SET deleted_at = ? WHERE id = ?", (deleted_at, document_id))

    def _writing(self, patience_ms: int = PATIENT_MS) -> AbstractContextManager[sqlite3.Connection]:
        if not self.can_write:
            what = f"it is open for reading only, {self.why_read_only}"
            raise InputError(what, where=self.path.name, mend="save under another name, or ask for it to be closed")
        return self._database.writing(patience_ms)
