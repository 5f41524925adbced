"""Records: what was welded and measured on a coupon."""

from anlage.core.record.pqr import PQR, Pqr, Recorded, RecordedDeposit, Result

__all__ = ["PQR", "Pqr", "Recorded", "RecordedDeposit", "Result"]
