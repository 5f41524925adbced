"""Whatever call to the database fails, a works file is as it was or as it was to be, and goes on working."""

import sqlite3

import pytest

from anlage.core.errors import AnlageError
from anlage.store import Draft, create_works, open_works
from anlage.store.connection import Connection

NOW = "2026-03-02T08:00:00Z"
BODY = '{"format": "anlage-wps", "version": 3}'
FAULTS = [
    sqlite3.SQLITE_FULL, sqlite3.SQLITE_IOERR, sqlite3.SQLITE_BUSY, sqlite3.SQLITE_READONLY, sqlite3.SQLITE_CORRUPT,
]  # fmt: skip
OPERATIONS = {
    "add": lambda works, _: works.add("anlage-wps", BODY, now=NOW, number="W-2"),
    "save": lambda works, own: works.save_draft(own, Draft('{"new": 1}', {"a": "b"}), now=NOW, number="W-3"),
    "issue": lambda works, own: works.issue(own, BODY, author="A. Maker", now=NOW),
    "delete": lambda works, own: works.delete(own, now=NOW),
    "restore": lambda works, own: works.restore(own),
    "entries": lambda works, _: works.entries(),
    "draft": lambda works, own: works.draft(own),
    "revisions": lambda works, own: works.revisions(own),
    "verify": lambda works, _: works.verify(),
}


class Failing(Connection):
    """A connection whose n-th call fails, and each one after it that undoes, when that is wanted."""

    left = -1
    code = sqlite3.SQLITE_FULL
    undoing_fails = False

    def execute(self, sql, *parameters):
        if Failing.undoing_fails and Failing.left == 0 and sql == "ROLLBACK":
            raise sqlite3.OperationalError("nor can it be undone")
        if Failing.left > 0:
            Failing.left -= 1
            if Failing.left == 0:
                fault = sqlite3.OperationalError("made to fail")
                fault.sqlite_errorcode = Failing.code
                raise fault
        return super().execute(sql, *parameters)


@pytest.fixture
def make(tmp_path, monkeypatch):
    """Makes a works file with a document, and returns it with the document's id."""
    monkeypatch.setattr("anlage.store.connection.Connection", Failing)
    monkeypatch.setattr(Failing, "left", -1)
    opened = []

    def make_it(name):
        works = create_works(tmp_path / f"{name}.anlage")
        opened.append(works)
        own = works.add("anlage-wps", BODY, now=NOW, number="W-1")
        works.issue(own, BODY, author="A. Maker", now=NOW)
        return works, own

    yield make_it
    Failing.left = -1
    for works in opened:
        works.close()


def state(works):
    """Everything in a works file that a person could tell apart, without ids and times."""
    entries = (*works.entries(), *works.entries(deleted=True))
    return [
        (e.number, e.deleted, works.draft(e.id).body, [r.body for r in works.revisions(e.id)], len(works.links()))
        for e in entries
    ]


@pytest.mark.parametrize("undoing_fails", [False, True])
@pytest.mark.parametrize("operation", OPERATIONS)
def test_a_call_that_fails_leaves_the_old_state_or_the_new_one(make, operation, undoing_fails, monkeypatch):
    do = OPERATIONS[operation]
    works, own = make("whole")
    old = state(works)
    do(works, own)
    new = state(works)
    monkeypatch.setattr(Failing, "undoing_fails", undoing_fails)
    failed = 0
    for n in range(1, 40):
        Failing.code = FAULTS[n % len(FAULTS)]
        works, own = make(f"{operation}-{n}")
        Failing.left = n
        try:
            do(works, own)
        except AnlageError as fault:
            failed += 1
            assert str(fault).startswith(f"{operation}-{n}.anlage: "), "where it is told, and in a sentence"  # noqa: PT017
        reached, Failing.left = Failing.left <= 0, -1
        assert state(works) in (old, new)
        if failed and reached:
            works.add("anlage-wps", BODY, now=NOW, number="W-9")  # it goes on working
            path = works.path
            works.close()
            with open_works(path) as again:
                assert again.entries()[-1].number == "W-9"
                assert again.verify() == ()
        if not reached:
            break
    else:
        pytest.fail("there is no end of calls")
    assert failed >= 3, "the calls that were made to fail were told"


@pytest.mark.parametrize("code", FAULTS)
def test_the_cause_is_told_and_never_masked_by_what_failed_after_it(make, code, monkeypatch):
    works, own = make("cause")
    monkeypatch.setattr(Failing, "undoing_fails", True)
    Failing.left, Failing.code = 5, code
    told = {
        sqlite3.SQLITE_FULL: "the disk is full", sqlite3.SQLITE_IOERR: "the disk refused it",
        sqlite3.SQLITE_BUSY: "another program holds it", sqlite3.SQLITE_READONLY: "it may not be written",
        sqlite3.SQLITE_CORRUPT: "it is damaged",
    }  # fmt: skip
    with pytest.raises(AnlageError, match=told[code]):
        works.save_draft(own, Draft("{}", {}), now=NOW)
    Failing.left = -1
    assert works.draft(own).body == BODY


def test_a_disk_that_is_full_is_told_and_the_draft_is_saved_once_there_is_room(make):
    works, own = make("full")
    long = Draft('{"title": "' + "x" * 200_000 + '"}', {})
    pages = works._database._connection.execute("PRAGMA page_count").fetchone()[0]
    works._database._connection.execute(f"PRAGMA max_page_count = {pages}")
    with pytest.raises(AnlageError, match=r"full\.anlage: the disk is full; make room on it"):
        works.save_draft(own, long, now=NOW)
    assert works.draft(own).body == BODY
    works._database._connection.execute("PRAGMA max_page_count = 100000")
    works.save_draft(own, long, now=NOW)
    assert works.draft(own) == long
