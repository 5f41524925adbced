"""A clash: two statements of one fact that disagree, and what every check of them has at hand."""

from collections.abc import Callable, Iterator
from datetime import date
from typing import Any

from msgspec import Struct

from anlage.core.codes.derive import Derivations
from anlage.core.quantities import show, show_interval
from anlage.core.quantities.units import System
from anlage.core.ranges import Interval
from anlage.data.tables import unit_table
from anlage.session.leaves.text import shown

NEAR = 1e-6  # relative; what is closer is the same number


class Clash(Struct, frozen=True):
    """Two statements that disagree: the leaves, the variables that hang on them, and the sentence that says so."""

    leaves: tuple[str, ...]
    variables: frozenset[str]
    text: str
    deposit: str = ""  # the deposit that they belong to; "" for the joint
    mend: str = "make both say the same"


class Said(Struct, frozen=True):
    """A document with what its code derives, and the reader's units that its numbers are said in."""

    document: Any
    derive: Derivations
    system: System

    def length(self, value_mm: float) -> str:
        """Return a length [mm] as the reader reads it."""
        return show(value_mm, "length", self.system, unit_table())

    def span(self, span_mm: Interval) -> str:
        """Return a range of lengths [mm] as the reader reads it."""
        if span_mm.low_open or span_mm.high_open:
            return show_interval(span_mm, "length", self.system, unit_table())
        low, high = self.length(span_mm.low), self.length(span_mm.high)
        return low if low == high else f"{low} to {high}"

    def temperature(self, value_c: float) -> str:
        """Return a temperature [°C] as the reader reads it."""
        return show(value_c, "temperature", self.system, unit_table())

    def leaf(self, path: str) -> str:
        """Return what stands in the field of a leaf."""
        return shown(self.document, path, self.system)


def holds(span: Interval, value: float) -> bool:
    """Return whether a range holds a value; what is closer than `NEAR` is the same number."""
    return span.low * (1 - NEAR) <= value <= span.high * (1 + NEAR)


def slack(thickness_mm: float) -> float:
    """Return by how much deposits may miss a thickness: what a ruler and a crown leave open."""
    return max(0.5, 0.02 * thickness_mm)


def is_day(text: str) -> bool:
    """Return whether a text is a day of the calendar, as 2026-04-14."""
    try:
        date.fromisoformat(text)
    except ValueError:
        return False
    return True


Check = Callable[[Said], Iterator[Clash]]
