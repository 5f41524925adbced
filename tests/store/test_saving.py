"""Saving while someone types: the newest value wins, nothing waits for ever, a kill loses the last second at most."""

import itertools
import threading
from types import SimpleNamespace

import pytest

from anlage.store import HeldError, Saver
from anlage.store.saver import LATEST_S
from tests.torture.typing_kills import kill

NOW = "2026-03-02T08:00:00Z"
KILLS = 50


@pytest.fixture
def told():
    return []


@pytest.fixture
def saver(told):
    made = Saver(told.append)
    yield made
    made.close()


def test_only_the_newest_value_of_a_document_is_written(saver):
    written = []
    for n in range(20):
        saver.put("a", lambda n=n: written.append(n))
    saver.put("b", lambda: written.append("b"))
    saver.flush()
    assert sorted(map(str, written)) == ["19", "b"]


def test_a_value_is_written_soon_without_a_flush(saver):
    done = threading.Event()
    saver.put("a", done.set)
    assert done.wait(timeout=30)


def test_steady_typing_does_not_put_the_save_off_for_ever(saver):
    done = threading.Event()
    pause = threading.Event()
    for _ in itertools.takewhile(lambda _: not done.is_set(), range(3000)):
        saver.put("a", done.set)  # every 10 ms: never 300 ms of quiet
        pause.wait(0.01)
    assert done.is_set()


def test_a_save_that_fails_stays_waiting_is_told_once_and_tried_until_there_is_room(saver, told):
    written, full = [], [True]

    def save():
        if full:
            raise OSError("no room")
        written.append("again")

    saver.put("a", save)
    assert list(saver.flush()) == ["a"]
    assert list(saver.flush()) == ["a"], "it still waits"
    assert [{own: str(fault) for own, fault in each.items()} for each in told] == [{"a": "no room"}]
    full.clear()
    assert saver.flush() == {}
    assert written == ["again"]
    assert dict(told[-1]) == {}, "that it is saved is told too"
    assert saver.unsaved() == {}


def test_what_failed_is_tried_again_without_anybody_asking(saver, monkeypatch):
    monkeypatch.setattr("anlage.store.saver.AGAIN_S", 0.01)
    done, tries = threading.Event(), []

    def save():
        tries.append(1)
        if len(tries) < 4:
            raise OSError("no room")
        done.set()

    saver.put("a", save)
    assert done.wait(timeout=30)


def test_a_newer_value_takes_the_place_of_one_that_failed(saver):
    written = []
    saver.put("a", lambda: 1 / 0)
    saver.flush()
    saver.put("a", lambda: written.append("newer"))
    assert saver.flush() == {}
    assert written == ["newer"]


def test_another_program_that_holds_the_file_is_not_worth_a_word_for_a_while(saver, told, monkeypatch):
    held = HeldError("another program holds it", where="x", mend="wait")
    reading = [True]

    def save():
        if reading:
            raise held

    saver.put("a", save)
    saver.flush()
    assert told == []
    assert list(saver.unsaved()) == ["a"]
    monkeypatch.setattr("anlage.store.saver.HELD_TOLD_S", 0.0)
    saver.flush()
    assert [dict(each) for each in told] == [{"a": held}]
    reading.clear()
    saver.flush()
    assert dict(told[-1]) == {}


def test_closing_writes_what_waits_and_says_what_it_could_not(told):
    written = []
    saver = Saver(told.append)
    saver.put("a", lambda: written.append(1))
    saver.put("b", lambda: 1 / 0)
    assert list(saver.close()) == ["b"]
    assert written == [1]


def test_what_is_typed_during_a_long_save_waits_no_longer_for_it(saver, monkeypatch):
    """Its second counts from its own typing, not from the end of the save, and more typing does not put it off."""
    clock, began, go_on, done = [100.0], threading.Event(), threading.Event(), threading.Event()
    monkeypatch.setattr("anlage.store.saver.QUIET_S", 0.0)

    def long_save():
        began.set()
        go_on.wait(timeout=30)

    saver.put("a", long_save)
    assert began.wait(timeout=30)
    monkeypatch.setattr("anlage.store.saver.QUIET_S", 3600.0)  # of typing without a pause
    monkeypatch.setattr("anlage.store.saver.time", SimpleNamespace(monotonic=lambda: clock[0]))
    saver.put("a", lambda: None)
    clock[0] += LATEST_S
    go_on.set()
    saver.put("a", done.set)
    assert done.wait(timeout=30)


def test_a_kill_loses_nothing_that_was_saved_and_no_revision(tmp_path):
    """How much typing it loses at most is measured by `make torture`: a busy machine must not fail a test."""
    found, _ = kill(7, KILLS, tmp_path)
    assert set(found) == {"killed while typing", "killed after a save", "revisions issued meanwhile"}
    assert found["killed after a save"] >= KILLS // 10
    assert found["revisions issued meanwhile"] > 2 * KILLS
