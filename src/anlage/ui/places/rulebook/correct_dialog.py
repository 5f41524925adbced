"""Correcting a rule: each of its values as a line, and at once what it would make of a coupon."""

from PySide6.QtWidgets import QFormLayout, QHBoxLayout, QLabel, QPushButton, QScrollArea, QWidget

from anlage.core.errors import AnlageError
from anlage.ui.kit.dialog import Question
from anlage.ui.kit.reader import Reader
from anlage.ui.kit.text_line import TextLine
from anlage.ui.places.rulebook.correction import Correction, Texts
from anlage.ui.places.rulebook.examples_view import ExamplesView

WIDTH_PX, HEIGHT_PX, VALUES_PX = 900, 560, 400


class CorrectDialog(Question):
    """Asks for other values of a rule, and why."""

    def __init__(self, correction: Correction, reader: Reader, parent: QWidget) -> None:
        entry, values = correction.entry, correction.values
        super().__init__(f"Correct {entry.clause}, {entry.title[0].lower()}{entry.title[1:]}", parent)
        self._correction = correction
        self.setMinimumWidth(min(WIDTH_PX, parent.screen().availableSize().width()))
        self.column.setSpacing(10)
        self.fields = {each.place: TextLine(each.text) for each in values}
        form_box = QWidget()
        form = QFormLayout(form_box)
        form.setContentsMargins(0, 0, 8, 0)
        for each in values:
            field = self.fields[each.place]
            field.setAccessibleName(each.label)
            field.textChanged.connect(self._show)
            form.addRow(each.label, field)
        self.examples = ExamplesView(reader)
        sides = QHBoxLayout()
        sides.setSpacing(16)
        for widget in (form_box, self.examples):
            scroll = QScrollArea()
            scroll.setWidget(widget)
            scroll.setWidgetResizable(True)
            scroll.setMinimumHeight(min(HEIGHT_PX, parent.screen().availableSize().height() - 320))
            sides.addWidget(scroll, 1)
        self.column.addLayout(sides)
        self.reason, self.by = TextLine(correction.reason), TextLine(correction.by)
        self.reason.setPlaceholderText("what our copy says, and where")
        foot = QFormLayout()
        for label, field in (("Because", self.reason), ("Corrected by", self.by)):
            field.setAccessibleName(label)
            foot.addRow(label, field)
        self.column.addLayout(foot)
        self.complaint = self.complaint_line(2)
        self.column.addWidget(self.complaint)
        note = QLabel("The shipped values are kept beside it; every verdict and sheet that hangs on it says so.")
        note.setProperty("tone", "muted")
        self.column.addWidget(note)
        self.put_button, self.leave_button = QPushButton("Put it in place"), QPushButton("Leave it")
        self.add_foot(self.leave_button, self.put_button)
        self.leave_button.clicked.connect(self.reject)
        self.put_button.clicked.connect(self.put)
        self._show()
        next(iter(self.fields.values()), self.reason).setFocus()

    def texts(self) -> Texts:
        """Return what stands in every field."""
        return {place: field.text() for place, field in self.fields.items()}

    def _show(self) -> None:
        """Show what the values make of a coupon, or what is wrong with them."""
        try:
            self.examples.show_lines(self._correction.preview(self.texts()))
        except AnlageError as refusal:
            self.complaint.setText(str(refusal))
        else:
            self.complaint.setText("")

    def put(self) -> None:
        """Put them in place, or say why they cannot be."""
        try:
            self._correction.put(self.texts(), self.by.text(), self.reason.text())
        except AnlageError as refusal:
            self.complaint.setText(str(refusal))
            return
        self.accept()
