"""What a picture shows and what its handles do."""

from typing import Protocol

from anlage.core.drawing import DisplayList, Point


class Presenter(Protocol):
    """What a picture shows and what its handles do; a view knows nothing else of the document."""

    def picture(self, width_mm: float, height_mm: float) -> DisplayList | None:
        """Return the picture for a sheet; `None` when there is nothing to draw."""

    def heat(self) -> tuple[float, float] | None:
        """Return the span of the heat scale [kJ/mm]."""

    def is_stale(self) -> bool:
        """Return whether the picture is the last good one, not that of what is stated."""

    def empty_text(self) -> str:
        """Return what to do first where there is nothing to draw."""

    def take(self, target: str, at: Point) -> None:
        """Begin to drag a handle."""

    def drag(self, at: Point, *, fine: bool) -> None:
        """Go on dragging; `fine` leaves the trade's steps."""

    def release(self) -> None:
        """End the drag."""

    def step(self, target: str, steps: int) -> None:
        """Move a handle by presses of an arrow key."""

    def choose(self, target: str) -> None:
        """Take note of a click on an area."""

    def dropped(self, source: str, target: str) -> None:
        """Take note of an area that was dragged onto another."""

    def describe(self, target: str) -> str:
        """Return what a handle or value is and says, in words."""

    def svg(self) -> str:
        """Return the picture as SVG text."""
