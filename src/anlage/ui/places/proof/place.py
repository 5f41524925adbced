"""The Proof place: what was welded and measured on a coupon, and what it buys, key by key."""

from collections.abc import Sequence
from functools import partial

from PySide6.QtCore import Qt
from PySide6.QtWidgets import (
    QFrame,
    QGridLayout,
    QHBoxLayout,
    QLabel,
    QPushButton,
    QScrollArea,
    QVBoxLayout,
    QWidget,
)

from anlage.core.record import with_recorded_deposit, without_recorded_deposit
from anlage.session.leaves.table import RECORDED, field_of
from anlage.ui.kit.document import Document
from anlage.ui.kit.fields import ChoiceField, Complaint, LeafField, Unit, field_for
from anlage.ui.kit.look import font
from anlage.ui.kit.place import Desk, Place
from anlage.ui.places.proof.bought_ladder import LADDER_PX, LEAST_LADDER_PX, BoughtLadder
from anlage.ui.places.proof.leaves import CARD, LINES, MEASURED


class ProofPlace(Place):
    """The form of a record on the left, what it buys on the right."""

    def __init__(self, document: Document, _desk: Desk) -> None:
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
        deposits = {each.id: each for each in self.document.value.deposits}
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
        pqr, own = with_recorded_deposit(self.document.value)
        self.document.edit(pqr, "Add a deposit")
        if f"deposits/{own}/process" in self.fields:
            self.fields[f"deposits/{own}/process"].setFocus(Qt.FocusReason.ShortcutFocusReason)

    def remove_deposit(self, deposit_id: str) -> None:
        """Take a deposit out."""
        self.document.edit(without_recorded_deposit(self.document.value, deposit_id), "Remove a deposit")

    def begin(self) -> None:
        """Put the keyboard where entering starts."""
        self.fields["header/title"].setFocus(Qt.FocusReason.OtherFocusReason)

    def go_to(self, path: str) -> bool:
        """Put the keyboard into the field of a leaf; return whether it is here."""
        if path in self.fields:
            self.fields[path].setFocus(Qt.FocusReason.ShortcutFocusReason)
        return path in self.fields
