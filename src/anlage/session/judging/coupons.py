"""Coupons stated by hand or taken from a record: their facts, with all that follows from names and numbers."""

from collections.abc import Iterable, Mapping
from pkgutil import resolve_name
from types import MappingProxyType

from msgspec import Struct, field

from anlage.core.catalogue import MetalGroup
from anlage.core.codes import Demand, Measured
from anlage.core.codes.conditions import tokens_of
from anlage.core.codes.derive import Derivations
from anlage.core.codes.facts import Fact
from anlage.core.codes.listed_metals import Sides
from anlage.core.errors import InputError
from anlage.core.heat import arc_energy, over_range
from anlage.core.quantities.units import System
from anlage.core.ranges import Interval
from anlage.core.results import Notice
from anlage.core.variables import spoken
from anlage.data.tables import catalogue, processes
from anlage.session.leaves.gases import co2_percent, gas_symbol
from anlage.session.leaves.iso_numbers import iso_number

HEAT = "heat_input_kj_mm"
IMPACT, HARDNESS = "impact", "hardness"


class OfKind(Struct, frozen=True):
    """The facts that say of a kind of test where the piece was welded that it was cut from, and how hot."""

    position: str
    heat: str


OF_KIND: Mapping[str, OfKind] = MappingProxyType({
    IMPACT: OfKind("impact_position", "impact_heat_kj_mm"),
    HARDNESS: OfKind("hardness_position", "hardness_heat_kj_mm"),
})  # fmt: skip
HEATS = (HEAT, *(each.heat for each in OF_KIND.values()))
POSITIONS = ("position", *(each.position for each in OF_KIND.values()))
MAKES = ("flux", "filler_make")  # trade names: case and blanks do not count


class StatedCouponDeposit(Struct, frozen=True, kw_only=True):
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
    analysis: Mapping[str, float] = field(default_factory=dict)  # of the deposit [% by mass]
    facts: Mapping[str, Fact] = field(default_factory=dict)


class StatedCoupon(Struct, frozen=True, kw_only=True):
    """A coupon as stated by hand; `metals` are names of the catalogue or groups, `facts` are of the joint.

    `is_alone` says that all tests are of the one piece that it describes.
    """

    thickness_mm: float | None
    deposits: tuple[StatedCouponDeposit, ...]
    other_thickness_mm: float | None = None
    metals: tuple[MetalGroup, ...] = ()
    pwht: str | None = None
    pwht_temperature_c: Interval | None = None
    is_alone: bool = True
    facts: Mapping[str, Fact] = field(default_factory=dict)


class CouponFacts(Struct, frozen=True):
    """What a coupon says: facts of the joint, and of each deposit in order."""

    joint: dict[str, Fact]
    deposits: tuple[dict[str, Fact], ...]


def coupon_facts(coupon: StatedCoupon, demand: Demand, derive: Derivations) -> tuple[CouponFacts, tuple[Notice, ...]]:
    """Return the facts of a coupon with what follows by a pack, and what is to be minded about them.

    Raises
    ------
    InputError : a deposit cannot be without filler, or a name is unknown (`UnknownNameError`)
    """
    joint: dict[str, Fact] = dict(coupon.facts)
    if coupon.thickness_mm is not None:
        joint["base_metal_thickness_mm"] = coupon.thickness_mm
    notices: list[Notice] = []
    _put_positions_in_words(joint, derive)
    if coupon.metals:
        joint |= _metal_facts(coupon, derive, demand.units)
    joint |= derive.class_facts(joint, demand.units)
    if coupon.pwht_temperature_c:
        notices += _heat_treatment(joint, coupon, derive)
    if coupon.pwht:
        joint["pwht"] = coupon.pwht
    if kind := joint.get("joint_type"):
        form = _form_of(str(kind))
        joint |= {name: form for name in ("groove_form", "groove_type") if form and name not in joint}
        joint.setdefault("coupon_weld", "fillet" if joint["joint_type"] == "fillet" else "groove")
    deposits = tuple(_deposit_facts(deposit, derive) for deposit in coupon.deposits)
    if coupon.is_alone:
        _with_one_piece(joint, deposits)
    for stated, facts in zip(coupon.deposits, deposits, strict=True):
        notices += _clashes(stated, facts, derive)
    notices += [notice for deposit in coupon.deposits for notice in _filler_notices(deposit)]
    if demand.asked.get("weld") == "fillet" and joint.get("coupon_weld") != "fillet":
        text = "a groove coupon sets no thickness limit for fillets; fillets that hold pressure need a groove coupon"
        notices.append(Notice("coupon.fillet_on_groove", "weld", text))
    return CouponFacts(joint, deposits), tuple(notices)


def _with_one_piece(joint: dict[str, Fact], deposits: Iterable[dict[str, Fact]]) -> None:
    """State of every test what the one piece says that all were cut from."""
    joint["pieces_apart"] = "no"
    for names in OF_KIND.values():
        if "position" in joint:
            joint[names.position] = joint["position"]
        for facts in deposits:
            if HEAT in facts:
                facts[names.heat] = facts[HEAT]
    for facts in deposits:
        if "filler_make" in facts:
            facts["shown_makes"] = facts["filler_make"]


def make_words(name: str | None) -> str | None:
    """Return a trade name as it is compared: case and blanks do not count."""
    return " ".join((name or "").casefold().split()) or None


def _form_of(kind: str) -> str:
    """Return how the edges of a preparation are cut, "" where it is none; its kinds are loaded by who asks for them."""
    make = resolve_name("anlage.core.joint.kinds:MAKES").get(kind)
    return str(make.form) if make else ""


def _put_positions_in_words(joint: dict[str, Fact], derive: Derivations) -> None:
    """Say positions in the words that a code has for them; what it has no word for is not recorded."""
    way = joint.get("progression")
    ways = tokens_of(way) if isinstance(way, str | frozenset) else frozenset[str]()
    for name in POSITIONS if "position" in derive.words else ():
        position = joint.pop(name, None)
        if position and (told := derive.in_words_of_the_code("position", tokens_of(position), ways)):
            joint[name] = told


def _metal_facts(coupon: StatedCoupon, derive: Derivations, units: System) -> dict[str, Fact]:
    """Return the facts of the metals of a coupon, without what its thickness would have to tell and does not."""
    spans = [
        None if each is None else Interval.single(each)
        for each in (coupon.thickness_mm, coupon.other_thickness_mm or coupon.thickness_mm)
    ]
    facts = derive.metal_facts(coupon.metals[0], coupon.metals[-1], Sides(spans[0], spans[1], units))
    known = [metal.yield_mpa for metal in coupon.metals if metal.yield_mpa is not None]
    if len(known) == len(coupon.metals) and "highest_yield_mpa" not in coupon.facts:
        facts["highest_yield_mpa"] = max(known)
    open_pairs = {row.variable for row in derive.rows if row.form == "pair" and row.listed}
    return {name: each for name, each in facts.items() if not (name in open_pairs and isinstance(each, frozenset))}


def _heat_treatment(joint: dict[str, Fact], coupon: StatedCoupon, derive: Derivations) -> list[Notice]:
    rule, temperature_c = derive.heat_treatment, coupon.pwht_temperature_c
    if temperature_c is None:
        return []
    middle = (temperature_c.low + temperature_c.high) / 2
    joint[rule.temperature if rule else "pwht_temperature_c"] = Measured(temperature_c.low, middle, temperature_c.high)
    if rule is None:
        return []
    metals = joint.get(rule.metals)
    found = derive.heat_treatment_class(temperature_c, metals if isinstance(metals, frozenset) else frozenset())
    if found:
        joint[rule.fact] = found
    if found or coupon.pwht:
        return []
    text = "the class of this heat treatment is not known: state below-ltt, above-utt, between or solution"
    return [Notice("coupon.pwht_class", rule.fact, text)]


def _deposit_facts(deposit: StatedCouponDeposit, derive: Derivations) -> dict[str, Fact]:
    facts: dict[str, Fact] = {"process": deposit.process, **deposit.facts}
    process = processes().get(deposit.process)
    if process is not None and process.electrode == "stick":
        facts["filler_present"] = "with"  # its electrode is its filler
    if is_without(deposit):
        if process is None or not process.without_filler:
            raise InputError(f"{deposit.process} without filler", where="filler", mend="name the electrode")
        facts["filler_present"] = "without"
    elif deposit.filler:
        facts |= _filler_facts(deposit, derive)
    optional: dict[str, Fact | None] = {
        "deposit_thickness_mm": deposit.thickness_mm,
        "pass_thickness_mm": deposit.max_pass_thickness_mm,
        "f_number": deposit.f_number,
        "a_number": deposit.a_number,
        **(_gas_facts(deposit.gas) if deposit.gas else {}),
        HEAT: _heat_input(deposit),
    }
    number = iso_number(deposit.process, deposit.filler, deposit.gas)
    facts |= {"iso_4063": number} if number and "iso_4063" not in facts else {}
    return facts | {name: fact for name, fact in optional.items() if fact is not None}


def _gas_facts(name: str) -> dict[str, Fact | None]:
    own = catalogue().gas(name).id
    return {"shielding_gas": own, "gas_symbol": gas_symbol(own), "co2_pct": co2_percent(own)}


def _clashes(deposit: StatedCouponDeposit, facts: dict[str, Fact], derive: Derivations) -> list[Notice]:
    """Take out the numbers of a filler that are stated against its classification, and say so."""
    if not deposit.filler or is_without(deposit):
        return []
    known, found = _filler_facts(deposit, derive), []
    for name, stated in (("f_number", deposit.f_number), ("a_number", deposit.a_number)):
        own = known.get(name)
        if stated and own and stated != own:
            del facts[name]
            text = f"{deposit.filler} has {spoken(name)} {own}, but {stated} is stated: neither counts"
            found.append(Notice("coupon.clash", name, text))
    return found


def _filler_facts(deposit: StatedCouponDeposit, derive: Derivations) -> dict[str, Fact]:
    return derive.filler_facts(catalogue().filler(deposit.filler or ""), deposit=deposit.analysis or None)


def _filler_notices(deposit: StatedCouponDeposit) -> list[Notice]:
    if not deposit.filler or is_without(deposit):
        return []
    filler = catalogue().filler(deposit.filler)
    if deposit.process in filler.processes:
        return []
    text = f"{filler.classification} is a filler for {', '.join(filler.processes)}, not for {deposit.process}"
    return [Notice("coupon.filler_process", "filler", text)]


def _heat_input(deposit: StatedCouponDeposit) -> Measured | None:
    """Return the stated arc energy, or that of the stated volts, amps and speed; of ranges only the mean is sure."""
    if found := deposit.heat_input_kj_mm:
        return Measured(found.low, (found.low + found.high) / 2, found.high)
    if not (deposit.volts and deposit.amps and deposit.travel_speed_mm_min):
        return None
    speed = deposit.travel_speed_mm_min
    per_second = Interval(speed.low / 60, speed.high / 60)
    rising = {"volts": deposit.volts, "amps": deposit.amps}
    energy = over_range(arc_energy, rising=rising, falling={"speed": per_second})
    low, high = energy.low.energy_kj_mm, energy.high.energy_kj_mm
    mean = arc_energy(_middle(deposit.volts), _middle(deposit.amps), _middle(per_second))
    return Measured(low, mean, high, sure=None if low == high else mean)


def _middle(span: Interval) -> float:
    return (span.low + span.high) / 2


def is_without(deposit: StatedCouponDeposit) -> bool:
    """Return whether a deposit was laid without filler metal."""
    return (deposit.filler or "").casefold() == "none"
