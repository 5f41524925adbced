"""The waits of the procedure that is shown: worked out on a thread once typing rests, the newest wish alone."""

from collections.abc import Callable
from contextlib import suppress
from functools import partial
from typing import TYPE_CHECKING

from PySide6.QtCore import QObject, QTimer, Signal

from anlage.core.procedure import Wps
from anlage.ui.kit.later import Later
from anlage.ui.kit.loading import loaded

if TYPE_CHECKING:
    from anlage.core.machine import Calibrated
    from anlage.session.heat.sequence import Waits

REST_MS = 400  # typing rests so long before the section is run
TOLD_EVERY = 0.04  # of the run
_known = loaded("anlage.session.heat.known_waits:known_waits")
_worked_out = loaded("anlage.session.heat.known_waits:worked_out")
_asked = loaded("anlage.session.heat.sequence:asked_of")


class SectionWaits(QObject):
    """Waits by the section model, asked for again and again as the document changes.

    Signals
    -------
    ready() : the newest wish is worked out
    progressed(share) : how much of it is done, 0 to 1
    """

    ready = Signal()
    progressed = Signal(float)

    def __init__(self, parent: QObject, machines: "Callable[[], Calibrated]", rest_ms: int = REST_MS) -> None:
        super().__init__(parent)
        self._machines = machines
        self._wished: Wps | None = None
        self._told = 0.0
        self._later = Later(self)
        self._later.ready.connect(self._on_ready)
        self._rest = QTimer(self, singleShot=True, interval=rest_ms)
        self._rest.timeout.connect(self._run)

    @property
    def is_due(self) -> bool:
        """Whether a newer answer is still to come."""
        return self._wished is not None

    def ask(self, wps: Wps) -> "Waits | str | None":
        """Return the waits where they are known, or why there are none; else have them worked out and return `None`.

        Nothing is worked out of a procedure that lacks something for it.
        """
        found: Waits | str | None = _known(wps, self._machines())
        if found is not None or _asked(wps).missing:
            self.forget()
        elif wps is not self._wished:
            self._wished = wps
            self._rest.start()
        return found

    def forget(self) -> None:
        """Take back what was wished."""
        self._wished = None
        self._later.forget()
        self._rest.stop()

    def _run(self) -> None:
        wps = self._wished
        if wps is not None:
            self._later.ask(partial(_answer, wps, self._machines(), partial(self._goes_on, wps)))

    def _goes_on(self, wps: Wps, share: float) -> bool:
        """Return whether a run is still wished for, and tell now and then how far it is; from the thread."""
        if self._wished is not wps:
            return False
        if share - self._told >= TOLD_EVERY or share < self._told:
            self._told = share
            with suppress(RuntimeError):  # whoever asked is gone, and the signal with it
                self.progressed.emit(share)
        return True

    def _on_ready(self, answer: Wps) -> None:
        if answer is self._wished:
            self._wished = None
            self.ready.emit()


def _answer(wps: Wps, works: "Calibrated", goes_on: Callable[[float], bool]) -> Wps:
    _worked_out(wps, works, goes_on)
    return wps
