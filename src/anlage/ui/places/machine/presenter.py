"""What the picture of the dials shows, and what dragging a reading in it does."""

from collections.abc import Callable

from PySide6.QtCore import QObject

from anlage.core.document import with_at
from anlage.core.drawing import DisplayList, Point
from anlage.core.drawing.dial_curves import DialPlane
from anlage.core.errors import InputError
from anlage.core.machine import Tap
from anlage.core.ranges import Interval
from anlage.data.look import role_styles
from anlage.session.leaves.bounds import check_bound
from anlage.session.leaves.names import named
from anlage.session.leaves.steps import on_step
from anlage.session.leaves.table import field_of
from anlage.session.leaves.text import shown
from anlage.session.seam.dial_picture import dial_picture, dial_plane
from anlage.session.weld.picture_sheet import Sheet
from anlage.ui.kit.document import Document
from anlage.ui.kit.look import measure

DIAL_STEP, FINE_DIAL, FINE_A = 0.5, 0.1, 0.5


class DialPresenter(QObject):
    """The readings of a machine as curves; a handle is one reading, its dial across and its current up."""

    def __init__(
        self, document: Document, taps: Callable[[], tuple[Tap, ...]], wanted: Callable[[], Interval | None]
    ) -> None:
        super().__init__()
        self.document, self._taps, self._wanted = document, taps, wanted
        self._plane: DialPlane | None = None
        self._held = ""
        self._visit: tuple[str, object] = ("", object())

    def picture(self, width_mm: float, height_mm: float) -> DisplayList | None:
        sheet = Sheet(width_mm, height_mm, self.document.system, measure)
        if not self._held or self._plane is None:
            self._plane = dial_plane(self._taps(), self._wanted(), sheet)
        return dial_picture(self._taps(), self._wanted(), self._plane, sheet)

    def heat(self) -> tuple[float, float] | None:
        return None

    def is_stale(self) -> bool:
        return False

    def empty_text(self) -> str:
        return "Add a reading: set tap and dial, weld, and note what a meter reads and when. Two or more make a curve."

    def take(self, target: str, at: Point) -> None:
        self._held, self._visit = target, (target, object())

    def drag(self, at: Point, *, fine: bool) -> None:
        if not self._held or self._plane is None:
            return
        dial, amps = (max(each, 0.0) for each in self._plane.read(at))
        step = FINE_DIAL if fine else DIAL_STEP
        dial = round(dial / step) * step
        amps = round(amps / FINE_A) * FINE_A if fine else on_step(amps, self._held, self.document.system)
        self._state(self._held, amps, dial)

    def release(self) -> None:
        self._held = ""

    def step(self, target: str, steps: int) -> None:
        amps = float(self.document.text(target) or 0.0)
        self._state(target, on_step(amps, target, self.document.system, steps), None)

    def _state(self, target: str, amps: float, dial: float | None) -> None:
        if self._visit[0] != target:
            self._visit = (target, object())
        place = f"{target.rpartition('/')[0]}/dial"
        try:
            check_bound(target, amps)
            machine = with_at(self.document.value, target, amps)
            if dial is not None:
                machine = with_at(machine, place, round(dial, 3))
        except InputError:
            return  # a drag stops where nothing is read
        self.document.edit(machine, named(self.document.value, target), self._visit[1])

    def choose(self, target: str) -> None:
        """Do nothing: the readings are handles."""

    def dropped(self, source: str, target: str) -> None:
        """Do nothing: readings are not dropped on each other."""

    def describe(self, target: str) -> str:
        if not target:
            return ""
        start, value, system = target.rpartition("/")[0], self.document.value, self.document.system
        said = [f"{field_of(f'{start}/{leaf}').label.lower()} {text}" for leaf in ("tap", "dial", "current_a")
                if (text := shown(value, f"{start}/{leaf}", system))]  # fmt: skip
        return f"Reading: {', '.join(said)} A. Arrow keys step the current, Enter types it."

    def svg(self) -> str:
        from anlage.formats.svg import svg  # when asked for: a start needs no file format

        picture = self.picture(160.0, 100.0)
        return svg(picture, role_styles("light"), ground="#FFFFFF") if picture else ""
