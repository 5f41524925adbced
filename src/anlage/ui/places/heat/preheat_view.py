"""How hot before? What every school and code asks over one axis, the chosen preheat as a line to drag."""

from typing import get_args

from PySide6.QtWidgets import QGridLayout, QHBoxLayout, QLabel, QPushButton, QVBoxLayout, QWidget

from anlage.core.document import with_at
from anlage.session.heat.asks import PreheatView
from anlage.session.heat.measured import heat_sentences, measuring_sentences
from anlage.session.heat.preheat import STATED, preheat_view
from anlage.session.heat.preheat_curves import Over, preheat_curves, schools_over
from anlage.session.heat.preheat_picture import LEAST
from anlage.session.heat.reading_picture import reading_picture
from anlage.ui.kit.complaint import Complaint
from anlage.ui.kit.document import Document
from anlage.ui.kit.fields import ChoiceField, LeafField
from anlage.ui.kit.heading import VerdictLine, heading
from anlage.ui.kit.look import font
from anlage.ui.kit.tabs import lay_beside
from anlage.ui.picture.editor import PictureEditor
from anlage.ui.picture.still import StillPresenter
from anlage.ui.picture.view import PictureView
from anlage.ui.places.heat.beside import Beside
from anlage.ui.places.heat.field_rows import lay_fields
from anlage.ui.places.heat.leaves import PREHEAT
from anlage.ui.places.heat.presenter import PreheatPresenter

COLUMN_PX = 400
NEVER_INSIDE = "Crayons never inside the groove."
CURVES_PX = 190
PLACES_PX = 148
OVER_WORDS: dict[Over, str] = {"length": "Preheat over thickness", "heat_input": "Preheat over heat input"}


class PreheatPane(QWidget):
    """The picture on the left; what it was worked out from, the fields, the verdict and the crayons on the right."""

    def __init__(self, document: Document, beside: Beside) -> None:
        super().__init__()
        self.document, self._beside = document, beside
        self.picture = PictureView(PreheatPresenter(document, beside), document.reader, "Preheat that is asked")
        self.editor = PictureEditor(self.picture, document)
        self.curves = QWidget()
        self.over = {over: self._curves(over) for over in get_args(Over)}
        self.fields: dict[str, LeafField | ChoiceField] = {}
        self.verdict, self.between = VerdictLine(document.reader), VerdictLine(document.reader)
        self.take = QPushButton("Take the preheat that governs")
        self.take.setToolTip("States it as the least preheat, with what asks for it as the reason (Ctrl+Shift+G)")
        self.take.clicked.connect(self.take_governing)
        self.crayons, self.said = QLabel(), QLabel()
        self.places = PictureView(StillPresenter(document, reading_picture), document.reader, "Where it is read")
        self.told = QGridLayout()
        self._cells: list[QLabel] = []
        self._lay_out()
        self.refresh()

    def _curves(self, over: Over) -> PictureView:
        presenter = StillPresenter(self.document, lambda wps, sheet: preheat_curves(wps, over, sheet))
        return PictureView(presenter, self.document.reader, OVER_WORDS[over])

    def _lay_out(self) -> None:
        pictures, pair = QVBoxLayout(), QHBoxLayout(self.curves)
        left = QWidget()
        left.setLayout(pictures)
        for layout in (pictures, pair):
            layout.setContentsMargins(0, 0, 0, 0)
            layout.setSpacing(8)
        for view in self.over.values():
            view.setMinimumHeight(CURVES_PX)
            pair.addWidget(view)
        pictures.addWidget(self.picture, 3)
        pictures.addWidget(self.curves, 2)
        room = QWidget()
        column = QVBoxLayout(room)
        column.setContentsMargins(0, 0, 8, 0)
        column.setSpacing(8)
        column.addWidget(self.verdict)
        column.addWidget(self.between)
        column.addWidget(self.take)
        column.addWidget(heading("What it rests on"))
        self.told.setHorizontalSpacing(10)
        self.told.setVerticalSpacing(4)
        self.told.setColumnStretch(1, 1)
        column.addLayout(self.told)
        column.addLayout(lay_fields(self.document, PREHEAT, self.fields))
        Complaint(self.document, PREHEAT, room)
        self.places.setFixedHeight(PLACES_PX)
        column.addWidget(self.places)
        for label in (self.crayons, self.said):
            label.setWordWrap(True)
            column.addWidget(label)
        self.said.setProperty("tone", "muted")
        column.addStretch(1)
        lay_beside(self, left, room, COLUMN_PX)

    @property
    def view(self) -> PreheatView:
        """What is asked now."""
        return preheat_view(self.document.value, self._beside.codes(), self._beside.machines())

    def refresh(self) -> None:
        """Show what is asked now."""
        view, system = self.view, self.document.system
        verdict, sentence = view.verdict(system)
        self.verdict.say(verdict or "unproven", sentence or "Nothing is asked yet.")
        between, usual = view.interpass_verdict(system)
        self.between.setVisible(bool(usual))
        self.between.say(between or "unproven", usual)
        governs = view.governing
        self.take.setEnabled(self.document.can_write and governs is not None and governs.high_c is not None)
        self._show_told(view)
        self.places.refresh()
        drawn = self.places.placed is not None
        self.places.setVisible(drawn)
        told = (*measuring_sentences(self.document.value, system), NEVER_INSIDE) if drawn else ()
        self.crayons.setText("\n".join(told or heat_sentences(self.document.value, system)))
        self.crayons.setVisible(bool(self.crayons.text()))
        self.said.setText("\n".join(view.sentences))
        self.picture.refresh()
        for over, picture in self.over.items():
            picture.setVisible(bool(schools_over(self.document.value, over)))
            picture.refresh()
        self.curves.setVisible(any(not picture.isHidden() for picture in self.over.values()))

    def _show_told(self, view: PreheatView) -> None:
        texts = [part for each in view.told for part in (each.name, each.text, each.basis)]
        texts = ["" if text == STATED else text for text in texts]  # says no more than the field below
        while len(self._cells) < len(texts):
            label = QLabel()
            place = len(self._cells)
            row, part = divmod(place, 3)
            if part != 1:
                label.setProperty("tone", "muted")
            if part == 2:
                label.setFont(font("note"))
                label.setWordWrap(True)
            at = (2 * row, part) if part < 2 else (2 * row + 1, 1)
            self.told.addWidget(label, *at)
            self._cells.append(label)
        for n, label in enumerate(self._cells):
            label.setText(texts[n] if n < len(texts) else "")
            label.setVisible(n < len(texts) and bool(texts[n]))

    def take_governing(self) -> None:
        """State the preheat that governs, rounded up to a step, with what asks for it as the reason."""
        governs = self.view.takes
        if governs is None or governs.chosen_c is None or not self.document.can_write:
            return
        wps = with_at(self.document.value, LEAST, governs.chosen_c)
        self.document.edit(with_at(wps, "preheat/reason", governs.reason), "Take the preheat that governs")
