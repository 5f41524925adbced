"""What a fill changes, old and new beside each other, before anybody takes it."""

from collections.abc import Iterator, Sequence

from anlage.core.procedure import Pass, Wps, pass_energy
from anlage.core.quantities import show_interval
from anlage.core.quantities.units import System
from anlage.core.ranges import Interval
from anlage.data.tables import unit_table
from anlage.session.leaves.difference import NONE, Difference
from anlage.session.leaves.table import field_of
from anlage.session.weld.usual import SETTINGS


def fill_changes(before: Wps, after: Wps, system: System) -> tuple[Difference, ...]:
    """Return what differs between the passes of two states, by deposit and role: how many, and how they are set."""
    return tuple(_changes(before, after, system))


def _changes(before: Wps, after: Wps, system: System) -> Iterator[Difference]:
    homes = {each.id: each for each in (*before.deposits, *after.deposits)}
    groups = dict.fromkeys((each.deposit, each.role) for each in (*after.passes, *before.passes))
    for home, role in groups:
        one, other = ([p for p in state.passes if (p.deposit, p.role) == (home, role)] for state in (before, after))
        deposit = homes[home]
        name = " ".join(filter(None, (deposit.process, deposit.filler))) or "not stated"
        head = f"{role or 'no role'}, {name}"
        if len(one) != len(other):
            yield Difference(head, _passes(one), _passes(other))
        for leaf in SETTINGS:
            texts = [_span(group, leaf, system) for group in (one, other)]
            if texts[0] != texts[1]:
                yield Difference(f"{head}: {field_of(f'passes/*/{leaf}').label.lower()}", *texts)
        energies = [_energy(group, system) for group in (one, other)]
        if energies[0] != energies[1]:
            yield Difference(f"{head}: arc energy", *energies)


def _passes(group: Sequence[Pass]) -> str:
    return f"{len(group)} {'pass' if len(group) == 1 else 'passes'}" if group else NONE


def _span(group: Sequence[Pass], leaf: str, system: System) -> str:
    """Return the least and the most that passes state of a leaf."""
    stated = [value for each in group if (value := getattr(each, leaf)) is not None]
    if not stated:
        return NONE
    whole = Interval(min(each.low for each in stated), max(each.high for each in stated))
    return show_interval(whole, field_of(f"passes/*/{leaf}").kind, system, unit_table())


def _energy(group: Sequence[Pass], system: System) -> str:
    known = [energy.interval for each in group if (energy := pass_energy(each))]
    if not known or len(known) < len(group):
        return NONE
    whole = Interval(min(each.low for each in known), max(each.high for each in known))
    return show_interval(whole, "heat_input", system, unit_table())
