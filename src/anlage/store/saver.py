"""Saving while someone types: 300 ms after the last edit, at most a second after the first unsaved one."""

import threading
import time
from collections.abc import Callable, Mapping
from types import MappingProxyType

from msgspec import Struct

from anlage.store.faults import HeldError

QUIET_S = 0.3  # after the last edit
LATEST_S = 0.9  # after the first unsaved edit: with the writing itself within one second
AGAIN_S = 2.0  # after a save that failed: by then there may be room on the disk
HELD_AGAIN_S = 0.2  # after one that another program held up
HELD_TOLD_S = 15.0  # that another program may hold it up before that is told


class _Waiting(Struct):
    save: Callable[[], None]
    first: float
    due: float
    fault: Exception | None = None
    typed_on: float | None = None  # the first edit since its save was begun


class Saver:
    """One writer thread. The newest save of each document waits until it is done; older ones are never written.

    Parameters
    ----------
    told : called on the writer thread with what is not saved, by document, and why, whenever that changes; empty when
        everything is saved again
    """

    def __init__(self, told: Callable[[Mapping[str, Exception]], None]) -> None:
        self._told = told
        self._told_last: dict[str, str] = {}
        self._waiting: dict[str, _Waiting] = {}
        self._changed = threading.Condition()
        self._closing = False
        self._busy = ""
        self._thread = threading.Thread(target=self._run, name="works file", daemon=True)
        self._thread.start()

    def put(self, document_id: str, save: Callable[[], None]) -> None:
        """Save a document soon; a save of it that still waits is replaced."""
        now = time.monotonic()
        with self._changed:
            before = self._waiting.get(document_id)
            if before is None:
                self._waiting[document_id] = _Waiting(save, now, now + QUIET_S)
            elif before.fault is None:
                if self._busy == document_id:
                    before.typed_on = before.typed_on or now
                first = before.first if before.typed_on is None else before.typed_on
                before.save, before.due = save, min(now + QUIET_S, first + LATEST_S)
            else:
                before.save, before.due = save, min(before.due, now + QUIET_S)
            self._changed.notify_all()

    def unsaved(self) -> Mapping[str, Exception]:
        """Return what could not be saved, by document, and why."""
        with self._changed:
            return self._faults()

    def _faults(self) -> Mapping[str, Exception]:
        return MappingProxyType({own: each.fault for own, each in self._waiting.items() if each.fault is not None})

    def flush(self, patience_s: float = 0.0) -> Mapping[str, Exception]:
        """Try to save everything that waits, now; return what is not saved for all that, and why.

        What another program holds up is tried for as long as the patience lasts.
        """
        end = time.monotonic() + patience_s
        while (left := self._flush_once()) and time.monotonic() < end:
            if not all(isinstance(fault, HeldError) for fault in left.values()):
                break
            time.sleep(HELD_AGAIN_S)
        return left

    def _flush_once(self) -> Mapping[str, Exception]:
        with self._changed:
            tried = tuple(self._waiting)
            for each in self._waiting.values():
                each.due, each.fault = float("-inf"), None
            self._changed.notify_all()
            self._changed.wait_for(lambda: not self._busy and not any(self._is_untried(own) for own in tried))
            return self._faults()

    def _is_untried(self, document_id: str) -> bool:
        waiting = self._waiting.get(document_id)
        return waiting is not None and waiting.fault is None

    def close(self, patience_s: float = 0.0) -> Mapping[str, Exception]:
        """Save what waits and end the thread; return what was not saved and is dropped, and why."""
        left = self.flush(patience_s)
        with self._changed:
            self._waiting.clear()
            self._closing = True
            self._changed.notify_all()
        self._thread.join()
        return left

    def _run(self) -> None:
        while True:
            with self._changed:
                found = self._wait_until_due()
                if found is None:
                    return
                own, waiting = found
                self._busy, save = own, waiting.save
            fault = _done(save)
            with self._changed:
                self._busy = ""
                if fault is None:
                    if waiting.save is save:
                        self._waiting.pop(own, None)
                    else:  # typed on meanwhile: a long save puts none of that off
                        waiting.first = waiting.typed_on or time.monotonic()
                        waiting.typed_on = waiting.fault = None
                else:
                    waiting.typed_on = None
                    waiting.fault = fault
                    waiting.due = time.monotonic() + (HELD_AGAIN_S if isinstance(fault, HeldError) else AGAIN_S)
                told = self._to_be_told()
                self._changed.notify_all()
            if told is not None:
                self._told(told)

    def _to_be_told(self) -> Mapping[str, Exception] | None:
        now = time.monotonic()
        faults = {
            own: fault
            for own, fault in self._faults().items()
            if not isinstance(fault, HeldError) or now - self._waiting[own].first > HELD_TOLD_S
        }
        said = {own: str(fault) for own, fault in faults.items()}
        if said == self._told_last:
            return None
        self._told_last = said
        return MappingProxyType(faults)

    def _wait_until_due(self) -> tuple[str, _Waiting] | None:
        while True:
            if not self._waiting:
                if self._closing:
                    return None
                self._changed.wait()
                continue
            own, waiting = min(self._waiting.items(), key=lambda item: item[1].due)
            left = waiting.due - time.monotonic()
            if left <= 0:
                return own, waiting
            self._changed.wait(left)


def _done(save: Callable[[], None]) -> Exception | None:
    """Save; return what went wrong, for the thread must live for the next save."""
    try:
        save()
    except Exception as fault:  # noqa: BLE001 - told to the owner
        return fault
    return None
