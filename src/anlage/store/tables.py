"""The tables of a works file, and the marks by which it is known before anything in it is believed."""

from typing import Final

APPLICATION_ID: Final = 0x414E4C47  # "ANLG", at byte 68 of the file
LAYOUT: Final = 1  # user_version, at byte 60; a file of a higher layout is not opened

SCHEMA: Final = """
CREATE TABLE documents (
  id TEXT PRIMARY KEY,
  kind TEXT NOT NULL,               -- the format of its JSON: anlage-wps, anlage-pqr
  number TEXT NOT NULL DEFAULT '',
  title TEXT NOT NULL DEFAULT '',
  created_at TEXT NOT NULL,         -- UTC, ISO 8601
  deleted_at TEXT                   -- kept until emptied
);
CREATE TABLE drafts (
  document_id TEXT PRIMARY KEY REFERENCES documents (id),
  body BLOB NOT NULL,               -- the document as JSON, its last good value
  pending TEXT NOT NULL DEFAULT '{}',  -- texts that do not parse, by field path, as JSON
  saved_at TEXT NOT NULL
);
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

COLUMNS: Final = {
    "documents": {"id", "kind", "number", "title", "created_at", "deleted_at"},
    "drafts": {"document_id", "body", "pending", "saved_at"},
    "revisions": {"document_id", "number", "body", "sha256", "author", "issued_at"},
}
