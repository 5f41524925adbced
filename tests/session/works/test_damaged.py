"""A damaged draft hides nothing but itself: the others open, and what could not be read of it is told."""

import sqlite3
from contextlib import closing

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from anlage.core.errors import AnlageError
from anlage.session.judging.assessment import Assessor
from anlage.session.works.demo import demo_file
from anlage.session.works.open_works import OpenWorks
from anlage.session.works.register import Standpoint
from anlage.session.works.register_rows import RegisterRows
from tests.demo import NUMBERS, PROCEDURES

NOW = "2026-11-23T12:00:00Z"
FIRST = len(PROCEDURES)  # the place of the first record
BODIES = [
    b"\xff\xfe no text", b"", b"[]", "just text", 12, 1.5,
    b'{"format": "anlage-pqr", "version": 3, "joint": {"thickness_mm": 1' + b"0" * 400 + b"}}",
    b'{"format": "anlage-pqr", "version": 99}',
    b'{"format": "anlage-pqr", "version": 3, "header": 5, "deposits": {"a": 1}}',
    b'{"format": "anlage-pqr", "version": 3, "deposits": [{"id": {"x": 1}}, {"id": "d\xed\xa0\x80"}], "ids": "x"}',
    b'{"format": "anlage-pqr", "version": 3, "joint":' + b"[" * 5000 + b"]" * 5000 + b"}",
    b'{"format": "anlage-wps", "version": 3, "joint": []}',
]  # fmt: skip


def damaged(path, place, **columns):
    """The works file with the draft of one document written otherwise."""
    with closing(sqlite3.connect(path)) as connection, connection:
        (own,) = connection.execute(
            "SELECT document_id FROM drafts ORDER BY rowid LIMIT 1 OFFSET ?", (place,)
        ).fetchone()
        for name, value in columns.items():
            connection.execute(f"UPDATE drafts SET {name} = ? WHERE document_id = ?", (value, own))  # noqa: S608
    return own


def said_about(reading):
    """What reading a draft says: its notices, or the one line of its refusal."""
    try:
        _, notices = reading()
    except AnlageError as fault:
        assert len(str(fault).splitlines()) == 1  # noqa: PT017 - a refusal is as good as a notice
        return str(fault)
    return " ".join(each.text for each in notices)


@pytest.fixture
def path(tmp_path):
    return demo_file(NOW, folder=tmp_path)


@pytest.fixture
def opened(path):
    """Opens the works file; it is closed at the end."""
    found = []

    def open_it():
        found.append(OpenWorks(path, now=lambda: NOW, told=pytest.fail))
        return found[-1]

    yield open_it
    for each in found:
        each.close()


@pytest.mark.parametrize("place", [0, FIRST])
@pytest.mark.parametrize("body", BODIES, ids=lambda body: repr(body)[:40])
def test_one_damaged_draft_hides_nothing_but_itself(path, opened, body, place):
    own = damaged(path, place, body=body)
    works = opened()
    shown = RegisterRows(works, lambda: None).rows(Standpoint("si", NOW[:10]), lambda: Assessor(works.records()))
    assert [row.number for row in shown] == NUMBERS
    assert own not in dict(works.records()), "what cannot be read whole proves nothing"
    for entry in (*works.entries(), *works._file.entries()):
        if entry.id != own:
            assert not works.read(entry.id)[1]
    assert shown[place].verdict != "inside" or place == 0
    assert said_about(lambda: works.read(own)) or place == 0


def test_one_bad_byte_in_a_text_is_replaced_and_told(path, opened):
    with closing(sqlite3.connect(path)) as connection:
        query = "SELECT body FROM drafts ORDER BY rowid LIMIT 1 OFFSET ?"
        (body,) = connection.execute(query, (FIRST,)).fetchone()
    own = damaged(path, FIRST, body=body.replace(b"Plate coupon", b"Plate \xffoupon"))
    works = opened()
    working, notices = works.read(own)
    assert working.value.header.title == "Plate \ufffdoupon for penstock shells"
    assert [each.text for each in notices] == ["some of its bytes were no text and are replaced"]
    assert own not in dict(works.records())


@pytest.mark.parametrize("pending", ["[]", "nonsense", 5, b"\xff", '{"joint/thickness_mm": 5}', '{"no/such": "x"}'])
def test_waiting_texts_that_cannot_be_read_are_told_and_the_draft_opens(path, opened, pending):
    own = damaged(path, 0, pending=pending)
    working, notices = opened().read(own)
    assert working.value.header.number == "OST-W-01"
    assert dict(working.pending) == {}
    assert notices, "a pending text that was put there behind the back of Anlage breaks the checksum"


def test_a_record_of_which_something_was_left_out_supports_nothing(path, opened):
    with closing(sqlite3.connect(path)) as connection:
        (body,) = connection.execute("SELECT body FROM drafts ORDER BY rowid LIMIT 1 OFFSET ?", (FIRST,)).fetchone()
    failed = body.replace(b'"passed": true', b'"passed": "failed, the second one"', 1)
    own = damaged(path, FIRST, body=failed)
    works = opened()
    assert own not in dict(works.records())
    assert works.read(own)[1], "it opens, and says what was left out"


@given(st.binary(max_size=200) | st.text(max_size=200) | st.integers(-(2**63), 2**63 - 1))
@settings(max_examples=60, deadline=None)
def test_whatever_stands_in_a_row_is_read_or_refused_in_one_line(tmp_path_factory, value):
    folder = tmp_path_factory.mktemp("w")
    own = damaged(demo_file(NOW, folder=folder), 0, body=value, pending=value)
    works = OpenWorks(folder / "ostrel-demo.anlage", now=lambda: NOW, told=pytest.fail)
    with closing(works):
        said_about(lambda: works.read(own))
