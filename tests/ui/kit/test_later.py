"""What takes long is worked out beside the window: the newest wish alone is answered."""

from threading import Event

from PySide6.QtCore import QObject

from anlage.ui.kit.later import Later


def test_the_newest_wish_alone_is_answered(qtbot):
    parent = QObject()
    later, answers, may = Later(parent), [], Event()
    later.ready.connect(answers.append)
    later.ask(lambda: may.wait(30) and "first")
    later.ask(lambda: "second")
    later.ask(lambda: "third")
    assert later.is_due
    may.set()
    qtbot.waitUntil(lambda: not later.is_due)
    assert answers == ["third"]


def test_what_was_taken_back_is_not_told(qtbot):
    parent = QObject()
    later, answers = Later(parent), []
    later.ready.connect(answers.append)
    later.ask(lambda: "late")
    later.forget()
    qtbot.waitUntil(lambda: not later.is_due)
    assert answers == []


def test_a_wish_that_fails_leaves_the_next_one_alone(qtbot, monkeypatch):
    monkeypatch.setattr("threading.excepthook", lambda _words: None)
    parent = QObject()
    later, answers = Later(parent), []
    later.ready.connect(answers.append)
    later.ask(lambda: 1 / 0)
    qtbot.waitUntil(lambda: not later.is_due)
    later.ask(lambda: "next")
    qtbot.waitUntil(lambda: bool(answers))
    assert answers == ["next"]
