"""The algebra of what is stated and what is allowed: sets of numbers, sets of choices, everything, nothing.

Glossary
--------
numbers : finitely many intervals, sorted, apart from each other
choices : these tokens, or all tokens but these
pairs : pairs of graded ends, as boxes and as tokens
ANY, NONE : everything and nothing, whatever kind of set they meet

All are closed under `&` and `|`, and all but pairs under `~`, exactly: no rounding, no tolerance. The one tolerance of
the product is `loosened`, which moves closed ends outward by a millionth of their value; `fits` uses it.
"""

import math
from collections.abc import Iterable
from itertools import pairwise
from typing import final

from msgspec import Struct

from anlage.core.errors import InputError
from anlage.core.ranges.graded import GradedBox, GradedEnd, common, covered, lies_in, without_needless
from anlage.core.ranges.interval import Interval

TOLERANCE = 1e-6  # relative, DESIGN: 1.1 × 13 mm is not exact in binary


@final
class Extreme(Struct, frozen=True):
    """`ANY` or `NONE`: the two sets that need not know what they hold."""

    everything: bool

    def contains(self, other: "float | str | Range") -> bool:
        """Whether every member of `other` is a member."""
        return self.everything or is_none(other)

    def gap_to(self, other: "float | str | Range") -> float | None:  # noqa: ARG002 - the sets share one interface
        """Return `None`: no distance leads to everything or to nothing."""
        return None

    def __and__(self, other: "Range") -> "Range":
        return other if self.everything else self

    def __or__(self, other: "Range") -> "Range":
        return self if self.everything else other

    def __invert__(self) -> "Extreme":
        return NONE if self.everything else ANY

    def __str__(self) -> str:
        return "any" if self.everything else "none"


ANY, NONE = Extreme(everything=True), Extreme(everything=False)


@final
class Numbers(Struct, frozen=True):
    """A set of numbers as sorted intervals that do not touch; build it with `numbers` or `between`."""

    parts: tuple[Interval, ...]

    def contains(self, other: "float | str | Range") -> bool:
        """Whether every member of `other` (a number or a set) is a member."""
        if isinstance(other, int | float):
            return any(part.contains(other) for part in self.parts)
        if isinstance(other, Numbers):
            if len(self.parts) == 1 == len(other.parts):  # nearly always: no generators on the way of an edit
                return _holds(self.parts[0], other.parts[0])
            return all(any(_holds(mine, part) for mine in self.parts) for part in other.parts)
        return is_none(other) or (is_any(other) and is_any(self))

    def gap_to(self, other: "float | str | Range") -> float | None:
        """Return the least distance that the worst member of `other` must move to come inside, signed by direction.

        0 when all of `other` is inside already (an excluded end is 0 away, too); `None` when no distance
        leads there, as when a limit is asked of an endless range.
        """
        if isinstance(other, int | float):
            other = Numbers((Interval.single(other),))
        if not isinstance(other, Numbers) or not self.parts or not other.parts:
            return None
        if self.contains(other):
            return 0.0
        steps = [_step(part, self.parts) for out in other.parts for part in _meet((out,), tuple(_outside(self.parts)))]
        worst = max(steps, key=abs)
        return worst if math.isfinite(worst) else None

    def __and__(self, other: "Range") -> "Range":
        if isinstance(other, Extreme):
            return other & self
        if isinstance(other, Choices | Pairs):
            return self & _as_extreme(other)
        return Numbers(tuple(_meet(self.parts, other.parts)))

    def __or__(self, other: "Range") -> "Range":
        if isinstance(other, Extreme):
            return other | self
        if isinstance(other, Choices | Pairs):
            return self | _as_extreme(other)
        return numbers((*self.parts, *other.parts))

    def __invert__(self) -> "Numbers":
        return Numbers(tuple(_outside(self.parts)))

    def __str__(self) -> str:
        return " or ".join(map(str, self.parts)) or "none"


@final
class Choices(Struct, frozen=True):
    """These tokens, or (`but`) all tokens except these; build it with `choices` or `all_but`."""

    tokens: frozenset[str]
    but: bool = False

    def contains(self, other: "float | str | Range") -> bool:
        """Whether every member of `other` (a token or a set) is a member."""
        if isinstance(other, str):
            return (other in self.tokens) is not self.but
        if isinstance(other, Choices):
            if other.but:
                return self.but and self.tokens <= other.tokens
            return other.tokens.isdisjoint(self.tokens) if self.but else other.tokens <= self.tokens
        if isinstance(other, Pairs):
            return is_any(self) or (not other.boxes and self.contains(Choices(other.tokens)))
        return is_none(other) or (is_any(other) and is_any(self))

    def gap_to(self, other: "float | str | Range") -> float | None:
        """Return 0 when `other` is inside; else `None`: between words there is no distance."""
        return 0.0 if self.contains(other) else None

    def __and__(self, other: "Range") -> "Range":
        if isinstance(other, Extreme):
            return other & self
        if isinstance(other, Pairs):
            return other & self
        if isinstance(other, Numbers):
            return _as_extreme(self) & other
        return self._common(other)

    def _common(self, other: "Choices") -> "Choices":
        match self.but, other.but:
            case False, False:
                return Choices(self.tokens & other.tokens)
            case False, True:
                return Choices(self.tokens - other.tokens)
            case True, False:
                return Choices(other.tokens - self.tokens)
            case _:
                return Choices(self.tokens | other.tokens, but=True)

    def __or__(self, other: "Range") -> "Range":
        if isinstance(other, Pairs | Extreme):
            return other | self
        if isinstance(other, Numbers):
            return _as_extreme(self) | other
        return ~(~self)._common(~other)

    def __invert__(self) -> "Choices":
        return Choices(self.tokens, but=not self.but)

    def __str__(self) -> str:
        listed = ", ".join(sorted(self.tokens))
        return (f"all but {listed}" if listed else "any") if self.but else (listed or "none")


@final
class Pairs(Struct, frozen=True):
    """Pairs of graded ends: all that lie in any of `boxes`, and these `tokens`; build it with `pairs`.

    It has no complement: where one is wanted, the stated set is words.
    """

    boxes: tuple[GradedBox, ...]
    tokens: frozenset[str] = frozenset()

    def contains(self, other: "float | str | Range") -> bool:
        """Whether every member of `other` (a pair or a set) is a member."""
        if isinstance(other, str):
            return other in self.tokens or lies_in(other, self.boxes)
        if isinstance(other, Choices):
            return not other.but and all(map(self.contains, other.tokens))
        if isinstance(other, Pairs):
            return covered(other.boxes, self.boxes) and all(map(self.contains, other.tokens))
        return is_none(other)

    def gap_to(self, other: "float | str | Range") -> float | None:
        """Return 0 when `other` is inside; else `None`: between groups there is no distance."""
        return 0.0 if self.contains(other) else None

    def __and__(self, other: "Range") -> "Range":
        if isinstance(other, Extreme):
            return other & self
        if isinstance(other, Numbers) or is_any(other):
            return self & _as_extreme(other)
        if isinstance(other, Pairs):
            tokens = filter(other.contains, self.tokens), filter(self.contains, other.tokens)
            return pairs(common(self.boxes, other.boxes), *tokens)
        if other.but:
            raise InputError("pairs and all but some words cannot be compared", where="range", mend="name the words")
        return Choices(frozenset(filter(self.contains, other.tokens)))

    def __or__(self, other: "Range") -> "Range":
        if isinstance(other, Extreme):
            return other | self
        if isinstance(other, Numbers) or is_any(other):
            return self | _as_extreme(other)
        if isinstance(other, Pairs):
            return pairs((*self.boxes, *other.boxes), self.tokens, other.tokens)
        if other.but:
            raise InputError("pairs and all but some words cannot be joined", where="range", mend="name the words")
        return pairs(self.boxes, self.tokens, other.tokens)

    def __str__(self) -> str:
        return "; ".join((*(" + ".join(map(_graded_text, box)) for box in self.boxes), *sorted(self.tokens))) or "none"


Range = Numbers | Choices | Pairs | Extreme


def numbers(parts: Iterable[Interval]) -> Numbers:
    """Return the set of numbers that lie in any of `parts`, which may overlap and come in any order.

    Examples
    --------
    >>> print(numbers([Interval(6, 9), Interval(1, 3), Interval(3, 5)]))
    [1, 5] or [6, 9]
    """
    merged: list[Interval] = []
    for part in sorted(parts, key=lambda i: (i.low, i.low_open)):
        if merged and _touch(merged[-1], part):
            merged[-1] = _hull(merged[-1], part)
        else:
            merged.append(part)
    return Numbers(tuple(merged))


def between(low: float | None, high: float | None, *, low_open: bool = False, high_open: bool = False) -> Numbers:
    """Return the numbers from `low` to `high`; `None` leaves that end absent.

    Raises
    ------
    InputError : nothing lies between the ends
    """
    least, most = -math.inf if low is None else low, math.inf if high is None else high
    return Numbers((Interval(least, most, low_open, high_open),))


def choices(*tokens: str) -> Choices:
    """Return the set of exactly these tokens."""
    return Choices(frozenset(tokens))


def all_but(*tokens: str) -> Choices:
    """Return the set of all tokens except these."""
    return Choices(frozenset(tokens), but=True)


def pairs(boxes: Iterable[GradedBox], *tokens: Iterable[str]) -> Pairs:
    """Return the pairs that lie in any of `boxes` or are one of `tokens`, each said once."""
    kept = without_needless(boxes)
    return Pairs(kept, frozenset(token for each in tokens for token in each if not lies_in(token, kept)))


def without(stated: Range, taken: Range) -> Range:
    """Return what of `stated` is not in `taken`; of pairs that are no words everything, where something is not."""
    if isinstance(taken, Pairs):
        if isinstance(stated, Choices) and not stated.but:
            return Choices(frozenset(token for token in stated.tokens if not taken.contains(token)))
        return NONE if taken.contains(stated) else stated
    return stated & ~taken


def is_any(value: object) -> bool:
    """Whether it is a set that holds everything of its kind."""
    match value:
        case Extreme(everything=everything):
            return everything
        case Choices(tokens=tokens, but=but):
            return but and not tokens
        case Numbers(parts=(Interval(low=low, high=high),)):
            return low == -math.inf and high == math.inf
    return False


def is_none(value: object) -> bool:
    """Whether it is a set that holds nothing."""
    match value:
        case Extreme(everything=everything):
            return not everything
        case Choices(tokens=tokens, but=but):
            return not but and not tokens
        case Numbers(parts=parts):
            return not parts
        case Pairs(boxes=boxes, tokens=tokens):
            return not boxes and not tokens
    return False


def loosened(allowed: Range) -> Range:
    """Return `allowed` with its closed finite ends moved outward by `TOLERANCE` of their value; open ends stay."""
    if isinstance(allowed, Pairs):
        return Pairs(tuple((_loose_end(one), _loose_end(other)) for one, other in allowed.boxes), allowed.tokens)
    if not isinstance(allowed, Numbers):
        return allowed
    if len(allowed.parts) == 1:
        return Numbers((_loose(allowed.parts[0]),))
    return numbers(_loose(part) for part in allowed.parts)


def fits(stated: Range, allowed: Range) -> bool:
    """Whether `stated` lies inside `allowed`, closed ends read with the one tolerance of the product."""
    return loosened(allowed).contains(stated)


def union(sets: Iterable[Range]) -> Range:
    """Return what lies in any of `sets`; of none, `NONE`. Many sets of numbers are merged in one go."""
    found = list(sets)
    if len(found) > 1 and all(isinstance(each, Numbers) for each in found):
        return numbers(part for each in found if isinstance(each, Numbers) for part in each.parts)
    whole: Range = NONE
    for each in found:
        whole = whole | each
    return whole


def _loose(part: Interval) -> Interval:
    low = part.low if part.low_open else part.low - TOLERANCE * abs(part.low)
    high = part.high if part.high_open else part.high + TOLERANCE * abs(part.high)
    return Interval(low, high, part.low_open, part.high_open)


def _loose_end(end: GradedEnd) -> GradedEnd:
    return GradedEnd(end.groups, end.most * (1 + TOLERANCE), end.but)


def _graded_text(end: GradedEnd) -> str:
    groups = "/".join(sorted(end.groups))
    named = (f"all but {groups}" if groups else "any") if end.but else groups
    return named if end.most == math.inf else f"{named} to {end.most:g}"


def _step(out: Interval, allowed: tuple[Interval, ...]) -> float:
    """Return the move that brings all of `out`, which lies between or beyond `allowed`, to the nearest of them."""
    up = min((part.low - out.low for part in allowed if part.low >= out.high), default=math.inf)
    down = max((part.high - out.high for part in allowed if part.high <= out.low), default=-math.inf)
    return up if up <= -down else down


def _as_extreme(value: Numbers | Choices | Pairs) -> Extreme:
    # A set of words meets a set of numbers only where one of them is everything or nothing.
    if is_any(value):
        return ANY
    if is_none(value):
        return NONE
    raise InputError("numbers and words cannot be compared", where="range", mend="state a set of the variable's kind")


def _holds(outer: Interval, inner: Interval) -> bool:
    low = inner.low > outer.low or (inner.low == outer.low and (inner.low_open or not outer.low_open))
    high = inner.high < outer.high or (inner.high == outer.high and (inner.high_open or not outer.high_open))
    return low and high


def _touch(left: Interval, right: Interval) -> bool:
    return right.low < left.high or (right.low == left.high and not (left.high_open and right.low_open))


def _hull(left: Interval, right: Interval) -> Interval:
    high, high_open = max((left.high, not left.high_open), (right.high, not right.high_open))
    low_open = left.low_open and (right.low_open or right.low > left.low)
    return Interval(left.low, high, low_open, not high_open)


def _meet(left: tuple[Interval, ...], right: tuple[Interval, ...]) -> Iterable[Interval]:
    i = j = 0
    while i < len(left) and j < len(right):
        a, b = left[i], right[j]
        low, low_open = max((a.low, a.low_open), (b.low, b.low_open))
        high, high_closed = min((a.high, not a.high_open), (b.high, not b.high_open))
        if low < high or (low == high and high_closed and not low_open):
            yield Interval(low, high, low_open, not high_closed)
        if (a.high, not a.high_open) <= (b.high, not b.high_open):
            i += 1
        else:
            j += 1


def _outside(parts: tuple[Interval, ...]) -> Iterable[Interval]:
    if not parts:
        yield Interval(-math.inf, math.inf)
        return
    if parts[0].low > -math.inf:
        yield Interval(-math.inf, parts[0].low, high_open=not parts[0].low_open)
    for left, right in pairwise(parts):
        yield Interval(left.high, right.low, not left.high_open, not right.low_open)
    if parts[-1].high < math.inf:
        yield Interval(parts[-1].high, math.inf, low_open=not parts[-1].high_open)
