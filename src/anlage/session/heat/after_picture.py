"""The hours after the last pass as a picture: hydrogen release and heat treatment, and what they stay between."""

from collections.abc import Iterator

from anlage.core.drawing import DisplayList
from anlage.core.drawing.cycle import CycleAxes, Hold, Leg, Level, cycle
from anlage.core.procedure import Wps
from anlage.core.quantities.units import System
from anlage.core.ranges import Interval
from anlage.session.heat.after import AS_WELDED, DRAWN_K_H, AfterView
from anlage.session.heat.scales import degrees_span, in_reader, scale
from anlage.session.weld.picture_sheet import Sheet

ROOM_C = 20.0
RELEASE_AT, RELEASE_FOR = "after/release_c", "after/release_h"
TREATED_AT, TREATED_FOR = "pwht/temperature_c", "pwht/time_h"
COOLS_H = 1.0  # in still air, drawn dashed


class Course:
    """Legs and holds one after the other, in hours and the reader's scale."""

    def __init__(self, system: System, start_c: float) -> None:
        self.system, self.hours, self.celsius = system, 0.0, start_c
        self.legs: list[Leg] = []
        self.holds: list[Hold] = []

    def to(self, celsius: float, hours: float, *, known: bool) -> None:
        """Go to a temperature in so many hours."""
        begin = (self.hours, self._shown(self.celsius))
        self.hours, self.celsius = self.hours + hours, celsius
        self.legs.append(Leg((begin, (self.hours, self._shown(celsius))), known))

    def hold(self, span_c: Interval, hours: Interval, leaves: tuple[str, str]) -> None:
        """Stay within a span of temperatures for the least of some hours, and perhaps the most."""
        start, middle = self.hours, (span_c.low + span_c.high) / 2
        self.to(middle, hours.low, known=True)
        if hours.high > hours.low:
            self.to(middle, hours.high - hours.low, known=False)
        time = f"{hours.low:g} h" if hours.low == hours.high else f"{hours.low:g} to {hours.high:g} h"
        words = f"{degrees_span((span_c.low, span_c.high), self.system)}, {time}"
        low, high = self._shown(span_c.low), self._shown(span_c.high)
        self.holds.append(Hold(start, start + hours.low, low, high, words, *leaves))

    def _shown(self, celsius: float) -> float:
        return in_reader(celsius, self.system)


def course_of(wps: Wps, system: System) -> Course | None:
    """Return what the joint goes through after its last pass; `None` where neither hold is stated in full."""
    preheat, after, pwht = wps.preheat, wps.after, wps.pwht
    held = preheat.interpass_maximum_c or preheat.minimum_c or ROOM_C
    course = Course(system, held)
    if after.release_c is not None and after.release_h is not None:
        middle = (after.release_c.low + after.release_c.high) / 2
        course.to(middle, abs(middle - held) / DRAWN_K_H, known=False)
        course.hold(after.release_c, after.release_h, (RELEASE_AT, RELEASE_FOR))
    if pwht.kind != AS_WELDED and pwht.temperature_c is not None and pwht.time_h is not None:
        course.to(ROOM_C, COOLS_H, known=False)
        middle = (pwht.temperature_c.low + pwht.temperature_c.high) / 2
        up, down = after.heating_rate_k_h, after.cooling_rate_k_h
        course.to(middle, (middle - ROOM_C) / (up.high if up else DRAWN_K_H), known=up is not None)
        course.hold(pwht.temperature_c, pwht.time_h, (TREATED_AT, TREATED_FOR))
        course.to(ROOM_C, (middle - ROOM_C) / (down.high if down else DRAWN_K_H), known=down is not None)
    elif course.holds:
        course.to(ROOM_C, COOLS_H, known=False)
    return course if course.holds else None


def _levels(view: AfterView, system: System) -> Iterator[Level]:
    if view.lowest_c is not None:
        name = next(each.name for each in view.begins if each.celsius == view.lowest_c)
        yield Level(in_reader(view.lowest_c, system), f"{name} transforms", "limit")
    if view.band is not None:
        yield Level(in_reader(view.band.low, system), f"{view.code}, least", "limit_other")
        if view.band.high < 1e4:
            yield Level(in_reader(view.band.high, system), f"{view.code}, most", "limit_other")


def after_axes(wps: Wps, view: AfterView, sheet: Sheet) -> CycleAxes | None:
    """Return the axes on which the course and its limits have room; `None` where there is no course."""
    course = course_of(wps, sheet.system)
    if course is None:
        return None
    levels = tuple(_levels(view, sheet.system))
    return CycleAxes.around(course.legs, levels, (sheet.width_mm, sheet.height_mm), scale(sheet.system), sheet.measure)


def after_picture(wps: Wps, view: AfterView, axes: CycleAxes, sheet: Sheet) -> DisplayList | None:
    """Return the picture; `None` where there is no course."""
    course = course_of(wps, sheet.system)
    if course is None:
        return None
    return cycle(course.legs, course.holds, tuple(_levels(view, sheet.system)), axes, sheet.measure)
