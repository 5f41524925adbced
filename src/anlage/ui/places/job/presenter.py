"""The positions: chosen by pointing at one, shown as the joint stands."""

from anlage.core.drawing import DisplayList, Point
from anlage.session.weld.picture_sheet import Sheet
from anlage.session.weld.positions import offered, position_picture, stated_positions, with_position, words_of
from anlage.ui.kit.document import Document
from anlage.ui.kit.look import measure
from anlage.ui.picture.still import StillPresenter


class PositionPresenter(StillPresenter):
    """The positions of plate and pipe; a click states one, arrow keys go to the next."""

    def __init__(self, document: Document) -> None:
        super().__init__(document, position_picture)

    def choose(self, target: str) -> None:
        if "/" in target:
            self.document.edit(with_position(self.document.value, target), "Position")

    def step(self, target: str, steps: int) -> None:
        """Go to the next position, or the one before."""
        rows = offered(self.document.value)
        stated = stated_positions(self.document.value.technique.position)
        here = next((n for n, row in enumerate(rows) if row.token in stated), -1)
        if rows:
            self.choose(rows[(here + steps) % len(rows) if here >= 0 else 0].target)

    def describe(self, target: str) -> str:
        return words_of(target)

    def picture(self, width_mm: float, height_mm: float) -> DisplayList | None:
        return position_picture(
            self.document.value, Sheet(width_mm, height_mm, self.document.system, measure)
        )  # fmt: skip

    def take(self, target: str, at: Point) -> None:
        """Nothing is dragged."""
