"""One interval of numbers, each end closed, open or absent."""

import math
from typing import Self

import msgspec

from anlage.core.errors import InputError


class Interval(msgspec.Struct, frozen=True, array_like=True, forbid_unknown_fields=True):
    """All numbers from `low` to `high`; an infinite end is an absent one, and always open.

    Raises
    ------
    InputError : an end is not a number, or nothing lies between the ends

    Examples
    --------
    >>> Interval(23, 26)
    Interval(low=23.0, high=26.0, low_open=False, high_open=False)
    >>> print(Interval(0, 5, low_open=True))
    (0, 5]
    """

    low: float
    high: float
    low_open: bool = False
    high_open: bool = False

    def __post_init__(self) -> None:
        low, high = self.low, self.high
        if not low <= high or low == math.inf or high == -math.inf:
            raise self._refusal()
        put = msgspec.structs.force_setattr  # frozen: only what differs from what was given is put right
        if type(low) is not float or low == 0:
            put(self, "low", float(low) + 0.0)  # + 0.0 makes -0.0 plain 0.0
        if type(high) is not float or high == 0:
            put(self, "high", float(high) + 0.0)
        if low == -math.inf:
            put(self, "low_open", True)  # noqa: FBT003 - the value set
        if high == math.inf:
            put(self, "high_open", True)  # noqa: FBT003 - the value set
        if low == high and (self.low_open or self.high_open):
            raise InputError(f"{low:g} without its end holds nothing", where="range", mend="close the end")

    def _refusal(self) -> InputError:
        if math.isnan(self.low) or math.isnan(self.high):
            return InputError("an end is not a number", where="range", mend="state both ends")
        return InputError(f"{self.low:g} to {self.high:g} holds nothing", where="range", mend="swap the ends")

    @classmethod
    def single(cls, value: float) -> Self:
        """Return the interval that holds `value` alone."""
        return cls(value, value)

    @property
    def is_single(self) -> bool:
        """Whether one number alone lies in it."""
        return self.low == self.high

    def contains(self, value: float) -> bool:
        """Whether `value` lies in it; NaN never does."""
        above = value > self.low if self.low_open else value >= self.low
        below = value < self.high if self.high_open else value <= self.high
        return above and below

    def __str__(self) -> str:
        left, right = "(["[not self.low_open], ")]"[not self.high_open]
        return f"{left}{self.low:g}, {self.high:g}{right}"
