"""The deposits of a procedure as cards: process, filler, current and gas, once for all passes that share them."""

from PySide6.QtCore import QEvent, QObject, Qt
from PySide6.QtGui import QResizeEvent
from PySide6.QtWidgets import QFrame, QGridLayout, QHBoxLayout, QLabel, QScrollArea, QWidget

from anlage.core.procedure import Deposit
from anlage.session.judging.groups import deposit_words
from anlage.ui.kit.complaint import Complaint
from anlage.ui.kit.document import Document
from anlage.ui.kit.fields import ChoiceField, LeafField, Unit, field_for
from anlage.ui.kit.guard import guarded
from anlage.ui.kit.look import font

# Leaf, row, column and width [px] of every field of a card: of all, then by what shields the arc, then of one process.
OF_ALL = (("process", 0, 0, 88), ("filler", 0, 1, 104), ("filler_diameter_mm", 0, 2, 84), ("current_type", 1, 0, 88))
GAS = (
    ("shielding_gas", 1, 1, 104), ("gas_flow_l_min", 1, 2, 84), ("backing_gas", 0, 3, 84),
    ("backing_flow_l_min", 1, 3, 84),
)  # fmt: skip
FLUX = (("flux", 1, 1, 104), ("flux_type", 1, 2, 84), ("electrodes", 0, 3, 84), ("recrushed_slag", 1, 3, 84))
MORE = {
    "GMAW": (("transfer_mode", 0, 4, 92), ("contact_tube_mm", 1, 4, 74)),
    "MCAW": (("transfer_mode", 0, 4, 92), ("contact_tube_mm", 1, 4, 74)),
    "FCAW": (("contact_tube_mm", 0, 4, 74),),
    "SAW": (("contact_tube_mm", 0, 4, 74),),
    "PAW": (("orifice_gas", 0, 4, 84), ("keyhole", 1, 4, 96)),
}


def card_of(process: str | None) -> tuple[tuple[str, int, int, int], ...]:
    """Return the fields of a card of a process."""
    own = FLUX if process == "SAW" else GAS
    return (*OF_ALL, *own, *MORE.get(process or "", ()))


@guarded
class DepositStrip(QScrollArea):
    """One card a deposit, side by side."""

    def __init__(self, document: Document) -> None:
        super().__init__()
        self.document = document
        self.cards: dict[str, DepositCard] = {}
        self._room = QWidget()
        self._row = QHBoxLayout(self._room)
        self._row.setContentsMargins(0, 0, 0, 0)
        self._row.setSpacing(10)
        self._row.addStretch(1)
        self.setWidget(self._room)
        self._room.installEventFilter(self)
        self.setWidgetResizable(True)
        self.setFocusPolicy(Qt.FocusPolicy.NoFocus)
        self.setVerticalScrollBarPolicy(Qt.ScrollBarPolicy.ScrollBarAlwaysOff)
        document.part("deposits").connect(self.refresh)
        self.refresh()

    def refresh(self) -> None:
        """Show a card for every deposit there is."""
        deposits = {each.id: each for each in self.document.value.deposits}
        for gone in self.cards.keys() - deposits.keys():
            self._take_away(gone)
        for place, (deposit_id, deposit) in enumerate(deposits.items()):
            known = self.cards.get(deposit_id)
            if known is not None and known.shows != card_of(deposit.process):  # it is of another process now
                focus = next((name for name, field in known.fields.items() if field.hasFocus()), "")
                self._take_away(deposit_id)
                self._add(place, deposit_id, deposit)
                if focus in self.cards[deposit_id].fields:
                    self.cards[deposit_id].fields[focus].setFocus()
            elif known is None:
                self._add(place, deposit_id, deposit)
        self._fit()

    def _take_away(self, deposit_id: str) -> None:
        card = self.cards.pop(deposit_id)
        self._row.removeWidget(card)
        card.hide()
        card.deleteLater()

    def _add(self, place: int, deposit_id: str, deposit: Deposit) -> None:
        self.cards[deposit_id] = DepositCard(self.document, deposit)
        self._row.insertWidget(place, self.cards[deposit_id])

    def resizeEvent(self, event: QResizeEvent) -> None:
        super().resizeEvent(event)
        self._fit()

    def eventFilter(self, watched: QObject, event: QEvent) -> bool:
        if event.type() == QEvent.Type.LayoutRequest:  # a card came, went, or has something to complain of
            self._fit()
        return super().eventFilter(watched, event)

    def _fit(self) -> None:
        """Be as high as the cards, and as the bar when they do not fit side by side."""
        needed = self._room.sizeHint()
        bar = self.horizontalScrollBar().sizeHint().height() if needed.width() > self.width() else 0
        self.setFixedHeight(max(needed.height(), 24) + bar)


class DepositCard(QFrame):
    """One deposit."""

    def __init__(self, document: Document, deposit: Deposit) -> None:
        super().__init__(objectName="panel")
        self.fields: dict[str, LeafField | ChoiceField] = {}
        grid = QGridLayout(self)
        grid.setContentsMargins(8, 6, 8, 6)
        grid.setHorizontalSpacing(5)
        grid.setVerticalSpacing(1)
        self.shows = card_of(deposit.process)
        for name, row, column, width in self.shows:
            path = f"deposits/{deposit.id}/{name}"
            field = self.fields[name] = field_for(document, path)
            field.setFixedWidth(width)
            label = QLabel(field.field.label)
            label.setProperty("tone", "muted")
            label.setFont(font("note"))
            grid.addWidget(label, 2 * row, 2 * column)
            grid.addWidget(field, 2 * row + 1, 2 * column)
            if field.field.kind:
                grid.addWidget(Unit(document, path), 2 * row + 1, 2 * column + 1)
        self._path = f"deposits/{deposit.id}"
        self.document = document
        self.numbers = QLabel()
        self.numbers.setProperty("tone", "muted")
        self.numbers.setFont(font("note"))
        grid.addWidget(self.numbers, 4, 0, 1, 10)
        document.part(self._path).connect(self.refresh)
        self.refresh()
        self.complaint = Complaint(document, [f"deposits/{deposit.id}/{name}" for name, *_ in self.shows], self)
        self.complaint.setMaximumWidth(440)

    def refresh(self) -> None:
        """Show what the filler is to the codes."""
        own = (self.document.text(f"{self._path}/{name}") for name in ("process", "filler", "shielding_gas"))
        self.numbers.setText(deposit_words(*own) or " ")
