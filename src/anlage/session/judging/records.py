"""From a record as a document to the coupon that rules are asked about."""

from collections.abc import Mapping

from anlage.core.catalogue import MetalGroup
from anlage.core.codes import Coupon, Measured
from anlage.core.codes.facts import Demand, Fact
from anlage.core.document import Dimension
from anlage.core.errors import UnknownNameError
from anlage.core.heat import arc_energy
from anlage.core.procedure import Joint, Metal, Metals
from anlage.core.record import Pqr, Recorded, RecordedDeposit
from anlage.data.tables import catalogue
from anlage.session.judging.coupons import StatedCoupon, StatedCouponDeposit, coupon_facts


def coupon_of(pqr: Pqr) -> Coupon:
    """Return the coupon of a record: every recorded fact, and those that follow from names and numbers.

    A metal or filler that the catalogue does not know leaves its facts not recorded.

    Raises
    ------
    InputError : the deposits exceed the coupon's thickness
    """
    joint = pqr.joint
    stated = StatedCoupon(
        thickness_mm=joint.thickness_mm,
        deposits=tuple(_deposit(each) for each in pqr.deposits),
        metals=metals_of(pqr.metals),
        pwht=pqr.pwht.kind,
        pwht_temperature_c=pqr.pwht.temperature_c,
        facts=_joint_facts(pqr),
    )
    found, _ = coupon_facts(stated, Demand())
    own = dict(found.joint)
    deposits = tuple({**facts, **_measured(each)} for facts, each in zip(found.deposits, pqr.deposits, strict=True))
    if any("heat_input_kj_mm" in facts for facts in deposits):
        own["heat_input_measure"] = "energy"
    name = pqr.header.number or "record"
    return Coupon(name=name, joint=own, deposits=deposits, toughness_tested=pqr.toughness_tested)


def metals_of(metals: Metals) -> tuple[MetalGroup, ...]:
    """Return the groups of both sides of a joint; none when one of them is not stated or not known."""
    found = [group_of(each) for each in (metals.one, metals.other or metals.one)]
    return tuple(each for each in found if each is not None) if None not in found else ()


def group_of(metal: Metal) -> MetalGroup | None:
    """Return the group of a metal: as stated, or by its name; `None` when neither is known."""
    if metal.p_number:
        return MetalGroup(f"P-{metal.p_number}", metal.p_number, metal.group_number or "", "H", "as stated")
    if not metal.name:
        return None
    try:
        return catalogue().metal_group(metal.name)
    except UnknownNameError:
        return None


def is_known_filler(name: str | None) -> bool:
    """Return whether the catalogue has a filler, or the weld is said to be without."""
    if not name:
        return False
    try:
        return name.casefold() == "none" or bool(catalogue().filler(name))
    except UnknownNameError:
        return False


def backing_of(joint: Joint) -> str | None:
    """Return whether a joint has backing, `yes` or `no`, by its preparation or as stated."""
    if joint.kind and joint.kind.endswith("backing"):
        return "yes"
    if joint.backing:
        return "no" if joint.backing.casefold() in ("none", "no") else "yes"
    return "no" if joint.kind else None


def _joint_facts(pqr: Pqr) -> dict[str, Fact]:
    technique, joint = pqr.technique, pqr.joint
    opening = joint.root_opening_mm
    facts: dict[str, Fact | None] = {
        "diameter_mm": joint.od_mm if joint.product == "pipe" else None,
        "root_opening_mm": opening.nominal if isinstance(opening, Dimension) else None,
        "joint_type": joint.kind,
        "coupon_weld": "fillet" if pqr.header.weld == "fillet" else "groove",
        "backing": backing_of(joint),
        "preheat_c": pqr.preheat_least_c,
        "interpass_c": pqr.interpass_most_c,
        "pwht_time_h": None if pqr.pwht.time_h is None else pqr.pwht.time_h.high,
        **{name: getattr(technique, name) for name in ("position", "progression", "runs", "bead_technique")},
        **{name: getattr(technique, name) for name in ("peening", "back_gouging", "thermal_preparation")},
    }
    return {name: fact for name, fact in facts.items() if fact is not None}


PLAIN = (
    "filler_diameter_mm", "current_type", "transfer_mode", "backing_gas", "trailing_gas", "operation",
    "closed_chamber", "electrodes",
)  # fmt: skip


def _deposit(deposit: RecordedDeposit) -> StatedCouponDeposit:
    facts = {name: value for name in PLAIN if (value := getattr(deposit, name)) is not None}
    gas = deposit.shielding_gas
    known_gas = gas if gas and gas.casefold() != "none" and _is_known_gas(gas) else None
    return StatedCouponDeposit(
        process=deposit.process or "",
        thickness_mm=deposit.thickness_mm,
        max_pass_thickness_mm=deposit.max_pass_thickness_mm,
        filler=deposit.filler if is_known_filler(deposit.filler) else None,
        gas=known_gas,
        facts=facts,
    )


def _is_known_gas(name: str) -> bool:
    try:
        return bool(catalogue().gas(name))
    except UnknownNameError:
        return False


def _measured(deposit: RecordedDeposit) -> Mapping[str, Fact]:
    """Return the recorded arc energy: as recorded so, or from the recorded volts, amps and speeds."""
    if deposit.heat_input_kj_mm is not None:
        return (
            {"heat_input_kj_mm": _as_fact(deposit.heat_input_kj_mm)} if deposit.heat_input_basis == "arc_energy" else {}
        )
    volts, amps, speed = deposit.voltage_v, deposit.current_a, deposit.travel_speed_mm_min
    if volts is None or amps is None or speed is None:
        return {}
    least = arc_energy(volts.least, amps.least, speed.most / 60)
    mean = arc_energy(volts.mean, amps.mean, speed.mean / 60)
    most = arc_energy(volts.most, amps.most, speed.least / 60)
    return {"heat_input_kj_mm": Measured(least, mean, most)}


def _as_fact(recorded: Recorded) -> Measured:
    return Measured(recorded.least, recorded.mean, recorded.most)
