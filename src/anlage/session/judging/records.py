"""From a record as a document to the coupon that rules are asked about."""

from collections.abc import Mapping

from anlage.core.codes import Coupon, Pack
from anlage.core.codes.facts import Demand, Fact
from anlage.core.record import Pqr, RecordedDeposit
from anlage.session.judging.clashes.all_clashes import clashes_of, sentences
from anlage.session.judging.coupons import StatedCoupon, StatedCouponDeposit, coupon_facts
from anlage.session.judging.heat_basis import with_recorded_heat
from anlage.session.judging.mapper import facts_of
from anlage.session.judging.metals import is_known_filler, metals_of
from anlage.session.judging.pieces import as_read_by, of_a_deposit, of_the_joint
from anlage.session.judging.results import passed_of, toughness_tested


def coupon_of(pqr: Pqr, pack: Pack) -> Coupon:
    """Return the coupon of a record as a pack sees it: every recorded fact, and those that follow by the pack.

    A metal or filler that the catalogue does not know leaves its facts not recorded.

    Raises
    ------
    InputError : the deposits exceed the coupon's thickness
    """
    pqr = as_read_by(pqr, pack)
    own_facts = [with_recorded_heat(facts_of(pqr, "deposit", each), each, pack) for each in pqr.deposits]
    if pqr.pieces:
        joint_of_pieces = of_the_joint(pqr, own_facts, pack)
        own_facts = [
            facts | of_a_deposit(pqr, each, facts, pack) for each, facts in zip(pqr.deposits, own_facts, strict=True)
        ]
    stated = StatedCoupon(
        thickness_mm=pqr.joint.thickness_mm,
        other_thickness_mm=pqr.joint.other_thickness_mm,
        deposits=tuple(_deposit(each, facts) for each, facts in zip(pqr.deposits, own_facts, strict=True)),
        metals=metals_of(pqr.metals),
        pwht=pqr.pwht.kind,
        pwht_temperature_c=pqr.pwht.temperature_c,
        is_alone=not pqr.pieces,
        facts=facts_of(pqr, "joint") | (joint_of_pieces if pqr.pieces else {}),
    )
    found, _ = coupon_facts(stated, Demand(units=pqr.header.units), pack.derive)
    clashes = clashes_of(pqr, pack.derive)
    joint, own = sentences(clashes), [sentences(clashes, each.id) for each in pqr.deposits]
    return Coupon(
        name=pqr.header.number or "record",
        joint=_without(found.joint, joint),
        deposits=tuple(_without(facts, {**joint, **told}) for facts, told in zip(found.deposits, own, strict=True)),
        toughness_tested=toughness_tested(pqr),
        hardness_tested=bool(passed_of(pqr)["hardness"]),
        clashes=joint,
        deposit_clashes=tuple(own),
    )


def _without(facts: Mapping[str, Fact], clashes: Mapping[str, str]) -> dict[str, Fact]:
    """Return the facts without those of which the record says two things."""
    return {name: fact for name, fact in facts.items() if name not in clashes}


def _deposit(deposit: RecordedDeposit, facts: Mapping[str, Fact]) -> StatedCouponDeposit:
    return StatedCouponDeposit(
        process=deposit.process or "",
        filler=deposit.filler if is_known_filler(deposit.filler) else None,
        analysis=deposit.deposit_analysis_percent,
        facts=facts,
    )
