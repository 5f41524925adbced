"""What an arc brings into the work: arc energy, heat input, run-out, and the travel speed they need."""

from anlage.core.heat.arc_energy import (
    Corner,
    EnergyRange,
    arc_energy,
    arc_energy_from_energy,
    arc_energy_from_power,
    heat_input,
    over_range,
)
from anlage.core.heat.run_out import RunOut, RunOutFactor, read_run_out_factors, run_out
from anlage.core.heat.travel_speed import ClockArc, clock_arc, clock_position, travel_speed_range

__all__ = [
    "ClockArc",
    "Corner",
    "EnergyRange",
    "RunOut",
    "RunOutFactor",
    "arc_energy",
    "arc_energy_from_energy",
    "arc_energy_from_power",
    "clock_arc",
    "clock_position",
    "heat_input",
    "over_range",
    "read_run_out_factors",
    "run_out",
    "travel_speed_range",
]
