"""How fast and how hard? Hardness over heat input, cooling time and hardness of every pass."""

from PySide6.QtWidgets import QGridLayout, QLabel, QVBoxLayout, QWidget

from anlage.session.heat.cooling import cooling_view
from anlage.session.heat.cooling_picture import band_sentence, cooling_picture, pass_rows
from anlage.ui.kit.document import Document
from anlage.ui.kit.fields import ChoiceField, LeafField
from anlage.ui.kit.heading import VerdictLine, heading
from anlage.ui.kit.look import font
from anlage.ui.kit.tabs import lay_beside
from anlage.ui.picture.still import StillPresenter
from anlage.ui.picture.view import PictureView
from anlage.ui.places.heat.beside import Beside

COLUMN_PX = 400
HEADS = ("Pass", "Heat input", "t8/5, s", "HV10")


class CoolingPane(QWidget):
    """The curves on the left; verdict, band and passes on the right."""

    def __init__(self, document: Document, beside: Beside) -> None:
        super().__init__()
        self.document, self._beside = document, beside
        self.picture = PictureView(_Curves(document, cooling_picture), document.reader, "Hardness over heat input")
        self.fields: dict[str, LeafField | ChoiceField] = {}
        self.verdict, self.band = VerdictLine(document.reader), QLabel()
        self.window_said, self.said = QLabel(), QLabel()
        self.rows = QGridLayout()
        self._cells: list[QLabel] = []
        room = QWidget()
        column = QVBoxLayout(room)
        column.setContentsMargins(0, 0, 8, 0)
        column.setSpacing(8)
        column.addWidget(self.verdict)
        for label in (self.band, self.window_said, self.said):
            label.setWordWrap(True)
        self.band.setFont(font("body", strong=True))
        column.addWidget(self.band)
        column.addWidget(self.window_said)
        self.head = heading("Pass by pass")
        column.addWidget(self.head)
        self.rows.setHorizontalSpacing(14)
        self.rows.setVerticalSpacing(2)
        self.rows.setColumnStretch(len(HEADS), 1)
        column.addLayout(self.rows)
        self.said.setProperty("tone", "muted")
        self.said.setFont(font("note"))
        column.addWidget(self.said)
        column.addStretch(1)
        lay_beside(self, self.picture, room, COLUMN_PX)
        self.refresh()

    def refresh(self) -> None:
        """Show how the passes cool now."""
        view, system = cooling_view(self.document.value, self._beside.machines()), self.document.system
        self.verdict.say(*view.verdict)
        self.band.setText(band_sentence(view, system))
        self.band.setVisible(bool(self.band.text()))
        window = view.window_s
        said = f"Makers of such steel recommend {window[0]:.0f} to {window[1]:.0f} s of t8/5 (M)." if window else ""
        self.window_said.setText(said)
        self.window_said.setVisible(bool(said) and not view.missing)
        rows = (HEADS, *pass_rows(view, system)) if view.passes else ()
        self.head.setVisible(bool(rows))
        texts = [cell for row in rows for cell in row]
        while len(self._cells) < len(texts):
            label = QLabel()
            if len(self._cells) < len(HEADS):
                label.setProperty("tone", "muted")
            self.rows.addWidget(label, len(self._cells) // len(HEADS), len(self._cells) % len(HEADS))
            self._cells.append(label)
        for n, label in enumerate(self._cells):
            label.setText(texts[n] if n < len(texts) else "")
            label.setVisible(n < len(texts))
        self.said.setText("\n".join(view.sentences))
        self.picture.refresh()


class _Curves(StillPresenter):
    """The curves, with what to do first while there are none."""

    def empty_text(self) -> str:
        if cooling_view(self.document.value).soft:
            return "Nothing hardens here: there is no hardness to draw."
        return "Once metal, thickness and the settings of the passes are stated, their hardness is drawn here."
