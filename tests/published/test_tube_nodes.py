"""Nodes of tubes against closed forms: ellipses of tubes cut by planes, the mitre of equal tubes, the right-angled
saddle, and the rule of order (common practice, no source). Classical geometry; derivations beside each check."""

import math

import pytest
import scipy.integrate
import scipy.special
from hypothesis import given
from hypothesis import strategies as st

from anlage.core.joint import RUN, Preparation, Tube, cope, joint_metal, node_faults, saddle, tube_welds, weld_order
from anlage.core.joint.node import STEPS

FLAT = 1e7  # a run so large is a plane


def ellipse_mm(od_mm, angle_deg):
    """Perimeter of the ellipse in which a plane cuts a tube: half axes r and r over the sine of the angle."""
    r = od_mm / 2
    long = r / math.sin(math.radians(angle_deg))
    return 4 * long * scipy.special.ellipe(1 - (r / long) ** 2)


@pytest.mark.parametrize("angle", [90, 75, 60, 45, 30, 120])
def test_on_a_plane_the_weld_is_an_ellipse(angle):
    (weld,) = tube_welds(FLAT, (Tube(od_mm=80, wall_mm=4, angle_deg=angle),))
    assert weld.length_mm == pytest.approx(ellipse_mm(80, angle), rel=1e-4)
    sharp = min(angle, 180 - angle)
    assert weld.dihedral_deg == pytest.approx((sharp, 180 - sharp), abs=0.01)


def test_the_fillet_of_a_leaning_tube_on_a_plane_is_the_integral_of_its_section():
    """Half leg² times the sine of the dihedral, whose cosine is cos(angle)·cos(azimuth), along the ellipse."""
    r, lean = 40.0, math.radians(50)

    def share(azimuth):
        cosine = math.cos(lean) * math.cos(azimuth)
        step = math.hypot(r * math.cos(azimuth), r * math.sin(azimuth) / math.sin(lean))
        return 0.5 * math.sqrt(1 - cosine**2) * step

    (weld,) = tube_welds(FLAT, (Tube(od_mm=2 * r, wall_mm=4, angle_deg=50),))
    wanted = 5.0**2 * scipy.integrate.quad(share, 0, 2 * math.pi, limit=200)[0]
    assert weld.volume_mm3(5.0) == pytest.approx(wanted, rel=1e-3)


@pytest.mark.parametrize(("od", "run"), [(40, 60), (48.3, 60.3), (60, 60), (30, 300)])
def test_a_square_member_is_the_saddle_of_a_branch(od, run):
    (weld,) = tube_welds(run, (Tube(od_mm=od, wall_mm=2),))
    branch = Preparation(kind="branch-set-on", thickness_mm=2, groove_angle_deg=45, leg_mm=4, od_mm=od, run_od_mm=run)
    assert weld.length_mm == pytest.approx(saddle(branch).length_mm, rel=1e-4)
    bare = Preparation(kind="branch-set-on", thickness_mm=2, groove_angle_deg=45, od_mm=od, run_od_mm=run)
    fillets = saddle(branch).volume_mm3 - saddle(bare).volume_mm3
    assert weld.volume_mm3(4) == pytest.approx(fillets, rel=1e-3)
    node = Preparation(kind="tube-node", thickness_mm=2, leg_mm=2, od_mm=od, run_od_mm=run)
    assert joint_metal(node).weld_metal_kg == pytest.approx(weld.volume_mm3(2) * 7.85e-6, rel=1e-9)


def test_equal_tubes_meet_in_the_planes_that_halve_their_angles():
    """Two equal cylinders with crossing axes meet in two plane ellipses, in the planes halving the angles between them.

    Tubes square and at 45° whose axes cross far over a small, thin run: the mitre lies in the plane at 67.5° up.
    """
    square, leaning = Tube(od_mm=60, wall_mm=3), Tube(od_mm=60, wall_mm=3, angle_deg=45)
    _, weld = tube_welds(60.0, (square, leaning))
    on_square = [corner for corner in weld.corners if corner.onto == 0]
    assert on_square
    up = math.radians(67.5)
    for corner in on_square:
        x, _, z = corner.at
        assert x * math.sin(up) - z * math.cos(up) == pytest.approx(0.0, abs=1e-9)
    assert {round(corner.dihedral_deg, 6) for corner in on_square if abs(corner.at[1]) < 1e-9} <= {45.0, 135.0}


@given(
    st.floats(20, 60), st.floats(20, 160), st.floats(-180, 180), st.floats(-60, 60), st.floats(20, 60),
    st.floats(20, 160),
)  # fmt: skip
def test_every_corner_lies_on_both_surfaces_and_outside_what_was_there(od, angle, turn, along, other, lean):
    first = Tube(od_mm=other, wall_mm=1, angle_deg=lean)
    tube = Tube(od_mm=od, wall_mm=1, angle_deg=angle, turn_deg=turn, along_mm=along)
    if node_faults(60.0, (first, tube)):
        return
    _, weld = tube_welds(60.0, (first, tube))
    for corner in weld.corners:
        _, y, z = corner.at
        assert distance(corner.at, tube) == pytest.approx(od / 2, abs=1e-6)
        if corner.onto == RUN:
            assert math.hypot(y, z) == pytest.approx(30.0, abs=1e-6)
        else:
            assert distance(corner.at, first) == pytest.approx(other / 2, abs=1e-6)
            assert math.hypot(y, z) >= 30.0 - 1e-6
        assert 0 <= corner.dihedral_deg <= 180
    assert sum(weld.onto_mm.values()) == pytest.approx(weld.length_mm)


def distance(at, tube):
    away = (at[0] - tube.along_mm, at[1], at[2])
    up = sum(a * b for a, b in zip(away, tube.axis, strict=True))
    return math.sqrt(max(sum(a * a for a in away) - up**2, 0.0))


def test_what_a_later_member_covers_is_the_part_of_the_weld_inside_it():
    """A square tube on a plane, covered by another along the same line: the arc of one circle inside another."""
    first = Tube(od_mm=50, wall_mm=2)
    other = Tube(od_mm=50, wall_mm=2, angle_deg=89.0, along_mm=30.0 - FLAT / 2 / math.tan(math.radians(89.0)))
    weld, _ = tube_welds(FLAT, (first, other))
    arc = 2 * math.acos(30.0 / 2 / 25.0) * 25.0  # two equal circles 30 mm apart
    assert weld.hidden_mm[1] == pytest.approx(arc, rel=0.02)


# Order ---------------------------------------------------------------------------------------


def test_the_square_member_is_welded_first_and_those_that_lean_tie_into_it():
    """The 90° member first, then the 45° ones tying into it (common practice, no source)."""
    tubes = [
        Tube(od_mm=30, wall_mm=2, angle_deg=45), Tube(od_mm=30, wall_mm=2, angle_deg=135),
        Tube(od_mm=40, wall_mm=2), Tube(od_mm=25, wall_mm=2, angle_deg=60, turn_deg=180),
    ]  # fmt: skip
    order = weld_order(tubes)
    assert order == (2, 3, 0, 1)
    welds = tube_welds(60.0, tuple(tubes[n] for n in order))
    assert set(welds[0].onto_mm) == {RUN}
    assert 0 in welds[2].onto_mm
    assert 0 in welds[3].onto_mm


# Cutting -------------------------------------------------------------------------------------


@pytest.mark.parametrize(("od", "wall", "run"), [(40, 3, 60), (48.3, 2.6, 60.3), (60, 5, 60)])
def test_the_cut_of_a_square_member_follows_the_run(od, wall, run):
    """Half a chord: over the run's axis the surface lies √(R² − (r·sin φ)²); the inner edge strikes first."""
    pattern = cope(run, (Tube(od_mm=od, wall_mm=wall),), 0)
    inner = od / 2 - wall
    heights = [math.sqrt((run / 2) ** 2 - (inner * math.sin(math.radians(n))) ** 2) for n in range(STEPS + 1)]
    assert [y for _, y in pattern.points] == pytest.approx([y - min(heights) for y in heights], abs=1e-9)
    assert pattern.points[-1][0] == pytest.approx(math.pi * od)
    outside = math.sqrt((run / 2) ** 2 - (od / 2) ** 2)
    assert pattern.gap_mm == pytest.approx(min(heights) - outside)


def test_on_a_plane_the_cut_is_a_sine():
    """A plane across a tube, laid flat, is a sine of height 2·r over the tangent of the angle."""
    pattern = cope(FLAT, (Tube(od_mm=80, wall_mm=1e-9, angle_deg=50),), 0)
    assert pattern.height_mm == pytest.approx(80 / math.tan(math.radians(50)), rel=1e-4)
    for around, high in pattern.points[:: STEPS // 8]:
        share = 0.5 * (1 + math.cos(around / 40))
        assert high == pytest.approx(pattern.height_mm * share, abs=1e-3) or high == pytest.approx(
            pattern.height_mm * (1 - share), abs=1e-3
        )


# What cannot be ------------------------------------------------------------------------------


@pytest.mark.parametrize(
    ("tubes", "line"),
    [
        ((Tube(od_mm=76, wall_mm=3),), "member 1: 76 mm is larger than the run of 60 mm; state 60 mm at most"),
        ((Tube(od_mm=40, wall_mm=20),), "member 1: a wall of 20 mm leaves no bore in 40 mm; state a wall under 20 mm"),
        ((Tube(od_mm=40, wall_mm=3, angle_deg=10),), "member 1: 10° to the run leaves no room to weld; state 15° to"),
        ((Tube(od_mm=40, wall_mm=3), Tube(od_mm=30, wall_mm=3, along_mm=20)), "member 2: it lies in member 1; state"),
        ((Tube(od_mm=40, wall_mm=3, angle_deg=45.0),) * 2, "member 2: it lies in member 1; state 135° with turn 0° or"),
    ],
)
def test_an_impossible_node_is_refused_with_a_way_out(tubes, line):
    (fault,) = node_faults(60.0, tubes)
    assert str(fault).startswith(line)


def test_parallel_members_clear_of_each_other_are_no_fault():
    assert node_faults(60.0, [Tube(od_mm=40, wall_mm=3), Tube(od_mm=30, wall_mm=3, along_mm=40)]) == ()
    assert node_faults(60.0, [Tube(od_mm=40, wall_mm=3), Tube(od_mm=40, wall_mm=3, turn_deg=180)]) == ()
