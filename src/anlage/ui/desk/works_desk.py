"""The works file that is open: opened and closed, and what its records prove."""

from collections.abc import Callable, Mapping
from functools import partial
from pathlib import Path
from threading import Thread
from typing import TYPE_CHECKING

from PySide6.QtCore import QObject, QTimer, Signal

from anlage.core.errors import AnlageError
from anlage.core.procedure import Wps
from anlage.core.quantities.units import System
from anlage.session.kinds import RECORD
from anlage.session.works.open_works import OpenWorks
from anlage.ui.desk.following import Following
from anlage.ui.kit.later import Later
from anlage.ui.kit.loading import loaded
from anlage.ui.kit.place import Clocks

if TYPE_CHECKING:
    from anlage.core.machine import Calibrated, Machine
    from anlage.session.judging.assessment import Assessor
    from anlage.session.works.register import RegisterRow, Standpoint
    from anlage.session.works.register_rows import RegisterRows


FEW_RECORDS = 60  # that are read while the window waits
WARM_MS = 1500  # after a works file was opened, its codes are read, so that the first look at the Register finds them
FILL_MS = 250  # a list that fills is shown anew so often at most


def _assessor_of(works: OpenWorks, wps: Wps) -> "Assessor":
    """Return what judges by the records of a works file, once it has judged: the first time takes long."""
    made: Assessor = loaded("anlage.session.judging.assessment:Assessor")(works.records(), works.codes())
    made.assess(wps)
    return made


def _read_codes() -> None:
    """Read the rules of every code that is installed, on a thread of its own: nobody waits for it."""
    for code in loaded("anlage.data.installed_codes:code_folders")():
        loaded("anlage.data.code_packs:code_pack")(code)


class WorksDesk(QObject):
    """Holds the works file.

    Signals
    -------
    told(text) : something must not be missed; may be emitted from the writer thread
    judged() : more is known of the documents of the Register; emitted from another thread
    filled() : the same, told at times and in the window's thread
    ready() : procedures can be judged now
    written(ids) : another program wrote these documents into the file, which is open here for reading only
    unsaved(faults) : these documents are not saved, and why; empty when all are; emitted from the writer thread
    """

    told = Signal(str)
    judged = Signal()
    filled = Signal()
    ready = Signal()
    unsaved = Signal(object)
    written = Signal(object)

    def __init__(self, clocks: Clocks, months: Callable[[], int], parent: QObject) -> None:
        super().__init__(parent)
        self._clocks, self._months = clocks, months  # that a calibration is taken to hold
        self._machines: tuple[Machine, ...] | None = None
        self.works: OpenWorks | None = None
        self._assessor: Assessor | None = None
        self._rows: RegisterRows | None = None
        self._told_refused = False
        self._filling = QTimer(self, interval=FILL_MS, singleShot=True)
        self._filling.timeout.connect(self.filled)
        self._following = Following(self.written.emit, self)
        self.judged.connect(self._on_judged)
        self._warming = QTimer(self, interval=WARM_MS, singleShot=True)
        self._warming.timeout.connect(Thread(target=_read_codes, name="codes", daemon=True).start)
        self._warming.start()
        self._later, self._is_making = Later(self), False  # what reads the records
        self._later.ready.connect(self._on_made)

    def _on_judged(self) -> None:
        if not self._filling.isActive():
            self._filling.start()

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
        self._following.follow(works)
        if not works.can_write:
            self.told.emit(f"{works.path.name} is open for reading only: {works.why_read_only}.")

    def close(self) -> None:
        """Save what waits and close the file; what cannot be saved is dropped: ask `flush` before."""
        self._forget_rows()
        self.forget_records()
        works, self.works = self.works, None
        self._following.follow(None)
        if works is not None:
            works.close()

    def exchange(self, works: OpenWorks) -> None:
        """Take a copy for the one that is open, with the same documents in it."""
        self._forget_rows()
        self.forget_records()
        before, self.works = self.works, works
        self._following.follow(works)
        if before is not None:
            before.close()

    def _forget_rows(self) -> None:
        if self._rows is not None:
            self._rows.close()
        self._rows = None

    def flush(self, patience_s: float = 0.0) -> Mapping[str, Exception]:
        """Save everything that waits, now; return what is not saved for all that, and why."""
        return self.works.flush(patience_s) if self.works is not None else {}

    def forget_records(self) -> None:
        """Work out anew what the records prove when a procedure is judged next, and read the machines again."""
        self._assessor, self._is_making, self._machines = None, False, None
        self._later.forget()  # what is being read is not so any more

    @property
    def knows_records(self) -> bool:
        """Whether it was worked out what the records prove."""
        return self._assessor is not None

    def assessor(self) -> "Assessor":
        """Return what judges by the records as they are saved."""
        assert self.works is not None, "a works file is open"
        if self._assessor is None:
            make = loaded("anlage.session.judging.assessment:Assessor")  # rules and catalogue
            found: Assessor = make(self.works.records(), self.works.codes())
            self.forget_records()
            self._assessor = found
            self._told_refused = False
        return self._assessor

    def is_ready(self, wps: Wps) -> bool:
        """Return whether a procedure can be judged now; with many records that is so later, and `ready` tells."""
        assert self.works is not None, "a works file is open"
        if self._assessor is not None or len(self.works.entries(RECORD)) <= FEW_RECORDS:
            return True
        if not self._is_making:
            self._is_making = True
            self._later.ask(partial(_assessor_of, self.works, wps))
        return False

    def _on_made(self, assessor: "Assessor") -> None:
        self._is_making = False
        self._assessor, self._told_refused = assessor, False
        self.ready.emit()

    def tell_refused(self) -> None:
        """Say once why a record proves nothing, when it was found out."""
        if self._assessor is not None and self._assessor.refused and not self._told_refused:
            self._told_refused = True
            refusal = next(iter(self._assessor.refused.values()))
            self.told.emit(f"A record proves nothing as it stands: {refusal}")

    def numbers(self) -> Mapping[str, str]:
        """Return the number of every document, by its id."""
        return {entry.id: entry.number for entry in self.works.all_entries()} if self.works else {}

    def forget_machines(self) -> None:
        """Read the machines anew when they are next asked for."""
        self._machines = None

    def machines(self) -> "Calibrated":
        """Return the machines of the works file, as they are known today."""
        if self._machines is None:
            self._machines = self.works.machines() if self.works is not None else ()
        make = loaded("anlage.core.machine:Calibrated")
        found: Calibrated = make(machines=self._machines, today=self._clocks.now()[:10], months=self._months())
        return found

    def standpoint(self, system: System) -> "Standpoint":
        """Return from where the documents are looked at."""
        make = loaded("anlage.session.works.register:Standpoint")
        found: Standpoint = make(system, self._clocks.now()[:10], self._months())
        return found

    def rows(self, system: System) -> "tuple[RegisterRow, ...]":
        """Return every document of the works file as the Register shows it."""
        if self.works is None:
            return ()
        if self._rows is None:
            make = loaded("anlage.session.works.register_rows:RegisterRows")
            made: RegisterRows = make(self.works, self.judged.emit)
            self._rows = made
        return self._rows.rows(self.standpoint(system), self.assessor)
