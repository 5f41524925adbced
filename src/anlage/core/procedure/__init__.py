"""Procedures: the WPS as a frozen value, and the parts it shares with records."""

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
    Technique,
)
from anlage.core.procedure.wps import WPS, StatedRange, Wps, moved_pass, with_deposit, with_pass, without_pass

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
    "StatedRange",
    "Technique",
    "Wps",
    "moved_pass",
    "with_deposit",
    "with_pass",
    "without_pass",
]
