"""The map of all documents over thickness and diameter."""

from collections.abc import Sequence

from PySide6.QtCore import QObject, Signal

from anlage.core.drawing import DisplayList, Point
from anlage.core.drawing.qualified_map import qualified_map
from anlage.data.look import role_styles
from anlage.session.works.register import RegisterRow, areas, ticks
from anlage.ui.kit.look import measure
from anlage.ui.kit.reader import Reader


class RegisterPresenter(QObject):
    """The map of the rows that are shown.

    Signals
    -------
    chosen(id) : a rectangle was clicked
    """

    chosen = Signal(str)

    def __init__(self, reader: Reader) -> None:
        super().__init__()
        self.reader = reader
        self.rows: Sequence[RegisterRow] = ()
        self.chosen_id = ""

    def picture(self, width_mm: float, height_mm: float) -> DisplayList | None:
        if not self.rows:
            return None
        system = self.reader.system
        return qualified_map(areas(self.rows, self.chosen_id), ticks(system), (width_mm, height_mm), measure)

    def heat(self) -> tuple[float, float] | None:
        return None

    def is_stale(self) -> bool:
        return False

    def empty_text(self) -> str:
        return "Nothing here yet. Ctrl+N makes a procedure; the demo shows a works with procedures and records."

    def take(self, target: str, at: Point) -> None:
        """Do nothing: the map has no handles."""

    def drag(self, at: Point, *, fine: bool) -> None:
        """Do nothing: the map has no handles."""

    def release(self) -> None:
        """Do nothing: the map has no handles."""

    def step(self, target: str, steps: int) -> None:
        """Do nothing: the map has no handles."""

    def choose(self, target: str) -> None:
        self.chosen.emit(target)

    def dropped(self, source: str, target: str) -> None:
        """Documents are not dropped on each other."""

    def describe(self, target: str) -> str:
        row = next((row for row in self.rows if row.id == target), None)
        return f"{row.number} {row.title}: {row.state}, {row.said}" if row else ""

    def svg(self) -> str:
        from anlage.formats.svg import svg  # when asked for

        picture = self.picture(200.0, 140.0)
        return svg(picture, role_styles("light"), ground="#FFFFFF") if picture else ""
