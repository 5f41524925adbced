"""The Sheet place: what goes on the floor? The pages as they are printed, and the step that issues them."""

from pathlib import Path
from typing import TYPE_CHECKING, Any

from msgspec import Struct
from PySide6.QtCore import Qt
from PySide6.QtGui import QShowEvent
from PySide6.QtWidgets import (
    QHBoxLayout,
    QLabel,
    QPushButton,
    QScrollArea,
    QVBoxLayout,
)

from anlage.core.errors import AnlageError
from anlage.core.procedure import Wps
from anlage.session.judging.assessment import Assessment
from anlage.session.output.printed import Desired, Printed, printed, write_pdf
from anlage.session.output.wps_sheet import Stationery
from anlage.session.works.differences import differences
from anlage.session.works.issuing import Against, Saying
from anlage.session.works.revisions import read_revision, standing_of_revision, words_of
from anlage.session.works.standing import Standing
from anlage.ui.kit.comparison import Comparison
from anlage.ui.kit.document import Document
from anlage.ui.kit.fields import ListBox
from anlage.ui.kit.guard import guarded
from anlage.ui.kit.loading import loaded
from anlage.ui.kit.look import font, measure
from anlage.ui.kit.place import Desk, Place
from anlage.ui.kit.section_waits import SectionWaits
from anlage.ui.places.sheet.pages import Pages

if TYPE_CHECKING:
    from PySide6.QtPrintSupport import QPrintDialog

    from anlage.ui.places.sheet.issue_dialog import IssueDialog

PAPER_NAMES = {"a4": "A4", "letter": "Letter"}
NOW_WORDS, NOW, NOTHING = "as it is now", 0, -1  # for a revision: the draft as it is; nothing beside it


class State(Struct, frozen=True):
    """A procedure as it is shown: the draft, or a revision read again."""

    value: Wps
    assessment: Assessment
    standing: Standing


@guarded
class SheetPlace(Place):
    """Preview of every page, of the draft or a revision, two beside each other; paper, issuing, print and PDF."""

    def __init__(self, document: Document, desk: Desk) -> None:
        super().__init__()
        self.document, self.desk = document, desk
        self.pages, self.other_pages = Pages(), Pages()
        self._made_of: tuple[Any, ...] | None = None  # what the pages are made of
        self.state = QLabel()
        self.paper, self.shown, self.beside = (ListBox(document.reader) for _ in range(3))
        self.issue_button, self.pdf_button = QPushButton("Issue revision…"), QPushButton("Save PDF…")
        self.print_button = QPushButton("Print…")
        self.complaint, self.comparison = QLabel(), Comparison()
        self.print_dialog: QPrintDialog | None = None
        self._listed: tuple[int, ...] = ()
        self.runs = SectionWaits(self, desk.machines, rest_ms=0)
        self.runs.ready.connect(self._on_waits)
        self._lay_out()
        self.paper.currentIndexChanged.connect(self._on_kept)
        self.shown.activated.connect(self.refresh)
        self.beside.activated.connect(self.refresh)
        self.issue_button.clicked.connect(self.issue)
        self.pdf_button.clicked.connect(self.ask_for_pdf)
        self.print_button.clicked.connect(self.ask_to_print)
        document.changed.connect(self.refresh)

    def showEvent(self, event: QShowEvent) -> None:
        super().showEvent(event)
        self.refresh()

    def _lay_out(self) -> None:
        self.state.setFont(font("title", strong=True))
        self.complaint.setProperty("tone", "outside")
        self.complaint.setWordWrap(True)
        for box, name in ((self.paper, "Paper"), (self.shown, "Shown"), (self.beside, "Beside it")):
            box.setAccessibleName(name)
        for key, name in PAPER_NAMES.items():
            self.paper.addItem(name, key)
        self.paper.setCurrentIndex(max(self.paper.findData(self.desk.settings.paper), 0))
        head, choice = QHBoxLayout(), QHBoxLayout()
        for row in (head, choice):
            row.setSpacing(8)
        head.addWidget(self.state, 1)
        for widget in (self.issue_button, self.paper, self.print_button, self.pdf_button):
            head.addWidget(widget)
        self._choosers: list[QLabel] = []
        for word, box in (("Shown", self.shown), ("beside it", self.beside)):
            label = QLabel(word)
            label.setProperty("tone", "muted")
            self._choosers.append(label)
            box.setMinimumWidth(240)
            choice.addWidget(label)
            choice.addWidget(box)
        choice.addWidget(self.complaint, 1)
        self.scroll, self.other_scroll = QScrollArea(), QScrollArea()
        sides = QHBoxLayout()
        sides.setSpacing(8)
        for scroll, pages, name in (
            (self.scroll, self.pages, "Pages of the sheet"), (self.other_scroll, self.other_pages, "Pages beside it"),
        ):  # fmt: skip
            scroll.setWidget(pages)
            scroll.setWidgetResizable(True)
            scroll.setAccessibleName(name)
            sides.addWidget(scroll, 1)
        self.scroll.verticalScrollBar().valueChanged.connect(self.other_scroll.verticalScrollBar().setValue)
        self.other_scroll.verticalScrollBar().valueChanged.connect(self.scroll.verticalScrollBar().setValue)
        layout = QVBoxLayout(self)
        layout.setContentsMargins(16, 12, 16, 12)
        layout.addLayout(head)
        layout.addLayout(choice)
        layout.addWidget(self.comparison)
        layout.addLayout(sides, 1)

    @property
    def proof(self) -> Assessment:
        """How the procedure stands as it is now."""
        return self.desk.assessment() or Assessment(None, "")

    def show_proof(self, assessment: Assessment) -> None:
        """Show how the open procedure stands."""
        self.refresh()

    def refresh(self) -> None:
        """Set the pages anew, when they are next looked at."""
        if not self.isVisible():
            return
        self._list_revisions()
        standing = self.desk.standing(self.document)
        self.state.setText(f"{standing.words()[0].upper()}{standing.words()[1:]}")
        self.issue_button.setEnabled(self.document.can_write and not standing.is_issued and not standing.waiting)
        chosen = (self.shown.currentData(), self.beside.currentData())
        letterhead = self.desk.settings.letterhead
        made_of = (self.document.value, self.proof, standing, self.paper.currentData(), chosen, letterhead)
        if self._made_of is None or any(a is not b and a != b for a, b in zip(made_of, self._made_of, strict=True)):
            self._made_of = made_of
            self._show_chosen(*chosen)

    def _on_waits(self) -> None:
        """Set the pages anew with the waits."""
        self._made_of = None
        self.refresh()

    def _list_revisions(self) -> None:
        """Offer every revision that was issued, the newest first."""
        issued = self.desk.revisions(self.document)
        listed = tuple(each.number for each in issued)
        if listed == self._listed and self.shown.count():
            return
        self._listed = listed
        for box, first in ((self.shown, (NOW_WORDS, NOW)), (self.beside, ("nothing", NOTHING))):
            kept = box.currentData()
            box.clear()
            box.addItem(*first)
            if box is self.beside:
                box.addItem(NOW_WORDS, NOW)
            for each in reversed(issued):
                box.addItem(words_of(each), each.number)
            box.setCurrentIndex(max(box.findData(kept), 0))
        for widget in (*self._choosers, self.shown, self.beside):
            widget.setVisible(bool(issued))

    def _state(self, revision: int) -> State:
        """Return a state of the procedure: the draft, or a revision as it is read and judged now."""
        if revision == NOW:
            return State(self.document.value, self.proof, self.desk.standing(self.document))
        own = next(each for each in self.desk.revisions(self.document) if each.number == revision)
        value = read_revision(own, "wps")
        return State(value, self.desk.assess(value), standing_of_revision(own, value))

    def _show_chosen(self, shown: int, beside: int) -> None:
        self.complaint.setText("")
        try:
            state = self._state(shown)
            other = self._state(beside) if beside != NOTHING else None
        except AnlageError as fault:
            self.complaint.setText(str(fault))
            return
        self.pages.show_pages(self._made(state).pages)
        self.other_scroll.setVisible(other is not None)
        self.comparison.setVisible(other is not None)
        if other is not None:
            self.other_pages.show_pages(self._made(other).pages)
            found = differences(state.value, other.value, self.document.system)
            self.comparison.show_differences(found, self.shown.currentText(), self.beside.currentText())

    def _made(self, state: State) -> Printed:
        settings = self.desk.settings
        on = Stationery(self.paper.currentData(), measure, settings.letterhead)
        by = self.desk.machines(), self.desk.rules.codes()
        desired = Desired(on, settings.signature, self.desk.clocks.now(), *by, runs_section=False)
        self.runs.ask(state.value)
        for button in (self.pdf_button, self.print_button):
            button.setEnabled(not self.runs.is_due)
            button.setToolTip("The waits between passes are being worked out" if self.runs.is_due else "")
        return printed(state.value, state.assessment, state.standing, desired)

    def begin(self) -> None:
        """Put the keyboard on the pages, which arrow keys scroll: no key that goes astray issues anything."""
        self.scroll.setFocus(Qt.FocusReason.OtherFocusReason)

    def go_to(self, path: str) -> bool:
        """Show the last revision beside the procedure as it is now."""
        self.refresh()
        issued = self.desk.revisions(self.document)
        if not issued:
            return False
        self.shown.setCurrentIndex(0)
        self.beside.setCurrentIndex(self.beside.findData(issued[-1].number))
        self.refresh()
        return True

    def issue(self) -> None:
        """Ask once whether the procedure is issued as its next revision, with what speaks against it."""
        standing, found = self.desk.standing(self.document), self.desk.against(self.document)
        self.complaint.setText("")
        if not self.document.can_write:
            self.complaint.setText("The works file is open for reading only.")
        elif standing.is_issued:
            self.complaint.setText(f"It is revision {standing.revision} as issued: nothing changed since.")
        elif found.waiting:
            self.complaint.setText(f"{found.waiting}: finish or empty them first.")
        else:
            self._ask(found)

    def _ask(self, found: Against) -> None:
        make = loaded("anlage.ui.places.sheet.issue_dialog:IssueDialog")
        self.dialog: IssueDialog = make(
            self.document.value.header.number, found, self.desk.settings.signature, self._issue, self
        )
        self.dialog.finished.connect(self._on_asked)
        self.dialog.open()

    def _on_asked(self, _answer: int) -> None:
        """Give the keyboard back to the window."""
        self.window().activateWindow()
        self.begin()

    def _issue(self, saying: Saying) -> None:
        if not self.desk.settings.author:
            self.desk.keep(author=saying.author)
        self.desk.issue(self.document, saying)
        self.shown.setCurrentIndex(0)
        self.refresh()

    def _in_hand(self) -> Printed | None:
        """Return the sheet that is shown; `None` where a revision cannot be read."""
        try:
            return self._made(self._state(self.shown.currentData()))
        except AnlageError as fault:
            self.complaint.setText(str(fault))
            return None

    def ask_to_print(self) -> None:
        """Let the person choose a printer for what is shown."""
        made = self._in_hand()
        if made is not None:
            self.print_dialog = loaded("anlage.ui.picture.printing:ask_to_print")(made.pages, made.title, self)

    def ask_for_pdf(self) -> None:
        """Let the person choose where the sheet goes, and write it there."""
        made = self._in_hand()
        if made is None:
            return
        path = loaded("anlage.ui.picture.printing:ask_for_pdf")(self, "Save sheet", made.title)
        if path is not None:
            self.save_pdf(path)

    def save_pdf(self, path: Path) -> None:
        """Write what is shown as PDF, and say where it is."""
        made = self._in_hand()
        if made is None:
            return
        try:
            write_pdf(path, made)
        except AnlageError as refusal:
            self.complaint.setText(str(refusal))
            return
        self.complaint.setText("")
        self.desk.mention(f"{made.title} is written to {path}.")

    def _on_kept(self) -> None:
        self.desk.keep(paper=self.paper.currentData())
        self.refresh()
