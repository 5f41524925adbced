"""A fill is shown before it is taken: the joint as it is laid now and as it would be, and what changes."""

from collections.abc import Callable

from PySide6.QtCore import Qt
from PySide6.QtWidgets import QHBoxLayout, QLabel, QPushButton, QVBoxLayout, QWidget

from anlage.core.procedure import Wps
from anlage.session.proposal.changes import fill_changes
from anlage.session.proposal.fill import Filled
from anlage.session.seam.heat import heat_span
from anlage.session.weld.pictures import bead_picture
from anlage.ui.kit.comparison import Comparison
from anlage.ui.kit.dialog import Question
from anlage.ui.kit.document import Document
from anlage.ui.picture.still import StillPresenter
from anlage.ui.picture.view import PictureView

WIDTH_PX, HEIGHT_PX, PICTURE_PX = 860, 580, 110  # of a picture the least height
NOW, THEN = "Now", "Filled anew"


class _Beads(StillPresenter):
    """The beads of one state, on the heat scale of both."""

    def __init__(self, document: Document, wps: Wps, scale: tuple[float, float] | None) -> None:
        super().__init__(document, lambda _open, sheet: bead_picture(wps, "", sheet))
        self._scale = scale

    def heat(self) -> tuple[float, float] | None:
        return self._scale


class FillDialog(Question):
    """Both states beside each other; nothing is changed until it is taken.

    Parameters
    ----------
    document : the open procedure
    found : the fill that is proposed
    take : takes it over
    """

    def __init__(self, document: Document, found: Filled, take: Callable[[], None], parent: QWidget) -> None:
        super().__init__("Fill the joint anew", parent)
        self._take = take
        self.setMinimumWidth(min(WIDTH_PX, parent.screen().availableSize().width()))
        self.column.setSpacing(8)
        before, after = document.value, found.wps
        spans = [span for each in (before, after) if (span := heat_span(each))]
        scale = (min(low for low, _ in spans), max(high for _, high in spans)) if spans else None
        pictures = QHBoxLayout()
        pictures.setSpacing(16)
        for word, wps in ((NOW, before), (THEN, after)):
            column, head = QVBoxLayout(), QLabel(f"{word}: {len(wps.passes)} passes")
            view = PictureView(_Beads(document, wps, scale), document.reader, f"Beads, {word.lower()}")
            view.setMinimumHeight(PICTURE_PX)
            view.setFocusPolicy(Qt.FocusPolicy.NoFocus)
            column.addWidget(head)
            column.addWidget(view, 1)
            pictures.addLayout(column, 1)
        self.column.addLayout(pictures, 1)
        self.comparison = Comparison()
        self.comparison.show_differences(fill_changes(before, after, document.system), NOW, THEN)
        self.column.addWidget(self.comparison)
        self.said = QLabel("\n".join((*found.said, "What was typed is kept; what is proposed is usual, to be proved.")))
        self.said.setWordWrap(True)
        self.said.setProperty("tone", "muted")
        self.column.addWidget(self.said)
        self.take_button, self.leave_button = QPushButton("Take it"), QPushButton("Leave all")
        self.add_foot(self.leave_button, self.take_button)
        self.leave_button.clicked.connect(self.reject)
        self.take_button.clicked.connect(self.take)
        self.take_button.setAutoDefault(True)  # there is no field here that Enter could be meant for
        self.take_button.setDefault(True)
        self.take_button.setFocus()
        self.resize(WIDTH_PX, HEIGHT_PX)

    def take(self) -> None:
        """Take the fill over."""
        self._take()
        self.accept()
