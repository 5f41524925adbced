"""The Register: what do we have, in which state, what is not covered? The map of all documents beside their list."""

from collections.abc import Callable, Sequence

from PySide6.QtCore import QModelIndex, QObject, QPersistentModelIndex, QRect, QRectF, QSize, Qt, Signal
from PySide6.QtGui import QPainter, QShowEvent
from PySide6.QtWidgets import (
    QHBoxLayout,
    QLabel,
    QLineEdit,
    QListWidget,
    QListWidgetItem,
    QPushButton,
    QStyledItemDelegate,
    QStyleOptionViewItem,
    QVBoxLayout,
    QWidget,
)

from anlage.core.drawing import DisplayList, Point, qualified_map
from anlage.data.look import role_styles
from anlage.session.works.register import Row, areas, ticks
from anlage.ui.look import font, measure
from anlage.ui.marks import MARK_PX, draw_mark
from anlage.ui.picture import PictureView
from anlage.ui.reader import Reader

LIST_PX, ROW_PX = 356, 58
ROW_ROLE = int(Qt.ItemDataRole.UserRole)


class RegisterPresenter(QObject):
    """The map of the rows that are shown.

    Signals
    -------
    chosen(id) : a rectangle was clicked
    """

    chosen = Signal(str)

    def __init__(self, reader: Reader) -> None:
        super().__init__()
        self.reader = reader
        self.rows: Sequence[Row] = ()
        self.chosen_id = ""

    def picture(self, width_mm: float, height_mm: float) -> DisplayList | None:
        if not self.rows:
            return None
        system = self.reader.system
        return qualified_map(areas(self.rows, self.chosen_id), ticks(system), (width_mm, height_mm), measure)

    def heat(self) -> tuple[float, float] | None:
        return None

    def is_stale(self) -> bool:
        return False

    def empty_text(self) -> str:
        return "Nothing here yet. Ctrl+N makes a procedure; the demo shows a works with procedures and records."

    def take(self, target: str, at: Point) -> None:
        """Do nothing: the map has no handles."""

    def drag(self, at: Point, *, fine: bool) -> None:
        """Do nothing: the map has no handles."""

    def release(self) -> None:
        """Do nothing: the map has no handles."""

    def step(self, target: str, steps: int) -> None:
        """Do nothing: the map has no handles."""

    def choose(self, target: str) -> None:
        self.chosen.emit(target)

    def describe(self, target: str) -> str:
        row = next((row for row in self.rows if row.id == target), None)
        return f"{row.number} {row.title}: {row.state}, {row.said}" if row else ""

    def svg(self) -> str:
        from anlage.formats.svg import svg  # when asked for

        picture = self.picture(200.0, 140.0)
        return svg(picture, role_styles("light"), ground="#FFFFFF") if picture else ""


class RegisterPlace(QWidget):
    """Map on the left, search and list on the right.

    Signals
    -------
    opened(id) : a procedure is to be opened
    """

    opened = Signal(str)

    def __init__(
        self,
        reader: Reader,
        found: Callable[[], Sequence[Row]],
        commands: Sequence[tuple[str, str, Callable[[], None]]],
    ) -> None:
        super().__init__()
        self.reader, self._found = reader, found
        self.rows: Sequence[Row] = ()
        self.presenter = RegisterPresenter(reader)
        self.map = PictureView(self.presenter, reader, "Map of procedures and records")
        self.search, self.list = QLineEdit(), QListWidget()
        self.buttons: dict[str, QPushButton] = {}
        self._lay_out(commands)
        self.presenter.chosen.connect(self.choose)
        self.map.area_opened.connect(self._open)
        self.search.textChanged.connect(self.show_rows)
        self.list.currentItemChanged.connect(self._on_current)
        self.list.itemActivated.connect(self._on_activated)
        reader.units_changed.connect(self.refresh)
        reader.look_changed.connect(self.list.viewport().update)

    def _lay_out(self, commands: Sequence[tuple[str, str, Callable[[], None]]]) -> None:
        self.search.setPlaceholderText("Number, title, state or verdict")
        self.search.setAccessibleName("Search the register")
        self.list.setItemDelegate(_RowDelegate(self.reader, self.list))
        self.list.setAccessibleName("Procedures and records")
        legend = QLabel(
            "Procedures as outlines over the records that they may rest on; hatched: stated, and covered by none."
        )
        legend.setProperty("tone", "muted")
        legend.setWordWrap(True)
        left = QVBoxLayout()
        left.addWidget(self.map, 1)
        left.addWidget(legend)
        tools = QHBoxLayout()
        tools.setSpacing(6)
        for text, tip, do in commands:
            button = self.buttons[text] = QPushButton(text)
            button.setToolTip(tip)
            button.clicked.connect(do)
            tools.addWidget(button)
        tools.addStretch(1)
        right = QVBoxLayout()
        right.addWidget(self.search)
        right.addWidget(self.list, 1)
        right.addLayout(tools)
        column = QWidget()
        column.setFixedWidth(LIST_PX)
        column.setLayout(right)
        right.setContentsMargins(0, 0, 0, 0)
        layout = QHBoxLayout(self)
        layout.setContentsMargins(16, 12, 16, 12)
        layout.setSpacing(16)
        layout.addLayout(left, 1)
        layout.addWidget(column)

    def showEvent(self, event: QShowEvent) -> None:
        super().showEvent(event)
        self.refresh()

    def refresh(self) -> None:
        """Read the works file anew."""
        if self.isVisible():
            self.rows = self._found()
            self.show_rows()

    def show_rows(self) -> None:
        """Show the rows that the search lets through."""
        shown = [row for row in self.rows if row.matches(self.search.text())]
        keep = self.presenter.chosen_id
        self.presenter.rows = shown
        self.list.blockSignals(True)  # noqa: FBT003 - the rows are the same documents, seen anew
        self.list.clear()
        for row in shown:
            item = QListWidgetItem(f"{row.number} {row.title}")
            item.setData(ROW_ROLE, row)
            item.setToolTip(row.said)
            self.list.addItem(item)
        self.list.blockSignals(False)  # noqa: FBT003 - see above
        places = {row.id: place for place, row in enumerate(shown)}
        self.list.setCurrentRow(places.get(keep, 0 if shown else -1))
        self._on_current(self.list.currentItem(), None)

    def choose(self, document_id: str) -> None:
        """Choose a document by its id."""
        for place, row in enumerate(self.presenter.rows):
            if row.id == document_id:
                self.list.setCurrentRow(place)

    def begin(self) -> None:
        """Put the keyboard on the list."""
        self.list.setFocus(Qt.FocusReason.OtherFocusReason)

    def _on_current(self, item: QListWidgetItem | None, _before: object) -> None:
        row: Row | None = item.data(ROW_ROLE) if item is not None else None
        self.presenter.chosen_id = row.id if row else ""
        for name in ("Duplicate", "Put away"):
            self.buttons[name].setEnabled(row is not None and row.kind == "wps")
        self.map.refresh()

    def _on_activated(self, item: QListWidgetItem) -> None:
        self._open(item.data(ROW_ROLE).id)

    def _open(self, document_id: str) -> None:
        """Open a procedure or a record."""
        if any(row.id == document_id for row in self.rows):
            self.opened.emit(document_id)


class _RowDelegate(QStyledItemDelegate):
    def __init__(self, reader: Reader, parent: QObject) -> None:
        super().__init__(parent)
        self.reader = reader

    def sizeHint(self, option: QStyleOptionViewItem, index: QModelIndex | QPersistentModelIndex) -> QSize:
        return QSize(LIST_PX - 20, ROW_PX)

    def paint(
        self, painter: QPainter, option: QStyleOptionViewItem, index: QModelIndex | QPersistentModelIndex
    ) -> None:
        row: Row = index.data(ROW_ROLE)
        colour, rect, view = self.reader.look.colour, QRect(option.rect), self.parent()  # type: ignore[attr-defined]
        assert isinstance(view, QListWidget)
        chosen = index == view.currentIndex()
        painter.save()
        painter.fillRect(rect, colour["ground" if chosen else "sheet"])
        painter.setPen(colour["line"])
        painter.drawLine(rect.bottomLeft(), rect.bottomRight())
        draw_mark(
            painter, QRectF(rect.left() + 10, rect.top() + 10, MARK_PX, MARK_PX), row.verdict, colour[row.verdict]
        )
        room = rect.adjusted(30, 5, -10, -5)
        left, right = int(Qt.AlignmentFlag.AlignLeft), int(Qt.AlignmentFlag.AlignRight)
        third = room.height() // 3
        kind = "record, " if row.kind == "pqr" else ""
        lines = (
            (row.number, "ink", True, left, 0), (f"{kind}{row.state}", "muted", False, right, 0),
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
