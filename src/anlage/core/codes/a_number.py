"""A-Number of a ferrous deposit from its composition, by the table of QW-442."""

from collections.abc import Mapping
from typing import Annotated, Any, Literal

import msgspec


class ANumberRow(msgspec.Struct, frozen=True, forbid_unknown_fields=True):
    """One A-Number with the least and most of each element [% by mass]."""

    a_number: str
    type: str  # of weld deposit, in words
    limits: Mapping[str, tuple[float, float]]
    source: str = ""
    confidence: Literal["H", "M", "L"] = "M"


def read_a_numbers(rows: Any) -> tuple[ANumberRow, ...]:
    """Return the rows of a table of A-Numbers.

    Raises
    ------
    msgspec.ValidationError : a row is not what it has to be
    """
    found: tuple[ANumberRow, ...] = msgspec.convert(rows, Annotated[tuple[ANumberRow, ...], msgspec.Meta(min_length=1)])
    return found


def a_numbers(composition: Mapping[str, float], table: tuple[ANumberRow, ...]) -> tuple[str, ...]:
    """Return every A-Number whose limits hold a deposit composition; a boundary value can fit two.

    Parameters
    ----------
    composition : deposit analysis [% by mass]; an element not named counts as 0
    table : from `read_a_numbers`

    Validity
    --------
    Ferrous weld metal. No number: the nominal composition or classification must match instead.

    Sources
    -------
    ASME BPVC IX QW-404.5, QW-442 (H; the bounds of A-4, A-5 and A-9 M).

    Examples
    --------
    >>> table = (ANumberRow("5", "Cr-Mo", {"C": (0.0, 0.15), "Cr": (4.0, 6.0), "Mo": (0.4, 0.65)}),)
    >>> a_numbers({"C": 0.07, "Cr": 5.0, "Mo": 0.55, "Mn": 0.7, "Si": 0.5}, table)
    ('5',)
    """
    return tuple(
        row.a_number
        for row in table
        if all(low <= composition.get(element, 0.0) <= high for element, (low, high) in row.limits.items())
    )
