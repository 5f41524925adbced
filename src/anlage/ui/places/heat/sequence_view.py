"""How long between? The wait before each pass as a range, the temperature at its place over time."""

from PySide6.QtWidgets import QGridLayout, QLabel, QVBoxLayout, QWidget

from anlage.session.heat.scales import degrees
from anlage.session.heat.sequence import Waits, asked_of
from anlage.session.heat.sequence_words import headline, pass_rows, stated_sentences, total_sentence
from anlage.ui.kit.complaint import Complaint
from anlage.ui.kit.document import Document
from anlage.ui.kit.fields import ChoiceField, LeafField
from anlage.ui.kit.heading import heading
from anlage.ui.kit.heat_scale import HeatScale
from anlage.ui.kit.look import font
from anlage.ui.kit.section_waits import SectionWaits
from anlage.ui.kit.tabs import lay_beside
from anlage.ui.picture.view import PictureView
from anlage.ui.places.heat.beside import Beside
from anlage.ui.places.heat.field_rows import lay_fields
from anlage.ui.places.heat.leaves import SEQUENCE
from anlage.ui.places.heat.section_presenter import CurvePresenter, Look, SectionPresenter

COLUMN_PX = 400
CELLS = 5


class SequencePane(QWidget):
    """Section and curve on the left; headline, piece, waits and what they were worked out for on the right."""

    def __init__(self, document: Document, beside: Beside) -> None:
        super().__init__()
        self.document, self._beside = document, beside
        self.waits: Waits | None = None
        self.runs = SectionWaits(self, beside.machines)
        self.runs.ready.connect(self.refresh)
        self.runs.progressed.connect(self._say_progress)
        self.headline, self.total, self.stated, self.minding = QLabel(), QLabel(), QLabel(), QLabel()
        self.look = Look(document)
        self.look.moved.connect(self._on_moved)
        is_due = self._is_due
        self.section = PictureView(SectionPresenter(self.look, is_due), document.reader, "Section by its temperature")
        self.scale = HeatScale(document.reader, self._heat_span, self._say)
        self.picture = PictureView(CurvePresenter(self.look, is_due), document.reader, "Temperature over the passes")
        self.fields: dict[str, LeafField | ChoiceField] = {}
        self.rows = QGridLayout()
        self._cells: list[QLabel] = []
        self._lay_out()
        self.refresh()

    def _lay_out(self) -> None:
        room = QWidget()
        column = QVBoxLayout(room)
        column.setContentsMargins(0, 0, 8, 0)
        column.setSpacing(8)
        self.headline.setFont(font("title", strong=True))
        for label in (self.headline, self.total):
            label.setWordWrap(True)
            column.addWidget(label)
        column.addWidget(heading("The piece"))
        column.addLayout(lay_fields(self.document, SEQUENCE, self.fields))
        Complaint(self.document, SEQUENCE, room)
        self.rows.setHorizontalSpacing(10)
        self.rows.setVerticalSpacing(2)
        self.rows.setColumnStretch(CELLS, 1)
        column.addLayout(self.rows)
        for label in (self.stated, self.minding):
            label.setWordWrap(True)
            label.setFont(font("note"))
            label.setProperty("tone", "muted")
            column.addWidget(label)
        column.addStretch(1)
        left = QWidget()
        pictures = QVBoxLayout(left)
        pictures.setContentsMargins(0, 0, 0, 0)
        pictures.setSpacing(8)
        pictures.addWidget(self.section, 2)
        pictures.addWidget(self.scale)
        pictures.addWidget(self.picture, 3)
        lay_beside(self, left, room, COLUMN_PX)

    @property
    def is_running(self) -> bool:
        """Whether a newer answer is still to come."""
        return self.runs.is_due

    def _say_progress(self, share: float) -> None:
        self.total.setText(f"Being worked out, {100 * share:.0f} % done; an edit begins anew at the pass that changed.")

    def _is_due(self) -> bool:
        return self.is_running and self.waits is not None

    def _heat_span(self) -> tuple[float, float] | None:
        return self.section.presenter.heat()

    def _say(self, celsius: float) -> str:
        return degrees(celsius, self.document.system)

    def _on_moved(self) -> None:
        self.section.refresh()
        self.picture.refresh()

    def refresh(self) -> None:
        """Ask for the waits of what the procedure is now, once typing rests; say what is missing."""
        wps = self.document.value
        found, missing = self.runs.ask(wps), asked_of(wps).missing
        if missing:
            self.waits = None
            self.headline.setText("Not run yet.")
            self.total.setText(f"Still to state: {'; '.join(what for _, what in missing)}.")
        elif found is None:
            self._say_progress(0.0)
        else:
            self.waits = found if isinstance(found, Waits) else None
            self.headline.setText(headline(found) if isinstance(found, Waits) else "No waiting time.")
            self.total.setText(total_sentence(found) if isinstance(found, Waits) else found)
        self._show()

    def _show(self) -> None:
        waits = self.waits
        heads = (("Pass", "Wait before", "Read before", "Arc comes to", "Peak"),) if waits else ()
        texts = [cell for row in (*heads, *(pass_rows(waits, self.document.system) if waits else ())) for cell in row]
        while len(self._cells) < len(texts):
            label = QLabel()
            self.rows.addWidget(label, len(self._cells) // CELLS, len(self._cells) % CELLS)
            if len(self._cells) < CELLS:
                label.setProperty("tone", "muted")
            self._cells.append(label)
        for n, label in enumerate(self._cells):
            label.setText(texts[n] if n < len(texts) else "")
            label.setVisible(n < len(texts))
            label.setEnabled(not self.is_running)
        self.stated.setText("\n".join(stated_sentences(waits, self.document.system)) if waits else "")
        self.minding.setText("\n".join(waits.minding) if waits else "")
        self.look.show_waits(waits)
        for widget in (self.section, self.scale):
            widget.setVisible(self.look.at is not None)
        self._on_moved()
