"""Beads in the true groove: every bead keeps its area, none lies outside or over another, layers say what they lack."""

from itertools import pairwise

import pytest
import shapely
from hypothesis import example, given, reject, settings
from hypothesis import strategies as st
from msgspec.structs import replace

from anlage.core.beads import Laid, Size, fill, layout
from anlage.core.drawing import Marker, Path
from anlage.core.drawing.bead_map import Amiss, Marked, bead_map, hatch
from anlage.core.errors import InputError
from anlage.core.joint import KINDS, MAKES, Preparation, area_and_centroid, joint_metal, shape_of
from tests.strategies import preparations

V = Preparation(
    kind="single-v", thickness_mm=16, root_opening_mm=3, root_face_mm=1.5, groove_angle_deg=60, reinforcement_mm=2,
    cap_overlap_mm=1.5, root_reinforcement_mm=1,
)  # fmt: skip
sizes = st.builds(Size.of_electrode, st.sampled_from((2.4, 3.2, 4.0)), weave=st.booleans())


def filled(joint, *own):
    """The beads that fill a joint; a joint of more than are listed is another test."""
    try:
        return fill(shape_of(joint), own)
    except InputError as fault:
        assert "more than 400 beads" in str(fault)  # noqa: PT017
        reject()


def proposed(joint, *own):
    return [
        Laid(key=f"p{n}", area_mm2=each.area_mm2, side=each.side, role=each.role,
             layer="new" if each.starts_layer else "beside", weave=each.weave)
        for n, each in enumerate(filled(joint, *(own or (Size.of_electrode(3.2),))))
    ]  # fmt: skip


def shapes(found):
    return [shapely.Polygon(bead.outline) for bead in found.beads]


NARROW = 8e-3  # of the metal: what a slit of 5 degrees and half a millimetre may lack under a reinforcing fillet


@settings(deadline=None)
@given(preparations(), sizes)
def test_a_proposal_fills_any_joint_and_metal_is_conserved(joint, size):
    laid, metal = proposed(joint, size), joint_metal(joint)
    assert sum(each.area_mm2 for each in laid) == pytest.approx(metal.whole_area_mm2, rel=1e-6, abs=1e-6)
    found = layout(shape_of(joint), laid)
    assert [bead.key for bead in found.beads] == [each.key for each in laid]
    drawn = [area_and_centroid(bead.outline)[0] for bead in found.beads]
    assert all(area > 0 for area in drawn)
    assert sum(drawn) == pytest.approx(metal.whole_area_mm2, rel=NARROW, abs=1e-6)
    assert sum(each.missing_mm2 for each in found.fillings) <= NARROW * metal.whole_area_mm2 + 1e-6


@settings(deadline=None)
@given(preparations(), sizes)
def test_beads_lie_inside_the_joint_and_beside_each_other(joint, size):
    found, shape = layout(shape_of(joint), proposed(joint, size)), shape_of(joint)
    room = shapely.union_all([
        shapely.Polygon(part).buffer(0.02)
        for groove in shape.grooves for part in (groove.outline, groove.cap, groove.root_cap) if part
    ])  # fmt: skip
    beads = [bead.buffer(0) for bead in shapes(found)]
    whole = sum(bead.area for bead in beads)
    over = 0.05 + 0.12 * whole if any(groove.cap for groove in shape.grooves) else 0.05 + 0.02 * whole
    assert shapely.union_all(beads).difference(room).area < over  # rounded tops stand a little out of the parabola
    for one, other in pairwise(beads):
        shared = shapely.intersection(one, other, grid_size=1e-9)  # without a grid GEOS stumbles over -1e-16 beside 0
        assert shared.area < 0.02 * min(one.area, other.area) + 0.01


BUTTS = [kind for kind in KINDS if MAKES[kind].family == "butt"]


@settings(deadline=None)
@given(st.sampled_from(BUTTS).flatmap(preparations), st.floats(0.2, 2.0), sizes)
def test_beads_lie_inside_a_joint_with_one_member_higher(joint, mismatch, size):
    joint = replace(
        joint,
        root_opening_mm=max(joint.root_opening_mm, 1.0),
        reinforcement_mm=0.0,
        root_reinforcement_mm=0.0,
        buttering_mm=0.0,
    )
    uneven = replace(joint, mismatch_mm=min(mismatch, 0.2 * joint.prepared_mm))
    level, shape = joint_metal(joint), shape_of(uneven)
    assert shape.members[1].outline[0][1] == pytest.approx(
        shape_of(joint).members[1].outline[0][1] + uneven.mismatch_mm
    )
    found = layout(shape, proposed(joint, size))
    assert sum(area_and_centroid(bead.outline)[0] for bead in found.beads) == pytest.approx(
        level.whole_area_mm2, rel=5e-3
    )
    metal = shapely.union_all([shapely.Polygon(member.outline) for member in shape.members])
    for bead in shapes(found):
        assert bead.buffer(0).intersection(metal).area < 0.01 * bead.area + 0.02


def test_a_closed_square_joint_has_no_room_for_beads():
    closed = Preparation(kind="square", thickness_mm=6, root_opening_mm=0)
    assert layout(shape_of(closed), [Laid(key="1", area_mm2=12), Laid(key="2")]).beads == ()


def test_areas_that_are_known_are_kept_to_the_last_digit():
    laid = [Laid(key=str(n), area_mm2=8 + n) for n in range(14)]
    found = layout(shape_of(V), laid)
    assert [shape.area for shape in shapes(found)] == pytest.approx([8 + n for n in range(14)], rel=1e-6)
    assert all(shape.is_valid for shape in shapes(found))


def test_the_root_of_an_open_joint_reaches_beyond_it():
    (bead,) = layout(shape_of(V), [Laid(key="root", area_mm2=12)]).beads
    assert min(y for _, y in bead.outline) == pytest.approx(-1, abs=0.01)


def test_metal_that_is_missing_is_told_with_how_low_it_ends():
    found = layout(shape_of(V), [Laid(key="1", thickness_mm=13.0)])  # 1 mm of it beyond the root: 12 of 16 mm
    (filling,) = found.fillings
    assert filling.reach_mm == pytest.approx(-4, abs=0.005)
    surface, face = 2 * 10.5 * 0.57735 + 3, joint_metal(V).face_width_mm
    assert filling.missing_mm2 == pytest.approx(4 * (surface + face) / 2, rel=1e-3)


def test_what_no_bead_fills_is_outlined_and_drawn():
    found = layout(shape_of(V), [Laid(key="1", thickness_mm=5.0), Laid(key="2", thickness_mm=5.0)])
    (outline,) = found.empty
    room = shapely.Polygon(shape_of(V).grooves[0].outline)
    assert shapely.Polygon(outline).area == pytest.approx(found.fillings[0].missing_mm2, rel=1e-6)
    assert shapely.Polygon(outline).difference(room.buffer(1e-6)).area < 1e-9
    assert not any(bead.intersects(shapely.Polygon(outline).buffer(-1e-6)) for bead in shapes(found))
    beads = [(bead, Marked(f"passes/{bead.key}", bead.key)) for bead in found.beads]
    picture = bead_map(shape_of(V), beads, scale=3.0, measure=lambda t, h: 0.5 * h * len(t), amiss=Amiss(found.empty))
    assert sum(item.role == "gap" for item in picture.items) > 5
    full = layout(shape_of(V), proposed(V))
    assert full.empty == ()


def test_the_stated_cap_is_drawn_over_the_beads():
    found = layout(shape_of(V), proposed(V))
    beads = [(bead, Marked(f"passes/{bead.key}", bead.key)) for bead in found.beads]
    plain, over = (
        [item.role for item in bead_map(shape_of(V), beads, scale=3.0, measure=lambda t, h: 0.5 * h * len(t),
                                        amiss=Amiss(caps=wanted)).items] for wanted in (False, True)
    )  # fmt: skip
    assert over.index("ghost") > max(n for n, role in enumerate(over) if role == "layer")
    assert "ghost" not in plain


def test_metal_in_excess_stands_over_the_mouth():
    metal = joint_metal(V)
    chord = metal.face_width_mm + 3
    found = layout(shape_of(V), [Laid(key="1", area_mm2=metal.whole_area_mm2 + 2 / 3 * chord)])
    assert found.fillings[0].reach_mm == pytest.approx(3.0, rel=2e-3)  # 2 stated, 1 more; as many corners


def test_the_chosen_bead_of_the_lower_side_is_held_at_its_lower_edge():
    joint = Preparation(kind="double-v", thickness_mm=30, root_opening_mm=2, root_face_mm=2, groove_angle_deg=60)
    found = layout(shape_of(joint), [Laid(key="1", area_mm2=30), Laid(key="2", area_mm2=30, side=2)])
    assert [bead.up for bead in found.beads] == [(0.0, 1.0), (0.0, -1.0)]
    for chosen, end in ((found.beads[0], max), (found.beads[1], min)):
        beads = [(bead, Marked(f"passes/{bead.key}", bead.key, chosen=bead is chosen)) for bead in found.beads]
        picture = bead_map(shape_of(joint), beads, scale=3.0, measure=lambda t, h: 0.5 * h * len(t))
        (handle,) = (item for item in picture.items if isinstance(item, Marker))
        assert handle.at[1] == pytest.approx(end(y for _, y in chosen.outline))


def test_no_bead_of_a_fillet_is_a_tip_nor_twice_a_stringer():
    joint = Preparation(kind="tee-double-bevel", thickness_mm=25, other_thickness_mm=30, root_opening_mm=3,
                        root_face_mm=2, groove_angle_deg=45, leg_mm=8, second_depth_mm=8)  # fmt: skip
    size = Size.of_electrode(3.2)
    areas = [each.area_mm2 / size.area_mm2 for each in fill(shape_of(joint), (size,))]
    assert min(areas) > 0.4
    assert max(areas) < 1.75


@settings(deadline=None)
@example(Preparation(kind="double-fillet", thickness_mm=19.25, leg_mm=17.1445, member_angle_deg=60), 3.2)
@given(preparations(), st.sampled_from((2.4, 3.2, 4.0)))
def test_no_fill_bead_is_much_larger_than_a_stringer(joint, diameter):
    size = Size.of_electrode(diameter)
    fills = [each for each in filled(joint, size) if each.role == "fill"]
    assert all(each.area_mm2 <= 1.7 * size.area_mm2 * (1 + 1e-6) for each in fills)


@pytest.mark.parametrize(
    ("joint", "diameter"),
    [
        (Preparation(kind="single-v", thickness_mm=1000, root_opening_mm=3, groove_angle_deg=60), 3.2),
        (Preparation(kind="single-v", thickness_mm=18, root_opening_mm=3, groove_angle_deg=60), 0.2),
        (Preparation(kind="square", thickness_mm=900, root_opening_mm=1000), 20),
        (Preparation(kind="cladding", thickness_mm=100, width_mm=1000, layer_mm=500), 0.2),
    ],
)
@pytest.mark.parametrize("weave", [False, True])
def test_a_joint_of_more_beads_than_anybody_lists_is_told_at_once(joint, diameter, weave):
    with pytest.raises(InputError, match="it takes more than 400 beads, which are not laid one by one"):
        fill(shape_of(joint), (Size.of_electrode(diameter, weave=weave, weave_limit_mm=1.0 if weave else None),))


def test_a_layer_on_a_plate_has_no_root():
    layer = Preparation(kind="cladding", thickness_mm=30, width_mm=60, layer_mm=5)
    roles = [bead.role for bead in fill(shape_of(layer), (Size.of_electrode(2.4),))]
    assert set(roles) == {"fill", "cap"}


def test_what_a_fillet_covers_is_no_cap():
    joint = Preparation(kind="tee-bevel", thickness_mm=16, root_opening_mm=3, root_face_mm=1, groove_angle_deg=45,
                        leg_mm=6)  # fmt: skip
    beads = fill(shape_of(joint), (Size.of_electrode(3.2),))
    assert [bead.role for bead in beads].count("root") == 1
    caps = [n for n, bead in enumerate(beads) if bead.role == "cap"]
    assert caps == list(range(caps[0], len(beads)))


def test_passes_of_unknown_size_share_what_is_left():
    found = layout(shape_of(V), [Laid(key="1", area_mm2=40), Laid(key="2"), Laid(key="3")])
    rest = (joint_metal(V).whole_area_mm2 - 40) / 2
    assert [bead.area_mm2 for bead in found.beads] == pytest.approx([40, rest, rest])
    assert [bead.shared for bead in found.beads] == [False, True, True]


def test_what_is_said_of_layers_goes_before_what_fits():
    areas = [Laid(key=str(n), area_mm2=12, layer=layer) for n, layer in enumerate(("new", "beside", "beside", "new"))]
    assert [bead.layer for bead in layout(shape_of(V), areas).beads] == [1, 1, 1, 2]


def test_a_weave_takes_the_whole_width():
    wide = [Laid(key=str(n), area_mm2=30, role="fill", weave=True) for n in range(4)]
    assert [bead.layer for bead in layout(shape_of(V), wide).beads] == [1, 2, 3, 4]
    narrow = [Laid(key=str(n), area_mm2=12, role="fill") for n in range(14)]
    assert max(layer.beads for layer in layout(shape_of(V), narrow).layers) > 1


def test_both_sides_of_a_double_joint_fill_from_its_root():
    joint = Preparation(kind="double-v", thickness_mm=30, root_opening_mm=2, root_face_mm=2, groove_angle_deg=60,
                        reinforcement_mm=2)  # fmt: skip
    laid = proposed(joint)
    assert {each.side for each in laid} == {1, 2}
    turns = [each.side for each in laid]
    assert sum(one != other for one, other in pairwise(turns)) >= 4  # by turns, not one side after the other
    found = layout(shape_of(joint), laid)
    heights = {side: [shapely.Polygon(b.outline).centroid.y for b in found.beads if b.side == side] for side in (1, 2)}
    assert heights[1][0] < heights[1][-1]
    assert heights[2][0] > heights[2][-1]


@pytest.mark.parametrize("kind", KINDS)
def test_the_map_of_any_kind_can_be_drawn_with_a_handle_at_the_chosen_bead(kind):
    @settings(deadline=None, max_examples=5)
    @given(preparations(kind).filter(lambda joint: joint_metal(joint).groove_area_mm2 > 1))
    def check(joint):
        found = layout(shape_of(joint), proposed(joint))
        beads = [(bead, Marked(f"passes/{bead.key}", bead.key, (45.0,), 1.0, chosen=bead is found.beads[0]))
                 for bead in found.beads]  # fmt: skip
        picture = bead_map(shape_of(joint), beads, scale=3.0, measure=lambda t, h: 0.5 * h * len(t))
        handles = [item.target for item in picture.items if isinstance(item, Marker)]
        assert handles == [f"passes/{found.beads[0].key}/bead_area_mm2"]
        assert sum(isinstance(item, Path) and item.role == "layer" for item in picture.items) == len(beads)

    check()


@given(st.floats(0, 180), st.floats(0.3, 3))
def test_hatch_lines_lie_inside_and_cover_the_outline_evenly(turn, step):
    outline = ((0.0, 0.0), (10.0, 0.0), (7.0, 6.0), (1.0, 5.0))
    lines = list(hatch(outline, turn, step))
    shape = shapely.Polygon(outline)
    assert all(shape.buffer(1e-6).covers(shapely.LineString(line)) for line in lines)
    length = sum(shapely.LineString(line).length for line in lines)
    assert length * step == pytest.approx(shape.area, rel=0.25 * step)


any_beads = st.lists(
    st.builds(
        Laid, key=st.uuids().map(str), area_mm2=st.none() | st.floats(0.01, 3000),
        thickness_mm=st.none() | st.floats(0.1, 60), side=st.sampled_from((0, 1, 1, 2)),
        role=st.sampled_from((None, "root", "hot", "fill", "cap", "back", "buttering")),
        layer=st.sampled_from((None, "new", "beside")), weave=st.booleans(),
    ), max_size=15,
)  # fmt: skip


@settings(deadline=None)
@given(preparations(), any_beads)
def test_whatever_is_asked_for_is_laid_with_its_own_area(joint, laid):
    shape = shape_of(joint)
    found = layout(shape, laid)
    asked = sum(bead.area_mm2 for bead in found.beads)
    drawn = sum(area_and_centroid(bead.outline)[0] for bead in found.beads)
    if not any(groove.reinforcing for groove in shape.grooves):  # else what does not fit is carried over to the fillet
        assert drawn == pytest.approx(asked, rel=2e-2, abs=1e-3)  # far over the mouth a rounded top is not exact
    assert all(each.missing_mm2 >= -1e-6 for each in found.fillings)
    assert len(found.beads) == sum(each.side in {groove.side for groove in shape.grooves} for each in laid)
