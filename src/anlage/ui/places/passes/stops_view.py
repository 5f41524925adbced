"""Starts and stops of every pass: the clock or the strip, and the rules they follow."""

from typing import cast

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

ROWS = (
    (("seam/stop_rule", 200),), (("seam/stagger_mm", 84), ("seam/metal_removal", 130)),
    (("seam/tacks", 150), ("seam/welders", 130)), (("seam/marks", 200),),
)  # fmt: skip
LEAVES = tuple(path for row in ROWS for path, _ in row)
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
        for row in ROWS:
            beside = QHBoxLayout()
            beside.setSpacing(14)
            for path, width in row:
                beside.addLayout(self._cell(path, width))
            beside.addStretch(1)
            column.addLayout(beside)
        Complaint(document, LEAVES, self)
        self.own_label, self._own = QLabel(), QVBoxLayout()
        self.own_label.setProperty("tone", "muted")
        self.own_label.setFont(font("note"))
        column.addWidget(self.own_label)
        column.addLayout(self._own)
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

    def _cell(self, path: str, width: int) -> QVBoxLayout:
        """Return a leaf with its name over it and its unit beside it."""
        field = self.fields[path] = field_for(self.document, path)
        field.setFixedWidth(width)
        label = QLabel(field.field.label)
        label.setProperty("tone", "muted")
        label.setFont(font("note"))
        row, cell = QHBoxLayout(), QVBoxLayout()
        row.setSpacing(6)
        row.addWidget(field)
        self._widgets[path] = [label, field]
        if field.field.kind:
            unit = Unit(self.document, path)
            row.addWidget(unit)
            self._widgets[path].append(unit)
        row.addStretch(1)
        cell.setSpacing(2)
        cell.addWidget(label)
        cell.addLayout(row)
        return cell

    def _show_own(self) -> None:
        """Show the field of the chosen pass for stops of its own."""
        wps, chosen = self.document.value, self.selection.pass_id
        path = f"passes/{chosen}/marks" if self.selection.chosen is not None else ""
        gone = next((each for each in self.fields if each.startswith("passes/") and each != path), "")
        if gone:
            field = self.fields.pop(gone)
            self._own.removeWidget(field)
            field.hide()
            field.deleteLater()
        if path and path not in self.fields:
            made = self.fields[path] = field_for(self.document, path)
            assert isinstance(made, LeafField)
            made.setFixedWidth(200)
            self._own.addWidget(made)
        number = next((n for n, each in enumerate(wps.passes, 1) if each.id == chosen), 0)
        self.own_label.setText(f"Marked stops of pass {number} alone, or none")
        self.own_label.setVisible(bool(path))
        if path:
            cast("LeafField", self.fields[path]).setPlaceholderText(wps.seam.marks or "as all")

    def refresh(self) -> None:
        """Show what the document says now."""
        wps = self.document.value
        self._show_own()
        self.picture.refresh()
        self.sentences.setText("\n".join(stop_sentences(wps, self.selection.pass_id, self.document.system)[:SENTENCES]))
        changes = change_overs(wps, self.document.system)
        self.changes.setText("\n".join(each.text for each in changes))
        for label in (self.changes_head, self.changes):
            label.setVisible(bool(changes))
        for path in ROUND:
            for widget in self._widgets[path]:
                widget.setVisible(is_round(wps) and not (path == "seam/tacks" and wps.tacks))
