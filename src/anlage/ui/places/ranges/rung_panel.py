"""The chosen rung: why, what to change, and the field itself."""

from collections.abc import Callable

from PySide6.QtCore import (
    Qt,
    Signal,
)
from PySide6.QtWidgets import (
    QFrame,
    QHBoxLayout,
    QLabel,
    QPushButton,
    QVBoxLayout,
    QWidget,
)

from anlage.session.judging.ladder import Line, clause_of
from anlage.session.judging.marks import check_sentences, overlay_sentences
from anlage.session.leaves.table import field_of
from anlage.ui.kit.complaint import Complaint
from anlage.ui.kit.document import Document
from anlage.ui.kit.fields import Unit, field_for
from anlage.ui.kit.look import font

PANEL_PX = 320


class RungPanel(QFrame):
    """The chosen rung: verdict, reason, what to change, the field itself, clause, doubt and records.

    Signals
    -------
    field_asked(path) : the person wants to go to the field where the leaf has its home
    rule_asked(rule, code) : the person wants to read the rule that gives the verdict
    left() : the keyboard left the field
    """

    field_asked = Signal(str)
    rule_asked = Signal(str, str)
    left = Signal()

    def __init__(self, document: Document, home_of: Callable[[str], str]) -> None:
        super().__init__(objectName="panel")
        self.document, self._home_of = document, home_of
        self.line: Line | None = None
        self.field: QWidget | None = None
        self.title, self.reason, self.mend, self.origin = (QLabel() for _ in range(4))
        self.title.setFont(font("title", strong=True))
        for label in (self.title, self.reason, self.mend, self.origin):
            label.setWordWrap(True)
            label.setTextInteractionFlags(Qt.TextInteractionFlag.TextSelectableByMouse)
        self.origin.setProperty("tone", "muted")
        self.home = QPushButton()
        self.home.hide()
        self.home.clicked.connect(self._on_home)
        self.rule_button = QPushButton("Read the rule")
        self.rule_button.clicked.connect(self._on_rule)
        self._room = QVBoxLayout()
        self.setFixedWidth(PANEL_PX)
        column = QVBoxLayout(self)
        column.setContentsMargins(16, 12, 16, 14)
        column.setSpacing(10)
        for label in (self.title, self.reason, self.mend):
            column.addWidget(label)
        column.addLayout(self._room)
        column.addWidget(self.home)
        column.addSpacing(8)
        column.addWidget(self.origin)
        column.addWidget(self.rule_button)
        column.addStretch(1)

    def show_line(self, line: Line | None) -> None:
        """Show a rung; its field stays as it is while it is the same leaf, so that typing in it goes on."""
        before, self.line = self.line, line
        self.setVisible(line is not None)
        self.title.setText(line.title if line else "")
        self.reason.setText(f"{line.rung.verdict[0].upper()}{line.rung.verdict[1:]}. {line.reason}" if line else "")
        self.mend.setText(line.mend if line else "")
        self.mend.setVisible(bool(line and line.mend))
        self.origin.setText(_origin(line) if line else "")
        self.rule_button.setVisible(bool(line and line.rung.rules))
        if (before.path if before else "") != (line.path if line else ""):
            self._show_field(line.path if line else "")

    def _show_field(self, path: str) -> None:
        while (item := self._room.takeAt(0)) is not None:
            widget = item.widget()
            if widget is not None:
                widget.hide()
                widget.deleteLater()
        self.field = None
        self.home.setVisible(bool(self._home_of(path)))
        if not path:
            return
        box = QWidget(self)
        row = QHBoxLayout(box)
        row.setContentsMargins(0, 0, 0, 0)
        label = QLabel(field_of(path).label)
        label.setProperty("tone", "muted")
        self.field = field_for(self.document, path, box)
        self.field.left.connect(self.left, Qt.ConnectionType.QueuedConnection)
        row.addWidget(label)
        row.addWidget(self.field, 1)
        if field_of(path).kind:
            row.addWidget(Unit(self.document, path))
        self._room.addWidget(box)
        Complaint(self.document, [path], box)
        self.home.setText(f"Go to {field_of(path).label.lower()}")

    def _on_rule(self) -> None:
        rung = self.line.rung if self.line is not None else None
        if rung is not None and rung.rules:
            own = next((rule for rule in rung.rules if rule.clause == rung.clause), rung.rules[0])
            self.rule_asked.emit(own.id, rung.code)

    def _on_home(self) -> None:
        if self.line is not None:
            self.field_asked.emit(self.line.path)


def _origin(line: Line) -> str:
    """Return clause, category, doubt and records of a rung."""
    rung = line.rung
    if not rung.clause:
        return "By no clause: the procedure itself leaves it open."
    because = f", because of {rung.because}" if rung.because else ""
    doubt = {"H": "high", "M": "medium: read from memory", "L": "low: not relied on"}.get(
        rung.confidence, rung.confidence
    )
    records = ", ".join(rung.records) or "none"
    told = "\n".join((*check_sentences(rung.rules), *overlay_sentences(rung.rules)))
    on = "Joint" if any(rule.route == "prequalified" for rule in rung.rules) else "Records"
    said = (
        line.beside, f"Clause: {clause_of(line)}", f"Category: {rung.category}{because}", f"Confidence: {doubt}", told,
        f"{on}: {records}",
    )  # fmt: skip
    return "\n".join(filter(None, said))
