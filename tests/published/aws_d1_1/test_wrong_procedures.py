"""Procedures that are wrong in ways in which engineers are wrong, under AWS D1.1, each with its mended twin.

Source of the rules: AWS D1.1/D1.1M, 2015 and 2020, from memory, the clause named at each case; the cases are made up.
"""

import pytest

from anlage.core.document import Dimension
from tests.frames import amiss, assert_caught, frame, judged, record

BY_TEST = {"joint__root_opening_mm": Dimension(nominal=11.0)}  # no listed joint: a record has to carry it


def opening(nominal, minus=0.0, plus=0.0):
    return {"joint__root_opening_mm": Dimension(nominal=nominal, minus=minus, plus=plus)}


def case(name, variable, clause, wrong, mended, records=()):
    return pytest.param(variable, clause, wrong, mended, records, id=name)


WRONG = [
    case("root opening drawn too wide", "drawn_root_opening_mm", "Figure 5.1", frame(**opening(9.0)),
         frame(**opening(8.0))),
    case("root opening let too far as fitted up", "root_opening_mm", "Figure 5.1", frame(**opening(6.0, 3.0, 6.0)),
         frame(**opening(6.0, 2.0, 6.0))),
    case("filler of group II on group III", "filler_group", "T 5.4", frame(metals__one__name="A572-65",
         preheat__minimum_c=65.0), frame("GMAW", deposit={"filler": "ER80S-Ni1"}, metals__one__name="A572-50")),
    case("preheat of thin plate kept for thick", "preheat_c", "T 5.8", frame(range__thickness_mm=(6.0, 50.0)),
         frame(range__thickness_mm=(6.0, 50.0), preheat__minimum_c=65.0)),
    case("vertical passes downward", "progression", "5.8.1", frame(technique__position="3G",
         technique__progression="downhill"), frame(technique__position="3G", technique__progression="uphill")),
    case("currents of two jobs in one range", "melting_span", "T 5.2", frame(settings={"current_a": (160, 260)}),
         frame()),
    case("wire too thick overhead", "filler_diameter_mm", "T 5.1", frame(deposit={"filler_diameter_mm": 2.4},
         technique__position="4G"), frame(deposit={"filler_diameter_mm": 2.0}, technique__position="4G",
         settings={"wire_speed_mm_min": (2700, 2900)})),
    case("gas of another classification", "shielding_gas", "T 5.7", frame(deposit={"shielding_gas": "CO2"}),
         frame(deposit={"filler": "E71T-1C", "shielding_gas": "CO2"})),
    case("open root without a test", "root_side", "5.x", frame(joint__kind="single-v", joint__backing_form=None,
         joint__root_face_mm=Dimension(nominal=2.0), joint__groove_angle_deg=Dimension(nominal=60.0),
         technique__back_gouging="none", **opening(3.0)),
         frame(joint__kind="single-v", joint__backing_form=None, joint__root_face_mm=Dimension(nominal=2.0),
               joint__groove_angle_deg=Dimension(nominal=60.0), technique__back_gouging="arc air to sound metal",
               **opening(3.0))),
    case("steel that is never without a test", "material_group", "T 5.3", frame(metals__one__name="A514-B",
         preheat__minimum_c=110.0), frame()),
    case("thicker than twice the coupon", "base_metal_thickness_mm", "T 6.2", frame(range__thickness_mm=(6.0, 40.0),
         metals__one__name="A572-50", **BY_TEST), frame(range__thickness_mm=(6.0, 32.0), metals__one__name="A572-50",
         **BY_TEST), (record(metals__one__name="A572-50"),)),
    case("voltage beyond seven per cent", "volts", "T 6.5", frame(settings={"voltage_v": (24, 29)}, **BY_TEST),
         frame(settings={"voltage_v": (25, 27.5)}, **BY_TEST), (record(),)),
    case("horizontal from a test in flat", "position", "T 6.1", frame(technique__position="2G", **BY_TEST),
         frame(technique__position="1G", **BY_TEST), (record(),)),
    case("bevel joint under cyclic load laid flat", "position", "2.18", frame(joint__kind="bevel-backing",
         header__loading="cyclic"), frame(joint__kind="bevel-backing", header__loading="cyclic",
         technique__position="2G")),
]  # fmt: skip


@pytest.mark.parametrize(("variable", "clause", "wrong", "mended", "records"), WRONG)
def test_a_wrong_procedure_is_caught_with_its_clause_and_its_mended_twin_passes(
    variable, clause, wrong, mended, records
):
    assert_caught(variable, clause, wrong, records)
    told = amiss(mended, *records)
    assert judged(mended, *records).verdict == "inside" or set(told.values()) == {"unproven"}, told
    assert variable not in told or told[variable] == "unproven", told


def test_what_a_careless_hand_leaves_out_is_never_inside():
    sound = frame()
    assert judged(sound).verdict == "inside"
    for path in ("metals__one__name", "range__thickness_mm", "joint__kind", "joint__product", "technique__position",
                 "technique__progression", "preheat__minimum_c", "pwht__kind", "header__impact", "header__loading",
                 "header__strength", "joint__thickness_mm", "joint__backing_form", "joint__root_opening_mm",
                 "joint__groove_angle_deg"):  # fmt: skip
        assert judged(frame(**{path: None})).verdict != "inside", path
    for leaf in ("filler", "filler_diameter_mm", "shielding_gas", "output", "maker_current_a", "gas_flow_l_min"):
        assert judged(frame(deposit={leaf: None})).verdict != "inside", leaf
    for leaf in ("current_a", "voltage_v", "travel_speed_mm_min", "wire_speed_mm_min"):
        assert judged(frame(settings={leaf: None})).verdict != "inside", leaf


def test_toughness_is_shown_by_a_test_alone():
    assert judged(frame(header__impact=True)).verdict != "inside"


def test_a_range_that_crosses_the_split_of_a36_has_both_groups():  # BM-RANGE, T 5.3 (T 3.1 in 2015), H
    (own,) = [
        each for each in judged(frame(range__thickness_mm=(6.0, 40.0))).rungs if each.variable == "material_group"
    ]
    assert own.stated.tokens == frozenset(("I+I", "II-A36+I", "II-A36+II-A36"))


def test_a_metal_that_the_list_lacks_is_open_and_not_outside():
    told = amiss(frame(metals__one__name="A656-50"))
    assert told["material_group"] == "unproven"
    assert "outside" not in told.values()


@pytest.mark.parametrize(("units", "verdict"), [("si", "inside"), ("us", "outside")])
def test_the_two_columns_are_two_sets_of_requirements(units, verdict):
    wps = frame(header__units=units, range__thickness_mm=(6.35, 19.5), preheat__minimum_c=2.0, **opening(6.35))
    (own,) = [each for each in judged(wps).rungs if each.variable == "preheat_c"]
    assert own.verdict == verdict, "19.5 mm is not over 20 mm, and is over 3/4 in"
