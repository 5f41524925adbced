"""Sizes of fillers as they are sold, by whichever of their two names they were typed."""

from anlage.core.catalogue.filler_sizes import size_named
from anlage.core.quantities import show_interval
from anlage.core.quantities.units import System
from anlage.core.ranges.interval import Interval
from anlage.data.tables import catalogue, unit_table


def size_text(interval: Interval, system: System) -> str:
    """Return sizes of fillers as they are sold: 2.4, or 3/32 in inches, without their unit.

    Examples
    --------
    >>> size_text(Interval(2.38125, 3.2), "si"), size_text(Interval(2.4, 2.4), "us")
    ('2.4..3.2', '3/32')
    """
    low, high = (_one(end, system) for end in (interval.low, interval.high))
    return low if low == high else f"{low}..{high}"


def _one(length_mm: float, system: System) -> str:
    size = size_named(length_mm, catalogue().filler_sizes)
    if size is not None and system == "us":
        return size.inch
    unit = unit_table()["length"].shown_in[system][0].name
    exact = Interval.single(length_mm if size is None else size.mm)
    return show_interval(exact, "length", system, unit_table()).removesuffix(unit).rstrip()
