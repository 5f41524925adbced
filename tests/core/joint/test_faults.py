"""What is impossible in a joint is said field by field."""

import math

import pytest

from anlage.core.errors import InputError
from anlage.core.joint import Preparation, faults, joint_metal

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
