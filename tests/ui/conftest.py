"""A running window on a works file of its own, driven as a person does: keys to what has the focus, mouse to places."""

from dataclasses import dataclass
from pathlib import Path

import pytest
from PySide6.QtCore import QEvent, QPoint, QPointF, Qt
from PySide6.QtGui import QMouseEvent
from PySide6.QtTest import QTest
from PySide6.QtWidgets import QApplication, QDialog, QWidget

from anlage.session.machine.settings import Settings
from anlage.session.works.demo import demo_file
from anlage.ui.desk.app import Window, application, open_window

NOW = "2026-11-23T12:00:00Z"


@dataclass
class Person:
    """Someone at the window."""

    window: Window
    kept: list[Settings]

    @property
    def desk(self):
        return self.window.ready()

    @property
    def shell(self):
        return self.window.shell

    @property
    def document(self):
        return self.desk.document

    @property
    def wps(self):
        return self.document.value

    @property
    def place(self):
        return self.desk.current_place()

    def settle(self) -> None:
        """Let everything be worked out, laid out and painted that waits for it."""
        for _ in range(4):
            QApplication.processEvents()

    def focus(self) -> QWidget:
        popup = QApplication.activePopupWidget()  # as from a window system: an open list takes the keys first
        return popup or QApplication.focusWidget() or self.shell.focusWidget() or self.shell

    def press(self, *keys: str) -> None:
        """Press keys as `Tab`, `Ctrl+Z`, `Alt+P`; each goes to whatever has the focus then."""
        for name in keys:
            *modifiers, key = name.split("+")
            held = Qt.KeyboardModifier.NoModifier
            for modifier in modifiers:
                held |= {"Ctrl": Qt.KeyboardModifier.ControlModifier, "Alt": Qt.KeyboardModifier.AltModifier,
                         "Shift": Qt.KeyboardModifier.ShiftModifier}[modifier]  # fmt: skip
            QTest.keyClick(self.focus(), getattr(Qt.Key, f"Key_{key}"), held)
            QApplication.processEvents()

    def type(self, text: str) -> None:
        """Type a text into whatever has the focus."""
        for letter in text:
            QTest.keyClicks(self.focus(), letter)
            QApplication.processEvents()

    def fill(self, text: str) -> None:
        """Type a text and go on with Tab."""
        self.type(text)
        self.press("Tab")

    def find(self, text: str) -> None:
        """Go to something by the search palette."""
        self.press("Ctrl+K")
        self.type(text)
        self.press("Return")

    def click(self, widget: QWidget, position: QPoint | None = None) -> None:
        QTest.mouseClick(widget, Qt.MouseButton.LeftButton, pos=position or widget.rect().center())
        QApplication.processEvents()

    def handle(self, view, target: str) -> QPointF:
        """Where a handle of a picture lies."""
        (item,) = [
            item for item in view.placed.picture.items
            if getattr(item, "kind", "") == "handle" and item.target == target
        ]  # fmt: skip
        return view.placed.on_screen(item.at)

    def drag(self, view, target: str, work: tuple[float, float], *, fine: bool = False) -> None:
        """Drag a handle by millimetres of the work, in several moves."""
        start = self.handle(view, target)
        per_work = view.placed.picture.scale * view.placed.px_per_mm
        end = start + QPointF(work[0] * per_work, -work[1] * per_work)
        held = Qt.KeyboardModifier.ShiftModifier if fine else Qt.KeyboardModifier.NoModifier
        _mouse(view, QEvent.Type.MouseButtonPress, start, held)
        for share in (0.3, 0.7, 1.0):
            _mouse(view, QEvent.Type.MouseMove, start + (end - start) * share, held)
        _mouse(view, QEvent.Type.MouseButtonRelease, end, held)
        QApplication.processEvents()


def _mouse(widget, kind, position, held):
    button = Qt.MouseButton.LeftButton
    buttons = Qt.MouseButton.NoButton if kind == QEvent.Type.MouseButtonRelease else button
    QApplication.sendEvent(widget, QMouseEvent(kind, position, widget.mapToGlobal(position), button, buttons, held))


@pytest.fixture(autouse=True)
def _own_folders(tmp_path, monkeypatch):
    monkeypatch.setattr("anlage.ui.desk.app.utc_now", lambda: NOW)  # what is in date is so whenever this is run
    for name in ("CONFIG", "STATE", "DATA"):
        monkeypatch.setenv(f"XDG_{name}_HOME", str(tmp_path / name.lower()))


@pytest.fixture
def open_person(qtbot):
    """Returns what opens a window on a works file and hands over someone at it."""
    application(["anlage"])
    opened = []

    def open_it(path: Path | None = None, **settings) -> Person:
        kept: list[Settings] = []
        window = open_window(Settings(**{"place": "joint"} | settings), lambda: path, kept.append)
        person = Person(window, kept)
        opened.append(window)
        qtbot.waitUntil(lambda: window.desk is not None)
        window.shell.activateWindow()
        QApplication.processEvents()
        return person

    yield open_it
    for window in opened:
        for dialog in window.shell.findChildren(QDialog):
            dialog.close()
        window.shell.close()
        window.shell.deleteLater()
    QApplication.processEvents()
    QApplication.sendPostedEvents(None, QEvent.Type.DeferredDelete)  # without a loop that runs nothing else does


@pytest.fixture
def newcomer(open_person, tmp_path):
    """Someone at a new works file with one new procedure, where it starts."""
    return open_person(tmp_path / "works.anlage")


@pytest.fixture
def person(newcomer):
    """Someone at the joint of a new procedure."""
    newcomer.desk.go("joint")
    return newcomer


@pytest.fixture
def demo(open_person, tmp_path):
    """Someone at the demo."""
    return open_person(demo_file(NOW, folder=tmp_path))
