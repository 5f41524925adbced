"""How the metal of a wire goes over: whether a current lies under, at or over the one at which drops become a spray."""

from itertools import pairwise
from typing import Literal

from msgspec import Struct

from anlage.core.ranges import Interval
from anlage.core.toml_rows import whole_table

Pair = tuple[float, float]
Transfer = Literal["under", "edge", "spray", "none"]


class WireRow(Struct, frozen=True, forbid_unknown_fields=True):
    """Transition currents of the wires of some metals: (size [mm], A), rising, in a gas."""

    family: tuple[str, ...]
    at: tuple[Pair, ...]
    gas: str


class GasRow(Struct, frozen=True, forbid_unknown_fields=True):
    """How many amps carbon dioxide adds, least and most, from one share of it up to another [%]."""

    co2_percent: Pair
    adds: Pair
    confidence: str


class Transitions(Struct, frozen=True, forbid_unknown_fields=True, kw_only=True):
    """All of the table."""

    title: str
    source: str
    confidence: str
    no_spray_co2_percent: float
    near: float
    wire: tuple[WireRow, ...]
    gas: tuple[GasRow, ...]


def read_transitions(text: str, *, where: str = "transitions.toml") -> Transitions:
    """Return the table written in `text` (TOML).

    Raises
    ------
    FormatError : a row is not what it has to be
    """
    return whole_table(text, Transitions, where=where)


class Transition(Struct, frozen=True):
    """Between which currents the drops of a wire become a spray [A]; `None` where they never do in this gas."""

    between: Interval | None
    confidence: str


def transition(family: str, size_mm: float, co2_percent: float, table: Transitions) -> Transition | None:
    """Return at which current a wire begins to spray; `None` where nobody knows: metal or size is not in the table.

    Parameters
    ----------
    family : of the filler
    size_mm : of the wire [mm]; between sizes in proportion
    co2_percent : carbon dioxide in the gas [%]
    table : from `read_transitions`

    Sources
    -------
    AWS Welding Handbook, from memory, M; what carbon dioxide adds L.

    Examples
    --------
    >>> from anlage.data.transition_table import transitions
    >>> transition("solid carbon steel", 1.2, 0, transitions()).between.low
    220.0
    """
    row = next((row for row in table.wire if family.startswith(row.family)), None)
    if row is None:
        return None
    amps = _between(row.at, size_mm)
    if amps is None:
        return None
    if co2_percent >= table.no_spray_co2_percent:
        return Transition(None, table.confidence)
    added = next((each for each in table.gas if each.co2_percent[0] <= co2_percent < each.co2_percent[1]), None)
    if added is None or not co2_percent:
        return Transition(Interval.single(amps), table.confidence)
    return Transition(Interval(amps + added.adds[0], amps + added.adds[1]), added.confidence)


def _between(points: tuple[Pair, ...], size_mm: float) -> float | None:
    for (d1, a1), (d2, a2) in pairwise(points):
        if d1 - 1e-6 <= size_mm <= d2 + 1e-6:
            return a1 + (a2 - a1) * (size_mm - d1) / (d2 - d1)
    return None


def transfer(current_a: Interval, found: Transition, near: float) -> Transfer:
    """Return where a whole range of currents lies: under the transition, at its edge, over it; or never a spray.

    Examples
    --------
    >>> begins = Transition(Interval(220, 220), "M")
    >>> [transfer(Interval(*amps), begins, 0.1) for amps in ((120, 180), (190, 230), (250, 300))]
    ['under', 'edge', 'spray']
    """
    if found.between is None:
        return "none"
    if current_a.high < found.between.low * (1 - near):
        return "under"
    return "spray" if current_a.low >= found.between.high else "edge"
