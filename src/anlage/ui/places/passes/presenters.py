"""What the bead map and the operating window show, and what dragging in them does."""

from collections.abc import Callable, Sequence

from PySide6.QtCore import QObject

from anlage.core.document import at as leaf_at
from anlage.core.document import with_at
from anlage.core.drawing import DisplayList, Point
from anlage.core.drawing.cap_limit import CapLimit
from anlage.core.drawing.operating_window import HeatLimit, Plane
from anlage.core.errors import InputError
from anlage.core.procedure import Wps, moved_pass
from anlage.core.ranges import Interval
from anlage.data.look import heat_colour, role_styles
from anlage.session.leaves.names import named
from anlage.session.leaves.steps import on_step
from anlage.session.leaves.table import field_of
from anlage.session.leaves.text import leaf_of, shown, with_end
from anlage.session.seam.heat import heat_span
from anlage.session.weld.beads import bead_of
from anlage.session.weld.operating_window import plane_of, window_picture
from anlage.session.weld.picture_sheet import Sheet
from anlage.session.weld.pictures import bead_picture, weld_extent, with_cap_limit
from anlage.ui.kit.document import Document
from anlage.ui.kit.look import measure
from anlage.ui.places.passes.selection import Selection


class PassPicture(QObject):
    """What both pictures of the passes have in common."""

    def __init__(self, document: Document, selection: Selection) -> None:
        super().__init__()
        self.document, self.selection = document, selection
        self._held = ""
        self._visit: tuple[str, object] = ("", object())

    def heat(self) -> tuple[float, float] | None:
        return heat_span(self.document.value)

    def is_stale(self) -> bool:
        return False

    def picture(self, width_mm: float, height_mm: float) -> DisplayList | None:
        raise NotImplementedError

    def matters(self, width_mm: float, height_mm: float) -> tuple[tuple[Point, Point], float] | None:
        """Return the corners of the weld, and the scale at which all of the section fits a sheet."""
        return weld_extent(self.document.value, Sheet(width_mm, height_mm, self.document.system, measure))

    def choose(self, target: str) -> None:
        kind, _, pass_id = target.partition("/")
        if kind == "passes":
            self.selection.choose(pass_id.partition("/")[0])

    def dropped(self, source: str, target: str) -> None:
        """Boxes are not dropped on each other."""

    def take(self, target: str, at: Point) -> None:
        self._held, self._visit = target, (target, object())

    def release(self) -> None:
        self._held = ""

    def _state(self, target: str, wps: Wps) -> None:
        if self._visit[0] != target:
            self._visit = (target, object())
        self.document.edit(wps, named(self.document.value, leaf_of(target)), self._visit[1])

    def describe(self, target: str) -> str:
        if not target.count("/") > 1:
            return ""
        leaf = leaf_of(target)
        text = shown(self.document.value, leaf, self.document.system)
        said = f"{text} {field_of(leaf).unit(self.document.system)}".strip() if text else "not stated"
        return f"{named(self.document.value, leaf)}: {said}. Arrow keys step it, Enter types it."

    def svg(self) -> str:
        from anlage.formats.svg import svg  # when asked for: a start needs no file format

        picture, span = self.picture(140.0, 100.0), self.heat() or (0.0, 1.0)
        if picture is None:
            return ""
        heat = lambda value: heat_colour(value, coldest=span[0], hottest=span[1])  # noqa: E731 - one use, one line
        return svg(picture, role_styles("light"), ground="#FFFFFF", heat=heat)


class BeadPresenter(PassPicture):
    """The bead map; the upper edge of the chosen bead is its area, a bead dropped on another takes its place."""

    def __init__(
        self, document: Document, selection: Selection, limit: Callable[[], CapLimit | None] = lambda: None
    ) -> None:
        super().__init__(document, selection)
        self._limit = limit
        self._grip: tuple[Point, Point, float, float] | None = None  # place held; way up, area, width of the bead then

    def picture(self, width_mm: float, height_mm: float) -> DisplayList | None:
        sheet = Sheet(width_mm, height_mm, self.document.system, measure)
        picture = bead_picture(self.document.value, self.selection.pass_id, sheet)
        return with_cap_limit(picture, self.document.value, self._limit())

    def empty_text(self) -> str:
        return "The beads are laid here once the joint can be drawn: state it at Joint."

    def take(self, target: str, at: Point) -> None:
        super().take(target, at)
        bead = bead_of(self.document.value, self.selection.pass_id)
        self._grip = None if bead is None else (at, bead.up, bead.area_mm2, bead.width_mm)

    def drag(self, at: Point, *, fine: bool) -> None:
        if not self._held or self._grip is None:
            return
        (x, y), up, area, width = self._grip
        wanted = area + ((at[0] - x) * up[0] + (at[1] - y) * up[1]) * width
        if not fine:
            wanted = on_step(max(wanted, 0.0), leaf_of(self._held), self.document.system)
        self._resize(self._held, wanted)

    def step(self, target: str, steps: int) -> None:
        bead = bead_of(self.document.value, self.selection.pass_id)
        if bead is not None:
            self._resize(target, on_step(bead.area_mm2, target, self.document.system, steps))

    def _resize(self, target: str, number: float) -> None:
        try:
            wps = with_at(self.document.value, target, Interval.single(number))
        except InputError:
            return  # a drag stops where a bead would have no metal left
        self._state(target, wps)

    def dropped(self, source: str, target: str) -> None:
        ids = [each.id for each in self.document.value.passes]
        moving, onto = (each.partition("/")[2].partition("/")[0] for each in (source, target))
        if moving in ids and onto in ids and moving != onto:
            row = ids.index(onto)
            self.document.edit(moved_pass(self.document.value, moving, row), f"Move pass {ids.index(moving) + 1}")


class WindowPresenter(PassPicture):
    """The operating window; the sides of the chosen box are its speeds, its ends its currents."""

    def __init__(
        self, document: Document, selection: Selection, limits: Callable[[], Sequence[HeatLimit]] = tuple
    ) -> None:
        super().__init__(document, selection)
        self._limits = limits
        self._plane: Plane | None = None

    def picture(self, width_mm: float, height_mm: float) -> DisplayList | None:
        sheet = Sheet(width_mm, height_mm, self.document.system, measure)
        if not self._held or self._plane is None:
            self._plane = plane_of(self.document.value, sheet)
        return window_picture(self.document.value, self.selection.pass_id, self._plane, sheet, self._limits())

    def empty_text(self) -> str:
        return ""

    def drag(self, at: Point, *, fine: bool) -> None:
        if not self._held or self._plane is None:
            return
        speed, power = self._plane.read(at)
        leaf, _, end = self._held.rpartition("/")
        number = speed if leaf.endswith("travel_speed_mm_min") else power / self._volts(end)
        if not fine:
            number = on_step(max(number, 0.0), leaf, self.document.system)
        self._move(self._held, number)

    def _volts(self, end: str) -> float:
        chosen = self.selection.chosen
        assert chosen is not None, "a box with handles is that of the chosen pass"
        assert chosen.voltage_v is not None, "a box has voltage"
        return float(getattr(chosen.voltage_v, end))

    def step(self, target: str, steps: int) -> None:
        leaf, _, end = target.rpartition("/")
        stated = getattr(leaf_at(self.document.value, leaf), end)
        self._move(target, on_step(stated, leaf, self.document.system, steps))

    def _move(self, target: str, number: float) -> None:
        try:
            wps = with_end(self.document.value, target, number)
        except InputError:
            return  # a drag stops at zero
        self._state(target, wps)
