"""Ending in order when the system or a terminal asks for it."""

import os
import signal
import sys
from collections.abc import Callable, Mapping

from PySide6.QtCore import QSocketNotifier

from anlage.ui.frame.shell import Shell


def tell_outside(text: str) -> None:
    """Say something when no window is left to say it in."""
    sys.stderr.write(f"{text}\n")


class Signals:
    """Saves and closes the window when the process is asked to end; nobody is there to be asked anything.

    Parameters
    ----------
    shell : the window
    flush : saves everything that waits, and returns what is not saved for all that; told where a terminal shows it
    """

    def __init__(self, shell: Shell, flush: Callable[[], Mapping[str, Exception]]) -> None:
        self._shell, self._flush = shell, flush
        self._near, self._far = os.pipe2(os.O_NONBLOCK | os.O_CLOEXEC)
        self._waking = QSocketNotifier(self._near, QSocketNotifier.Type.Read)
        self._waking.activated.connect(self._end)
        self._before = signal.set_wakeup_fd(self._far, warn_on_full_buffer=False)
        for each in (signal.SIGTERM, signal.SIGINT, signal.SIGHUP):
            signal.signal(each, lambda *_: None)  # the wake-up is enough: Python runs between two events of Qt only

    def _end(self) -> None:
        self._waking.setEnabled(False)
        for fault in self._flush().values():
            tell_outside(str(fault))
        self._shell.may_close = lambda: True
        self._shell.close()

    def close(self) -> None:
        """Listen no longer."""
        self._waking.setEnabled(False)
        signal.set_wakeup_fd(self._before)
        os.close(self._near)
        os.close(self._far)
