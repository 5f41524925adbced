"""A picture that is edited directly: handles taken by mouse or keyboard, values typed where they stand."""

from PySide6.QtCore import QEvent, QPointF, QRectF, QSize, Qt, Signal
from PySide6.QtGui import (
    QContextMenuEvent,
    QFocusEvent,
    QGuiApplication,
    QKeyEvent,
    QMouseEvent,
    QPainter,
    QPaintEvent,
    QWheelEvent,
)
from PySide6.QtWidgets import QMenu, QSizePolicy, QWidget

from anlage.ui.kit.fields import PAGE_STEPS
from anlage.ui.kit.guard import guarded
from anlage.ui.kit.look import PX_PER_MM, font
from anlage.ui.kit.reader import Reader
from anlage.ui.picture.canvas import Canvas, Manner
from anlage.ui.picture.lens import Lens, Matters
from anlage.ui.picture.painter import Placed
from anlage.ui.picture.presenter import Presenter

MARGIN_PX = 14
PAN_PX = 40.0  # by one press of an arrow key
CLICK = 120  # what one click of a wheel turns
_STEPS = {
    Qt.Key.Key_Up: 1, Qt.Key.Key_Right: 1, Qt.Key.Key_Down: -1, Qt.Key.Key_Left: -1,
    Qt.Key.Key_PageUp: PAGE_STEPS, Qt.Key.Key_PageDown: -PAGE_STEPS,
}  # fmt: skip
_WAYS = {
    Qt.Key.Key_Up: QPointF(0.0, PAN_PX), Qt.Key.Key_Down: QPointF(0.0, -PAN_PX),
    Qt.Key.Key_Left: QPointF(PAN_PX, 0.0), Qt.Key.Key_Right: QPointF(-PAN_PX, 0.0),
}  # fmt: skip


@guarded
class PictureView(QWidget):
    """Shows the picture of a presenter: nearer and farther by the wheel, moved by its button or the arrow keys.

    Signals
    -------
    editing_asked(target, rect, text) : a value is to be typed where it stands; `text` was typed already
    area_opened(target) : an area was clicked twice
    """

    editing_asked = Signal(str, QRectF, str)
    area_opened = Signal(str)

    def __init__(
        self, presenter: Presenter, reader: Reader, name: str, matters: Matters = lambda _width, _height: None
    ) -> None:
        super().__init__()
        self.lens = Lens(matters)
        self._moving_from: QPointF | None = None
        self.presenter, self.reader = presenter, reader
        self._placed: Placed | None = None
        self._canvas = Canvas()
        self._outdated = True
        self.held = ""
        self._dragging = False
        self._picked = ""  # the area that the mouse went down on
        self.setAccessibleName(name)
        self.setFocusPolicy(Qt.FocusPolicy.StrongFocus)
        self.setMouseTracking(True)
        self.setAttribute(Qt.WidgetAttribute.WA_OpaquePaintEvent)  # nothing under it is painted for it
        self.setSizePolicy(QSizePolicy.Policy.Expanding, QSizePolicy.Policy.Expanding)
        reader.units_changed.connect(self.refresh)
        reader.look_changed.connect(self.update)

    def sizeHint(self) -> QSize:
        return QSize(560, 400)

    def minimumSizeHint(self) -> QSize:
        return QSize(220, 160)

    @property
    def placed(self) -> Placed | None:
        """The picture as the document says now; drawn anew at most once between two paintings."""
        if self._outdated:
            self._outdated = False
            self._draw()
        return self._placed

    def refresh(self) -> None:
        """Draw what the document says now, when it is next looked at."""
        self._outdated = True
        self.update()

    def _draw(self) -> None:
        placed = self.lens.place(self.presenter.picture, self._room(), self.presenter.heat())
        if placed is None:
            if not self.presenter.is_stale():
                self._placed = None
        elif self._dragging and self._placed is not None:
            self._placed = Placed(placed.picture, self._placed.origin, PX_PER_MM, placed.heat)
        else:
            self._placed = placed
        if self.held and (self._placed is None or self.held not in self._placed.handles()):
            self.held = ""
        self._tell()

    def _room(self) -> QRectF:
        return QRectF(self.rect()).adjusted(MARGIN_PX, MARGIN_PX, -MARGIN_PX, -MARGIN_PX)

    def resizeEvent(self, event: QEvent) -> None:
        super().resizeEvent(event)
        self.refresh()

    def paintEvent(self, event: QPaintEvent) -> None:
        placed, painter = self.placed, QPainter(self)
        look = self.reader.look
        if placed is None:
            painter.fillRect(self.rect(), look.colour["sheet"])
            painter.setPen(look.colour["muted"])
            painter.setFont(font("title"))
            flags = Qt.AlignmentFlag.AlignCenter | Qt.TextFlag.TextWordWrap
            painter.drawText(self.rect().adjusted(40, 20, -40, -20), flags, self.presenter.empty_text())
        else:
            painter.drawPixmap(0, 0, self._canvas.painted(placed, self.manner()))
        painter.setPen(look.colour["accent" if self.hasFocus() else "line"])
        painter.drawRect(self.rect().adjusted(0, 0, -1, -1))

    def manner(self) -> Manner:
        """Return how the picture is painted now."""
        dimmed = self.presenter.is_stale()
        return Manner(self.size(), self.devicePixelRatioF(), self.reader.look, self.held, dimmed)

    # Mouse -----------------------------------------------------------------------------------

    def wheelEvent(self, event: QWheelEvent) -> None:
        if self.placed is None or not event.angleDelta().y():
            event.ignore()
            return
        self.lens.nearer(event.angleDelta().y() / CLICK, self.placed, event.position(), self._room())
        self.refresh()

    def go_nearer(self, clicks: float) -> None:
        """Go nearer to the middle of what is in view, or farther for clicks below 0."""
        if self.placed is not None:
            self.lens.nearer(clicks, self.placed, self._room().center(), self._room())
            self.refresh()

    def show_first(self) -> None:
        """Show what is shown at first."""
        self.lens.as_at_first()
        self.refresh()

    def show_whole(self) -> None:
        """Show all of the picture."""
        self.lens.whole()
        self.refresh()

    def _move_view(self, by: QPointF) -> None:
        if self.placed is not None:
            self.lens.moved(self.placed, by, self._room())
            self.refresh()

    def mousePressEvent(self, event: QMouseEvent) -> None:
        if event.button() == Qt.MouseButton.MiddleButton:
            self._moving_from = event.position()
            self.setCursor(Qt.CursorShape.ClosedHandCursor)
        if event.button() != Qt.MouseButton.LeftButton or self.placed is None:
            return
        target = self.placed.handle_at(event.position())
        if target:
            self._hold(target)
            self._dragging = True
            self.presenter.take(target, self.placed.in_work(event.position()))
        elif self.placed.value_at(event.position()) in self.placed.handles():
            self._hold(self.placed.value_at(event.position()))
        elif area := self.placed.area_at(event.position()):
            self.presenter.choose(area)
            self._picked = area

    def mouseMoveEvent(self, event: QMouseEvent) -> None:
        if self.placed is None:
            return
        if self._dragging:
            fine = bool(event.modifiers() & Qt.KeyboardModifier.ShiftModifier)
            self.presenter.drag(self.placed.in_work(event.position()), fine=fine)
            return
        if self._moving_from is not None:
            by, self._moving_from = event.position() - self._moving_from, event.position()
            self._move_view(by)
            return
        over = self.placed.handle_at(event.position())
        value = self.placed.value_at(event.position())
        self.setCursor(
            Qt.CursorShape.SizeAllCursor
            if over
            else Qt.CursorShape.IBeamCursor
            if value
            else Qt.CursorShape.ArrowCursor
        )
        self.setToolTip(self.presenter.describe(over or value) if over or value else "")

    def mouseReleaseEvent(self, event: QMouseEvent) -> None:
        picked, self._picked = self._picked, ""
        self._moving_from = None
        if self._dragging:
            self._dragging = False
            self.presenter.release()
            self.refresh()
        elif picked and self.placed is not None:
            area = self.placed.area_at(event.position())
            if area and area != picked:
                self.presenter.dropped(picked, area)

    def mouseDoubleClickEvent(self, event: QMouseEvent) -> None:
        if self.placed is None:
            return
        position = event.position()
        target = self.placed.value_at(position) or self.placed.handle_at(position)
        if target in self.placed.handles():
            self._ask(target, "")
        elif area := self.placed.area_at(position):
            self.area_opened.emit(area)

    # Keyboard --------------------------------------------------------------------------------

    def focusNextPrevChild(self, forward: bool) -> bool:  # noqa: FBT001 - Qt's signature
        """Walk the handles before leaving the picture."""
        handles = self.placed.handles() if self.placed else ()
        place = handles.index(self.held) if self.held in handles else (-1 if forward else len(handles))
        following = place + (1 if forward else -1)
        if self.hasFocus() and 0 <= following < len(handles):
            self._hold(handles[following])
            self._bring_into_view(handles[following])
            return True
        self._hold("")
        return super().focusNextPrevChild(forward)

    def _bring_into_view(self, target: str) -> None:
        """Move what is near so that a handle is seen."""
        at = self.placed.handle_position(target) if self.placed else None
        if at is not None:
            room = self._room()
            seen = QPointF(min(max(at.x(), room.left()), room.right()), min(max(at.y(), room.top()), room.bottom()))
            if seen != at:
                self._move_view(room.center() - at)

    def keyPressEvent(self, event: QKeyEvent) -> None:
        steps = _STEPS.get(Qt.Key(event.key()))
        plain = not event.modifiers() & (Qt.KeyboardModifier.ControlModifier | Qt.KeyboardModifier.AltModifier)
        if self.held and steps and plain:
            self.presenter.step(self.held, steps)
        elif self.held and event.key() in (Qt.Key.Key_Return, Qt.Key.Key_Enter, Qt.Key.Key_F2):
            self._ask(self.held, "")
        elif self.held and plain and event.text() and (event.text().isdigit() or event.text() == "."):
            self._ask(self.held, event.text())
        elif self.held and event.key() == Qt.Key.Key_Escape:
            self._hold("")
        elif event.text() in ("+", "-") and plain:
            self.go_nearer(1.0 if event.text() == "+" else -1.0)
        elif event.key() == Qt.Key.Key_Home:
            self.show_first()
        elif event.key() == Qt.Key.Key_End:
            self.show_whole()
        elif not self.held and plain and (way := _WAYS.get(Qt.Key(event.key()))) is not None:
            self._move_view(way)
        else:
            super().keyPressEvent(event)

    def focusInEvent(self, event: QFocusEvent) -> None:
        super().focusInEvent(event)
        if event.reason() in (Qt.FocusReason.TabFocusReason, Qt.FocusReason.BacktabFocusReason) and self.placed:
            handles = self.placed.handles()
            if handles:
                self._hold(handles[0] if event.reason() == Qt.FocusReason.TabFocusReason else handles[-1])
        self.update()

    def focusOutEvent(self, event: QFocusEvent) -> None:
        super().focusOutEvent(event)
        self.update()

    # -----------------------------------------------------------------------------------------

    def contextMenuEvent(self, event: QContextMenuEvent) -> None:
        menu = QMenu(self)
        menu.addAction("Nearer\t+", lambda: self.go_nearer(1.0))
        menu.addAction("Farther\t-", lambda: self.go_nearer(-1.0))
        menu.addAction("As at first\tHome", self.show_first)
        menu.addAction("Whole picture\tEnd", self.show_whole)
        menu.addSeparator()
        menu.addAction("Copy as picture", self.copy_image)
        menu.addAction("Copy as SVG", self.copy_svg)
        menu.exec(event.globalPos())

    def copy_image(self) -> None:
        """Put the picture on the clipboard as an image."""
        QGuiApplication.clipboard().setPixmap(self.grab())

    def copy_svg(self) -> None:
        """Put the picture on the clipboard as SVG text."""
        QGuiApplication.clipboard().setText(self.presenter.svg())

    def _hold(self, target: str) -> None:
        self.held = target
        self._tell()
        self.update()

    def _tell(self) -> None:
        self.setAccessibleDescription(self.presenter.describe(self.held) if self.held else "")

    def _ask(self, target: str, text: str) -> None:
        if not target or self.placed is None:
            return
        self._hold(target)
        rect = self.placed.value_rect(target) or QRectF(self.rect().center(), self.rect().center())
        self.editing_asked.emit(target, rect, text)


def inside(rect: QRectF, room: QRectF) -> QPointF:
    """Return the corner at which a rectangle lies wholly within a room."""
    x = min(max(rect.left(), room.left()), room.right() - rect.width())
    y = min(max(rect.top(), room.top()), room.bottom() - rect.height())
    return QPointF(x, y)
