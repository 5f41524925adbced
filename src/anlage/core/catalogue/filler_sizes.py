"""Sizes of fillers as the trade sells them: one size under a name in millimetres and one in inches."""

from collections.abc import Iterable

from msgspec import Struct

MM_PER_INCH = 25.4
SAME_MM = 0.005  # a length within this of either name is the size


class FillerSize(Struct, frozen=True):
    """One size: its name in millimetres, and its name in inches."""

    mm: float
    inch: str

    @property
    def inch_mm(self) -> float:
        """What its name in inches is in millimetres.

        Examples
        --------
        >>> FillerSize(2.4, "3/32").inch_mm
        2.38125
        """
        top, _, bottom = self.inch.partition("/")
        return float(top) / float(bottom or 1) * MM_PER_INCH

    @property
    def judged_mm(self) -> float:
        """What it is judged as: the smaller of its names, so that a limit of 1/4 in or 6.4 mm lets either one be."""
        return min(self.mm, self.inch_mm)


def size_named(length_mm: float, sizes: Iterable[FillerSize]) -> FillerSize | None:
    """Return the size that a length names, in millimetres or inches; `None` for what is no size of the trade.

    Examples
    --------
    >>> sizes = (FillerSize(2.4, "3/32"), FillerSize(3.2, "1/8"))
    >>> size_named(2.38125, sizes) == size_named(2.4, sizes) == sizes[0], size_named(2.5, sizes)
    (True, None)
    """
    return next(
        (each for each in sizes if min(abs(length_mm - each.mm), abs(length_mm - each.inch_mm)) <= SAME_MM), None
    )
