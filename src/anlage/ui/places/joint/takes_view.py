"""What the weld takes: groups of figures side by side, and the user's own rates under them."""

from collections.abc import Mapping

from PySide6.QtCore import Qt
from PySide6.QtGui import QDoubleValidator
from PySide6.QtWidgets import QFrame, QGridLayout, QHBoxLayout, QLabel, QScrollArea, QVBoxLayout, QWidget

from anlage.core.ranges import Interval
from anlage.session.takes.takes import Section, rate_fields, takes_sections
from anlage.ui.kit.document import Document
from anlage.ui.kit.look import font
from anlage.ui.kit.place import Desk
from anlage.ui.kit.section_waits import SectionWaits
from anlage.ui.kit.text_line import TextLine

COLUMNS = 2


class TakesView(QWidget):
    """Shows what all passes take together; `keep` takes the user's rates when they are others."""

    def __init__(self, document: Document, desk: Desk) -> None:
        super().__init__()
        self.document, self.desk = document, desk
        self.runs = SectionWaits(self, desk.machines)
        self.runs.ready.connect(self.refresh)
        self.setAccessibleName("What the weld takes")
        room, scroll = QWidget(), QScrollArea()
        scroll.setWidgetResizable(True)
        scroll.setWidget(room)
        whole = QVBoxLayout(self)
        whole.setContentsMargins(0, 0, 0, 0)
        whole.setSpacing(8)
        whole.addWidget(scroll, 1)
        whole.addWidget(self._rates())
        column = QVBoxLayout(room)
        column.setContentsMargins(12, 12, 12, 8)
        column.setSpacing(14)
        self._grid = QGridLayout()
        self._grid.setHorizontalSpacing(24)
        self._grid.setVerticalSpacing(18)
        column.addLayout(self._grid)
        column.addStretch(1)
        self.cards: list[QWidget] = []
        document.reader.units_changed.connect(self._show_rates)

    def _rates(self) -> QWidget:
        box = QFrame(objectName="panel")
        row = QHBoxLayout(box)
        row.setContentsMargins(10, 6, 10, 6)
        row.setSpacing(8)
        self.fields: dict[str, TextLine] = {}
        self._words: dict[str, QLabel] = {}
        self._times: dict[str, float] = {}
        for name, *_ in rate_fields(self.document.system):
            label = self._words[name] = QLabel()
            label.setProperty("tone", "muted")
            label.setFont(font("note"))
            field = self.fields[name] = TextLine()
            check = QDoubleValidator(0.0, 1e6, 3, field)
            check.setNotation(QDoubleValidator.Notation.StandardNotation)
            field.setValidator(check)
            field.setAlignment(Qt.AlignmentFlag.AlignRight)
            field.setFixedWidth(78)
            field.textChanged.connect(lambda text, name=name: self._on_typed(name, text))
            pair = QVBoxLayout()
            pair.setSpacing(1)
            pair.addWidget(label)
            pair.addWidget(field)
            row.addLayout(pair)
        row.addStretch(1)
        self._show_rates()
        return box

    def _show_rates(self) -> None:
        """Show the rates as the reader states them: by kilogram or by pound."""
        for name, word, times in rate_fields(self.document.system):
            self._times[name] = times
            self._words[name].setText(word)
            field = self.fields[name]
            field.setAccessibleName(word)
            field.blockSignals(True)  # noqa: FBT003 - the rates stay what they are
            field.setText(f"{self.rates[name] / times:.6g}" if name in self.rates else "")
            field.blockSignals(False)  # noqa: FBT003
        self._shown = self.rates

    @property
    def rates(self) -> Mapping[str, float]:
        """The rates as they are kept: they may be typed elsewhere."""
        return self.desk.settings.rates

    def _on_typed(self, name: str, text: str) -> None:
        rates = {own: rate for own, rate in self.rates.items() if own != name}
        if text and text != ".":
            rates[name] = float(text) * self._times[name]
        self.desk.keep(rates=rates)
        self._shown = self.rates  # as typed: it is not written anew under the hand
        self.refresh()

    def refresh(self) -> None:
        """Work out anew what the weld takes."""
        if self._shown is not self.rates:
            self._show_rates()
        for card in self.cards:
            self._grid.removeWidget(card)
            card.hide()  # at once: deleting waits for the event loop
            card.deleteLater()
        sections = self._sections()
        self.cards = [_card(each) for each in sections]
        for place, card in enumerate(self.cards):
            self._grid.addWidget(card, place // COLUMNS, place % COLUMNS, Qt.AlignmentFlag.AlignTop)

    def _sections(self) -> tuple[Section, ...]:
        """Return the groups; the waits are those of the section model, once it has found them."""
        waits = self.runs.ask(self.document.value)
        waited = getattr(waits, "waited_s", None)
        minutes = None if waited is None else Interval(waited.low / 60, waited.high / 60)
        return takes_sections(self.document.value, self.rates, self.document.system, minutes)

    def text(self) -> str:
        """Return every figure in a line of its own, as shown."""
        return "\n".join(f"{figure.name}: {figure.text}" for each in self._sections() for figure in each.figures)


def _card(section: Section) -> QWidget:
    card = QWidget()
    grid = QGridLayout(card)
    grid.setContentsMargins(0, 0, 0, 0)
    grid.setHorizontalSpacing(12)
    grid.setVerticalSpacing(3)
    grid.setColumnStretch(0, 1)
    head = QLabel(section.title)
    head.setFont(font("title", strong=True))
    grid.addWidget(head, 0, 0, 1, 2)
    for row, figure in enumerate(section.figures, 1):
        label, value = QLabel(figure.name), QLabel(figure.text)
        label.setProperty("tone", "muted")
        value.setAlignment(Qt.AlignmentFlag.AlignRight)
        for widget in (label, value):
            widget.setToolTip(figure.origin)
        grid.addWidget(label, row, 0)
        grid.addWidget(value, row, 1)
    said = QLabel(section.note)
    said.setProperty("tone", "muted")
    said.setFont(font("note"))
    said.setWordWrap(True)
    grid.addWidget(said, len(section.figures) + 1, 0, 1, 2)
    return card
