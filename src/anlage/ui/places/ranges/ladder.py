"""The ladder: one rung a variable, allowed band over stated band, verdict and clause."""

from PySide6.QtCore import (
    QAbstractListModel,
    QModelIndex,
    QObject,
    QPersistentModelIndex,
    QPointF,
    QRect,
    QRectF,
    QSize,
    Qt,
)
from PySide6.QtGui import QFont, QPainter
from PySide6.QtWidgets import (
    QListView,
    QStyledItemDelegate,
    QStyleOptionViewItem,
)

from anlage.core.drawing import rung as rung_picture
from anlage.session.judging.ladder import Line
from anlage.ui.kit.document import Document
from anlage.ui.kit.guard import guarded
from anlage.ui.kit.look import PX_PER_MM, font
from anlage.ui.kit.marks import MARK_PX, draw_mark
from anlage.ui.picture.painter import Placed, paint

ROW_PX = 44
NAME_PX, WORD_PX, CLAUSE_PX = 184, 92, 100  # columns of a rung; bands and texts share the rest
NARROW_PX = 640
LINE_ROLE = int(Qt.ItemDataRole.UserRole)


@guarded
class LadderModel(QAbstractListModel):
    """The rungs of the open procedure, problems first."""

    def __init__(self) -> None:
        super().__init__()
        self.lines: tuple[Line, ...] = ()

    def rowCount(self, parent: QModelIndex | QPersistentModelIndex = QModelIndex()) -> int:
        return 0 if parent.isValid() else len(self.lines)

    def data(self, index: QModelIndex | QPersistentModelIndex, role: int = Qt.ItemDataRole.DisplayRole) -> object:
        if not index.isValid():
            return None
        line = self.lines[index.row()]
        if role == Qt.ItemDataRole.DisplayRole:
            return line.title
        if role == Qt.ItemDataRole.AccessibleTextRole:
            return f"{line.title}: {line.rung.verdict}. {line.reason}"
        if role == Qt.ItemDataRole.ToolTipRole:
            return f"{line.reason} {line.mend}".strip()
        return line if role == LINE_ROLE else None

    def show_lines(self, found: tuple[Line, ...]) -> None:
        """Show other rungs; where they are the same variables in the same order, the view keeps its place."""
        if [line.rung.id for line in found] == [line.rung.id for line in self.lines]:
            self.lines = found
            if found:
                self.dataChanged.emit(self.index(0), self.index(len(found) - 1))
            return
        self.beginResetModel()
        self.lines = found
        self.endResetModel()


@guarded
class RungDelegate(QStyledItemDelegate):
    """Draws a rung: its name, its bands with their texts, verdict and clause."""

    def __init__(self, document: Document, parent: QObject) -> None:
        super().__init__(parent)
        self.document = document

    def sizeHint(self, option: QStyleOptionViewItem, index: QModelIndex | QPersistentModelIndex) -> QSize:
        return QSize(400, ROW_PX)

    def paint(
        self, painter: QPainter, option: QStyleOptionViewItem, index: QModelIndex | QPersistentModelIndex
    ) -> None:
        line: Line = index.data(LINE_ROLE)
        look, rect, view = self.document.reader.look, QRect(option.rect), self.parent()  # type: ignore[attr-defined]
        assert isinstance(view, QListView)
        chosen = index == view.currentIndex()
        painter.save()
        painter.fillRect(rect, look.colour["ground" if chosen else "sheet"])
        painter.setPen(look.colour["line"])
        painter.drawLine(rect.bottomLeft(), rect.bottomRight())
        room = rect.adjusted(10, 0, -10, -1)
        name = QRect(room.left(), room.top(), NAME_PX, room.height())
        clause = QRect(room.right() - CLAUSE_PX, room.top(), CLAUSE_PX, room.height())
        word = QRect(clause.left() - WORD_PX - 8, room.top(), WORD_PX, room.height())
        if room.width() < NARROW_PX:  # the clause stands in the panel too; the bands need the room
            clause = QRect()
            word.moveRight(room.right())
        bands = QRect(name.right() + 10, room.top(), word.left() - name.right() - 26, room.height())
        painter.setPen(look.colour["ink"])
        _text(painter, name, line.title, font("body", strong=line.is_problem))
        self._bands(painter, bands, line)
        colour = look.colour[line.rung.verdict]
        mark = QRectF(word.left(), word.center().y() - MARK_PX / 2, MARK_PX, MARK_PX)
        draw_mark(painter, mark, line.rung.verdict, colour)
        painter.setPen(colour)
        _text(painter, word.adjusted(MARK_PX + 6, 0, 0, 0), line.rung.verdict, font())
        painter.setPen(look.colour["muted"])
        doubt = "" if line.rung.confidence == "H" else f"  {line.rung.confidence}"
        if not clause.isNull():
            _text(painter, clause, f"{line.rung.clause}{doubt}", font("note"))
        if chosen and view.hasFocus():
            painter.setBrush(Qt.BrushStyle.NoBrush)
            painter.setPen(look.colour["accent"])
            painter.drawRect(rect.adjusted(0, 0, -1, -2))
        painter.restore()

    def _bands(self, painter: QPainter, room: QRect, line: Line) -> None:
        """Draw the bands on their scale, allowed over stated, with their texts at the right; texts alone for words."""
        look, rung = self.document.reader.look, line.rung
        width = max(room.width() * 0.46, 60.0)
        picture = rung_picture(rung.stated, rung.sure, rung.possible, width / PX_PER_MM)
        texts = QRect(room)
        if picture is not None:
            corner = QPointF(room.left(), room.center().y() + picture.high[1] * PX_PER_MM / 2)
            paint(Placed(picture, corner, PX_PER_MM), painter, look)
            texts.setLeft(round(room.left() + width + 12))
        upper, lower = QRect(texts), QRect(texts)
        upper.setBottom(texts.center().y() + 1)
        lower.setTop(texts.center().y())
        painter.setPen(look.colour["muted"])
        _text(painter, upper, f"allowed {line.allowed}", font("note"))
        painter.setPen(look.colour["ink"])
        _text(painter, lower, line.stated if line.stated == "not stated" else f"stated {line.stated}", font("note"))


def _text(painter: QPainter, rect: QRect, text: str, face: QFont) -> None:
    painter.setFont(face)
    shown = painter.fontMetrics().elidedText(text, Qt.TextElideMode.ElideRight, rect.width())
    painter.drawText(rect, int(Qt.AlignmentFlag.AlignVCenter | Qt.AlignmentFlag.AlignLeft), shown)
