"""The search palette: every command, place, document and field by a few letters of its name."""

from collections.abc import Callable, Sequence

from msgspec import Struct
from PySide6.QtCore import QEvent, QModelIndex, QObject, QPersistentModelIndex, QRect, Qt
from PySide6.QtGui import QKeyEvent, QPainter
from PySide6.QtWidgets import (
    QFrame,
    QListWidget,
    QListWidgetItem,
    QStyledItemDelegate,
    QStyleOptionViewItem,
    QVBoxLayout,
    QWidget,
)

from anlage.ui.kit.guard import guarded
from anlage.ui.kit.text_line import TextLine

WIDTH_PX, SHOWN = 560, 12


class Entry(Struct, frozen=True):
    """One thing that can be done or gone to."""

    text: str
    note: str
    do: Callable[[], object]
    words: str = ""  # not shown: others that people look for it by


@guarded
class _Lines(QStyledItemDelegate):
    """Draws the note of an entry, such as its shortcut, at the right end of its line."""

    def paint(
        self, painter: QPainter, option: QStyleOptionViewItem, index: QModelIndex | QPersistentModelIndex
    ) -> None:
        super().paint(painter, option, index)
        entry: Entry = index.data(Qt.ItemDataRole.UserRole)
        rect = QRect(option.rect).adjusted(0, 0, -10, 0)  # type: ignore[attr-defined]
        painter.save()
        painter.setPen(option.palette.placeholderText().color())  # type: ignore[attr-defined]
        painter.drawText(rect, int(Qt.AlignmentFlag.AlignRight | Qt.AlignmentFlag.AlignVCenter), entry.note)
        painter.restore()


@guarded
class Palette(QFrame):
    """A line to type in and the list of what matches, best first."""

    def __init__(self, parent: QWidget) -> None:
        super().__init__(parent, objectName="floating")
        self._entries: Sequence[Entry] = ()
        self.line, self.list = TextLine(), QListWidget()
        self.line.setPlaceholderText("Command, place, procedure or field")
        self.line.setAccessibleName("Find a command, place, procedure or field")
        self.list.setItemDelegate(_Lines(self.list))
        self.list.setFocusPolicy(Qt.FocusPolicy.NoFocus)
        column = QVBoxLayout(self)
        column.setContentsMargins(8, 8, 8, 8)
        column.addWidget(self.line)
        column.addWidget(self.list)
        self.line.textChanged.connect(self._on_text)
        self.line.installEventFilter(self)
        self.list.itemClicked.connect(self._on_item)
        self.hide()

    def ask(self, entries: Sequence[Entry]) -> None:
        """Show the palette over everything that can be done now."""
        self._entries = entries
        parent = self.parentWidget()
        assert parent is not None
        self.setFixedWidth(min(WIDTH_PX, parent.width() - 40))
        self.move((parent.width() - self.width()) // 2, 52)
        self.line.clear()
        self._on_text("")
        self.show()
        self.raise_()
        self.line.setFocus(Qt.FocusReason.PopupFocusReason)

    def _on_text(self, text: str) -> None:
        self.list.clear()
        found = matching(self._entries, text)[:SHOWN]
        for entry in found:
            item = QListWidgetItem(entry.text)
            item.setData(Qt.ItemDataRole.UserRole, entry)
            self.list.addItem(item)
        self.list.setCurrentRow(0)
        self.list.setFixedHeight(max(len(found), 1) * (self.list.sizeHintForRow(0) if found else 30) + 6)
        self.adjustSize()

    def eventFilter(self, watched: QObject, event: QEvent) -> bool:
        if event.type() == QEvent.Type.FocusOut and self.isVisible():
            self.hide()
        if event.type() != QEvent.Type.KeyPress:
            return False
        assert isinstance(event, QKeyEvent)
        if event.key() in (Qt.Key.Key_Down, Qt.Key.Key_Up):
            step = 1 if event.key() == Qt.Key.Key_Down else -1
            self.list.setCurrentRow((self.list.currentRow() + step) % max(self.list.count(), 1))
        elif event.key() in (Qt.Key.Key_Return, Qt.Key.Key_Enter):
            self._on_item(self.list.currentItem())
        elif event.key() == Qt.Key.Key_Escape:
            self._put_away()
        else:
            return False
        return True

    def _on_item(self, item: QListWidgetItem | None) -> None:
        if item is not None:
            entry: Entry = item.data(Qt.ItemDataRole.UserRole)
            self._put_away()
            entry.do()

    def _put_away(self) -> None:
        self.hide()
        parent = self.parentWidget()
        assert parent is not None
        parent.setFocus(Qt.FocusReason.OtherFocusReason)


def matching(entries: Sequence[Entry], text: str) -> list[Entry]:
    """Return the entries that hold every word of a text; those whose name starts with it first."""
    words = text.casefold().split()
    found = [
        each for each in entries if all(word in f"{each.text} {each.note} {each.words}".casefold() for word in words)
    ]
    return sorted(found, key=lambda each: not each.text.casefold().startswith(text.strip().casefold()))
