"""One sentence under the band that must not be missed."""

from PySide6.QtWidgets import (
    QFrame,
    QHBoxLayout,
    QLabel,
    QToolButton,
)

from anlage.ui.kit.icons import icon
from anlage.ui.kit.reader import Reader


class NoticeLine(QFrame):
    """One sentence under the band that must not be missed, until it is put away."""

    def __init__(self, reader: Reader) -> None:
        super().__init__(objectName="notice")
        self.reader = reader
        self.text, self.away = QLabel(), QToolButton()
        self.text.setWordWrap(True)
        self.away.setProperty("flat", True)  # noqa: FBT003 - a property of the stylesheet
        self.away.setAccessibleName("Put the notice away")
        self.away.clicked.connect(self.hide)
        row = QHBoxLayout(self)
        row.setContentsMargins(16, 4, 8, 4)
        row.addWidget(self.text, 1)
        row.addWidget(self.away)
        reader.look_changed.connect(self.refresh)
        self.refresh()
        self.hide()

    def refresh(self) -> None:
        """Draw the icon in the ink of the theme."""
        self.away.setIcon(icon("close", self.reader.look.colour["ink"]))

    def say(self, text: str) -> None:
        """Show a sentence."""
        self.text.setText(text)
        self.setVisible(bool(text))
