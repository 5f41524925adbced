"""What a procedure states and asks, as the judge reads it: sets variable by variable, and its demand."""

from collections.abc import Mapping
from typing import Any

from anlage.core.codes import Demand, Pack, Stated, StatedDeposit, StatedPass
from anlage.core.codes.facts import Fact
from anlage.core.document import at
from anlage.core.procedure import Deposit, Wps
from anlage.core.ranges import Range, choices
from anlage.data.tables import catalogue, variables
from anlage.session.judging.clashes.all_clashes import clashes_of, sentences
from anlage.session.judging.heat_basis import with_stated_heat
from anlage.session.judging.mapper import sets_of
from anlage.session.judging.metals import is_known_filler, is_without, metals_of


def demand_of(document: Any, pack: Pack) -> Demand:
    """Return what a document asks of any record by a pack; a demand that is not stated, or clashes, is open."""
    return _demand(document, pack, sentences(clashes_of(document, pack.derive)))


def _demand(document: Any, pack: Pack, clashes: Mapping[str, str]) -> Demand:
    asked = {each.id: at(document, variables()[each.id].asked) for each in pack.demands}
    unsaid = [name for name, answer in asked.items() if answer is None or name in clashes]
    return Demand(units=document.header.units, unsaid=unsaid, **asked)


def stated_of(wps: Wps, pack: Pack) -> Stated:
    """Return the sets of a procedure; what is not stated, or not known to the catalogue, has none."""
    clashes = clashes_of(wps, pack.derive)
    joint = sentences(clashes)
    metals = metals_of(wps.metals)
    facts = pack.derive.metal_facts(metals[0], metals[-1]) if metals else {}
    deposits = tuple(_deposit(wps, each, pack, sentences(clashes, each.id)) for each in wps.deposits)
    sets = {**_words(facts), **_heat_treatment(wps, pack, facts), **sets_of(wps, "joint")}
    return Stated(sets, deposits, joint, _demand(wps, pack, joint))


def _heat_treatment(wps: Wps, pack: Pack, facts: Mapping[str, Fact]) -> dict[str, Range]:
    """Return the class of a heat treatment of which only the temperature is stated, where it is known."""
    rule, metals = pack.derive.heat_treatment, facts.get("p_numbers")
    if rule is None or wps.pwht.kind is not None or wps.pwht.temperature_c is None:
        return {}
    known = metals if isinstance(metals, frozenset) else frozenset[str]()
    found = pack.derive.heat_treatment_class(wps.pwht.temperature_c, known)
    return {rule.fact: choices(found)} if found else {}


def _words(facts: dict[str, Fact]) -> dict[str, Range]:
    """Return the facts that are one word as sets; what is several is asked of coupons alone."""
    return {name: choices(fact) for name, fact in facts.items() if isinstance(fact, str)}


def _deposit(wps: Wps, deposit: Deposit, pack: Pack, clashes: Mapping[str, str]) -> StatedDeposit:
    sets = sets_of(wps, "deposit", deposit)
    if is_known_filler(deposit.filler) and not is_without(deposit.filler):
        sets |= _words(pack.derive.filler_facts(catalogue().filler(deposit.filler or "")))
    own = [each for each in wps.passes if each.deposit == deposit.id]
    passes = tuple(StatedPass(each.id, with_stated_heat(sets_of(wps, "pass", each), deposit, pack)) for each in own)
    roles = frozenset(str(each.role) for each in own) if all(each.role for each in own) else frozenset[str]()
    return StatedDeposit(deposit.process or "", sets, passes, roles, clashes)
