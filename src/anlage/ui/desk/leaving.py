"""Leaving a works file of which something is not saved: a question first, and nothing lost by a click."""

from collections.abc import Callable, Mapping
from functools import partial
from typing import TYPE_CHECKING

from PySide6.QtCore import Qt, QTimer
from PySide6.QtWidgets import QDialog, QHBoxLayout, QLabel, QPushButton, QVBoxLayout, QWidget

from anlage.ui.desk.file_dialogs import ask_to_save_as
from anlage.ui.kit.look import font

if TYPE_CHECKING:
    from anlage.ui.desk.desk import WindowDesk


def not_saved(names: Mapping[str, str], faults: Mapping[str, Exception]) -> str:
    """Return which documents are not saved, and why, in a sentence.

    Parameters
    ----------
    names : by the id of a document, its number
    faults : by the id of a document, why it is not saved
    """
    called = [names.get(own) or "a document without a number" for own in faults]
    reason = str(next(iter(faults.values())))
    verb = "is" if len(called) == 1 else "are"
    return f"{', '.join(called)} {verb} not saved: {reason}."


class LeavingDialog(QDialog):
    """What is not saved, and three ways on; Esc stays in the window.

    Parameters
    ----------
    said : what is not saved, and why
    ways : what each button is called, and what it does; the first is the one that Enter takes; one is "Try again"
    """

    def __init__(self, said: str, ways: Mapping[str, Callable[[], object]], parent: QWidget) -> None:
        super().__init__(parent)
        self.setWindowTitle("Not saved")
        self.setAttribute(Qt.WidgetAttribute.WA_DeleteOnClose)
        column = QVBoxLayout(self)
        column.setContentsMargins(24, 18, 24, 18)
        column.setSpacing(12)
        self.said = QLabel(said)
        self.said.setWordWrap(True)
        self.said.setMinimumWidth(420)
        note = QLabel("What you typed is still in the window. It is tried again every two seconds.")
        note.setFont(font("note"))
        note.setProperty("tone", "muted")
        note.setWordWrap(True)
        column.addWidget(self.said)
        column.addWidget(note)
        row = QHBoxLayout()
        row.addStretch(1)
        self.buttons: dict[str, QPushButton] = {}
        for word, do in ways.items():
            self.buttons[word] = button = QPushButton(word)
            button.setAutoDefault(not self.buttons or button.isDefault())
            button.clicked.connect(self.accept)
            button.clicked.connect(do)
            row.addWidget(button)
        column.addLayout(row)
        self._then = ways["Try again"]

    def on_unsaved(self, faults: Mapping[str, Exception]) -> None:
        """Go on as soon as everything is saved: there is nothing left to ask."""
        if not faults and self.isVisible():
            self.accept()
            self._then()


def ask(desk: "WindowDesk", said: str, then: Callable[[], object]) -> LeavingDialog:
    """Ask what is to become of what is not saved; what was wanted follows, unless the person stays."""

    def elsewhere() -> None:
        if ask_to_save_as(desk):
            then()

    def without() -> None:
        desk.drop_unsaved()
        then()

    ways = {"Save under another name…": elsewhere, "Try again": partial(_later, then), "Close without saving": without}
    dialog = LeavingDialog(said, ways, desk.shell)
    desk.unsaved.connect(dialog.on_unsaved)
    dialog.open()
    return dialog


def _later(then: Callable[[], object]) -> None:
    """Try again once the question is off the screen."""
    QTimer.singleShot(0, then)
