"""`calc cooling`: cooling time from 800 to 500 °C of a pass."""

from typing import Any

from anlage.core.errors import UnknownNameError
from anlage.core.ranges import Interval
from anlage.core.results import Notice, Source
from anlage.core.thermal.cooling import SERIES, CoolingTime, cooling_time
from anlage.data.metal_tables import cooling_joints
from anlage.session.keyed.answer import Answer, number_or_interval, shown
from anlage.session.keyed.arguments import Arguments

KEYS = ("heat_input", "thickness", "preheat", "joint")
OPEN = ("corner", "tee")


def answer(arguments: Arguments) -> Answer:
    """Answer `calc cooling`."""
    arguments.need("heat_input", "thickness", "preheat")
    heat, thick = arguments.interval("heat_input", "heat_input"), arguments.interval("thickness", "length")
    plate = arguments.interval("preheat", "temperature")
    name = arguments.text("joint").strip().casefold() if "joint" in arguments else "plate"
    joint = cooling_joints().get(name)
    if joint is None:
        raise UnknownNameError(name, cooling_joints(), where="joint")

    def at(q: float, d: float, t0: float) -> CoolingTime:
        return cooling_time(q, thickness_mm=d, preheat_c=t0, joint=joint)

    corners = [at(q, d, t0) for q in _ends(heat) for d in _ends(thick) for t0 in _ends(plate)]
    least = at(heat.low, thick.high, plate.low)
    most = at(heat.high, thick.low, plate.high)
    span = Interval(least.low_s, most.high_s)
    is_open = name in OPEN
    regimes = [least.regimes[0], most.regimes[1]]
    between = [found for found in corners if found.series_low_s is not None]
    values: dict[str, Any] = {
        "t85_s": number_or_interval(span, always_interval=is_open),
        "regime": regimes[0] if regimes[0] == regimes[1] else regimes,
        "transition_thickness_mm": number_or_interval(
            Interval(min(c.transition_thickness_mm for c in corners), max(c.transition_thickness_mm for c in corners))
        ),
    }
    lines = [("t8/5", shown("_s", span)), ("regime", " to ".join(dict.fromkeys(regimes)))]
    lines.append(("transition thickness", shown("_mm", _span([c.transition_thickness_mm for c in corners]))))
    sources = [Source("t8/5", joint.source, joint.confidence)]
    notices = []
    if between:
        series = _series(between, corners)
        values["t85_2d3d_s"] = number_or_interval(series, always_interval=is_open)
        lines.append(("between 2D and 3D", shown("_s", series)))
        sources.append(SERIES)
        text = (
            "between thin and thick plate the formulas run too long: the shorter time of the image series counts for"
            " hardness"
        )
        notices.append(Notice("cooling.transition", "thickness", text))
    notices += _validity(plate)
    return Answer(values, lines, sources, notices)


def _series(between: list[CoolingTime], corners: list[CoolingTime]) -> Interval:
    """Return the span of the image series, and of the formulas where a corner of the input is thin or thick."""
    low = [c.series_low_s if c.series_low_s is not None else c.low_s for c in corners]
    high = [c.series_high_s if c.series_high_s is not None else c.high_s for c in corners]
    assert between
    return Interval(min(low), max(high))


def _validity(plate: Interval) -> list[Notice]:
    if plate.high <= 350:  # own bound of "well below 500 °C"
        return []
    return [Notice("validity.outside", "preheat", "over 350 °C the formulas are not made for: given all the same")]


def _ends(value: Interval) -> tuple[float, ...]:
    return (value.low,) if value.is_single else (value.low, value.high)


def _span(values: list[float]) -> Interval:
    return Interval(min(values), max(values))
