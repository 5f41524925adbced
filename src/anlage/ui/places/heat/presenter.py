"""What the pictures of Heat show whose leaves are dragged, and what dragging them does."""

from PySide6.QtCore import QObject

from anlage.core.document import at as leaf_at
from anlage.core.document import with_at
from anlage.core.drawing import DisplayList, Point
from anlage.core.errors import InputError
from anlage.core.ranges import Interval
from anlage.data.look import role_styles
from anlage.session.heat.after import after_view
from anlage.session.heat.after_picture import after_axes, after_picture, course_of
from anlage.session.heat.preheat import preheat_view
from anlage.session.heat.preheat_picture import preheat_axis, preheat_picture
from anlage.session.heat.scales import in_celsius
from anlage.session.leaves.bounds import check_bound
from anlage.session.leaves.names import named
from anlage.session.leaves.steps import on_step
from anlage.session.leaves.table import field_of
from anlage.session.leaves.text import shown
from anlage.session.weld.picture_sheet import Sheet
from anlage.ui.kit.document import Document
from anlage.ui.kit.look import measure
from anlage.ui.places.heat.beside import Beside

FINE_C, FINE_H = 1.0, 0.05
SVG_MM = (170.0, 90.0)


class DraggedLeaves(QObject):
    """A picture whose handles are leaves: a drag, or presses of one visit, are one step back."""

    def __init__(self, document: Document, beside: Beside) -> None:
        super().__init__()
        self.document, self.beside = document, beside
        self.held = ""
        self._visit: tuple[str, object] = ("", object())

    def picture(self, width_mm: float, height_mm: float) -> DisplayList | None:
        """Return the picture on so much paper."""
        raise NotImplementedError

    def heat(self) -> tuple[float, float] | None:
        return None

    def is_stale(self) -> bool:
        return False

    def take(self, target: str, at: Point) -> None:
        self.held, self._visit = target, (target, object())

    def release(self) -> None:
        self.held = ""

    def state(self, target: str, value: float | Interval) -> None:
        """State a leaf, as far as it can be that at all."""
        if self._visit[0] != target:
            self._visit = (target, object())
        try:
            for number in (value.low, value.high) if isinstance(value, Interval) else (value,):
                check_bound(target, number)
            wps = with_at(self.document.value, target, value)
        except InputError:
            return  # a drag stops where nothing is welded
        self.document.edit(wps, named(self.document.value, target), self._visit[1])

    def choose(self, target: str) -> None:
        """Do nothing: what is drawn are handles."""

    def dropped(self, source: str, target: str) -> None:
        """Do nothing: handles are not dropped on each other."""

    def describe(self, target: str) -> str:
        if not target:
            return ""
        text, system = shown(self.document.value, target, self.document.system), self.document.system
        return f"{field_of(target).label}: {text} {field_of(target).unit(system)}. Arrow keys step it, Enter types it."

    def svg(self) -> str:
        from anlage.formats.svg import svg  # when asked for: a start needs no file format

        picture = self.picture(*SVG_MM)
        return svg(picture, role_styles("light"), ground="#FFFFFF") if picture else ""

    def sheet(self, width_mm: float, height_mm: float) -> Sheet:
        """Return the paper, in the reader's units."""
        return Sheet(width_mm, height_mm, self.document.system, measure)


class PreheatPresenter(DraggedLeaves):
    """Schools and codes over one axis; the handles are the least preheat and the most between passes."""

    _axis = None

    def picture(self, width_mm: float, height_mm: float) -> DisplayList | None:
        sheet = self.sheet(width_mm, height_mm)
        view = preheat_view(self.document.value, self.beside.codes(), self.beside.machines())
        if not self.held or self._axis is None:
            self._axis = preheat_axis(view, sheet)
        return preheat_picture(view, self._axis, sheet)

    def empty_text(self) -> str:
        return "Name the base metal at Job, or type its certificate: then every school says here how hot."

    def drag(self, at: Point, *, fine: bool) -> None:
        if not self.held or self._axis is None:
            return
        celsius = in_celsius(self._axis.read(at[0]), self.document.system)
        self.state(
            self.held, round(celsius / FINE_C) * FINE_C if fine else on_step(celsius, self.held, self.document.system)
        )

    def step(self, target: str, steps: int) -> None:
        stated = leaf_at(self.document.value, target)
        if stated is not None:
            self.state(target, on_step(float(stated), target, self.document.system, steps))


class AfterPresenter(DraggedLeaves):
    """The course after the last pass; a hold is dragged by its level and by its end, its range moving whole."""

    _axes = None

    def picture(self, width_mm: float, height_mm: float) -> DisplayList | None:
        sheet, wps = self.sheet(width_mm, height_mm), self.document.value
        view = after_view(wps, self.beside.codes(), self.document.system)
        if not self.held or self._axes is None:
            self._axes = after_axes(wps, view, sheet)
        return None if self._axes is None else after_picture(wps, view, self._axes, sheet)

    def empty_text(self) -> str:
        return "State a hydrogen release or a heat treatment, temperature and time: then its hours are drawn here."

    def drag(self, at: Point, *, fine: bool) -> None:
        stated = self._stated(self.held)
        if stated is None or self._axes is None:
            return
        hours, shown_at = self._axes.read(at)
        if self.held.endswith("_h"):
            wanted = stated.low + hours - self._end_of_hold()
            self._move(stated, stated.low, self._stepped(wanted, FINE_H, fine=fine))
        else:
            middle = (stated.low + stated.high) / 2
            moved = in_celsius(shown_at, self.document.system) - middle + stated.low
            self._move(stated, stated.low, self._stepped(moved, FINE_C, fine=fine))

    def step(self, target: str, steps: int) -> None:
        stated = self._stated(target)
        if stated is not None:
            self.held, before = target, self.held
            self._move(stated, stated.low, on_step(stated.low, target, self.document.system, steps))
            self.held = before

    def _stepped(self, wanted: float, finest: float, *, fine: bool) -> float:
        return round(wanted / finest) * finest if fine else on_step(wanted, self.held, self.document.system)

    def _move(self, stated: Interval, was: float, now: float) -> None:
        self.state(self.held, Interval(now, stated.high + now - was))

    def _stated(self, target: str) -> Interval | None:
        stated = leaf_at(self.document.value, target) if target else None
        return stated if isinstance(stated, Interval) else None

    def _end_of_hold(self) -> float:
        """Return at which hour the hold that is dragged ends now."""
        course = course_of(self.document.value, self.document.system)
        holds = course.holds if course else []
        return next((hold.end for hold in holds if hold.end_leaf == self.held), 0.0)
