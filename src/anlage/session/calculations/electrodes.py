"""`calc electrodes`: how many covered electrodes a mass of weld metal takes."""

import math
from typing import Any

from anlage.core.beads import Size
from anlage.core.consumption import electrode_count
from anlage.core.errors import InputError
from anlage.core.joint import STEEL_G_CM3
from anlage.core.processes import of_sticks
from anlage.core.ranges import Interval, over_corners
from anlage.core.results import Notice, Source
from anlage.data.tables import catalogue, processes
from anlage.session.keyed.answer import Answer, number_or_interval
from anlage.session.keyed.arguments import Arguments
from anlage.session.keyed.words import minutes_text

KEYS = ("classification", "diameter", "weld_metal_kg", "od", "beads")


def answer(arguments: Arguments) -> Answer:
    """Answer `calc electrodes`."""
    arguments.need("classification", "diameter")
    filler, diameter = catalogue().filler(arguments.text("classification"), where="classification"), 0.0
    diameter = arguments.single("diameter", "length")
    row = catalogue().filler_current(filler.classification, diameter, process=of_sticks(processes()))
    if row is None or row.electrode_length_mm is None or row.stub_mm is None:
        sizes = [r.diameter_in for r in catalogue().filler_currents if r.classification == filler.classification]
        mend = (
            f"take one of {', '.join(dict.fromkeys(sizes))} in" if sizes else "name a covered electrode, such as E7018"
        )
        raise InputError(
            f"no covered electrode {filler.classification} of {diameter:g} mm is known", where="diameter", mend=mend
        )
    density = filler.density_g_cm3 or STEEL_G_CM3
    recovery = (row.electrode_efficiency_percent or 100.0) / 100
    sources = [Source("electrode", f"{row.classification} {row.diameter_in} in: {row.source}", row.confidence)]
    if "weld_metal_kg" in arguments:
        metal = arguments.interval("weld_metal_kg", "mass", bare="kg")
    else:
        if "od" not in arguments and "beads" not in arguments:
            raise InputError("is missing", where="weld_metal_kg", mend="add weld_metal_kg=… , or od=… and beads=…")
        arguments.need("od", "beads")
        size = Size.of_electrode(diameter)
        volume = math.pi * size.area_mm2 * arguments.single("beads", "ratio")
        od = arguments.interval("od", "length")
        metal = Interval(volume * od.low * density * 1e-6, volume * od.high * density * 1e-6)
        text = f"stringers of {size.area_mm2:.1f} mm², usual for {row.diameter_in} in (common practice, no source)"
        sources.append(Source("beads", text, "M"))

    def formula(weld_metal_kg: float) -> dict[str, float | None]:
        found = electrode_count(
            weld_metal_kg, diameter_mm=row.diameter_mm, recovery=recovery, density_g_cm3=density,
            consumed_length_mm=(row.electrode_length_mm or 0.0) - (row.stub_mm or 0.0),
        )  # fmt: skip
        rate = row.deposition_kg_h_typical
        return {"count": float(math.ceil(found - 1e-9)), "arc_time_min": weld_metal_kg / rate * 60 if rate else None}

    values = over_corners(formula, {"weld_metal_kg": metal})
    notices = []
    if values["arc_time_min"] is None:
        text = f"no deposition rate is known for {row.classification} {row.diameter_in} in: no arc time"
        notices.append(Notice("electrodes.no_rate", "classification", text))
    count = values["count"]
    assert count is not None
    whole = int(count.low) if count.is_single else [int(count.low), int(count.high)]
    lines = [
        ("electrodes", f"{whole}" if isinstance(whole, int) else f"{whole[0]}..{whole[1]}"),
        ("arc time", minutes_text(values["arc_time_min"])),
        ("each", f"{row.electrode_length_mm:g} mm, stub {row.stub_mm:g} mm, recovery {recovery:g}"),
    ]
    answer: dict[str, Any] = {"count": whole, "arc_time_min": number_or_interval(values["arc_time_min"])}
    answer["weld_metal_kg"] = number_or_interval(metal)
    return Answer(answer, lines, sources, notices)
