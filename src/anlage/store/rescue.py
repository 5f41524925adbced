"""Saving what can be read of a damaged works file into a new one."""

import json
import os
import sqlite3
from collections.abc import Mapping
from contextlib import closing, suppress
from pathlib import Path
from typing import Any, Final

from msgspec import Struct

from anlage.core.errors import FormatError
from anlage.core.results import Notice
from anlage.store.chain import link_all
from anlage.store.connection import connect
from anlage.store.faults import refusal
from anlage.store.hold import Hold
from anlage.store.opening import build_beside, open_works, put_in_place
from anlage.store.works import as_bytes, draft_hash

PROBED: Final = 20_000  # rows that are looked for one by one between the readable ends of a table
COLUMNS: Final[Mapping[str, tuple[str, ...]]] = {
    "documents": ("id", "kind", "number", "title", "created_at", "deleted_at"),
    "drafts": ("document_id", "body", "pending", "saved_at", "sha256"),
    "revisions": ("document_id", "number", "body", "sha256", "author", "issued_at"),
    "links": ("place", "document_id", "number", "linked_at", "sha256"),
}
Row = dict[str, Any]


class Recovered(Struct, frozen=True):
    """How much was saved, and a notice for each thing that was not, or not as it was."""

    documents: int
    revisions: int
    notices: tuple[Notice, ...]


def recover(source: Path, target: Path, *, now: str) -> Recovered:
    """Save what can be read of a works file into a new one; the damaged one stays as it is.

    Parameters
    ----------
    source : the damaged works file
    target : the new one, which must not exist yet
    now : the time as ISO 8601 in UTC, for what has lost its own

    Raises
    ------
    FormatError : nothing can be read at all, or the new file cannot be made
    """
    if os.path.lexists(target):
        raise FormatError("it exists already", where=target.name, mend="choose another name")
    tables = _tables_of_copy(source, target)
    if not any(tables.values()):
        raise FormatError("nothing in it can be read", where=source.name, mend="take a copy from the backup")
    told: list[Notice] = []
    beside = build_beside(target, lambda _works: None)
    try:
        with closing(connect(beside, write=True)) as connection:
            connection.execute("BEGIN")
            documents, revisions = _put(connection, tables, now, told)
            connection.execute("COMMIT")
        with open_works(beside, read_only=True) as works:
            told += works.verify()
        put_in_place(beside, target)
    except sqlite3.Error as fault:
        raise refusal(fault, target.name) from fault
    finally:
        with suppress(OSError):
            beside.unlink(missing_ok=True)
    return Recovered(documents, revisions, tuple(told))


# Reading -------------------------------------------------------------------------------------


def _tables_of_copy(source: Path, target: Path) -> Mapping[str, list[Row]]:
    """Return the rows that can be read, from a copy: what a killed writer left half done is undone there."""
    scratch = target.with_name(f".{target.name}.{os.getpid()}.scratch")
    journal = scratch.with_name(f"{scratch.name}-journal")
    hold = Hold(source)
    try:
        scratch.write_bytes(hold.header(source.stat().st_size))
        with suppress(FileNotFoundError):
            journal.write_bytes(source.with_name(f"{source.name}-journal").read_bytes())
        with closing(connect(scratch, write=True)) as connection:
            connection.execute("PRAGMA writable_schema = ON")  # what was planted in the schema is passed over
            found = {table: _rows(connection, table, columns) for table, columns in COLUMNS.items()}
            if not found["drafts"]:  # of the layout before there were checksums
                found["drafts"] = _rows(connection, "drafts", COLUMNS["drafts"][:-1])
            return found
    except OSError as fault:
        raise FormatError("it cannot be made there", where=target.name, mend="choose a folder with room") from fault
    except sqlite3.Error:
        return {}
    finally:
        hold.release()
        for each in (scratch, journal):
            with suppress(OSError):
                each.unlink(missing_ok=True)


def _rows(connection: Any, table: str, columns: tuple[str, ...]) -> list[Row]:
    """Return the rows of a table: from the front, from the back, and one by one where neither gets through."""
    found: dict[int, Row] = {}
    query = f"SELECT rowid AS at, {', '.join(columns)} FROM {table}"  # noqa: S608 - names of our own

    def take(more: str, *values: int) -> bool:
        connection.begin_anew()
        try:
            for row in connection.execute(f"{query} {more}", values):
                found[row["at"]] = {name: row[name] for name in columns}
        except (sqlite3.Error, OverflowError, MemoryError):
            return False
        return True

    if not take("NOT INDEXED ORDER BY rowid") and not take("NOT INDEXED ORDER BY rowid DESC"):
        last = max(found, default=0) or PROBED
        for at in range(1, min(last, PROBED) + 1):
            if at not in found:
                take("WHERE rowid = ?", at)
    return [found[at] for at in sorted(found)]


# Writing -------------------------------------------------------------------------------------


def _put(
    connection: sqlite3.Connection, tables: Mapping[str, list[Row]], now: str, told: list[Notice]
) -> tuple[int, int]:
    drafts = {str(row["document_id"]): row for row in tables["drafts"] if row["body"] is not None}
    revisions = [row for row in tables["revisions"] if row["body"] is not None and isinstance(row["number"], int)]
    known = {str(row["id"]): row for row in tables["documents"]}
    owners = dict.fromkeys([*known, *drafts, *(str(row["document_id"]) for row in revisions)])
    count = 0
    for own in owners:
        issued = [row for row in revisions if str(row["document_id"]) == own]
        count += _put_document(connection, own, (known.get(own), drafts.get(own), issued), now, told)
    put = _insert_each(connection, "revisions", [r for r in revisions if str(r["document_id"]) in owners], told)
    held = connection.execute("SELECT count(*) FROM revisions").fetchone()[0]
    if len(tables["links"]) >= held:
        _insert_each(connection, "links", tables["links"], told)
    else:
        link_all(connection, now)
        if held:
            text = "the chain of revisions could not be read, and is made anew with the date of today"
            told.append(Notice("works.chain_lost", "chain", text))
    return count, put


def _put_document(
    connection: sqlite3.Connection, own: str, found: tuple[Row | None, Row | None, list[Row]], now: str,
    told: list[Notice],
) -> int:  # fmt: skip
    entry, draft, issued = found
    number = str((entry or {}).get("number") or "") or own
    if draft is None and not issued:
        told.append(Notice("works.document_lost", number, f"of {number} nothing but its number can be read"))
        return 0
    if draft is None:
        draft = {"body": issued[-1]["body"], "pending": "{}", "saved_at": now}
        text = f"the draft of {number} is lost; in its place stands what was issued last"
        told.append(Notice("works.draft_lost", number, text))
    body = as_bytes(draft["body"])
    if entry is None:
        entry = _entry_from(body, now)
        told.append(Notice("works.entry_lost", number, f"the entry of {entry['number'] or own} is made anew"))
    row = {"id": own, **{name: entry.get(name) for name in COLUMNS["documents"][1:]}}
    for name in ("kind", "number", "title", "created_at"):
        row[name] = str(row[name] or (now if name == "created_at" else ""))
    pending = draft["pending"] if isinstance(draft["pending"], str) else "{}"
    if draft.get("sha256") not in (None, draft_hash(draft["body"], draft["pending"])):
        told.append(Notice("works.draft_changed", number, f"the draft of {number} is not what was saved"))
    saved = {"document_id": own, "body": body, "pending": pending, "saved_at": str(draft["saved_at"] or now)}
    _insert(connection, "documents", row)
    _insert(connection, "drafts", {**saved, "sha256": draft_hash(body, pending)})
    return 1


def _entry_from(body: bytes, now: str) -> Row:
    """Return the entry of a document as its own text tells it."""
    with suppress(ValueError, RecursionError, AttributeError):
        read = json.loads(body.decode(errors="replace"))
        header = read.get("header", {})
        return {"kind": str(read.get("format", "")), "number": str(header.get("number", "")),
                "title": str(header.get("title", "")), "created_at": now, "deleted_at": None}  # fmt: skip
    return {"kind": "anlage-wps", "number": "", "title": "", "created_at": now, "deleted_at": None}


def _insert_each(connection: sqlite3.Connection, table: str, rows: list[Row], told: list[Notice]) -> int:
    count = 0
    for row in rows:
        try:
            _insert(connection, table, row)
        except sqlite3.IntegrityError as fault:
            place = f"{row['document_id']}@{row['number']}"
            told.append(Notice("works.row_lost", place, f"{place} could not be taken over: {fault}"))
        else:
            count += 1
    return count


def _insert(connection: sqlite3.Connection, table: str, row: Row) -> None:
    names, marks = ", ".join(row), ", ".join("?" * len(row))
    connection.execute(f"INSERT INTO {table} ({names}) VALUES ({marks})", tuple(row.values()))  # noqa: S608
