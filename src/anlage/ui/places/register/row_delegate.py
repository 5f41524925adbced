"""How a document stands in the list: mark, number, state, title, verdict."""

from PySide6.QtCore import QObject, QRect, QRectF, QSize
from PySide6.QtGui import QPainter

from anlage.session.works.register import RegisterRow
from anlage.ui.kit.guard import guarded
from anlage.ui.kit.list_row import ListRow, RowText
from anlage.ui.kit.marks import MARK_PX, draw_mark
from anlage.ui.kit.reader import Reader

LIST_PX, ROW_PX = 356, 58


@guarded
class RowDelegate(ListRow):
    """Draws a document of the list: mark, number and state, title, verdict in words."""

    def __init__(self, reader: Reader, parent: QObject) -> None:
        super().__init__(reader, QSize(LIST_PX - 20, ROW_PX), parent)

    def draw(self, painter: QPainter, rect: QRect, item: RegisterRow) -> None:
        """Draw a document."""
        if item.verdict:
            mark = QRectF(rect.left() + 10, rect.top() + 10, MARK_PX, MARK_PX)
            draw_mark(painter, mark, item.verdict, self.reader.look.colour[item.verdict])
        room = rect.adjusted(30, 5, -10, -5)
        third = room.height() // 3
        first, second, last = (QRect(room.left(), room.top() + n * third, room.width(), third + 2) for n in range(3))
        self.write(painter, first, RowText(item.number, "ink", strong=True))
        self.write(painter, first, RowText(item.state, "muted", right=True))
        self.write(painter, second, RowText(item.title, "ink"))
        self.write(painter, last, RowText(item.said, "muted", note=True))
