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

from anlage.session.rulebook.entries import RuleEntry
from anlage.ui.kit.guard import guarded
from anlage.ui.kit.list_row import ITEM_ROLE, ListRow, RowText
from anlage.ui.kit.reader import Reader

ROW_PX, BOX_PX, LIST_PX = 44, 11, 400


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
        return entry if role == ITEM_ROLE else None

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
class RuleDelegate(ListRow):
    """Draws a rule: its box, clause and title; category, doubt and correction at the right."""

    def __init__(self, reader: Reader, parent: QObject) -> None:
        super().__init__(reader, QSize(LIST_PX - 24, ROW_PX), parent)

    def draw(self, painter: QPainter, rect: QRect, item: RuleEntry) -> None:
        """Draw a rule."""
        colour = self.reader.look.colour
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        box = QRectF(rect.left() + 10.5, rect.top() + 8.5, BOX_PX, BOX_PX)
        painter.setPen(QPen(colour["ink" if item.checks else "edge"], 1.2))
        painter.drawRect(box)
        if item.checks:
            painter.setPen(QPen(colour["ink"], 2))
            corners = ((0.2, 0.5), (0.45, 0.78), (0.85, 0.15))
            painter.drawPolyline([QPointF(box.left() + x * BOX_PX, box.top() + y * BOX_PX) for x, y in corners])
        room = rect.adjusted(30, 4, -10, -4)
        doubt = "" if item.confidence == "H" else f"  {item.confidence}"
        marks = f"{'corrected' if item.overlay else ''}{doubt}".strip()
        upper, lower = ((room.top() + n * (room.height() // 2), room.height() // 2) for n in range(2))

        def line(place: tuple[int, int], share: float, *, right: bool = False) -> QRect:
            width = round(room.width() * share)
            return QRect(room.right() - width if right else room.left(), place[0], width, place[1])

        texts = (
            (line(upper, 0.4, right=True), RowText(item.category, "muted", note=True, right=True)),
            (line(upper, 0.6), RowText(item.clause, "ink", strong=True)),
            (line(lower, 0.3, right=True), RowText(marks, "unproven", note=True, strong=True, right=True)),
            (line(lower, 0.78 if marks else 1.0), RowText(item.title, "ink")),
        )
        for where, said in texts:
            self.write(painter, where, said)
