"""The desk: what is open in the window, brought together: works file, documents, places, and the band over them."""

from collections.abc import Callable, Mapping, Sequence
from functools import partial
from pathlib import Path
from pkgutil import resolve_name
from typing import TYPE_CHECKING, Any

from PySide6.QtCore import QObject
from PySide6.QtWidgets import QApplication, QWidget

from anlage.core.errors import InputError
from anlage.session.kinds import KINDS, PROCEDURE, RECORD, Kind
from anlage.session.machine.settings import Settings
from anlage.session.works.open_works import PATIENCE_S, OpenWorks
from anlage.ui.desk.commands import install, show_steps
from anlage.ui.desk.documents_desk import DocumentsDesk
from anlage.ui.desk.judging_desk import JudgingDesk
from anlage.ui.desk.places_desk import PlacesDesk
from anlage.ui.desk.rules_desk import RulesDesk
from anlage.ui.desk.telling import told
from anlage.ui.desk.works_desk import WorksDesk
from anlage.ui.frame.shell import Shell
from anlage.ui.frame.welcome import Welcome
from anlage.ui.kit.document import Document
from anlage.ui.kit.loading import loaded
from anlage.ui.kit.place import Clocks, Place, PlaceSpec
from anlage.ui.kit.reader import Reader

if TYPE_CHECKING:
    from anlage.core.document import Part
    from anlage.core.machine import Calibrated
    from anlage.core.procedure import Wps
    from anlage.session.judging.assessment import Assessment
    from anlage.session.works.issuing import Against, Saying
    from anlage.session.works.register import RegisterRow
    from anlage.session.works.standing import Standing
    from anlage.store import Revision
    from anlage.ui.frame.palette import Palette
    from anlage.ui.frame.strip import ProofStrip


class WindowDesk(QObject):
    """What is open in one window; what a place may ask of it is `anlage.ui.kit.place.Desk`."""

    def __init__(self, shell: Shell, settings: Settings, clocks: Clocks, specs: tuple[PlaceSpec, ...]) -> None:
        super().__init__(shell)
        self.shell, self.settings, self.clocks, self.specs = shell, settings, clocks, specs
        self._works = WorksDesk(clocks, lambda: self.settings.calibration_months, self)
        self._documents = DocumentsDesk(self._works, shell.reader, self)
        self._places = PlacesDesk(specs, shell.stack, self, self)
        self.place = settings.place if settings.place in self._places.specs else PROCEDURE.first_place
        self.palette: Palette | None = None
        self._judging = JudgingDesk(self._works, self._documents, self._places, shell, self)
        self._judging.asked.connect(self._on_strip)
        self.rules = RulesDesk(self._works, self._documents, self)
        self.rules.marked.connect(self._judging.soon)
        self.rules.asked.connect(self.go_to)
        self.actions = install(self, specs)
        self.welcome = Welcome([
            ("New works file…", self.actions["create"].trigger), ("Open works file…", self.actions["open"].trigger),
            ("Look round the demo", self.actions["demo"].trigger),
        ])  # fmt: skip
        shell.stack.addWidget(self.welcome)
        shell.place_asked.connect(self.go)
        shell.closing.connect(self.close)
        shell.dropped.connect(partial(loaded("anlage.ui.desk.incoming:take_in"), self))
        self._works.written.connect(self._on_written)
        shell.may_close = self._may_close
        for signal in (self._works.told, self._documents.told, self._judging.told):
            signal.connect(self.say)
        self._works.filled.connect(self._places.refresh_register)
        self._works.ready.connect(self._judging.soon)
        self.unsaved = self._works.unsaved
        self.unsaved.connect(self._on_unsaved)
        self._documents.edited.connect(self._on_edited)
        self._documents.stepped.connect(self._show_band)
        self._show_band()

    def say(self, text: str) -> None:
        """Show a sentence that must not be missed."""
        self.shell.notice.say(text)

    def mention(self, text: str) -> None:
        """Show what was done, until something else is."""
        self.shell.notice.say(text, passing=True)

    @property
    def reader(self) -> Reader:
        """Units and look of the window."""
        return self.shell.reader

    @property
    def works(self) -> OpenWorks | None:
        """The works file that is open."""
        return self._works.works

    @property
    def document(self) -> Document | None:
        """The document in front."""
        return self._documents.document

    @property
    def kind(self) -> Kind | None:
        """The kind of the document in front."""
        return self._documents.kind

    # Works files -----------------------------------------------------------------------------

    def open_file(self, path: Path, document_id: str = "", *, closed: bool = False) -> bool:
        """Open a works file, or make it; return whether it is open. The one open before stays when it cannot be.

        Parameters
        ----------
        document_id : the document to bring to the front, if it is there; else the first
        closed : bring none to the front, but show the Register
        """
        if self.works is not None and self.works.is_at(path):
            if document_id:
                self.open_document(document_id)
            return True
        if not self.may_leave(partial(self.open_file, path, document_id)):
            return False
        works = self._works.opened(path, self.settings.author)
        if works is None:
            return False
        self._close_works()
        self._works.take(works)
        self.settings = self.settings.with_recent(path)
        if closed:
            self.go("register")
        else:
            self._show_first(document_id)
        return True

    def _on_written(self, ids: set[str]) -> None:
        """Show what another program wrote into the file that is open here for reading only."""
        self._works.forget_records()
        self._documents.follow(ids)
        self._show_band()
        self.refresh_place()
        self._judging.soon()

    @told
    def _show_first(self, document_id: str) -> None:
        assert self.works is not None, "a works file is open"
        wanted = document_id if self._documents.knows(document_id) else self._documents.first()
        if wanted:
            self.open_document(wanted)
        elif self.works.can_write:
            self.new_document(PROCEDURE)

    def may_leave(self, then: Callable[[], object]) -> bool:
        """Save what waits; return whether everything is. If not, the person is asked, and `then` follows the answer."""
        focused = QApplication.focusWidget()
        if isinstance(focused, QWidget):
            focused.clearFocus()  # what is being typed is taken over
        faults = self._works.flush(PATIENCE_S)
        if not faults:
            return True
        leaving = resolve_name("anlage.ui.desk.leaving")
        leaving.ask(self, leaving.not_saved(self._works.numbers(), faults), then)
        return False

    def _may_close(self) -> bool:
        return self.may_leave(self.shell.close)

    def drop_unsaved(self) -> None:
        """Let go of what could not be saved: the person said so."""
        self._works.close()
        self._close_works()
        self._on_unsaved({})

    @told
    def save_as(self, path: Path) -> bool:
        """Copy the works file under another name, with all that was typed, and go on in the copy."""
        works = self.works
        if works is None:
            raise InputError("no works file is open", where="window", mend="open one first")
        works.save_as(path)
        in_front = self.document.document_id if self.document else ""
        copy = self._works.opened(path, self.settings.author)
        if copy is None:
            return False
        self.settings = self.settings.with_recent(path)
        if works.can_write:  # documents and their steps stay as they are
            self._works.exchange(copy)
        else:
            self._close_works()
            self._works.take(copy)
            self._show_first(in_front)
        self._on_unsaved({})
        self.mention(f"Saved as {path.name}; from here on you write in it.")
        return True

    def _on_unsaved(self, faults: Mapping[str, Exception]) -> None:
        """Say which documents are not saved for as long as they are not."""
        faults = self._judging.not_saved = faults if self.works is not None else {}
        say = loaded("anlage.ui.desk.leaving:not_saved")
        self.shell.notice.hold(say(self._works.numbers(), faults) if faults else "")
        self._show_band()
        self._judging.soon()

    @told
    def open_demo(self) -> None:
        """Open the demo."""
        demo: Path = loaded("anlage.session.works.demo:demo_file")(self.clocks.now())
        self.open_file(demo)

    # Documents -------------------------------------------------------------------------------

    @told
    def open_document(self, document_id: str) -> None:
        """Show a document of the open works file, at the place in front if that shows its kind."""
        if not self._documents.bring(document_id):
            return
        kind = self._documents.kind
        assert kind is not None, "a document is in front"
        shows = self._places.specs[self.place].kinds
        if shows and kind.id not in shows:
            self.place = kind.first_place
        self._show_band()
        self.go(self.place)
        self._judging.soon()

    def open(self, document_id: str) -> None:
        """Open a document at the place where work on its kind begins."""
        if self._documents.bring(document_id) and self.kind is not None:
            self.place = self.kind.first_place
            self.open_document(document_id)

    @told
    def new_document(self, kind: Kind) -> None:
        """Make a new document under the next free number, at the place where work on its kind begins."""
        made = self._documents.add(kind)
        if made:
            self.open(made)

    def add(self, value: "Part") -> None:
        """Add a document to the works file, under the number that it has."""
        self._documents.take(value)

    def in_front(self) -> str:
        """Return the id of the document in front; "" for none."""
        return self.document.document_id if self.document else ""

    @told
    def bring(self, document_id: str) -> None:
        """Bring a document to the front, at the place that is shown."""
        if document_id == self.in_front():
            return
        if not self._documents.bring(document_id):
            self._documents.document = None  # what cannot be read is chosen: no command is about another
        self._show_band()
        self._judging.soon()

    @told
    def duplicate_document(self) -> None:
        """Make a copy of the document in front under the next free number; of a record without its results."""
        made = self._documents.copy(self.document) if self.document else ""
        if made:
            self.open_document(made)
            self.refresh_place()

    @told
    def weld_coupon(self) -> None:
        """Make a record of a coupon to be welded by the procedure in front, and show it."""
        made = self._documents.coupon(self.document) if self.document and self.kind is PROCEDURE else ""
        if made:
            self.open(made)
            self.mention("Nothing of the coupon is measured yet: state what was welded and read, then count its tests.")

    @told
    def delete_document(self) -> None:
        """Put the document in front away; it can be brought back."""
        in_hand = self.in_front()
        resting = self._resting_sentence(in_hand)
        number = self._documents.put_away(in_hand) if in_hand else ""
        if not in_hand or not self._documents.can_write:
            return
        first = self._documents.first()
        if first:
            self.open_document(first)
        else:
            self.new_document(PROCEDURE)
        self.refresh_place()
        self.say(f"{number} is put away. {resting} Bring it back with Ctrl+Shift+Backspace.".replace("  ", " "))

    def _resting_sentence(self, document_id: str) -> str:
        """Return which procedures rest on a record, "" for none."""
        rows = self.rows() if self.kind is RECORD else ()
        own = next((row for row in rows if row.id == document_id), None)
        return loaded("anlage.session.works.register:resting_sentence")(rows, own) if own else ""

    @told
    def restore_document(self) -> None:
        """Bring back the document that was put away last."""
        back = self._documents.bring_back() if self.works else ""
        if back:
            self.open_document(back)
            self.refresh_place()
            self.say("")

    def _on_edited(self, _document: Document) -> None:
        self.shell.notice.move_on()
        self._show_band()
        self._judging.soon()

    # Judging ---------------------------------------------------------------------------------

    def assessment(self) -> "Assessment | None":
        """Return how the procedure in front stands by its code; `None` where no procedure is in front."""
        return self._judging.assessment()

    def assess(self, wps: "Wps", by: str = "") -> "Assessment":
        """Return how a procedure that is not in front stands by its code and the records, or by one of them alone."""
        return self._works.assessor().assess(wps, by)

    def _on_strip(self, part: str) -> None:
        """Lead to what mends what a part of the strip says."""
        waiting = list(self.document.working.pending) if self.document else []
        assessment = self.assessment()
        if part == "since" or (part == "waiting" and waiting):
            self.go_to(waiting[0] if part == "waiting" else "revisions/last")
        elif part == "missing" and assessment is not None and assessment.mend:
            (self.go_to if "/" in assessment.mend else self.go)(assessment.mend)
        else:
            self.go("ranges")

    @property
    def strip(self) -> "ProofStrip | None":
        """What shows in the band how the procedure in front stands."""
        return self._judging.strip

    def rows(self) -> "tuple[RegisterRow, ...]":
        """Return every document of the works file as the Register shows it."""
        return self._works.rows(self.reader.system)

    def machines(self) -> "Calibrated":
        """Return the machines of the works file, as they are known today."""
        return self._works.machines()

    def standing(self, document: Document, *, hashed: bool = True) -> "Standing":
        """Return whether a document is what was issued last, and the hash of what it is now where it is wanted."""
        assert self.works is not None, "a works file is open"
        return self.works.standing(document.document_id, document.working, hashed=hashed)

    def against(self, document: Document) -> "Against":
        """Return what speaks against issuing a procedure as it is."""
        amiss, system = loaded("anlage.session.heat.amiss:heat_amiss"), self.reader.system
        heat = amiss(document.value, self.rules.codes(), self.machines(), system)
        found: Against = loaded("anlage.session.works.issuing:against")(
            document.working, self.revisions(document), self.assessment(), system, heat
        )
        return found

    def revisions(self, document: Document) -> "Sequence[Revision]":
        """Return what was issued of a document, oldest first."""
        return self.works.revisions(document.document_id) if self.works else ()

    def issue(self, document: Document, saying: "Saying") -> None:
        """Issue a document as its next revision.

        Raises
        ------
        InputError : it cannot be issued as it is
        """
        assert self.works is not None, "a works file is open"
        issue = loaded("anlage.session.works.issuing:issue")
        issue(self.works, document.document_id, document.working, self.against(document), saying)
        self._judging.soon()

    # Places ----------------------------------------------------------------------------------

    @told
    def go(self, place: str) -> None:
        """Show a place; where it shows no document of the kind in front, a document that it does comes to the front."""
        self.shell.notice.move_on()
        shows = self._places.specs[place].kinds
        if self.document is not None and self.kind is not None and shows and self.kind.id not in shows:
            self._turn_to(place, shows)
            return
        if self.document is None and shows and self.works is not None:
            self._turn_to(place, shows)
            return
        self.place = place
        if self.works is None:
            self.shell.stack.setCurrentWidget(self.welcome)
            return
        self.shell.places.mark(place)
        front = self._places.show(place, self.document)
        if self._works.knows_records and (assessment := self.assessment()) is not None:
            front.show_proof(assessment)
        front.refresh()
        front.begin()
        self._show_band()

    def _turn_to(self, place: str, kinds: tuple[str, ...]) -> None:
        """Bring a document to the front that a place shows: a record that is rested on, the last, or a new one."""
        wanted = self._resting_on() if RECORD.id in kinds else ""
        wanted = wanted or self._documents.last_of(kinds)
        self.place = place
        if wanted:
            self.open_document(wanted)
        elif self._documents.can_write:
            kind = next(each for each in KINDS if each.id in kinds)
            self._documents.bring(self._documents.add(kind))
            self.go(place)
            self._judging.soon()

    def _resting_on(self) -> str:
        """Return the first record that the procedure in front rests on, or is judged by; "" for none."""
        judgement = assessment.judgement if (assessment := self.assessment()) else None
        numbers = judgement.records() if judgement else ()
        records = self.works.entries(RECORD) if self.works else ()
        return next((entry.id for entry in records if entry.number in numbers), "")

    def current_place(self) -> Place:
        """Return the place in front."""
        assert self._places.front is not None, "a document is open"
        return self._places.front

    def refresh_place(self) -> None:
        """Show at the place in front what is true now."""
        if self._places.front is not None:
            self._places.front.refresh()

    def keep(self, **settings: Any) -> None:
        """Remember settings of the person."""
        self.settings = self.settings._replace(**settings)

    def run(self, command: str) -> None:
        """Do a command by its id."""
        self.actions[command].trigger()

    def home_of(self, path: str) -> str:
        """Return the id of the place that has the field of a leaf; "" when none has."""
        kind = self.kind
        found: str = loaded("anlage.ui.desk.homes:home_of")(path, kind.id) if kind else ""
        return found

    def go_to(self, path: str) -> None:
        """Put the keyboard on the field of a leaf, wherever it is."""
        if self.kind is None:
            return
        home = self.home_of(path)
        self.go(home or ("ranges" if self.kind is PROCEDURE else self.kind.first_place))
        self.current_place().go_to(path)

    def go_to_job(self) -> None:
        """Show the job of the procedure in front; of a record its own number, in the form that has all of it."""
        if self.kind is PROCEDURE:
            self.go("job")
        elif self.document is not None:
            self.go_to("header/number")

    # The band --------------------------------------------------------------------------------

    def _show_band(self) -> None:
        document = self.document
        header = document.value.header if document else None
        self.shell.band.show_document(None if header is None else (header.number, header.title))
        show_steps(self.actions, document.undo_stack if document else None)
        kind = self.kind.id if self.kind else ""
        for action, kinds in self.shell.commands_by_kind():
            action.setEnabled(kind in kinds)
        title = f"{header.number} – " if header and header.number else ""
        if document and document.document_id in self._judging.not_saved:
            title = f"not saved: {title}"
        self.shell.setWindowTitle(f"{title}Anlage")

    def step_back(self) -> None:
        """Undo the last step of the open document."""
        if self.document is not None:
            self.document.undo_stack.undo()

    def step_forth(self) -> None:
        """Redo the step that was undone last."""
        if self.document is not None:
            self.document.undo_stack.redo()

    # Closing ---------------------------------------------------------------------------------

    def flush(self) -> Mapping[str, Exception]:
        """Save everything that waits, now; return what is not saved for all that, and why."""
        return self._works.flush()

    def close(self) -> None:
        """Save what waits, close the works file and take note of where the person was."""
        own, reader = self.document, self.reader
        self.keep(
            units=reader.system, theme=reader.look.theme, place=self.place,
            document=own.document_id if own else "", width=self.shell.width(), height=self.shell.height(),
        )  # fmt: skip
        self._close_works()

    def _close_works(self) -> None:
        self._places.forget()
        self._documents.forget()
        self._works.close()
