"""The section at a moment and the curve over its passes: the moment and the probe are dragged, the document stays."""

from collections.abc import Callable
from typing import TYPE_CHECKING

from msgspec.structs import replace
from PySide6.QtCore import QObject, Signal

from anlage.core.drawing import DisplayList, Point
from anlage.core.procedure import Wps
from anlage.session.heat.sequence_words import MOMENT, LookedAt, moment_at, sequence_picture
from anlage.session.weld.picture_sheet import Sheet
from anlage.ui.kit.document import Document
from anlage.ui.kit.loading import loaded
from anlage.ui.picture.still import StillPresenter

if TYPE_CHECKING:
    from anlage.session.heat.sequence import Waits

_first_look = loaded("anlage.session.heat.section_picture:first_look")
_section = loaded("anlage.session.heat.section_picture:section_picture")
_span = loaded("anlage.session.heat.section_picture:heat_span")
_within = loaded("anlage.session.heat.section_picture:within")
PROBE = "probe"
STEPS, PROBE_MM, FINE = 100.0, 1.0, 0.1  # presses through all passes; a press of the probe; the share of a fine drag


class Look(QObject):
    """What both pictures show: the moment and the probe, of the waits that were worked out last.

    Signals
    -------
    moved() : another moment or place is looked at
    """

    moved = Signal()

    def __init__(self, document: Document) -> None:
        super().__init__()
        self.document = document
        self.waits: Waits | None = None
        self.at: LookedAt | None = None

    def show_waits(self, waits: "Waits | None") -> None:
        """Look at other waits: at the same moment and place where they have both."""
        if waits is self.waits:
            return
        self.waits = waits
        if waits is None or waits.film is None:
            self.at = None
        elif self.at is None:
            self.at = _first_look(self.document.value, waits.film)
        else:
            self.at = replace(self.at, time_s=min(self.at.time_s, waits.film.frames.end_s))

    def look_at(self, *, time_s: float | None = None, probe_mm: Point | None = None) -> None:
        """Look at another moment or place, as far as there is one."""
        if self.at is None or self.waits is None or self.waits.film is None:
            return
        end = self.waits.film.frames.end_s
        time = self.at.time_s if time_s is None else min(max(time_s, 0.0), end)
        place = self.at.probe_mm
        if probe_mm is not None:
            place = _within(self.document.value, self.waits.film, probe_mm)
        if (time, place) != (self.at.time_s, self.at.probe_mm):
            self.at = LookedAt(time, place)
            self.moved.emit()


class SectionPresenter(StillPresenter):
    """The section at the moment; the probe is dragged anywhere."""

    def __init__(self, look: Look, due: Callable[[], bool]) -> None:
        super().__init__(look.document, self._drawn, due)
        self.look = look
        self._held = ""

    def _drawn(self, wps: Wps, sheet: Sheet) -> DisplayList | None:
        if self.look.waits is None or self.look.at is None:
            return None
        found: DisplayList | None = _section(wps, self.look.waits, self.look.at, sheet)
        return found

    def heat(self) -> tuple[float, float] | None:
        found: tuple[float, float] = _span(self.document.value)
        return found

    def empty_text(self) -> str:
        return "The section by its temperature, once it is run."

    def take(self, target: str, at: Point) -> None:
        self._held = target

    def drag(self, at: Point, *, fine: bool) -> None:
        if self._held == PROBE:
            self.look.look_at(probe_mm=at)

    def release(self) -> None:
        self._held = ""

    def step(self, target: str, steps: int) -> None:
        if target == PROBE and self.look.at is not None:
            x, y = self.look.at.probe_mm
            self.look.look_at(probe_mm=(x + steps * PROBE_MM, y))

    def describe(self, target: str) -> str:
        return "Probe: drag it anywhere, arrow keys move it across." if target == PROBE else ""


class CurvePresenter(StillPresenter):
    """The curve over the passes; the moment is dragged along it."""

    def __init__(self, look: Look, due: Callable[[], bool]) -> None:
        super().__init__(look.document, self._drawn, due)
        self.look = look
        self._held = ""
        self._sheet: Sheet | None = None

    def _drawn(self, wps: Wps, sheet: Sheet) -> DisplayList | None:
        self._sheet = sheet
        return None if self.look.waits is None else sequence_picture(wps, self.look.waits, sheet, self.look.at)

    def empty_text(self) -> str:
        return "State the piece beside: then the section is run pass by pass, and says how long to wait."

    def take(self, target: str, at: Point) -> None:
        self._held = target

    def drag(self, at: Point, *, fine: bool) -> None:
        if self._held == MOMENT and self.look.waits is not None and self._sheet is not None:
            self.look.look_at(time_s=moment_at(self.look.waits, self._sheet, at[0]))

    def release(self) -> None:
        self._held = ""

    def step(self, target: str, steps: int) -> None:
        if target == MOMENT and self.look.at is not None and self.look.waits is not None:
            self.look.look_at(time_s=self.look.at.time_s + steps * self.look.waits.curve[-1][0] / STEPS)

    def describe(self, target: str) -> str:
        return "Moment: drag it over the passes, arrow keys move it." if target == MOMENT else ""
