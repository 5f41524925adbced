"""How much of a picture is looked at: all of it, the part that matters as large as it goes, or nearer by the wheel."""

from collections.abc import Callable

from msgspec import Struct
from PySide6.QtCore import QPointF, QRectF

from anlage.core.drawing import DisplayList, Point
from anlage.ui.kit.look import PX_PER_MM
from anlage.ui.picture.painter import Placed

STEP = 1.25  # nearer by one click of the wheel
NEAREST = 40.0
SHARE = 0.78  # of the room that the part that matters takes
CLOSE = 1e-6
Make = Callable[[float, float], DisplayList | None]
Box = tuple[Point, Point]
Matters = Callable[[float, float], tuple[Box, float] | None]


class Lens(Struct):
    """What of a picture is in view.

    Parameters
    ----------
    matters : tells for a sheet the corners of the part that matters, in the work, and the scale of the whole picture;
        `None` for all of it
    zoom : how many times larger than as a whole; `None` for the part that matters
    centre : the point of the work in the middle of the view; `None` for the picture's own
    """

    matters: Matters = lambda _width, _height: None
    zoom: float | None = None
    centre: Point | None = None
    shown: float = 1.0

    def place(self, make: Make, room: QRectF, heat: tuple[float, float] | None) -> Placed | None:
        """Return the picture where it lies in a room; `None` when there is nothing to draw."""
        width, height = max(room.width(), 1) / PX_PER_MM, max(room.height(), 1) / PX_PER_MM
        near = self.matters(width, height) if self.zoom is None else None
        centre, zoom = self.centre, self.zoom or 1.0
        if near is not None:
            ((left, low), (right, high)), scale = near
            centre = ((left + right) / 2, (low + high) / 2)
            wide, tall = max(right - left, CLOSE), max(high - low, CLOSE)
            zoom = min(max(SHARE * min(width / wide, height / tall) / scale, 1.0), NEAREST)
        picture = make(zoom * width, zoom * height)
        if picture is None:
            return None
        self.shown = zoom
        if centre is None:
            return Placed.centred(picture, room, PX_PER_MM, heat)
        return Placed.about(picture, room, centre, PX_PER_MM, heat)

    def nearer(self, clicks: float, placed: Placed, at: QPointF, room: QRectF) -> None:
        """Go nearer, or farther for clicks below 0; what lies under a position stays there."""
        zoom = min(self.shown * STEP**clicks, NEAREST)
        if zoom <= 1.0 + CLOSE:
            self.zoom, self.centre = 1.0, None
            return
        x, y = placed.in_work(at)
        px_per_work = placed.picture.scale * placed.px_per_mm * zoom / self.shown
        away = room.center() - at
        self.zoom, self.centre = zoom, (x + away.x() / px_per_work, y - away.y() / px_per_work)

    def moved(self, placed: Placed, by: QPointF, room: QRectF) -> None:
        """Shift what is in view by pixels."""
        if self.shown > 1.0 + CLOSE:
            self.zoom, self.centre = self.shown, placed.in_work(room.center() - by)

    def as_at_first(self) -> None:
        """Show the part that matters again, or all where there is none."""
        self.zoom, self.centre = None, None

    def whole(self) -> None:
        """Show all of it."""
        self.zoom, self.centre = 1.0, None
