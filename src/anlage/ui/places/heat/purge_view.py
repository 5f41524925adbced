"""How long to purge? Times to the wanted oxygen beside what a rule of thumb leaves, and the oxygen as a curve."""

from PySide6.QtWidgets import QGridLayout, QLabel, QVBoxLayout, QWidget

from anlage.session.heat.purge_picture import purge_picture
from anlage.session.heat.purging import purge_plan
from anlage.ui.kit.complaint import Complaint
from anlage.ui.kit.document import Document
from anlage.ui.kit.fields import ChoiceField, LeafField
from anlage.ui.kit.heading import heading
from anlage.ui.kit.look import font
from anlage.ui.kit.tabs import lay_beside
from anlage.ui.picture.still import StillPresenter
from anlage.ui.picture.view import PictureView
from anlage.ui.places.heat.field_rows import lay_fields
from anlage.ui.places.heat.leaves import PURGE

COLUMN_PX = 400


class PurgePane(QWidget):
    """The curve of the oxygen on the left; fields, times and cautions on the right."""

    def __init__(self, document: Document) -> None:
        super().__init__()
        self.document = document
        self.picture = PictureView(_Oxygen(document, purge_picture), document.reader, "Oxygen over the purge")
        self.fields: dict[str, LeafField | ChoiceField] = {}
        self.needed, self.missing, self.cautions = QLabel(), QLabel(), QLabel()
        self.rows = QGridLayout()
        self._cells: list[tuple[QLabel, QLabel, QLabel]] = []
        room = QWidget()
        column = QVBoxLayout(room)
        column.setContentsMargins(0, 0, 8, 0)
        column.setSpacing(8)
        column.addWidget(heading("The purge"))
        for label in (self.needed, self.missing, self.cautions):
            label.setWordWrap(True)
        column.addWidget(self.needed)
        column.addLayout(lay_fields(document, PURGE, self.fields))
        Complaint(document, PURGE, room)
        column.addWidget(self.missing)
        self.rows.setHorizontalSpacing(12)
        self.rows.setVerticalSpacing(3)
        self.rows.setColumnStretch(0, 1)
        column.addLayout(self.rows)
        column.addWidget(self.cautions)
        self.cautions.setFont(font("note"))
        column.addStretch(1)
        lay_beside(self, self.picture, room, COLUMN_PX)
        self.refresh()

    def refresh(self) -> None:
        """Show the plan as it is now."""
        plan = purge_plan(self.document.value)
        self.needed.setText(plan.needed)
        self.missing.setText(f"Still to state: {'; '.join(what for _, what in plan.missing)}." if plan.missing else "")
        self.missing.setVisible(bool(plan.missing))
        while len(self._cells) < len(plan.lines):
            row = 2 * len(self._cells)
            name, value, note = QLabel(), QLabel(), QLabel()
            note.setFont(font("note"))
            note.setWordWrap(True)
            for label in (name, note):
                label.setProperty("tone", "muted")
            self.rows.addWidget(name, row, 0)
            self.rows.addWidget(value, row, 1)
            self.rows.addWidget(note, row + 1, 0, 1, 2)
            self._cells.append((name, value, note))
        for n, cells in enumerate(self._cells):
            line = plan.lines[n] if n < len(plan.lines) else None
            texts = ("", "", "") if line is None else (line.name, line.text, line.note)
            for label, text in zip(cells, texts, strict=True):
                label.setText(text)
                label.setVisible(bool(text))
        self.cautions.setText("\n".join(plan.cautions))
        self.picture.refresh()


class _Oxygen(StillPresenter):
    """The curve, with what to do first while there is none."""

    def empty_text(self) -> str:
        return "State length or volume, flow and the oxygen that may be left: then the purge is drawn here."
