"""What a coupon takes from its procedure under codes that ask for more: what is planned, nothing measured."""

from anlage.session.works.templates import copied, coupon_of
from tests.frames import frame, record
from tests.girths import girth, girth_record


def test_what_is_planned_goes_along():
    (own,) = coupon_of(frame()).deposits
    assert (own.output, own.electrodes, own.shielding_gas) == ("constant-voltage", "single", "Ar-25CO2")
    assert (own.gas_flow_l_min, own.wire_speed_mm_min, own.current_a) == (None, None, None)


def test_how_long_it_was_between_beads_is_measured_on_the_coupon():
    assert girth().technique.root_to_second_min == 5.0
    assert coupon_of(girth()).technique.root_to_second_min is None
    assert copied(girth_record()).technique.root_to_second_min is None


def test_a_copy_of_a_record_has_nothing_that_was_read_and_all_that_was_declared():
    (own,) = copied(girth_record()).deposits
    assert (own.travel_speed_mm_min, own.current_a) == (None, None)
    assert own.travel_range_mm_min is not None
    (own,) = copied(record(deposit={"gas_flow_l_min": 18.0})).deposits
    assert own.gas_flow_l_min is None
