"""What would this coupon buy? A coupon stated by hand, its facts derived, and every allowed set it would give."""

from collections.abc import Iterable

from msgspec import Struct
from msgspec.structs import replace

from anlage.core.codes import Allowance, Coupon, CoverBox, Demand, Measured, Pack, Rule, cover_box
from anlage.core.codes.conditions import concern
from anlage.core.codes.facts import Fact, Facts, deposit_facts, joint_facts
from anlage.core.results import Notice, Source
from anlage.core.variables import spoken
from anlage.data.tables import catalogue
from anlage.session.judging.coupons import (
    HEATS,
    CouponFacts,
    StatedCoupon,
    StatedCouponDeposit,
    coupon_facts,
    is_without,
)
from anlage.session.judging.editions import SHIPPED, Codes
from anlage.session.leaves.iso_numbers import efficiency_of

SCOPED_BELOW = ("deposit", "pass")


class Bought(Struct, frozen=True):
    """One variable of a what-if: what the coupon would allow of it; `allowance` is `None` where no rule concerns it."""

    id: str
    variable: str
    allowance: Allowance | None
    category: str
    clause: str
    note: str


class WhatIf(Struct, frozen=True):
    """The answer: the pack and edition asked, every variable, and what was taken for granted."""

    pack: Pack
    edition: str
    demand: Demand
    variables: tuple[Bought, ...]
    notices: tuple[Notice, ...]
    sources: tuple[Source, ...]


def what_if(code: str, coupon: StatedCoupon, demand: Demand, codes: Codes = SHIPPED) -> WhatIf:
    """Return what a coupon would buy by a code under a demand.

    Raises
    ------
    InputError : deposits exceed the thickness, or a name is unknown (`UnknownNameError`)
    """
    pack, edition = codes.edition_of(code)
    facts, notices = coupon_facts(coupon, demand, pack.derive)
    if pack.basis == "heat_input":
        facts = replace(facts, deposits=tuple(map(_in_heat_input, coupon.deposits, facts.deposits)))
    missing = {fact: a for fact, a in pack.assumed.items() if not _is_stated(fact, facts)}
    full = Coupon(
        name="what-if",
        joint={**({"impact_tested": "yes"} if demand.asks_for("impact") else {}), **facts.joint},
        deposits=facts.deposits,
        assumed={fact: assumption.value for fact, assumption in missing.items()},
        toughness_tested=True if demand.asks_for("impact") else None,
        hardness_tested=True if demand.asks_for("hardness") else None,
    )
    said = tuple(
        Notice("coupon.assumed", fact, f"{spoken(fact)} is not stated: {assumption.say} is assumed")
        for fact, assumption in missing.items()
        if _is_asked_for(fact, pack, full, demand)
    )
    box = cover_box(pack, full, demand)
    text = "the coupon is taken as tested and passed, by all that its code asks for"
    tested = Notice("coupon.tested", "coupon", text)
    return WhatIf(pack, edition, demand, tuple(bought(pack, box)), (*notices, tested, *said), _sources(coupon))


def _in_heat_input(stated: StatedCouponDeposit, facts: dict[str, Fact]) -> dict[str, Fact]:
    """Return the facts of a deposit with the energy that was worked out as heat input; what is stated is that."""
    if stated.heat_input_kj_mm is not None:
        return facts
    row = efficiency_of(stated.process, stated.filler, stated.gas)
    heats = {name: own for name in HEATS if isinstance(own := facts.get(name), Measured)}
    kept = {name: each for name, each in facts.items() if name not in heats}
    return kept if row is None or row.k is None else kept | {name: own.times(row.k) for name, own in heats.items()}


def _is_asked_for(fact: str, pack: Pack, coupon: Coupon, demand: Demand) -> bool:
    """Whether the condition of a rule that otherwise concerns the case asks for a fact."""
    demanded = pack.facts_of(demand)
    seen = [deposit_facts(coupon, index, demanded) for index in range(len(coupon.deposits))]
    for rule in pack.rules:
        groups = (rule.when, *rule.unless)
        if fact in {condition.fact for group in groups for condition in group}:
            when, *lifts = (tuple(c for c in group if c.fact != fact) for group in groups)
            unless = tuple(group for group in lifts if group)
            if any(concern(when, unless, facts, demand.units).applies is not False for facts in seen):
                return True
    return False


def _sources(coupon: StatedCoupon) -> tuple[Source, ...]:
    """Return where the groups of metals and fillers come from."""
    metals = [
        Source(f"{metal.name}: P-{metal.group('p_number') or '?'}", metal.source, metal.confidence)
        for metal in coupon.metals
    ]
    fillers = [catalogue().filler(each.filler) for each in coupon.deposits if each.filler and not is_without(each)]
    groups = [
        Source(f"{f.classification}: F-{f.f_number}, A-{f.a_number or '?'}", f.source, f.confidence) for f in fillers
    ]
    return tuple(dict.fromkeys((*metals, *groups)))


def _is_stated(fact: str, facts: CouponFacts) -> bool:
    if fact == "pwht" and "pwht_temperature_c" in facts.joint:
        return True  # stated, though of no known class: not to be taken as welded
    return fact in facts.joint or all(fact in deposit for deposit in facts.deposits)


def bought(pack: Pack, box: CoverBox) -> Iterable[Bought]:
    """Yield every variable that a rule limits, or would limit if impact were demanded or no rule were lifted."""
    demanded = pack.facts_of(box.demand)
    for variable, every in pack.variables.items():
        rules = [rule for rule in every if rule.is_of_record]
        if variable == "weld" or not rules:  # answered by the demand itself, or no coupon buys it
            continue
        if pack.scope_of(variable) in SCOPED_BELOW:
            places = [
                (f"{variable}.{label}", own.get(variable), deposit_facts(box.coupon, index, demanded))
                for index, (label, own) in enumerate(zip(box.labels, box.deposits, strict=True))
            ]
        else:
            met = _met(own.get(variable) for own in box.deposits)
            places = [(variable, met, joint_facts(box.coupon, demanded))]
        for name, allowance, facts in places:
            if allowance:
                note = "; ".join(filter(None, (allowance.reason, allowance.note)))
                yield Bought(name, variable, allowance, allowance.category, allowance.clause, note)
            elif lifted := next((rule for rule in rules if _is_lifted(rule, facts, box.demand)), None):
                yield Bought(name, variable, None, lifted.category, lifted.clause, _why_lifted(lifted, box.demand))


def _is_lifted(rule: Rule, facts: Facts, demand: Demand) -> bool:
    """Whether a rule would concern the case, but for the demand or the heat treatment."""
    when = tuple(condition for condition in rule.when if condition.fact not in ("impact", "weld"))
    unless = tuple(group for group in rule.unless if {each.fact for each in group}.isdisjoint(("weld", "pwht")))
    return concern(when, unless, facts, demand.units).applies is not False


def _why_lifted(rule: Rule, demand: Demand) -> str:
    if rule.because and not demand.asks_for(rule.because):
        return f"limits only where {rule.because} is demanded"
    return f"lifted for {'a fillet' if demand.asked.get('weld') == 'fillet' else 'this case'}"


def _met(allowances: Iterable[Allowance | None]) -> Allowance | None:
    """Return what all deposits allow of a variable of the joint."""
    found = [each for each in allowances if each is not None]
    if not found:
        return None
    sure, possible = found[0].sure, found[0].possible
    rulings = list(found[0].rulings)
    for other in found[1:]:
        sure, possible = sure & other.sure, possible & other.possible
        rulings += [ruling for ruling in other.rulings if ruling.rule.scope != "joint"]
    return Allowance(sure, possible, tuple(rulings))
