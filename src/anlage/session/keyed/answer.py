"""Answers on the command line: the JSON of the contract, or a short table a person reads."""

import math
from collections.abc import Mapping, Sequence
from pkgutil import resolve_name
from typing import Any

from msgspec import Struct, field

from anlage.core.quantities import show, show_interval
from anlage.core.ranges import Choices, GradedEnd, Interval, Numbers, Pairs, Range, is_any, is_none
from anlage.core.results import Notice, Source
from anlage.data.tables import unit_table
from anlage.session.leaves.set_text import kind_of

DIGITS = 9  # significant; hides the noise of binary fractions, loses nothing anybody measures


class Answer(Struct, frozen=True):
    """What one call answers: values by key, where they come from, what to mind, and the lines of its table."""

    values: Mapping[str, Any]
    lines: Sequence[tuple[str, str]]
    sources: Sequence[Source]
    notices: Sequence[Notice] = field(default=())
    status: int = 0

    def as_json(self) -> str:
        """Return the JSON object of the contract; an answer with sources of heat calls its origins so."""
        sources = [{"what": s.what, "source": s.source, "confidence": s.confidence} for s in self.sources]
        warnings = [{"code": n.code, "where": n.where, "text": n.text} for n in self.notices]
        told = {"origins" if "sources" in self.values else "sources": sources, "warnings": warnings}
        dumps = resolve_name("json:dumps")  # loaded for who asks for it
        return str(dumps({**self.values, **told}, ensure_ascii=False, indent=2))

    def as_table(self) -> str:
        """Return the readable table."""
        width = max((len(name) for name, _ in self.lines), default=0)
        rows = [f"{name.ljust(width)}  {value}".rstrip() if width else value for name, value in self.lines]
        rows += [f"! {notice.text}" for notice in self.notices]
        rows += dict.fromkeys(f"  {s.what}: {s.source} ({s.confidence})" for s in self.sources)
        return "\n".join(rows)


def number(value: float) -> float | None:
    """Return a number for JSON: rounded to what is meant, `None` for an absent end."""
    if not math.isfinite(value):
        return None
    rounded = float(f"{value:.{DIGITS}g}")
    return rounded + 0.0


def number_or_interval(value: Interval | None, *, always_interval: bool = False) -> Any:
    """Return a result: a number when single, `[low, high]` when a range, `None` when there is none."""
    if value is None:
        return None
    if value.is_single and not always_interval:
        return number(value.low)
    return [number(value.low), number(value.high)]


def range_as_json(allowed: Range) -> Any:
    """Return a set as the contract writes it, without its excluded ends."""
    if is_any(allowed):
        return "any"
    if is_none(allowed):
        return "none"
    if isinstance(allowed, Choices):
        return {"all_but" if allowed.but else "one_of": sorted(allowed.tokens)}
    if isinstance(allowed, Pairs):
        boxes = [[_graded_end(end) for end in box] for box in allowed.boxes]
        return {"pairs": boxes} | ({"one_of": sorted(allowed.tokens)} if allowed.tokens else {})
    assert isinstance(allowed, Numbers)
    parts = [number_or_interval(part, always_interval=True) for part in allowed.parts]
    return parts[0] if len(parts) == 1 else {"any_of": parts}


def _graded_end(end: GradedEnd) -> dict[str, Any]:
    return {"all_but" if end.but else "one_of": sorted(end.groups), "to": number(end.most)}


def open_ends(allowed: Range) -> list[str]:
    """Return which finite ends of a set are excluded: `low`, `high` or both."""
    if not isinstance(allowed, Numbers) or not allowed.parts:
        return []
    first, last = allowed.parts[0], allowed.parts[-1]
    ends = {"low": first.low_open and first.low > -math.inf, "high": last.high_open and last.high < math.inf}
    return [name for name, excluded in ends.items() if excluded]


def shown(name: str, value: Interval | float | None) -> str:
    """Return a result with its unit, in both systems where they differ; the unit is in the ending of its name."""
    if value is None:
        return "unknown"
    interval = value if isinstance(value, Interval) else Interval.single(value)
    kind = kind_of(name)
    if not kind:
        return "..".join(dict.fromkeys(f"{end:.4g}" for end in (interval.low, interval.high)))
    si, us = (show_interval(interval, kind, system, unit_table()) for system in ("si", "us"))
    return si if si == us else f"{si}  ({us})"


def shown_single(value: float, kind: str) -> str:
    """Return one value with its unit in SI."""
    return show(value, kind, "si", unit_table())
