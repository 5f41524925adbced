"""The shapes of the verdicts: told apart by form, not by colour alone."""

from PySide6.QtCore import QPointF, QRectF, Qt
from PySide6.QtGui import QColor, QPainter, QPen, QPolygonF

MARK_PX = 10


def draw_mark(painter: QPainter, rect: QRectF, verdict: str, colour: QColor) -> None:
    """Draw the shape of a verdict: a disc inside, a triangle outside, an open diamond unproven."""
    painter.setRenderHint(QPainter.RenderHint.Antialiasing)
    painter.setPen(QPen(colour, 1.6))
    painter.setBrush(colour)
    if verdict == "inside":
        painter.drawEllipse(rect.adjusted(1, 1, -1, -1))
    elif verdict == "outside":
        painter.drawPolygon(QPolygonF([QPointF(rect.center().x(), rect.top()), rect.bottomRight(), rect.bottomLeft()]))
    else:
        painter.setBrush(Qt.BrushStyle.NoBrush)
        middle = rect.center()
        corners = [QPointF(middle.x(), rect.top()), QPointF(rect.right(), middle.y())]
        corners += [QPointF(middle.x(), rect.bottom()), QPointF(rect.left(), middle.y())]
        painter.drawPolygon(QPolygonF(corners))
