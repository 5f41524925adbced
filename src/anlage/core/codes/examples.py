"""Worked examples of a rule, made by the rule itself: a coupon, and what it allows.

A person lays them beside their copy of the code. Each row of a table, each group and each word of a map has an example
of its own, so that nothing a rule says goes unseen. What a coupon must be for the rule to concern it is part of it.
"""

from collections.abc import Iterator, Mapping
from itertools import islice
from typing import Any

from msgspec import Struct

from anlage.core.codes.box import readings_of
from anlage.core.codes.conditions import Condition, concern
from anlage.core.codes.facts import Demand, Fact, Facts, pair_token
from anlage.core.codes.functions import Function
from anlage.core.codes.kind_reader import numbers_within
from anlage.core.codes.kinds import (
    Also,
    Attribute,
    Band,
    Declared,
    Doubted,
    End,
    Group,
    Map,
    Readings,
    RuleKind,
    Same,
    Table,
    UpTo,
)
from anlage.core.codes.metal_pairs import MetalPairs
from anlage.core.codes.names import NAMES_OF_METALS, Names
from anlage.core.codes.pack import Pack, Rule
from anlage.core.quantities.units import System
from anlage.core.ranges import Interval, Numbers, graded_end

MOST = 40  # examples of one rule
PLAIN = 20.0  # a number of a kind that the caller knows none of
BEYOND = 1.5  # times a limit, to stand clear of it

Case = dict[str, Fact]
Rows = tuple[Condition, ...]


class Example(Struct, frozen=True):
    """A coupon by the facts that the rule asks for, and what the rule allows from it.

    `rows` are the spans of a table in which it lies: the rule allows by the same row all over them.
    """

    facts: Mapping[str, Fact]
    readings: Readings
    rows: tuple[Condition, ...] = ()


class Samples(Struct, frozen=True):
    """What a coupon may be where a rule leaves it open: a number by kind of quantity, a word by variable."""

    numbers: Mapping[str, float]
    words: Mapping[str, str]


def examples_of(rule: Rule, pack: Pack, names: Names, samples: Samples, units: System) -> tuple[Example, ...]:
    """Return the worked examples of a rule; none where no coupon was found that it concerns.

    Parameters
    ----------
    rule : of the pack
    names : what a fact may be
    samples : what it is where the rule leaves it open
    units : the column that limits are taken from
    """
    maker = _Maker(rule, pack, names, samples, units)
    return tuple(islice(maker.examples(), MOST))


class _Maker:
    def __init__(self, rule: Rule, pack: Pack, names: Names, samples: Samples, units: System) -> None:
        self.rule, self.pack, self.names, self.samples, self.units = rule, pack, names, samples, units
        self.demand = Demand(units=units)
        self.defaults = pack.facts_of(self.demand)

    def examples(self) -> Iterator[Example]:
        seen: list[Mapping[str, Fact]] = []
        for case, rows in self._cases(self.rule.kind):
            facts = self._concerned(case)
            if facts is None or facts in seen:
                continue
            seen.append(facts)
            readings = readings_of(self.rule, Facts({**self.defaults, **facts}, {}), self.demand)
            if readings is not None:
                yield Example(facts, readings, rows)

    # What a kind asks for --------------------------------------------------------------------

    def _cases(self, kind: RuleKind) -> Iterator[tuple[Case, Rows]]:
        """Yield what a coupon may be, one case for each thing that the kind says, with the rows of its table."""
        if isinstance(kind, Also | Doubted):
            yield from self._cases(kind.narrow if isinstance(kind, Also) else kind.kind)
        elif isinstance(kind, Table):
            yield from self._of_table(kind)
        else:
            yield from ((case, ()) for case in self._plain(kind))

    def _plain(self, kind: RuleKind) -> Iterator[Case]:
        if isinstance(kind, Band):
            yield from self._of_band(kind)
        elif isinstance(kind, Declared):
            yield {f"declared.{kind.on}": self._declared(kind.on)}
        elif isinstance(kind, Same | Function):
            yield {kind.on: self._sample(kind.on)}
        elif isinstance(kind, MetalPairs):
            for token in self._of_pairs(kind):
                yield {kind.on: token}
        elif isinstance(kind, Group | Map | Attribute | UpTo):
            for token in self._tokens_of(kind):
                yield {kind.on: token}
        else:
            yield {}

    def _tokens_of(self, kind: Group | Map | Attribute | UpTo) -> Iterator[str]:
        """Yield one word for each thing that a kind says of words."""
        if isinstance(kind, UpTo):
            yield from kind.ranks
        elif isinstance(kind, Attribute):
            first = {own: token for token, own in sorted(kind.column.items(), reverse=True) if own}
            yield from (first[own] for own in sorted(first))
        else:
            sets = kind.groups if isinstance(kind, Group) else [frozenset((token,)) for token in kind.allows]
            yield from (self._token(kind.on, each) for each in sets)
            if isinstance(kind, Group) or kind.otherwise_same:
                other = self._other(kind.on, frozenset[str]().union(*sets))
                yield from (other,) if other else ()

    def _of_pairs(self, kind: MetalPairs) -> Iterator[str]:
        """Yield a tested pair for each row: the last subgroup of one group, the first of the other."""
        high = self.samples.numbers.get(kind.on, PLAIN)
        low = round(high / BEYOND, -1)
        for one, other in (row.tested for row in kind.rows):
            yield pair_token(graded_end(kind.members[one][-1], high), graded_end(kind.members[other][0], low))

    def _of_table(self, table: Table) -> Iterator[tuple[Case, Rows]]:
        for row in table.rows:
            rows = tuple(each for each in (row.on, row.second) if each is not None)
            own = {each.fact: self._meeting(each) for each in rows}
            yield from (({**own, **each}, rows) for each in self._of_band(row.band, row.on))

    def _of_band(self, band: Band, row: Condition | None = None) -> Iterator[Case]:
        """Yield a case for a band, and one on each side of where the code holds a product."""
        ends = [end for end in (band.low, band.high) if end is not None and end.of]
        own = {end.of: self._sample(end.of) for end in ends if row is None or end.of != row.fact}
        yield own
        for end in ends:
            for place in _held(end, self.units):
                if row is None or end.of != row.fact or row.within(place, self.units):
                    yield {**own, end.of: place}

    def _declared(self, name: str) -> Any:
        if self.names.kind(name):
            middle = float(self._sample(name))  # type: ignore[arg-type]  # a number, as it is measured
            return Numbers((Interval(middle * 0.8, middle * 1.2),))
        return self._sample(name)

    # What else must be so --------------------------------------------------------------------

    def _concerned(self, case: Case) -> Case | None:
        """Return a case with what must be so for the rule to concern it; `None` where that cannot be."""
        facts = dict(case)
        for condition in self.rule.when:
            if condition.fact in case:
                if not condition.holds(Facts(facts, {}), self.units):
                    return None
            else:
                facts[condition.fact] = self._ends_of(condition.fact, facts) or self._meeting(condition)
        for group in self.rule.unless:
            self._break(group, facts, case)
        every = {**self.defaults, **facts}
        applies = concern(self.rule.when, self.rule.unless, Facts(every, {}), self.units).applies
        return facts if applies else None

    def _break(self, group: tuple[Condition, ...], facts: Case, case: Case) -> None:
        """See that one condition of a group that would lift the rule does not hold."""
        every = Facts({**self.defaults, **facts}, {})
        if any(condition.holds(every, self.units) is False for condition in group):
            return
        needed = {condition.fact for condition in self.rule.when}
        for condition in group:
            other = self._ends_of(condition.fact, facts) or self._failing(condition)
            if other is not None and condition.fact not in case and condition.fact not in needed:
                facts[condition.fact] = other
                return

    def _ends_of(self, fact: str, facts: Case) -> frozenset[str]:
        """Return the ends of a pair that the case has under the same name; none where it has no such pair."""
        rows = self.names.variables
        own = rows.get(fact)
        for name, value in facts.items():
            row = rows.get(name)
            if own is not None and row is not None and row.pairs and name != fact and row.name == own.name:
                return frozenset(str(value).split(NAMES_OF_METALS))
        return frozenset()

    def _meeting(self, condition: Condition) -> Fact:
        """Return a fact for which a condition holds."""
        if condition.tokens:
            return self._token(condition.fact, condition.tokens)
        return _within(condition, self.units, self._number(condition.fact))

    def _failing(self, condition: Condition) -> Fact | None:
        """Return a fact for which a condition does not hold; `None` where none is known."""
        if condition.tokens:
            return self._other(condition.fact, condition.tokens) or None
        part = numbers_within(condition, self.units).parts[0]
        if part.low > 0 and part.low != float("-inf"):
            return part.low / 2
        return part.high * 2 if part.high not in (float("inf"), 0.0) else None

    # What stands for a fact ------------------------------------------------------------------

    def _sample(self, fact: str) -> Fact:
        asked = next((condition for condition in self.rule.when if condition.fact == fact), None)
        if asked is not None:
            return self._meeting(asked)
        if self.names.kind(fact) or (self.names.tokens(fact) is None and fact not in self.samples.words):
            return self._number(fact)
        return self._other(fact, frozenset()) or self._token(fact, frozenset())

    def _number(self, fact: str) -> float:
        return self.samples.numbers.get(fact, self.samples.numbers.get(self.names.kind(fact), PLAIN))

    def _token(self, fact: str, of: frozenset[str]) -> str:
        """Return one word of several: the sample where it is one of them, else the first; of a pair both ends."""
        row = self.names.variables.get(fact.partition(".")[0])
        if row is not None and row.pairs and not any(NAMES_OF_METALS in token for token in of):
            of = frozenset(f"{token}{NAMES_OF_METALS}{token}" for token in of)
        own = self.samples.words.get(fact, "")
        return own if own in of or not of else min(of, key=_order)

    def _other(self, fact: str, than: frozenset[str]) -> str:
        """Return a word of a fact that is none of some; "" where there is none."""
        demand = next((each for each in self.pack.demands if each.id == fact), None)
        known = frozenset(demand.choices) if demand else self.names.tokens(fact) or frozenset()
        row = self.names.variables.get(fact)
        if row is not None and row.pairs:
            known = frozenset(f"{token}{NAMES_OF_METALS}{token}" for token in known)
        plain = frozenset(each for each in known - than if not {"none", "other"} & set(each.split(NAMES_OF_METALS)))
        left = plain or known - than
        return self._token(fact, left) if left else ""


def _order(token: str) -> tuple[int, str]:
    digits = "".join(letter for letter in token.partition(NAMES_OF_METALS)[0] if letter.isdigit())
    return (int(digits or 0), token)


def _held(end: End, units: System) -> Iterator[float]:
    """Yield a fact on either side of where an end stops to follow it."""
    plus = end.plus.of(units) if end.plus else 0.0
    for bound, side in ((end.at_least, 0.5), (end.at_most, BEYOND)):
        if bound is not None and end.times.of(units):
            yield (bound.of(units) - plus) / end.times.of(units) * side


def _within(condition: Condition, units: System, wanted: float) -> float:
    """Return a number for which a condition holds: the wanted one where it does, else a plain one inside."""
    if condition.within(wanted, units):
        return wanted
    part = numbers_within(condition, units).parts[0]
    low, high = part.low, part.high
    if low == float("-inf"):
        return high / 2
    return low * BEYOND or 1.0 if high == float("inf") else (low + high) / 2
