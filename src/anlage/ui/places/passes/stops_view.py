"""Starts and stops of every pass: the clock or the strip, and the rules they follow."""

from PySide6.QtWidgets import QHBoxLayout, QLabel, QVBoxLayout, QWidget

from anlage.session.seam.change_over import change_overs
from anlage.session.seam.seam_places import is_round
from anlage.session.seam.stop_plan import stop_sentences
from anlage.ui.kit.complaint import Complaint
from anlage.ui.kit.document import Document
from anlage.ui.kit.fields import ChoiceField, LeafField, Unit, field_for
from anlage.ui.kit.look import font
from anlage.ui.picture.view import PictureView
from anlage.ui.places.passes.seam_presenters import StopPresenter
from anlage.ui.places.passes.selection import Selection

LEAVES = ("seam/stop_rule", "seam/stagger_mm", "seam/marks", "seam/tacks", "seam/welders")
SENTENCES = 6
ROUND = ("seam/stop_rule", "seam/tacks", "seam/welders")  # of a pipe alone


class StopsView(QWidget):
    """The picture, and beside it its few fields and what is to be said of it."""

    def __init__(self, document: Document, selection: Selection) -> None:
        super().__init__()
        self.document, self.selection = document, selection
        self.picture = PictureView(StopPresenter(document, selection), document.reader, "Starts and stops")
        self.fields: dict[str, LeafField | ChoiceField] = {}
        self._widgets: dict[str, list[QWidget]] = {}
        column = QVBoxLayout()
        column.setSpacing(2)
        for path in LEAVES:
            field = self.fields[path] = field_for(document, path)
            field.setFixedWidth(84 if field.field.kind else 200)
            label = QLabel(field.field.label)
            label.setProperty("tone", "muted")
            label.setFont(font("note"))
            row = QHBoxLayout()
            row.setSpacing(6)
            row.addWidget(field)
            self._widgets[path] = [label, field]
            if field.field.kind:
                unit = Unit(document, path)
                row.addWidget(unit)
                self._widgets[path].append(unit)
            row.addStretch(1)
            column.addWidget(label)
            column.addLayout(row)
        Complaint(document, LEAVES, self)
        column.addSpacing(10)
        self.sentences = QLabel()
        self.sentences.setWordWrap(True)
        self.sentences.setFixedWidth(300)
        column.addWidget(self.sentences)
        self.changes_head, self.changes = QLabel("Change-overs"), QLabel()
        self.changes_head.setProperty("tone", "muted")
        self.changes_head.setFont(font("note"))
        self.changes.setWordWrap(True)
        self.changes.setFixedWidth(300)
        column.addSpacing(10)
        column.addWidget(self.changes_head)
        column.addWidget(self.changes)
        column.addStretch(1)
        layout = QHBoxLayout(self)
        layout.setContentsMargins(0, 0, 0, 0)
        layout.setSpacing(16)
        layout.addWidget(self.picture, 1)
        layout.addLayout(column)
        self.refresh()

    def refresh(self) -> None:
        """Show what the document says now."""
        wps = self.document.value
        self.picture.refresh()
        self.sentences.setText("\n".join(stop_sentences(wps, self.selection.pass_id, self.document.system)[:SENTENCES]))
        changes = change_overs(wps, self.document.system)
        self.changes.setText("\n".join(each.text for each in changes))
        for label in (self.changes_head, self.changes):
            label.setVisible(bool(changes))
        for path in ROUND:
            for widget in self._widgets[path]:
                widget.setVisible(is_round(wps) and not (path == "seam/tacks" and wps.tacks))
