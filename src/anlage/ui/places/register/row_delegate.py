"""How a document stands in the list: mark, number, state, title, verdict."""

from PySide6.QtCore import QModelIndex, QObject, QPersistentModelIndex, QRect, QRectF, QSize, Qt
from PySide6.QtGui import QPainter
from PySide6.QtWidgets import (
    QListWidget,
    QStyledItemDelegate,
    QStyleOptionViewItem,
)

from anlage.session.works.register import RegisterRow
from anlage.ui.kit.guard import guarded
from anlage.ui.kit.look import font
from anlage.ui.kit.marks import MARK_PX, draw_mark
from anlage.ui.kit.reader import Reader

LIST_PX, ROW_PX = 356, 58
ROW_ROLE = int(Qt.ItemDataRole.UserRole)


@guarded
class RowDelegate(QStyledItemDelegate):
    """Draws a document of the list: mark, number and state, title, verdict in words."""

    def __init__(self, reader: Reader, parent: QObject) -> None:
        super().__init__(parent)
        self.reader = reader

    def sizeHint(self, option: QStyleOptionViewItem, index: QModelIndex | QPersistentModelIndex) -> QSize:
        return QSize(LIST_PX - 20, ROW_PX)

    def paint(
        self, painter: QPainter, option: QStyleOptionViewItem, index: QModelIndex | QPersistentModelIndex
    ) -> None:
        row: RegisterRow = index.data(ROW_ROLE)
        colour, rect, view = self.reader.look.colour, QRect(option.rect), self.parent()  # type: ignore[attr-defined]
        assert isinstance(view, QListWidget)
        chosen = index == view.currentIndex()
        painter.save()
        painter.fillRect(rect, colour["ground" if chosen else "sheet"])
        painter.setPen(colour["line"])
        painter.drawLine(rect.bottomLeft(), rect.bottomRight())
        if row.verdict:
            mark = QRectF(rect.left() + 10, rect.top() + 10, MARK_PX, MARK_PX)
            draw_mark(painter, mark, row.verdict, colour[row.verdict])
        room = rect.adjusted(30, 5, -10, -5)
        left, right = int(Qt.AlignmentFlag.AlignLeft), int(Qt.AlignmentFlag.AlignRight)
        third = room.height() // 3
        lines = (
            (row.number, "ink", True, left, 0), (row.state, "muted", False, right, 0),
            (row.title, "ink", False, left, 1), (row.said, "muted", False, left, 2),
        )  # fmt: skip
        for text, ink, strong, side, place in lines:
            line = QRect(room.left(), room.top() + place * third, room.width(), third + 2)
            painter.setFont(font("note" if place == 2 else "body", strong=strong))
            painter.setPen(colour[ink])
            shown = painter.fontMetrics().elidedText(text, Qt.TextElideMode.ElideRight, line.width())
            painter.drawText(line, side | int(Qt.AlignmentFlag.AlignVCenter), shown)
        if chosen and view.hasFocus():
            painter.setPen(colour["accent"])
            painter.setBrush(Qt.BrushStyle.NoBrush)
            painter.drawRect(rect.adjusted(0, 0, -1, -2))
        painter.restore()
