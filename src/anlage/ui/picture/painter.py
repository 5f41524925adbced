"""Display lists on screen: one function that paints, one that finds what lies under a point."""

import math

from msgspec import Struct
from PySide6.QtCore import QLineF, QPointF, QRectF
from PySide6.QtGui import QFont, QPainter, QPainterPath, QPen, QPolygonF

from anlage.core.drawing import DisplayList, Marker, Path, Point, Text, arrow_head
from anlage.ui.kit.look import FAMILY, Look, measure, text_px

REACH_PX = 9.0  # a handle is taken hold of from this far
ROOM_PX = 3.0  # round a text, where a click still means it


class Placed(Struct, frozen=True):
    """A picture in its place on screen: where the work's origin lies, and the pixels of a paper millimetre."""

    picture: DisplayList
    origin: QPointF
    px_per_mm: float
    heat: tuple[float, float] | None = None

    @classmethod
    def centred(
        cls, picture: DisplayList, rect: QRectF, px_per_mm: float, heat: tuple[float, float] | None = None
    ) -> "Placed":
        """Return the picture in the middle of a rectangle."""
        (left, low), (right, high) = picture.low, picture.high
        per_work = picture.scale * px_per_mm
        size = QPointF((right - left) * per_work, (high - low) * per_work)
        corner = QPointF(rect.center().x() - size.x() / 2, rect.center().y() + size.y() / 2)
        return cls(picture, corner - QPointF(left * per_work, -low * per_work), px_per_mm, heat)

    @classmethod
    def about(
        cls, picture: DisplayList, rect: QRectF, centre: Point, px_per_mm: float, heat: tuple[float, float] | None
    ) -> "Placed":
        """Return the picture with a point of it in the middle of a rectangle, as far as that leaves no room empty."""
        placed = cls.centred(picture, rect, px_per_mm, heat)
        (left, low), (right, high) = picture.low, picture.high
        wanted = rect.center() - placed.on_screen(centre)
        corner, end = placed.on_screen((left, high)), placed.on_screen((right, low))
        shift = QPointF(
            _kept(wanted.x(), rect.right() - end.x(), rect.left() - corner.x()),
            _kept(wanted.y(), rect.bottom() - end.y(), rect.top() - corner.y()),
        )
        return cls(picture, placed.origin + shift, px_per_mm, heat)

    def on_screen(self, point: Point) -> QPointF:
        """Return where a point of the work lies."""
        per_work = self.picture.scale * self.px_per_mm
        return QPointF(self.origin.x() + point[0] * per_work, self.origin.y() - point[1] * per_work)

    def in_work(self, position: QPointF) -> Point:
        """Return the point of the work under a position."""
        per_work = self.picture.scale * self.px_per_mm
        return ((position.x() - self.origin.x()) / per_work, (self.origin.y() - position.y()) / per_work)

    def handles(self) -> tuple[str, ...]:
        """Return the targets of all handles, in the picture's order."""
        found = (item.target for item in self.picture.items if isinstance(item, Marker) and item.kind == "handle")
        return tuple(dict.fromkeys(found))

    def text_rect(self, item: Text) -> QRectF:
        """Return where a text stands."""
        at, k = self.on_screen(item.at), self.px_per_mm
        width = measure(item.text, item.height_mm) * k
        left = at.x() + item.offset_mm[0] * k - {"start": 0.0, "middle": width / 2, "end": width}[item.anchor]
        base, height = at.y() - item.offset_mm[1] * k, item.height_mm * k
        return QRectF(left, base - height, width, height * 1.25)

    def value_rect(self, target: str) -> QRectF | None:
        """Return where the value of a target stands."""
        texts = (i for i in self.picture.items if isinstance(i, Text) and i.target == target)
        return next((self.text_rect(item) for item in texts), None)

    def handle_position(self, target: str) -> QPointF | None:
        """Return where the handle of a target lies; `None` when it has none."""
        found = (
            i.at for i in self.picture.items if isinstance(i, Marker) and i.kind == "handle" and i.target == target
        )
        return next((self.on_screen(at) for at in found), None)

    def handle_at(self, position: QPointF) -> str:
        """Return the handle within reach of a position, the nearest; "" for none."""
        near: list[tuple[float, str]] = []
        for item in self.picture.items:
            if isinstance(item, Marker) and item.kind == "handle":
                away = self.on_screen(item.at) - position
                near.append((math.hypot(away.x(), away.y()), item.target))
        distance, target = min(near, default=(math.inf, ""))
        return target if distance <= REACH_PX else ""

    def value_at(self, position: QPointF) -> str:
        """Return the target of the value under a position; "" for none."""
        for item in self.picture.items:
            if isinstance(item, Text) and item.target:
                rect = self.text_rect(item).adjusted(-ROOM_PX, -ROOM_PX, ROOM_PX, ROOM_PX)
                if rect.contains(position):
                    return item.target
        return ""

    def area_at(self, position: QPointF) -> str:
        """Return the target of the frontmost area under a position; "" for none."""
        for item in reversed(self.picture.items):
            if isinstance(item, Path) and item.closed and item.target and self._polygon(item).contains(position):
                return item.target
        return ""

    def _polygon(self, item: Path) -> QPainterPath:
        path = QPainterPath()
        path.addPolygon(QPolygonF([self.on_screen(point) for point in item.points]))
        path.closeSubpath()
        return path


def _kept(wanted: float, least: float, most: float) -> float:
    """Return a shift between its limits; none where the picture is smaller than its room."""
    return 0.0 if least > most else min(max(wanted, least), most)


def paint(placed: Placed, painter: QPainter, look: Look, *, held: str = "", dimmed: bool = False) -> None:
    """Paint a picture.

    Parameters
    ----------
    placed : the picture in its place
    painter : paints on a widget, an image or a page
    look : the theme
    held : target of the handle that is taken hold of, drawn full
    dimmed : the picture is no longer that of what is stated
    """
    painter.save()
    painter.setRenderHint(QPainter.RenderHint.Antialiasing)
    if dimmed:
        painter.setOpacity(0.35)
    strokes = _Strokes(placed, painter, look)
    for item in placed.picture.items:
        if not isinstance(item, Path):
            strokes.finish()
        match item:
            case Path():
                strokes.paint(item)
            case Text():
                _paint_text(placed, painter, look, item)
            case Marker():
                _paint_marker(placed, painter, look, item, held=bool(held) and item.target == held)
    strokes.finish()
    painter.restore()


class _Strokes:
    """Paints paths in their order; lines of one role that follow each other, as hatches do, are painted at once."""

    def __init__(self, placed: Placed, painter: QPainter, look: Look) -> None:
        self.placed, self.painter, self.look = placed, painter, look
        self._pens: dict[str, QPen] = {}
        self._lines: list[QLineF] = []
        self._role = ""

    def paint(self, item: Path) -> None:
        """Paint a path, or keep a line for the next that is none."""
        x0, y0 = self.placed.origin.x(), self.placed.origin.y()
        k = self.placed.picture.scale * self.placed.px_per_mm
        if not item.closed and len(item.points) == 2:
            (x1, y1), (x2, y2) = item.points
            if item.role != self._role:
                self.finish()
                self._role = item.role
            self._lines.append(QLineF(x0 + x1 * k, y0 - y1 * k, x0 + x2 * k, y0 - y2 * k))
            return
        self.finish()
        points = QPolygonF([QPointF(x0 + x * k, y0 - y * k) for x, y in item.points])
        self.painter.setPen(self._pen(item.role))
        if not item.closed:
            self.painter.drawPolyline(points)
            return
        heat, span = item.heat, self.placed.heat
        warm = heat is not None and span is not None
        self.painter.setBrush(self.look.heat(heat, span) if warm else self.look.brush(item.role))  # type: ignore[arg-type]
        self.painter.drawPolygon(points)

    def finish(self) -> None:
        """Paint the lines that were kept."""
        if self._lines:
            self.painter.setPen(self._pen(self._role))
            self.painter.drawLines(self._lines)
            self._lines = []

    def _pen(self, role: str) -> QPen:
        if role not in self._pens:
            self._pens[role] = self.look.pen(role, self.placed.px_per_mm)
        return self._pens[role]


def _paint_text(placed: Placed, painter: QPainter, look: Look, item: Text) -> None:
    face = QFont(FAMILY)
    face.setPixelSize(max(round(text_px(item.height_mm, placed.px_per_mm)), 1))
    if look.styles[item.role].strong:
        face.setWeight(QFont.Weight.DemiBold)
    painter.setFont(face)
    painter.setPen(look.brush(item.role).color())
    rect = placed.text_rect(item)
    painter.drawText(QPointF(rect.left(), rect.top() + item.height_mm * placed.px_per_mm), item.text)


def _paint_marker(placed: Placed, painter: QPainter, look: Look, item: Marker, *, held: bool) -> None:
    at, size = placed.on_screen(item.at), item.size_mm * placed.px_per_mm
    pen = look.pen(item.role, placed.px_per_mm)
    painter.setPen(pen)
    if item.kind == "handle":
        painter.setBrush(pen.color() if held else look.brush(item.role))
        radius = size / 2 * (1.35 if held else 1.0)
        painter.drawEllipse(at, radius, radius)
        return
    painter.setBrush(pen.color())
    k = placed.px_per_mm
    painter.drawPolygon(QPolygonF([QPointF(at.x() + u * k, at.y() - v * k) for u, v in arrow_head(item)]))
