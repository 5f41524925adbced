"""Records: what was welded and measured on a coupon."""

from anlage.core.record.pqr import (
    PQR,
    Pqr,
    Recorded,
    RecordedDeposit,
    Result,
    with_recorded_deposit,
    without_recorded_deposit,
)

__all__ = [
    "PQR",
    "Pqr",
    "Recorded",
    "RecordedDeposit",
    "Result",
    "with_recorded_deposit",
    "without_recorded_deposit",
]
