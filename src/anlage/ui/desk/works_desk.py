"""The works file that is open: opened and closed, and what its records prove."""

from collections.abc import Mapping
from pathlib import Path
from typing import TYPE_CHECKING

from PySide6.QtCore import QObject, Signal

from anlage.core.errors import AnlageError
from anlage.core.quantities.units import System
from anlage.session.works.open_works import OpenWorks
from anlage.ui.kit.loading import loaded
from anlage.ui.kit.place import Clocks

if TYPE_CHECKING:
    from anlage.session.judging.assessment import Assessor
    from anlage.session.works.register import RegisterRow


class WorksDesk(QObject):
    """Holds the works file.

    Signals
    -------
    told(text) : something must not be missed; may be emitted from the writer thread
    unsaved(faults) : these documents are not saved, and why; empty when all are; emitted from the writer thread
    """

    told = Signal(str)
    unsaved = Signal(object)

    def __init__(self, clocks: Clocks, parent: QObject) -> None:
        super().__init__(parent)
        self._clocks = clocks
        self.works: OpenWorks | None = None
        self._assessor: Assessor | None = None
        self._told_refused = False

    def opened(self, path: Path, holder: str) -> OpenWorks | None:
        """Return a works file, made when it does not exist; `None` when it cannot be opened, and why is told."""
        try:
            return OpenWorks(path, now=self._clocks.now, told=self.unsaved.emit, holder=holder, say=self.told.emit)
        except AnlageError as refusal:
            self.told.emit(str(refusal))
            return None

    def take(self, works: OpenWorks) -> None:
        """Make a works file the open one; tell when it can only be read."""
        self.works = works
        if not works.can_write:
            self.told.emit(f"{works.path.name} is open for reading only: {works.why_read_only}.")

    def close(self) -> None:
        """Save what waits and close the file; what cannot be saved is dropped: ask `flush` before."""
        self._assessor = None
        works, self.works = self.works, None
        if works is not None:
            works.close()

    def exchange(self, works: OpenWorks) -> None:
        """Take a copy for the one that is open, with the same documents in it."""
        before, self.works = self.works, works
        if before is not None:
            before.close()

    def flush(self, patience_s: float = 0.0) -> Mapping[str, Exception]:
        """Save everything that waits, now; return what is not saved for all that, and why."""
        return self.works.flush(patience_s) if self.works is not None else {}

    def forget_records(self) -> None:
        """Work out anew what the records prove when a procedure is judged next."""
        self._assessor = None

    @property
    def knows_records(self) -> bool:
        """Whether it was worked out what the records prove."""
        return self._assessor is not None

    def assessor(self) -> "Assessor":
        """Return what judges by the records as they are saved."""
        assert self.works is not None, "a works file is open"
        if self._assessor is None:
            make = loaded("anlage.session.judging.assessment:Assessor")  # rules and catalogue
            found: Assessor = make(self.works.records())
            self._assessor = found
            self._told_refused = False
        return self._assessor

    def tell_refused(self) -> None:
        """Say once why a record proves nothing, when it was found out."""
        if self._assessor is not None and self._assessor.refused and not self._told_refused:
            self._told_refused = True
            refusal = next(iter(self._assessor.refused.values()))
            self.told.emit(f"A record proves nothing as it stands: {refusal}")

    def rows(self, system: System) -> "tuple[RegisterRow, ...]":
        """Return every document of the works file as the Register shows it."""
        if self.works is None:
            return ()
        found: tuple[RegisterRow, ...] = loaded("anlage.session.works.register:rows")(
            self.works, self.assessor(), system
        )
        return found
