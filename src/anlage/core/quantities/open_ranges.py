"""Ranges that are without one end, as people type them: `>= 60.3 mm`, `60.3..`, `max 250 °C`."""

import math
import re
from typing import Literal

from anlage.core.errors import InputError
from anlage.core.quantities.parse import parse
from anlage.core.quantities.units import UnitTable
from anlage.core.ranges.interval import Interval

End = Literal["least", "most"]
_LEAST = re.compile(r"\s*(?:>=|=>|≥|min\.?(?=[\s\d])|at least\b|from\b)\s*(?P<number>\S.*)", re.IGNORECASE)
_MOST = re.compile(r"\s*(?:<=|=<|≤|max\.?(?=[\s\d])|at most\b|up to\b|\.\.\.?|…)\s*(?P<number>\S.*)", re.IGNORECASE)
_UP = re.compile(r"\s*(?P<number>\S.*?)\s*(?:\.\.\.?|…|\band (?:up|over)\b|\bor more\b)\s*", re.IGNORECASE)
_STRICT = re.compile(r"\s*[<>](?![=])")


def one_ended(text: str) -> tuple[End, str] | None:
    """Return which end a text states, and the text of that end; `None` where it states both or is no such text.

    Examples
    --------
    >>> one_ended(">= 60.3 mm"), one_ended("60.3.."), one_ended("max 12"), one_ended("5..20")
    (('least', '60.3 mm'), ('least', '60.3'), ('most', '12'), None)
    """
    for end, pattern in (("least", _LEAST), ("most", _MOST), ("least", _UP)):
        if match := pattern.fullmatch(text):
            return ("least" if end == "least" else "most"), match["number"]
    return None


def parse_open(text: str, kind: str, units: UnitTable, *, where: str = "value", bare: str | None = None) -> Interval:
    """Return the interval that `text` states as `parse` does, or one without end; without a least it begins above 0.

    Raises
    ------
    InputError : as `parse`; also where an end itself is left out, which nobody can state of a measured size

    Examples
    --------
    >>> from anlage.data.tables import unit_table
    >>> print(parse_open(">= 60.3 mm", "length", unit_table()), parse_open("<= 12 mm", "length", unit_table()))
    [60.3, inf) (0, 12]
    """
    refuse_strict(text, where=where)
    found = one_ended(text)
    if found is None:
        return parse(text, kind, units, where=where, bare=bare)
    end, number = found
    value = parse(number, kind, units, where=where, bare=bare)
    if not value.is_single:
        raise InputError(f"{text} states more than one end", where=where, mend="write 5..20, >= 5 or <= 20")
    if end == "most" and not value.low > 0:
        raise InputError(f"{text} holds nothing", where=where, mend="state a value above 0")
    return Interval(value.low, math.inf) if end == "least" else Interval(0.0, value.low, low_open=True)


def refuse_strict(text: str, *, where: str) -> None:
    """Refuse `> 60` and `< 60`.

    Raises
    ------
    InputError : a text leaves its own end out
    """
    if _STRICT.match(text):
        sign = text.strip()[0]
        raise InputError(
            f"{text.strip()} leaves its own end out", where=where, mend=f"write {sign}= with the last value that counts"
        )
