"""Icons as strokes in the ink of the theme, sharp at every scale."""

from functools import cache

import rtoml
from PySide6.QtCore import QPointF, QRect, QRectF, QSize, Qt
from PySide6.QtGui import QColor, QIcon, QIconEngine, QPainter, QPen, QPixmap

from anlage.data.files import text_of
from anlage.ui.kit.guard import guarded

GRID = 24.0
STROKE = 1.7  # on the grid


@cache
def _strokes() -> dict[str, list[list[float]]]:
    strokes: dict[str, list[list[float]]] = rtoml.loads(text_of("icons.toml"))["strokes"]
    return strokes


def icon(name: str, colour: QColor, checked: QColor | None = None) -> QIcon:
    """Return an icon by name; `checked` is its ink on a button that is down."""
    return QIcon(_Strokes(name, colour, checked or colour))


@guarded
class _Strokes(QIconEngine):
    def __init__(self, name: str, colour: QColor, checked: QColor) -> None:
        super().__init__()
        self.name, self.colour, self.checked = name, colour, checked

    def clone(self) -> QIconEngine:
        return _Strokes(self.name, self.colour, self.checked)

    def paint(self, painter: QPainter, rect: QRect, mode: QIcon.Mode, state: QIcon.State) -> None:
        painter.save()
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        k = min(rect.width(), rect.height()) / GRID
        pen = QPen(self.checked if state == QIcon.State.On else self.colour, STROKE * k)
        pen.setCapStyle(Qt.PenCapStyle.RoundCap)
        pen.setJoinStyle(Qt.PenJoinStyle.RoundJoin)
        painter.setPen(pen)
        if mode == QIcon.Mode.Disabled:
            painter.setOpacity(0.4)
        corner = QRectF(rect).center() - QPointF(GRID / 2 * k, GRID / 2 * k)
        for stroke in _strokes()[self.name]:
            pairs = zip(stroke[::2], stroke[1::2], strict=True)
            painter.drawPolyline([corner + QPointF(x * k, y * k) for x, y in pairs])
        painter.restore()

    def pixmap(self, size: QSize, mode: QIcon.Mode, state: QIcon.State) -> QPixmap:
        found = QPixmap(size)
        found.fill(Qt.GlobalColor.transparent)
        painter = QPainter(found)
        self.paint(painter, QRect(0, 0, size.width(), size.height()), mode, state)
        painter.end()
        return found
