"""What the pictures along a seam show: starts and stops, and the beads where the fit-up was measured."""

from collections.abc import Callable

from anlage.core.drawing import DisplayList, Point
from anlage.session.seam.sectors import sector_picture
from anlage.session.seam.stations import station_picture
from anlage.session.seam.stop_plan import stop_picture
from anlage.session.weld.picture_sheet import Sheet
from anlage.ui.kit.document import Document
from anlage.ui.kit.look import measure
from anlage.ui.places.passes.presenters import PassPicture
from anlage.ui.places.passes.selection import Selection


class StopPresenter(PassPicture):
    """Starts and stops of every pass round the pipe or along the seam; a click chooses a pass."""

    def picture(self, width_mm: float, height_mm: float) -> DisplayList | None:
        sheet = Sheet(width_mm, height_mm, self.document.system, measure)
        return stop_picture(self.document.value, self.selection.pass_id, sheet)

    def empty_text(self) -> str:
        return "Starts and stops are planned here once the joint is stated and has passes."

    def drag(self, at: Point, *, fine: bool) -> None:
        """Nothing in it is dragged."""

    def step(self, target: str, steps: int) -> None:
        """Nothing in it is stepped."""


class SectorPresenter(StopPresenter):
    """The chosen pass with its sectors, coloured by the energy of each."""

    def picture(self, width_mm: float, height_mm: float) -> DisplayList | None:
        sheet = Sheet(width_mm, height_mm, self.document.system, measure)
        return sector_picture(self.document.value, self.selection.pass_id, sheet)

    def empty_text(self) -> str:
        return "Choose a pass in the table: its sectors are shown here."


class StationPresenter(StopPresenter):
    """The beads as they lie where the fit-up of one station was measured."""

    def __init__(self, document: Document, selection: Selection, chosen: Callable[[], str]) -> None:
        super().__init__(document, selection)
        self._chosen = chosen

    def picture(self, width_mm: float, height_mm: float) -> DisplayList | None:
        sheet = Sheet(width_mm, height_mm, self.document.system, measure)
        wps = self.document.value
        station = next((each for each in wps.stations if each.id == self._chosen()), None)
        return None if station is None else station_picture(wps, station, self.selection.pass_id, sheet)

    def empty_text(self) -> str:
        return "Measure gap, land and mismatch at four stations or more: the joint is shown as it is there."
