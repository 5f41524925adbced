"""Numbers that a code counts by classes: a wall of 9.5 mm is of wall group W2, whatever else is asked of it."""

from collections.abc import Iterator
from typing import Annotated, Any

import msgspec
from msgspec import Meta, Struct

from anlage.core.codes.limits import Limit, limit
from anlage.core.quantities.units import System, UnitTable
from anlage.core.ranges import Interval, Numbers, is_none

Pair = float | dict[str, float]


class WrittenClassRow(Struct, frozen=True, forbid_unknown_fields=True):
    """One class as it is written: its word, between which numbers; with `own` each number is a class of its own."""

    token: Annotated[str, Meta(min_length=1)] = msgspec.field(name="is")
    below: Pair | None = None
    to: Pair | None = None
    above: Pair | None = None
    start: Pair | None = msgspec.field(name="from", default=None)
    own: bool = False


class WrittenClasses(Struct, frozen=True, forbid_unknown_fields=True):
    """A table `[[class]]`: a variable that follows from a number, which is rounded first where `step` says to what."""

    variable: Annotated[str, Meta(min_length=1)]
    of: Annotated[str, Meta(min_length=1)]
    rows: Annotated[tuple[WrittenClassRow, ...], Meta(min_length=1)]
    step: dict[str, float] = {}


class ClassRow(Struct, frozen=True):
    """One class, by unit column."""

    token: str
    spans: dict[System, Numbers]
    own: bool


class Classes(Struct, frozen=True):
    """The classes of one variable."""

    variable: str
    of: str
    rows: tuple[ClassRow, ...]
    step: dict[str, float]

    def tokens(self, values: Numbers, units: System) -> frozenset[str]:
        """Return every class that some numbers reach into; none where a range meets numbers that are classes each.

        Examples
        --------
        A wall of 4.78 mm is 4.8 mm to a code that rounds to 0.1 mm, and of the group that begins there.
        """
        found: set[str] = set()
        for part in values.parts:
            own = self._rounded(part, units)
            for row in self.rows:
                if is_none(row.spans[units] & Numbers((own,))):
                    continue
                if row.own and not own.is_single:
                    return frozenset()
                found.add(f"{row.token}{own.low:.0f}" if row.own else row.token)
        return frozenset(found)

    def _rounded(self, part: Interval, units: System) -> Interval:
        step = self.step.get(units, 0.0)
        if not step:
            return part
        low, high = (
            end if abs(end) == float("inf") else round(round(end / step) * step, 6) for end in (part.low, part.high)
        )
        return Interval(low, high, part.low_open, part.high_open)


def read_classes(rows: tuple[WrittenClasses, ...], kind_of: Any, units: UnitTable) -> Iterator[Classes]:
    """Yield the classes as a pack writes them.

    Raises
    ------
    InputError : a limit is none
    """
    for written in rows:
        kind = kind_of(written.of)
        made = tuple(ClassRow(row.token, _spans(row, kind, units), row.own) for row in written.rows)
        yield Classes(written.variable, written.of, made, written.step)


def _spans(row: WrittenClassRow, kind: str, units: UnitTable) -> dict[System, Numbers]:
    def end(stated: Pair | None) -> Limit | None:
        return None if stated is None else limit(stated, kind, units)

    low, high = end(row.above) or end(row.start), end(row.below) or end(row.to)
    found: dict[System, Numbers] = {}
    for system in ("si", "us"):
        part = Interval(
            low.of(system) if low else float("-inf"), high.of(system) if high else float("inf"),
            row.above is not None, row.below is not None,
        )  # fmt: skip
        found[system] = Numbers((part,))
    return found
