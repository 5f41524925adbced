"""Texts in a works file that no program of ours put there."""

import sqlite3
from contextlib import closing

import pytest

from anlage.store import create_works, inspect_works, open_works

NOW = "2026-03-02T08:00:00Z"


@pytest.fixture
def path(tmp_path):
    with create_works(tmp_path / "w.anlage") as works:
        own = works.add("anlage-wps", "{}", now=NOW, number="N")
        works.issue(own, "{}", author="A. Maker", now=NOW)
    return tmp_path / "w.anlage"


def put(path, query, *values):
    """Write past every trigger, as a foreign hand does."""
    with closing(sqlite3.connect(path)) as connection, connection:
        triggers = connection.execute("SELECT name, sql FROM sqlite_master WHERE type = 'trigger'").fetchall()
        for name, _ in triggers:
            connection.execute(f"DROP TRIGGER {name}")
        connection.execute(query, values)
        for _, text in triggers:
            connection.execute(text)


@pytest.mark.parametrize("pending", ["[" * 100_000, '{"a": ' + "1" * 5000 + "}", b"\xff", '{"a": 5}', 7, None])
def test_texts_that_wait_and_are_none_are_told(path, pending):
    put(path, "UPDATE drafts SET pending = ?", pending if pending is not None else "null")
    with open_works(path) as works:
        (entry,) = works.entries()
        assert works.draft(entry.id).flaws == ("texts that waited in its fields could not be read",)


@pytest.mark.parametrize("column", ["number", "author", "issued_at", "sha256", "body"])
@pytest.mark.parametrize("value", [b"\xff\xfe", "x" * 3000, 7, 1.5, b""])
def test_whatever_stands_in_a_revision_verify_tells_it(path, column, value):
    put(path, f"UPDATE revisions SET {column} = ?", value)  # noqa: S608 - names of ours
    with inspect_works(path) as works:
        told = works.verify()
        assert told
        assert all(len(each.text) <= 400 and "\n" not in each.text for each in told)


def test_a_file_in_another_journal_mode_is_not_changed_by_looking_at_it(path):
    with closing(sqlite3.connect(path)) as connection:
        connection.execute("PRAGMA journal_mode = WAL")
    before = path.read_bytes()
    with open_works(path) as works:
        own = works.entries()[0].id
        assert works.can_write
    assert path.read_bytes() == before
    with open_works(path) as works:
        works.delete(own, now=NOW)
    assert path.read_bytes()[18:20] == b"\x01\x01", "from the first change on it is one file again"
