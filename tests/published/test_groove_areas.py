"""Groove areas against closed forms of plane geometry (H) and against shapely, which integrates the polygon."""

import math

import pytest
import shapely
from hypothesis import given
from hypothesis import strategies as st

from anlage.core.joint import Preparation, area_and_centroid, joint_metal

lengths = st.floats(0.5, 60)


@st.composite
def v_joints(draw):
    thickness = draw(lengths)
    return Preparation(
        kind=draw(st.sampled_from(("single-v", "v-backing"))),
        thickness_mm=thickness,
        root_opening_mm=draw(st.floats(0, 12)),
        root_face_mm=draw(st.floats(0, 0.95)) * thickness,
        groove_angle_deg=draw(st.floats(5, 150)),
        reinforcement_mm=draw(st.floats(0, 4)),
        od_mm=draw(st.floats(2.5, 40)) * thickness,
    )


@given(v_joints())
def test_a_single_v_is_a_rectangle_and_two_triangles(joint):
    depth = joint.thickness_mm - joint.root_face_mm
    closed = joint.root_opening_mm * joint.thickness_mm + depth**2 * math.tan(math.radians(joint.groove_angle_deg / 2))
    assert joint_metal(joint).groove_area_mm2 == pytest.approx(closed, rel=1e-9)


@given(v_joints())
def test_area_and_centroid_agree_with_shapely(joint):
    polygon = shapely.Polygon(joint.groove_outline)
    area, height = area_and_centroid(joint.groove_outline)
    assert polygon.is_valid
    assert area == pytest.approx(polygon.area, rel=1e-9)
    assert height == pytest.approx(polygon.centroid.y, rel=1e-6)


@given(v_joints())
def test_a_ring_agrees_with_its_slices_summed(joint):
    # Independent of Pappus: radius times width, integrated over the height by Simpson's rule, exact for a cubic.
    def width(y):
        return joint.root_opening_mm + 2 * max(0.0, y - joint.root_face_mm) * math.tan(
            math.radians(joint.groove_angle_deg / 2)
        )

    def slice_mm2(y):
        return 2 * math.pi * (joint.od_mm / 2 - joint.thickness_mm + y) * width(y)

    def simpson(low, high):
        return (high - low) / 6 * (slice_mm2(low) + 4 * slice_mm2((low + high) / 2) + slice_mm2(high))

    volume = simpson(0, joint.root_face_mm) + simpson(joint.root_face_mm, joint.thickness_mm)
    bare = joint_metal(joint).weld_metal_kg - ring_of_cap_kg(joint)
    assert bare == pytest.approx(volume * 7.85e-6, rel=1e-6)


def ring_of_cap_kg(joint):
    """A parabolic cap turned round the pipe, its radius integrated by hand: area times (R + 2/5 h)."""
    cap = 2 / 3 * joint.face_width_mm * joint.reinforcement_mm
    return 2 * math.pi * cap * (joint.od_mm / 2 + 0.4 * joint.reinforcement_mm) * 7.85e-6


def test_a_shop_joint_of_common_practice():
    """75° V, 1/8 in opening, 1/32 in root face, 0.406 in wall: 102 mm², cap 21 mm wide (common practice, no source)."""
    joint = Preparation(
        kind="single-v",
        thickness_mm=0.406 * 25.4,
        root_opening_mm=3.175,
        root_face_mm=0.79375,
        groove_angle_deg=75,
    )
    assert joint_metal(joint).groove_area_mm2 == pytest.approx(102, abs=0.6)
    assert joint.face_width_mm + 2 * 25.4 / 16 == pytest.approx(21, abs=0.7)  # melts 1/16 in over each edge


def test_a_square_joint_is_a_rectangle():
    metal = joint_metal(Preparation(kind="square", thickness_mm=4, root_opening_mm=2, reinforcement_mm=1.5))
    assert (metal.groove_area_mm2, metal.face_width_mm, metal.reinforcement_area_mm2) == (8, 2, 2)
    assert metal.weld_metal_kg_m == pytest.approx(0.0785)
    assert (metal.circumference_mm, metal.weld_metal_kg) == (None, None)
