"""A line of a document's own text that offers words while someone types, and never gets in the way."""

from collections.abc import Sequence

from PySide6.QtCore import QEvent, QPoint, Qt
from PySide6.QtGui import QFocusEvent, QKeyEvent, QKeySequence
from PySide6.QtWidgets import QListWidget, QWidget

from anlage.session.leaves.suggestions import matching
from anlage.ui.kit.guard import guarded
from anlage.ui.kit.text_line import TextLine

SHOWN_ROWS = 8
LEAST_PX = 180
UNDOING = (QKeySequence.StandardKey.Undo, QKeySequence.StandardKey.Redo)


@guarded
class OfferingLine(TextLine):
    """A line with a list of words under it while what is typed could be one of them.

    The list takes no key by itself: Down enters it, Enter takes the word that was gone to, Escape puts it away; every
    other key is for the text, and Enter without Down leaves the text as it was typed.
    """

    def __init__(self, parent: QWidget | None = None) -> None:
        super().__init__(parent)
        self.offer: QListWidget | None = None
        self.textEdited.connect(self._on_text)

    def words(self) -> Sequence[str]:
        """Return the words to offer, none for free text."""
        return ()

    def take_word(self, word: str) -> None:
        """Take a word of the list over."""
        self.setText(word)
        self.textEdited.emit(word)

    @property
    def is_offering(self) -> bool:
        """Whether a list stands under the line."""
        return self.offer is not None and self.offer.isVisible()

    def put_offer_away(self) -> None:
        """Put the list away."""
        if self.offer is not None:
            self.offer.hide()

    def _on_text(self, text: str) -> None:
        self._show_offer(matching(self.words(), text) if text.strip() else ())

    def _show_offer(self, words: Sequence[str]) -> None:
        if not words or list(words) == [self.text()] or self.isReadOnly():
            self.put_offer_away()
            return
        window = self.window()
        if self.offer is None or self.offer.parent() is not window:
            self.offer = QListWidget(window, objectName="floating")
            self.offer.setFocusPolicy(Qt.FocusPolicy.NoFocus)
            self.offer.setAccessibleName("Words that fit")
            self.offer.itemClicked.connect(lambda item: self._take(item.text()))
            self.destroyed.connect(self.offer.deleteLater)
        self.offer.clear()
        self.offer.addItems(list(words))
        self.offer.setCurrentRow(-1)
        rows = min(len(words), SHOWN_ROWS)
        height = rows * max(self.offer.sizeHintForRow(0), self.height() - 4) + 2 * self.offer.frameWidth()
        below = self.mapTo(window, QPoint(0, self.height()))
        if below.y() + height > window.height():
            below = self.mapTo(window, QPoint(0, -height))
        width = max(self.width(), LEAST_PX)
        left = max(min(below.x(), window.width() - width), 0)
        self.offer.setGeometry(left, max(below.y(), 0), width, height)
        self.offer.show()
        self.offer.raise_()

    def _take(self, word: str) -> None:
        self.put_offer_away()
        self.take_word(word)
        self.put_offer_away()

    def _goes_into_offer(self, event: QKeyEvent) -> bool:
        """Do what a key does with the list; return whether it was for the list."""
        key = event.key()
        if not self.is_offering:
            if key != Qt.Key.Key_Down or event.modifiers() or not self.words():
                return False
            self._show_offer(matching(self.words(), self.text()) or self.words())
            if not self.is_offering:
                return False
        assert self.offer is not None, "it is shown"
        row, last = self.offer.currentRow(), self.offer.count() - 1
        if key in (Qt.Key.Key_Down, Qt.Key.Key_Up):
            self.offer.setCurrentRow(min(row + 1, last) if key == Qt.Key.Key_Down else row - 1)
            if self.offer.currentRow() < 0:
                self.offer.clearSelection()
            return True
        if key == Qt.Key.Key_Escape:
            self.put_offer_away()
            return True
        if key in (Qt.Key.Key_Return, Qt.Key.Key_Enter) and row >= 0:
            self._take(self.offer.item(row).text())
            return True
        return False

    def event(self, event: QEvent) -> bool:
        if event.type() == QEvent.Type.ShortcutOverride:
            assert isinstance(event, QKeyEvent)
            if any(map(event.matches, UNDOING)):
                event.ignore()  # the document's undo, not the line's own
                return False
            if self.is_offering and event.key() == Qt.Key.Key_Escape:
                event.accept()
                return True
        return super().event(event)

    def keyPressEvent(self, event: QKeyEvent) -> None:
        if any(map(event.matches, UNDOING)):
            event.ignore()
        elif not self._goes_into_offer(event):
            super().keyPressEvent(event)

    def focusOutEvent(self, event: QFocusEvent) -> None:
        self.put_offer_away()
        super().focusOutEvent(event)

    def hideEvent(self, event: QEvent) -> None:
        self.put_offer_away()
        super().hideEvent(event)  # type: ignore[arg-type]
