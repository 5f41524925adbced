"""An accepted record is evidence: before it is changed the window asks, and says what rests on it."""

from PySide6.QtCore import Signal
from PySide6.QtWidgets import QFrame, QHBoxLayout, QLabel, QPushButton

from anlage.session.judging.evidence import evidence_by_code
from anlage.session.works.register import resting_sentence
from anlage.ui.kit.document import Document
from anlage.ui.kit.place import Desk


class RecordGuard(QFrame):
    """Stands over the form of an accepted record until the person says that it is to be changed.

    Signals
    -------
    opened() : the record may be changed
    """

    opened = Signal()

    def __init__(self, document: Document, desk: Desk) -> None:
        super().__init__(objectName="panel")
        self.document, self.desk = document, desk
        self.is_shut = document.can_write and bool(self._accepted_by())
        self.said, self.button = QLabel(), QPushButton("Change it")
        self.said.setWordWrap(True)
        self.button.setToolTip("Let the fields of this record be typed in")
        self.button.clicked.connect(self.open)
        row = QHBoxLayout(self)
        row.setContentsMargins(12, 6, 8, 6)
        row.addWidget(self.said, 1)
        row.addWidget(self.button)

    def _accepted_by(self) -> tuple[str, ...]:
        """Return the codes by which the record is evidence."""
        found = evidence_by_code(self.document.value, self.desk.rules.codes())
        return tuple(name for name, each in found if each.state == "accepted")

    @property
    def lets_change(self) -> bool:
        """Whether the record can be typed in."""
        return self.document.can_write and not self.is_shut

    def open(self) -> None:
        """Let the record be changed."""
        self.is_shut = False
        self.opened.emit()

    def refresh(self) -> None:
        """Say what rests on the record, for as long as it is shut."""
        self.setVisible(self.is_shut)
        if self.is_shut:
            rows = self.desk.rows()
            own = next((row for row in rows if row.id == self.document.document_id), None)
            rests = resting_sentence(rows, own) if own else ""
            by = self._accepted_by()
            whose = "" if len(by) == len(self.document.value.header.codes) else f" by {' and '.join(by)}"
            self.said.setText(f"This record is accepted{whose}. {rests}".strip())
