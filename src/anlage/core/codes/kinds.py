"""The kinds of rule: how a recorded fact becomes an allowed set.

Every kind answers `Readings`: the set allowed for sure and the set possibly allowed. They are equal when the rule is
known, a narrower and a wider one when two readings exist, `NONE` and `ANY` when it is unknown.
"""

from collections.abc import Mapping
from typing import Protocol

from msgspec import Struct, field
from msgspec.structs import replace

from anlage.core.codes.conditions import Condition, number_of, tokens_of
from anlage.core.codes.facts import Fact, Facts, Measured
from anlage.core.codes.limits import Limit
from anlage.core.quantities.units import System
from anlage.core.ranges import ANY, NONE, Choices, Extreme, Interval, Numbers, Pairs, Range, choices
from anlage.core.variables import spoken

TWO_WAYS = "the clause is read in two ways"


class Readings(Struct, frozen=True):
    """What a rule allows: `sure` within `possible`, with the reason when they differ."""

    sure: Range
    possible: Range
    reason: str = ""
    missing: str = ""  # the fact that was not recorded, when that is why
    confidence: str = ""  # of the row or word that answers, where it is another than that of the rule


def known(allowed: Range) -> Readings:
    """Return the readings of a rule that is known: both are one set."""
    return Readings(allowed, allowed)


def unknown(reason: str) -> Readings:
    """Return the readings of a rule that is unknown for `reason`."""
    return Readings(NONE, ANY, reason)


def not_recorded(fact: str) -> Readings:
    """Return the readings of a rule whose fact is missing."""
    return Readings(NONE, ANY, f"{spoken(fact)} is not recorded", fact)


class RuleKind(Protocol):
    """A kind with its parameters."""

    def allowed(self, facts: Facts, units: System) -> Readings:
        """Return what the rule allows for these facts in one unit system."""
        ...


class Same(Struct, frozen=True):
    """Only what was recorded."""

    on: str

    def allowed(self, facts: Facts, units: System) -> Readings:  # noqa: ARG002 - one interface for all kinds
        """Return the recorded value alone."""
        value = facts.get(self.on)
        return not_recorded(self.on) if value is None else known(_just(value))


class Group(Struct, frozen=True):
    """Any of the recorded token's group; a token in no group stands for itself."""

    on: str
    groups: tuple[frozenset[str], ...]

    def allowed(self, facts: Facts, units: System) -> Readings:  # noqa: ARG002
        """Return the group of the recorded token."""
        value = facts.get(self.on)
        if value is None:
            return not_recorded(self.on)
        return known(Choices(frozenset().union(*(self._group(token) for token in tokens_of(value)))))

    def _group(self, token: str) -> frozenset[str]:
        return next((group for group in self.groups if token in group), frozenset((token,)))


class Map(Struct, frozen=True):
    """What each recorded token allows; `otherwise` the same alone, or unknown."""

    on: str
    allows: Mapping[str, Range]
    otherwise_same: bool
    confidences: Mapping[str, str] = field(default_factory=dict)  # of words, where not that of the rule
    wider: Mapping[str, Range] = field(default_factory=dict)  # of words that are read in two ways

    def allowed(self, facts: Facts, units: System) -> Readings:  # noqa: ARG002
        """Return what the recorded token allows."""
        value = facts.get(self.on)
        if value is None:
            return not_recorded(self.on)
        allowed: Range = NONE
        for token in tokens_of(value):
            if token in self.allows:
                allowed = allowed | self.allows[token]
            elif self.otherwise_same:
                allowed = allowed | choices(token)
            else:
                return unknown(f"the pack does not say what {token} allows")
        told = [self.confidences[token] for token in tokens_of(value) if token in self.confidences]
        possible = allowed
        for token in tokens_of(value) & self.wider.keys():
            possible = possible | self.wider[token]
        reason = "" if possible is allowed else TWO_WAYS
        return Readings(allowed, possible, reason, confidence=max(told, key="HML".index, default=""))


ONCE = Limit(1.0, 1.0)


class End(Struct, frozen=True):
    """One end of a band: a number, or `times` a fact `plus` a number, kept between two numbers."""

    number: Limit | None = None  # written `is`
    of: str = ""
    take: str = "mean"
    times: Limit = ONCE
    plus: Limit | None = None
    at_least: Limit | None = None
    at_most: Limit | None = None
    open: bool = False

    def at(self, facts: Facts, units: System, *, surely: bool = False) -> float | None:
        """Return where the end lies, or where it lies for sure; `None` when its fact is missing."""
        if self.number is not None:
            return self.number.of(units)
        value = facts.get(self.of)
        if value is None:
            return None
        plus = self.plus.of(units) if self.plus else 0.0
        place = self.times.of(units) * _taken(value, self.take, surely=surely) + plus
        if self.at_least is not None:
            place = max(place, self.at_least.of(units))
        return place if self.at_most is None else min(place, self.at_most.of(units))


class Band(Struct, frozen=True):
    """Everything between two ends; an absent end is no limit."""

    low: End | None = None
    high: End | None = None

    def allowed(self, facts: Facts, units: System) -> Readings:
        """Return the band for the recorded facts."""
        possible = self._between(facts, units, surely=False)
        if isinstance(possible, Readings):
            return possible
        sure = self._between(facts, units, surely=True)
        if sure == possible or isinstance(sure, Readings):
            return known(possible)
        return Readings(sure, possible, "only extremes are recorded, not what belongs together in one pass")

    def _between(self, facts: Facts, units: System, *, surely: bool) -> Range | Readings:
        places = []
        for end in (self.low, self.high):
            place = end.at(facts, units, surely=surely) if end else None
            if end and place is None:
                return not_recorded(end.of)
            places.append(place)
        low, high = places
        if low is not None and high is not None and low > high:
            return NONE
        infinity = float("inf")
        part = Interval(
            -infinity if low is None else low,
            infinity if high is None else high,
            bool(self.low and self.low.open),
            bool(self.high and self.high.open),
        )
        return Numbers((part,))


class Also(Struct, frozen=True):
    """A rule with a second, wider reading."""

    narrow: RuleKind
    wide: RuleKind

    def allowed(self, facts: Facts, units: System) -> Readings:
        """Return the narrow set as sure and both together as possible."""
        narrow, wide = self.narrow.allowed(facts, units), self.wide.allowed(facts, units)
        reason = narrow.reason or TWO_WAYS
        return Readings(narrow.sure, narrow.possible | wide.possible, reason, narrow.missing, narrow.confidence)


class Doubted(Struct, frozen=True):
    """A rule that nobody is sure of: what it allows is possible alone."""

    kind: RuleKind
    note: str

    def allowed(self, facts: Facts, units: System) -> Readings:
        """Return nothing as sure, and as possible what the rule allows."""
        found = self.kind.allowed(facts, units)
        return Readings(NONE, found.possible, found.reason or self.note, found.missing, found.confidence)


class Only(Struct, frozen=True):
    """A constant set, whatever was recorded."""

    values: Range

    def allowed(self, facts: Facts, units: System) -> Readings:  # noqa: ARG002 - one interface for all kinds
        """Return the set."""
        return known(self.values)


class TableRow(Struct, frozen=True):
    """One row of a table: where it holds, for one fact or two, and its band."""

    on: Condition
    second: Condition | None
    band: Band
    confidence: str = ""  # where it is not that of the rule


class Table(Struct, frozen=True):
    """Bands by the value of one fact or two; rows do not overlap."""

    rows: tuple[TableRow, ...]

    def allowed(self, facts: Facts, units: System) -> Readings:
        """Return the band of the row in which the recorded facts lie."""
        missing = ""
        for row in self.rows:
            holds = [condition.holds(facts, units) for condition in (row.on, row.second) if condition]
            if all(holds):
                found = row.band.allowed(facts, units)
                return replace(found, confidence=row.confidence) if row.confidence else found
            if None in holds and False not in holds:
                missing = missing or (row.on.fact if holds[0] is None else row.second.fact if row.second else "")
        return not_recorded(missing) if missing else unknown("the table has no row for it")


class Declared(Struct, frozen=True):
    """The range as the record declares it."""

    on: str

    def allowed(self, facts: Facts, units: System) -> Readings:  # noqa: ARG002
        """Return the declared range."""
        value = facts.get(f"declared.{self.on}")
        if isinstance(value, Numbers | Choices | Extreme):
            return known(value)
        reason = facts.clashes.get(f"declared.{self.on}", f"the record declares no range of {spoken(self.on)}")
        return unknown(reason)


class Attribute(Struct, frozen=True):
    """A rule on a property of the recorded token: allowed is every token whose property is allowed.

    With `or_same` the recorded token itself is allowed besides. A token whose property nobody knows may be allowed.
    """

    on: str
    of: str  # the catalogue column
    column: Mapping[str, str]
    inner: RuleKind  # reads the property under the fact name `of`
    or_same: bool = False

    def allowed(self, facts: Facts, units: System) -> Readings:
        """Return the tokens whose property the inner rule allows."""
        value = facts.get(self.on)
        if value is None:
            return not_recorded(self.on)
        properties = {self.column.get(token, "") for token in tokens_of(value)}
        same = Choices(tokens_of(value)) if self.or_same else NONE
        if "" in properties:
            reason = f"{spoken(self.of.split('.')[-1])} of {', '.join(sorted(tokens_of(value)))} is not known"
            return Readings(same, ANY, reason)
        inner = self.inner.allowed(Facts({**facts.values, self.of: frozenset(properties)}, facts.assumed), units)
        sure, possible = (self._tokens(allowed) | same for allowed in (inner.sure, inner.possible))
        unknown_of = Choices(frozenset(token for token, own in self.column.items() if not own))
        return Readings(sure, possible | unknown_of, inner.reason, confidence=inner.confidence)

    def _tokens(self, allowed: Range) -> Range:
        if isinstance(allowed, Extreme):
            return allowed
        return Choices(frozenset(token for token, own in self.column.items() if own and allowed.contains(own)))


class UpTo(Struct, frozen=True):
    """Order `<=`: the recorded token and all before it in `ranks`."""

    on: str
    ranks: tuple[str, ...]

    def allowed(self, facts: Facts, units: System) -> Readings:  # noqa: ARG002
        """Return the tokens that rank no higher than the recorded one."""
        value = facts.get(self.on)
        if value is None:
            return not_recorded(self.on)
        highest = max((self.ranks.index(token) for token in tokens_of(value) if token in self.ranks), default=-1)
        if highest < 0:
            return unknown(f"{value} has no rank")
        return known(Choices(frozenset(self.ranks[: highest + 1])))


class Addressed(Struct, frozen=True):
    """Nonessential: anything goes, but the WPS must state it."""

    def allowed(self, facts: Facts, units: System) -> Readings:  # noqa: ARG002
        """Return everything."""
        return known(ANY)


class Unknown(Struct, frozen=True):
    """What nobody could tell when the pack was written."""

    note: str

    def allowed(self, facts: Facts, units: System) -> Readings:  # noqa: ARG002
        """Return the unknown readings with the note."""
        return unknown(self.note)


def _just(value: Fact) -> Range:
    if isinstance(value, str | frozenset):
        return Choices(tokens_of(value))
    if isinstance(value, Numbers | Choices | Pairs | Extreme):
        return value
    if isinstance(value, Measured):
        return Numbers((Interval(value.least, value.most),))
    return Numbers((Interval.single(value),))


def _taken(value: Fact, take: str, *, surely: bool) -> float:
    if isinstance(value, Measured):
        if surely and take == "most" and value.sure is not None:
            return value.sure
        return {"least": value.least, "most": value.most}.get(take, value.mean)
    return number_of(value)
