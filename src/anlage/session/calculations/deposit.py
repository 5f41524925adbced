"""`calc deposit`: what a wire lays at a feed and a travel speed."""

from anlage.core.beads import deposition_rate, wire_bead_area
from anlage.core.errors import InputError
from anlage.core.joint import STEEL_G_CM3
from anlage.core.ranges import Interval, over_corners
from anlage.core.results import Source
from anlage.data.tables import processes
from anlage.session.keyed.answer import Answer, number_or_interval
from anlage.session.keyed.arguments import Arguments
from anlage.session.keyed.words import label_of, metal_text

KEYS = ("process", "wire_diameter", "wire_speed", "travel_speed", "efficiency")


def answer(arguments: Arguments) -> Answer:
    """Answer `calc deposit`."""
    arguments.need("process", "wire_diameter", "wire_speed", "travel_speed")
    process = arguments.word("process", "process")
    found = processes().get(process)
    row = found.deposition if found else None
    fill = 1.0
    if "efficiency" in arguments:
        efficiency, source = arguments.interval("efficiency", "ratio"), Source("efficiency", "as stated", "H")
    elif row is not None:
        efficiency, fill = Interval(*row.efficiency), row.fill
        source = Source(
            "efficiency", f"{process}: {row.efficiency[0]:g} to {row.efficiency[1]:g}, from memory", row.confidence
        )
    else:
        raise InputError(f"no efficiency is known for {process}", where="efficiency", mend="add efficiency=…")
    stated = {
        "wire_diameter_mm": arguments.interval("wire_diameter", "length"),
        "wire_speed_mm_min": arguments.interval("wire_speed", "speed"),
        "travel_speed_mm_min": arguments.interval("travel_speed", "speed"),
        "efficiency": efficiency,
    }
    if efficiency.high > 1:
        raise InputError(f"{efficiency.high:g} is over 1", where="efficiency", mend="state a share of 1, such as 0.95")

    def formula(**given: float) -> dict[str, float | None]:
        area = wire_bead_area(given.pop("wire_diameter_mm"), **given, fill=fill)
        return {"bead_area_mm2": area}

    def rate(**given: float) -> dict[str, float | None]:
        found = deposition_rate(given.pop("wire_diameter_mm"), **given, density_g_cm3=STEEL_G_CM3)
        return {"deposition_kg_h": found * fill}

    travel = stated.pop("travel_speed_mm_min")
    values = {**over_corners(formula, {**stated, "travel_speed_mm_min": travel}), **over_corners(rate, stated)}
    lines = [(label_of(name), metal_text(name, value)) for name, value in values.items()]
    sources = [Source("bead_area_mm2", "conservation of metal; steel 7.85 g/cm³", "H"), source]
    if fill != 1.0:
        sources.append(Source("fill", f"cored wire: {fill:g} of its section is metal, from memory", "M"))
    return Answer({n: number_or_interval(v) for n, v in values.items()}, lines, sources)
