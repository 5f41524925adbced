"""Toughness by AWS D1.1: shown by the specimens of a test, never by a record without them.

Source: AWS D1.1:2020 6.1.1, Table 6.6 and 6.14 (4.1.1, 4.6 and 4.14 in 2015), from memory, H.
"""

import pytest

from tests.frames import PASSED, frame, judged, record

AS_WELDED = {"current_a": {"mean": 225.0}, "voltage_v": {"mean": 26.0}, "travel_speed_mm_min": {"mean": 320.0}}
TOUGH = frame(
    header__impact=True, range__thickness_mm=(16.0, 20.0), preheat__interpass_maximum_c=180.0,
    preheat__minimum_c=25.0, deposit={"filler_make": "wire 7"},
    settings={"current_a": (215, 222), "voltage_v": (25.2, 25.9), "travel_speed_mm_min": (330, 350)},
)  # fmt: skip


def coupon(said, *more):
    own = {"filler_make": "wire 7", **AS_WELDED}
    return record(deposit=own, results=(*PASSED, *more), toughness_tested=said)


def test_impact_is_inside_with_its_specimens_alone():
    found = judged(TOUGH, coupon(None, ("impact", 1)))
    assert found.verdict == "inside", [(each.variable, each.reason) for each in found.rungs if each.verdict != "inside"]


@pytest.mark.parametrize(("said", "verdict"), [(None, "unproven"), (False, "outside"), (True, "unproven")])
def test_a_record_without_them_carries_nothing_where_toughness_is_asked(said, verdict):
    found = judged(TOUGH, coupon(said))
    assert found.verdict == verdict
    assert found.supports == ((),)
