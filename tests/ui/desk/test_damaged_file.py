"""A works file with a damaged draft in the window: the others are there, and the Register is not empty."""

import sqlite3
from contextlib import closing

import pytest

from anlage.session.works.demo import demo_file
from tests.demo import NUMBERS, PROCEDURES

NOW = "2026-11-23T12:00:00Z"


@pytest.mark.parametrize("place", [0, len(PROCEDURES)])
def test_the_window_shows_the_register_over_a_damaged_draft(open_person, tmp_path, place):
    path = demo_file(NOW, folder=tmp_path)
    with closing(sqlite3.connect(path)) as connection, connection:
        query = "SELECT document_id FROM drafts ORDER BY rowid LIMIT 1 OFFSET ?"
        (own,) = connection.execute(query, (place,)).fetchone()
        connection.execute("UPDATE drafts SET body = ? WHERE document_id = ?", (b"\xff", own))
    person = open_person(path)
    person.settle()
    assert len(person.desk.rows()) == len(NUMBERS)
    for name in ("register", "joint", "passes", "ranges", "proof", "machine", "sheet"):
        person.desk.go(name)
        person.settle()
    person.desk.open_document(own)
    person.settle()
    assert "no JSON" in person.shell.notice.text.text()
