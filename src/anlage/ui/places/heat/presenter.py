"""What the picture of the preheat shows, and what dragging its lines does."""

from PySide6.QtCore import QObject

from anlage.core.document import at as leaf_at
from anlage.core.document import with_at
from anlage.core.drawing import DisplayList, Point
from anlage.core.errors import InputError
from anlage.data.look import role_styles
from anlage.session.heat.preheat_picture import preheat_axis, preheat_picture
from anlage.session.heat.scales import in_celsius
from anlage.session.leaves.bounds import check_bound
from anlage.session.leaves.names import named
from anlage.session.leaves.steps import on_step
from anlage.session.leaves.table import field_of
from anlage.session.leaves.text import shown
from anlage.session.weld.pictures import Sheet
from anlage.ui.kit.document import Document
from anlage.ui.kit.look import measure

FINE_C = 1.0


class PreheatPresenter(QObject):
    """Schools and codes over one axis; the handles are the least preheat and the most between passes."""

    def __init__(self, document: Document) -> None:
        super().__init__()
        self.document = document
        self._axis = None
        self._held = ""
        self._visit: tuple[str, object] = ("", object())

    def picture(self, width_mm: float, height_mm: float) -> DisplayList | None:
        sheet = Sheet(width_mm, height_mm, self.document.system, measure)
        if not self._held or self._axis is None:
            self._axis = preheat_axis(self.document.value, sheet)
        return preheat_picture(self.document.value, self._axis, sheet)

    def heat(self) -> tuple[float, float] | None:
        return None

    def is_stale(self) -> bool:
        return False

    def empty_text(self) -> str:
        return "Name the base metal at Job, or type its certificate: then every school says here how hot."

    def take(self, target: str, at: Point) -> None:
        self._held, self._visit = target, (target, object())

    def drag(self, at: Point, *, fine: bool) -> None:
        if not self._held or self._axis is None:
            return
        celsius = in_celsius(self._axis.read(at[0]), self.document.system)
        celsius = round(celsius / FINE_C) * FINE_C if fine else on_step(celsius, self._held, self.document.system)
        self._state(self._held, celsius)

    def release(self) -> None:
        self._held = ""

    def step(self, target: str, steps: int) -> None:
        stated = leaf_at(self.document.value, target)
        if stated is not None:
            self._state(target, on_step(float(stated), target, self.document.system, steps))

    def _state(self, target: str, celsius: float) -> None:
        if self._visit[0] != target:
            self._visit = (target, object())
        try:
            check_bound(target, celsius)
            wps = with_at(self.document.value, target, celsius)
        except InputError:
            return  # a drag stops where nothing is welded
        self.document.edit(wps, named(self.document.value, target), self._visit[1])

    def choose(self, target: str) -> None:
        """Do nothing: the lines are handles."""

    def dropped(self, source: str, target: str) -> None:
        """Do nothing: lines are not dropped on each other."""

    def describe(self, target: str) -> str:
        if not target:
            return ""
        text, unit = (
            shown(self.document.value, target, self.document.system),
            field_of(target).unit(self.document.system),
        )
        return f"{field_of(target).label}: {text} {unit}. Arrow keys step it, Enter types it."

    def svg(self) -> str:
        from anlage.formats.svg import svg  # when asked for: a start needs no file format

        picture = self.picture(170.0, 90.0)
        return svg(picture, role_styles("light"), ground="#FFFFFF") if picture else ""
