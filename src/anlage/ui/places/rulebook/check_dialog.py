"""Marking a rule checked: who laid it beside which copy."""

from collections.abc import Callable

from PySide6.QtWidgets import QFormLayout, QLabel, QPushButton, QWidget

from anlage.core.errors import AnlageError
from anlage.session.rulebook.entries import RuleEntry
from anlage.ui.kit.dialog import Question
from anlage.ui.kit.text_line import TextLine

WIDTH_PX = 520


class CheckDialog(Question):
    """Asks who compared a rule with which copy.

    Parameters
    ----------
    entry : the rule
    edition : that the copy has to be of
    by, copy : what was said last
    mark : takes name and copy, or refuses
    """

    def __init__(
        self, entry: RuleEntry, edition: str, said: tuple[str, str], mark: Callable[[str, str], None], parent: QWidget
    ) -> None:
        super().__init__(f"{entry.clause} is as our copy says", parent)
        self._mark = mark
        self.setMinimumWidth(WIDTH_PX)
        self.column.setSpacing(10)
        told = QLabel(
            f"{entry.title}: its words and every worked example were laid beside a copy of edition {edition}, and "
            f"agree. Should the rule ever say something else, this no longer counts."
        )
        told.setWordWrap(True)
        self.column.addWidget(told)
        self.by, self.copy = (TextLine(text) for text in said)
        self.by.setPlaceholderText("your name")
        self.copy.setPlaceholderText("as it stands on the shelf")
        form = QFormLayout()
        form.setHorizontalSpacing(12)
        for label, field in (("Compared by", self.by), ("With our copy", self.copy)):
            field.setAccessibleName(label)
            form.addRow(label, field)
        self.column.addLayout(form)
        self.complaint = self.complaint_line(1)
        self.column.addWidget(self.complaint)
        self.mark_button, self.leave_button = QPushButton("Mark checked"), QPushButton("Not now")
        self.add_foot(self.leave_button, self.mark_button)
        self.leave_button.clicked.connect(self.reject)
        self.mark_button.clicked.connect(self.mark)
        next((field for field in (self.by, self.copy) if not field.text().strip()), self.mark_button).setFocus()

    def mark(self) -> None:
        """Mark it, or say why it cannot be."""
        try:
            self._mark(self.by.text(), self.copy.text())
        except AnlageError as refusal:
            self.complaint.setText(str(refusal))
            return
        self.accept()
