"""Procedures by API 1104: worked cases API-W1 to W3 and W7 of the project's reference; wrong ones with their twins.

Source: API 1104, 20th to 22nd edition, from memory, the clause named at each case (numbers of the 20th and 21st); the
wrong procedures are made up. W4 to W6 and W8 are of welders, of radiography and of the tension test.
"""

import pytest

from anlage.core.codes.facts import Facts
from anlage.core.codes.specimens import Counter, lacking
from anlage.core.document import Dimension
from anlage.data.code_packs import code_pack
from anlage.session.judging.records import coupon_of
from tests.frames import amiss, assert_caught, judged
from tests.girths import IN, girth, girth_record

CASES_OF_TABLE_2 = [
    (16.0, 0.438, "X60-PSL2", {"tension": 4, "nick break": 4, "root bend": 4, "face bend": 4}),  # API-W1, H
    (2.875, 0.276, "X52-PSL2", {"tension": 1, "nick break": 2, "root bend": 2}),  # API-W2, note b, H
    (2.875, 0.276, "X42-PSL2", {"nick break": 2, "root bend": 2}),
    (4.5, 0.5, "B-PSL2", {"nick break": 2, "root bend": 2}),
    (12.75, 0.375, "X52-PSL2", {"tension": 2, "nick break": 2, "root bend": 2, "face bend": 2}),
    (12.75, 0.501, "X52-PSL2", {"tension": 2, "nick break": 2, "side bend": 4}),
    (24.0, 0.625, "X65-PSL2", {"tension": 4, "nick break": 4, "side bend": 8}),
    (4.0, 0.625, "X42-PSL2", {"nick break": 2, "side bend": 2}),
]  # fmt: skip


def missing(pqr, passed):
    pack = code_pack("api-1104")
    return lacking(pack.specimens, Facts(coupon_of(pqr, pack).joint, {}), "us", Counter(passed))


@pytest.mark.parametrize(("od", "wall", "grade", "wanted"), CASES_OF_TABLE_2)
def test_the_specimens_of_a_butt_weld(od, wall, grade, wanted):  # 5.6.1 Table 2, H
    pqr = girth_record(joint__od_mm=od * IN, joint__thickness_mm=wall * IN, metals__one__name=grade)
    assert missing(pqr, wanted) == ()
    for kind in wanted:
        assert missing(pqr, {**wanted, kind: wanted[kind] - 1}), f"one {kind} less"


def test_w3_a_group_by_its_highest_grade_and_what_else_the_coupon_covers():
    # 5.3.2.2, 5.4.2.2, .4 to .9, .13; the grade M, the rest H
    wps = girth(
        metals__one__name="X60-PSL2", deposit={"filler": "E7010-P1"}, range__thickness_mm=(0.25 * IN, 0.812 * IN),
        technique__root_to_second_min=9.0, preheat__minimum_c=21.1,
    )  # fmt: skip
    own = girth_record(preheat_least_c=10.0)
    told = {rung.variable: rung.verdict for rung in judged(wps, own).rungs}
    assert told["smys_group"] == told["f_number"] == told["position"] == told["direction"] == "inside"
    assert told["current_type"] == told["preheat_c"] == "inside"
    assert told["highest_yield_mpa"] == "unproven"
    assert told["wall_group"] == told["time_between_passes_min"] == "outside"


MECHANIZED = {
    "filler": "ER70S-6", "filler_diameter_mm": 1.0, "shielding_gas": "Ar-25CO2", "current_type": "DCEP",
    "operation": "machine", "transfer_mode": "short",
}  # fmt: skip


def test_w7_mechanized_welding_is_held_to_what_the_record_declares():  # 12.5.2, M
    def spans(low, high):
        return Dimension(nominal=low, plus=high - low)

    own = girth_record(
        "GMAW", {**MECHANIZED, "gas_flow_l_min": 22.0, "flow_range_l_min": (18.88, 25.96)},
        joint__thickness_mm=0.55 * IN, declared__thickness_mm=(0.5 * IN, 0.625 * IN),
        declared__groove_angle_deg=(4.0, 8.0), declared__root_face_mm=(0.04 * IN, 0.07 * IN),
        declared__root_opening_mm=(0.0, 0.02 * IN), joint__root_opening_mm=Dimension(nominal=0.2),
        joint__root_face_mm=Dimension(nominal=1.4), joint__groove_angle_deg=Dimension(nominal=6.0),
    )  # fmt: skip
    wps = girth(
        "GMAW", {**MECHANIZED, "gas_flow_l_min": (17.93, 25.96)}, range__thickness_mm=(0.5 * IN, 0.688 * IN),
        joint__thickness_mm=0.55 * IN, joint__groove_angle_deg=spans(5.0, 8.0),
        joint__root_face_mm=spans(0.04 * IN, 0.06 * IN), joint__root_opening_mm=spans(0.0, 0.02 * IN),
    )  # fmt: skip
    told = {rung.variable: rung.verdict for rung in judged(wps, own).rungs}
    assert told["base_metal_thickness_mm"] == "outside"
    assert "wall_group" not in told
    assert told["groove_angle_deg"] == told["root_face_mm"] == told["root_opening_mm"] == "inside"
    assert told["gas_flow_l_min"] == "outside"
    assert told["diameter_mm"] == "unproven", "no diameter is declared"


def case(name, variable, clause, wrong, mended, *records):
    return pytest.param(variable, clause, wrong, mended, records or (girth_record(),), id=name)


STRONG = girth_record(metals__one__name="X65-PSL2")
WRONG = [
    case("a grade of another strength group", "smys_group", "5.4.2.2", girth(metals__one__name="X65-PSL2"), girth()),
    case("another grade from 65 ksi on", "smys_group", "5.4.2.2", girth(metals__one__name="X70-PSL2"),
         girth(metals__one__name="X65-PSL2"), STRONG),
    case("another class on strong pipe", "filler_classification", "5.4.2.6 b", girth(metals__one__name="X65-PSL2",
         deposit={"filler": "E7010-P1"}), girth(metals__one__name="X65-PSL2"), STRONG),
    case("a wall of the next group", "wall_group", "5.4.2.5", girth(range__thickness_mm=(0.25 * IN, 0.875 * IN)),
         girth(range__thickness_mm=(0.188 * IN, 0.75 * IN))),
    case("low hydrogen in place of cellulose", "f_number", "5.4.2.6 a", girth(deposit={"filler": "E7018"}),
         girth(deposit={"filler": "E7010-P1"})),
    case("uphill from a test downhill", "direction", "5.4.2.9", girth(technique__progression="uphill"), girth()),
    case("rolled in place of fixed", "position", "5.4.2.4", girth(technique__position="1G",
         technique__progression="none"),
         girth(technique__position="6G")),
    case("longer from root to hot pass", "time_between_passes_min", "5.4.2.8", girth(technique__root_to_second_min=8.0),
         girth(technique__root_to_second_min=6.0)),
    case("slower than declared", "travel_speed_mm_min", "5.4.2.12", girth(settings={"travel_speed_mm_min": (150, 300)}),
         girth(settings={"travel_speed_mm_min": (200, 400)})),
    case("electrode negative", "current_type", "5.4.2.7", girth(deposit={"filler": "E6011",
         "current_type": "AC"}), girth()),
    case("colder than tested", "preheat_c", "5.4.2.13", girth(preheat__minimum_c=5.0), girth(preheat__minimum_c=10.0)),
    case("another major type of groove", "groove_form", "5.4.2.3", girth(joint__kind="single-u",
         joint__radius_mm=Dimension(nominal=6.0)), girth(joint__groove_angle_deg=Dimension(nominal=70.0))),
    case("semiautomatic from a manual test", "operation", "5.4.2.1", girth(deposit={"operation": "semiautomatic"}),
         girth()),
]  # fmt: skip


@pytest.mark.parametrize(("variable", "clause", "wrong", "mended", "records"), WRONG)
def test_a_wrong_procedure_is_caught_with_its_clause_and_its_mended_twin_passes(
    variable, clause, wrong, mended, records
):
    assert_caught(variable, clause, wrong, records)
    assert judged(mended, *records).verdict == "inside", amiss(mended, *records)


def test_x42_is_in_the_low_group_and_x65_in_one_of_its_own():  # trap 2: limits H, reading M
    def group(grade):
        rungs = judged(girth(metals__one__name=grade), girth_record()).rungs
        return next(each.stated.tokens for each in rungs if each.variable == "smys_group")

    assert [group(grade) for grade in ("B-PSL2", "X42-PSL2", "X46-PSL2", "X60-PSL2", "X65-PSL2", "X70-PSL2")] == [
        frozenset((word,)) for word in ("A", "A", "B", "B", "C-L450", "C-L485")
    ]  # fmt: skip


@pytest.mark.parametrize(("units", "wall", "group"), [("si", 4.78, "W2"), ("us", 0.188 * IN, "W2"), ("si", 4.74, "W1")])
def test_a_nominal_wall_is_rounded_to_a_tenth_of_a_millimetre(units, wall, group):  # trap 3, M
    wps = girth(header__units=units, range__thickness_mm=(wall, wall))
    (own,) = [each for each in judged(wps, girth_record()).rungs if each.variable == "wall_group"]
    assert own.stated.tokens == frozenset((group,))


def test_what_is_declared_and_does_not_hold_the_coupon_qualifies_nothing():  # trap 1, H
    own = girth_record(deposit={"travel_range_mm_min": (100, 200)})
    told = amiss(girth(settings={"travel_speed_mm_min": (120, 180)}), own)
    assert told == {"travel_speed_mm_min": "unproven"}


def test_a_record_that_declares_nothing_leaves_the_travel_speed_open():
    assert amiss(girth(), girth_record(deposit={"travel_range_mm_min": None})) == {"travel_speed_mm_min": "unproven"}


def test_what_a_careless_hand_leaves_out_is_never_inside():
    own = girth_record()
    assert judged(girth(), own).verdict == "inside", amiss(girth(), own)
    for path in ("metals__one__name", "range__thickness_mm", "range__diameter_mm", "technique__position", "pwht__kind",
                 "technique__progression", "technique__root_to_second_min", "technique__clamp", "preheat__minimum_c",
                 "technique__cleaning", "joint__kind"):  # fmt: skip
        assert judged(girth(**{path: None}), own).verdict != "inside", path
    for leaf in ("filler", "filler_diameter_mm", "current_type", "operation"):
        assert judged(girth(deposit={leaf: None}), own).verdict != "inside", leaf
    for leaf in ("current_a", "voltage_v", "travel_speed_mm_min"):
        assert judged(girth(settings={leaf: None}), own).verdict != "inside", leaf


def test_a_root_going_up_and_a_fill_going_down_are_compared_deposit_by_deposit():  # 5.4.2.9, H
    up = girth(deposit={"progression": "uphill"})
    assert amiss(up, girth_record()) == {"direction": "outside"}
    assert judged(up, girth_record(deposit={"progression": "uphill"})).verdict == "inside"
