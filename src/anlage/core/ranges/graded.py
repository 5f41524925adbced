"""Pairs of graded ends: two metals that are joined, each of a group and with a grade, such as its yield strength.

Glossary
--------
end : groups, and the highest grade that they may have
box : two ends; a pair lies in it either way round
token : `GROUP@GRADE+GROUP@GRADE`, one pair as it is stated

A box holds every pair of its groups whose grades are no higher than its own, so that of two boxes one holds the other
where it holds its highest pairs. That makes every question below exact.
"""

from collections.abc import Iterable, Iterator, Sequence
from itertools import product
from math import inf

from msgspec import Struct

PAIR, GRADE = "+", "@"
OTHER = ""  # stands for every group that nobody names


class GradedEnd(Struct, frozen=True):
    """Groups, or (`but`) every group except these, with the highest grade that they may have."""

    groups: frozenset[str]
    most: float = inf
    but: bool = False

    def holds(self, group: str, grade: float) -> bool:
        """Whether an end of a group with a grade is one of these."""
        return (group in self.groups) is not self.but and grade <= self.most

    def meet(self, other: "GradedEnd") -> "GradedEnd | None":
        """Return what is in both, `None` for nothing."""
        most = min(self.most, other.most)
        if self.but and other.but:
            return GradedEnd(self.groups | other.groups, most, but=True)
        if self.but or other.but:
            named, left_out = (other, self) if self.but else (self, other)
            groups = named.groups - left_out.groups
        else:
            groups = self.groups & other.groups
        return GradedEnd(groups, most) if groups else None


GradedBox = tuple[GradedEnd, GradedEnd]


def ends_of(token: str) -> tuple[tuple[str, float], tuple[str, float]] | None:
    """Return both ends of a pair as group and grade; `None` where the text is no pair of graded ends.

    Examples
    --------
    >>> ends_of("1.2@355+1.1@235"), ends_of("1.2+1.1")
    ((('1.2', 355.0), ('1.1', 235.0)), None)
    """
    ends = [(group, _number(grade)) for group, mark, grade in (each.partition(GRADE) for each in token.split(PAIR))]
    match ends:
        case [(one, float(high)), (other, float(low))] if one and other:
            return (one, high), (other, low)
    return None


def graded_end(group: str, grade: float) -> str:
    """Return one end as it is written in a token.

    Examples
    --------
    >>> graded_end("1.2", 355.0)
    '1.2@355'
    """
    return f"{group}{GRADE}{grade:g}"


def lies_in(token: str, boxes: Iterable[GradedBox]) -> bool:
    """Whether a stated pair lies in one of some boxes; what is no pair lies in none."""
    ends = ends_of(token)
    return ends is not None and _is_in(ends, boxes)


def covered(boxes: Iterable[GradedBox], by: Sequence[GradedBox]) -> bool:
    """Whether everything in some boxes lies in others."""
    named = frozenset[str]().union(*(end.groups for box in by for end in box))
    return all(_is_in(ends, by) for box in boxes for ends in _highest(box, named))


def common(one: Iterable[GradedBox], other: Sequence[GradedBox]) -> Iterator[GradedBox]:
    """Yield the boxes of what lies in both."""
    for a, b in product(one, other):
        for first, second in (b, b[::-1]):
            left, right = a[0].meet(first), a[1].meet(second)
            if left is not None and right is not None:
                yield left, right


def without_needless(boxes: Iterable[GradedBox]) -> tuple[GradedBox, ...]:
    """Return the boxes without those that another one holds."""
    found: list[GradedBox] = []
    for box in dict.fromkeys(boxes):
        if not covered((box,), found):
            found = [each for each in found if not covered((each,), (box,))] + [box]
    return tuple(found)


def _highest(box: GradedBox, named: frozenset[str]) -> Iterator[tuple[tuple[str, float], tuple[str, float]]]:
    """Yield the pairs of a box with the highest grades, one for each of its groups and for those nobody names."""
    one, other = (
        [(group, end.most) for group in ({OTHER, *(named - end.groups)} if end.but else end.groups)] for end in box
    )
    yield from product(one, other)


def _is_in(ends: tuple[tuple[str, float], tuple[str, float]], boxes: Iterable[GradedBox]) -> bool:
    (group, grade), (other, low) = ends
    return any(
        (a.holds(group, grade) and b.holds(other, low)) or (a.holds(other, low) and b.holds(group, grade))
        for a, b in boxes
    )


def _number(text: str) -> float | None:
    try:
        found = float(text)
    except ValueError:
        return None
    return found if 0 < found < inf else None  # an endless grade would cover every metal, nan and minus none
