"""Areas of every preparation against closed forms of plane geometry (H) and against slices summed by hand."""

import math

import pytest
import shapely
from hypothesis import given, settings
from hypothesis import strategies as st
from msgspec.structs import replace

from anlage.core.joint import (
    KINDS,
    MAKES,
    Preparation,
    area_and_centroid,
    dihedral_deg,
    joint_metal,
    saddle,
    shape_of,
    throat_mm,
)
from tests.strategies import preparations


def one_wall(p, depth, angle_deg):
    """Area between one cut wall and the upright through its root: triangle, arc and trapezoid, or two triangles."""
    tangent = math.tan(math.radians(angle_deg))
    match p.make.form:
        case "square":
            return 0.0
        case "u" | "j":
            r, turn = p.radius_mm, math.radians(90 - angle_deg)
            rest = depth - r * (1 - math.cos(turn))
            arc = r**2 * (turn / 2 - math.sin(2 * turn) / 4)  # the integral of r·sin t over the height r·(1 − cos t)
            return arc + rest * r * math.sin(turn) + rest**2 * tangent / 2
        case "compound-v":
            b, upper = p.break_height_mm, math.tan(math.radians(p.upper_angle_deg / 2))
            return b**2 * tangent / 2 + (depth - b) * b * tangent + (depth - b) ** 2 * upper / 2
        case _:
            return depth**2 * tangent / 2


def closed_form(p):
    """The groove area of a preparation by the formulas of a school book."""
    make = p.make
    if make.form in ("plug", "slot"):
        return p.hole_mm * (p.thickness_mm if p.fill_depth_mm is None else p.fill_depth_mm)
    if make.form == "cladding":
        return p.width_mm * p.layer_mm
    if make.family == "flare":
        return p.radius_mm**2 * (1 - math.pi / 4) * (2 if make.form == "v" else 1)
    if make.form in ("fillet", "socket", "slip-on"):
        one, two = p.leg_mm, p.leg_mm if p.second_leg_mm is None else p.second_leg_mm
        sides = 2 if make.sides == 2 or make.form == "slip-on" else 1
        return sides * one * two * math.sin(math.radians(p.member_angle_deg)) / 2
    walls = 1 if make.form in ("bevel", "j") or make.form.startswith("branch") else 2
    second = p.groove_angle_deg if p.second_angle_deg is None else p.second_angle_deg
    share = 1.0 if walls == 1 else 0.5
    room = p.prepared_mm - p.root_face_mm
    lower = 0.0 if make.sides == 1 else room / 2 if p.second_depth_mm is None else p.second_depth_mm
    area = p.root_opening_mm * p.prepared_mm + walls * one_wall(p, room - lower, p.groove_angle_deg * share)
    return area + (walls * one_wall(p, lower, second * share) if lower else 0.0)


@pytest.mark.parametrize("kind", KINDS)
def test_the_groove_area_is_that_of_the_closed_form(kind):
    @settings(max_examples=25)
    @given(preparations(kind))
    def check(joint):
        expected = closed_form(joint)
        assert joint_metal(joint).groove_area_mm2 == pytest.approx(expected, rel=1e-7, abs=1e-9)

    check()


@pytest.mark.parametrize(
    "kind", [kind for kind in KINDS if MAKES[kind].family in ("butt", "corner") and MAKES[kind].form != "fillet"]
)
def test_the_area_is_its_width_summed_over_the_depth(kind):
    """Independent of outlines: the width at each height from the angle and the radius, 600 slices."""

    def setback(p, angle_deg, height):
        angle = math.radians(angle_deg)
        if p.make.form == "square":
            return 0.0
        if p.make.form in ("u", "j"):
            r = p.radius_mm
            if height <= r * (1 - math.sin(angle)):
                return math.sqrt(max(2 * r * height - height**2, 0.0))  # a circle that starts level
            return r * math.cos(angle) + (height - r * (1 - math.sin(angle))) * math.tan(angle)
        if p.make.form == "compound-v" and height > p.break_height_mm:
            upper = math.tan(math.radians(p.upper_angle_deg / 2))
            return p.break_height_mm * math.tan(angle) + (height - p.break_height_mm) * upper
        return height * math.tan(angle)

    @settings(max_examples=12)
    @given(preparations(kind))
    def check(p):
        walls = 1 if p.make.form in ("bevel", "j") else 2
        area = p.root_opening_mm * p.prepared_mm
        for depth, angle in zip(p.depths_mm, p.wall_angles_deg, strict=True):
            step = depth / 600
            area += walls * step * sum(setback(p, angle, (n + 0.5) * step) for n in range(600) if depth)
        assert joint_metal(p).groove_area_mm2 == pytest.approx(area, rel=2e-3, abs=1e-9)

    check()


@given(preparations())
def test_area_and_centroid_agree_with_shapely(joint):
    for groove in shape_of(joint).grooves:
        polygon = shapely.Polygon(groove.outline)
        area, height = area_and_centroid(groove.outline)
        if area < 1e-6:
            continue
        assert polygon.is_valid
        assert area == pytest.approx(polygon.area, rel=1e-9)
        assert height == pytest.approx(polygon.centroid.y, rel=1e-6, abs=1e-6)
        chord = shapely.Polygon(groove.cap) if groove.cap else None
        assert (chord.area if chord else 0.0) == pytest.approx(groove.cap_area_mm2, rel=1e-9)


@given(preparations("single-v", od=True))
def test_a_ring_agrees_with_its_slices_summed(joint):
    joint = replace(joint, buttering_mm=0.0)

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
    bare = joint_metal(joint).weld_metal_kg - ring_of_caps_kg(joint)
    assert bare == pytest.approx(volume * 7.85e-6, rel=1e-6)


def ring_of_caps_kg(joint):
    """Parabolas turned round the pipe, their radii integrated by hand: area times (R + 2/5 h), inside (R - 2/5 h)."""
    metal = joint_metal(joint)
    outside = metal.reinforcement_area_mm2 * (joint.od_mm / 2 + 0.4 * joint.reinforcement_mm)
    inside = metal.root_area_mm2 * (joint.od_mm / 2 - joint.thickness_mm - 0.4 * joint.root_reinforcement_mm)
    return 2 * math.pi * (outside + inside) * 7.85e-6


def test_a_shop_joint_of_common_practice():
    """75° V, 1/8 in opening, 1/32 in root face, 0.406 in wall: 102 mm², cap 21 mm wide (common practice, no source)."""
    joint = Preparation(
        kind="single-v",
        thickness_mm=0.406 * 25.4,
        root_opening_mm=3.175,
        root_face_mm=0.79375,
        groove_angle_deg=75,
    )
    metal = joint_metal(joint)
    assert metal.groove_area_mm2 == pytest.approx(102, abs=0.6)
    assert metal.face_width_mm + 2 * 25.4 / 16 == pytest.approx(21, abs=0.7)  # melts 1/16 in over each edge


def test_a_test_plate_of_common_practice():
    """3/8 in plate on backing, 1/2 in opening, one 30° bevel: 147 mm² (common practice, no source)."""
    joint = Preparation(kind="bevel-backing", thickness_mm=9.525, root_opening_mm=12.7, groove_angle_deg=30)
    assert joint_metal(joint).groove_area_mm2 == pytest.approx(147, abs=0.5)


def test_a_square_joint_is_a_rectangle():
    metal = joint_metal(Preparation(kind="square", thickness_mm=4, root_opening_mm=2, reinforcement_mm=1.5))
    assert (metal.groove_area_mm2, metal.face_width_mm, metal.reinforcement_area_mm2) == (8, 2, 2)
    assert metal.weld_metal_kg_m == pytest.approx(0.0785)
    assert (metal.circumference_mm, metal.weld_metal_kg) == (None, None)


@given(st.floats(3, 20), st.floats(0.3, 1), st.floats(60, 135))
def test_the_throat_is_the_height_of_the_triangle_over_its_face(leg, share, angle):
    """AWS A3.0: theoretical throat, the distance from root to hypotenuse (from memory); here as 2·area over face."""
    joint = Preparation(kind="fillet", thickness_mm=25, leg_mm=leg, second_leg_mm=leg * share, member_angle_deg=angle)
    metal = joint_metal(joint)
    assert throat_mm(joint) == pytest.approx(2 * metal.groove_area_mm2 / metal.face_width_mm)


def test_a_gap_takes_from_both_legs():
    """AWS D1.1 5.21/7.21 (from memory): a gap over 1/16 in adds to the leg that is needed."""
    tight = Preparation(kind="fillet", thickness_mm=20, leg_mm=8)
    gapped = Preparation(kind="fillet", thickness_mm=20, leg_mm=10, root_opening_mm=2)
    assert throat_mm(gapped) == pytest.approx(throat_mm(tight))


# Branches ------------------------------------------------------------------------------------


@given(st.floats(0, 360), st.floats(0.05, 1))
def test_the_dihedral_of_a_branch_is_the_angle_of_two_normals(azimuth, ratio):
    """The surfaces' normals taken from their equations, x² + y² = r² and y² + z² = R²."""
    turn, run = math.radians(azimuth), 1.0
    x, y = ratio * math.cos(turn), ratio * math.sin(turn)
    z = math.sqrt(max(run**2 - y**2, 0.0))
    branch, below = (x / ratio, y / ratio, 0.0), (0.0, y / run, z / run)
    cosine = sum(a * b for a, b in zip(branch, below, strict=True))
    assert dihedral_deg(azimuth, od_mm=2 * ratio, run_od_mm=2) == pytest.approx(
        90 + math.degrees(math.asin(cosine)), abs=1e-5
    )


def test_a_saddle_is_as_long_as_its_corners_walked():
    p = Preparation(kind="branch-set-on", thickness_mm=6, groove_angle_deg=45, od_mm=120, run_od_mm=150)
    points = []
    for n in range(20000):
        turn = 2 * math.pi * n / 20000
        y = 60 * math.sin(turn)
        points.append((60 * math.cos(turn), y, math.sqrt(75**2 - y**2)))
    walked = sum(math.dist(a, b) for a, b in zip(points, [*points[1:], points[0]], strict=True))
    assert saddle(p).length_mm == pytest.approx(walked, rel=1e-5)


def test_a_small_branch_on_a_large_run_is_a_ring_on_a_plate():
    p = Preparation(kind="branch-set-on", thickness_mm=4, root_opening_mm=2, root_face_mm=1, groove_angle_deg=45,
                    leg_mm=5, od_mm=40, run_od_mm=40000)  # fmt: skip
    area = 2 * 4 + 3**2 / 2 + 5**2 / 2
    assert saddle(p).volume_mm3 == pytest.approx(math.pi * 40 * area, rel=1e-4)


def test_a_slot_is_a_rectangle_with_two_half_circles():
    metal = joint_metal(Preparation(kind="slot", thickness_mm=10, hole_mm=20, slot_length_mm=50, fill_depth_mm=8))
    assert metal.weld_metal_kg == pytest.approx((30 * 20 + math.pi * 100) * 8 * 7.85e-6)
    assert metal.weld_metal_kg_m is None


@given(preparations("single-bevel"))
def test_buttering_is_a_layer_of_even_thickness_on_the_bevel(joint):
    """Length of the bevel face times thickness; the groove that is left is as without it."""
    angle = math.radians(joint.groove_angle_deg)
    face = joint.depths_mm[0] / math.cos(angle)
    buttered = replace(joint, buttering_mm=4.0)
    metal, bare = joint_metal(buttered), joint_metal(replace(joint, buttering_mm=0.0))
    assert metal.buttering_area_mm2 == pytest.approx(face * 4.0)
    assert metal.groove_area_mm2 == pytest.approx(bare.groove_area_mm2)
    assert metal.weld_metal_kg_m - bare.weld_metal_kg_m == pytest.approx(face * 4.0 * 7.85e-3)
