"""A-Number of a ferrous deposit from its composition, by the table of QW-442."""

import tomllib
from collections.abc import Mapping
from dataclasses import dataclass


@dataclass(frozen=True, slots=True)
class ANumberRow:
    """One A-Number with the least and most of each element [% by mass]."""

    a_number: str
    limits: Mapping[str, tuple[float, float]]
    source: str
    confidence: str


def read_a_numbers(text: str) -> tuple[ANumberRow, ...]:
    """Return the table written in `text` (TOML)."""
    rows = tomllib.loads(text)["row"]
    return tuple(
        ANumberRow(
            row["a_number"],
            {element: (float(low), float(high)) for element, (low, high) in row["limits"].items()},
            row["source"],
            row["confidence"],
        )
        for row in rows
    )


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
    >>> from anlage.data.code_packs import a_number_table
    >>> a_numbers({"C": 0.07, "Cr": 5.0, "Mo": 0.55, "Mn": 0.7, "Si": 0.5}, a_number_table())
    ('5',)
    """
    return tuple(
        row.a_number
        for row in table
        if all(low <= composition.get(element, 0.0) <= high for element, (low, high) in row.limits.items())
    )
