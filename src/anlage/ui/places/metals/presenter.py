"""What the picture of the metals shows, and what dragging the mixture along its line does."""

from collections.abc import Callable

from PySide6.QtCore import QObject

from anlage.core.document import with_at
from anlage.core.drawing import DisplayList, Point
from anlage.core.drawing.equivalents import EquivalentPlane, dilution_at
from anlage.data.look import role_styles
from anlage.session.leaves.names import named
from anlage.session.leaves.steps import on_step
from anlage.session.metals.picture import DILUTION, metals_picture, mixing_of, plane_of
from anlage.session.metals.together import together
from anlage.session.weld.picture_sheet import Sheet
from anlage.ui.kit.document import Document
from anlage.ui.kit.look import measure

FINE = 0.01


class MetalsPresenter(QObject):
    """The plane of equivalents with the mixture as a handle, or bars of strength."""

    def __init__(self, document: Document, deposit: Callable[[], str]) -> None:
        super().__init__()
        self.document, self._deposit = document, deposit
        self._plane: EquivalentPlane | None = None
        self._held = ""
        self._visit: tuple[str, object] = ("", object())

    def picture(self, width_mm: float, height_mm: float) -> DisplayList | None:
        sheet = Sheet(width_mm, height_mm, self.document.system, measure)
        if not self._held or self._plane is None:
            self._plane = plane_of(together(self.document.value, self._deposit()), sheet)
        return metals_picture(self.document.value, self._deposit(), self._plane, sheet)

    def heat(self) -> tuple[float, float] | None:
        return None

    def is_stale(self) -> bool:
        return False

    def empty_text(self) -> str:
        return "Name the base metal at Job and a filler at Passes: then this shows how they go together."

    def take(self, target: str, at: Point) -> None:
        self._held, self._visit = target, (target, object())

    def drag(self, at: Point, *, fine: bool) -> None:
        mixing = mixing_of(together(self.document.value, self._deposit()))
        if not self._held or self._plane is None or mixing is None:
            return
        share = dilution_at(self._plane.read(at), mixing)
        self._state(round(share / FINE) * FINE if fine else on_step(share, DILUTION, self.document.system))

    def release(self) -> None:
        self._held = ""

    def step(self, target: str, steps: int) -> None:
        now = together(self.document.value, self._deposit()).dilution
        self._state(on_step(now, target, self.document.system, steps))

    def _state(self, share: float) -> None:
        if self._visit[0] != DILUTION:
            self._visit = (DILUTION, object())
        wps = with_at(self.document.value, DILUTION, min(max(round(share, 3), 0.0), 1.0))
        self.document.edit(wps, named(self.document.value, DILUTION), self._visit[1])

    def choose(self, target: str) -> None:
        """Do nothing: the mixture is the handle."""

    def dropped(self, source: str, target: str) -> None:
        """Do nothing: metals are not dropped on each other."""

    def describe(self, target: str) -> str:
        if not target:
            return ""
        found = together(self.document.value, self._deposit())
        return f"Dilution: {100 * found.dilution:.0f} % of the weld is base metal. Arrow keys step it, Enter types it."

    def svg(self) -> str:
        from anlage.formats.svg import svg  # when asked for: a start needs no file format

        picture = self.picture(150.0, 100.0)
        return svg(picture, role_styles("light"), ground="#FFFFFF") if picture else ""
