"""The head of a part of a place, and a sentence with the mark of its verdict."""

from PySide6.QtCore import QRectF, Qt
from PySide6.QtGui import QPainter, QPaintEvent
from PySide6.QtWidgets import QHBoxLayout, QLabel, QWidget

from anlage.ui.kit.guard import guarded
from anlage.ui.kit.look import font
from anlage.ui.kit.marks import MARK_PX, draw_mark
from anlage.ui.kit.reader import Reader


def heading(text: str) -> QLabel:
    """Return a label that is the head of a part of a place."""
    label = QLabel(text)
    label.setFont(font("title", strong=True))
    return label


class VerdictLine(QWidget):
    """A sentence with the mark of its verdict before it."""

    def __init__(self, reader: Reader) -> None:
        super().__init__()
        self.mark, self.text = _Mark(reader), QLabel()
        self.text.setWordWrap(True)
        row = QHBoxLayout(self)
        row.setContentsMargins(0, 0, 0, 0)
        row.addWidget(self.mark, 0, Qt.AlignmentFlag.AlignTop)
        row.addWidget(self.text, 1)

    def say(self, verdict: str, sentence: str) -> None:
        """Show a sentence and its verdict."""
        self.mark.verdict = verdict
        self.mark.setAccessibleName(verdict)
        self.mark.update()
        self.text.setText(sentence)


@guarded
class _Mark(QWidget):
    def __init__(self, reader: Reader) -> None:
        super().__init__()
        self.reader, self.verdict = reader, "unproven"
        self.setFixedSize(MARK_PX + 2, MARK_PX + 8)
        reader.look_changed.connect(self.update)

    def paintEvent(self, event: QPaintEvent) -> None:
        rect = QRectF(1, 5, MARK_PX, MARK_PX)
        draw_mark(QPainter(self), rect, self.verdict, self.reader.look.colour[self.verdict])
