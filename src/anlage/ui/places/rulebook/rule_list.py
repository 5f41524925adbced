"""The rules in a list by clause, each with a box that is ticked where somebody checked it."""

from collections.abc import Sequence

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
from PySide6.QtGui import QPainter, QPen
from PySide6.QtWidgets import QListView, QStyledItemDelegate, QStyleOptionViewItem

from anlage.session.rulebook.entries import RuleEntry
from anlage.ui.kit.guard import guarded
from anlage.ui.kit.look import font
from anlage.ui.kit.reader import Reader

ROW_PX, BOX_PX, LIST_PX = 44, 11, 400
ENTRY_ROLE = int(Qt.ItemDataRole.UserRole)


def state_of(entry: RuleEntry) -> str:
    """Return in few words what somebody did with a rule."""
    said = ["corrected"] if entry.overlay else []
    said += ["checked" if entry.checks else "not checked"]
    return ", ".join(said)


@guarded
class RuleModel(QAbstractListModel):
    """The rules that the filters let through."""

    def __init__(self) -> None:
        super().__init__()
        self.entries: Sequence[RuleEntry] = ()

    def rowCount(self, parent: QModelIndex | QPersistentModelIndex = QModelIndex()) -> int:
        return 0 if parent.isValid() else len(self.entries)

    def data(self, index: QModelIndex | QPersistentModelIndex, role: int = Qt.ItemDataRole.DisplayRole) -> object:
        if not index.isValid():
            return None
        entry = self.entries[index.row()]
        if role == Qt.ItemDataRole.DisplayRole:
            return f"{entry.clause} {entry.title}"
        if role in (Qt.ItemDataRole.AccessibleTextRole, Qt.ItemDataRole.ToolTipRole):
            return f"{entry.clause}: {entry.title}. {state_of(entry)}, confidence {entry.confidence}"
        return entry if role == ENTRY_ROLE else None

    def show_entries(self, entries: Sequence[RuleEntry]) -> None:
        """Show other rules; where they are the same in the same order, the view keeps its place."""
        same = [each.id for each in entries] == [each.id for each in self.entries]
        if not same:
            self.beginResetModel()
        self.entries = entries
        if not same:
            self.endResetModel()
        elif entries:
            self.dataChanged.emit(self.index(0), self.index(len(entries) - 1))

    def row_of(self, rule: str) -> int:
        """Return the row of a rule; -1 where it is not shown."""
        return next((row for row, each in enumerate(self.entries) if each.id == rule), -1)


@guarded
class RuleDelegate(QStyledItemDelegate):
    """Draws a rule: its box, clause and title; category, doubt and correction at the right."""

    def __init__(self, reader: Reader, parent: QObject) -> None:
        super().__init__(parent)
        self.reader = reader

    def sizeHint(self, option: QStyleOptionViewItem, index: QModelIndex | QPersistentModelIndex) -> QSize:
        return QSize(LIST_PX - 24, ROW_PX)

    def paint(
        self, painter: QPainter, option: QStyleOptionViewItem, index: QModelIndex | QPersistentModelIndex
    ) -> None:
        entry: RuleEntry = index.data(ENTRY_ROLE)
        colour, rect, view = self.reader.look.colour, QRect(option.rect), self.parent()  # type: ignore[attr-defined]
        assert isinstance(view, QListView)
        chosen = index == view.currentIndex()
        painter.save()
        painter.fillRect(rect, colour["ground" if chosen else "sheet"])
        painter.setPen(colour["line"])
        painter.drawLine(rect.bottomLeft(), rect.bottomRight())
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        box = QRectF(rect.left() + 10.5, rect.top() + 8.5, BOX_PX, BOX_PX)
        painter.setPen(QPen(colour["ink" if entry.checks else "edge"], 1.2))
        painter.drawRect(box)
        if entry.checks:
            painter.setPen(QPen(colour["ink"], 2))
            corners = ((0.2, 0.5), (0.45, 0.78), (0.85, 0.15))
            points = [QPointF(box.left() + x * BOX_PX, box.top() + y * BOX_PX) for x, y in corners]
            painter.drawPolyline(points)
        room = rect.adjusted(30, 4, -10, -4)
        left, right = int(Qt.AlignmentFlag.AlignLeft), int(Qt.AlignmentFlag.AlignRight)
        half = room.height() // 2
        doubt = "" if entry.confidence == "H" else f"  {entry.confidence}"
        lines = (
            (entry.category, "muted", right, 0, False, 0.4), (entry.clause, "ink", left, 0, True, 0.6),
            (f"{'corrected' if entry.overlay else ''}{doubt}".strip(), "unproven", right, 1, True, 0.3),
            (entry.title, "ink", left, 1, False, 0.78 if entry.overlay or doubt else 1.0),
        )  # fmt: skip
        for text, ink, side, place, strong, share in lines:
            width = round(room.width() * share)
            x = room.left() if side == left else room.right() - width
            line = QRect(x, room.top() + place * half, width, half)
            painter.setFont(font("note" if side == right else "body", strong=strong))
            painter.setPen(colour[ink])
            shown = painter.fontMetrics().elidedText(text, Qt.TextElideMode.ElideRight, line.width())
            painter.drawText(line, side | int(Qt.AlignmentFlag.AlignVCenter), shown)
        if chosen and view.hasFocus():
            painter.setPen(colour["accent"])
            painter.setBrush(Qt.BrushStyle.NoBrush)
            painter.drawRect(rect.adjusted(0, 0, -1, -2))
        painter.restore()
