"""Somebody who does anything at all at the window: keys, texts, clicks, drags and commands, one after the other."""

import random
import sys
import tempfile
from collections import Counter
from collections.abc import Iterator
from contextlib import contextmanager
from pathlib import Path
from types import TracebackType

from PySide6.QtCore import QEvent, QPoint, QPointF, Qt, QTimer
from PySide6.QtGui import QKeyEvent, QMouseEvent
from PySide6.QtTest import QTest
from PySide6.QtWidgets import QApplication, QFileDialog, QWidget

from anlage.ui.desk.app import Window
from anlage.ui.kit import guard
from tests.torture.window import opened

KEYS = (
    "Tab", "Backtab", "Return", "Escape", "Up", "Down", "Left", "Right", "Home", "End", "PageUp", "PageDown", "Delete",
    "Backspace", "Space", "F2", "F8", "Menu",
)  # fmt: skip
TEXTS = (
    "12,7", "120-ish", "23..26", "1e9", "0", "-1", "=1+1", "SA-335 P11", "E7018", "x" * 300, "5 in", "3/8", "..", "1..",
    "\u20ac", "yes", "none", "GTAW", "8", "2.4", "90..110", "100 A", " ", "6G", "pipe", "9" * 40,
)  # fmt: skip
LEFT_OUT = ("quit", "open", "create", "demo")  # they leave the file that is worked in


class Monkey:
    """Does one thing after another with a window; what nobody foresaw is counted."""

    def __init__(self, seed: int, window: Window, folder: Path) -> None:
        self.dice, self.window, self.folder = random.Random(seed), window, folder
        self.faults: Counter[str] = Counter()
        self.last: list[str] = []  # what was done before the first fault of each kind
        self.done: list[str] = []

    def act(self) -> None:
        """Do one thing."""
        ways = (
            self._key,
            self._key,
            self._text,
            self._click,
            self._click,
            self._drag,
            self._command,
            self._go,
            self._document,
        )
        way = self.dice.choice(ways)
        way()
        QApplication.processEvents()
        QApplication.sendPostedEvents(None, QEvent.Type.DeferredDelete)  # a loop that runs does it by itself

    def _focus(self) -> QWidget:
        return QApplication.activePopupWidget() or QApplication.focusWidget() or self.window.shell

    def _note(self, what: str) -> None:
        self.done = [*self.done[-11:], what]

    def _key(self) -> None:
        name, held = self.dice.choice(KEYS), Qt.KeyboardModifier.NoModifier
        for modifier in (Qt.KeyboardModifier.ControlModifier, Qt.KeyboardModifier.ShiftModifier):
            if self.dice.random() < 0.2:
                held |= modifier
        self._note(f"key {name} {held.name} in {type(self._focus()).__name__}")
        QTest.keyClick(self._focus(), getattr(Qt.Key, f"Key_{name}"), held)

    def _text(self) -> None:
        text = self.dice.choice(TEXTS)
        self._note(f"text {text[:20]!r} in {type(self._focus()).__name__} {self._focus().accessibleName()}")
        for letter in text:
            for kind in (QEvent.Type.KeyPress, QEvent.Type.KeyRelease):
                QApplication.sendEvent(self._focus(), QKeyEvent(kind, 0, Qt.KeyboardModifier.NoModifier, letter))
        if self.dice.random() < 0.5:
            QTest.keyClick(self._focus(), Qt.Key.Key_Tab)

    def _anywhere(self) -> tuple[QWidget, QPoint]:
        shell = self.window.shell
        at = QPoint(self.dice.randrange(max(shell.width(), 1)), self.dice.randrange(max(shell.height(), 1)))
        widget = shell.childAt(at) or shell
        return widget, widget.mapFrom(shell, at)

    def _click(self) -> None:
        widget, at = self._anywhere()
        button = self.dice.choice((Qt.MouseButton.LeftButton,) * 5 + (Qt.MouseButton.RightButton,))
        self._note(f"click {button.name} on {type(widget).__name__} {widget.accessibleName()}")
        if self.dice.random() < 0.15:
            QTest.mouseDClick(widget, Qt.MouseButton.LeftButton, pos=at)
        else:
            QTest.mouseClick(widget, button, pos=at)

    def _drag(self) -> None:
        widget, at = self._anywhere()
        self._note(f"drag on {type(widget).__name__}")
        left, none = Qt.MouseButton.LeftButton, Qt.MouseButton.NoButton
        moves = [(QEvent.Type.MouseButtonPress, left)]
        moves += [(QEvent.Type.MouseMove, left)] * self.dice.randrange(1, 5) + [(QEvent.Type.MouseButtonRelease, none)]
        for kind, held in moves:
            place = QPointF(at)
            event = QMouseEvent(kind, place, widget.mapToGlobal(place), left, held, Qt.KeyboardModifier.NoModifier)
            QApplication.sendEvent(widget, event)
            at += QPoint(self.dice.randrange(-80, 80), self.dice.randrange(-80, 80))

    def _command(self) -> None:
        name = self.dice.choice([each for each in self.window.ready().actions if each not in LEFT_OUT])
        self._note(f"command {name}")
        self.window.ready().actions[name].trigger()

    def _go(self) -> None:
        desk = self.window.ready()
        place = self.dice.choice(list(desk._places.specs))
        self._note(f"go {place}")
        desk.go(place)

    def _document(self) -> None:
        desk = self.window.ready()
        if desk.works is not None and desk.works.all_entries() and self.dice.random() < 0.3:
            entry = self.dice.choice(desk.works.all_entries())
            self._note(f"document {entry.number}")
            desk.open_document(entry.id)


@contextmanager
def watched(monkey: Monkey) -> Iterator[None]:
    """Count what nobody foresaw, answer every dialog, and put away what waits for an answer."""

    def hook(kind: type[BaseException], fault: BaseException, trace: TracebackType | None) -> None:
        while trace is not None and trace.tb_next is not None:
            trace = trace.tb_next
        place = f"{Path(trace.tb_frame.f_code.co_filename).name}:{trace.tb_lineno}" if trace else "?"
        name = f"FAULT {kind.__name__} at {place}: {str(fault)[:80]!r}"
        if not monkey.faults[name]:
            monkey.last += [name, *monkey.done]
        monkey.faults[name] += 1
        guard._told.clear()

    def put_away() -> None:
        for waiting in (QApplication.activePopupWidget(), QApplication.activeModalWidget()):
            if waiting is not None and monkey.dice.random() < 0.3:
                waiting.close()

    def chosen(*_words: object, **_named: object) -> tuple[str, str]:
        names = ("", "a.svg", "b.dxf", "c.pdf", "d.xlsx", "e.csv", "f", "g.anlage", "no/folder/h.pdf")
        name = monkey.dice.choice(names)
        return (str(monkey.folder / name) if name else "", "")

    before, guard_told = sys.excepthook, set(guard._told)
    sys.excepthook = hook
    kept = {name: getattr(QFileDialog, name) for name in ("getOpenFileName", "getSaveFileName", "getExistingDirectory")}
    QFileDialog.getSaveFileName = chosen  # type: ignore[method-assign,assignment]
    QFileDialog.getOpenFileName = lambda *_w, **_n: ("", "")  # type: ignore[method-assign,assignment]
    QFileDialog.getExistingDirectory = lambda *_w, **_n: str(monkey.folder)  # type: ignore[method-assign,assignment]
    timer = QTimer(interval=20)
    timer.timeout.connect(put_away)
    timer.start()
    try:
        yield
    finally:
        timer.stop()
        sys.excepthook = before
        guard._told |= guard_told
        for name, function in kept.items():
            setattr(QFileDialog, name, function)


def play(seed: int, count: int) -> Counter[str]:
    """Return how many things were done, and what nobody foresaw."""
    with tempfile.TemporaryDirectory() as folder:
        window = opened(Path(folder))
        monkey = Monkey(seed, window, Path(folder))
        with watched(monkey):
            for _ in range(count):
                monkey.act()
            window.ready().drop_unsaved()
            window.shell.may_close = lambda: True
            window.shell.close()
            QApplication.processEvents()
    QApplication.clipboard().clear()  # without a display it outlives Python, and what Python made must not
    for line in monkey.last:
        print(line, file=sys.stderr)
    return Counter({"done": count}) + monkey.faults
