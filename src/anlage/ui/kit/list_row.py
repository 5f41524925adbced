"""A row of a list of things: its ground, what stands in it, and the frame of the keyboard."""

from typing import Any, NamedTuple

from PySide6.QtCore import QModelIndex, QObject, QPersistentModelIndex, QRect, QSize, Qt
from PySide6.QtGui import QPainter
from PySide6.QtWidgets import QAbstractItemView, QStyledItemDelegate, QStyleOptionViewItem

from anlage.ui.kit.guard import guarded
from anlage.ui.kit.look import font
from anlage.ui.kit.reader import Reader

ITEM_ROLE = int(Qt.ItemDataRole.UserRole)  # what a row stands for


class RowText(NamedTuple):
    """A text of a row: its colour, whether it is small or strong, and at which side it stands."""

    text: str
    ink: str
    note: bool = False
    strong: bool = False
    right: bool = False


@guarded
class ListRow(QStyledItemDelegate):
    """Draws a row; a kind of row says how large it is and draws what stands in it."""

    def __init__(self, reader: Reader, size: QSize, parent: QObject) -> None:
        super().__init__(parent)
        self.reader, self._size = reader, size

    def sizeHint(self, option: QStyleOptionViewItem, index: QModelIndex | QPersistentModelIndex) -> QSize:
        return self._size

    def paint(
        self, painter: QPainter, option: QStyleOptionViewItem, index: QModelIndex | QPersistentModelIndex
    ) -> None:
        colour, rect, view = self.reader.look.colour, QRect(option.rect), self.parent()  # type: ignore[attr-defined]
        assert isinstance(view, QAbstractItemView)
        chosen = index == view.currentIndex()
        painter.save()
        painter.fillRect(rect, colour["ground" if chosen else "sheet"])
        painter.setPen(colour["line"])
        painter.drawLine(rect.bottomLeft(), rect.bottomRight())
        self.draw(painter, rect, index.data(ITEM_ROLE))
        if chosen and view.hasFocus():
            painter.setPen(colour["accent"])
            painter.setBrush(Qt.BrushStyle.NoBrush)
            painter.drawRect(rect.adjusted(0, 0, -1, -2))
        painter.restore()

    def draw(self, painter: QPainter, rect: QRect, item: Any) -> None:
        """Draw what stands in a row."""
        raise NotImplementedError

    def write(self, painter: QPainter, line: QRect, said: RowText) -> None:
        """Write a text into a line, cut short with dots where it has no room."""
        painter.setFont(font("note" if said.note else "body", strong=said.strong))
        painter.setPen(self.reader.look.colour[said.ink])
        shown = painter.fontMetrics().elidedText(said.text, Qt.TextElideMode.ElideRight, line.width())
        side = Qt.AlignmentFlag.AlignRight if said.right else Qt.AlignmentFlag.AlignLeft
        painter.drawText(line, int(side | Qt.AlignmentFlag.AlignVCenter), shown)
