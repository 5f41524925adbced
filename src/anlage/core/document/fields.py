"""The kinds of leaf a document has: ranges, dimensions with tolerance, texts; what is impossible is refused here."""

from typing import Annotated, Any

from pydantic import BeforeValidator, Field, PlainSerializer, WithJsonSchema

from anlage.core.document.model import Part
from anlage.core.errors import InputError
from anlage.core.ranges import Interval

LONGEST_TEXT = 4000  # characters; a sheet has no room for more


def _interval(value: Any) -> Interval:
    if isinstance(value, Interval):
        found = value
    else:
        numbers = isinstance(value, list | tuple) and len(value) == 2
        if not numbers or not all(isinstance(end, int | float) and not isinstance(end, bool) for end in value):
            raise InputError(f"{value!r:.40} is no range", where="range", mend="write two numbers, [low, high]")
        found = Interval(*value)
    if not (found.low > float("-inf") and found.high < float("inf")):
        raise InputError(f"{found} has no end", where="range", mend="state both ends")
    return found


def _above_zero(value: Interval) -> Interval:
    if not value.low > 0:
        raise InputError(f"{value.low:g} is not above 0", where="range", mend="state values above 0")
    return value


def _not_below_zero(value: Interval) -> Interval:
    if not value.low >= 0:
        raise InputError(f"{value.low:g} is below 0", where="range", mend="state values of 0 or more")
    return value


_AS_LIST = PlainSerializer(lambda value: [value.low, value.high], return_type=list[float])
_SCHEMA = WithJsonSchema({"type": "array", "items": {"type": "number"}, "minItems": 2, "maxItems": 2})

Span = Annotated[Interval, BeforeValidator(_interval), _AS_LIST, _SCHEMA]
"""A stated range [low, high] of any sign, such as temperatures."""

PositiveSpan = Annotated[Interval, BeforeValidator(lambda v: _above_zero(_interval(v))), _AS_LIST, _SCHEMA]
"""A stated range of values above 0: current, voltage, speed, thickness."""

ZeroSpan = Annotated[Interval, BeforeValidator(lambda v: _not_below_zero(_interval(v))), _AS_LIST, _SCHEMA]
"""A stated range of values from 0 on: a deposit's thickness."""

Text = Annotated[str, Field(max_length=LONGEST_TEXT)]
"""A text as typed."""

Positive = Annotated[float, Field(gt=0)]
"""One number above 0."""

Temperature = Annotated[float, Field(gt=-273.15)]
"""One temperature [°C] above absolute zero."""


class Dimension(Part):
    """A dimension of the joint with what it may fall short of and exceed the nominal."""

    nominal: Annotated[float, Field(ge=0)]
    minus: Annotated[float, Field(ge=0)] = 0.0
    plus: Annotated[float, Field(ge=0)] = 0.0

    def check(self) -> None:
        """Refuse a minus that takes the dimension below zero."""
        if self.minus > self.nominal:
            what = f"minus {self.minus:g} takes {self.nominal:g} below zero"
            raise InputError(what, where="minus", mend="state a smaller minus")

    @property
    def span(self) -> Interval:
        """From the least to the most it may be."""
        return Interval(self.nominal - self.minus, self.nominal + self.plus)
