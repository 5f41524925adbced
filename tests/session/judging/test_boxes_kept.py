"""Boxes are kept per record revision and demand; only accepted records have one."""

from anlage.core.codes import Demand
from anlage.session.judging.boxes import BoxKeeper, Record
from tests.builders import coupon, wps

RECORD = Record("PQR-1@1", coupon(20, name="PQR-1"))


def test_a_box_is_built_once_per_revision_and_demand(asme):
    keeper = BoxKeeper(asme)
    assert keeper.box(RECORD, Demand()) is keeper.box(RECORD, Demand())
    assert keeper.box(RECORD, Demand(impact=True)) is not keeper.box(RECORD, Demand())
    assert keeper.box(Record("PQR-1@2", RECORD.coupon), Demand()) is not keeper.box(RECORD, Demand())


def test_a_record_not_accepted_supports_nothing(asme):
    keeper = BoxKeeper(asme)
    stated = wps(RECORD.coupon, 20)
    assert keeper.judge(stated, [RECORD], Demand()).verdict == "inside"
    rejected = Record("PQR-1@1", RECORD.coupon, accepted=False)
    assert keeper.judge(stated, [rejected], Demand()).verdict == "unproven"
