"""Hydrogen of a deposit as people state it: a class, or millilitres in 100 g."""

import re

from anlage.core.errors import InputError, shortened

NOT_CONTROLLED = 30.0  # ml/100 g: what the structural code counts for hydrogen that nobody controls
MOST = 150.0  # no electrode gives off more
_TEXT = re.compile(r"(?:(H)\s*(\d+)|(\d+(?:[.,]\d+)?)\s*(?:ml\s*/\s*100\s*g)?)", re.IGNORECASE)


def hydrogen_of(text: str) -> float:
    """Return the most that a deposit gives off [ml/100 g]: the upper end of a class, or the number itself.

    Raises
    ------
    InputError : neither a class nor a number above 0

    Examples
    --------
    >>> hydrogen_of("H5"), hydrogen_of("7,5"), hydrogen_of("3 ml/100 g")
    (5.0, 7.5, 3.0)
    """
    found = _TEXT.fullmatch(text.strip())
    number = float((found[2] or found[3]).replace(",", ".")) if found else 0.0
    if not 0 < number <= MOST:
        mend = "state a class such as H5, or ml per 100 g up to 150"
        raise InputError(f"{shortened(text)} is no hydrogen content", where="hydrogen", mend=mend)
    return number
