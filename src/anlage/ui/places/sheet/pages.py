"""The pages under each other, as they are printed."""

from collections.abc import Sequence

from PySide6.QtCore import QRectF, QSize, Qt
from PySide6.QtGui import QPainter, QPaintEvent
from PySide6.QtWidgets import (
    QSizePolicy,
    QWidget,
)

from anlage.core.drawing import DisplayList
from anlage.core.drawing.page import PAPERS
from anlage.ui.kit.guard import guarded
from anlage.ui.kit.look import Look
from anlage.ui.picture.painter import Placed, paint

GAP_PX, MOST_PX = 14, 900


@guarded
class Pages(QWidget):
    """The pages under each other, always on white paper as they are printed."""

    def __init__(self) -> None:
        super().__init__()
        self.pages: Sequence[DisplayList] = ()
        self.paper_look = Look.of("light")
        self.setSizePolicy(QSizePolicy.Policy.Expanding, QSizePolicy.Policy.MinimumExpanding)

    def show_pages(self, pages: Sequence[DisplayList]) -> None:
        """Show other pages."""
        self.pages = pages
        self.setMinimumHeight(self._height())
        self.update()

    def _scale(self) -> float:
        widest = self.pages[0].high[0] if self.pages else PAPERS["a4"][0]
        return min(self.width() - 2 * GAP_PX, MOST_PX) / widest

    def _height(self) -> int:
        return round(sum(page.high[1] * self._scale() + GAP_PX for page in self.pages)) + GAP_PX

    def resizeEvent(self, event: object) -> None:
        self.setMinimumHeight(self._height())

    def sizeHint(self) -> QSize:
        return QSize(600, 600)

    def paintEvent(self, event: QPaintEvent) -> None:
        painter, scale, y = QPainter(self), self._scale(), float(GAP_PX)
        for page in self.pages:
            width, height = page.high[0] * scale, page.high[1] * scale
            rect = QRectF((self.width() - width) / 2, y, width, height)
            if rect.intersects(QRectF(event.rect())):
                painter.fillRect(rect, Qt.GlobalColor.white)
                painter.setPen(self.paper_look.colour["edge"])
                painter.drawRect(rect)
                painter.save()
                painter.setClipRect(rect)
                paint(Placed(page, rect.bottomLeft(), scale), painter, self.paper_look)
                painter.restore()
            y += height + GAP_PX
