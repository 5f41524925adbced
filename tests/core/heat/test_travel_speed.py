"""Travel speed comes from marks or clock positions; a run-out length stands for heat input within its table."""

import math

import pytest

from anlage.core.errors import InputError
from anlage.core.heat import clock_arc, clock_position, run_out, travel_speed_range
from anlage.core.ranges import Interval
from anlage.data.tables import run_out_factors


@pytest.mark.parametrize(("text", "hours"), [("12", 12), ("4:30", 4.5), (" 6 o'clock ", 6), ("7.25", 7.25), ("3h", 3)])
def test_a_clock_position_is_read(text, hours):
    assert clock_position(text) == hours


@pytest.mark.parametrize("text", ["0", "13", "12:30", "4:70", "noon", "", "-3", "9" * 99])
def test_what_is_no_clock_position_is_refused(text):
    with pytest.raises(InputError, match=r"from_clock: .*no clock position; write 1 to 12, or 4:30"):
        clock_position(text, where="from_clock")


@pytest.mark.parametrize(
    ("start", "end", "hours"), [(6, 12, 6), (12, 6, 6), (6, 3, 3), (12, 3, 3), (11, 1, 2), (1.5, 12, 1.5)]
)
def test_a_pass_goes_the_shorter_way_round(start, end, hours):
    arc = clock_arc(120.0, start, end)  # length = π · OD · hours / 12: geometry
    assert (arc.hours, arc.length_mm) == (hours, pytest.approx(math.pi * 120 * hours / 12))


def test_one_place_is_no_way():
    with pytest.raises(InputError, match="from_clock and to_clock are the same place"):
        clock_arc(120.0, 12, 12)


def test_the_fastest_travel_is_the_longest_length_in_the_shortest_time():
    assert travel_speed_range(Interval(180, 190), Interval(36, 38)) == Interval(180 / 38 * 60, 190 / 36 * 60)


@pytest.mark.parametrize("efficiency", [1.05, 0.0, 400.0, math.nan])
def test_a_recovery_that_is_no_percentage_is_refused(efficiency):
    with pytest.raises(InputError, match="electrode_efficiency"):
        run_out(4, consumed_length_mm=400, bead_length_mm=200, electrode_efficiency_percent=efficiency,
                factors=run_out_factors())  # fmt: skip


def test_a_recovery_below_the_table_is_given_with_a_notice():
    found = run_out(
        4, consumed_length_mm=400, bead_length_mm=200, electrode_efficiency_percent=80, factors=run_out_factors()
    )
    assert found.heat_input_kj_mm > 0
    assert [notice.code for notice in found.notices] == ["run_out.efficiency_below_table"]
