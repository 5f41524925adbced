"""The kind `pairs`: which joined metals a tested pair covers, each end by its subgroup and its yield strength.

Glossary
--------
group, subgroup : of a grouping of metals, such as 1 and 1.2
letter : how an end of a group that was tested binds; a: the group, up to the tested yield; b: the tested subgroup and
    those before it in the group; c: the tested subgroup
swapped : an end of a group other than those that were tested, which the table allows in place of one

A table may print its letters at some ends only. Read one way they bind every end of a tested group, and a swapped end
is held to the tested yield: that is sure. Read to the letter they bind where they are printed: that is possible.
"""

import re
from collections.abc import Iterator, Mapping
from itertools import product
from math import inf

from msgspec import Struct

from anlage.core.codes.conditions import tokens_of
from anlage.core.codes.facts import Facts
from anlage.core.codes.kinds import Readings, not_recorded, unknown
from anlage.core.quantities.units import System
from anlage.core.ranges import NONE, GradedBox, GradedEnd, Range, ends_of, pairs

LETTERS = ("a", "b", "c")
TWO_WAYS = "the letters of the table are read in two ways, and it is silent on metals of other groups"
_END = re.compile(r"(\d+(?:\.\d+)*)([abc]?)")

Tested = tuple[str, float]  # subgroup and yield of one end


class Member(Struct, frozen=True):
    """One end as a table prints it: a group or a subgroup, with its letter where it has one."""

    metals: str
    letter: str = ""


class PairRow(Struct, frozen=True):
    """One row: the groups that were tested, sorted, and the pairs that they cover."""

    tested: tuple[str, str]
    covers: tuple[tuple[Member, Member], ...]
    confidence: str = ""  # where it is not that of the rule


class MetalPairs(Struct, frozen=True):
    """The pairs of metals that a recorded pair covers, by the table of a code."""

    on: str
    members: Mapping[str, tuple[str, ...]]  # the subgroups of each group, as they rise
    letters: Mapping[str, str]  # of each group
    rows: tuple[PairRow, ...]
    alone: frozenset[str] = frozenset()  # subgroups that are no step above those before them
    otherwise_letter: bool = False  # groups in no row: each end within its own letter, or unknown

    def allowed(self, facts: Facts, units: System) -> Readings:  # noqa: ARG002 - one interface for all kinds
        """Return the pairs that the recorded pair covers."""
        value = facts.get(self.on)
        if value is None:
            return not_recorded(self.on)
        sure: Range = NONE
        possible: Range = pairs(self._of_other_groups())
        confidences = [""]
        for token in sorted(tokens_of(value)):
            ends = ends_of(token)
            if ends is None or not all(self._group(metal) for metal, _ in ends):
                return unknown(f"the table does not hold both metals of {token}")
            row = self._row(ends)
            if row is None:
                return unknown(f"the table does not say what {token} covers")
            confidences.append(row.confidence)
            sure = sure | pairs(self._boxes(row, ends, printed=False))
            possible = possible | pairs(self._boxes(row, ends, printed=True))
        told = max((each for each in confidences if each), key="HML".index, default="")
        return Readings(sure, possible | sure, TWO_WAYS, confidence=told)

    def group_of(self, metals: str) -> str:
        """Return the group of a group or subgroup; "" where there is none."""
        return metals if metals in self.members else self._group(metals)

    def _group(self, subgroup: str) -> str:
        return next((group for group, own in self.members.items() if subgroup in own), "")

    def _row(self, ends: tuple[Tested, Tested]) -> PairRow | None:
        one, other = sorted(self._group(metal) for metal, _ in ends)
        found = next((row for row in self.rows if row.tested == (one, other)), None)
        if found is None and self.otherwise_letter:
            return PairRow((one, other), ((Member(one, self.letters[one]), Member(other, self.letters[other])),))
        return found

    def _boxes(self, row: PairRow, ends: tuple[Tested, Tested], *, printed: bool) -> Iterator[GradedBox]:
        """Yield a box for each pair of a row and each way in which its ends can answer to the tested ones."""
        groups = {self._group(metal) for metal, _ in ends}
        for members, tested in product(row.covers, (ends, ends[::-1])):
            answered = list(zip(members, tested, strict=True))
            own = [(self.group_of(member.metals), self._group(metal)) for member, (metal, _) in answered]
            if all(group == met or group not in groups for group, met in own):
                one, other = (self._end(member, end, groups, printed=printed) for member, end in answered)
                yield one, other

    def _end(self, member: Member, tested: Tested, groups: set[str], *, printed: bool) -> GradedEnd:
        """Return what one end may be, in answer to a tested one."""
        group = self.group_of(member.metals)
        own = self.members.get(member.metals, (member.metals,))
        metal, grade = tested
        letter = member.letter if printed else self.letters[group]
        if group not in groups:
            return GradedEnd(frozenset(own), inf if printed else grade)
        if letter == "a":
            return GradedEnd(frozenset(own), grade)
        if letter == "b":
            before = self.members[group][: self.members[group].index(metal) + 1]
            return GradedEnd(frozenset((metal,) if metal in self.alone and not printed else before))
        return GradedEnd(frozenset((metal,) if letter == "c" else own))

    def _of_other_groups(self) -> Iterator[GradedBox]:
        known = frozenset(metal for own in self.members.values() for metal in own)
        yield GradedEnd(known, but=True), GradedEnd(frozenset(), but=True)


def member_of(text: str) -> Member | None:
    """Return an end of a pair as it is printed, `8c` or `6.1`; `None` where it is none.

    Examples
    --------
    >>> member_of("8c"), member_of("c8")
    (Member(metals='8', letter='c'), None)
    """
    found = _END.fullmatch(text)
    return Member(found[1], found[2]) if found else None
