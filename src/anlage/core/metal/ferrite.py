"""Ferrite in stainless deposits: by formula, as a band, and read off a table of lines that an engineer brings.

Glossary
--------
FN : ferrite number, about per cent up to 10, above that 0.7 of it is the per cent in duplex
solidification mode : A austenite alone, AF austenite first, FA ferrite first, F ferrite alone
"""

import csv
import math
from io import StringIO
from itertools import pairwise
from typing import Literal

from msgspec import Struct

from anlage.core.errors import FormatError, InputError

Mode = Literal["A", "AF", "FA", "F"]
MODES: tuple[tuple[float, Mode], ...] = ((1.25, "A"), (1.48, "AF"), (1.95, "FA"), (math.inf, "F"))
WRC_CR, WRC_NI, WRC_MOST_FN = (17.0, 31.0), (9.0, 18.0), 100.0


class Band(Struct, frozen=True):
    """A band of ferrite numbers; `low` and `high` are equal where it was read off lines."""

    low: float
    high: float


class Lines(Struct, frozen=True):
    """Lines of equal ferrite number over Cr and Ni equivalent, as an engineer digitised them."""

    name: str
    lines: tuple[tuple[float, tuple[tuple[float, float], ...]], ...]  # fn, its points (cr_eq, ni_eq) in rising cr_eq


def seferian_ferrite(cr_eq: float, ni_eq: float) -> float:
    """Return ferrite [%] by Séférian; below 0 the deposit has none, above 20 the formula says nothing.

    Parameters
    ----------
    cr_eq, ni_eq : equivalents of Schaeffler [%]

    Validity
    --------
    0 to 20 % ferrite.

    Sources
    -------
    Séférian, from memory, H as a formula.

    Examples
    --------
    >>> seferian_ferrite(21.468, 12.545)
    9.3
    """
    return 3 * (cr_eq - 0.93 * ni_eq - 6.7)


def delong_number(cr_eq: float, ni_eq: float) -> float:
    """Return the ferrite number by a straight reading of DeLong's diagram.

    Parameters
    ----------
    cr_eq : Cr equivalent of Schaeffler [%]
    ni_eq : Ni equivalent of DeLong, which counts nitrogen [%]

    Validity
    --------
    0 to 16 FN.

    Sources
    -------
    DeLong 1974, linear form from memory, L.

    Examples
    --------
    >>> delong_number(21.468, 13.847)
    9.0
    """
    return 3.34 * cr_eq - 2.46 * ni_eq - 28.6


def ferrite_estimate(cr_eq: float, ni_eq: float) -> Band | None:
    """Return a band of ferrite numbers as an estimate; `None` outside the range of the equivalents.

    Parameters
    ----------
    cr_eq, ni_eq : equivalents of WRC-1992 [%]

    Validity
    --------
    Cr equivalent 17 to 31, Ni equivalent 9 to 18. No diagram and no published formula: a fit to five typical deposits,
    ±4 FN below 15 and ±10 above.

    Sources
    -------
    Own fit to typical all-weld deposits, L.

    Examples
    --------
    >>> ferrite_estimate(20.826, 12.921)
    Band(low=6.7, high=14.7)
    >>> ferrite_estimate(25.9, 19) is None
    True
    """
    if not (WRC_CR[0] <= cr_eq <= WRC_CR[1] and WRC_NI[0] <= ni_eq <= WRC_NI[1]):
        return None
    x = cr_eq - 0.9 * ni_eq
    number = 0.0 if x < 7.2 else 5.3 * (x - 7.2) if x <= 9.1 else 10 + 7.0 * (x - 9.1)
    spread = 4.0 if number < 15 else 10.0
    return Band(max(number - spread, 0.0), min(number + spread, WRC_MOST_FN))


def solidification_mode(cr_eq: float, ni_eq: float) -> Mode:
    """Return how a deposit solidifies, by the ratio of its equivalents of Schaeffler.

    Parameters
    ----------
    cr_eq, ni_eq : equivalents of Schaeffler [%]; Ni equivalent above 0

    Raises
    ------
    InputError : the Ni equivalent is not above 0

    Validity
    --------
    Austenitic and duplex stainless deposits. Little risk of solidification cracks above a ratio of 1.48 (M).

    Sources
    -------
    Suutala, equivalents of Schaeffler's kind, from memory, H.

    Examples
    --------
    >>> solidification_mode(21.468, 12.545), solidification_mode(25.6, 21.5)
    ('FA', 'A')
    """
    if not ni_eq > 0:
        raise InputError(f"{ni_eq:g} is not above 0", where="Ni equivalent", mend="state the nickel")
    ratio = cr_eq / ni_eq
    return next(mode for most, mode in MODES if ratio < most)


def read_lines(text: str, *, name: str) -> Lines:
    """Return a table of lines from CSV with the columns `fn,cr_eq,ni_eq`, two or more points a line.

    Raises
    ------
    FormatError : a column is missing, a value is no number, a line has one point, or two points at one Cr equivalent
    """
    rows = list(csv.reader(StringIO(text)))
    if not rows or [cell.strip().casefold() for cell in rows[0]] != ["fn", "cr_eq", "ni_eq"]:
        raise FormatError("has other columns", where=name, mend="begin with the line fn,cr_eq,ni_eq")
    found: dict[float, list[tuple[float, float]]] = {}
    for at, row in enumerate(rows[1:], 2):
        if not any(cell.strip() for cell in row):
            continue
        try:
            fn, cr, ni = (float(cell) for cell in row)
        except ValueError as fault:
            raise FormatError("is no row of three numbers", where=f"{name} line {at}", mend="mend the row") from fault
        if not all(math.isfinite(value) for value in (fn, cr, ni)):
            raise FormatError("has a number without end", where=f"{name} line {at}", mend="mend the row")
        found.setdefault(fn, []).append((cr, ni))
    for fn, points in found.items():
        points.sort()
        if len({cr for cr, _ in points}) < max(2, len(points)):
            mend = "give two points or more, each at a Cr equivalent of its own"
            raise FormatError(f"the line of FN {fn:g} has too few points", where=name, mend=mend)
    return Lines(name, tuple((fn, tuple(points)) for fn, points in sorted(found.items())))


def read_off(lines: Lines, cr_eq: float, ni_eq: float) -> float | None:
    r"""Return the ferrite number between two lines; `None` beyond the outermost lines or their ends.

    Parameters
    ----------
    lines : from `read_lines`
    cr_eq, ni_eq : equivalents that the lines were drawn over [%]

    Validity
    --------
    Between the lines that the table holds; linear between points and between lines.

    Sources
    -------
    The engineer's own table; linear interpolation.

    Examples
    --------
    >>> own = read_lines("fn,cr_eq,ni_eq\n0,18,12\n0,22,16\n10,18,10\n10,22,14\n", name="own")
    >>> read_off(own, 20, 13), read_off(own, 20, 15)
    (5.0, None)
    """
    at = [(fn, height) for fn, points in lines.lines if (height := _height(points, cr_eq)) is not None]
    for (fn, height), (next_fn, next_height) in pairwise(at):
        low, high = sorted((height, next_height))
        if low <= ni_eq <= high and low < high:
            return fn + (next_fn - fn) * (ni_eq - height) / (next_height - height)
    return None


def _height(points: tuple[tuple[float, float], ...], cr_eq: float) -> float | None:
    for (x, y), (next_x, next_y) in pairwise(points):
        if x <= cr_eq <= next_x:
            return y + (next_y - y) * (cr_eq - x) / (next_x - x)
    return None
