"""The algebra of stated and allowed sets: intervals, numbers, choices and boxes of them."""

from anlage.core.ranges.corners import over_corners
from anlage.core.ranges.interval import Interval
from anlage.core.ranges.product import Box, uncovered
from anlage.core.ranges.sets import (
    ANY,
    NONE,
    Choices,
    Extreme,
    Numbers,
    Range,
    all_but,
    between,
    choices,
    fits,
    is_any,
    is_none,
    loosened,
    numbers,
    union,
)

__all__ = [
    "ANY",
    "NONE",
    "Box",
    "Choices",
    "Extreme",
    "Interval",
    "Numbers",
    "Range",
    "all_but",
    "between",
    "choices",
    "fits",
    "is_any",
    "is_none",
    "loosened",
    "numbers",
    "over_corners",
    "uncovered",
    "union",
]
