"""Widgets in lines like the words of a sentence: as many side by side as there is room for."""

from PySide6.QtCore import QPoint, QRect, QSize, Qt
from PySide6.QtWidgets import QLayout, QLayoutItem, QSizePolicy, QWidget

from anlage.ui.kit.guard import guarded

LEAST_PX = 400  # of a line: what lies around asks how high it is at its least width


@guarded
class FlowLayout(QLayout):
    """Lays its widgets out from left to right, and goes on in the next line where one is full."""

    def __init__(self, parent: QWidget | None = None, *, gap_px: int = 6, lead_px: int = 4) -> None:
        super().__init__(parent)
        self._items: list[QLayoutItem] = []
        self._shown: list[tuple[QLayoutItem, QSize]] | None = None  # with what each asks for; none until it is asked
        self._heights: dict[int, int] = {}
        self._gap, self._lead = gap_px, lead_px
        self.setContentsMargins(0, 0, 0, 0)

    def addItem(self, item: QLayoutItem) -> None:
        self._items.append(item)
        self.invalidate()

    def invalidate(self) -> None:
        """Ask every widget anew for its size; what lies around asks for the same height a dozen times in between."""
        self._shown = None
        self._heights.clear()
        super().invalidate()

    def count(self) -> int:
        return len(self._items)

    def itemAt(self, index: int) -> QLayoutItem | None:  # type: ignore[override]
        return self._items[index] if 0 <= index < len(self._items) else None

    def takeAt(self, index: int) -> QLayoutItem | None:  # type: ignore[override]
        if not 0 <= index < len(self._items):
            return None
        self._shown = None  # what is taken dies with whoever takes it
        self._heights.clear()
        return self._items.pop(index)

    def expandingDirections(self) -> Qt.Orientation:
        return Qt.Orientation(0)

    def hasHeightForWidth(self) -> bool:
        return True

    def heightForWidth(self, width: int) -> int:
        if width not in self._heights:
            self._heights[width] = self._laid(QRect(0, 0, width, 0), place=False)
        return self._heights[width]

    def setGeometry(self, rect: QRect) -> None:
        super().setGeometry(rect)
        self._laid(rect, place=True)

    def sizeHint(self) -> QSize:
        return self.minimumSize()

    def minimumSize(self) -> QSize:
        sizes = [size for _, size in self._asked()]
        widest = max((size.width() for size in sizes), default=0)
        return QSize(max(widest, LEAST_PX if len(sizes) > 1 else 0), max((size.height() for size in sizes), default=0))

    def _asked(self) -> list[tuple[QLayoutItem, QSize]]:
        """Return the widgets that show, with the sizes that they ask for."""
        if self._shown is None:
            self._shown = [(item, item.sizeHint()) for item in self._items if not item.isEmpty()]
        return self._shown

    def _laid(self, rect: QRect, *, place: bool) -> int:
        """Return the height that the lines need; put every widget at its place if asked."""
        line: list[tuple[QLayoutItem, QSize]] = []
        x = y = 0
        for item, asked in self._asked():
            size = asked.boundedTo(QSize(max(rect.width(), 1), 10_000))
            if line and x + size.width() > rect.width():
                y += self._line(rect, line, y, place=place) + self._lead
                line, x = [], 0
            line.append((item, size))
            x += size.width() + self._gap
        return y + self._line(rect, line, y, place=place)

    def _line(self, rect: QRect, line: list[tuple[QLayoutItem, QSize]], y: int, *, place: bool) -> int:
        height, x = max((size.height() for _, size in line), default=0), 0
        for item, size in line:
            if place:
                at = QPoint(rect.x() + x, rect.y() + y + (height - size.height()) // 2)
                item.setGeometry(QRect(at, size))
            x += size.width() + self._gap
        return height


class FlowWidget(QWidget):
    """A widget of such lines, as high as they need."""

    def __init__(self) -> None:
        super().__init__()
        self.flow = FlowLayout(self)
        policy = QSizePolicy(QSizePolicy.Policy.Preferred, QSizePolicy.Policy.Minimum)
        policy.setHeightForWidth(True)
        self.setSizePolicy(policy)
