"""The Proof place: what was welded and measured on a coupon, and what it buys, key by key."""

from collections.abc import Sequence
from functools import partial

from PySide6.QtCore import QPointF, QRect, QSize, Qt
from PySide6.QtGui import QPainter, QPaintEvent, QShowEvent
from PySide6.QtWidgets import (
    QFrame,
    QGridLayout,
    QHBoxLayout,
    QLabel,
    QPushButton,
    QScrollArea,
    QSizePolicy,
    QVBoxLayout,
    QWidget,
)

from anlage.core.drawing import rung
from anlage.core.record import with_recorded_deposit, without_recorded_deposit
from anlage.session.judging.bought import BoughtLine, bought_by, why_nothing
from anlage.session.leaves.table import RECORDED, field_of
from anlage.ui.document import Document
from anlage.ui.fields import ChoiceField, Complaint, LeafField, Unit, field_for
from anlage.ui.look import PX_PER_MM, font
from anlage.ui.painter import Placed, paint

LADDER_PX, ROW_PX, NAME_PX = 392, 36, 172
LEAST_LADDER_PX = 300
# Lines of the form: leaves that belong together.
LINES = (
    ("header/number", "state"), ("header/title",), ("header/code", "header/units"), ("header/weld", "toughness_tested"),
    ("welded_on", "welder"), ("laboratory",), ("metals/one/name", "metals/other/name"), ("joint/kind", "joint/product"),
    ("joint/thickness_mm", "joint/od_mm"), ("preheat_least_c", "interpass_most_c"), ("pwht/kind", "pwht/temperature_c"),
    ("technique/position", "technique/progression"), ("technique/runs", "technique/bead_technique"),
    ("technique/peening", "technique/thermal_preparation"),
)  # fmt: skip
CARD = (
    ("process", "filler"), ("filler_diameter_mm", "thickness_mm"), ("max_pass_thickness_mm", "current_type"),
    ("shielding_gas", "backing_gas"), ("trailing_gas", "operation"),
)  # fmt: skip
MEASURED = ("current_a", "voltage_v", "travel_speed_mm_min")


class RecordPlace(QWidget):
    """The form of a record on the left, what it buys on the right."""

    def __init__(self, document: Document) -> None:
        super().__init__()
        self.document = document
        self.fields: dict[str, LeafField | ChoiceField] = {}
        self.cards: dict[str, QFrame] = {}
        self.buys = BoughtLadder(document)
        self.add, self.form = QPushButton("Add a deposit"), QWidget()
        self.add.setEnabled(document.can_write)
        self.add.clicked.connect(self.add_deposit)
        self._column = QVBoxLayout(self.form)
        self._column.setContentsMargins(0, 0, 12, 0)
        grid = QGridLayout()
        grid.setHorizontalSpacing(8)
        grid.setVerticalSpacing(4)
        for column in (1, 4):
            grid.setColumnStretch(column, 1)
        for place, paths in enumerate(LINES):
            self._line(grid, 2 * place, paths, self)
        self._column.addLayout(grid)
        self._column.addWidget(self.add, 0, Qt.AlignmentFlag.AlignLeft)
        self._column.addStretch(1)
        scroll = QScrollArea()
        scroll.setWidget(self.form)
        scroll.setWidgetResizable(True)
        scroll.setFocusPolicy(Qt.FocusPolicy.NoFocus)
        scroll.setHorizontalScrollBarPolicy(Qt.ScrollBarPolicy.ScrollBarAlwaysOff)
        buys = QScrollArea()
        buys.setWidget(self.buys)
        buys.setWidgetResizable(True)
        buys.setMinimumWidth(LEAST_LADDER_PX)
        buys.setMaximumWidth(LADDER_PX)
        buys.setHorizontalScrollBarPolicy(Qt.ScrollBarPolicy.ScrollBarAlwaysOff)
        layout = QHBoxLayout(self)
        layout.setContentsMargins(16, 12, 16, 12)
        layout.setSpacing(16)
        layout.addWidget(scroll, 9)
        layout.addWidget(buys, 5)
        document.changed.connect(self.refresh)
        document.reader.units_changed.connect(self.buys.refresh)
        self.refresh()

    def _line(self, grid: QGridLayout, row: int, paths: Sequence[str], owner: QWidget) -> None:
        for place, path in enumerate(paths):
            label, field = QLabel(field_of(path).label), field_for(self.document, path)
            label.setProperty("tone", "muted")
            self.fields[path] = field
            field.setMinimumWidth(70)
            grid.addWidget(label, row, 3 * place)
            grid.addWidget(field, row, 3 * place + 1, 1, 5 if len(paths) == 1 else 1)
            if field.field.kind:
                grid.addWidget(Unit(self.document, path), row, 3 * place + 2)
        grid.addWidget(Complaint(self.document, paths, owner), row + 1, 0, 1, 6)

    def refresh(self) -> None:
        """Show a card for every deposit there is, and what the record buys now."""
        deposits = {each.id: each for each in self.document.working.value.deposits}
        for gone in self.cards.keys() - deposits.keys():
            card = self.cards.pop(gone)
            self._column.removeWidget(card)
            card.hide()
            card.deleteLater()
            self.fields = {path: f for path, f in self.fields.items() if not path.startswith(f"deposits/{gone}/")}
        for place, deposit_id in enumerate(deposits):
            if deposit_id not in self.cards:
                self.cards[deposit_id] = self._card(deposit_id)
                self._column.insertWidget(1 + place, self.cards[deposit_id])
        self.buys.refresh()

    def _card(self, deposit_id: str) -> QFrame:
        card = QFrame(self.form, objectName="panel")
        grid = QGridLayout(card)
        grid.setContentsMargins(10, 8, 10, 8)
        grid.setHorizontalSpacing(8)
        grid.setVerticalSpacing(4)
        for column in (1, 3, 4):
            grid.setColumnStretch(column, 1)
        for place, names in enumerate(CARD):
            self._line(grid, 2 * place, [f"deposits/{deposit_id}/{name}" for name in names], card)
        row = 2 * len(CARD)
        for column, head in enumerate(RECORDED):
            label = QLabel(head)
            label.setProperty("tone", "muted")
            label.setFont(font("note"))
            grid.addWidget(label, row, (1, 3, 4)[column])
        for place, name in enumerate(MEASURED, 1):
            self._measured(grid, row + 2 * place, f"deposits/{deposit_id}/{name}", card)
        remove = QPushButton("Remove this deposit")
        remove.setEnabled(self.document.can_write)
        remove.clicked.connect(partial(self.remove_deposit, deposit_id))
        grid.addWidget(remove, row + 8, 0, 1, 6, Qt.AlignmentFlag.AlignLeft)
        return card

    def _measured(self, grid: QGridLayout, row: int, path: str, owner: QWidget) -> None:
        label = QLabel(field_of(path).label)
        label.setProperty("tone", "muted")
        grid.addWidget(label, row, 0)
        paths = [f"{path}/{part}" for part in RECORDED]
        for column, leaf in zip((1, 3, 4), paths, strict=True):
            field = self.fields[leaf] = LeafField(self.document, leaf)
            field.setMinimumWidth(60)
            field.setAccessibleName(f"{field.field.label}, {leaf.rpartition('/')[2]}")
            grid.addWidget(field, row, column)
        grid.addWidget(Unit(self.document, path), row, 5)
        grid.addWidget(Complaint(self.document, paths, owner), row + 1, 0, 1, 6)

    def add_deposit(self) -> None:
        """Add a deposit, and put the keyboard at its process."""
        pqr, own = with_recorded_deposit(self.document.working.value)
        self.document.edit(pqr, "Add a deposit")
        if f"deposits/{own}/process" in self.fields:
            self.fields[f"deposits/{own}/process"].setFocus(Qt.FocusReason.ShortcutFocusReason)

    def remove_deposit(self, deposit_id: str) -> None:
        """Take a deposit out."""
        self.document.edit(without_recorded_deposit(self.document.working.value, deposit_id), "Remove a deposit")

    def begin(self) -> None:
        """Put the keyboard where entering starts."""
        self.fields["header/title"].setFocus(Qt.FocusReason.OtherFocusReason)

    def go_to(self, path: str) -> bool:
        """Put the keyboard into the field of a leaf; return whether it is here."""
        if path in self.fields:
            self.fields[path].setFocus(Qt.FocusReason.ShortcutFocusReason)
        return path in self.fields


class BoughtLadder(QWidget):
    """Every variable that the record limits, with the allowed band on its own scale."""

    def __init__(self, document: Document) -> None:
        super().__init__()
        self.document = document
        self.rows: tuple[BoughtLine, ...] = ()
        self.why = ""
        self.setSizePolicy(QSizePolicy.Policy.Expanding, QSizePolicy.Policy.MinimumExpanding)
        document.reader.look_changed.connect(self.update)

    def showEvent(self, event: QShowEvent) -> None:
        super().showEvent(event)
        self.refresh()

    def refresh(self) -> None:
        """Work out what the record buys, when it is looked at."""
        if not self.isVisible():
            return
        pqr = self.document.working.value
        self.rows, self.why = bought_by(pqr, self.document.system), why_nothing(pqr)
        self.setMinimumHeight(ROW_PX * (len(self.rows) + 2))
        said = [f"{row.title}: {row.text}" for row in self.rows]
        self.setAccessibleName("What the record buys")
        self.setAccessibleDescription("; ".join([self.why, *said]))
        self.update()

    def sizeHint(self) -> QSize:
        return QSize(LEAST_LADDER_PX - 20, ROW_PX * (len(self.rows) + 2))

    def paintEvent(self, event: QPaintEvent) -> None:
        painter, look = QPainter(self), self.document.reader.look
        painter.fillRect(self.rect(), look.colour["sheet"])
        painter.setPen(look.colour["ink"])
        painter.setFont(font("title", strong=True))
        painter.drawText(QRect(12, 0, self.width() - 24, ROW_PX), int(Qt.AlignmentFlag.AlignVCenter), "What it buys")
        painter.setFont(font("note"))
        painter.setPen(look.colour["unproven" if self.why else "muted"])
        flags = int(Qt.AlignmentFlag.AlignTop | Qt.TextFlag.TextWordWrap)
        said = self.why or "Ranges of the variables that its code limits; nonessential ones are free."
        painter.drawText(QRect(12, ROW_PX - 2, self.width() - 24, ROW_PX), flags, said)
        for place, row in enumerate(self.rows):
            self._row(painter, QRect(0, ROW_PX * (place + 2), self.width(), ROW_PX), row)

    def _row(self, painter: QPainter, rect: QRect, row: BoughtLine) -> None:
        look = self.document.reader.look
        painter.setPen(look.colour["line"])
        painter.drawLine(rect.topLeft(), rect.topRight())
        painter.setPen(look.colour["ink"])
        painter.setFont(font())
        centred = int(Qt.AlignmentFlag.AlignVCenter)
        name = QRect(rect.left() + 12, rect.top(), min(NAME_PX, rect.width() // 2), rect.height())
        shown = painter.fontMetrics().elidedText(row.title, Qt.TextElideMode.ElideRight, name.width())
        painter.drawText(name, centred, shown)
        room = QRect(name.right() + 8, rect.top(), rect.width() - name.right() - 20, rect.height())
        picture = rung(None, row.sure, row.possible, room.width() * 0.3 / PX_PER_MM)
        if picture is not None:
            corner = QPointF(room.left(), room.center().y() + picture.high[1] * PX_PER_MM / 2 + 5)
            paint(Placed(picture, corner, PX_PER_MM), painter, look)
            room.setLeft(round(room.left() + room.width() * 0.3 + 8))
        painter.setPen(look.colour["unproven" if row.is_unproven else "ink"])
        painter.setFont(font("note"))
        text = painter.fontMetrics().elidedText(row.text, Qt.TextElideMode.ElideRight, room.width())
        painter.drawText(room, centred, text)
