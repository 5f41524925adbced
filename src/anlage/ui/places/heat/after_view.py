"""How hot after? Hydrogen release and heat treatment over the hours, against the code and the metals."""

from PySide6.QtWidgets import QGridLayout, QLabel, QPushButton, QVBoxLayout, QWidget

from anlage.session.heat.after import AfterView, after_view, with_treatment
from anlage.ui.kit.complaint import Complaint
from anlage.ui.kit.document import Document
from anlage.ui.kit.fields import ChoiceField, LeafField
from anlage.ui.kit.heading import VerdictLine, heading
from anlage.ui.kit.look import font
from anlage.ui.kit.tabs import lay_beside
from anlage.ui.picture.editor import PictureEditor
from anlage.ui.picture.view import PictureView
from anlage.ui.places.heat.beside import Beside
from anlage.ui.places.heat.field_rows import lay_fields
from anlage.ui.places.heat.leaves import AFTER
from anlage.ui.places.heat.presenter import AfterPresenter

COLUMN_PX = 400
FIELDS = ("pwht/kind", "pwht/temperature_c", "pwht/time_h", *AFTER)  # the first three are at home at Job


class AfterPane(QWidget):
    """The course on the left; verdicts, fields and figures on the right."""

    def __init__(self, document: Document, beside: Beside) -> None:
        super().__init__()
        self.document, self._beside = document, beside
        self.picture = PictureView(AfterPresenter(document, beside), document.reader, "Temperature after the last pass")
        self.editor = PictureEditor(self.picture, document)
        self.fields: dict[str, LeafField | ChoiceField] = {}
        self.take = QPushButton("Take the heat treatment that is asked")
        self.take.clicked.connect(self.take_asked)
        self.facts, self.cautions = QGridLayout(), QLabel()
        self._lines = QVBoxLayout()
        self._cells: list[QLabel] = []
        self.lines: list[VerdictLine] = []
        room = QWidget()
        column = QVBoxLayout(room)
        column.setContentsMargins(0, 0, 8, 0)
        column.setSpacing(8)
        self._lines.setSpacing(6)
        column.addLayout(self._lines)
        column.addWidget(self.take)
        column.addWidget(heading("What follows the last pass"))
        column.addLayout(lay_fields(document, FIELDS, self.fields))
        Complaint(document, FIELDS, room)
        self.facts.setHorizontalSpacing(12)
        self.facts.setVerticalSpacing(3)
        self.facts.setColumnStretch(1, 1)
        column.addLayout(self.facts)
        self.cautions.setWordWrap(True)
        self.cautions.setFont(font("note"))
        column.addWidget(self.cautions)
        column.addStretch(1)
        lay_beside(self, self.picture, room, COLUMN_PX)
        self.refresh()

    @property
    def view(self) -> AfterView:
        """What is to be said now."""
        return after_view(self.document.value, self._beside.codes(), self.document.system)

    def refresh(self) -> None:
        """Show what is asked and stated now."""
        view = self.view
        while len(self.lines) < len(view.lines):
            self.lines.append(VerdictLine(self.document.reader))
            self._lines.addWidget(self.lines[-1])
        for n, line in enumerate(self.lines):
            line.setVisible(n < len(view.lines))
            if n < len(view.lines):
                line.say(view.lines[n].verdict, view.lines[n].text)
        self.take.setVisible(view.takes is not None)
        self.take.setEnabled(self.document.can_write)
        self.take.setToolTip(view.takes.reason if view.takes else "")
        texts = [part for fact in view.facts for part in (fact.name, fact.text, fact.note)]
        while len(self._cells) < len(texts):
            self._add_cell()
        for n, label in enumerate(self._cells):
            label.setText(texts[n] if n < len(texts) else "")
            label.setVisible(n < len(texts))
        self.cautions.setText("\n".join(view.cautions))
        self.cautions.setVisible(bool(view.cautions))
        self.picture.refresh()

    def _add_cell(self) -> None:
        row, part = divmod(len(self._cells), 3)
        label = QLabel()
        label.setWordWrap(part == 2)
        if part != 1:
            label.setProperty("tone", "muted")
        if part == 2:
            label.setFont(font("note"))
        self.facts.addWidget(label, *((2 * row, part) if part < 2 else (2 * row + 1, 1)))
        self._cells.append(label)

    def take_asked(self) -> None:
        """State the heat treatment that the code asks and the metals bear."""
        takes = self.view.takes
        if takes is not None and self.document.can_write:
            self.document.edit(with_treatment(self.document.value, takes), "Take the heat treatment that is asked")
