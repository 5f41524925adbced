"""Fit-up round the joint: each station as it was measured, what does not fit there, and the worst one."""

import pytest

from anlage.core.document import Dimension, at, read_strict, with_at, write
from anlage.core.errors import InputError
from anlage.core.joint import area_and_centroid, joint_metal
from anlage.core.procedure import WPS, Wps, sketch_of, with_element, with_pass, without_element
from anlage.data.files import FOLDER
from anlage.formats.font import measure
from anlage.session.output.pictures import picture_file, picture_of
from anlage.session.seam.stations import at_station, station_sentences, stations, style_at, with_four, worst


def plain(text):
    return text.replace("\u2009", " ")


def procedure():
    wps = read_strict((FOLDER / "demo/OST-W-01.json").read_text(encoding="utf-8"), WPS)
    return with_at(wps, "joint/root_style", "keyhole-dip")


def untoleranced(wps):
    for name, nominal in (("root_opening_mm", 3.0), ("root_face_mm", 1.0)):
        wps = with_at(wps, f"joint/{name}", Dimension.stated(nominal=nominal))
    return wps


def measured(*rows, wps=None):
    wps = wps or procedure()
    for place, gap, land, mismatch in rows:
        wps, _ = with_element(wps, "stations", place=place, gap_mm=gap, land_mm=land, mismatch_mm=mismatch)
    return wps


def test_a_new_procedure_measures_four_stations_by_the_clock_or_along_the_seam():
    assert [each.place for each in with_four(procedure()).stations] == ["start", "first third", "second third", "end"]
    pipe = with_at(procedure(), "joint/product", "pipe")
    assert with_four(pipe).stations[0].place == "12 o'clock"


def test_a_station_has_its_own_section_metal_beads_and_energy():
    wps = measured(("a", 3.0, 1.5, 0.2), ("b", 4.5, 0.8, 0.2))
    tight, wide = stations(wps, "si")
    assert tight.metal == joint_metal(sketch_of(wps.joint).preparation)
    assert wide.metal.groove_area_mm2 > tight.metal.groove_area_mm2
    assert wide.beads >= tight.beads
    share = wide.metal.whole_area_mm2 / tight.metal.whole_area_mm2
    assert wide.energy[1] == pytest.approx(share * tight.energy[1])
    assert at_station(wps, wps.stations[1]).joint.root_opening_mm.nominal == 4.5
    assert wps.joint.root_opening_mm.nominal == 3.0


def test_what_was_not_measured_stays_as_stated():
    wps, _ = with_element(procedure(), "stations", place="a")
    assert at_station(wps, wps.stations[0]).joint is wps.joint
    assert station_sentences(Wps(), "", "si") == ()


def test_the_worst_station_is_named_with_its_measure():
    wps = measured(("a", 3.3, 0.7, 0.3), ("b", 1.8, 1.4, 1.0), ("c", 3.3, 0.7, 2.0))
    found = stations(wps, "si")
    bad, measure = worst(found)
    assert (bad.station.place, measure) == ("b", "Root opening")
    assert "many shops stop here" in found[2].sentences[0]
    assert plain(station_sentences(wps, wps.stations[0].id, "si")[-1]) == (
        "Worst station: b, root opening off by 1.37 mm."
    )
    less = measured(("a", 3.3, 0.7, 0.3), ("c", 3.3, 0.7, 2.0))
    assert plain(station_sentences(less, "", "si")[-1]) == "Worst station: c, mismatch over its aim by 1.21 mm."


def test_where_nothing_is_off_the_station_that_is_filled_least_is_the_worst():
    wps = measured(("a", 3.2, 0.7, 0.3), ("b", 3.9, 0.5, 0.3), wps=untoleranced(procedure()))
    tight, wide = stations(wps, "si")
    assert tight.off is wide.off is None
    assert wide.fill < tight.fill
    said = station_sentences(wps, "", "si")[-1]
    assert said == f"Worst station: b, filled to {100 * wide.fill:.0f} %."
    unknown, _ = with_pass(wps, wps.deposits[-1].id)
    assert stations(unknown, "si")[0].fill is None
    assert worst(stations(unknown, "si")) is None


def test_after_tacking_nobody_is_told_to_open_the_gap():
    rows = (("tight", 1.8, 0.5, 0.0), ("wide", 4.5, 0.0, 0.0), ("thick", 3.3, 2.5, 0.0))
    wps = measured(*rows, wps=untoleranced(procedure()))
    tight, wide, thick = ([plain(text) for text in each.sentences] for each in stations(wps, "si"))
    assert tight == [
        "Root opening 1.8 mm: keyhole dip goes with 3.17 mm to 3.97 mm; ease the gap with a thin disc where metal "
        "removal is allowed, else cut the tacks out and fit it up again."
    ]
    assert wide == [
        "Root opening 4.5 mm: keyhole dip goes with 3.17 mm to 3.97 mm; weld it there as back feed with filler of "
        "3.17 mm, else cut the tacks out and fit it up again."
    ]
    assert "thin the land with a thin disc where metal removal is allowed" in thick[0]
    assert not any("open the gap" in text or "close the gap" in text for text in (*tight, *wide, *thick))


def test_a_measure_is_off_no_tolerance_that_nobody_stated():
    bare = measured(("a", 3.6, 0.5, 0.0), wps=untoleranced(procedure()))
    assert not any("tolerance" in text for text in stations(bare, "si")[0].sentences)
    stated = with_at(bare, "joint/root_opening_mm", Dimension.stated(nominal=3.0, plus=0.5))
    assert any("outside the tolerance stated" in text for text in stations(stated, "si")[0].sentences)


def test_stations_are_saved_with_ids_of_their_own_and_taken_out():
    wps = measured(("a", 3.2, 0.5, 0.1))
    again = read_strict(write(wps), WPS)
    assert again == wps
    station = wps.stations[0].id
    assert station not in {each.id for each in (*wps.passes, *wps.deposits)}
    assert at(wps, f"stations/{station}/gap_mm") == 3.2
    assert without_element(wps, "stations", station).stations == ()
    more, new = with_element(without_element(wps, "stations", station), "stations")
    assert new != station
    assert len(more.stations) == 1


def test_a_station_and_the_sectors_of_a_pass_are_saved_by_their_names():
    wps = read_strict((FOLDER / "demo/OST-W-02.json").read_text(encoding="utf-8"), WPS)
    narrow, nominal = (picture_of(wps, name, "si", measure) for name in ("fit-up/9 o'clock", "beads"))
    areas = [
        sum(abs(area_and_centroid(item.points)[0]) for item in picture.items if item.role == "groove")
        for picture in (narrow, nominal)
    ]
    assert areas[0] < areas[1]  # a gap of 2.6 mm for one of 3
    by_id = picture_of(wps, f"fit-up/{wps.stations[3].id}", "si", measure)
    assert by_id == narrow
    assert picture_of(wps, "sectors/1", "si", measure) == picture_of(wps, f"sectors/{wps.passes[0].id}", "si", measure)
    with pytest.raises(InputError, match="there is no such station; name one by its place"):
        picture_of(wps, "fit-up/7 o'clock", "si", measure)
    with pytest.raises(InputError, match="there is no such pass; name one by its number"):
        picture_of(wps, "sectors/9", "si", measure)
    assert picture_file(wps, "sectors/1", ".svg", "si", measure) != picture_file(wps, "stops", ".svg", "si", measure)


def test_a_root_that_goes_by_the_clock_is_judged_by_the_part_where_it_was_measured():
    """Fed from inside low on the pipe, from outside at the top (common practice, no source)."""
    pipe = read_strict((FOLDER / "demo/OST-W-02.json").read_text(encoding="utf-8"), WPS)
    for each in pipe.stations:
        pipe = without_element(pipe, "stations", each.id)
    style = with_at(pipe, "joint/root_style", "inside-below-keyhole-above")
    low, high, nowhere = stations(measured(("6 o'clock", 4.5, 0.0, 0.2), ("1 o'clock", 4.5, 0.0, 0.2),
                                           ("left", 4.5, 0.0, 0.2), wps=style), "si")  # fmt: skip
    assert not any("goes with" in each for each in low.sentences)
    assert any("keyhole dip goes with" in plain(each) for each in high.sentences)
    assert any("fed from inside below, keyhole dip above goes with" in plain(each) for each in nowhere.sentences)
    assert style_at(style, "6 o'clock") == "back-feed"
    assert style_at(pipe, "6 o'clock") == "keyhole-dip"


@pytest.mark.parametrize(
    ("removal", "said"),
    [
        (None, "with a thin disc where metal removal is allowed, else"),
        ("yes", "ease the gap with a thin disc."),
        ("no", "cut the tacks out and fit it up again."),
    ],
)
def test_what_the_house_does_not_allow_is_not_advised(removal, said):
    """House rules switch steps: no metal removal, only a brush (common practice, no source)."""
    wps = with_at(measured(("a", 0.5, 0.5, 0.2)), "seam/metal_removal", removal)
    (found,) = (plain(each) for each in stations(wps, "si")[0].sentences if "Root opening" in plain(each))
    assert said in found
