"""The ladder: rungs by section, allowed band over stated band, words as boxes, verdict and clause."""

from collections.abc import Sequence
from typing import NamedTuple

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
    Signal,
)
from PySide6.QtGui import QFont, QKeyEvent, QPainter, QPen
from PySide6.QtWidgets import (
    QListView,
    QStyledItemDelegate,
    QStyleOptionViewItem,
)

from anlage.core.drawing.rung import rung as rung_picture
from anlage.core.drawing.token_rung import token_rung, tokens_of_rung
from anlage.session.judging.ladder import Line
from anlage.session.leaves.set_text import word_of
from anlage.ui.kit.document import Document
from anlage.ui.kit.guard import guarded
from anlage.ui.kit.look import PX_PER_MM, font, measure
from anlage.ui.kit.marks import MARK_PX, draw_mark
from anlage.ui.picture.painter import Placed, paint

ROW_PX, HEAD_PX = 44, 30
NAME_PX, WORD_PX, CLAUSE_PX, INDENT_PX = 184, 92, 100, 16  # columns of a rung; bands and texts share the rest
NARROW_PX = 640
LINE_ROLE = int(Qt.ItemDataRole.UserRole)
HEAD_ROLE, FOLLOWS_ROLE = LINE_ROLE + 1, LINE_ROLE + 2


class Section(NamedTuple):
    """A part of the ladder: its key, its title, its rungs, and whether they are folded away."""

    key: str
    title: str
    lines: Sequence[Line]
    folded: bool = False


@guarded
class LadderModel(QAbstractListModel):
    """The rungs of the open procedure by section; `lines` are all of them, folded away or not."""

    def __init__(self) -> None:
        super().__init__()
        self.sections: Sequence[Section] = ()
        self._rows: list[Section | Line] = []

    @property
    def lines(self) -> tuple[Line, ...]:
        """Every rung, in the order of the sections."""
        return tuple(line for section in self.sections for line in section.lines)

    def rowCount(self, parent: QModelIndex | QPersistentModelIndex = QModelIndex()) -> int:
        return 0 if parent.isValid() else len(self._rows)

    def row_of(self, rung_key: str) -> int:
        """Return the row of a rung; -1 where it is not shown."""
        rows = ((row, each) for row, each in enumerate(self._rows) if isinstance(each, Line))
        return next((row for row, line in rows if line.rung.key == rung_key), -1)

    def line_at(self, row: int) -> Line | None:
        """Return the rung of a row; `None` for the head of a section."""
        each = self._rows[row] if 0 <= row < len(self._rows) else None
        return each if isinstance(each, Line) else None

    def section_at(self, row: int) -> Section | None:
        """Return the section that a row is in, or is the head of."""
        heads = [each for each in self._rows[: row + 1] if isinstance(each, Section)]
        return heads[-1] if heads else None

    def data(self, index: QModelIndex | QPersistentModelIndex, role: int = Qt.ItemDataRole.DisplayRole) -> object:
        if not index.isValid():
            return None
        each = self._rows[index.row()]
        if isinstance(each, Section):
            said = f"{each.title}, {len(each.lines)}, {'folded' if each.folded else 'unfolded'}"
            texts = (Qt.ItemDataRole.DisplayRole, Qt.ItemDataRole.AccessibleTextRole)
            return said if role in texts else each if role == HEAD_ROLE else None
        if role == Qt.ItemDataRole.DisplayRole:
            return each.title
        if role == Qt.ItemDataRole.AccessibleTextRole:
            return f"{each.title}: {each.rung.verdict}. {each.reason}"
        if role == Qt.ItemDataRole.ToolTipRole:
            return f"{each.reason} {each.mend}".strip()
        return {LINE_ROLE: each, FOLLOWS_ROLE: self._follows(index.row())}.get(role)

    def _follows(self, row: int) -> bool:
        """Return whether a rung is of the same variable as the one over it, of another deposit or by another code."""
        own, before = self.line_at(row), self.line_at(row - 1)
        if own is None or before is None:
            return False
        return own.rung.id == before.rung.id if own.by else own.rung.variable == before.rung.variable

    def show_sections(self, found: Sequence[Section]) -> None:
        """Show other rungs; where they are the same variables in the same order, the view keeps its place."""
        rows: list[Section | Line] = []
        for section in found:
            rows += [section, *(() if section.folded else section.lines)]
        same = [_name(each) for each in rows] == [_name(each) for each in self._rows]
        if not same:
            self.beginResetModel()
        self.sections, self._rows = found, rows
        if not same:
            self.endResetModel()
        elif rows:
            self.dataChanged.emit(self.index(0), self.index(len(rows) - 1))


def _name(each: Section | Line) -> str:
    return f"section {each.key}" if isinstance(each, Section) else each.rung.key


@guarded
class LadderView(QListView):
    """The ladder as a list whose sections fold, by mouse and by key.

    Signals
    -------
    fold_asked(key, folded) : the person wants a section folded away, or shown
    """

    fold_asked = Signal(str, bool)

    def __init__(self) -> None:
        super().__init__()
        self.clicked.connect(self._on_clicked)

    def _on_clicked(self, index: QModelIndex) -> None:
        head: Section | None = index.data(HEAD_ROLE)
        if head is not None:
            self.fold_asked.emit(head.key, not head.folded)

    def keyPressEvent(self, event: QKeyEvent) -> None:
        """Fold the section in hand with Left, show it with Right; Space and Enter on its head do either."""
        model, row, key = self.model(), self.currentIndex().row(), event.key()
        assert isinstance(model, LadderModel)
        section, on_head = model.section_at(row), model.line_at(row) is None
        if section is None or event.modifiers():
            super().keyPressEvent(event)
        elif key == Qt.Key.Key_Left and not section.folded:
            self.fold_asked.emit(section.key, True)  # noqa: FBT003 - folded
        elif key == Qt.Key.Key_Right and section.folded:
            self.fold_asked.emit(section.key, False)  # noqa: FBT003 - not folded
        elif on_head and key in (Qt.Key.Key_Space, Qt.Key.Key_Return, Qt.Key.Key_Enter):
            self.fold_asked.emit(section.key, not section.folded)
        else:
            super().keyPressEvent(event)


@guarded
class RungDelegate(QStyledItemDelegate):
    """Draws a rung: its name, its bands or words with their texts, verdict and clause; and the heads of sections."""

    def __init__(self, document: Document, parent: QObject) -> None:
        super().__init__(parent)
        self.document = document

    def sizeHint(self, option: QStyleOptionViewItem, index: QModelIndex | QPersistentModelIndex) -> QSize:
        return QSize(400, HEAD_PX if index.data(HEAD_ROLE) is not None else ROW_PX)

    def paint(
        self, painter: QPainter, option: QStyleOptionViewItem, index: QModelIndex | QPersistentModelIndex
    ) -> None:
        rect, view = QRect(option.rect), self.parent()  # type: ignore[attr-defined]
        assert isinstance(view, QListView)
        chosen, colour = index == view.currentIndex(), self.document.reader.look.colour
        painter.save()
        head: Section | None = index.data(HEAD_ROLE)
        if head is not None:
            self._head(painter, rect, head)
        else:
            self._rung(painter, rect, index, chosen=chosen)
        if chosen and view.hasFocus():
            painter.setBrush(Qt.BrushStyle.NoBrush)
            painter.setPen(colour["accent"])
            painter.drawRect(rect.adjusted(0, 0, -1, -2))
        painter.restore()

    def _head(self, painter: QPainter, rect: QRect, head: Section) -> None:
        colour = self.document.reader.look.colour
        painter.fillRect(rect, colour["ground"])
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        x, y = rect.left() + 14.0, rect.center().y() + 0.5
        corners = [(-3, -4), (2, 0), (-3, 4)] if head.folded else [(-4, -2), (0, 3), (4, -2)]
        painter.setPen(QPen(colour["muted"], 1.6))
        painter.drawPolyline([QPointF(x + dx, y + dy) for dx, dy in corners])
        painter.setPen(colour["ink"])
        _text(painter, rect.adjusted(26, 0, -60, 0), head.title, font("body", strong=True))
        painter.setPen(colour["muted"])
        painter.setFont(font("note"))
        right = int(Qt.AlignmentFlag.AlignVCenter | Qt.AlignmentFlag.AlignRight)
        painter.drawText(rect.adjusted(0, 0, -10, 0), right, f"{len(head.lines)}")

    def _rung(
        self, painter: QPainter, rect: QRect, index: QModelIndex | QPersistentModelIndex, *, chosen: bool
    ) -> None:
        line: Line = index.data(LINE_ROLE)
        look, follows = self.document.reader.look, index.data(FOLLOWS_ROLE)
        painter.fillRect(rect, look.colour["ground" if chosen else "sheet"])
        if not follows:
            painter.setPen(look.colour["line"])
            painter.drawLine(rect.topLeft(), rect.topRight())
        room = rect.adjusted(10, 0, -10, -1)
        name = QRect(room.left(), room.top(), NAME_PX, room.height())
        clause = QRect(room.right() - CLAUSE_PX, room.top(), CLAUSE_PX, room.height())
        word = QRect(clause.left() - WORD_PX - 8, room.top(), WORD_PX, room.height())
        if room.width() < NARROW_PX:  # the clause stands in the panel too; the bands need the room
            clause = QRect()
            word.moveRight(room.right())
        bands = QRect(name.right() + 10, room.top(), word.left() - name.right() - 26, room.height())
        painter.setPen(look.colour["muted" if follows and not line.is_problem else "ink"])
        self._name(painter, name, line, follows=follows)
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

    def _name(self, painter: QPainter, room: QRect, line: Line, *, follows: bool) -> None:
        """Write what a rung is of; of several codes the code under it."""
        body = font("body", strong=line.is_problem)
        if not line.by:
            shown = line.rung.label if follows else line.title
            _text(painter, room.adjusted(INDENT_PX if follows else 0, 0, 0, 0), shown, body)
            return
        upper, lower = QRect(room), QRect(room)
        upper.setBottom(room.center().y() + 1)
        lower.setTop(room.center().y())
        if not follows:
            _text(painter, upper, line.title, body)
        painter.setPen(self.document.reader.look.colour["muted"])
        _text(painter, room.adjusted(INDENT_PX, 0, 0, 0) if follows else lower.adjusted(INDENT_PX, 0, 0, 0), line.by,
              font("note", strong=line.is_problem))  # fmt: skip

    def _bands(self, painter: QPainter, room: QRect, line: Line) -> None:
        """Draw bands on their scale, allowed over stated, with their texts at the right; of words the boxes alone."""
        look, rung = self.document.reader.look, line.rung
        words = tokens_of_rung(rung.stated, rung.sure, rung.possible, lambda token: word_of(rung.variable, token))
        if any(each.stated for each in words) or (words and rung.stated is None):
            picture = token_rung(words, rung.sure, room.width() / PX_PER_MM, measure)
            corner = QPointF(room.left(), room.center().y() + picture.high[1] * PX_PER_MM / 2)
            paint(Placed(picture, corner, PX_PER_MM), painter, look)
            return
        width = max(room.width() * 0.46, 60.0)
        bands = rung_picture(rung.stated, rung.sure, rung.possible, width / PX_PER_MM)
        texts = QRect(room)
        if bands is not None:
            corner = QPointF(room.left(), room.center().y() + bands.high[1] * PX_PER_MM / 2)
            paint(Placed(bands, corner, PX_PER_MM), painter, look)
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
