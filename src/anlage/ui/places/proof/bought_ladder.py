"""What a record buys, variable by variable, each on its own scale."""

from PySide6.QtCore import QPointF, QRect, QSize, Qt
from PySide6.QtGui import QPainter, QPaintEvent, QShowEvent
from PySide6.QtWidgets import (
    QSizePolicy,
    QWidget,
)

from anlage.core.drawing.rung import rung
from anlage.session.judging.bought import BoughtLine, bought_by, why_nothing
from anlage.ui.kit.document import Document
from anlage.ui.kit.guard import guarded
from anlage.ui.kit.look import PX_PER_MM, font
from anlage.ui.kit.place import Rules
from anlage.ui.picture.painter import Placed, paint

LADDER_PX, ROW_PX, NAME_PX = 392, 36, 172
LEAST_LADDER_PX = 300


@guarded
class BoughtLadder(QWidget):
    """Every variable that the record limits, with the allowed band on its own scale."""

    def __init__(self, document: Document, rules: Rules) -> None:
        super().__init__()
        self.document, self._rules = document, rules
        self.rows: tuple[BoughtLine, ...] = ()
        self.why = ""
        self.setSizePolicy(QSizePolicy.Policy.Expanding, QSizePolicy.Policy.MinimumExpanding)
        document.reader.look_changed.connect(self.update)

    def showEvent(self, event: QShowEvent) -> None:
        super().showEvent(event)
        self.refresh()

    def refresh(self) -> None:
        """Work out what the record buys, when it is looked at."""
        if not self.isVisible():
            return
        pqr = self.document.value
        codes = self._rules.codes()
        self.rows, self.why = bought_by(pqr, self.document.system, codes), why_nothing(pqr, codes)
        self.setMinimumHeight(ROW_PX * self._lines())
        said = [f"{row.code} {row.title}: {row.text}".strip() for row in self.rows]
        self.setAccessibleName("What the record buys")
        self.setAccessibleDescription("; ".join([self.why, *said]))
        self.update()

    def sizeHint(self) -> QSize:
        return QSize(LEAST_LADDER_PX - 20, ROW_PX * self._lines())

    def _lines(self) -> int:
        """Return how many lines it takes: its head, as long as there are codes, a line for each, and the variables."""
        return self._head() + len({row.code for row in self.rows if row.code}) + len(self.rows)

    def _head(self) -> int:
        return 1 + max(1, len(self.document.value.header.codes))

    def paintEvent(self, event: QPaintEvent) -> None:
        painter, look = QPainter(self), self.document.reader.look
        painter.fillRect(self.rect(), look.colour["sheet"])
        painter.setPen(look.colour["ink"])
        painter.setFont(font("title", strong=True))
        painter.drawText(QRect(12, 0, self.width() - 24, ROW_PX), int(Qt.AlignmentFlag.AlignVCenter), "What it buys")
        painter.setFont(font("note"))
        painter.setPen(look.colour["unproven" if self.why else "muted"])
        flags = int(Qt.AlignmentFlag.AlignTop | Qt.TextFlag.TextWordWrap)
        said = self.why or "Ranges of the variables that its code limits; nonessential ones are free."
        painter.drawText(QRect(12, ROW_PX - 2, self.width() - 24, ROW_PX * (self._head() - 1)), flags, said)
        place, code = self._head(), ""
        for row in self.rows:
            if row.code != code:
                code = row.code
                self._code(painter, QRect(0, ROW_PX * place, self.width(), ROW_PX), code)
                place += 1
            self._row(painter, QRect(0, ROW_PX * place, self.width(), ROW_PX), row)
            place += 1

    def _code(self, painter: QPainter, rect: QRect, name: str) -> None:
        painter.setPen(self.document.reader.look.colour["ink"])
        painter.setFont(font(strong=True))
        painter.drawText(rect.adjusted(12, 0, -12, 0), int(Qt.AlignmentFlag.AlignVCenter), f"By {name}")

    def _row(self, painter: QPainter, rect: QRect, row: BoughtLine) -> None:
        look = self.document.reader.look
        painter.setPen(look.colour["line"])
        painter.drawLine(rect.topLeft(), rect.topRight())
        painter.setPen(look.colour["ink"])
        painter.setFont(font())
        centred = int(Qt.AlignmentFlag.AlignVCenter)
        name = QRect(rect.left() + 12, rect.top(), min(NAME_PX, rect.width() // 2), rect.height())
        shown = painter.fontMetrics().elidedText(row.title, Qt.TextElideMode.ElideRight, name.width())
        painter.drawText(name, centred, shown)
        room = QRect(name.right() + 8, rect.top(), rect.width() - name.right() - 20, rect.height())
        picture = rung(None, row.sure, row.possible, room.width() * 0.3 / PX_PER_MM)
        if picture is not None:
            corner = QPointF(room.left(), room.center().y() + picture.high[1] * PX_PER_MM / 2 + 5)
            paint(Placed(picture, corner, PX_PER_MM), painter, look)
            room.setLeft(round(room.left() + room.width() * 0.3 + 8))
        painter.setPen(look.colour["unproven" if row.is_unproven else "ink"])
        painter.setFont(font("note"))
        text = painter.fontMetrics().elidedText(row.text, Qt.TextElideMode.ElideRight, room.width())
        painter.drawText(room, centred, text)
