"""The places at the left, icon over word, in the order of the work."""

from collections.abc import Mapping, Sequence

from PySide6.QtCore import QRectF, QSize, Qt, Signal
from PySide6.QtGui import QPainter, QPaintEvent, QResizeEvent
from PySide6.QtWidgets import (
    QButtonGroup,
    QFrame,
    QSizePolicy,
    QToolButton,
    QVBoxLayout,
)

from anlage.ui.kit.guard import guarded
from anlage.ui.kit.icons import icon
from anlage.ui.kit.marks import MARK_PX, draw_mark
from anlage.ui.kit.place import PlaceSpec
from anlage.ui.kit.reader import Reader

PLACES_PX = 76
WHOLE_PX, BARE_PX = 58, 38  # high, with the word under the icon and without


@guarded
class PlaceBar(QFrame):
    """The places at the left, icon over word, in the order of the work.

    Signals
    -------
    asked(id) : a place was clicked
    """

    asked = Signal(str)

    def __init__(self, reader: Reader, specs: Sequence[PlaceSpec]) -> None:
        super().__init__(objectName="places")
        self.reader = reader
        self.setFixedWidth(PLACES_PX)
        self.buttons: dict[str, PlaceButton] = {}
        group = QButtonGroup(self)
        column = QVBoxLayout(self)
        column.setContentsMargins(0, 8, 0, 8)
        column.setSpacing(2)
        for place in specs:
            button = PlaceButton(reader)
            button.setText(place.word)
            button.setToolTip(f"{place.word}: {place.question} ({place.keys})")
            button.setToolButtonStyle(Qt.ToolButtonStyle.ToolButtonTextUnderIcon)
            button.setIconSize(QSize(26, 26))
            button.setCheckable(True)
            button.setSizePolicy(QSizePolicy.Policy.Expanding, QSizePolicy.Policy.Fixed)
            button.setFixedHeight(BARE_PX)
            button.setAccessibleName(place.word)
            button.setObjectName(place.id)
            button.clicked.connect(self._on_clicked)
            group.addButton(button)
            column.addWidget(button)
            self.buttons[place.id] = button
        column.addStretch(1)
        reader.look_changed.connect(self.refresh)
        self.refresh()

    def resizeEvent(self, event: QResizeEvent) -> None:
        """Show icons alone where there is no room for their words; a tip says which it is."""
        super().resizeEvent(event)
        whole = self.height() >= len(self.buttons) * (WHOLE_PX + 2) + 16
        style = Qt.ToolButtonStyle.ToolButtonTextUnderIcon if whole else Qt.ToolButtonStyle.ToolButtonIconOnly
        for button in self.buttons.values():
            button.setToolButtonStyle(style)
            button.setFixedHeight(WHOLE_PX if whole else BARE_PX)

    def refresh(self) -> None:
        """Draw the icons in the ink of the theme."""
        for name, button in self.buttons.items():
            button.setIcon(icon(name, self.reader.look.colour["ink"]))

    def mark(self, place: str) -> None:
        """Show which place is open."""
        self.buttons[place].setChecked(True)

    def show_verdicts(self, verdicts: Mapping[str, str]) -> None:
        """Show beside each place the worst verdict on what is stated there; none where all is inside."""
        for name, button in self.buttons.items():
            button.show_verdict(verdicts.get(name, ""))

    def _on_clicked(self) -> None:
        sender = self.sender()
        assert sender is not None
        self.asked.emit(sender.objectName())


@guarded
class PlaceButton(QToolButton):
    """A place's sign, with the mark of a verdict in its corner when something on it is outside or unproven."""

    def __init__(self, reader: Reader) -> None:
        super().__init__()
        self.reader, self.verdict = reader, ""

    def show_verdict(self, verdict: str) -> None:
        """Show a verdict, or none."""
        if verdict != self.verdict:
            self.verdict = verdict
            self.setAccessibleDescription(f"something here is {verdict}" if verdict else "")
            self.update()

    def paintEvent(self, event: QPaintEvent) -> None:
        super().paintEvent(event)
        if self.verdict:
            corner = QRectF(self.width() - MARK_PX - 10, 8, MARK_PX, MARK_PX)
            draw_mark(QPainter(self), corner, self.verdict, self.reader.look.colour[self.verdict])
