"""The scale beside whatever is coloured by heat: the ramp with the numbers at its ends."""

from collections.abc import Callable
from functools import cache

from PySide6.QtCore import QRect, QSize, Qt
from PySide6.QtGui import QColor, QImage, QPainter, QPaintEvent
from PySide6.QtWidgets import QSizePolicy, QWidget

from anlage.data.look import temper_ramp
from anlage.ui.kit.guard import guarded
from anlage.ui.kit.look import font
from anlage.ui.kit.reader import Reader

HEIGHT_PX, BAR_PX = 22, 10


@cache
def _ramp() -> QImage:
    colours = temper_ramp()
    found = QImage(len(colours), 1, QImage.Format.Format_RGB32)
    for place, colour in enumerate(colours):
        found.setPixelColor(place, 0, QColor(colour))
    return found


@guarded
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
        painter.drawImage(QRect(left, top, width, BAR_PX), _ramp())
        painter.setPen(look.colour["ink"])
        painter.drawRect(left, top, width, BAR_PX)
