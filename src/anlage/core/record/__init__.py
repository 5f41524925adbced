"""Records: what was welded and measured on a coupon, and how its specimens did."""

from anlage.core.record.pqr import (
    PQR,
    Override,
    Piece,
    Pqr,
    Recorded,
    RecordedDeposit,
    Result,
    Rows,
    WeldedPass,
    with_recorded_deposit,
    with_row,
    without_recorded_deposit,
    without_row,
)

__all__ = [
    "PQR",
    "Override",
    "Piece",
    "Pqr",
    "Recorded",
    "RecordedDeposit",
    "Result",
    "Rows",
    "WeldedPass",
    "with_recorded_deposit",
    "with_row",
    "without_recorded_deposit",
    "without_row",
]
