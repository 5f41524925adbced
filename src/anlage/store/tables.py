"""The tables of a works file, and the marks by which it is known before anything in it is believed."""

import re
import sqlite3
from functools import cache
from typing import Final

APPLICATION_ID: Final = 0x414E4C47  # "ANLG", at byte 68 of the file
LAYOUT: Final = 2  # user_version, at byte 60; a file of a higher layout is not opened

DOCUMENTS: Final = """
CREATE TABLE documents (
  id TEXT PRIMARY KEY,
  kind TEXT NOT NULL,               -- the format of its JSON: anlage-wps, anlage-pqr
  number TEXT NOT NULL DEFAULT '',
  title TEXT NOT NULL DEFAULT '',
  created_at TEXT NOT NULL,         -- UTC, ISO 8601
  deleted_at TEXT                   -- kept until emptied
);
"""
FIRST_DRAFTS: Final = """
CREATE TABLE drafts (
  document_id TEXT PRIMARY KEY REFERENCES documents (id),
  body BLOB NOT NULL,               -- the document as JSON, its last good value
  pending TEXT NOT NULL DEFAULT '{}',  -- texts that do not parse, by field path, as JSON
  saved_at TEXT NOT NULL
);
"""
DRAFTS: Final = """
CREATE TABLE drafts (
  document_id TEXT PRIMARY KEY REFERENCES documents (id),
  body BLOB NOT NULL,               -- the document as JSON, its last good value
  pending TEXT NOT NULL DEFAULT '{}',  -- texts that do not parse, by field path, as JSON
  saved_at TEXT NOT NULL,
  sha256 TEXT NOT NULL              -- over body and pending: a bit that flipped is told
);
"""
REVISIONS: Final = """
CREATE TABLE revisions (
  document_id TEXT NOT NULL REFERENCES documents (id),
  number INTEGER NOT NULL CHECK (number >= 1),
  body BLOB NOT NULL,
  sha256 TEXT NOT NULL,             -- over the bytes of body
  author TEXT NOT NULL,
  issued_at TEXT NOT NULL,
  PRIMARY KEY (document_id, number)
);
-- Belt to the braces of the hash: the database itself refuses to change what was issued.
CREATE TRIGGER issued_revisions_stay_update BEFORE UPDATE ON revisions
  BEGIN SELECT RAISE(ABORT, 'an issued revision never changes'); END;
CREATE TRIGGER issued_revisions_stay_delete BEFORE DELETE ON revisions
  BEGIN SELECT RAISE(ABORT, 'an issued revision never changes'); END;
"""
LINKS: Final = """
CREATE TABLE links (
  place INTEGER PRIMARY KEY AUTOINCREMENT,  -- in the one chain of the file; no place is given out twice
  document_id TEXT NOT NULL,
  number INTEGER NOT NULL,
  linked_at TEXT NOT NULL,          -- later than issued_at where the revision is older than the chain
  sha256 TEXT NOT NULL,             -- over the link before and the revision: see chain.py
  UNIQUE (document_id, number)
);
CREATE TRIGGER links_stay_update BEFORE UPDATE ON links
  BEGIN SELECT RAISE(ABORT, 'the chain of revisions never changes'); END;
CREATE TRIGGER links_stay_delete BEFORE DELETE ON links
  BEGIN SELECT RAISE(ABORT, 'the chain of revisions never changes'); END;
"""

SCHEMAS: Final = {1: DOCUMENTS + FIRST_DRAFTS + REVISIONS, 2: DOCUMENTS + DRAFTS + REVISIONS + LINKS}
SCHEMA: Final = SCHEMAS[LAYOUT]


@cache
def parts_of_layout(layout: int) -> frozenset[tuple[str, str, str]]:
    """Return everything that a works file of a layout has: kind, name and how it is made, and nothing else."""
    with_layout = sqlite3.connect(":memory:")
    try:
        with_layout.executescript(SCHEMAS[layout])
        return parts_of(with_layout)
    finally:
        with_layout.close()


def parts_of(connection: sqlite3.Connection) -> frozenset[tuple[str, str, str]]:
    """Return tables, indexes, triggers and views of a database: kind, name and how it is made.

    Raises
    ------
    sqlite3.DatabaseError : its first pages are damaged
    """
    found = connection.execute("SELECT type, name, sql FROM sqlite_master").fetchall()
    return frozenset((str(kind), str(name), _bare(str(sql or ""))) for kind, name, sql in found)


def _bare(sql: str) -> str:
    return " ".join(re.sub(r"--[^\n]*", "", sql).split())
