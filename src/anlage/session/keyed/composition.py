"""Compositions as `key=value`: an element a key, in per cent by mass, and what a result lacks of them."""

from collections.abc import Callable, Iterable, Mapping
from types import MappingProxyType

from anlage.core.errors import InputError
from anlage.core.metal.composition import ELEMENTS, named, require_composition
from anlage.core.metal.indices import Index, summed
from anlage.core.ranges import Interval, over_corners
from anlage.core.results import Notice, Source
from anlage.session.keyed.arguments import Arguments

MOST_RANGES = 10  # 1,024 corners; a certificate states numbers
Stated = Mapping[str, Interval]
Results = dict[str, Interval | None]


def stated_composition(arguments: Arguments, *needed: str) -> Stated:
    """Return the elements that are stated [% by mass]; `needed` ones must be.

    Raises
    ------
    InputError : a needed element is missing, or the shares are those of no metal
    """
    arguments.need(*needed)
    stated = {name: arguments.interval(name, "percent", zero=True) for name in ELEMENTS if name in arguments}
    require_composition({name: share.low for name, share in stated.items()})
    for name, share in stated.items():
        require_composition({name: share.high})
    return stated


def over_stated(formula: Callable[..., Mapping[str, float | None]], stated: Stated) -> Results:
    """Return every result of a formula over the corners of what is stated.

    Raises
    ------
    InputError : too much is stated as a range
    """
    ranges = [name for name, value in stated.items() if not value.is_single]
    if len(ranges) > MOST_RANGES:
        mend = f"state numbers for all but {MOST_RANGES} at most"
        raise InputError(f"{len(ranges)} values are ranges", where="composition", mend=mend)
    return over_corners(formula, stated)


def summed_over(
    stated: Stated, indices: Iterable[Index], *, counting: Mapping[str, Iterable[str]] = MappingProxyType({})
) -> tuple[Results, list[Notice], list[Source]]:
    """Return indices over a stated composition, with what they lack, count as 0 or are not made for.

    `counting` names what other results count of the elements.
    """
    chosen = list(indices)
    values: Results = {}
    notices: list[Notice] = []
    lacking: dict[str, list[str]] = {}
    zero: dict[str, list[str]] = {}
    for index in chosen:
        low = summed({name: _end(index, name, share, least=True) for name, share in stated.items()}, index)
        high = summed({name: _end(index, name, share, least=False) for name, share in stated.items()}, index)
        values[index.id] = None if low.value is None or high.value is None else Interval(low.value, high.value)
        for name in low.lacks:
            lacking.setdefault(name, []).append(index.id)
        for name in () if low.lacks else low.counted_as_none:
            zero.setdefault(name, []).append(index.id)
        notices += _outside(index, stated)
    for result, elements in counting.items():
        for name in (each for each in elements if each not in stated):
            zero.setdefault(name, []).append(result)
    notices += [_lacks(name, ids) for name, ids in lacking.items()]
    notices += _zeros(zero)
    return values, notices, [Source(index.id, index.source, index.confidence) for index in chosen]


def outside_notice(what: str, name: str, span: Interval, bounds: tuple[float, float]) -> Notice:
    """Return the notice that a value lies outside what a formula was made for; the result is still given."""
    shown = f"{span.low:.4g}" if span.is_single else f"{span.low:.4g}..{span.high:.4g}"
    text = f"{name} {shown} is outside {bounds[0]:g}..{bounds[1]:g} of {what}: given all the same, not to be relied on"
    return Notice("validity.outside", name, text)


def _end(index: Index, name: str, share: Interval, *, least: bool) -> float:
    rising = index.times.get(name, 0.0) >= 0
    return share.low if rising == least else share.high


def _outside(index: Index, stated: Stated) -> list[Notice]:
    return [
        outside_notice(index.title, name, stated[name], bounds)
        for name, bounds in index.valid.items()
        if name in stated and not (bounds[0] <= stated[name].low and stated[name].high <= bounds[1])
    ]


def _lacks(name: str, ids: list[str]) -> Notice:
    return Notice("composition.missing", name, f"{name} is not stated, and {named(ids)} cannot be worked out without")


def _zeros(zero: Mapping[str, list[str]]) -> list[Notice]:
    if not zero:
        return []
    ids = dict.fromkeys(each for of in zero.values() for each in of)
    verb = "is not stated and counts" if len(zero) == 1 else "are not stated and count"
    return [Notice("composition.counted_as_none", next(iter(zero)), f"{named(zero)} {verb} as 0 in {named(ids)}")]
