"""A formula over ranges: evaluated at every corner, exact where it rises or falls in each of its inputs."""

from collections.abc import Callable, Mapping
from itertools import product

from anlage.core.ranges.interval import Interval


def over_corners(
    formula: Callable[..., Mapping[str, float | None]], stated: Mapping[str, Interval]
) -> dict[str, Interval | None]:
    """Return the interval of every result of `formula` over the stated intervals.

    Parameters
    ----------
    formula : takes one number per name and returns results by name, each rising or falling in every input
    stated : the interval of every input, by name

    Raises
    ------
    InputError : the formula refuses a corner

    Examples
    --------
    >>> over_corners(lambda a, b: {"area": a * b}, {"a": Interval(2, 3), "b": Interval.single(4)})
    {'area': Interval(low=8.0, high=12.0, low_open=False, high_open=False)}
    """
    ends = [(value.low,) if value.is_single else (value.low, value.high) for value in stated.values()]
    corners = [formula(**dict(zip(stated, corner, strict=True))) for corner in product(*ends)]
    found: dict[str, Interval | None] = {}
    for name in corners[0]:
        values = [value for corner in corners if (value := corner[name]) is not None]
        found[name] = Interval(min(values), max(values)) if values else None
    return found
