"""The list at once, each verdict once: what hangs on nothing new is not judged again, and many wait for nobody."""

import os
import signal
from threading import Event

import pytest

from anlage.core.document import with_at
from anlage.session.judging.assessment import Assessor
from anlage.session.kinds import KINDS, PROCEDURE, RECORD
from anlage.session.leaves.draft import typed
from anlage.session.works.clerk import Clerk
from anlage.session.works.demo import demo_file
from anlage.session.works.open_works import OpenWorks
from anlage.session.works.register import Standpoint
from anlage.session.works.register_rows import FEW, RegisterRows

NOW = "2026-11-23T12:00:00Z"
SI, US = Standpoint("si", NOW[:10]), Standpoint("us", NOW[:10])
MANY = FEW + 8


class Counting(Clerk):
    """A clerk in this process that keeps a list of what it is asked."""

    def __init__(self):
        super().__init__()
        self.taken, self.asked = [], []

    def take(self, filed, order, books):
        self.taken.append([each.entry.number for each in filed])
        super().take(filed, order, books)

    def rows(self, ids, seen):
        self.asked += ids
        return super().rows(ids, seen)

    def close(self):
        """There is nothing to end."""


@pytest.fixture
def works(tmp_path):
    path = demo_file(NOW, folder=tmp_path)
    found = OpenWorks(path, now=lambda: NOW, told=lambda _faults: None)
    model = found.read(found.entries(PROCEDURE)[1].id)[0].value
    for n in range(MANY):
        found.add(with_at(model, "header/number", f"OST-W-{n + 10}"))
    yield found
    found.close()


class Judging:
    """The rows of a works file, by a clerk that counts."""

    def __init__(self, works):
        self.works, self.clerk, self.told = works, Counting(), []
        self.rows = RegisterRows(works, lambda: self.told.append(1), lambda: self.clerk)

    def begun(self):
        return self.rows.rows(SI, lambda: Assessor(self.works.records()))

    def done(self):
        self.begun()
        self.rows._thread.join(60)
        return self.rows.rows(SI, lambda: pytest.fail("nothing is judged twice"))

    def change(self, document_id, path, text):
        self.works.save(document_id, typed(self.works.read(document_id)[0], path, text, "si"))


@pytest.fixture
def judging(works):
    found = Judging(works)
    yield found
    found.rows.close()


def test_the_list_is_there_at_once_and_fills(judging, works):
    first, found = judging.begun(), judging.done()
    assert [row.number for row in first] == [row.number for row in found]
    assert {(row.verdict, row.said) for row in first} == {("", "being judged…")}
    assert not any(row.said == "being judged…" for row in found)
    assert judging.told
    assessor = Assessor(works.records())
    entries = [entry for kind in KINDS for entry in works.entries(kind)]
    assert list(found) == [judging.rows._row(entry, assessor, SI) for entry in entries]


def test_nothing_is_judged_twice_and_a_few_at_once_here(judging, works):
    judging.done()
    assert len(judging.clerk.asked) == len(works.all_entries())
    own = works.entries(PROCEDURE)[4].id
    judging.change(own, "header/title", "Other")
    assert next(row for row in judging.begun() if row.id == own).title == "Other"
    assert len(judging.clerk.asked) == len(works.all_entries())


def test_a_record_that_changes_has_every_procedure_judged_again(judging, works):
    before = judging.done()
    record = works.entries(RECORD)[0].id
    judging.change(record, "joint/thickness_mm", "3")
    judging.clerk.asked.clear()
    judging.clerk.taken.clear()
    after = judging.done()
    assert judging.clerk.taken == [["OST-R-01"]]
    assert set(judging.clerk.asked) == {entry.id for entry in works.entries(PROCEDURE)} | {record}
    assert [row.verdict for row in after] != [row.verdict for row in before]


def test_what_cannot_be_read_hides_nothing_else(works, judging):
    damaged = works.add(works.read(works.entries(PROCEDURE)[0].id)[0].value)
    with works._file._database.writing() as connection:
        connection.execute("UPDATE drafts SET body = ?, sha256 = 'x' WHERE document_id = ?", (b"{", damaged))
    found = {row.id: row for row in judging.done()}
    assert found[damaged].state == "cannot be read"
    assert sum(row.state == "cannot be read" for row in found.values()) == 1


def test_the_process_judges_as_the_clerk_here_does_and_its_end_is_told(works):
    told = Event()
    rows = RegisterRows(works, told.set)
    rows.rows(SI, lambda: pytest.fail("many are not judged here"))
    rows._thread.join(120)
    found = rows.rows(SI, lambda: pytest.fail("nothing is judged twice"))
    clerk = Clerk()
    entries = [entry for kind in KINDS for entry in works.entries(kind)]
    clerk.take([works.filed(entry) for entry in entries], [entry.id for entry in entries], {})
    assert found == clerk.rows([entry.id for entry in entries], SI)
    assert told.is_set()
    os.kill(rows._clerk._process.pid, signal.SIGKILL)
    rows.rows(US, lambda: pytest.fail("many are not judged here"))
    rows._thread.join(60)
    assert {row.said.split(":")[0] for row in rows.rows(US, lambda: pytest.fail("not here"))} == {"not judged"}
    rows.close()


def test_a_clerk_lets_go_of_what_is_put_away(works):
    clerk = Clerk()
    entries = works.all_entries()
    clerk.take([works.filed(entry) for entry in entries], [entry.id for entry in entries], {})
    clerk.rows([entries[0].id], SI)
    before = clerk._assessor
    clerk.take([], [entry.id for entry in entries if entry.kind == PROCEDURE.format], {})
    (row,) = clerk.rows([entries[0].id], SI)
    assert clerk._assessor is not before
    assert row.verdict != "inside"  # no record is left
