"""The Sheet place: what goes on the floor? The pages as they are printed, and the step that issues them."""

from pathlib import Path
from typing import TYPE_CHECKING, Any

from PySide6.QtCore import Qt
from PySide6.QtGui import QShowEvent
from PySide6.QtWidgets import (
    QFileDialog,
    QHBoxLayout,
    QLabel,
    QPushButton,
    QScrollArea,
    QVBoxLayout,
)

from anlage.core.drawing import DisplayList
from anlage.core.errors import AnlageError
from anlage.session.judging.assessment import Assessment
from anlage.session.output.saving import save
from anlage.session.output.wps_sheet import sheet
from anlage.session.works.issuing import Against, Saying
from anlage.session.works.standing import Standing
from anlage.ui.kit.document import Document
from anlage.ui.kit.fields import ListBox
from anlage.ui.kit.guard import guarded
from anlage.ui.kit.loading import loaded
from anlage.ui.kit.look import font, measure
from anlage.ui.kit.place import Desk, Place
from anlage.ui.places.sheet.pages import Pages

if TYPE_CHECKING:
    from anlage.ui.places.sheet.issue_dialog import IssueDialog

PAPER_NAMES = {"a4": "A4", "letter": "Letter"}


@guarded
class SheetPlace(Place):
    """Preview of every page, the paper, issuing and saving as PDF."""

    def __init__(self, document: Document, desk: Desk) -> None:
        super().__init__()
        self.document, self.desk = document, desk
        self.pages = Pages()
        self._shown: tuple[Any, ...] | None = None  # what the pages are made of
        self.state = QLabel()
        self.paper = ListBox(document.reader)
        self.issue_button, self.pdf_button = QPushButton("Issue revision…"), QPushButton("Save PDF…")
        self.complaint = QLabel()
        self._lay_out()
        self.paper.currentIndexChanged.connect(self._on_kept)
        self.issue_button.clicked.connect(self.issue)
        self.pdf_button.clicked.connect(self.ask_for_pdf)
        document.changed.connect(self.refresh)

    def showEvent(self, event: QShowEvent) -> None:
        super().showEvent(event)
        self.refresh()

    def _lay_out(self) -> None:
        self.state.setFont(font("title", strong=True))
        self.complaint.setProperty("tone", "outside")
        self.paper.setAccessibleName("Paper")
        for key, name in PAPER_NAMES.items():
            self.paper.addItem(name, key)
        self.paper.setCurrentIndex(max(self.paper.findData(self.desk.settings.paper), 0))
        head = QHBoxLayout()
        head.setSpacing(8)
        head.addWidget(self.state)
        head.addWidget(self.complaint, 1)
        for widget in (self.issue_button, self.paper, self.pdf_button):
            head.addWidget(widget)
        self.scroll = scroll = QScrollArea()
        scroll.setWidget(self.pages)
        scroll.setWidgetResizable(True)
        scroll.setAccessibleName("Pages of the sheet")
        layout = QVBoxLayout(self)
        layout.setContentsMargins(16, 12, 16, 12)
        layout.addLayout(head)
        layout.addWidget(scroll, 1)

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
        standing = self.desk.standing(self.document)
        self.state.setText(f"{standing.words()[0].upper()}{standing.words()[1:]}")
        self.issue_button.setEnabled(self.document.can_write and not standing.is_issued and not standing.waiting)
        shown = (self.document.value, self.proof, standing, self.paper.currentData())
        if self._shown is None or any(a is not b and a != b for a, b in zip(shown, self._shown, strict=True)):
            self._shown = shown
            self.pages.show_pages(self._made(standing))

    def _made(self, standing: Standing) -> tuple[DisplayList, ...]:
        return sheet(self.document.value, self.proof, standing, paper=self.paper.currentData(), measure=measure)

    def begin(self) -> None:
        """Put the keyboard on the pages, which arrow keys scroll: no key that goes astray issues anything."""
        self.scroll.setFocus(Qt.FocusReason.OtherFocusReason)

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
            self.document.value.header.number, found, self.desk.settings.author, self._issue, self
        )
        self.dialog.finished.connect(self._on_asked)
        self.dialog.open()

    def _on_asked(self, _answer: int) -> None:
        """Give the keyboard back to the window."""
        self.window().activateWindow()
        self.begin()

    def _issue(self, saying: Saying) -> None:
        self.desk.keep(author=saying.author)
        self.desk.issue(self.document, saying)
        self.refresh()

    def ask_for_pdf(self) -> None:
        """Let the person choose where the sheet goes, and write it there."""
        proposed = f"{self.document.value.header.number or 'procedure'}.pdf".replace("/", "-")
        name, _ = QFileDialog.getSaveFileName(self, "Save sheet", proposed, "PDF (*.pdf)")
        if name:
            self.save_pdf(Path(name))

    def save_pdf(self, path: Path) -> None:
        """Write the sheet as PDF."""
        pages, title = self._made(self.desk.standing(self.document)), self.document.value.header.number
        try:
            save(path, lambda: loaded("anlage.formats.pdf:pdf")(pages, title=title))
        except AnlageError as refusal:
            self.complaint.setText(str(refusal))
            return
        self.complaint.setText("")

    def _on_kept(self) -> None:
        self.desk.keep(paper=self.paper.currentData())
        self.refresh()
