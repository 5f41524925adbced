"""A line of text whose editing keys are its own, whatever commands of the window share them."""

from PySide6.QtCore import QEvent, Qt
from PySide6.QtGui import QDragEnterEvent, QKeyEvent
from PySide6.QtWidgets import QLineEdit

from anlage.ui.kit.guard import guarded

CONTROL, SHIFT = Qt.KeyboardModifier.ControlModifier, Qt.KeyboardModifier.ShiftModifier
TO_BEGINNING = ((Qt.Key.Key_U, CONTROL), (Qt.Key.Key_Backspace, CONTROL | SHIFT))
# Qt keeps moving, selecting and the clipboard for a line, but none of these.
EDITING = (*TO_BEGINNING, (Qt.Key.Key_Backspace, CONTROL), (Qt.Key.Key_Delete, CONTROL))


@guarded
class TextLine(QLineEdit):
    """A line of text: deleting a word, or what stands before the cursor, is editing, never a command of the window."""

    def event(self, event: QEvent) -> bool:
        if event.type() == QEvent.Type.ShortcutOverride:
            assert isinstance(event, QKeyEvent)
            if _stroke(event) in EDITING:
                event.accept()
                return True
        return super().event(event)

    def dragEnterEvent(self, event: QDragEnterEvent) -> None:
        """Leave files to the window: the name of one is no text that anybody meant to type."""
        if event.mimeData().hasUrls():
            event.ignore()
        else:
            super().dragEnterEvent(event)

    def keyPressEvent(self, event: QKeyEvent) -> None:
        if _stroke(event) not in TO_BEGINNING:
            super().keyPressEvent(event)
        elif not self.isReadOnly():
            start = self.selectionEnd() if self.hasSelectedText() else self.cursorPosition()
            self.setSelection(0, start)
            self.del_()


def _stroke(event: QKeyEvent) -> tuple[Qt.Key, Qt.KeyboardModifier]:
    return Qt.Key(event.key()), event.modifiers() & (CONTROL | SHIFT)
