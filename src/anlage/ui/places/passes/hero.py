"""The one number of the Passes: the arc energy of the chosen pass."""

from PySide6.QtCore import Qt
from PySide6.QtGui import QResizeEvent
from PySide6.QtWidgets import (
    QHBoxLayout,
    QLabel,
    QSizePolicy,
    QVBoxLayout,
    QWidget,
)

from anlage.session.heat.meters import off_words
from anlage.session.weld.figures import pass_figures
from anlage.session.weld.transfer import transfer_sentences
from anlage.session.weld.usual import hot_words, proposed_words
from anlage.ui.kit.document import Document
from anlage.ui.kit.guard import guarded
from anlage.ui.kit.look import font
from anlage.ui.kit.place import Desk
from anlage.ui.places.passes.selection import Selection


@guarded
class Hero(QWidget):
    """The one number of the place: the arc energy of the chosen pass, with its corners and its heat input."""

    def __init__(self, document: Document, selection: Selection, desk: Desk) -> None:
        super().__init__()
        self.document, self.selection, self.desk = document, selection, desk
        self.name, self.number, self.corners = QLabel(), QLabel(), QLabel()
        self.name.setProperty("tone", "muted")
        self.number.setFont(font("hero", strong=True))
        self.corners.setProperty("tone", "muted")
        self.corners.setFont(font("note"))
        self.corners.setSizePolicy(QSizePolicy.Policy.Ignored, QSizePolicy.Policy.Preferred)
        self._lines: tuple[str, ...] = ()
        row = QHBoxLayout(self)
        row.setContentsMargins(0, 0, 0, 0)
        row.setSpacing(14)
        column = QVBoxLayout()
        column.setSpacing(0)
        column.addWidget(self.name)
        column.addWidget(self.number)
        row.addLayout(column)
        row.addWidget(self.corners, 1, Qt.AlignmentFlag.AlignBottom)

    def refresh(self) -> None:
        """Show the figures of the chosen pass."""
        chosen = self.selection.chosen
        if chosen is None:
            self.name.setText("Arc energy")
            self.number.setText("–")
            self._say("Add a pass with Ctrl+Return.")
            return
        figures = pass_figures(self.document.value, chosen, self.document.system)
        self.name.setText(f"Arc energy of pass {self.selection.row + 1}")
        self.number.setText(figures.energy)
        wps = self.document.value
        self._say(
            figures.hottest, figures.coldest, figures.heat_input, off_words(wps, chosen.id, self.desk.machines()),
            hot_words(wps, chosen), *transfer_sentences(wps, chosen, self.document.system),
            proposed_words(wps, chosen),
        )  # fmt: skip

    def resizeEvent(self, event: QResizeEvent) -> None:
        super().resizeEvent(event)
        self._say(*self._lines)

    def _say(self, *lines: str) -> None:
        """Show lines beside the number, each as far as there is room; the tooltip has them whole."""
        self._lines = tuple(filter(None, lines))
        room, metrics = self.corners.width(), self.corners.fontMetrics()
        self.corners.setText(
            "\n".join(metrics.elidedText(line, Qt.TextElideMode.ElideRight, room) for line in self._lines)
        )
        self.corners.setToolTip("\n".join(self._lines))
