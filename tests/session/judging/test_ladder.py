"""The ladder in words: why, what to change, and the leaf where it is typed."""

import pytest

from anlage.core.codes.kinds import spoken
from anlage.core.document import read_strict, with_at
from anlage.core.drawing import Path
from anlage.core.drawing.rung import rung
from anlage.core.procedure import WPS
from anlage.core.ranges import ANY, NONE, between, choices, numbers
from anlage.core.ranges.interval import Interval
from anlage.core.record import PQR
from anlage.data.code_packs import code_pack
from anlage.data.files import text_of
from anlage.session.judging.assessment import Assessment, Assessor
from anlage.session.judging.ladder import lines, support_sentences
from anlage.session.leaves.set_text import set_text
from anlage.session.leaves.table import field_of
from anlage.session.leaves.text import with_text


@pytest.fixture(scope="module")
def judge():
    numbers_ = ("01", "02")
    return Assessor([(n, read_strict(text_of(f"demo/OST-R-{n}.json"), PQR)) for n in numbers_])


def sound(**changes):
    wps = read_strict(text_of("demo/OST-W-01.json"), WPS)
    for path, value in changes.items():
        wps = with_at(wps, path.replace("__", "/"), value)
    return wps


def line(judge, wps, variable, system="si"):
    (found,) = [each for each in lines(wps, judge.assess(wps), system) if each.rung.id == variable]
    return found


def plain(text):
    return text.replace("\u2009", " ")


def test_a_range_that_reaches_too_far_says_how_far_it_may_go(judge):
    wps = sound(range__thickness_mm=[3, 40])
    found = line(judge, wps, "base_metal_thickness_mm")
    assert plain(found.reason) == (
        "3..40 mm is stated; OST-R-01 allows 5..32 mm: 2 × 16 mm recorded on OST-R-01 by QW-403.8, QW-451.1; "
        "a coupon from 20 mm on would lift it."
    )
    assert plain(found.mend) == "State at least 5 mm and at most 32 mm, or weld a test that covers it."
    assert "1.260 in" in plain(line(judge, wps, "base_metal_thickness_mm", "us").mend)


def test_a_token_that_is_not_allowed_says_which_are(judge):
    found = line(judge, sound(deposits__d2__filler="E6010"), "f_number.SMAW")
    assert found.reason == "3 is stated; OST-R-01 allows 4."
    assert found.mend == "Take a filler of F-Number 4, or weld a test that covers it."


def test_what_is_not_stated_is_to_be_stated(judge):
    found = line(judge, sound(technique__peening=None), "peening")
    assert (found.reason, found.mend) == ("The procedure does not state peening.", "State the peening.")


def test_a_record_that_allows_nothing_says_why(judge):
    found = line(judge, sound(header__impact=True), "base_metal_thickness_mm")
    assert found.reason.endswith("allows nothing: impact is demanded and the record has no impact results.")
    assert found.mend == "Weld a test that covers it."


def test_problems_come_first_and_each_deposit_names_its_records(judge):
    wps = sound(range__thickness_mm=[6, 40], technique__peening=None)
    verdicts = [each.rung.verdict for each in lines(wps, judge.assess(wps), "si")]
    assert verdicts == sorted(verdicts, key=("outside", "unproven", "inside").index)
    assert support_sentences(sound(), judge.assess(sound())) == (
        "GTAW rests on OST-R-01", "SMAW rests on OST-R-01",
    )  # fmt: skip
    assert support_sentences(wps, judge.assess(wps))[0] == "no record covers GTAW as stated"
    assert (
        lines(wps, Assessment(None, "no code is stated"), "si") == support_sentences(wps, Assessment(None, "x")) == ()
    )


def test_every_rung_of_the_demo_leads_to_a_field_that_answers_it(judge):
    for wps in (sound(), sound(header__impact=True)):
        for each in lines(wps, judge.assess(wps), "si"):
            if each.path:
                assert field_of(each.path), each.rung.id
            else:
                assert each.rung.variable in ("bead_area_mm2", "run_out_ratio", "heat_input_measure"), each.rung.id


def test_a_problem_is_mended_by_typing_what_the_ladder_asks_for(judge):
    wps = sound(range__thickness_mm=[6, 40], technique__peening=None)
    wps = with_text(wps, line(judge, wps, "base_metal_thickness_mm").path, "6..32", "si")
    wps = with_text(wps, line(judge, wps, "peening").path, "none", "si")
    assert judge.assess(wps).judgement.verdict == "inside"


def test_every_variable_of_the_code_has_words():
    for variable in code_pack("asme-ix").variables:
        assert "_" not in spoken(variable)


@pytest.mark.parametrize(
    ("variable", "values", "text"),
    [
        ("preheat_c", between(85, None), "≥ 85 °C"),
        ("deposit_thickness_mm", numbers([Interval(0, 4), Interval(6, 8)]), "0..4 mm or 6..8 mm"),
        ("amps", between(95, 115), "95..115 A"),
        ("p_number", choices("1+1", "4+1"), "1+1, 4+1"),
        ("p_number", ~choices("1+1"), "any but 1+1"),
        ("p_number", ANY, "any"),
        ("p_number", NONE, "nothing"),
    ],
)
def test_sets_are_written_as_people_read_them(variable, values, text):
    assert plain(set_text(variable, values, "si")) == text


# The picture of a rung -----------------------------------------------------------------------


def spans(picture, role):
    return [(min(xs), max(xs)) for item in picture.items if isinstance(item, Path) and item.role == role
            for xs in [[x for x, _ in item.points]] if max(xs) > min(xs)]  # fmt: skip


def test_the_bands_of_a_rung_stand_on_one_scale():
    picture = rung(between(4, 14), between(2, 12), between(2, 12), 60.0)
    (allowed,), (stated,), (over,) = (spans(picture, role) for role in ("allowed", "stated", "overhang"))
    per = (allowed[1] - allowed[0]) / 10
    assert stated[1] - stated[0] == pytest.approx(10 * per)
    assert stated[0] - allowed[0] == pytest.approx(2 * per)
    assert over == pytest.approx((allowed[1], stated[1]))


def test_a_stated_band_that_is_allowed_has_no_overhang_and_an_absent_end_an_arrow():
    picture = rung(between(80, 80), between(30, None), between(30, None), 60.0)
    assert spans(picture, "overhang") == []
    assert [item.direction_deg for item in picture.items if not isinstance(item, Path)] == [0.0]
    assert spans(picture, "stated")


def test_words_have_no_scale():
    assert rung(choices("1+1"), choices("1+1"), ANY, 60.0) is None
    assert rung(None, ANY, ANY, 60.0) is None
    assert rung(None, between(5, 32), between(5, 32), 60.0) is not None


def test_a_controlled_waveform_is_answered_by_what_its_source_shows(judge):
    wps = sound(header__impact=True, deposits__d2__waveform="yes")
    found = line(judge, wps, "heat_input_kj_mm.SMAW")
    assert (found.stated, found.path) == ("not stated", "passes/p13/heat_input_kj_mm")
    assert field_of(found.path).label == "Energy shown"
