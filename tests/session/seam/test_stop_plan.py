"""Starts and stops of a procedure: by its electrodes, round its pipe or along its seam, told where a rule breaks."""

import math
from itertools import pairwise

import pytest

from anlage.core.document import read_strict, with_at
from anlage.core.drawing import Path
from anlage.core.procedure import WPS, Wps
from anlage.data.files import FOLDER
from anlage.session.seam.stop_plan import stop_picture, stop_plan, stop_sentences
from anlage.session.weld.beads import bead_of
from anlage.session.weld.picture_sheet import Sheet


def procedure(**stated):
    wps = read_strict((FOLDER / "demo/OST-W-01.json").read_text(encoding="utf-8"), WPS)
    for path, value in stated.items():
        wps = with_at(wps, path.replace("__", "/"), value)
    return wps


def pipe(**stated):
    return procedure(**{"joint__product": "pipe", "joint__od_mm": 508.0, **stated})


def sheet():
    return Sheet(150.0, 120.0, "si", lambda text, height: 0.5 * height * len(text))


def test_an_electrode_reaches_as_far_as_its_metal_fills_the_bead():
    """Conservation of metal: core area times consumed length times recovery, over the bead (E7018 1/8 in)."""
    plan = stop_plan(procedure())
    fourth = plan[3]
    area = bead_of(procedure(), fourth.pass_id).area_mm2
    assert fourth.reach_mm == pytest.approx(math.pi / 4 * 3.2**2 * 300 * 1.15 / area, rel=1e-3)
    (way,) = fourth.ways
    assert fourth.count == math.ceil(2400 / fourth.reach_mm)
    assert max(b - a for a, b in way.stops.runs(way.length_mm)) <= fourth.reach_mm + 1e-6


def test_rods_have_no_end_but_the_welder_takes_his_place_anew():
    """After about 600 mm along a plate, and every quarter of a pipe (common practice, no source)."""
    root = stop_plan(procedure())[0]
    assert (root.reach_mm, root.count, root.led) == (600.0, 4, True)
    assert "4 starts; the welder takes his place anew after 600" in stop_sentences(procedure(), root.pass_id, "si")[0]
    small = stop_plan(pipe(joint__od_mm=168.3))[0]
    assert small.reach_mm == pytest.approx(math.pi * 168.3 / 4, rel=0.05)
    machine = procedure(deposits__d1__operation="machine")
    assert (stop_plan(machine)[0].reach_mm, stop_plan(machine)[0].count) == (None, 1)
    assert "led by a machine" in stop_sentences(machine, root.pass_id, "si")[0]


def test_a_root_by_rods_stops_at_every_tack():
    four = pipe(joint__od_mm=168.3, technique__progression="uphill", seam__tacks="4")
    plan = stop_plan(four)
    root, second = plan[0], plan[1]
    assert root.at_tacks
    assert not second.at_tacks
    for way in root.ways:
        assert any(at == pytest.approx(way.length_mm / 2) for at in way.stops.at_mm)  # at 3 and at 9 o'clock
    assert "stops at every tack, quarter by quarter" in stop_sentences(four, root.pass_id, "si")[0]
    assert "tack" not in stop_sentences(pipe(seam__tacks=None), root.pass_id, "si")[0]


def test_marked_stops_belong_to_a_pass_and_may_differ_from_pass_to_pass():
    """A test plate: bead 1 stops at one mark, bead 2 at another, none after (common practice, no source)."""
    wps = procedure(seam__marks="300 mm", seam__stagger_mm=None)
    ids = [each.id for each in wps.passes]
    wps = with_at(wps, f"passes/{ids[0]}/marks", "120 mm, 500 mm")
    wps = with_at(wps, f"passes/{ids[2]}/marks", "None")
    plan = {each.pass_id: each for each in stop_plan(wps)}
    assert {120.0, 500.0} <= set(plan[ids[0]].ways[0].stops.at_mm)
    assert 300.0 not in plan[ids[0]].ways[0].stops.at_mm
    assert 300.0 in plan[ids[1]].ways[0].stops.at_mm
    assert 300.0 not in plan[ids[2]].ways[0].stops.at_mm
    odd = with_at(wps, f"passes/{ids[0]}/marks", "yonder")
    assert any("Marked stop yonder is no length" in each for each in stop_sentences(odd, "", "si"))


def test_a_pipe_is_gone_round_in_two_halves():
    plan = stop_plan(pipe(technique__progression="uphill"))
    right, left = plan[3].ways
    assert right.length_mm == left.length_mm == pytest.approx(math.pi * 254)
    assert (right.half.start_deg, right.half.end_deg) == (180, 0)
    assert (left.half.start_deg, left.half.end_deg) == (180, 360)


def test_stops_that_lie_over_each_other_are_told_unless_they_are_marked():
    over = "lie over those of the pass before: state a stagger."
    assert any(over in each for each in stop_sentences(procedure(), "", "si"))
    assert not any(over in each for each in stop_sentences(procedure(seam__stagger_mm=20.0), "", "si"))
    assert not any(over in each for each in stop_sentences(procedure(seam__marks="300 mm"), "", "si"))


def test_stops_of_successive_passes_keep_their_stagger():
    plan = stop_plan(procedure(seam__stagger_mm=20.0))
    for below, above in pairwise(plan):
        if above.ways[0].stops.problem:
            continue
        for at in above.ways[0].stops.at_mm:
            assert all(abs(at - other) >= 20 - 1e-6 for other in below.ways[0].stops.at_mm)


def test_a_barred_arc_that_no_electrode_spans_is_told_by_pass():
    wps = pipe(technique__progression="downhill", seam__stop_rule="downhill")
    said = stop_sentences(wps, wps.passes[0].id, "si")
    assert any("one electrode lays" in each and "from 3 to 5 o'clock is 266 mm" in each for each in said)


def test_the_picture_has_a_run_for_every_electrode():
    wps = pipe(seam__tacks="4")
    picture = stop_picture(wps, wps.passes[3].id, sheet())
    runs = [item for item in picture.items if isinstance(item, Path) and item.role == "clock_run"]
    assert len(runs) == sum(each.count for each in stop_plan(wps))
    assert sum(isinstance(item, Path) and item.role == "clock_tack" for item in picture.items) == 4
    flat = stop_picture(procedure(), "", sheet())
    assert sum(isinstance(item, Path) and item.role == "metal" for item in flat.items) == 2  # run-on and run-off


def test_nothing_is_planned_before_there_are_beads():
    assert stop_plan(Wps()) == ()
    assert stop_picture(Wps(), "", sheet()) is None


def test_every_pass_of_a_test_plate_stops_at_its_marks():
    """Stop and restart at marked places inside the specimens (common practice, no source)."""
    wps = procedure(joint__seam_length_mm=400.0, seam__marks="120 mm, 280 mm, here")
    for plan in stop_plan(wps):
        assert {120.0, 280.0} <= set(plan.ways[0].stops.at_mm)
        runs = plan.ways[0].stops.runs(400.0)
        assert plan.reach_mm is None or max(b - a for a, b in runs) <= plan.reach_mm + 1e-6
    said = stop_sentences(wps, wps.passes[0].id, "si")
    assert "Marked stop here is no length; write 120 mm." in said
