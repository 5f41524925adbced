"""`calc shrinkage`: across a weld, by the schools."""

from typing import Any

from anlage.core.ranges import Interval
from anlage.core.results import Notice, Source
from anlage.core.shrinkage import fillet_turn, transverse
from anlage.session.keyed.answer import Answer, number, number_or_interval, shown, shown_single
from anlage.session.keyed.arguments import Arguments

KEYS = ("area", "thickness", "root_opening", "heat_input", "leg", "width")


def answer(arguments: Arguments) -> Answer:
    """Answer `calc shrinkage`."""
    arguments.need("area", "thickness")
    area, thick = arguments.interval("area", "area"), arguments.interval("thickness", "length")
    gap = (
        arguments.interval("root_opening", "length", zero=True) if "root_opening" in arguments else Interval.single(0.0)
    )
    heat = arguments.interval("heat_input", "heat_input") if "heat_input" in arguments else None
    schools: dict[str, Interval] = {}
    sources = []
    for end in ("low", "high"):
        other = "high" if end == "low" else "low"
        net = None if heat is None else 1000 * getattr(heat, end)
        found = transverse(
            getattr(area, end),
            thickness_mm=getattr(thick, other),
            root_opening_mm=getattr(gap, end),
            heat_input_j_mm=net,
        )
        for each in found:
            low = schools[each.name].low if each.name in schools else each.low_mm
            schools[each.name] = Interval(low, each.high_mm)
        sources = [Source(each.name, each.source, each.confidence) for each in found]
    lines = [(name.replace("_", " "), shown("_mm", span)) for name, span in schools.items()]
    values: dict[str, Any] = {"transverse_mm": {name: number_or_interval(span) for name, span in schools.items()}}
    if "leg" in arguments or "width" in arguments:
        arguments.need("leg", "width")
        leg, width = arguments.single("leg", "length"), arguments.single("width", "length")
        turn = fillet_turn(width, leg_mm=leg, thickness_mm=thick.low)
        values["edge_rise_mm"] = number(turn)
        lines.append(("edge rises by", shown_single(turn, "length")))
        sources.append(Source("edge_rise_mm", "Blodgett 1966, from memory", "H"))
    notice = Notice(
        "shrinkage.rough", "area", "rough, within half of the value at best: preset by it, never a tolerance"
    )
    return Answer(values, lines, sources, [notice])
