"""Records: what was welded and measured on a coupon, and how its specimens did."""

from anlage.core.record.pqr import (
    PQR,
    Override,
    Pqr,
    Recorded,
    RecordedDeposit,
    Result,
    WeldedPass,
    with_recorded_deposit,
    with_row,
    without_recorded_deposit,
    without_row,
)

__all__ = [
    "PQR",
    "Override",
    "Pqr",
    "Recorded",
    "RecordedDeposit",
    "Result",
    "WeldedPass",
    "with_recorded_deposit",
    "with_row",
    "without_recorded_deposit",
    "without_row",
]
