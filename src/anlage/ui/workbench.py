"""What is open in the window: a works file, its procedures, and the places over the one in hand."""

from collections.abc import Callable
from dataclasses import dataclass, replace
from functools import partial
from pathlib import Path
from typing import TYPE_CHECKING

from PySide6.QtCore import QObject, QTimer, Signal
from PySide6.QtWidgets import QApplication, QWidget

from anlage.core.document import with_at
from anlage.core.errors import AnlageError
from anlage.core.record import PQR, Pqr
from anlage.core.results import Notice
from anlage.session.leaves.draft import Working
from anlage.session.machine.settings import Settings
from anlage.session.works.open_works import OpenWorks, new_pqr, new_wps, next_number, number_clash
from anlage.ui.commands import entries, install
from anlage.ui.document import Document
from anlage.ui.place_making import make_place, make_register
from anlage.ui.shell import PLACES, PLACES_PX, Shell
from anlage.ui.welcome import Welcome

if TYPE_CHECKING:
    from anlage.session.judging.assessment import Judge
    from anlage.session.works.register import Row
    from anlage.ui.job_panel import JobPanel
    from anlage.ui.palette import Palette
    from anlage.ui.passes_place import PassesPlace
    from anlage.ui.place_making import Place
    from anlage.ui.proof_strip import ProofStrip
    from anlage.ui.register_place import RegisterPlace


FIRST_PLACE = "joint"


@dataclass(frozen=True)
class Clocks:
    """The two clocks of a window: time of day as ISO 8601 in UTC, and seconds that only run on."""

    now: Callable[[], str]
    seconds: Callable[[], float]


class Workbench(QObject):
    """Opens works files and procedures, and shows them in the shell.

    Signals
    -------
    save_failed(text) : a draft could not be saved; emitted from the writer thread
    """

    save_failed = Signal(str)

    def __init__(self, shell: Shell, settings: Settings, clocks: Clocks) -> None:
        super().__init__(shell)
        self.shell, self.settings, self.clocks = shell, settings, clocks
        self.works: OpenWorks | None = None
        self.documents: dict[str, Document] = {}
        self.places: dict[str, dict[str, Place]] = {}
        self.document: Document | None = None
        self.place = settings.place if settings.place in {place.id for place in PLACES} else FIRST_PLACE
        self.job: JobPanel | None = None
        self.register: RegisterPlace | None = None
        self.last_procedure = ""  # to come back to from a record
        self.deleted = ""  # the procedure put away last, to bring back
        self.palette: Palette | None = None
        self.welcome = Welcome(self)
        shell.stack.addWidget(self.welcome)
        shell.place_asked.connect(self.go)
        shell.closing.connect(self.close)
        self.save_failed.connect(self.say)
        self.actions = install(self)
        self.judge: Judge | None = None
        self.strip: ProofStrip | None = None
        self.judging = QTimer(self, interval=0, singleShot=True)  # once a turn of the event loop, however many edits
        self.judging.timeout.connect(self._judge_now)
        self._show_band()

    def say(self, text: str) -> None:
        """Show a sentence that must not be missed."""
        self.shell.notice.say(text)

    # Works files -----------------------------------------------------------------------------

    def open_file(self, path: Path, document_id: str = "") -> bool:
        """Open a works file, or make it; return whether it is open. The one open before stays when it cannot be."""
        try:
            works = OpenWorks(path, now=self.clocks.now, failed=self._on_save_failed, holder=self.settings.author)
        except AnlageError as refusal:
            self.say(str(refusal))
            return False
        self._close_works()
        self.works = works
        self.settings = self.settings.with_recent(path)
        if not works.can_write:
            who = f"{works.held_by} writes" if works.held_by else "another window writes"
            self.say(f"{path.name} is open for reading only: {who} in it.")
        entries = works.entries()
        known = {entry.id for entry in (*entries, *works.entries(PQR.format))}
        wanted = document_id if document_id in known else entries[0].id if entries else ""
        if wanted:
            self.open_document(wanted)
        elif works.can_write:
            self.new_document()
        return True

    def _on_save_failed(self, fault: Exception) -> None:
        self.save_failed.emit(f"The draft is not saved: {fault}. It is saved with the next edit, or copy it elsewhere.")

    def open_named(self, name: str) -> None:
        """Open a works file by its name, if it is still there."""
        if Path(name).exists():
            self.open_file(Path(name))
        else:
            self.say(f"{name} is no longer there.")

    def open_demo(self) -> None:
        """Open the demo."""
        from anlage.session.works.demo import demo_file  # records and all: not needed before somebody asks for it

        self.open_file(demo_file(self.clocks.now()))

    # Procedures ------------------------------------------------------------------------------

    def open_document(self, document_id: str) -> None:
        """Show a procedure of the open works file, at the place that was open."""
        assert self.works is not None
        if document_id not in self.documents:
            try:
                working, notices = self.works.read(document_id)
            except AnlageError as refusal:
                self.say(str(refusal))
                return
            self._take_in(document_id, working, notices)
        self.document = self.documents[document_id]
        if isinstance(self.document.working.value, Pqr):
            self.place = "proof" if self.place != "register" else self.place
        else:
            self.last_procedure = document_id
            self.place = self.place if self.place != "proof" else FIRST_PLACE
        self._put_job_away()
        self._show_band()
        self.go(self.place)
        self.judging.start()

    def _take_in(self, document_id: str, working: Working, notices: tuple[Notice, ...]) -> None:
        assert self.works is not None
        works = self.works
        document = Document(working, self.shell.reader, document_id=document_id, can_write=works.can_write)
        kind = working.value.format
        document.number_fault = lambda number: number_clash(number, document_id, works.entries(kind))
        document.changed.connect(partial(self._on_changed, document))
        document.undo_stack.indexChanged.connect(self._show_band)
        self.documents[document_id] = document
        self.places[document_id] = {}
        if notices:
            self.say(f"{len(notices)} mended in {working.value.header.number}: {notices[0].text}")

    def _on_changed(self, document: Document, _before: object, after: object) -> None:
        assert self.works is not None
        assert isinstance(after, Working)
        self.works.save(document.document_id, after)
        if isinstance(after.value, Pqr):
            self.judge = None  # what it proves is worked out anew when a procedure is judged next
        self._show_band()
        self.judging.start()

    def _judge_now(self) -> None:
        """Show in the strip how the open procedure stands."""
        if self.works is None or self.document is None:
            return
        if isinstance(self.document.working.value, Pqr):
            self.shell.band.state.setText(f"record, {self.document.working.value.state}")
            if self.strip is not None:
                self.strip.show_proof(None)
            self.shell.places.show_verdicts({})
            return
        from anlage.ui.homes import verdicts_by_place

        if self.strip is None:
            from anlage.ui.proof_strip import ProofStrip

            self.strip = ProofStrip(self.shell.reader)
            self.strip.asked.connect(partial(self.go, "ranges"))
            self.shell.band.proof_row.addWidget(self.strip)
        self.shell.band.state.setText(self.works.badge(self.document.document_id, self.document.working))
        proof = self._ready_judge(self.works).proof(self.document.wps)
        self.strip.show_proof(proof)
        self.shell.places.show_verdicts(verdicts_by_place(self.document.wps, proof))
        for name, place in self.places[self.document.document_id].items():
            if name in ("ranges", "sheet"):
                place.show_proof(proof)  # type: ignore[union-attr]  # the places that have it

    def new_document(self) -> None:
        """Make a new procedure under the next free number, at its joint."""
        if self.works is None or not self.works.can_write:
            self.say("Open a works file that can be written first.")
            return
        self.place = "joint"
        self.open_document(self.works.add(new_wps(self.works.entries())))

    def duplicate_document(self) -> None:
        """Make a copy of the open procedure under the next free number."""
        if self.works is None or self.document is None or not self.works.can_write:
            return
        value = self.document.working.value
        number = next_number([entry.number for entry in self.works.entries(value.format)])
        self.open_document(self.works.add(with_at(value, "header/number", number), value.format))

    def delete_document(self) -> None:
        """Put the open procedure away; it can be brought back."""
        if self.works is None or self.document is None or not self.works.can_write:
            return
        gone = self.document
        self.works.delete(gone.document_id)
        self.deleted, self.judge = gone.document_id, None
        entries = self.works.entries()
        if entries:
            self.open_document(entries[0].id)
        else:
            self.new_document()
        self.say(f"{gone.wps.header.number} is put away. Bring it back with Ctrl+Shift+Backspace.")

    def restore_document(self) -> None:
        """Bring back the procedure that was put away last."""
        if self.works is not None and self.deleted:
            self.works.restore(self.deleted)
            self.judge = None
            self.open_document(self.deleted)
            self.deleted = ""
            self.say("")

    # Places ----------------------------------------------------------------------------------

    def go(self, place: str) -> None:
        """Show a place of the open procedure; Proof is that of a record."""
        if self.document is not None and self._turned(place):
            return
        self.place = place
        if self.document is None:
            self.shell.stack.setCurrentWidget(self.welcome)
            return
        widget = self.current_place()
        self.shell.places.mark(place)
        self.shell.stack.setCurrentWidget(widget)
        if widget is self.register:
            self.register.refresh()
        widget.begin()

    def _turned(self, place: str) -> bool:
        """Open the document that a place is about when another kind is open; return whether one was opened."""
        assert self.document is not None
        is_record = isinstance(self.document.working.value, Pqr)
        if place == "proof" and not is_record:
            assert self.works is not None
            records = self.works.entries(PQR.format)
            wanted = next((entry.id for entry in records if entry.number in self._supports()), "")
            if wanted or records:
                self.place = "proof"
                self.open_document(wanted or records[0].id)
            elif self.works.can_write:
                self.new_record()
            return True
        if is_record and place not in ("proof", "register"):
            assert self.works is not None
            entries = self.works.entries()
            known = {entry.id for entry in entries}
            back = self.last_procedure if self.last_procedure in known else next(iter(known), "")
            self.place = place
            if back:
                self.open_document(back)
            else:
                self.new_document()
            return True
        return False

    def _supports(self) -> set[str]:
        """Return the numbers of the records that the open procedure rests on, or is judged by."""
        if self.judge is None or self.document is None:
            return set()
        judgement = self.judge.proof(self.document.wps).judgement
        return {record for rung in judgement.rungs for record in rung.records} if judgement else set()

    def new_record(self) -> None:
        """Make a new record under the next free number."""
        if self.works is None or not self.works.can_write:
            self.say("Open a works file that can be written first.")
            return
        self.place = "proof"
        pqr = new_pqr(self.works.entries(PQR.format))
        self.open_document(self.works.add(pqr, PQR.format))

    def _register(self) -> "RegisterPlace":
        """Return the Register, made when it is first shown; it is that of the works file, not of a procedure."""
        if self.register is None:
            self.register = make_register(self)
            self.shell.stack.addWidget(self.register)
        return self.register

    def with_chosen(self, do: Callable[[], None]) -> None:
        """Do something with the procedure that is chosen in the Register."""
        assert self.register is not None
        self.open_document(self.register.presenter.chosen_id)
        do()
        self.register.refresh()

    def rows(self) -> "tuple[Row, ...]":
        """Return every document of the works file as the Register shows it."""
        from anlage.session.works.register import rows

        if self.works is None:
            return ()
        self.works.flush()  # what was just typed is in the list too
        return rows(self.works, self._ready_judge(self.works), self.shell.reader.system)

    def _ready_judge(self, works: OpenWorks) -> "Judge":
        """Return the judge of the works file, its records as they are saved; say why one of them proves nothing."""
        if self.judge is None:
            from anlage.session.judging.assessment import (
                Judge,  # rules and catalogue: after the procedure can be edited
            )

            works.flush()
            self.judge = Judge(works.records())
            for refusal in self.judge.refused[:1]:
                self.say(f"A record proves nothing as it stands: {refusal}")
        return self.judge

    def open_at_first_place(self, document_id: str) -> None:
        """Open a document from the Register: a procedure at its joint, a record at Proof."""
        self.place = FIRST_PLACE
        self.open_document(document_id)

    def current_place(self) -> "Place":
        """Return the place that is open, made when it is first shown."""
        assert self.document is not None
        if self.place == "register":
            return self._register()
        made = self.places[self.document.document_id]
        if self.place not in made:
            made[self.place] = place = make_place(self, self.document)
            self.shell.stack.addWidget(place)
        return made[self.place]

    def keep(self, author: str, paper: str) -> None:
        """Remember the person's name and the paper of sheets."""
        self.settings = replace(self.settings, author=author, paper=paper)

    def keep_rates(self, rates: dict[str, float]) -> None:
        """Remember the user's rates."""
        self.settings = replace(self.settings, rates=rates)

    def passes(self) -> "PassesPlace | None":
        """Return the Passes place when it is open."""
        place = self.current_place() if self.document else None
        return place if self.place == "passes" else None  # type: ignore[return-value]

    def go_to(self, path: str) -> None:
        """Put the keyboard on the field of a leaf, wherever it is."""
        if self.document is None:
            return
        if isinstance(self.document.working.value, Pqr):
            self.go("proof")
            self.current_place().go_to(path)
            return
        from anlage.ui.homes import home_of  # with the ladder: after the procedure can be edited

        home = home_of(path)
        if home == "job":
            if self.job is None:
                self.open_job()
            assert self.job is not None
            self.job.fields[path].setFocus()
            return
        self.go(home or "ranges")
        self.current_place().go_to(path)

    def open_job(self) -> None:
        """Show the data of the job under the number, or put them away."""
        if self.document is None:
            return
        if isinstance(self.document.working.value, Pqr):
            self.go_to("header/number")  # the form of a record has it all
            return
        if self.job is not None:
            self._put_job_away()
            return
        from anlage.ui.job_panel import JobPanel  # when first asked for

        parent = self.shell.centralWidget()
        self.job = JobPanel(self.document, parent)
        self.job.put_away.connect(self._put_job_away)
        self.job.adjustSize()
        self.job.move(PLACES_PX + 8, self.shell.band.height() - 2)
        self.job.show()
        self.job.raise_()
        self.job.fields["header/number"].setFocus()

    def _put_job_away(self) -> None:
        job, self.job = self.job, None
        if job is not None:
            job.hide()
            job.deleteLater()
            if self.document is not None:
                self.current_place().setFocus()

    def add_deposit(self) -> None:
        """Add a deposit to what is open: to the record at Proof, else to the procedure at Passes."""
        if self.document is None:
            return
        if not isinstance(self.document.working.value, Pqr):
            self.go("passes")
        self.current_place().add_deposit()

    def find(self) -> None:
        """Open the search palette over everything that can be done now."""
        if self.palette is None:
            from anlage.ui.palette import Palette  # when first asked for

            self.palette = Palette(self.shell)
        self.palette.ask(entries(self))

    # The band --------------------------------------------------------------------------------

    def _show_band(self) -> None:
        band, document = self.shell.band, self.document
        band.setEnabled(True)
        header = document.wps.header if document else None
        band.number.setText((header.number or "No number") if header else "Anlage")
        band.title.setText(header.title if header else "")
        band.state.setVisible(header is not None)
        can = document is not None
        self.actions["undo"].setEnabled(can and document.undo_stack.canUndo())
        self.actions["redo"].setEnabled(can and document.undo_stack.canRedo())
        for name, text in (("undo", "Undo"), ("redo", "Redo")):
            what = getattr(document.undo_stack, f"{name}Text")() if document else ""
            self.actions[name].setText(f"{text} {what}".strip())
            self.actions[name].setToolTip(f"{text} {what} ({self.actions[name].shortcut().toString()})")
        title = f"{header.number} – " if header and header.number else ""
        self.shell.setWindowTitle(f"{title}Anlage")

    def step_back(self) -> None:
        """Undo the last step of the open procedure."""
        if self.document is not None:
            self.document.undo_stack.undo()

    def step_forth(self) -> None:
        """Redo the step that was undone last."""
        if self.document is not None:
            self.document.undo_stack.redo()

    # Reading and closing ---------------------------------------------------------------------

    def flush(self) -> None:
        """Save everything that waits, now."""
        if self.works is not None:
            self.works.flush()

    def close(self) -> None:
        """Save what waits, close the works file and take note of where the person was."""
        own, reader = self.document, self.shell.reader
        self.settings = replace(
            self.settings, units=reader.system, theme=reader.look.theme, place=self.place,
            document=own.document_id if own else "", width=self.shell.width(), height=self.shell.height(),
        )  # fmt: skip
        self._close_works()

    def _close_works(self) -> None:
        focused = QApplication.focusWidget()
        if isinstance(focused, QWidget):
            focused.clearFocus()
        self._put_job_away()
        self.document = None
        for places in self.places.values():
            for place in places.values():
                self.shell.stack.removeWidget(place)
                place.deleteLater()
        self.places.clear()
        self.documents.clear()
        self.judge = None
        works, self.works = self.works, None
        if works is not None:
            works.close()
