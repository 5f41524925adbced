"""What is impossible in a joint is said field by field; travel speed comes from marks or clock positions."""

import math

import pytest

from anlage.core.errors import InputError
from anlage.core.heat import clock_arc, clock_position, run_out, travel_speed_range
from anlage.core.joint import Preparation, faults, joint_metal
from anlage.core.ranges import Interval
from anlage.data.tables import run_out_factors

V = {"kind": "single-v", "thickness_mm": 10.0, "root_opening_mm": 3.0, "root_face_mm": 1.0, "groove_angle_deg": 60.0}


@pytest.mark.parametrize(
    ("changed", "fields"),
    [
        ({}, []),
        ({"root_face_mm": 10.0}, ["root_face"]),
        ({"groove_angle_deg": 0.0}, ["angle"]),
        ({"groove_angle_deg": 180.0}, ["angle"]),
        ({"groove_angle_deg": math.nan}, ["angle"]),
        ({"thickness_mm": -10.0, "root_opening_mm": math.inf}, ["thickness", "root_opening"]),
        ({"thickness_mm": 0.0}, ["thickness"]),
        ({"reinforcement_mm": -1.0, "root_face_mm": math.nan}, ["root_face", "reinforcement"]),
        ({"od_mm": 20.0}, ["od"]),
        ({"od_mm": math.nan}, ["od"]),
        ({"kind": "square", "groove_angle_deg": 0.0, "root_face_mm": 0.0}, []),
    ],
)
def test_every_fault_of_a_joint_is_told_in_the_order_of_its_fields(changed, fields):
    assert [fault.where for fault in faults(Preparation(**{**V, **changed}))] == fields


def test_an_impossible_joint_has_no_metal_but_a_reason():
    with pytest.raises(InputError, match=r"root_face: 12 mm is not less than the thickness of 10 mm; state a thinner"):
        joint_metal(Preparation(**{**V, "root_face_mm": 12.0}))


def test_a_closed_root_has_no_area_between_its_faces():
    closed = Preparation(**{**V, "root_opening_mm": 0.0})
    assert joint_metal(closed).groove_area_mm2 == pytest.approx(81 * math.tan(math.radians(30)))
    assert joint_metal(Preparation(kind="square", thickness_mm=3, root_opening_mm=0)).groove_area_mm2 == 0


def test_a_filler_of_other_density_weighs_other():
    light = joint_metal(Preparation(**V), density_g_cm3=2.7)
    assert light.weld_metal_kg_m == pytest.approx(joint_metal(Preparation(**V)).weld_metal_kg_m * 2.7 / 7.85)


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
