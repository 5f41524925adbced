"""What hangs on the record in front, asked for before it is changed, failed or put away."""

from typing import TYPE_CHECKING

from PySide6.QtWidgets import QLabel, QPushButton

from anlage.session.works.hanging import hanging_on, hanging_sentences
from anlage.ui.desk.telling import told
from anlage.ui.kit.dialog import Question

if TYPE_CHECKING:
    from anlage.ui.desk.desk import WindowDesk

WIDTH_PX = 620


@told
def ask(desk: "WindowDesk") -> None:
    """Show which procedures would not be inside if the record in front proved nothing."""
    document, works = desk.document, desk.works
    if document is None or works is None:
        return
    number = document.value.header.number or "this record"
    found = hanging_on(works, document.document_id, desk.reader.system)
    dialog = Question(f"What hangs on {number}", desk.shell)
    dialog.setMinimumWidth(WIDTH_PX)
    dialog.column.setSpacing(10)
    lead = QLabel("If a test of it failed, or it were put away:" if found else "")
    lead.setVisible(bool(found))
    said = QLabel("\n".join(hanging_sentences(found, number)), objectName="hanging")
    for label in (lead, said):
        label.setWordWrap(True)
        dialog.column.addWidget(label)
    close = QPushButton("Close")
    close.clicked.connect(dialog.accept)
    dialog.add_foot(close)
    close.setFocus()
    dialog.finished.connect(lambda _answer: desk.shell.activateWindow())
    dialog.open()
