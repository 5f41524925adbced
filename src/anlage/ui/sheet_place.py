"""The Sheet place: what goes on the floor? The pages as they are printed, and the step that issues them."""

from collections.abc import Callable, Sequence
from dataclasses import dataclass
from pathlib import Path

from PySide6.QtCore import QRectF, QSize, Qt, Signal
from PySide6.QtGui import QPainter, QPaintEvent, QShowEvent
from PySide6.QtWidgets import (
    QHBoxLayout,
    QLabel,
    QLineEdit,
    QPushButton,
    QScrollArea,
    QSizePolicy,
    QVBoxLayout,
    QWidget,
)

from anlage.core.drawing import PAPERS, DisplayList
from anlage.core.errors import AnlageError
from anlage.session.judging.assessment import Proof
from anlage.session.output.wps_sheet import sheet
from anlage.session.works.standing import Standing
from anlage.ui.document import Document
from anlage.ui.fields import ListBox
from anlage.ui.look import Look, font, measure
from anlage.ui.painter import Placed, paint

GAP_PX, MOST_PX = 14, 900
PAPER_NAMES = {"a4": "A4", "letter": "Letter"}


@dataclass(frozen=True)
class Office:
    """What the Sheet place needs of the works file: how a procedure stands, issuing it, and who does."""

    standing: Callable[[], Standing]
    issue: Callable[[str], None]
    author: str
    paper: str


class SheetPlace(QWidget):
    """Preview of every page, the paper, issuing and saving as PDF.

    Signals
    -------
    issued() : a revision was issued
    kept(author, paper) : the person's name or the paper is another one, to be remembered
    """

    issued = Signal()
    kept = Signal(str, str)

    def __init__(self, document: Document, office: Office) -> None:
        super().__init__()
        self.document, self.office = document, office
        self.proof = Proof(None, "")
        self.pages = Pages()
        self.state, self.author = QLabel(), QLineEdit(office.author)
        self.paper = ListBox(document.reader)
        self.issue_button, self.pdf_button = QPushButton("Issue revision"), QPushButton("Save PDF…")
        self.complaint = QLabel()
        self._lay_out()
        self.paper.currentIndexChanged.connect(self._on_kept)
        self.author.editingFinished.connect(self._on_kept)
        self.issue_button.clicked.connect(self.issue)
        self.pdf_button.clicked.connect(self.ask_for_pdf)
        document.changed.connect(self.refresh)

    def showEvent(self, event: QShowEvent) -> None:
        super().showEvent(event)
        self.refresh()

    def _lay_out(self) -> None:
        self.state.setFont(font("title", strong=True))
        self.complaint.setProperty("tone", "outside")
        self.author.setPlaceholderText("your name")
        self.author.setAccessibleName("Issued by")
        self.author.setToolTip("Who issues the revision; kept for the next time.")
        self.author.setFixedWidth(170)
        self.paper.setAccessibleName("Paper")
        for key, name in PAPER_NAMES.items():
            self.paper.addItem(name, key)
        self.paper.setCurrentIndex(max(self.paper.findData(self.office.paper), 0))
        for widget in (self.issue_button, self.author):
            widget.setEnabled(self.document.can_write)
        label = QLabel("Issued by")
        label.setProperty("tone", "muted")
        head = QHBoxLayout()
        head.setSpacing(8)
        head.addWidget(self.state)
        head.addWidget(self.complaint, 1)
        for widget in (label, self.author, self.issue_button, self.paper, self.pdf_button):
            head.addWidget(widget)
        scroll = QScrollArea()
        scroll.setWidget(self.pages)
        scroll.setWidgetResizable(True)
        scroll.setAccessibleName("Pages of the sheet")
        layout = QVBoxLayout(self)
        layout.setContentsMargins(16, 12, 16, 12)
        layout.addLayout(head)
        layout.addWidget(scroll, 1)

    def show_proof(self, proof: Proof) -> None:
        """Show how the open procedure stands."""
        self.proof = proof
        self.refresh()

    def refresh(self) -> None:
        """Set the pages anew, when they are next looked at."""
        if not self.isVisible():
            return
        standing = self.office.standing()
        self.state.setText(f"{standing.words()[0].upper()}{standing.words()[1:]}")
        self.issue_button.setEnabled(self.document.can_write and not standing.is_issued)
        self.pages.show_pages(self._made(standing))

    def _made(self, standing: Standing) -> tuple[DisplayList, ...]:
        return sheet(self.document.wps, self.proof, standing, paper=self.paper.currentData(), measure=measure)

    def begin(self) -> None:
        """Put the keyboard on the button that comes next."""
        (self.issue_button if self.issue_button.isEnabled() else self.pdf_button).setFocus()

    def go_to(self, _path: str) -> bool:
        """Return False: no leaf has its home here."""
        return False

    def issue(self) -> None:
        """Issue the procedure as its next revision, or say why it cannot be."""
        self.complaint.setText("")
        try:
            self.office.issue(self.author.text().strip())
        except AnlageError as refusal:
            self.complaint.setText(str(refusal))
            return
        self.refresh()
        self.issued.emit()

    def ask_for_pdf(self) -> None:
        """Let the person choose where the sheet goes, and write it there."""
        from PySide6.QtWidgets import QFileDialog

        proposed = f"{self.document.wps.header.number or 'procedure'}.pdf".replace("/", "-")
        name, _ = QFileDialog.getSaveFileName(self, "Save sheet", proposed, "PDF (*.pdf)")
        if name:
            self.save_pdf(Path(name))

    def save_pdf(self, path: Path) -> None:
        """Write the sheet as PDF."""
        from anlage.formats.pdf import pdf  # when asked for: it is heavy

        data = pdf(self._made(self.office.standing()), title=self.document.wps.header.number)
        try:
            path.write_bytes(data)
        except OSError as fault:
            self.complaint.setText(f"{path.name}: it cannot be written ({fault.strerror}); choose another folder")
            return
        self.complaint.setText("")

    def _on_kept(self) -> None:
        self.kept.emit(self.author.text().strip(), self.paper.currentData())
        self.refresh()


class Pages(QWidget):
    """The pages under each other, always on white paper as they are printed."""

    def __init__(self) -> None:
        super().__init__()
        self.pages: Sequence[DisplayList] = ()
        self.paper_look = Look.of("light")
        self.setSizePolicy(QSizePolicy.Policy.Expanding, QSizePolicy.Policy.MinimumExpanding)

    def show_pages(self, pages: Sequence[DisplayList]) -> None:
        """Show other pages."""
        self.pages = pages
        self.setMinimumHeight(self._height())
        self.update()

    def _scale(self) -> float:
        widest = self.pages[0].high[0] if self.pages else PAPERS["a4"][0]
        return min(self.width() - 2 * GAP_PX, MOST_PX) / widest

    def _height(self) -> int:
        return round(sum(page.high[1] * self._scale() + GAP_PX for page in self.pages)) + GAP_PX

    def resizeEvent(self, event: object) -> None:
        self.setMinimumHeight(self._height())

    def sizeHint(self) -> QSize:
        return QSize(600, 600)

    def paintEvent(self, event: QPaintEvent) -> None:
        painter, scale, y = QPainter(self), self._scale(), float(GAP_PX)
        for page in self.pages:
            width, height = page.high[0] * scale, page.high[1] * scale
            rect = QRectF((self.width() - width) / 2, y, width, height)
            if rect.intersects(QRectF(event.rect())):
                painter.fillRect(rect, Qt.GlobalColor.white)
                painter.setPen(self.paper_look.colour["edge"])
                painter.drawRect(rect)
                painter.save()
                painter.setClipRect(rect)
                paint(Placed(page, rect.bottomLeft(), scale), painter, self.paper_look)
                painter.restore()
            y += height + GAP_PX
