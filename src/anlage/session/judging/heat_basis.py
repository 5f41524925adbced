"""The heat that a code compares: arc energy as it is, or heat input, with the efficiency of the process in it.

Values of different basis are never compared: what cannot be told in the basis of a code is not stated to it.
"""

from collections.abc import Mapping
from functools import lru_cache

from msgspec.structs import replace

from anlage.core.codes import Measured, Pack
from anlage.core.codes.facts import Fact
from anlage.core.procedure import Deposit
from anlage.core.ranges import Numbers, Range, numbers
from anlage.core.record import RecordedDeposit
from anlage.session.judging.coupons import HEAT
from anlage.session.judging.derivations import measured
from anlage.session.leaves.iso_numbers import efficiency_of


def basis_of(deposit: Deposit, pack: Pack) -> float | None:
    """Return what the arc energy of a deposit counts as to a code, as a factor; `None` where that is not known."""
    return 1.0 if pack.basis == "arc_energy" else _efficiency(deposit)


def with_stated_heat(sets: Mapping[str, Range], basis: float | None) -> Mapping[str, Range]:
    """Return the sets of a pass with its heat in the basis of a code; without it where that is not known."""
    own = sets.get(HEAT)
    if basis == 1.0 or not isinstance(own, Numbers):
        return sets
    kept = {name: each for name, each in sets.items() if name != HEAT}
    return kept if basis is None else kept | {HEAT: _scaled(own, basis)}


@lru_cache(maxsize=1024)
def _scaled(heat: Numbers, k: float) -> Numbers:
    return numbers([replace(part, low=part.low * k, high=part.high * k) for part in heat.parts])


def with_recorded_heat(facts: dict[str, Fact], deposit: RecordedDeposit, pack: Pack) -> dict[str, Fact]:
    """Return the facts of a deposit with its heat in the basis of a code; without it where that cannot be told.

    What was recorded as heat input counts as it is, where nothing was read pass by pass.
    """
    if pack.basis == "arc_energy":
        return facts
    kept = {name: each for name, each in facts.items() if name != HEAT}
    own = facts.get(HEAT)
    if isinstance(own, Measured):
        k = _efficiency(deposit)
        return kept if k is None else kept | {HEAT: own.times(k)}
    told = deposit.heat_input_kj_mm if deposit.heat_input_basis == "heat_input" else None
    found = measured(told) if told is not None else None
    return kept if found is None else kept | {HEAT: found}


def heat_in_basis(heat: float, deposit: RecordedDeposit, pack: Pack) -> float | None:
    """Return a heat that is written in the basis of a deposit in that of a code; `None` where that cannot be told."""
    if deposit.heat_input_basis == pack.basis:
        return heat
    k = _efficiency(deposit)
    return None if k is None or deposit.heat_input_basis == "heat_input" else heat * k


def _efficiency(deposit: Deposit | RecordedDeposit) -> float | None:
    row = efficiency_of(deposit.process, deposit.filler, deposit.shielding_gas)
    return row.k if row else None
