"""A decimal comma, as half the world types it: read as a point where it can be nothing else."""

import re

from anlage.core.errors import InputError

_NUMBER = re.compile(r"\d+(?:[.,]\d+)+")  # single points and commas: two points are a range
_DECIMAL = re.compile(r"(\d+),(\d+)")


def with_points(text: str, *, where: str) -> str:
    """Return a text with decimal points for its decimal commas; each letter stays at its place.

    Three digits after a comma may be thousands, unless a zero stands before it; so may a second comma, or a point
    beside one.

    Raises
    ------
    InputError : a comma may be one thing or the other

    Examples
    --------
    >>> with_points("12,7..0,125 mm", where="value")
    '12.7..0.125 mm'
    """
    return _NUMBER.sub(lambda found: _with_point(found, where), text)


def _with_point(found: re.Match[str], where: str) -> str:
    number = found[0]
    if "," not in number:
        return number
    decimal = _DECIMAL.fullmatch(number)
    if decimal is None or (len(decimal[2]) == 3 and decimal[1].strip("0")):
        mend = "write no thousands, and a point before the decimals"
        raise InputError(f"{number} may be one number or another", where=where, mend=mend, position=found.start())
    return f"{decimal[1]}.{decimal[2]}"
