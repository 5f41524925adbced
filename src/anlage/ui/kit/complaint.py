"""The sentence under a field whose text or value cannot stand: it floats, so that nothing moves for it."""

from collections.abc import Sequence

from PySide6.QtCore import QPoint, QRect, Qt, QTimer
from PySide6.QtWidgets import QApplication, QLabel, QWidget

from anlage.ui.kit.document import Document, part_of

FOLLOW_MS = 120  # a page may be scrolled under it
LEAST_PX, MOST_PX, APART_PX = 260, 420, 3


class Complaint(QLabel):
    """Says under the field that has the keyboard what is wrong there; every other field has its mark and its tip."""

    def __init__(self, document: Document, paths: Sequence[str], parent: QWidget) -> None:
        super().__init__(parent, objectName="floating")
        self.document, self.paths = document, tuple(paths)
        self._home: QWidget | None = parent
        parent.destroyed.connect(self._on_home_gone)
        self.setProperty("tone", "outside")
        self.setWordWrap(True)
        self.setMargin(6)
        self.setAttribute(Qt.WidgetAttribute.WA_TransparentForMouseEvents)
        self.hide()
        self._follow = QTimer(self, interval=FOLLOW_MS)
        self._follow.timeout.connect(self.refresh)
        for part in dict.fromkeys(map(part_of, self.paths)):
            document.part(part).connect(self.refresh)
        document.reader.units_changed.connect(self.refresh)
        application = QApplication.instance()
        assert isinstance(application, QApplication)
        application.focusChanged.connect(self.refresh)

    def refresh(self) -> None:
        """Show the complaint about the leaf whose field has the keyboard."""
        field = QApplication.focusWidget()
        path = getattr(field, "path", "")
        fault = self.document.complaints().get(path) if path in self.paths else None
        if fault is None or field is None or getattr(field, "document", None) is not self.document:
            self._put_away()
            return
        self.setText(f"{fault.what}; {fault.mend}")
        self._settle(field)
        self._follow.start()

    def _put_away(self) -> None:
        """Hide, and belong again to what it goes with."""
        self._follow.stop()
        if self._home is not None and self.parent() is not self._home:
            self.setParent(self._home)
        self.hide()

    def _on_home_gone(self) -> None:
        """Go with what it belongs to, also while it lies over the window."""
        self._home = None
        self._follow.stop()
        self.deleteLater()

    def _settle(self, field: QWidget) -> None:
        """Lie under the field, or over it where the window ends."""
        window = field.window()
        if self.parent() is not window:
            self.setParent(window)
        width = min(max(field.width(), LEAST_PX), MOST_PX, window.width() - 2 * APART_PX)
        height = self.heightForWidth(width)
        at = field.mapTo(window, QPoint(0, field.height() + APART_PX))
        if at.y() + height > window.height():
            at = field.mapTo(window, QPoint(0, -height - APART_PX))
        left = max(min(at.x(), window.width() - width - APART_PX), APART_PX)
        top = max(min(at.y(), window.height() - height - APART_PX), 0)
        self.setGeometry(QRect(left, top, width, height))
        self.show()
        self.raise_()
