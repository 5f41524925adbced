"""The scale beside whatever is coloured by heat: the ramp with the numbers at its ends."""

from collections.abc import Callable

from PySide6.QtCore import QSize, Qt
from PySide6.QtGui import QPainter, QPaintEvent
from PySide6.QtWidgets import QSizePolicy, QWidget

from anlage.ui.look import font
from anlage.ui.reader import Reader

HEIGHT_PX, BAR_PX = 22, 10


class HeatScale(QWidget):
    """The temper ramp over the energies of the passes."""

    def __init__(
        self, reader: Reader, span: Callable[[], tuple[float, float] | None], say: Callable[[float], str]
    ) -> None:
        super().__init__()
        self.reader, self._span, self._say = reader, span, say
        self.setSizePolicy(QSizePolicy.Policy.Expanding, QSizePolicy.Policy.Fixed)
        self.setAccessibleName("Scale of the heat colours")
        reader.look_changed.connect(self.update)
        reader.units_changed.connect(self.update)

    def sizeHint(self) -> QSize:
        return QSize(300, HEIGHT_PX)

    def paintEvent(self, event: QPaintEvent) -> None:
        span = self._span()
        if span is None:
            return
        painter, look = QPainter(self), self.reader.look
        painter.setFont(font("note"))
        painter.setPen(look.colour["muted"])
        low, high = self._say(span[0]), self._say(span[1])
        left = painter.fontMetrics().horizontalAdvance(low) + 10
        right = self.width() - painter.fontMetrics().horizontalAdvance(high) - 10
        painter.drawText(self.rect(), int(Qt.AlignmentFlag.AlignVCenter | Qt.AlignmentFlag.AlignLeft), low)
        painter.drawText(self.rect(), int(Qt.AlignmentFlag.AlignVCenter | Qt.AlignmentFlag.AlignRight), high)
        top, width = (self.height() - BAR_PX) // 2, right - left
        for x in range(max(width, 0)):
            value = span[0] + (span[1] - span[0]) * x / max(width - 1, 1)
            painter.fillRect(left + x, top, 1, BAR_PX, look.heat(value, span))
        painter.setPen(look.colour["ink"])
        painter.drawRect(left, top, width, BAR_PX)
