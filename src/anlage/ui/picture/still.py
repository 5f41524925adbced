"""A picture that is only looked at."""

from collections.abc import Callable

from PySide6.QtCore import QObject

from anlage.core.drawing import DisplayList, Point
from anlage.core.procedure import Wps
from anlage.data.look import role_styles
from anlage.session.weld.picture_sheet import Sheet
from anlage.ui.kit.document import Document
from anlage.ui.kit.look import measure


class StillPresenter(QObject):
    """A picture that is only looked at; nothing in it is dragged."""

    def __init__(
        self, document: Document, make: Callable[[Wps, Sheet], DisplayList | None],
        due: Callable[[], bool] = lambda: False,
    ) -> None:  # fmt: skip
        super().__init__()
        self.document, self._make, self._due = document, make, due

    def picture(self, width_mm: float, height_mm: float) -> DisplayList | None:
        if self._due():
            return None  # what was drawn stays, dimmed
        return self._make(self.document.value, Sheet(width_mm, height_mm, self.document.system, measure))

    def heat(self) -> tuple[float, float] | None:
        return None

    def is_stale(self) -> bool:
        return self._due()

    def empty_text(self) -> str:
        if self._due():
            return "Being worked out…"
        return "State every dimension of the joint first; then there is something to draw here."

    def take(self, target: str, at: Point) -> None:
        """Nothing is dragged."""

    def drag(self, at: Point, *, fine: bool) -> None:
        """Nothing is dragged."""

    def release(self) -> None:
        """Nothing is dragged."""

    def step(self, target: str, steps: int) -> None:
        """Nothing is stepped."""

    def choose(self, target: str) -> None:
        """Nothing is chosen."""

    def dropped(self, source: str, target: str) -> None:
        """Nothing is dropped."""

    def describe(self, target: str) -> str:
        return ""

    def svg(self) -> str:
        from anlage.formats.svg import svg  # when asked for: a start needs no file format

        picture = self.picture(160.0, 100.0)
        return svg(picture, role_styles("light"), ground="#FFFFFF") if picture else ""
