"""What a procedure states and asks, as the judge reads it: sets variable by variable, and its demand."""

from typing import Any

from anlage.core.codes import Demand, Pack, Stated, StatedDeposit, StatedPass
from anlage.core.codes.facts import Fact
from anlage.core.document import at
from anlage.core.procedure import Deposit, Wps
from anlage.core.ranges import Range, choices
from anlage.data.tables import catalogue, variables
from anlage.session.judging.mapper import sets_of
from anlage.session.judging.records import is_known_filler, is_without, metals_of


def demand_of(document: Any, pack: Pack) -> Demand:
    """Return what a document asks of any record by a pack; a demand that is not stated is not made."""
    asked = {each.id: at(document, variables()[each.id].asked) for each in pack.demands}
    return Demand(units=document.header.units, **asked)


def stated_of(wps: Wps, pack: Pack) -> Stated:
    """Return the sets of a procedure; what is not stated, or not known to the catalogue, has none."""
    metals = metals_of(wps.metals)
    groups = _words(pack.derive.metal_facts(*metals)) if metals else {}
    deposits = tuple(_deposit(wps, each, pack) for each in wps.deposits)
    return Stated({**groups, **sets_of(wps, "joint")}, deposits)


def _words(facts: dict[str, Fact]) -> dict[str, Range]:
    """Return the facts that are one word as sets; what is several is asked of coupons alone."""
    return {name: choices(fact) for name, fact in facts.items() if isinstance(fact, str)}


def _deposit(wps: Wps, deposit: Deposit, pack: Pack) -> StatedDeposit:
    sets = sets_of(wps, "deposit", deposit)
    if is_known_filler(deposit.filler) and not is_without(deposit.filler):
        sets |= _words(pack.derive.filler_facts(catalogue().filler(deposit.filler or "")))
    passes = tuple(StatedPass(each.id, sets_of(wps, "pass", each)) for each in wps.passes if each.deposit == deposit.id)
    return StatedDeposit(deposit.process or "", sets, passes)
