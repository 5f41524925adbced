"""Over the foot of the page: a sentence that must not be missed, and one that stands for as long as it is true."""

from PySide6.QtWidgets import (
    QFrame,
    QHBoxLayout,
    QLabel,
    QToolButton,
    QWidget,
)

from anlage.ui.kit.icons import icon
from anlage.ui.kit.reader import Reader

MOST_PX, APART_PX = 760, 14


class NoticeLine(QFrame):
    """A sentence that must not be missed, until it is put away; what is held up stays until it is over.

    A passing one tells what was done: it goes by itself once something else is done, before it can be untrue.

    It floats: nothing on the page moves for it.
    """

    def __init__(self, reader: Reader, parent: QWidget) -> None:
        super().__init__(parent, objectName="floating")
        self.reader = reader
        self.text, self.away = QLabel(), QToolButton()
        self.text.setWordWrap(True)
        self.away.setProperty("flat", True)  # noqa: FBT003 - a property of the stylesheet
        self.away.setAccessibleName("Put the notice away")
        self.away.clicked.connect(lambda: self.say(""))
        self._held = self._said = ""
        self._passing = False
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

    def say(self, text: str, *, passing: bool = False) -> None:
        """Show a sentence; "" puts it away."""
        self._said, self._passing = text, passing
        self._show_both()

    def move_on(self) -> None:
        """Put away what was said in passing."""
        if self._passing:
            self.say("")

    def hold(self, text: str) -> None:
        """Show a sentence for as long as it is true; "" once it is not."""
        self._held = text
        self._show_both()

    def _show_both(self) -> None:
        self.text.setText(" ".join(each for each in (self._held, self._said) if each))
        self.away.setVisible(bool(self._said) or not self._held)
        self.setVisible(bool(self._held or self._said))
        self.settle()

    def settle(self) -> None:
        """Lie over the foot of the window, as wide as the sentence, and as high as it then is."""
        parent = self.parentWidget()
        if parent is None or not self.isVisible():
            return
        room = parent.width() - 2 * APART_PX
        width = min(self.text.fontMetrics().horizontalAdvance(self.text.text()) + 104, MOST_PX, room)
        height = max(self.heightForWidth(width), 34)
        self.setGeometry((parent.width() - width) // 2, parent.height() - height - APART_PX, width, height)
        self.raise_()
