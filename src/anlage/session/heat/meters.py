"""How far the heat input of each pass may be off by the meters of its machine, as the works states their tolerances."""

from collections.abc import Iterator, Mapping

from msgspec import Struct

from anlage.core.document import kept
from anlage.core.errors import InputError
from anlage.core.heat.uncertainty import Spread, Tolerance, heat_spread, tolerance_of
from anlage.core.machine import Calibrated, Machine, folded
from anlage.core.procedure import Pass, Wps, deposit_of_pass
from anlage.core.ranges import Interval
from anlage.data.tables import unit_table

NO_MACHINES = Calibrated()
METERS = ("voltage", "current", "speed")
LEAVES: Mapping[str, str] = {"voltage": "voltage_v", "current": "current_a", "speed": "travel_speed_mm_min"}


class Metered(Struct, frozen=True):
    """One pass by its meters: how far its heat input may be off, by which meters, and of which nothing is stated."""

    spread: Spread
    machine: str
    by: tuple[str, ...]
    unknown: tuple[str, ...]

    @property
    def text(self) -> str:
        """Share and meters in words."""
        lacking = f"; {' and '.join(self.unknown)} not stated, not in it" if self.unknown else ""
        return f"± {100 * self.spread.expanded:.1f} % by the meters of {self.machine} (95 of 100{lacking})"

    def widened(self, heat: Interval) -> Interval:
        """Return the heat input with the meters off both ways."""
        off = self.spread.expanded
        return Interval(heat.low * max(1 - off, 0.0), heat.high * (1 + off))


@kept
def metered(wps: Wps, works: Calibrated = NO_MACHINES) -> Mapping[str, Metered]:
    """Return every pass of which the works states how far a meter of its machine may be off, by its id.

    A pass whose deposit names no machine of the works has none; of the range of a setting the least reading counts,
    at which an amount is the largest share.

    Sources
    -------
    JCGM 100 (GUM), by `core.heat.uncertainty`.
    """
    by_number = {folded(each.header.number): each for each in works.machines if each.header.number}
    found = {}
    for each in wps.passes:
        machine = by_number.get(folded(deposit_of_pass(wps, each).machine or ""))
        if machine is not None and (own := _of_pass(each, machine)) is not None:
            found[each.id] = own
    return found


def _of_pass(each: Pass, machine: Machine) -> Metered | None:
    stated = {name: tolerance for name in METERS if (tolerance := _tolerance(machine, name)) is not None}
    spans = {name: getattr(each, LEAVES[name]) for name in METERS}
    if not stated or None in spans.values() or any(span.low <= 0 for span in spans.values()):
        return None
    rates = [(spans[name].low, stated[name]) for name in ("voltage", "current") if name in stated]
    divided = [(spans["speed"].low, stated["speed"])] if "speed" in stated else []
    unknown = tuple(name for name in METERS if name not in stated)
    return Metered(heat_spread(rates, divided), machine.header.number, tuple(stated), unknown)


def _tolerance(machine: Machine, name: str) -> Tolerance | None:
    text = getattr(machine, f"{name}_tolerance")
    if not text:
        return None
    try:
        return tolerance_of(text, unit_table()[name])
    except InputError:
        return None  # a document from elsewhere: its field says what is wrong


def meter_sentences(wps: Wps, works: Calibrated) -> Iterator[str]:
    """Yield for every machine how far the heat input of its passes may be off, the most of them."""
    worst: dict[str, Metered] = {}
    for each in metered(wps, works).values():
        known = worst.get(each.machine)
        if known is None or each.spread.expanded > known.spread.expanded:
            worst[each.machine] = each
    for own in worst.values():
        yield f"Heat input is known to {own.text}."


def off_words(wps: Wps, pass_id: str, works: Calibrated) -> str:
    """Return how far the heat input of a pass may be off; "" where nothing is stated of a meter."""
    own = metered(wps, works).get(pass_id)
    return f"heat input {own.text}" if own is not None else ""
