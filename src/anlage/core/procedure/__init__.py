"""Procedures: the WPS as a frozen value, and the parts it shares with records."""

from anlage.core.procedure.energy import pass_energy, pass_power
from anlage.core.procedure.parts import (
    Deposit,
    Header,
    HoldPoint,
    Joint,
    Metal,
    Metals,
    Pass,
    Preheat,
    Pwht,
    Seam,
    Technique,
)
from anlage.core.procedure.preparation import clashes, sketch_of
from anlage.core.procedure.wps import (
    WPS,
    StatedRange,
    Wps,
    moved_pass,
    with_deposit,
    with_pass,
    without_deposit,
    without_pass,
)

__all__ = [
    "WPS",
    "Deposit",
    "Header",
    "HoldPoint",
    "Joint",
    "Metal",
    "Metals",
    "Pass",
    "Preheat",
    "Pwht",
    "Seam",
    "StatedRange",
    "Technique",
    "Wps",
    "clashes",
    "moved_pass",
    "pass_energy",
    "pass_power",
    "sketch_of",
    "with_deposit",
    "with_pass",
    "without_deposit",
    "without_pass",
]
