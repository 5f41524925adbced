"""The kinds of leaf a document has: ranges, dimensions with tolerance, texts; what is impossible is refused here."""

import sys
from typing import Annotated, Final

from msgspec import Meta

from anlage.core.document.model import OPEN_ENDS, SPAN, Part
from anlage.core.errors import InputError
from anlage.core.ranges import Interval

LONGEST_TEXT: Final = 4000  # characters; a sheet has no room for more
LARGEST: Final = sys.float_info.max  # infinity is no number of a document

Span = Annotated[Interval, Meta(extra={SPAN: "any"})]
"""A stated range [low, high] of any sign, such as temperatures."""

PositiveSpan = Annotated[Interval, Meta(extra={SPAN: "above zero"})]
"""A stated range of values above 0: current, voltage, speed, thickness."""

ZeroSpan = Annotated[Interval, Meta(extra={SPAN: "zero"})]
"""A stated range of values from 0 on: a deposit's thickness."""

OpenSpan = Annotated[Interval, Meta(extra={SPAN: "open"}, extra_json_schema={OPEN_ENDS: True})]
"""A stated range of values above 0 that may be without end, [60.3, null], or begin at nothing, [null, 12]."""

Text = Annotated[str, Meta(max_length=LONGEST_TEXT)]
"""A text as typed."""

Number = Annotated[float, Meta(ge=-LARGEST, le=LARGEST)]
"""One number of any sign."""

Positive = Annotated[float, Meta(gt=0, le=LARGEST)]
"""One number above 0."""

NotNegative = Annotated[float, Meta(ge=0, le=LARGEST)]
"""One number from 0 on."""

Temperature = Annotated[float, Meta(gt=-273.15, le=LARGEST)]
"""One temperature [°C] above absolute zero."""


class Dimension(Part):
    """A dimension of the joint with what it may fall short of and exceed the nominal."""

    nominal: NotNegative
    minus: NotNegative = 0.0
    plus: NotNegative = 0.0

    def check(self) -> None:
        """Refuse a minus that takes the dimension below zero."""
        if self.minus > self.nominal:
            what = f"minus {self.minus:g} takes {self.nominal:g} below zero"
            raise InputError(what, where="minus", mend="state a smaller minus")

    @property
    def span(self) -> Interval:
        """From the least to the most it may be."""
        return Interval(self.nominal - self.minus, self.nominal + self.plus)


class Proposed(Part):
    """Why a leaf is only proposed: the reason in a sentence, and how sure it is (H, M or L)."""

    reason: Text
    confidence: Annotated[str, Meta(pattern="^[HML]$")]
