"""`calc run-out`: heat input from how far an electrode goes."""

from anlage.core.heat import (
    run_out,
)
from anlage.core.ranges import over_corners
from anlage.core.results import Source
from anlage.data.tables import run_out_factors
from anlage.session.keyed.answer import Answer, number_or_interval, shown
from anlage.session.keyed.arguments import Arguments

KEYS = ("diameter", "consumed_length", "bead_length", "electrode_efficiency")


def answer(arguments: Arguments) -> Answer:
    """Answer `calc run-out`."""
    arguments.need("diameter", "consumed_length", "bead_length", "electrode_efficiency")
    efficiency = arguments.single("electrode_efficiency", "percent")
    lengths = {f"{key}_mm": arguments.interval(key, "length") for key in ("diameter", "consumed_length", "bead_length")}
    results = []

    def formula(diameter_mm: float, consumed_length_mm: float, bead_length_mm: float) -> dict[str, float]:
        found = run_out(
            diameter_mm,
            consumed_length_mm=consumed_length_mm,
            bead_length_mm=bead_length_mm,
            electrode_efficiency_percent=efficiency,
            factors=run_out_factors(),
        )
        results.append(found)
        return {"heat_input_kj_mm": found.heat_input_kj_mm, "run_out_ratio": found.run_out_ratio}

    values = over_corners(formula, lengths)
    factor = results[0].factor
    sources = [Source("heat input, k = 0.8 inside", factor.source, factor.confidence)]
    names = {"heat_input_kj_mm": "heat input", "run_out_ratio": "run-out ratio"}
    lines = [(label, shown(name, values[name])) for name, label in names.items()]
    return Answer({n: number_or_interval(v) for n, v in values.items()}, lines, sources, results[0].notices)
