"""No exception leaves an override of Qt: the window lives, the fault is told, and Qt answers in its place."""

import inspect
import pkgutil
import subprocess
import sys
from importlib import import_module

import pytest
from PySide6.QtCore import QAbstractTableModel, QModelIndex, QObject, QSize
from PySide6.QtWidgets import QLabel

import anlage.ui
from anlage.session.works.demo import demo_file
from anlage.ui.kit import guard
from anlage.ui.kit.guard import guarded, is_guarded, overrides

NOW = "2026-11-23T12:00:00Z"


def every_override():
    """Each class of the window with each of the methods that Qt may call."""
    found = []
    for module in pkgutil.walk_packages(anlage.ui.__path__, "anlage.ui."):
        for kind in vars(import_module(module.name)).values():
            if inspect.isclass(kind) and kind.__module__ == module.name:
                found += [(kind, name) for name in overrides(kind)]
    return found


EVERY = every_override()


@pytest.fixture
def told(monkeypatch):
    faults = []
    monkeypatch.setattr(guard, "_told", set())
    monkeypatch.setattr(sys, "excepthook", lambda _kind, fault, _trace: faults.append(str(fault)))
    return faults


@pytest.mark.parametrize(("kind", "name"), EVERY, ids=[f"{kind.__qualname__}.{name}" for kind, name in EVERY])
def test_every_override_of_the_window_stands_behind_its_guard(kind, name, told, monkeypatch):
    assert is_guarded(kind, name), f"put @guarded over {kind.__qualname__}"

    def fails(*_words):
        raise ZeroDivisionError(name)

    monkeypatch.setattr(vars(kind)[name], "guards", fails)
    vars(kind)[name](object())  # Qt itself has no answer for what is none of its objects: that is caught too
    assert told == [name]


@guarded
class Wide(QLabel):
    def sizeHint(self):  # noqa: N802 - Qt's name
        raise ValueError("no idea how wide")


@guarded
class Rows(QAbstractTableModel):
    def rowCount(self, _parent=None):  # noqa: N802
        raise TypeError("no idea how many")

    def columnCount(self, _parent=None):  # noqa: N802
        return 3


def test_qt_answers_where_an_override_fails_and_the_fault_is_told_once(qapp, told):  # noqa: ARG001 - a label needs it
    label = Wide("text")
    assert label.sizeHint() == QLabel("text").sizeHint() != QSize()
    label.adjustSize()
    assert told == ["no idea how wide"]
    assert (Rows().rowCount(QModelIndex()), Rows().columnCount(QModelIndex())) == (0, 3)


def test_a_hook_that_fails_itself_is_no_second_fault(qapp, monkeypatch, capsys):  # noqa: ARG001
    monkeypatch.setattr(guard, "_told", set())

    def hook(*_fault):
        raise OSError("disk full")

    monkeypatch.setattr(sys, "excepthook", hook)
    Wide("text").sizeHint()
    assert "nobody could be told: disk full" in capsys.readouterr().err


def test_a_method_that_qt_does_not_know_is_no_override():
    assert overrides(Wide) == ("sizeHint",)
    assert overrides(type("Plain", (QObject,), {"step": lambda _self: 1})) == ()


EACH_FAILS_ONCE = """
import inspect, pkgutil, sys
from importlib import import_module
from pathlib import Path
from PySide6.QtCore import QEvent, QPoint, QPointF, Qt
from PySide6.QtGui import QContextMenuEvent, QWheelEvent
from PySide6.QtTest import QTest
from PySide6.QtWidgets import QApplication, QWidget
from shiboken6 import isValid
import anlage.ui
from anlage.session.machine.settings import Settings
from anlage.ui.desk.app import application, catch_faults, open_window
from anlage.ui.kit.guard import overrides
application(["anlage"])
failed = set()
def failing(key, real):
    def once(*words):
        if key not in failed:
            failed.add(key)
            raise ZeroDivisionError(key)
        return real(*words)
    return once
every = 0
for module in pkgutil.walk_packages(anlage.ui.__path__, "anlage.ui."):
    for kind in list(vars(import_module(module.name)).values()):
        if inspect.isclass(kind) and kind.__module__ == module.name:
            for name in overrides(kind):
                every += 1
                own = vars(kind)[name]
                own.guards = failing(f"{kind.__qualname__}.{name}", own.guards)
window = open_window(Settings(), lambda: Path(sys.argv[1]), lambda _settings: None)
catch_faults(window)
sys.__excepthook__ = lambda *_fault: None
def settle():
    for _ in range(6):
        QApplication.processEvents()
while window.desk is None:
    window.shell.update()  # its first painting failed, as everything does once
    QApplication.processEvents()
settle()
shell = window.shell
for _round in range(2):
    for place in ("register", "job", "joint", "passes", "ranges", "proof", "sheet"):
        window.desk.go(place)
        settle()
        for widget in window.desk.current_place().findChildren(QWidget):
            if not isValid(widget) or not widget.isVisible():
                continue  # what is to be done next comes and goes
            middle = widget.rect().center()
            at = QPointF(middle)
            for turn in (120, -120):
                QApplication.sendEvent(widget, QWheelEvent(at, widget.mapToGlobal(at), QPoint(), QPoint(0, turn),
                    Qt.NoButton, Qt.NoModifier, Qt.NoScrollPhase, False))
            widget.setFocus()
            QTest.mouseMove(widget, middle)
            if type(widget).__module__.startswith("anlage") and type(widget).__name__ != "PreparationButton":
                QTest.mouseClick(widget, Qt.LeftButton, pos=middle)
                QTest.mouseDClick(widget, Qt.LeftButton, pos=middle)
                QTest.keyClick(widget, Qt.Key_Down)
                QTest.keyClick(widget, Qt.Key_Tab)
            settle()
            popup = QApplication.activePopupWidget()
            if popup:
                popup.close()
    shell.resize(1100, 720)
    settle()
QTest.keyClick(shell, Qt.Key_K, Qt.ControlModifier)
settle()
QTest.keyClick(QApplication.focusWidget() or shell, Qt.Key_Escape)
shell.close()
settle()
print("failed", len(failed), "of", every, flush=True)
print("alive", flush=True)
"""


def test_the_window_outlives_a_fault_in_whatever_qt_calls(tmp_path, monkeypatch):
    for name in ("CONFIG", "STATE", "DATA"):
        monkeypatch.setenv(f"XDG_{name}_HOME", str(tmp_path / name.lower()))
    demo = demo_file(NOW, folder=tmp_path)
    ran = subprocess.run(
        [sys.executable, "-c", EACH_FAILS_ONCE, str(demo)], capture_output=True, text=True, timeout=120, check=False
    )
    assert ran.returncode == 0, ran.stderr[-2000:]
    assert ran.stdout.endswith("alive\n")
    failed, _, every = ran.stdout.splitlines()[-2].split()[1:]
    assert int(failed) > 0.6 * int(every), "the walk reaches most of them"
