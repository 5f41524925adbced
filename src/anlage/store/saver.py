"""Saving while someone types: 300 ms after the last edit, at most a second after the first unsaved one."""

import threading
import time
from collections.abc import Callable

from msgspec import Struct

QUIET_S = 0.3  # after the last edit
LATEST_S = 0.9  # after the first unsaved edit: with the writing itself within one second


class _Waiting(Struct):
    save: Callable[[], None]
    first: float
    last: float


class Saver:
    """One writer thread. The newest save of each document waits; older ones it replaces are never written.

    Parameters
    ----------
    failed : called with the fault, on the writer thread, when a save does not succeed; the save is tried again
        with the next edit
    """

    def __init__(self, failed: Callable[[Exception], None]) -> None:
        self._failed = failed
        self._waiting: dict[str, _Waiting] = {}
        self._changed = threading.Condition()
        self._closing = False
        self._busy = False
        self._thread = threading.Thread(target=self._run, name="works file", daemon=True)
        self._thread.start()

    def put(self, document_id: str, save: Callable[[], None]) -> None:
        """Save a document soon; a save of it that still waits is replaced."""
        now = time.monotonic()
        with self._changed:
            before = self._waiting.get(document_id)
            self._waiting[document_id] = _Waiting(save, before.first if before else now, now)
            self._changed.notify_all()

    def flush(self) -> None:
        """Save everything that waits, now, and return when it is in the file."""
        with self._changed:
            for waiting in self._waiting.values():
                waiting.first = float("-inf")
            self._changed.notify_all()
            self._changed.wait_for(lambda: not self._waiting and not self._busy)

    def close(self) -> None:
        """Save what waits and end the thread."""
        self.flush()
        with self._changed:
            self._closing = True
            self._changed.notify_all()
        self._thread.join()

    def _run(self) -> None:
        while True:
            with self._changed:
                due = self._wait_until_due()
                if due is None:
                    return
                self._busy = True
            try:
                due()
            except Exception as fault:  # noqa: BLE001 - told to the owner; the thread must live for the next save
                self._failed(fault)
            with self._changed:
                self._busy = False
                self._changed.notify_all()

    def _wait_until_due(self) -> Callable[[], None] | None:
        while True:
            if not self._waiting:
                if self._closing:
                    return None
                self._changed.wait()
                continue
            document_id, waiting = min(self._waiting.items(), key=lambda item: _due(item[1]))
            left = _due(waiting) - time.monotonic()
            if left <= 0:
                del self._waiting[document_id]
                return waiting.save
            self._changed.wait(left)


def _due(waiting: _Waiting) -> float:
    return min(waiting.last + QUIET_S, waiting.first + LATEST_S)
