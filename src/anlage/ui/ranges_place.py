"""The Ranges place: is it allowed, by which record and clause? The ladder, and beside it the chosen rung."""

from collections.abc import Callable

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
from PySide6.QtGui import QFont, QPainter, QShowEvent
from PySide6.QtWidgets import (
    QAbstractItemView,
    QFrame,
    QHBoxLayout,
    QLabel,
    QListView,
    QPushButton,
    QStyledItemDelegate,
    QStyleOptionViewItem,
    QVBoxLayout,
    QWidget,
)

from anlage.core.drawing import rung as rung_picture
from anlage.session.judging.assessment import Proof
from anlage.session.judging.ladder import Line, lines, support_sentences
from anlage.session.leaves.table import field_of
from anlage.ui.document import Document
from anlage.ui.fields import Complaint, ListBox, Unit, field_for
from anlage.ui.homes import home_of
from anlage.ui.look import PX_PER_MM, font
from anlage.ui.marks import MARK_PX, draw_mark
from anlage.ui.painter import Placed, paint

ROW_PX = 44
NAME_PX, WORD_PX, CLAUSE_PX = 184, 92, 100  # columns of a rung; bands and texts share the rest
PANEL_PX = 320
NARROW_PX = 640
LINE_ROLE = int(Qt.ItemDataRole.UserRole)
FILTERS: tuple[tuple[str, Callable[[Line], bool]], ...] = (
    ("All variables", lambda _line: True),
    ("Problems", lambda line: line.is_problem),
    ("Essential", lambda line: line.rung.category == "essential"),
    ("Supplementary essential", lambda line: line.rung.category == "supplementary"),
    ("Nonessential", lambda line: line.rung.category == "nonessential"),
)


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


class RangesPlace(QWidget):
    """Ladder on the left, the chosen rung on the right.

    Signals
    -------
    field_asked(path) : the person wants to go to the field of a leaf
    """

    field_asked = Signal(str)

    def __init__(self, document: Document) -> None:
        super().__init__()
        self.document = document
        self.proof = Proof(None, "")
        self.model = LadderModel()
        self.chosen = ""  # id of the rung, kept while rungs come and go
        self._showing = False
        self.supports, self.filter, self.ladder = QLabel(), ListBox(document.reader), QListView()
        self.empty = QLabel(self)
        self.panel = RungPanel(document)
        self._lay_out()
        self.filter.currentIndexChanged.connect(self.refresh)
        self.ladder.selectionModel().currentChanged.connect(self._on_current)
        self.ladder.activated.connect(self._on_activated)
        self.panel.field_asked.connect(self.field_asked)
        self.panel.left.connect(self.refresh)
        document.reader.units_changed.connect(self.refresh)
        document.reader.look_changed.connect(self.ladder.viewport().update)

    def _lay_out(self) -> None:
        self.supports.setProperty("tone", "muted")
        self.empty.setProperty("tone", "muted")
        self.empty.setFont(font("title"))
        self.empty.setWordWrap(True)
        self.empty.setAlignment(Qt.AlignmentFlag.AlignCenter)
        self.filter.setAccessibleName("Which variables are shown")
        self.filter.addItems([name for name, _ in FILTERS])
        self.ladder.setModel(self.model)
        self.ladder.setItemDelegate(_RungDelegate(self.document, self.ladder))
        self.ladder.setAccessibleName("Ladder of variables")
        self.ladder.setEditTriggers(QAbstractItemView.EditTrigger.NoEditTriggers)
        self.ladder.setVerticalScrollMode(QAbstractItemView.ScrollMode.ScrollPerPixel)
        self.ladder.setUniformItemSizes(True)
        head = QHBoxLayout()
        head.addWidget(self.supports, 1)
        head.addWidget(self.filter)
        left = QVBoxLayout()
        left.setSpacing(8)
        left.addLayout(head)
        left.addWidget(self.ladder, 1)
        left.addWidget(self.empty, 1)
        layout = QHBoxLayout(self)
        layout.setContentsMargins(16, 12, 16, 14)
        layout.setSpacing(16)
        layout.addLayout(left, 1)
        layout.addWidget(self.panel)

    def show_proof(self, proof: Proof) -> None:
        """Show how the open procedure stands."""
        self.proof = proof
        self.refresh()

    def refresh(self) -> None:
        """Show the rungs that the filter lets through, and keep the chosen one; worked out when looked at."""
        if not self.isVisible():
            return
        _, passes = FILTERS[self.filter.currentIndex()]
        every = lines(self.document.wps, self.proof, self.document.system)
        found = tuple(line for line in every if passes(line))
        said = "; ".join(support_sentences(self.document.wps, self.proof))
        self.supports.setText(f"{said[0].upper()}{said[1:]}." if said else "")
        self.empty.setText("" if found else self._why_empty())
        self.empty.setVisible(not found)
        self.ladder.setVisible(bool(found))
        typing = self.panel.field is not None and self.panel.field.hasFocus()
        places = {line.rung.id: row for row, line in enumerate(found)}
        row = places.get(self.chosen, -1 if typing else 0)
        self._showing = True
        self.model.show_lines(found)
        self.ladder.setCurrentIndex(self.model.index(row) if found and row >= 0 else QModelIndex())
        self._showing = False
        if typing:  # the rung being mended stays beside the ladder until the keyboard leaves it, also when it is inside
            self.panel.show_line(next((line for line in every if line.rung.id == self.chosen), self.panel.line))
            return
        line = found[row] if found else None
        self.chosen = line.rung.id if line else self.chosen
        self.panel.show_line(line)

    def showEvent(self, event: QShowEvent) -> None:
        super().showEvent(event)
        self.refresh()

    def _why_empty(self) -> str:
        if not self.proof.missing:
            return "Nothing here: no variable is of this kind."
        where = "at Passes (Alt+P)" if "deposit" in self.proof.missing else "in the job (Ctrl+J)"
        return f"Not judged: {self.proof.missing}. State it {where}."

    def begin(self) -> None:
        """Put the keyboard on the ladder."""
        self.ladder.setFocus(Qt.FocusReason.OtherFocusReason)

    def go_to(self, _path: str) -> bool:
        """Return False: no leaf has its home here."""
        return False

    def _on_current(self, current: QModelIndex, _previous: QModelIndex) -> None:
        line = current.data(LINE_ROLE)
        if line is not None and not self._showing:
            self.chosen = line.rung.id
            self.panel.show_line(line)

    def _on_activated(self, index: QModelIndex) -> None:
        """Go into the field beside the ladder: the rung is mended where its reason stands."""
        if index.isValid() and self.panel.field is not None:
            self.panel.field.setFocus(Qt.FocusReason.ShortcutFocusReason)


class _RungDelegate(QStyledItemDelegate):
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


class RungPanel(QFrame):
    """The chosen rung: verdict, reason, what to change, the field itself, clause, doubt and records.

    Signals
    -------
    field_asked(path) : the person wants to go to the field where the leaf has its home
    left() : the keyboard left the field
    """

    field_asked = Signal(str)
    left = Signal()

    def __init__(self, document: Document) -> None:
        super().__init__(objectName="panel")
        self.document = document
        self.line: Line | None = None
        self.field: QWidget | None = None
        self.title, self.reason, self.mend, self.origin = (QLabel() for _ in range(4))
        self.title.setFont(font("title", strong=True))
        for label in (self.title, self.reason, self.mend, self.origin):
            label.setWordWrap(True)
            label.setTextInteractionFlags(Qt.TextInteractionFlag.TextSelectableByMouse)
        self.origin.setProperty("tone", "muted")
        self.home = QPushButton()
        self.home.hide()
        self.home.clicked.connect(self._on_home)
        self._room = QVBoxLayout()
        self.setFixedWidth(PANEL_PX)
        column = QVBoxLayout(self)
        column.setContentsMargins(16, 12, 16, 14)
        column.setSpacing(10)
        for label in (self.title, self.reason, self.mend):
            column.addWidget(label)
        column.addLayout(self._room)
        column.addWidget(self.home)
        column.addSpacing(8)
        column.addWidget(self.origin)
        column.addStretch(1)

    def show_line(self, line: Line | None) -> None:
        """Show a rung; its field stays as it is while it is the same leaf, so that typing in it goes on."""
        before, self.line = self.line, line
        self.setVisible(line is not None)
        self.title.setText(line.title if line else "")
        self.reason.setText(f"{line.rung.verdict[0].upper()}{line.rung.verdict[1:]}. {line.reason}" if line else "")
        self.mend.setText(line.mend if line else "")
        self.mend.setVisible(bool(line and line.mend))
        self.origin.setText(_origin(line) if line else "")
        if (before.path if before else "") != (line.path if line else ""):
            self._show_field(line.path if line else "")

    def _show_field(self, path: str) -> None:
        while (item := self._room.takeAt(0)) is not None:
            widget = item.widget()
            if widget is not None:
                widget.hide()
                widget.deleteLater()
        self.field = None
        self.home.setVisible(bool(home_of(path)))
        if not path:
            return
        box = QWidget(self)
        row = QHBoxLayout(box)
        row.setContentsMargins(0, 0, 0, 0)
        label = QLabel(field_of(path).label)
        label.setProperty("tone", "muted")
        self.field = field_for(self.document, path, box)
        self.field.left.connect(self.left, Qt.ConnectionType.QueuedConnection)
        row.addWidget(label)
        row.addWidget(self.field, 1)
        if field_of(path).kind:
            row.addWidget(Unit(self.document, path))
        self._room.addWidget(box)
        self._room.addWidget(Complaint(self.document, [path], self))
        self.home.setText(f"Go to {field_of(path).label.lower()}")

    def _on_home(self) -> None:
        if self.line is not None:
            self.field_asked.emit(self.line.path)


def _origin(line: Line) -> str:
    """Return clause, category, doubt and records of a rung."""
    rung = line.rung
    because = f", because of {rung.because}" if rung.because else ""
    doubt = {"H": "high", "M": "medium: read from memory", "L": "low: not relied on"}.get(
        rung.confidence, rung.confidence
    )
    records = ", ".join(rung.records) or "none"
    return (
        f"Clause: {rung.clause}\nCategory: {rung.category}{because}\nConfidence: {doubt}\n"
        f"Not compared with an owned copy of the code\nRecords: {records}"
    )
