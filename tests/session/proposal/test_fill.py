"""What a fill keeps of what was typed, which deposit lays what, and what a root and a weave may be."""

import pytest

from anlage.core.beads import Size, fill
from anlage.core.beads.fill import land_of
from anlage.core.document import Dimension, with_at
from anlage.core.errors import InputError
from anlage.core.joint import Preparation, shape_of
from anlage.core.procedure import Joint, Wps, with_deposit, with_pass
from anlage.core.ranges import Interval
from anlage.session.proposal.changes import fill_changes
from anlage.session.proposal.draft import drafted
from anlage.session.proposal.fill import filled, hot_over_root, proposed_fill
from anlage.session.weld.beads import bead_layout
from anlage.session.weld.usual import outdated, outdated_words, size_sentences

ROD = {"process": "SMAW", "filler": "E7018", "filler_diameter_mm": (3.2, 3.2)}
ROOT = {"process": "GTAW", "filler": "ER70S-2", "filler_diameter_mm": (2.4, 2.4)}
WIRE = {"process": "FCAW", "filler": "E71T-1M", "filler_diameter_mm": (1.2, 1.2)}


def butt(*deposits, thickness=20.0, gap=3.2, land=0.8, angle=70.0, position="1G", **stated):
    wps = Wps(joint=Joint(kind="single-v", product="plate", thickness_mm=thickness))
    dimensions = {"root_opening_mm": gap, "root_face_mm": land, "groove_angle_deg": angle, "reinforcement_mm": 1.6}
    for name, value in dimensions.items():
        wps = with_at(wps, f"joint/{name}", Dimension(nominal=value))
    wps = with_at(wps, "technique/position", position)
    for path, value in stated.items():
        wps = with_at(wps, path.replace("__", "/"), value)
    for each in deposits:
        wps, _ = with_deposit(wps, **each)
    return wps


def roles_of(wps, deposit):
    return [each.role for each in wps.passes if each.deposit == deposit]


# What was typed ------------------------------------------------------------------------------


def test_voltage_and_speed_typed_once_hold_for_the_whole_deposit():
    wps, _ = with_pass(butt(ROD), "d1", voltage_v=(22, 23), travel_speed_mm_min=(110, 130))
    done = filled(wps)
    assert {(each.voltage_v, each.travel_speed_mm_min) for each in done.passes} == {
        (Interval(22, 23), Interval(110, 130))
    }
    assert not any(path.endswith(("voltage_v", "travel_speed_mm_min")) for path in done.proposed)
    assert any(path.endswith("current_a") for path in done.proposed)


def test_a_current_typed_for_a_role_holds_for_that_role_alone():
    wps, _ = with_pass(butt(ROOT, ROD), "d2", role="cap", current_a=(120, 130))
    done = filled(filled(wps))
    caps, fills = (
        [each for each in done.passes if each.deposit == "d2" and each.role == role] for role in ("cap", "fill")
    )
    assert {each.current_a for each in caps} == {Interval(120, 130)}
    assert Interval(120, 130) not in {each.current_a for each in fills}


def test_what_was_only_proposed_is_proposed_anew():
    done = filled(butt(ROD))
    up = with_at(with_at(done, "technique/position", "3G"), "technique/progression", "uphill")
    again = filled(up)
    assert {each.current_a for each in done.passes}.isdisjoint(each.current_a for each in again.passes)
    assert {path.split("/")[1] for path in again.proposed} == {each.id for each in again.passes}
    rows = fill_changes(done, again, "si")
    assert any(each.label.endswith("current") and each.left != each.right for each in rows)
    assert fill_changes(done, done, "si") == ()


def test_settings_typed_in_full_lay_whole_beads_of_their_size():
    wps, _ = with_pass(butt(ROD), "d1", current_a=(115, 145), travel_speed_mm_min=(100, 120))
    done = filled(wps)
    areas = {round(bead.area_mm2, 3) for bead in bead_layout(done).beads}
    assert len(areas) == 1
    layout = bead_layout(done)
    assert layout.laid_mm2 == pytest.approx(sum(each.room_mm2 for each in layout.fillings), rel=0.06)


# Which deposit -------------------------------------------------------------------------------


def test_two_rod_layers_come_before_wire():
    done = filled(butt(ROOT, WIRE))
    assert roles_of(done, "d1") == ["root", "hot"]
    assert set(roles_of(done, "d2")) == {"fill", "cap"}


def test_a_deposit_lays_what_its_passes_say():
    wps = butt(ROOT, ROD, WIRE)
    for home, role in (("d1", "root"), ("d2", "hot"), ("d2", "fill"), ("d3", "cap")):
        wps, _ = with_pass(wps, home, role=role)
    done = filled(wps)
    assert roles_of(done, "d1") == ["root"]
    assert set(roles_of(done, "d2")) == {"hot", "fill"}
    assert set(roles_of(done, "d3")) == {"cap"}


def test_a_deposit_that_lays_nothing_is_told_and_none_is_left_out_where_there_is_room():
    thin = proposed_fill(butt(ROOT, ROD, WIRE, thickness=3.0, gap=2.0))
    assert any("lays nothing: the joint is full before it" in each for each in thin.minded)
    enough = proposed_fill(butt(ROOT, ROD, WIRE, thickness=12.0))
    assert {each.deposit for each in enough.wps.passes} == {"d1", "d2", "d3"}
    assert not any("lays nothing" in each for each in enough.minded)


def test_what_is_seldom_done_is_told_with_what_is_done_instead():
    (said,) = proposed_fill(butt(ROD)).minded
    assert said.startswith("An open root by a low-hydrogen electrode")
    assert "Lay the root by GTAW" in said
    gs = {"process": "FCAW", "filler": "E71T-GS", "filler_diameter_mm": (0.9, 0.9)}
    down = butt(gs, position="3G", technique__progression="downhill")
    assert any("single pass" in each for each in proposed_fill(down).minded)


def test_a_bead_that_no_usual_setting_lays_is_told():
    huge = butt({**ROOT, "filler_diameter_mm": (1.6, 1.6)}, thickness=40.0, gap=6.0)
    wide = with_at(huge, "joint/kind", "square")
    assert any("lays a bead so large: take a thicker filler there" in each for each in proposed_fill(wide).minded)
    thin = butt({**ROD, "filler_diameter_mm": (4.8, 4.8)}, thickness=3.0, gap=1.0)
    assert any("lays a bead so small: take a thinner filler there" in each for each in proposed_fill(thin).minded)


# Root and weave ------------------------------------------------------------------------------


@pytest.mark.parametrize(("land", "gap"), [(0.8, 3.2), (2.4, 2.4), (3.2, 3.2)])
def test_an_open_root_stands_over_its_land(land, gap):
    """Land and about 1.6 mm (common practice, no source)."""
    root = filled(
        butt({"process": "SMAW", "filler": "E6010", "filler_diameter_mm": (3.2, 3.2)}, land=land, gap=gap)
    ).passes[0]
    assert root.role == "root"
    assert root.thickness_mm.low >= land + 1.5


def test_the_land_is_read_off_the_groove():
    shape = shape_of(
        Preparation(kind="single-v", thickness_mm=10, root_opening_mm=3, root_face_mm=2, groove_angle_deg=60)
    )
    assert land_of(shape.grooves[0]) == pytest.approx(2.0)
    sharp = shape_of(
        Preparation(kind="single-v", thickness_mm=10, root_opening_mm=3, root_face_mm=0, groove_angle_deg=60)
    )
    assert land_of(sharp.grooves[0]) == 0.0


def test_the_second_pass_over_a_thin_root_is_held_back():
    """A root under about 3 mm: at most 1.15 times its current (common practice, no source)."""
    thin = filled(butt({**ROOT, "filler_diameter_mm": (1.6, 1.6)}, thickness=8.0, gap=3.2, land=0.0))
    assert thin.passes[0].thickness_mm.low < 3.0
    assert hot_over_root(thin) <= 1.15 + 0.05
    thick = filled(butt({**ROOT, "filler_diameter_mm": (3.2, 3.2)}, thickness=14.0))
    assert thick.passes[0].thickness_mm.low >= 3.0
    assert hot_over_root(thick) == pytest.approx(1.3)


@pytest.mark.parametrize("weave", [True, False])
def test_a_weave_limit_is_obeyed_by_splitting(weave):
    stated = {"technique__bead_technique": "weave" if weave else "stringer", "seam__weave_limit_mm": 8.0}
    done = filled(butt(ROD, **stated))
    assert max(bead.width_mm for bead in bead_layout(done).beads if bead.key != done.passes[0].id) <= 8.0 + 0.4
    free = filled(butt(ROD, technique__bead_technique="weave"))
    assert len(free.passes) < len(done.passes)


def test_a_weave_limit_narrower_than_a_stringer_is_refused_with_one_that_goes():
    with pytest.raises(InputError, match=r"4 mm is narrower than a stringer of E7018; state \d+ mm or more"):
        filled(butt(ROD, seam__weave_limit_mm=4.0))


def test_no_bead_is_larger_or_smaller_than_its_settings_lay():
    usual = Size(pitch_mm=7.0, height_mm=2.5, least_mm2=12.0, most_mm2=24.0)
    for thickness in (6, 9, 14, 20, 33):
        joint = Preparation(
            kind="single-v", thickness_mm=thickness, root_opening_mm=3, root_face_mm=1, groove_angle_deg=70,
            reinforcement_mm=1.5,
        )  # fmt: skip
        for bead in fill(shape_of(joint), [usual]):
            assert 11.9 < bead.area_mm2 < 24.1


def test_of_two_sizes_it_is_said_which_pass_takes_which():
    cellulosic = {"process": "SMAW", "filler": "E6010", "filler_diameter_mm": (3.2, 4.0)}
    wps = butt(
        cellulosic, thickness=9.5, gap=1.6, land=1.6, angle=60.0, position="3G", technique__progression="downhill"
    )
    done = filled(wps)
    (said,) = (each.replace("\u2009", " ") for each in size_sentences(done, "si"))
    assert said.startswith("SMAW E6010 of two sizes, by current and role: 3.2 mm for pass 1, 4 mm for pass 2 to")
    thin, _ = with_pass(butt(cellulosic), "d1", role="fill", current_a=(80, 95))
    (said,) = (each.replace("\u2009", " ") for each in size_sentences(thin, "si"))
    assert "3.2 mm for pass 1;" in said
    assert size_sentences(butt(ROD), "si") == ()


# What a proposal was for ---------------------------------------------------------------------


@pytest.mark.parametrize(
    ("path", "value"),
    [
        ("technique/position", "3G"), ("technique/position", "4G"), ("deposits/d1/filler", "E6010"),
        ("deposits/d1/process", "GTAW"), ("deposits/d1/filler_diameter_mm", (4.0, 4.0)),
        ("deposits/d1/filler", "our own"), ("deposits/d1/filler", "E8018-B2"),
    ],
)  # fmt: skip
def test_settings_that_were_proposed_for_something_else_are_told_until_they_are_proposed_anew(path, value):
    done = filled(butt(ROD))
    assert outdated(done) == ()
    other = with_at(done, path, value)
    assert outdated(other) == tuple(range(1, len(done.passes) + 1))
    assert outdated_words(other).startswith(f"Pass 1 to {len(done.passes)}: proposed for another position")
    assert outdated(filled(other)) == ()


def test_a_filler_that_does_not_go_there_leaves_its_proposals_outdated():
    done = filled(butt(ROD))
    down = with_at(with_at(done, "technique/position", "3G"), "technique/progression", "downhill")
    assert len(outdated(down)) == len(done.passes)


def test_what_was_typed_is_never_outdated_and_a_strip_goes_with_the_pass_below():
    wps, _ = with_pass(butt(ROD), "d1", current_a=(115, 145), voltage_v=(22, 23), travel_speed_mm_min=(100, 120))
    assert outdated(with_at(filled(wps), "technique/position", "3G")) == ()
    cellulosic = {"process": "SMAW", "filler": "E6010", "filler_diameter_mm": (3.2, 3.2)}
    plate = butt(cellulosic, thickness=9.5, gap=1.6, land=1.6, position="5G", technique__progression="downhill")
    pipe = with_at(with_at(plate, "joint/product", "pipe"), "joint/od_mm", 219.1)
    done = filled(pipe)
    assert "strip" in [each.role for each in done.passes]
    assert outdated(done) == ()


def test_a_progression_that_was_only_proposed_goes_with_its_position():
    pipe = with_at(with_at(butt(position="5G", thickness=8.0), "joint/product", "pipe"), "joint/od_mm", 219.1)
    done = drafted(with_at(pipe, "metals/one/name", "A106-B"), ("GTAW", "SMAW")).wps
    assert done.technique.progression == "uphill"
    lying = filled(with_at(done, "technique/position", "2G"))
    assert (lying.technique.progression, "technique/progression" in lying.proposed) == (None, False)
    stated = with_at(pipe, "technique/progression", "uphill")
    kept = filled(with_at(with_deposit(stated, **ROD)[0], "technique/position", "2G"))
    assert kept.technique.progression == "uphill", "somebody stated it"


def test_a_weld_without_filler_and_one_not_stated_say_what_stays_empty():
    (fused,) = proposed_fill(butt({"process": "GTAW", "filler": "none"}, thickness=3.0, gap=1.0)).minded
    assert fused == "GTAW without filler has no usual settings here: current, voltage and speed stay empty."
    (bare,) = proposed_fill(butt({"process": "GTAW"}, thickness=3.0, gap=1.0)).minded
    assert bare == "GTAW has no filler stated: current, voltage and speed stay empty."
