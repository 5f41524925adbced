"""When a rule concerns a case: `when` holds all its entries, `unless` any of them, or any of several groups whole."""

from msgspec import Struct

from anlage.core.codes.facts import Fact, Facts, Measured
from anlage.core.codes.limits import Limit
from anlage.core.quantities.units import System
from anlage.core.ranges import Range


class Condition(Struct, frozen=True):
    """One entry: a fact is one of `tokens`, or lies within bounds.

    Of a fact with several tokens, as both ends of a joint, one must match, or each of them where `every` is set.
    """

    fact: str
    tokens: frozenset[str] = frozenset()
    every: bool = False
    below: Limit | None = None
    to: Limit | None = None
    above: Limit | None = None
    start: Limit | None = None  # written `from`

    def holds(self, facts: Facts, units: System) -> bool | None:
        """Return whether it holds; `None` when the fact is missing, or is a word where numbers are bounded."""
        value = facts.get_for_condition(self.fact)
        if value is None or (not self.tokens and isinstance(value, str | frozenset)):
            return None
        if self.tokens:
            if self.every:
                return tokens_of(value) <= self.tokens
            return value in self.tokens if isinstance(value, str) else not self.tokens.isdisjoint(tokens_of(value))
        return self.within(number_of(value), units)

    def within(self, number: float, units: System) -> bool:
        """Whether a number lies within the bounds."""
        return (
            (self.below is None or number < self.below.of(units) * (1 - 1e-9))
            and (self.to is None or number <= self.to.of(units) * (1 + 1e-9))
            and (self.above is None or number > self.above.of(units) * (1 + 1e-9))
            and (self.start is None or number >= self.start.of(units) * (1 - 1e-9))
        )


Group = tuple[Condition, ...]


class Concern(Struct, frozen=True):
    """Whether a rule concerns a case: yes, no, or not known because `missing` was not recorded."""

    applies: bool | None
    missing: str = ""


def concern(when: Group, unless: tuple[Group, ...], facts: Facts, units: System) -> Concern:
    """Return whether all of `when` hold, and no group of `unless` as a whole.

    A condition that is known to fail settles it, whatever else is missing.
    """
    together = _all_of(when, facts, units)
    if together.applies is False:
        return _DOES_NOT_APPLY
    missing = together.missing
    for group in unless:
        lifted = _all_of(group, facts, units)
        if lifted.applies:
            return _DOES_NOT_APPLY
        missing = missing or lifted.missing
    return Concern(None, missing) if missing else _APPLIES


def _all_of(group: Group, facts: Facts, units: System) -> Concern:
    missing = ""
    for condition in group:
        holds = condition.holds(facts, units)
        if holds is False:
            return _DOES_NOT_APPLY
        if holds is None:
            missing = missing or condition.fact
    return Concern(None, missing) if missing else _APPLIES


_APPLIES, _DOES_NOT_APPLY = Concern(applies=True), Concern(applies=False)


def tokens_of(value: Fact) -> frozenset[str]:
    """Return a token fact as the set of its tokens."""
    if isinstance(value, frozenset):
        return value
    return frozenset((str(value),))


def number_of(value: Fact) -> float:
    """Return the mean of a number fact."""
    if isinstance(value, Measured):
        return value.mean
    assert not isinstance(value, str | frozenset | Range), f"{value} is no number"
    return float(value)
