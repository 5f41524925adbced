"""The shipped table of spray transition currents, apart from the tables that every command reads."""

from functools import cache

from anlage.core.catalogue import gas_composition
from anlage.core.errors import UnknownNameError
from anlage.core.transition import Transition, Transitions, read_transitions, transition
from anlage.data.files import text_of
from anlage.data.tables import catalogue, processes


@cache
def transitions() -> Transitions:
    """Return the shipped transition currents."""
    return read_transitions(text_of("transitions.toml"))


def transition_of_wire(
    process: str | None, filler: str | None, size_mm: float | None, gas: str | None
) -> Transition | None:
    """Return at which current a wire sprays in a gas; `None` where process, wire, size or gas is not known to do so."""
    known = processes().get(process or "")
    if known is None or not known.is_open_wire or not filler or size_mm is None or not gas:
        return None
    try:
        family = catalogue().filler(filler).family
    except UnknownNameError:
        return None
    try:
        parts = catalogue().gas(gas).components
    except UnknownNameError:
        parts = gas_composition(gas)
    return transition(family, size_mm, parts.get("CO2", 0.0), transitions()) if parts else None
