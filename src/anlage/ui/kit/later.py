"""What takes long is worked out on a thread, the newest wish alone; until then what was shown stays, dimmed."""

from collections.abc import Callable
from contextlib import suppress
from threading import Thread
from typing import Any

from PySide6.QtCore import QObject, Signal


class Later(QObject):
    """Works out one thing at a time; a wish that comes meanwhile takes the place of one that waits.

    Signals
    -------
    ready(answer) : the newest wish is worked out
    """

    ready = Signal(object)
    _done = Signal(int, object)  # from the thread

    def __init__(self, parent: QObject) -> None:
        super().__init__(parent)
        self._wished = 0  # how many wishes there were
        self._works = False
        self._waits: Callable[[], Any] | None = None
        self._done.connect(self._on_done)

    @property
    def is_due(self) -> bool:
        """Whether an answer is still to come."""
        return self._works

    def ask(self, work: Callable[[], Any]) -> None:
        """Have something worked out; it must change nothing and know no widget."""
        self._wished += 1
        self._waits = work
        if not self._works:
            self._begin()

    def forget(self) -> None:
        """Take back what was wished: it was answered at once."""
        self._wished += 1
        self._waits = None

    def _begin(self) -> None:
        work, number = self._waits, self._wished
        assert work is not None, "something waits"
        self._works, self._waits = True, None
        Thread(target=self._work, args=(work, number), name="later", daemon=True).start()

    def _work(self, work: Callable[[], Any], number: int) -> None:
        answer = None
        try:
            answer = work()
        finally:
            with suppress(RuntimeError):  # whoever asked is gone, and the signal with it
                self._done.emit(number, answer)

    def _on_done(self, number: int, answer: Any) -> None:
        self._works = False
        if self._waits is not None:
            self._begin()
        elif number == self._wished and answer is not None:
            self.ready.emit(answer)
