"""The Register: what do we have, in which state, what is not covered? The map of all documents beside their list."""

from collections.abc import Sequence

from PySide6.QtCore import QEvent, QObject, Qt
from PySide6.QtGui import QKeyEvent
from PySide6.QtWidgets import (
    QHBoxLayout,
    QLabel,
    QListWidget,
    QListWidgetItem,
    QPushButton,
    QVBoxLayout,
    QWidget,
)

from anlage.session.works.register import RegisterRow, fallen_sentence, resting_sentence
from anlage.ui.kit.guard import guarded
from anlage.ui.kit.list_row import ITEM_ROLE
from anlage.ui.kit.place import Desk, Place
from anlage.ui.kit.text_line import TextLine
from anlage.ui.picture.view import PictureView
from anlage.ui.places.register.presenter import RegisterPresenter
from anlage.ui.places.register.row_delegate import LIST_PX, RowDelegate

COMMANDS = (
    ("New", "New procedure (Ctrl+N)", "new"), ("New record", "New record (Ctrl+Shift+R)", "new_record"),
    ("Duplicate", "Duplicate the chosen document", "duplicate"), ("Put away", "Put the chosen document away", "delete"),
    ("Plan coupons", "The fewest coupons that cover the procedures (Ctrl+Shift+O)", "plan"),
)  # fmt: skip


@guarded
class RegisterPlace(Place):
    """Map on the left, search and list on the right."""

    def __init__(self, desk: Desk) -> None:
        super().__init__()
        self.desk, self.reader = desk, desk.reader
        reader = desk.reader
        self.rows: Sequence[RegisterRow] = ()
        self.presenter = RegisterPresenter(reader)
        self.map = PictureView(self.presenter, reader, "Map of procedures and records")
        self.search, self.list, self.rests, self.fallen = TextLine(), QListWidget(), QLabel(), QLabel()
        self.fallen.setWordWrap(True)
        self.fallen.setProperty("tone", "outside")
        self.rests.setWordWrap(True)
        self.rests.setMinimumHeight(2 * self.rests.fontMetrics().lineSpacing())  # its lines are there when it is empty
        self.buttons: dict[str, QPushButton] = {}
        self._lay_out()
        self.presenter.chosen.connect(self.choose)
        self.map.area_opened.connect(self._open)
        self.search.textChanged.connect(self.show_rows)
        self.list.currentItemChanged.connect(self._on_current)
        self.list.itemActivated.connect(self._on_activated)
        reader.units_changed.connect(self.refresh)
        reader.look_changed.connect(self.list.viewport().update)

    def _lay_out(self) -> None:
        self.search.installEventFilter(self)
        self.search.setPlaceholderText("Number, title, state or verdict")
        self.search.setAccessibleName("Search the register")
        self.list.setItemDelegate(RowDelegate(self.reader, self.list))
        self.list.setAccessibleName("Procedures and records")
        legend = QLabel(
            "Procedures as outlines over the records that they may rest on; hatched: stated, and covered by none."
        )
        legend.setProperty("tone", "muted")
        legend.setWordWrap(True)
        left = QVBoxLayout()
        left.addWidget(self.map, 1)
        for text, tip, command in COMMANDS:
            button = self.buttons[text] = QPushButton(text)
            button.setToolTip(tip)
            button.clicked.connect(lambda _checked=False, command=command: self.desk.run(command))
        *of_list, of_map = self.buttons.values()
        under = QHBoxLayout()
        under.addWidget(legend, 1)
        under.addWidget(of_map)
        left.addLayout(under)
        tools = QHBoxLayout()
        tools.setSpacing(6)
        for button in of_list:
            tools.addWidget(button)
        tools.addStretch(1)
        right = QVBoxLayout()
        right.addWidget(self.fallen)
        right.addWidget(self.search)
        right.addWidget(self.list, 1)
        right.addWidget(self.rests)
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

    def refresh(self) -> None:
        """Read the works file anew."""
        if self.isVisible():
            self.rows = self.desk.rows()
            said = fallen_sentence(self.rows)
            self.fallen.setText(said)
            self.fallen.setVisible(bool(said))
            self.show_rows()

    def show_rows(self) -> None:
        """Show the rows that the search lets through."""
        shown = [row for row in self.rows if row.matches(self.search.text())]
        keep, before = self.desk.in_front(), self.presenter.rows
        self.presenter.rows = shown
        self.list.blockSignals(True)  # noqa: FBT003 - the rows are the same documents, seen anew
        if [row.id for row in shown] != [row.id for row in before]:
            self.list.clear()
            self.list.addItems([row.number for row in shown])
            before = [None] * len(shown)
        for place, (row, was) in enumerate(zip(shown, before, strict=True)):
            if row is not was:
                item = self.list.item(place)
                item.setText(f"{row.number} {row.title}")
                item.setData(ITEM_ROLE, row)
                item.setToolTip(row.said)
        self.list.blockSignals(False)  # noqa: FBT003 - see above
        self.list.viewport().update()
        places = {row.id: place for place, row in enumerate(shown)}
        self.list.blockSignals(True)  # noqa: FBT003 - the document in front is the chosen one already
        self.list.setCurrentRow(places.get(keep, 0 if keep and shown else -1))
        self.list.blockSignals(False)  # noqa: FBT003 - see above
        if keep not in places:  # the search left it out: the first that it lets through is highlighted now
            self._on_current(self.list.currentItem(), None)
        else:
            self._show_chosen()

    def choose(self, document_id: str) -> None:
        """Choose a document by its id."""
        for place, row in enumerate(self.presenter.rows):
            if row.id == document_id:
                self.list.setCurrentRow(place)

    def begin(self) -> None:
        """Put the keyboard on the list; while no document is open on the search, from which Down leads to the list."""
        (self.list if self.desk.in_front() else self.search).setFocus(Qt.FocusReason.OtherFocusReason)

    def eventFilter(self, watched: QObject, event: QEvent) -> bool:
        if watched is self.search and event.type() == QEvent.Type.KeyPress:
            assert isinstance(event, QKeyEvent)
            if event.key() == Qt.Key.Key_Down:
                self.list.setFocus(Qt.FocusReason.OtherFocusReason)
                return True
        return super().eventFilter(watched, event)

    def _on_current(self, item: QListWidgetItem | None, _before: object) -> None:
        """Bring the highlighted document to the front: the window has one, and this is it."""
        if item is not None:
            self.desk.bring(item.data(ITEM_ROLE).id)
        self._show_chosen()

    def _show_chosen(self) -> None:
        item = self.list.currentItem()
        row: RegisterRow | None = item.data(ITEM_ROLE) if item is not None else None
        self.presenter.chosen_id = row.id if row else ""
        for name in ("Duplicate", "Put away"):
            self.buttons[name].setEnabled(row is not None)
        self.rests.setText(resting_sentence(self.rows, row) if row else "")
        self.map.refresh()

    def _on_activated(self, item: QListWidgetItem) -> None:
        self._open(item.data(ITEM_ROLE).id)

    def _open(self, document_id: str) -> None:
        """Open a procedure or a record."""
        if any(row.id == document_id for row in self.rows):
            self.desk.open(document_id)
