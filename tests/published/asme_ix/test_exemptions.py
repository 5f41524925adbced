"""What heat treatment, weld kind and metals lift or narrow, by ASME BPVC Section IX, 2019 to 2023 (from memory).

Each case names its clause; H unless marked.
"""

import pytest

from anlage.core.codes import Demand, Measured, cover_box
from anlage.core.ranges import between, choices
from tests.builders import allowed, coupon, deposit, judged, metals, verdict, wps

P8 = metals("8", groups=("1", "1"))
P10H = metals("10H", groups=("1", "1"))
NICKEL = metals("43", groups=("1", "1"))
TITANIUM = metals("51", groups=("1", "1"))


@pytest.mark.parametrize(
    ("joint", "pwht", "is_lifted"),
    [
        (metals("1"), "above-utt", True), (metals("1"), "solution", False), (P8, "solution", True),
        (P10H, "solution", True), (metals("8", "1"), "solution", False), (metals("1"), "below-ltt", False),
        (NICKEL, "solution", False), (metals("45"), "solution", True),
    ],
)  # fmt: skip
@pytest.mark.parametrize("variable", ["base_metal_thickness_mm", "interpass_c", "heat_input_kj_mm", "runs"])
def test_solution_annealing_exempts_austenitic_metals_alone(asme, joint, pwht, is_lifted, variable):
    # "HT exempt": above the upper transformation; solution annealed P-8, P-45, P-10H and no other (M).
    record = coupon(12, pwht=pwht, pwht_temperature_c=1050.0, pwht_time_h=1.0, **joint)
    own = cover_box(asme, record, Demand(impact=True)).deposits[0]
    rulings = own[variable].rulings if variable in own else ()
    assert any(each.rule.category == "supplementary" for each in rulings) is not is_lifted


@pytest.mark.parametrize(
    ("joint", "expected"),
    [(metals("1"), (5, 22)), (P8, (5, 40)), (metals("8", "1"), (5, 22)), (metals("8", "43"), (5, 40))],
)
def test_the_tenfold_limit_is_lifted_only_where_both_metals_are_exempt(asme, joint, expected):  # QW-407.4
    record = coupon(20, pwht="above-utt", pwht_temperature_c=920.0, **joint)
    assert allowed(asme, record, "base_metal_thickness_mm") == between(*expected)


@pytest.mark.parametrize("kind", ["solution", "range"])
def test_metals_without_a_transformation_are_held_to_the_temperature_of_the_record(asme, kind):  # QW-407.1(b)
    record = coupon(12, pwht=kind, pwht_temperature_c=1050.0, **P8)
    other = {"solution": "range", "range": "solution"}[kind]
    for temperature, expected in ((1050.0, "inside"), ((1040.0, 1060.0), "outside")):
        stated = wps(record, 12, pwht=other, pwht_temperature_c=temperature)
        assert verdict(asme, stated, record) == expected


def test_a_class_that_carbon_steel_does_not_have_proves_nothing(asme):  # QW-407.1(a)
    record = coupon(12, pwht="range", pwht_temperature_c=620.0, **metals("1"))
    assert verdict(asme, wps(record, 12), record) == "unproven"


@pytest.mark.parametrize(("weld", "joint", "expected"), [
    ("groove", NICKEL, "outside"), ("fillet", NICKEL, "inside"), ("groove", TITANIUM, "outside"),
    ("fillet", TITANIUM, "outside"),
])  # fmt: skip
def test_backing_gas_of_nickel_binds_grooves_alone(asme, weld, joint, expected):  # QW-408.9
    laid = deposit("GTAW", t=12, backing_gas="Ar", trailing_gas_flow_l_min=20.0)
    record = coupon(12, laid, **joint)
    stated = wps(record, 12, {"backing_gas": "none"}, weld=weld)
    found = {rung.variable: rung.verdict for rung in judged(asme, stated, record, weld=weld).rungs}
    assert found["backing_gas"] == expected


@pytest.mark.parametrize(
    ("gas", "expected"), [("He", "inside"), ("Ar-25He", "inside"), ("N2", "outside"), ("none", "outside")]
)
def test_trailing_gas_goes_from_inert_to_inert(asme, gas, expected):  # QW-408.10; composition part M
    record = coupon(12, deposit("GTAW", t=12, trailing_gas="Ar", trailing_gas_flow_l_min=20.0), **TITANIUM)
    found = {r.variable: r.verdict for r in judged(asme, wps(record, 12, {"trailing_gas": gas}), record).rungs}
    assert found["trailing_gas"] == expected


@pytest.mark.parametrize(
    ("thickness", "base", "laid"),
    [(9, (1.5, 18), (0, 18)), (30, (5, 60), (0, 60)), (50, (5, 100), (0, 100)), (120, (5, 240), (0, 240))],
)
def test_longitudinal_bends_buy_twice_the_coupon_and_no_more(asme, thickness, base, laid):  # QW-451.2
    record = coupon(thickness, bends="longitudinal")
    assert allowed(asme, record, "base_metal_thickness_mm") == between(*base)
    assert allowed(asme, record, "deposit_thickness_mm") == between(*laid)


@pytest.mark.parametrize(
    ("joint", "thickness", "thicker", "expected"),
    [
        (metals("1"), 20, 40, "inside"), (metals("1"), 20, 41, "outside"), (metals("1"), 40, 400, "inside"),
        (P8, 20, 40, "inside"), (P8, 20, 60, "unproven"), (P8, 5, 10, "inside"), (P8, 5, 11, "outside"),
        (P8, 40, 400, "inside"),
    ],
)  # fmt: skip
@pytest.mark.parametrize("weld", ["partial", "repair"])
def test_the_thicker_member_of_a_partial_penetration_weld_has_a_limit(asme, weld, joint, thickness, thicker, expected):
    # QW-202.2(b), QW-202.3, QW-202.4; whether the relief of like metals reaches them is unknown.
    record = coupon(thickness, **joint)
    stated = wps(record, thickness, weld=weld, thicker_member_mm=thicker)
    found = {r.variable: r.verdict for r in judged(asme, stated, record, weld=weld).rungs}
    assert found["thicker_member_mm"] == expected


def test_going_downhill_is_not_caught_by_a_limit_on_weaving_uphill(asme):  # QW-405.2 (M)
    record = coupon(16)
    down = wps(record, 16, progression="downhill", vertical_up_bead="none", bead_technique="weave")
    found = {rung.variable: rung.verdict for rung in judged(asme, down, record, impact=True).rungs}
    assert found["vertical_up_bead"] == "inside"


def test_the_time_of_heat_treatment_hangs_on_the_least_recorded(asme):  # QW-407.2 (least time M)
    treated = {"pwht": "below-ltt", "pwht_temperature_c": 620.0}
    record = coupon(16, pwht_time_h=Measured(4.0, 5.0, 6.0), **treated)
    assert allowed(asme, record, "pwht_time_h", impact=True).parts[0].high == 5.0
    assert verdict(asme, wps(record, 16, pwht_time_h=4.0), record, impact=True) == "inside"


def test_a_fillet_coupon_says_in_its_reason_that_it_holds_no_pressure(asme):  # QW-202.2(c)
    record = coupon(12, coupon_weld="fillet")
    judgement = judged(asme, wps(record, 12, weld="fillet"), record, weld="fillet")
    (rung,) = [each for each in judgement.rungs if each.variable == "weld"]
    assert (rung.verdict, rung.sure) == ("inside", choices("fillet"))
    assert "hold no pressure" in rung.reason


def test_no_rule_that_is_not_known_answers_inside(asme):
    for rule in asme.rules:
        said = f"{rule.title} {rule.note}"
        assert "not known" not in said or type(rule.kind).__name__ == "Unknown", rule.id
