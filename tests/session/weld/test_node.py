"""A tube node as a procedure: its members in their weld order, what is told of them, its pictures and what it takes."""

import io

import ezdxf
import pytest

from anlage.core.document import Dimension, with_, with_at
from anlage.core.drawing import Path
from anlage.core.errors import InputError
from anlage.core.joint import RUN, Tube, tube_welds
from anlage.core.procedure import Joint, Wps, with_deposit, with_element, with_pass
from anlage.formats.font import measure
from anlage.session.output.pictures import picture_file, picture_of
from anlage.session.proposal.fill import filled
from anlage.session.seam.seam_places import seam_mm
from anlage.session.seam.stop_plan import stop_picture, stop_plan
from anlage.session.takes.takes import weld_takes
from anlage.session.weld.figures import joint_figures
from anlage.session.weld.node import (
    cope_picture,
    node_of,
    node_picture,
    node_sentences,
    stated_members,
    ways_out,
    with_member,
)
from anlage.session.weld.picture_sheet import Sheet

JOINT = Joint(kind="tube-node", product="pipe", thickness_mm=3.2, other_thickness_mm=3.6, od_mm=48.3, run_od_mm=60.3,
              leg_mm=Dimension.stated(nominal=3.0))  # fmt: skip


def node(*members, **joint):
    wps, home = with_deposit(Wps(joint=with_(JOINT, **joint)), process="GTAW", filler="ER70S-2",
                             filler_diameter_mm=[2.4, 2.4])  # fmt: skip
    wps, _ = with_pass(wps, home, role="root", current_a=[80, 100], voltage_v=[10, 12], travel_speed_mm_min=[60, 80],
                       bead_area_mm2=[4.5, 4.5])  # fmt: skip
    for each in members:
        wps, _ = with_element(wps, "members", **each)
    return wps


DIAGONAL = {"name": "Diagonal", "od_mm": 33.7, "wall_mm": 2.6, "angle_deg": 45.0}
POST = {"name": "Post", "angle_deg": 90.0, "turn_deg": 180.0}
SHEET = Sheet(150.0, 110.0, "si", measure)


def plain(text):
    return text.replace("\u2009", " ")


def test_what_a_member_does_not_state_is_that_of_the_first():
    (_, _, first), (target, name, post) = stated_members(node(POST))
    assert (first, post) == (Tube(od_mm=48.3, wall_mm=3.2), Tube(od_mm=48.3, wall_mm=3.2, turn_deg=180.0))
    assert (target, name) == ("members/m3", "Post")


def test_members_are_welded_squarest_first_unless_the_listed_order_is_wanted():
    leaning = {"member_angle_deg": Dimension.stated(nominal=45.0)}
    wps = node({"name": "Post", "angle_deg": 90.0}, **leaning)
    assert [each.name for each in node_of(wps).members] == ["Post", "First member"]
    listed = with_at(wps, "seam/member_order", "listed")
    assert [each.name for each in node_of(listed).members] == ["First member", "Post"]
    assert node_of(listed).members[0].weld.onto_mm.keys() == {RUN}


def test_the_weld_of_a_node_counts_every_member_with_its_own_metal():
    wps = node(DIAGONAL)
    first, other = tube_welds(60.3, (Tube(od_mm=48.3, wall_mm=3.2), Tube(od_mm=33.7, wall_mm=2.6, angle_deg=45.0)))
    assert seam_mm(wps) == (pytest.approx(first.length_mm + other.length_mm), "all welds of the node")
    whole = (first.volume_mm3(3.0) + other.volume_mm3(3.0)) * 7.85e-6
    assert weld_takes(wps, {}).metal_kg == pytest.approx(whole, rel=1e-3)
    figures = {each.name: plain(each.text) for each in joint_figures(wps, "si")}
    assert figures["Welds of all members"] == f"{first.length_mm + other.length_mm:.2f} mm"
    assert figures["Weld metal, all members"] == f"{whole:.3f} kg"


def test_what_is_to_be_minded_is_told_in_the_order_of_the_welds():
    said = [plain(each) for each in node_sentences(node(DIAGONAL), "si")]
    assert said[0] == "1. First member: 160.85 mm of weld on the run."
    assert said[1] == "1. 36.48 mm of it lies under Diagonal: weld it and look at it before that one is set."
    assert any(each.startswith("2. Diagonal: ") and "on First member" in each for each in said)
    assert any("under 60°, down to 45°: no fillet" in each for each in said)
    flat = node({"name": "Flat", "angle_deg": 20.0, "od_mm": 20.0, "wall_mm": 2.0, "along_mm": 90.0})
    assert any("Surfaces meet at 20°: under 30° it counts for nothing" in each for each in node_sentences(flat, "si"))


def test_a_node_that_cannot_be_is_told_and_nothing_is_worked_out():
    wps = node({"od_mm": 76.1})
    assert node_of(wps) is None
    assert plain(node_sentences(wps, "si")[0]).startswith("member 2: 76.1 mm is larger than the run of 60.3 mm")
    assert node_picture(wps, "", SHEET) is None
    with pytest.raises(InputError, match="no node of tubes"):
        picture_of(wps, "node", "si", measure)
    assert node_sentences(Wps(joint=Joint(kind="tube-node")), "si")[0].startswith("State leg, walls")


def test_two_members_typed_alike_are_offered_the_other_lean_and_then_the_turns():
    wps = node(DIAGONAL, {"angle_deg": 45.0})
    assert node_of(wps) is None
    assert [way.words for way in ways_out(wps)] == [
        "Lean Member 3 the other way, 135°", "Turn Member 3 to 90° round the run",
        "Turn Member 3 to 270° round the run", "Turn Member 3 to 180° round the run",
    ]  # fmt: skip
    leant, turned, *_ = (node_of(way.changed) for way in ways_out(wps))
    assert sorted(each.tube.angle_deg for each in leant.members) == [45, 90, 135]
    assert sorted(each.tube.turn_deg for each in turned.members) == [0, 0, 90]
    assert ways_out(node(DIAGONAL)) == ways_out(node({"od_mm": 76.1})) == ()


def test_members_that_are_added_one_after_the_other_all_stand():
    wps = node()
    for _ in range(5):
        wps = with_member(wps)
    assert [(each.angle_deg, each.turn_deg) for each in wps.members] == [
        (45, None), (135, None), (45, 90), (45, 270), (45, 180),
    ]  # fmt: skip
    assert len(node_of(wps).members) == 6
    empty = with_member(Wps(joint=Joint(kind="tube-node")))
    assert [each.angle_deg for each in empty.members] == [45]


def test_every_member_is_drawn_with_its_weld_and_one_on_the_far_side_is_dashed():
    wps = node(DIAGONAL, {"name": "Behind", "od_mm": 26.9, "wall_mm": 2.0, "turn_deg": 90.0, "along_mm": -20.0})
    diagonal, behind = (each.id for each in wps.members)
    picture = node_picture(wps, f"members/{diagonal}", SHEET)
    lines = {(i.role, i.target) for i in picture.items if isinstance(i, Path) and i.target}
    assert ("weld_line", "joint/od_mm") in lines
    assert ("chosen", f"members/{diagonal}") in lines
    assert ("ghost", f"members/{behind}") in lines
    assert ("weld_line", f"members/{behind}") not in lines


def test_the_pattern_is_as_long_as_its_tube_is_round_and_true_to_size_in_dxf():
    wps = node(DIAGONAL)
    drawing = ezdxf.read(io.StringIO(picture_file(wps, "cope", ".dxf", "si", measure).decode()))
    cuts = [entity for entity in drawing.modelspace() if entity.dxf.layer == "WELDS"]
    assert len(cuts) == 2
    widths = sorted(max(x for x, *_ in cut.get_points()) - min(x for x, *_ in cut.get_points()) for cut in cuts)
    assert widths == pytest.approx([33.7 * 3.14159265, 48.3 * 3.14159265], rel=1e-6)
    only = cope_picture(wps, SHEET, "joint/od_mm", true_size=True)
    assert sum(item.role == "weld_line" for item in only.items if isinstance(item, Path)) == 1


def test_the_stops_of_a_node_lie_member_by_member_without_run_on():
    wps = node(DIAGONAL)
    (plan,) = stop_plan(wps)
    assert [way.length_mm for way in plan.ways] == [each.weld.length_mm for each in node_of(wps).members]
    picture = stop_picture(wps, "", SHEET)
    texts = {item.text for item in picture.items if hasattr(item, "text")}
    assert not texts & {"run-on", "run-off"}


def test_a_node_is_filled_like_any_fillet():
    assert [each.role for each in filled(node(DIAGONAL)).passes] == ["root"]
