"""A power source of the works: what a meter read at its taps and dials, and where it is set for a current."""

from anlage.core.machine.calibration import Calibrated, Tap, folded, valid_until
from anlage.core.machine.dials import DialStep, dial_steps
from anlage.core.machine.machine import (
    MACHINE,
    Machine,
    MachineHeader,
    MachineReading,
    is_day,
    with_reading,
    without_reading,
)

__all__ = [
    "MACHINE",
    "Calibrated",
    "DialStep",
    "Machine",
    "MachineHeader",
    "MachineReading",
    "Tap",
    "dial_steps",
    "folded",
    "is_day",
    "valid_until",
    "with_reading",
    "without_reading",
]
