"""The closed list of rules that are a function: what no other kind can say. Each has tests of its own."""

from collections.abc import Callable, Mapping
from types import MappingProxyType

from msgspec import Struct

from anlage.core.codes.conditions import tokens_of
from anlage.core.codes.facts import Facts, pair_token
from anlage.core.codes.kinds import Readings, known, not_recorded
from anlage.core.quantities.units import System
from anlage.core.ranges import Choices


def each_end_to_itself(facts: Facts, on: str) -> Readings:
    """Return the recorded pair of metals, and each of the two joined to itself.

    Sources
    -------
    ASME BPVC IX QW-403.5 (H).
    """
    value = facts.get(on)
    if value is None:
        return not_recorded(on)
    pairs: set[str] = set()
    for pair in tokens_of(value):
        one, other = pair.split("+")
        pairs |= {pair_token(one, other), pair_token(one, one), pair_token(other, other)}
    return known(Choices(frozenset(pairs)))


FUNCTIONS: Mapping[str, Callable[[Facts, str], Readings]] = MappingProxyType({"each_end_to_itself": each_end_to_itself})


class Function(Struct, frozen=True):
    """A rule that is one of `FUNCTIONS`."""

    name: str
    on: str

    def allowed(self, facts: Facts, units: System) -> Readings:  # noqa: ARG002 - one interface for all kinds
        """Return what the function allows."""
        return FUNCTIONS[self.name](facts, self.on)
