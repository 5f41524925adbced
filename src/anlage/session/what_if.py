"""What would this coupon buy? A coupon stated by hand, its facts derived, and every allowed set it would give."""

from collections.abc import Iterable, Mapping
from dataclasses import dataclass, field

from anlage.core.catalogue import MetalGroup
from anlage.core.codes import Allowance, Coupon, CoverBox, Demand, Measured, Pack, Rule, cover_box
from anlage.core.codes.conditions import concern
from anlage.core.codes.derive import filler_facts, heat_treatment_class, metal_facts
from anlage.core.codes.facts import Fact, Facts, deposit_facts, joint_facts
from anlage.core.codes.kinds import spoken
from anlage.core.errors import InputError, UnknownNameError
from anlage.core.heat import arc_energy, over_range
from anlage.core.ranges import Interval
from anlage.core.results import Notice, Source
from anlage.data.code_packs import a_number_table, code_pack, lower_transformations
from anlage.data.tables import catalogue

SCOPED_BELOW = ("deposit", "pass")


@dataclass(frozen=True, slots=True, kw_only=True)
class StatedCouponDeposit:
    """One deposit of a coupon as stated by hand; `None` and absent facts are not stated."""

    process: str
    thickness_mm: float | None = None
    max_pass_thickness_mm: float | None = None
    filler: str | None = None
    f_number: str | None = None
    a_number: str | None = None
    gas: str | None = None
    volts: Interval | None = None
    amps: Interval | None = None
    travel_speed_mm_min: Interval | None = None
    heat_input_kj_mm: Interval | None = None
    facts: Mapping[str, Fact] = field(default_factory=dict)


@dataclass(frozen=True, slots=True, kw_only=True)
class StatedCoupon:
    """A coupon as stated by hand; `metals` are names of the catalogue or groups, `facts` are of the joint."""

    thickness_mm: float
    deposits: tuple[StatedCouponDeposit, ...]
    metals: tuple[MetalGroup, ...] = ()
    pwht: str | None = None
    pwht_temperature_c: Interval | None = None
    facts: Mapping[str, Fact] = field(default_factory=dict)


@dataclass(frozen=True, slots=True)
class Bought:
    """One variable of a what-if: what the coupon would allow of it; `allowance` is `None` where no rule concerns it."""

    id: str
    variable: str
    allowance: Allowance | None
    category: str
    clause: str
    note: str


@dataclass(frozen=True, slots=True)
class WhatIf:
    """The answer: the pack and edition asked, every variable, and what was taken for granted."""

    pack: Pack
    edition: str
    demand: Demand
    variables: tuple[Bought, ...]
    notices: tuple[Notice, ...]
    sources: tuple[Source, ...]


def edition_of(code: str) -> tuple[Pack, str]:
    """Return the pack and edition that `asme-ix` or `asme-ix:2019` names; the newest when none is named.

    Raises
    ------
    UnknownNameError : no such pack, or the pack serves no such edition
    """
    name, _, edition = code.partition(":")
    pack = code_pack(name.strip().lower())
    if edition and edition not in pack.editions:
        raise UnknownNameError(edition, pack.editions, where="code")
    return pack, edition or pack.editions[-1]


def what_if(code: str, coupon: StatedCoupon, demand: Demand) -> WhatIf:
    """Return what a coupon would buy by a code under a demand.

    Raises
    ------
    InputError : deposits exceed the thickness, or a name is unknown (`UnknownNameError`)
    """
    pack, edition = edition_of(code)
    facts, notices = _coupon_facts(coupon, demand)
    missing = {fact: a for fact, a in pack.assumed.items() if not _is_stated(fact, facts)}
    full = Coupon(
        name="what-if",
        joint=facts.joint,
        deposits=facts.deposits,
        assumed={fact: assumption.value for fact, assumption in missing.items()},
        toughness_tested=True if demand.impact else None,
    )
    said = tuple(
        Notice("coupon.assumed", fact, f"{spoken(fact)} is not stated: {assumption.say} is assumed")
        for fact, assumption in missing.items()
        if _is_asked_for(fact, pack, full, demand)
    )
    box = cover_box(pack, full, demand)
    return WhatIf(pack, edition, demand, tuple(_bought(pack, box)), (*notices, *said), _sources(coupon))


@dataclass(frozen=True, slots=True)
class _Facts:
    joint: dict[str, Fact]
    deposits: tuple[dict[str, Fact], ...]


def _is_asked_for(fact: str, pack: Pack, coupon: Coupon, demand: Demand) -> bool:
    """Whether the condition of a rule that otherwise concerns the case asks for a fact."""
    seen = [deposit_facts(coupon, index, demand) for index in range(len(coupon.deposits))]
    for rule in pack.rules:
        if fact in {condition.fact for condition in (*rule.when, *rule.unless)}:
            when, unless = (tuple(c for c in part if c.fact != fact) for part in (rule.when, rule.unless))
            if any(concern(when, unless, facts, demand.units).applies is not False for facts in seen):
                return True
    return False


def _sources(coupon: StatedCoupon) -> tuple[Source, ...]:
    """Return where the groups of metals and fillers come from."""
    metals = [
        Source(f"{metal.name}: P-{metal.p_number or '?'}", metal.source, metal.confidence) for metal in coupon.metals
    ]
    fillers = [catalogue().filler(each.filler) for each in coupon.deposits if each.filler and not _is_without(each)]
    groups = [
        Source(f"{f.classification}: F-{f.f_number}, A-{f.a_number or '?'}", f.source, f.confidence) for f in fillers
    ]
    return tuple(dict.fromkeys((*metals, *groups)))


def _is_without(deposit: StatedCouponDeposit) -> bool:
    return (deposit.filler or "").casefold() == "none"


def _is_stated(fact: str, facts: _Facts) -> bool:
    if fact == "pwht" and "pwht_temperature_c" in facts.joint:
        return True  # stated, though of no known class: not to be taken as welded
    return fact in facts.joint or all(fact in deposit for deposit in facts.deposits)


def _coupon_facts(coupon: StatedCoupon, demand: Demand) -> tuple[_Facts, tuple[Notice, ...]]:
    joint: dict[str, Fact] = {"base_metal_thickness_mm": coupon.thickness_mm, **coupon.facts}
    notices: list[Notice] = []
    if coupon.metals:
        joint |= metal_facts(coupon.metals[0], coupon.metals[-1])
    if coupon.pwht:
        joint["pwht"] = coupon.pwht
    elif coupon.pwht_temperature_c:
        notices += _heat_treatment(joint, coupon.pwht_temperature_c)
    if joint.get("joint_type"):
        joint["coupon_weld"] = "fillet" if joint["joint_type"] == "fillet" else "groove"
    deposits = tuple(_deposit_facts(deposit) for deposit in coupon.deposits)
    notices += [notice for deposit in coupon.deposits for notice in _filler_notices(deposit)]
    if demand.weld == "fillet" and joint.get("coupon_weld") != "fillet":
        text = "a groove coupon sets no thickness limit for fillets; fillets that hold pressure need a groove coupon"
        notices.append(Notice("coupon.fillet_on_groove", "weld", text))
    return _Facts(joint, deposits), tuple(notices)


def _heat_treatment(joint: dict[str, Fact], temperature_c: Interval) -> list[Notice]:
    middle = (temperature_c.low + temperature_c.high) / 2
    joint["pwht_temperature_c"] = Measured(temperature_c.low, middle, temperature_c.high)
    metals = joint.get("p_numbers")
    found = heat_treatment_class(
        temperature_c, metals if isinstance(metals, frozenset) else frozenset(), lower_transformations()
    )
    if found:
        joint["pwht"] = found
        return []
    text = "the class of this heat treatment is not known: state below-ltt, above-utt, between or solution"
    return [Notice("coupon.pwht_class", "pwht", text)]


def _deposit_facts(deposit: StatedCouponDeposit) -> dict[str, Fact]:
    facts: dict[str, Fact] = {"process": deposit.process, **deposit.facts}
    if deposit.process == "SMAW":
        facts["filler_present"] = "with"  # its electrode is its filler
    if _is_without(deposit):
        if deposit.process != "GTAW":
            raise InputError(f"{deposit.process} without filler", where="filler", mend="name the electrode")
        facts["filler_present"] = "without"
    elif deposit.filler:
        facts |= filler_facts(catalogue().filler(deposit.filler), table=a_number_table())
    optional: dict[str, Fact | None] = {
        "deposit_thickness_mm": deposit.thickness_mm,
        "pass_thickness_mm": deposit.max_pass_thickness_mm,
        "f_number": deposit.f_number,
        "a_number": deposit.a_number,
        "shielding_gas": catalogue().gas(deposit.gas).id if deposit.gas else None,
        "heat_input_kj_mm": _heat_input(deposit),
    }
    return facts | {name: fact for name, fact in optional.items() if fact is not None}


def _filler_notices(deposit: StatedCouponDeposit) -> list[Notice]:
    if not deposit.filler or _is_without(deposit):
        return []
    filler = catalogue().filler(deposit.filler)
    if deposit.process in filler.processes:
        return []
    text = f"{filler.classification} is a filler for {', '.join(filler.processes)}, not for {deposit.process}"
    return [Notice("coupon.filler_process", "filler", text)]


def _heat_input(deposit: StatedCouponDeposit) -> Measured | None:
    """Return the stated arc energy, or that of the stated volts, amps and speed."""
    if found := deposit.heat_input_kj_mm:
        return Measured(found.low, (found.low + found.high) / 2, found.high)
    if not (deposit.volts and deposit.amps and deposit.travel_speed_mm_min):
        return None
    speed = deposit.travel_speed_mm_min
    per_second = Interval(speed.low / 60, speed.high / 60)
    rising = {"volts": deposit.volts, "amps": deposit.amps}
    energy = over_range(arc_energy, rising=rising, falling={"speed": per_second})
    low, high = energy.low.energy_kj_mm, energy.high.energy_kj_mm
    return Measured(low, (low + high) / 2, high)


def _bought(pack: Pack, box: CoverBox) -> Iterable[Bought]:
    """Yield every variable that a rule limits, or would limit if impact were demanded or no rule were lifted."""
    for variable, rules in pack.variables.items():
        if variable == "weld":  # answered by the demand itself
            continue
        if pack.scope_of(variable) in SCOPED_BELOW:
            places = [
                (f"{variable}.{label}", own.get(variable), deposit_facts(box.coupon, index, box.demand))
                for index, (label, own) in enumerate(zip(box.labels, box.deposits, strict=True))
            ]
        else:
            met = _met(own.get(variable) for own in box.deposits)
            places = [(variable, met, joint_facts(box.coupon, box.demand))]
        for name, allowance, facts in places:
            if allowance:
                note = "; ".join(filter(None, (allowance.reason, allowance.note)))
                yield Bought(name, variable, allowance, allowance.category, allowance.clause, note)
            elif lifted := next((rule for rule in rules if _is_lifted(rule, facts, box.demand)), None):
                yield Bought(name, variable, None, lifted.category, lifted.clause, _why_lifted(lifted, box.demand))


def _is_lifted(rule: Rule, facts: Facts, demand: Demand) -> bool:
    """Whether a rule would concern the case, but for the demand or the heat treatment."""
    when = tuple(condition for condition in rule.when if condition.fact not in ("impact", "weld"))
    unless = tuple(condition for condition in rule.unless if condition.fact not in ("weld", "pwht"))
    return concern(when, unless, facts, demand.units).applies is not False


def _why_lifted(rule: Rule, demand: Demand) -> str:
    if rule.category == "supplementary" and not demand.impact:
        return "limits only where impact is demanded"
    return f"lifted for {'a fillet' if demand.weld == 'fillet' else 'this case'}"


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
