"""What is not the same all along a seam: marked stops by the clock, tacks and their ends, strip beads."""

import math

import pytest

from anlage.core.document import read_strict, with_at
from anlage.core.drawing import Path
from anlage.core.errors import InputError
from anlage.core.procedure import WPS, Pass, with_element, without_pass
from anlage.core.ranges import Interval
from anlage.data.files import FOLDER
from anlage.formats.font import measure
from anlage.session.proposal.fill import filled
from anlage.session.seam.part_passes import LOW_DOWNHILL, part_sentences, with_strip
from anlage.session.seam.seam_places import place, places, reach_of_pass, seam_mm
from anlage.session.seam.stop_plan import stop_picture, stop_plan, stop_sentences
from anlage.session.seam.tacks import placed_tacks, tack_sentences, with_tacks
from anlage.session.takes.takes import weld_takes
from anlage.session.weld.beads import bead_layout
from anlage.session.weld.picture_sheet import Sheet


def demo(number, **stated):
    wps = read_strict((FOLDER / f"demo/OST-W-0{number}.json").read_text(encoding="utf-8"), WPS)
    for path, value in stated.items():
        wps = with_at(wps, path.replace("__", "/"), value)
    return wps


def plate(**stated):
    return demo(1, **stated)


def pipe(**stated):
    return with_at(demo(2, **stated), "tacks", ())


def partial(wps, reach):
    return reach_of_pass(wps, Pass(id="p", deposit="d", reach=reach))


# Places --------------------------------------------------------------------------------------


def test_a_place_is_read_by_the_clock_round_a_pipe_and_by_length_along_a_plate():
    assert place(pipe(), "4:30") == 135.0
    assert place(pipe(), "12 o'clock") == 0.0
    assert place(plate(), "1/2 in") == pytest.approx(12.7)
    with pytest.raises(InputError, match="clock position"):
        place(pipe(), "120 mm")


def test_words_that_name_no_place_are_kept_apart():
    found = places(pipe(), "1:30, here, 7.5")
    assert (found.at, found.unread) == ((45.0, 225.0), ("here",))


@pytest.mark.parametrize(
    ("reach", "stretches"),
    [
        ("2 to 4", ((60, 120),)),
        ("4 to 2", ((60, 120),)),
        ("11..1", ((330, 390),)),
        ("2 to 4 o'clock, 8 to 10", ((60, 120), (240, 300))),
    ],
)
def test_a_part_of_a_pipe_goes_the_shorter_way_round(reach, stretches):
    found = partial(pipe(), reach)
    assert found.stretches == stretches
    degrees = sum(end - start for start, end in stretches)
    assert found.length_mm == pytest.approx(math.pi * 141.3 * degrees / 360)


def test_a_stretch_over_twelve_holds_what_lies_on_both_sides_of_it():
    found = partial(pipe(), "11 to 1")
    assert all(found.holds(at) for at in (330.0, 350.0, 0.0, 30.0))
    assert not any(found.holds(at) for at in (31.0, 180.0, 329.0))


def test_what_is_no_part_is_told():
    assert partial(plate(), "100 mm to 250 mm, top").unread == ("top",)
    assert partial(pipe(), "3 to 3").unread == ("3 to 3",)


# Marked stops --------------------------------------------------------------------------------


def test_every_pass_of_a_pipe_stops_at_its_marks_on_the_half_they_lie_on():
    """Stop and restart at marked places inside the specimens of a test (common practice, no source)."""
    wps = pipe(seam__marks="1:30, 7:30", seam__stagger_mm=None)
    for plan in stop_plan(wps):
        right, left = plan.ways
        assert any(right.half.at(at / right.length_mm) == pytest.approx(45.0) for at in right.stops.at_mm)
        assert any(left.half.at(at / left.length_mm) == pytest.approx(225.0) for at in left.stops.at_mm)


def test_a_mark_where_no_stop_may_be_is_kept_and_told():
    wps = pipe(seam__marks="4", seam__stop_rule="downhill", technique__progression="downhill")
    said = stop_sentences(wps, wps.passes[0].id, "si")
    assert any("a marked stop lies in the stretch from 3 to 5 o'clock" in each for each in said)


def test_a_mark_that_is_no_place_on_the_clock_is_told():
    wps = pipe(seam__marks="120 mm")
    assert "Marked stop 120 mm is no place on the clock; write 4:30." in stop_sentences(wps, "", "si")


# Tacks ---------------------------------------------------------------------------------------


@pytest.mark.parametrize(("count", "places_deg"), [("2", {0, 180}), ("3", {0, 90, 270}), ("4", {0, 90, 180, 270})])
def test_tacks_are_set_out_by_their_number(count, places_deg):
    """12 and 6; 12, 3 and 9; 3, 6, 9 and 12 o'clock (common practice, no source)."""
    wps = with_tacks(pipe(seam__tacks=count))
    assert {each.at for each in placed_tacks(wps)} == places_deg
    assert {(each.first_end, each.second_end) for each in wps.tacks} == {("feathered", "feathered")}


def ends_at(wps, hour):
    each = next(each for each in wps.tacks if each.place == f"{hour} o'clock")
    return each.first_end, each.second_end


def test_only_ends_that_the_root_runs_into_are_feathered_and_the_bottom_tack_stays_whole():
    """Some feather only the ends welded into and leave the bottom tack whole (common practice, no source)."""
    uphill = with_tacks(pipe(seam__tacks="4"), entered_only=True)
    assert ends_at(uphill, 6) == ("whole", "whole")
    assert ends_at(uphill, 12) == ("feathered", "feathered")
    assert (ends_at(uphill, 3), ends_at(uphill, 9)) == (("whole", "feathered"), ("feathered", "whole"))
    downhill = with_tacks(pipe(seam__tacks="4", technique__progression="downhill"), entered_only=True)
    assert ends_at(downhill, 12) == ("whole", "whole")
    assert ends_at(downhill, 3) == ("feathered", "whole")
    assert not any("left whole" in each for each in tack_sentences(uphill, "si"))


def test_a_whole_end_that_the_root_runs_into_is_told():
    wps = with_tacks(pipe(seam__tacks="4"))
    three = next(each.id for each in wps.tacks if each.place == "3 o'clock")
    wps = with_at(wps, f"tacks/{three}/second_end", "whole")
    said = tack_sentences(wps, "si")
    assert said[0] == "Tack at 3 o'clock: the root runs into its second end, which is left whole; feather it."
    bridged = with_at(wps, f"tacks/{three}/form", "bridge")
    assert not any("left whole" in each for each in tack_sentences(bridged, "si"))
    assert any(each.startswith("Bridge at 3 o'clock: cut it out") for each in tack_sentences(bridged, "si"))


def test_a_tack_of_unusual_length_or_without_a_place_is_told():
    wps, _ = with_element(pipe(), "tacks", place="5 o'clock", length_mm=60.0)
    wps, _ = with_element(wps, "tacks", place="left of it")
    said = tack_sentences(wps, "si")
    assert "12.7 mm to 25.4 mm is usual" in said[0].replace("\u2009", " ")
    assert said[1].startswith("Tack at left of it: write 4 o'clock")


def test_tacks_are_drawn_where_they_sit_a_feathered_end_run_out():
    wps = with_tacks(pipe(seam__tacks="4"), entered_only=True)
    picture = stop_picture(wps, "", Sheet(150.0, 120.0, "si", measure))
    drawn = {item.target: item for item in picture.items if isinstance(item, Path) and item.role == "clock_tack"}
    assert set(drawn) == {f"tacks/{each.id}" for each in wps.tacks}
    top, bottom = (drawn[f"tacks/{each.id}"].points for each in wps.tacks if each.place[:2] in ("12", "6 "))
    assert _outside_share(top) < 0.5 < _outside_share(bottom)


def _outside_share(points):
    """How long a tack is on its outside, as a share of its foot."""
    radii = [math.hypot(*point) for point in points]
    middle = (min(radii) + max(radii)) / 2
    sides = [[x for (x, _), r in zip(points, radii, strict=True) if outer == (r > middle)] for outer in (True, False)]
    return (max(sides[0]) - min(sides[0])) / (max(sides[1]) - min(sides[1]))


def test_tacks_of_a_plate_sit_at_both_ends():
    wps = with_tacks(plate(joint__seam_length_mm=400.0))
    assert [each.at for each in placed_tacks(wps)] == [9.5, 390.5]
    picture = stop_picture(wps, "", Sheet(150.0, 120.0, "si", measure))
    assert sum(isinstance(item, Path) and item.role == "clock_tack" for item in picture.items) == 2


# Beads on a part of the way ------------------------------------------------------------------


def downhill(**stated):
    return pipe(technique__progression="downhill", **stated)


def strip_of(wps):
    return next(each for each in wps.passes if each.role == "strip")


def test_downhill_a_strip_bead_near_three_and_nine_is_advised_until_there_is_one():
    """Downhill fill runs low near 3 and 9 o'clock: a short strip bead there (common practice, no source)."""
    advised = "Downhill the fill runs low near 3 and 9 o'clock: a strip bead there before the cap is usual."
    assert advised in part_sentences(downhill(), "si")
    assert advised not in part_sentences(pipe(), "si")
    wps = with_strip(downhill())
    assert strip_of(wps).reach == LOW_DOWNHILL
    assert [each.role for each in wps.passes][-2:] == ["strip", "cap"]
    assert advised not in part_sentences(wps, "si")


def test_a_strip_bead_lies_in_no_section_and_counts_only_where_it_is_laid():
    plain = downhill()
    wps = with_strip(plain)
    assert [bead.key for bead in bead_layout(wps).beads] == [each.id for each in plain.passes]
    strip = strip_of(wps)
    wps = with_at(wps, f"passes/{strip.id}/bead_area_mm2", Interval.single(20.0))
    more = weld_takes(wps, {}).metal_kg - weld_takes(plain, {}).metal_kg
    ring = seam_mm(wps)[0]
    at_surface = 20.0 * ring / 3 * 7.85e-6
    assert 0.9 * at_surface < more <= at_surface  # its middle lies a little inside the outside diameter


def test_the_stops_of_a_strip_bead_lie_in_its_part_and_it_runs_the_way_of_the_others():
    wps = with_strip(downhill())
    plan = next(each for each in stop_plan(wps) if each.pass_id == strip_of(wps).id)
    assert [(way.half.start_deg, way.half.end_deg) for way in plan.ways] == [(60, 120), (300, 240)]
    up = with_strip(pipe())
    plan = next(each for each in stop_plan(up) if each.pass_id == strip_of(up).id)
    assert [(way.half.start_deg, way.half.end_deg) for way in plan.ways] == [(120, 60), (240, 300)]


def test_a_strip_bead_without_a_place_or_after_the_cap_is_told():
    wps = with_strip(plate())
    number = [each.role for each in wps.passes].index("strip") + 1
    assert part_sentences(wps, "si")[0].startswith(f"Pass {number}, strip: say where it is laid")
    wps = with_at(wps, f"passes/{strip_of(wps).id}/reach", "100 mm to 250 mm")
    (said,) = part_sentences(wps, "si")
    assert said.replace("\u2009", " ") == f"Pass {number}, strip, 100 mm to 250 mm: 150 mm of weld."
    strip = strip_of(wps)
    late = with_at(without_pass(wps, strip.id), "passes", (*without_pass(wps, strip.id).passes, strip))
    assert any("comes after the cap" in each for each in part_sentences(late, "si"))


def test_filling_the_joint_anew_keeps_the_strip_bead_before_the_cap():
    steel = with_at(downhill(), "deposits/d2/filler", "E6010")  # neither E7018 nor 2.4 mm goes downhill
    steel = with_at(steel, "deposits/d2/filler_diameter_mm", (3.2, 3.2))
    wps = filled(with_strip(steel))
    roles = [each.role for each in wps.passes]
    assert roles.count("strip") == 1
    assert roles[roles.index("strip") + 1] == "cap"
    assert strip_of(wps).reach == LOW_DOWNHILL


def test_a_strip_bead_is_set_and_laid_like_the_pass_below():
    wps = downhill()
    place = next(n for n, each in enumerate(wps.passes) if each.role == "cap")
    below = wps.passes[place - 1].id
    woven = with_at(wps, f"passes/{below}/bead", "weave")
    strip, under = strip_of(with_strip(woven)), next(each for each in woven.passes if each.id == below)
    assert (strip.bead, strip.current_a, strip.travel_speed_mm_min) == (
        "weave",
        under.current_a,
        under.travel_speed_mm_min,
    )
