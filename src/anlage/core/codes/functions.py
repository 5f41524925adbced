"""The closed list of rules that are a function: what no other kind can say. Each has tests of its own."""

from collections.abc import Callable, Mapping
from types import MappingProxyType

from msgspec import Struct

from anlage.core.codes.conditions import number_of, tokens_of
from anlage.core.codes.facts import Facts, pair_token
from anlage.core.codes.kinds import TWO_WAYS, Readings, known, not_recorded
from anlage.core.codes.limits import Limit
from anlage.core.quantities.units import System
from anlage.core.ranges import Choices, Interval, Numbers

MM_PER_INCH = 25.4
SIXTEENTH, EIGHTH = Limit(2.0, MM_PER_INCH / 16), Limit(3.0, MM_PER_INCH / 8)
SLOWEST = Limit(56.0, 100.0 / 1.8)  # K/h: a heat treatment need never be slower


def each_end_to_itself(facts: Facts, on: str, _units: System) -> Readings:
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


def heating_by_thickness(facts: Facts, on: str, units: System) -> Readings:
    """Return how fast a heat treatment may be heated: slower the thicker, and never need it be below a least.

    Sources
    -------
    ASME VIII-1 UCS-56 (H, from memory).
    """
    return _by_thickness(facts, on, Limit(222.0, 400.0 / 1.8), units)


def cooling_by_thickness(facts: Facts, on: str, units: System) -> Readings:
    """Return how fast a heat treatment may cool, as `heating_by_thickness`."""
    return _by_thickness(facts, on, Limit(280.0, 500.0 / 1.8), units)


def _by_thickness(facts: Facts, on: str, most: Limit, units: System) -> Readings:
    value = facts.get(on)
    if value is None:
        return not_recorded(on)
    inches = max(number_of(value) / MM_PER_INCH, 1.0)
    return known(Numbers((Interval(0.0, max(most.of(units) / inches, SLOWEST.of(units))),)))


def spacing_along(facts: Facts, on: str, units: System) -> Readings:
    """Return how far apart arcs may be along the seam: a tenth more or less, or 3 mm (1/8 in) where that is more.

    Sources
    -------
    AWS D1.1 Table 6.5, 4.5 in 2015 (H, from memory).
    """
    return _beside(facts, on, (EIGHTH.of(units),))


def spacing_across(facts: Facts, on: str, units: System) -> Readings:
    """Return how far apart arcs may be across the seam: as `spacing_along`, by one reading with 2 mm (1/16 in) alone.

    Sources
    -------
    AWS D1.1 Table 6.5, 4.5 in 2015 (M, from memory).
    """
    return _beside(facts, on, (SIXTEENTH.of(units), EIGHTH.of(units)))


def _beside(facts: Facts, on: str, margins: tuple[float, ...]) -> Readings:
    value = facts.get(on)
    if value is None:
        return not_recorded(on)
    place = number_of(value)
    spans = [Interval(max(place - own, 0.0), place + own) for own in (max(0.1 * place, each) for each in margins)]
    sure, possible = Numbers((spans[0],)), Numbers((spans[-1],))
    return Readings(sure, possible, "" if sure == possible else TWO_WAYS)


FUNCTIONS: Mapping[str, Callable[[Facts, str, System], Readings]] = MappingProxyType({
    "each_end_to_itself": each_end_to_itself,
    "heating_by_thickness": heating_by_thickness,
    "cooling_by_thickness": cooling_by_thickness,
    "spacing_along": spacing_along,
    "spacing_across": spacing_across,
})  # fmt: skip


class Function(Struct, frozen=True):
    """A rule that is one of `FUNCTIONS`."""

    name: str
    on: str

    def allowed(self, facts: Facts, units: System) -> Readings:
        """Return what the function allows."""
        return FUNCTIONS[self.name](facts, self.on, units)
