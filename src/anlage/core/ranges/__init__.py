"""The algebra of stated and allowed sets: intervals, numbers, choices and boxes of them."""

from anlage.core.ranges.corners import over_corners
from anlage.core.ranges.graded import GradedBox, GradedEnd, ends_of, graded_end
from anlage.core.ranges.interval import Interval
from anlage.core.ranges.product import Box, uncovered
from anlage.core.ranges.sets import (
    ANY,
    NONE,
    Choices,
    Extreme,
    Numbers,
    Pairs,
    Range,
    all_but,
    between,
    choices,
    fits,
    is_any,
    is_none,
    loosened,
    numbers,
    pairs,
    union,
    without,
)

__all__ = [
    "ANY",
    "NONE",
    "Box",
    "Choices",
    "Extreme",
    "GradedBox",
    "GradedEnd",
    "Interval",
    "Numbers",
    "Pairs",
    "Range",
    "all_but",
    "between",
    "choices",
    "ends_of",
    "fits",
    "graded_end",
    "is_any",
    "is_none",
    "loosened",
    "numbers",
    "over_corners",
    "pairs",
    "uncovered",
    "union",
    "without",
]
