"""The base metals that a code lists itself, with what it says of each: groups and categories, some by thickness.

A code that splits a steel by thickness has several rows of it. What a procedure is stated for may reach into more than
one: then everything that it is somewhere counts, and whatever is asked must hold for all of it.
"""

from collections.abc import Iterator, Mapping, Sequence
from itertools import product
from typing import Annotated, Any, Literal

import msgspec
from msgspec import Meta, Struct

from anlage.core.catalogue import MetalGroup
from anlage.core.codes.facts import Fact, pair_token
from anlage.core.codes.limits import Limit, limit
from anlage.core.quantities.units import System, UnitTable
from anlage.core.ranges import Interval

SAME = 1e-9


class Sides(Struct, frozen=True):
    """How thick both sides of a joint are, each over all that it may be [mm]; `None` where nobody says."""

    one: Interval | None = None
    other: Interval | None = None
    units: System = "si"


NO_SIDES = Sides()


class WrittenRow(Struct, frozen=True, forbid_unknown_fields=True):
    """A row as it is written: metals by their name in the catalogue, between which thicknesses, and what they are."""

    metals: Annotated[tuple[str, ...], Meta(min_length=1)]
    says: dict[str, str] = msgspec.field(name="is")
    confidence: Literal["H", "M", "L"]
    above: float | dict[str, float] | None = None
    to: float | dict[str, float] | None = None
    note: str = ""


class Row(Struct, frozen=True):
    """What a code says of some metals between two thicknesses; `None` where there is no end."""

    metals: frozenset[str]
    says: Mapping[str, str]
    confidence: str
    above: Limit | None = None
    to: Limit | None = None

    def holds(self, span: Interval | None, units: System) -> bool:
        """Whether it holds somewhere in a range of thickness; of one that nobody states it may."""
        if span is None:
            return True
        above, to = self.above.of(units) if self.above else 0.0, self.to.of(units) if self.to else float("inf")
        return span.high > above * (1 + SAME) and span.low <= to * (1 + SAME)


class Listing(Struct, frozen=True):
    """All metals that a code lists."""

    rows: tuple[Row, ...] = ()

    def of(self, metal: MetalGroup, span: Interval | None, units: System) -> tuple[Row, ...]:
        """Return the rows of a metal in a range of thickness; none of one that the code does not list."""
        return tuple(row for row in self.rows if metal.name in row.metals and row.holds(span, units))

    def fact(self, column: str, form: str, otherwise: str, metals: Sequence[MetalGroup], sides: Sides) -> Fact | None:
        """Return what a column says of both ends: joined, each, or the names of those of which it says something.

        `unlisted` are the names of both where one of them is not in the list.

        A word that is not sure (L) is no fact, no more than one that is not there, unless there is one for metals
        that are not listed.
        """
        spans = (sides.one, sides.other)
        if form == "unlisted":
            known = [bool(self.of(m, None, sides.units)) for m in metals]
            return None if all(known) else "+".join(sorted(m.name for m in metals))
        if form == "names":
            named = [m.name for m, span in zip(metals, spans, strict=True) if self._says(m, span, column, sides.units)]
            return "+".join(sorted(named)) if named else None
        ends = [
            list(dict.fromkeys(self._words(metal, span, column, otherwise, sides.units)))
            for metal, span in zip(metals, spans, strict=True)
        ]
        if not all(ends) or not all(word for words in ends for word in words):
            return None
        if form == "ends":
            return frozenset(word for words in ends for word in words)
        pairs = frozenset(pair_token(one, other) for one, other in product(*ends))
        return next(iter(pairs)) if len(pairs) == 1 else pairs

    def _says(self, metal: MetalGroup, span: Interval | None, column: str, units: System) -> bool:
        return any(row.says.get(column) for row in self.of(metal, span, units))

    def _words(
        self, metal: MetalGroup, span: Interval | None, column: str, otherwise: str, units: System
    ) -> Iterator[str]:
        rows = self.of(metal, span, units)
        yield from (row.says.get(column, "") if row.confidence != "L" else "" for row in rows)
        if not rows:
            yield otherwise


def read_listing(rows: Any, units: UnitTable) -> Listing:
    """Return the metals that a table lists.

    Raises
    ------
    msgspec.ValidationError : a row is not what it has to be
    InputError : a thickness is no limit
    """
    written = msgspec.convert(rows, Annotated[tuple[WrittenRow, ...], Meta(min_length=1)])

    def end(stated: float | dict[str, float] | None) -> Limit | None:
        return None if stated is None else limit(stated, "length", units)

    return Listing(tuple(Row(frozenset(r.metals), r.says, r.confidence, end(r.above), end(r.to)) for r in written))
