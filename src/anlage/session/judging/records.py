"""From a record as a document to the coupon that rules are asked about."""

from anlage.core.catalogue import MetalGroup
from anlage.core.codes import Coupon, Pack
from anlage.core.codes.facts import Demand
from anlage.core.errors import UnknownNameError
from anlage.core.procedure import Metal, Metals
from anlage.core.record import Pqr, RecordedDeposit
from anlage.data.tables import catalogue
from anlage.session.judging.coupons import StatedCoupon, StatedCouponDeposit, coupon_facts
from anlage.session.judging.mapper import facts_of


def coupon_of(pqr: Pqr, pack: Pack) -> Coupon:
    """Return the coupon of a record as a pack sees it: every recorded fact, and those that follow by the pack.

    A metal or filler that the catalogue does not know leaves its facts not recorded.

    Raises
    ------
    InputError : the deposits exceed the coupon's thickness
    """
    stated = StatedCoupon(
        thickness_mm=pqr.joint.thickness_mm,
        deposits=tuple(_deposit(pqr, each) for each in pqr.deposits),
        metals=metals_of(pqr.metals),
        pwht=pqr.pwht.kind,
        pwht_temperature_c=pqr.pwht.temperature_c,
        facts=facts_of(pqr, "joint"),
    )
    found, _ = coupon_facts(stated, Demand(), pack.derive)
    name = pqr.header.number or "record"
    return Coupon(name=name, joint=found.joint, deposits=found.deposits, toughness_tested=pqr.toughness_tested)


def _deposit(pqr: Pqr, deposit: RecordedDeposit) -> StatedCouponDeposit:
    return StatedCouponDeposit(
        process=deposit.process or "",
        filler=deposit.filler if is_known_filler(deposit.filler) else None,
        facts=facts_of(pqr, "deposit", deposit),
    )


def metals_of(metals: Metals) -> tuple[MetalGroup, ...]:
    """Return the groups of both sides of a joint; none when one of them is not stated or not known."""
    found = [group_of(each) for each in (metals.one, metals.other or metals.one)]
    return tuple(each for each in found if each is not None) if None not in found else ()


def group_of(metal: Metal) -> MetalGroup | None:
    """Return the group of a metal: as stated, or by its name; `None` when neither is known."""
    if metal.p_number:
        return MetalGroup(
            f"P-{metal.p_number}",
            {"p_number": metal.p_number, "group_number": metal.group_number or ""},
            "H",
            "as stated",
        )
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


def is_without(name: str | None) -> bool:
    """Return whether a weld is said to be without filler metal."""
    return (name or "").casefold() == "none"
