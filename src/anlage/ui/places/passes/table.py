"""The pass table: rows of 26 px, ranges with a small bar, typing where the value stands."""

from collections.abc import Sequence
from functools import partial

from PySide6.QtCore import QEvent, QModelIndex, QObject, QPersistentModelIndex, QRect, QSize, Qt, Signal
from PySide6.QtGui import QColor, QGuiApplication, QKeyEvent, QKeySequence, QPainter, QPen
from PySide6.QtWidgets import (
    QAbstractItemDelegate,
    QAbstractItemView,
    QHeaderView,
    QSizePolicy,
    QStyledItemDelegate,
    QStyleOptionViewItem,
    QTableView,
    QWidget,
)

from anlage.core.procedure import with_pass
from anlage.session.leaves.draft import changed_to
from anlage.session.leaves.many import MOST_ADDED, as_tsv, copied_down, from_tsv, typed_in_all
from anlage.session.leaves.marks import without_marks
from anlage.session.leaves.table import field_of
from anlage.ui.kit.document import Document
from anlage.ui.kit.fields import ChoiceField, LeafField, field_for
from anlage.ui.kit.guard import guarded
from anlage.ui.places.passes.model import BAR, COLUMNS, ENERGY, MARK, WORKED_OUT, Index, PassModel, deposit_words
from anlage.ui.places.passes.selection import Selection

ROW_PX = 27
HEAD_PX = 28
NUMBERS_PX = 34
LEAST_ROWS, MOST_ROWS = 3, 8  # shown at once; more are scrolled


@guarded
class PassTable(QTableView):
    """All passes; the current row is the chosen pass. What cannot be pasted is `refused` in a sentence."""

    refused = Signal(str)

    def __init__(self, document: Document, selection: Selection) -> None:
        super().__init__()
        self.document, self.chosen = document, selection
        self.own_model = PassModel(document)
        self._most = MOST_ROWS
        self.setModel(self.own_model)
        self.setItemDelegate(_Delegate(document, self))
        self.setAccessibleName("Passes")
        self.setSelectionBehavior(QAbstractItemView.SelectionBehavior.SelectItems)
        self.setSelectionMode(QAbstractItemView.SelectionMode.ContiguousSelection)
        self.setEditTriggers(
            QAbstractItemView.EditTrigger.DoubleClicked
            | QAbstractItemView.EditTrigger.EditKeyPressed
            | QAbstractItemView.EditTrigger.AnyKeyPressed
        )
        numbers = self.verticalHeader()
        numbers.setDefaultSectionSize(ROW_PX)
        numbers.setFixedWidth(NUMBERS_PX)
        numbers.setDefaultAlignment(Qt.AlignmentFlag.AlignRight | Qt.AlignmentFlag.AlignVCenter)
        numbers.setHighlightSections(False)
        numbers.setSectionResizeMode(QHeaderView.ResizeMode.Fixed)
        head = self.horizontalHeader()
        head.setFixedHeight(HEAD_PX)
        head.setHighlightSections(False)
        head.setDefaultAlignment(Qt.AlignmentFlag.AlignLeft | Qt.AlignmentFlag.AlignVCenter)
        for place, column in enumerate(COLUMNS):
            self.setColumnWidth(place, column.width)
        head.setSectionResizeMode(len(COLUMNS) - 1, QHeaderView.ResizeMode.Stretch)
        self.setShowGrid(False)
        self.setTabKeyNavigation(False)
        self.selectionModel().currentChanged.connect(self._on_current_changed)
        selection.changed.connect(self._on_chosen)
        for rows_changed in (self.own_model.rowsInserted, self.own_model.rowsRemoved, self.own_model.layoutChanged):
            rows_changed.connect(self.updateGeometry)
        self.setSizePolicy(QSizePolicy.Policy.Expanding, QSizePolicy.Policy.Maximum)
        self._on_chosen()

    def sizeHint(self) -> QSize:
        shown = min(max(self.own_model.rowCount(), LEAST_ROWS), self._most)
        return QSize(600, HEAD_PX + ROW_PX * shown + 4)

    def show_at_most(self, rows: int) -> None:
        """Be no higher than so many rows; more are scrolled."""
        self._most = rows
        self.updateGeometry()

    def minimumSizeHint(self) -> QSize:
        return QSize(300, HEAD_PX + ROW_PX * LEAST_ROWS + 4)

    def keyPressEvent(self, event: QKeyEvent) -> None:
        if event.matches(QKeySequence.StandardKey.Copy):
            self.copy_cells()
            return
        if event.matches(QKeySequence.StandardKey.Paste):
            self.paste_cells()
            return
        if event.key() in (Qt.Key.Key_Return, Qt.Key.Key_Enter) and not event.modifiers():
            if self.state() != QAbstractItemView.State.EditingState and self.currentIndex().isValid():
                self.edit(self.currentIndex())
            return
        super().keyPressEvent(event)

    def selected(self) -> list[tuple[int, int]]:
        """Return the rows and columns of the cells that are selected, in their order."""
        return sorted((index.row(), index.column()) for index in self.selectionModel().selectedIndexes())

    def _own_paths(self, row: int, columns: Sequence[int]) -> list[str]:
        return [self.own_model.path(self.own_model.index(row, column)) for column in columns]

    def change_others(self, text: str, visit: object) -> None:
        """Type into the other selected cells of the current column what was typed into the current one."""
        current = self.currentIndex()
        rows = [row for row, column in self.selected() if column == current.column() and row != current.row()]
        paths = [path for row in rows for path in self._own_paths(row, [current.column()]) if path]
        if paths:
            working = typed_in_all(self.document.working, [(path, text) for path in paths], self.document.system)
            self.document.take(working, f"{field_of(paths[0]).label} of several passes", visit)

    def copy_down(self) -> None:
        """Copy the topmost selected value down the selection; of one cell to every pass below it."""
        cells = self.selected()
        if not cells or not self.document.can_write:
            return
        first = cells[0][0]
        last = cells[-1][0] if cells[-1][0] > first else self.own_model.rowCount() - 1
        working = self.document.working
        for column in sorted({column for _, column in cells}):
            paths = [path for row in range(first, last + 1) for path in self._own_paths(row, [column]) if path]
            if len(paths) > 1:
                working = copied_down(working, paths)
        self.document.take(working, "Copy down")

    def confirm(self) -> None:
        """Let the selected settings be the person's own that are only proposed; of one cell those of all passes."""
        value, cells = self.document.value, self.selected()
        chosen = {path for row, column in cells for path in self._own_paths(row, [column])}
        paths = chosen & value.proposed.keys() if len(cells) > 1 else {
            path for path in value.proposed if path.startswith("passes/")
        }  # fmt: skip
        self.document.edit(without_marks(value, paths), "Confirm what is proposed")

    def copy_cells(self) -> None:
        """Put the selected cells on the clipboard, a line a pass."""
        cells = self.selected()
        rows, columns = (sorted({cell[place] for cell in cells}) for place in (0, 1))
        texts = [[str(self.own_model.index(row, column).data() or "") for column in columns] for row in rows]
        if texts:
            QGuiApplication.clipboard().setText(as_tsv(texts))

    def paste_cells(self) -> None:
        """Type the cells of the clipboard from the current one on; what is worked out is left as it is."""
        current, rows = self.currentIndex(), from_tsv(QGuiApplication.clipboard().text())
        if not current.isValid() or not self.document.can_write or not any(any(row) for row in rows):
            return
        wps = self.document.value
        added = current.row() + len(rows) - len(wps.passes)
        if added > MOST_ADDED:
            self.refused.emit(f"{len(rows)} lines are on the clipboard, more than {MOST_ADDED} new passes: copy fewer.")
            return
        for _ in range(added):
            last = wps.passes[-1]
            wps, _own = with_pass(wps, last.deposit)
        working = changed_to(self.document.working, wps)
        texts = []
        for place, row in enumerate(rows):
            owner = wps.passes[current.row() + place].id
            for column, text in zip(COLUMNS[current.column() :], row, strict=False):
                if column.leaf and not (column.leaf in WORKED_OUT and text.startswith("(")):
                    texts.append((f"passes/{owner}/{column.leaf}", self._as_typed(column.leaf, text)))
        self.document.take(typed_in_all(working, texts, self.document.system), "Paste passes")

    def _as_typed(self, leaf: str, text: str) -> str:
        """Return what a text of the table means to its leaf: a deposit by its words is the deposit itself."""
        if leaf != "deposit":
            return text
        return next((each.id for each in self.document.value.deposits if deposit_words(each) == text), text)

    def edit_leaf(self, leaf: str) -> None:
        """Put the keyboard on a leaf of the chosen pass."""
        column = next(place for place, each in enumerate(COLUMNS) if each.leaf == leaf)
        if self.chosen.row >= 0:
            self.setFocus(Qt.FocusReason.ShortcutFocusReason)
            self.setCurrentIndex(self.own_model.index(self.chosen.row, column))

    def _on_current_changed(self, current: QModelIndex, _previous: QModelIndex) -> None:
        gone = self.chosen.pass_id and self.chosen.chosen is None  # just removed: the selection knows what follows
        if current.isValid() and not gone:
            self.chosen.choose(self.own_model.at(current).id)

    def _on_chosen(self) -> None:
        row, column = self.chosen.row, max(self.currentIndex().column(), 0)
        if 0 <= row < self.own_model.rowCount() and row != self.currentIndex().row():
            self.setCurrentIndex(self.own_model.index(row, column))
        self.viewport().update()  # the whole row of the chosen pass is marked, not its current cell alone


@guarded
class _Delegate(QStyledItemDelegate):
    def __init__(self, document: Document, parent: QObject) -> None:
        super().__init__(parent)
        self.document = document

    def createEditor(self, parent: QWidget, option: QStyleOptionViewItem, index: Index) -> QWidget:
        model = index.model()
        assert isinstance(model, PassModel)
        if COLUMNS[index.column()].leaf == "deposit":
            choices = [(deposit_words(each), each.id) for each in self.document.value.deposits]
            editor: ChoiceField | LeafField = ChoiceField(self.document, model.path(index), parent, choices)
        else:
            editor = field_for(self.document, model.path(index), parent)
        if isinstance(editor, ChoiceField):
            editor.activated.connect(partial(self._change_others, editor))
        return editor

    def _change_others(self, editor: ChoiceField | LeafField, *_chosen: object) -> None:
        table = self.parent()
        assert isinstance(table, PassTable)
        text = editor.text() if isinstance(editor, LeafField) else editor.currentData()
        table.change_others(text, editor.visit)

    def setEditorData(self, editor: QWidget, index: Index) -> None:
        """Leave the field alone: it is bound to its leaf and shows it already."""

    def setModelData(self, editor: QWidget, model: object, index: Index) -> None:
        """Leave the document alone: the field has taken over at every key what was typed."""

    def updateEditorGeometry(self, editor: QWidget, option: QStyleOptionViewItem, index: Index) -> None:
        editor.setGeometry(option.rect)  # type: ignore[attr-defined]

    def eventFilter(self, editor: QObject, event: QEvent) -> bool:
        if event.type() == QEvent.Type.KeyPress and isinstance(editor, LeafField):
            assert isinstance(event, QKeyEvent)
            if event.key() in (Qt.Key.Key_Return, Qt.Key.Key_Enter, Qt.Key.Key_Escape):
                if event.key() != Qt.Key.Key_Escape:
                    self._change_others(editor)
                editor.keyPressEvent(event)
                self.closeEditor.emit(editor, QAbstractItemDelegate.EndEditHint.NoHint)
                return True
        if event.type() == QEvent.Type.ShortcutOverride:
            return False
        return super().eventFilter(editor, event)

    def paint(self, painter: QPainter, option: QStyleOptionViewItem, index: Index) -> None:
        look = self.document.reader.look
        colour, rect = look.colour, QRect(option.rect)  # type: ignore[attr-defined]
        table = self.parent()
        assert isinstance(table, PassTable)
        current = table.currentIndex()
        chosen = index.row() == current.row()
        painter.save()
        painter.fillRect(rect, colour["ground"] if chosen else colour["sheet"])
        painter.setPen(colour["line"])
        painter.drawLine(rect.bottomLeft(), rect.bottomRight())
        mark = index.data(MARK)
        pending = mark == "pending"
        self._bar(painter, rect, index, colour["muted"])
        strong = index.column() == ENERGY
        painter.setPen(colour[{"pending": "outside", "proposed": "muted"}.get(mark, "ink")])
        if strong:
            face = painter.font()
            face.setWeight(face.Weight.DemiBold)
            painter.setFont(face)
        text_rect = rect.adjusted(7, 0, -7, -2)
        if whole := str(index.data() or ""):
            text = painter.fontMetrics().elidedText(whole, Qt.TextElideMode.ElideRight, text_rect.width())
            painter.drawText(text_rect, int(index.data(Qt.ItemDataRole.TextAlignmentRole)), text)
        selected = table.selectionModel().isSelected(QModelIndex(index)) and index != current
        if (index == current or selected) and table.hasFocus():
            painter.setPen(QPen(colour["accent"], 2 if index == current else 1))
            painter.drawRect(rect.adjusted(1, 1, -1, -2))
        elif pending:
            painter.setPen(QPen(colour["outside"], 1, Qt.PenStyle.DashLine))
            painter.drawRect(rect.adjusted(1, 1, -2, -2))
        painter.restore()

    def _bar(self, painter: QPainter, rect: QRect, index: QModelIndex | QPersistentModelIndex, ink: QColor) -> None:
        ends = index.data(BAR)
        if ends is None:
            return
        room, y = rect.width() - 14, rect.bottom() - 4
        left = rect.left() + 7 + round(ends[0] * room)
        width = max(round((ends[1] - ends[0]) * room), 3)
        faint = QColor(ink)
        faint.setAlpha(70)
        painter.fillRect(rect.left() + 7, y + 1, room, 1, faint)
        painter.fillRect(left, y, width, 3, ink)
