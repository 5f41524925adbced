"""Worked examples of a rule as rungs: the coupon as a block, what it allows as a line over it, both in words."""

from collections.abc import Sequence

from PySide6.QtCore import QPointF, QRect, QSize, Qt
from PySide6.QtGui import QFontMetrics, QPainter, QPaintEvent, QResizeEvent
from PySide6.QtWidgets import QSizePolicy, QWidget

from anlage.core.drawing.rung import rung
from anlage.session.rulebook.entries import ExampleLine
from anlage.ui.kit.guard import guarded
from anlage.ui.kit.look import PX_PER_MM, font
from anlage.ui.kit.reader import Reader
from anlage.ui.picture.painter import Placed, paint

BAND_PX, BAND_SHARE, GAP_PX, PAD_PX = 30, 0.36, 14, 7
WRAP = int(Qt.TextFlag.TextWordWrap)


@guarded
class ExamplesView(QWidget):
    """Every example of a rule under each other."""

    def __init__(self, reader: Reader) -> None:
        super().__init__()
        self.reader = reader
        self.lines: Sequence[ExampleLine] = ()
        self.setSizePolicy(QSizePolicy.Policy.Expanding, QSizePolicy.Policy.Fixed)
        self.setAccessibleName("Worked examples")
        reader.look_changed.connect(self.update)

    def show_lines(self, lines: Sequence[ExampleLine]) -> None:
        """Show other examples."""
        self.lines = lines
        self.setAccessibleDescription("; ".join(f"{each.coupon}: {each.allowed}" for each in lines))
        self.setFixedHeight(self._height())
        self.update()

    def resizeEvent(self, event: QResizeEvent) -> None:
        super().resizeEvent(event)
        self.setFixedHeight(self._height())

    def sizeHint(self) -> QSize:
        return QSize(480, self._height())

    def _height(self) -> int:
        return sum(self._parts(each)[2] for each in self.lines) + 1

    def _parts(self, line: ExampleLine) -> tuple[int, int, int]:
        """Return how high the coupon, what it allows and the whole row are."""
        width = max(self.width(), 300) - 2 * PAD_PX
        note, body = QFontMetrics(font("note")), QFontMetrics(font("body"))
        coupon = note.boundingRect(QRect(0, 0, width, 1000), WRAP, line.coupon).height()
        room = self._room(line, width)
        allowed = body.boundingRect(QRect(0, 0, room, 1000), WRAP, line.allowed).height()
        allowed = max(allowed, BAND_PX if self._has_bands(line) else 0)
        return coupon, allowed, coupon + allowed + 2 * PAD_PX

    def _has_bands(self, line: ExampleLine) -> bool:
        return rung(line.recorded, line.sure, line.possible, 50.0) is not None

    def _room(self, line: ExampleLine, width: int) -> int:
        return round(width * (1 - BAND_SHARE)) - GAP_PX if self._has_bands(line) else width

    def paintEvent(self, event: QPaintEvent) -> None:
        painter, look, top = QPainter(self), self.reader.look, 0
        painter.fillRect(self.rect(), look.colour["sheet"])
        for line in self.lines:
            coupon, allowed, height = self._parts(line)
            painter.setPen(look.colour["line"])
            painter.drawLine(0, top + height, self.width(), top + height)
            room = QRect(PAD_PX, top + PAD_PX, self.width() - 2 * PAD_PX, coupon)
            painter.setFont(font("note"))
            painter.setPen(look.colour["muted"])
            painter.drawText(room, WRAP, line.coupon)
            text = QRect(room.left(), room.bottom(), room.width(), allowed)
            width = room.width() * BAND_SHARE
            picture = rung(line.recorded, line.sure, line.possible, width / PX_PER_MM)
            if picture is not None:
                corner = QPointF(text.left(), text.center().y() + picture.high[1] * PX_PER_MM / 2)
                paint(Placed(picture, corner, PX_PER_MM), painter, look)
                text.setLeft(round(text.left() + width + GAP_PX))
            painter.setFont(font("body"))
            painter.setPen(look.colour["unproven" if line.allowed.startswith("unproven") else "ink"])
            painter.drawText(text, WRAP | int(Qt.AlignmentFlag.AlignVCenter), line.allowed)
            top += height
