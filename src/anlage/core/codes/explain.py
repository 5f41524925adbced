"""Why a limit lies where it does: from which recorded fact, by which factor, and which coupon would lift it."""

from collections.abc import Iterator
from typing import TypeGuard

from msgspec import Struct

from anlage.core.codes.conditions import Condition
from anlage.core.codes.facts import Facts
from anlage.core.codes.kinds import Also, Band, End, RuleKind, Table
from anlage.core.quantities.units import System


class Origin(Struct, frozen=True):
    """Where one end of an allowed range comes from.

    `recorded` of `fact`, times `times`, plus `plus`; or `fixed`, a number of the code; `held` where a number of the
    code holds the product. `lifted_from` is the least recorded value from which on the end would reach what is stated.
    """

    fact: str = ""
    recorded: float | None = None
    times: float = 1.0
    plus: float = 0.0
    fixed: float | None = None
    held: bool = False
    lifted_from: float | None = None


def origin_of(kind: RuleKind, facts: Facts, units: System, *, high: bool, stated: float) -> Origin | None:
    """Return where the high or low end of what a rule allows comes from; `None` for rules that are no bands.

    Parameters
    ----------
    kind : of the rule
    facts : of the coupon that was judged by
    units : the column that limits are judged in
    high : whether the upper end is meant
    stated : the stated end, to find what would lift the limit to it
    """
    found = _band(kind, facts, units)
    end = _end(found, high=high) if found else None
    if end is None:
        return None
    lifted = min((least for least in _lifting(kind, facts, units, high=high, stated=stated)), default=None)
    if end.number is not None:
        return Origin(fixed=end.number.of(units), lifted_from=lifted)
    place, recorded = end.at(facts, units), _recorded(end, facts)
    if recorded is None or place is None:
        return None
    plus = end.plus.of(units) if end.plus else 0.0
    times = end.times.of(units)
    free = times * recorded + plus
    return Origin(end.of, recorded, times, plus, None, abs(place - free) > abs(free) * 1e-9, lifted)


def _band(kind: RuleKind, facts: Facts, units: System) -> Band | None:
    if isinstance(kind, Also):
        return _band(kind.narrow, facts, units)
    if isinstance(kind, Table):
        rows = (row for row in kind.rows if all(c.holds(facts, units) for c in (row.on, row.second) if c))
        return next((row.band for row in rows), None)
    return kind if isinstance(kind, Band) else None


def _end(band: Band, *, high: bool) -> End | None:
    return band.high if high else band.low


def _recorded(end: End, facts: Facts) -> float | None:
    """Return the recorded number that an end is worked out of: its least, mean or most, as the rule takes it."""
    return End(of=end.of, take=end.take).at(facts, "si") if end.of else None  # without limits no system matters


def _lifting(kind: RuleKind, facts: Facts, units: System, *, high: bool, stated: float) -> Iterator[float]:
    """Yield the recorded values, one a row, from which on an upper end would reach what is stated."""
    if not high:
        return
    if isinstance(kind, Also):
        yield from _lifting(kind.narrow, facts, units, high=high, stated=stated)
    elif isinstance(kind, Band) and _follows(kind.high, units):
        yield _needed(kind.high, units, stated)
    elif isinstance(kind, Table):
        for row in kind.rows:
            if row.second is not None and row.second.holds(facts, units) is False:
                continue
            start, stop = _reach(row.on, units)
            end = row.band.high
            if end is None or (end.number is not None and end.number.of(units) >= stated * (1 - 1e-9)):
                yield start
            elif end.number is None and end.of == row.on.fact and end.times.of(units) > 0:
                least = max(_needed(end, units, stated), start)
                if least < stop:
                    yield least


def _follows(end: End | None, units: System) -> TypeGuard[End]:
    return end is not None and end.number is None and end.times.of(units) > 0


def _needed(end: End, units: System, stated: float) -> float:
    return (stated - (end.plus.of(units) if end.plus else 0.0)) / end.times.of(units)


def _reach(condition: Condition, units: System) -> tuple[float, float]:
    """Return from where to where a row of a table holds."""
    start = condition.start or condition.above
    stop = condition.to or condition.below
    return (start.of(units) if start else 0.0), (stop.of(units) if stop else float("inf"))
