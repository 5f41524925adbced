"""Each rule of the ASME IX pack just inside and just outside its limit, and where it does not apply.

Source: ASME BPVC Section IX, 2019-2023, the clause named in each row, from memory (H, or M where the pack says so).
"""

import pytest

from anlage.core.ranges import choices
from tests.builders import allowed, coupon, deposit, failing, judged, metals, wps

IN, FAHRENHEIT = 25.4, 5 / 9
TITANIUM, NICKEL, ZIRCONIUM, NINE_NICKEL = (metals(p) for p in ("51", "43", "61", "11A"))
TRAILING = {"trailing_gas": "Ar", "trailing_gas_flow_l_min": 20.0}
WIRE_ALONE = {"filler_classification": "EM12K", "flux_wire": "wire", "flux_tensile": None}
MACHINE = {"operation": "machine", "electrodes": "single"}

# clause, process, facts of the coupon's joint and deposit, impact, variable, just inside, just outside
LIMITS = [
    ("QW-404.4", "SMAW", {}, {}, False, "f_number", "4", "3"),
    ("QW-404.5", "GTAW", {}, {"a_number": "2"}, False, "a_number", "1", "3"),
    ("QW-404.5", "GTAW", {}, {"a_number": "8"}, False, "a_number", "8", "1"),
    ("QW-404.14", "GTAW", {}, {}, False, "filler_present", "with", "without"),
    ("QW-404.23", "GTAW", {}, {}, False, "product_form", "metal-cored", "flux-cored"),
    ("QW-404.7", "SMAW", {}, {"filler_diameter_mm": 5.0}, True, "filler_diameter_mm", 6.0, 6.4),
    ("QW-404.12", "SMAW", {}, {}, True, "filler_classification", "E7018-1", "E7018-A1"),
    ("QW-404.12", "SMAW", {}, {"filler_classification": "E7018-1"}, True, "filler_classification", "E7018-1", "E7018"),
    ("QW-404.12", "SMAW", {}, {"filler_classification": "E308L-16"}, True, "filler_classification", "E308L-15",
     "E309L-16"),
    ("QW-404.12", "GTAW", {}, {}, True, "filler_classification", "ER70S-2", "ER70S-6"),
    ("QW-405.2", "SMAW", {"progression": "downhill"}, {}, True, "progression", "downhill", "uphill"),
    ("QW-405.2", "GTAW", {"progression": "none"}, {}, True, "progression", "downhill", "uphill"),
    ("QW-405.2", "SMAW", {}, {}, True, "vertical_up_bead", "stringer", "weave"),
    ("QW-406.1", "SMAW", {"preheat_c": 140.0}, {}, False, "preheat_c", (85.0, 200), (84.9, 200)),
    ("QW-406.3", "SMAW", {"interpass_c": 230.0}, {}, True, "interpass_c", (20, 285.0), (20, 285.1)),
    ("QW-407.1", "SMAW", {}, {}, False, "pwht", "none", "below-ltt"),
    ("QW-408.2", "GTAW", {}, {}, False, "shielding_gas", "Ar", "Ar-25He"),
    ("QW-408.9", "GTAW", NICKEL, {"backing_gas": "Ar"}, False, "backing_gas", "He", "none"),
    ("QW-408.9", "GTAW", NICKEL, {"backing_gas": "Ar"}, False, "backing_gas", "Ar", "N2"),
    ("QW-408.10", "GTAW", TITANIUM, TRAILING, False, "trailing_gas", "He", "N2"),
    ("QW-408.10", "GTAW", TITANIUM, TRAILING, False, "trailing_gas_flow_l_min", 18.1, 18.0),
    ("QW-409.1", "GTAW", {}, {"heat_input_kj_mm": 1.5}, True, "heat_input_kj_mm", (1, 1.5), (1, 1.51)),
    ("QW-409.4", "GTAW", {}, {}, True, "current_type", "DCEN", "AC"),
    ("QW-410.9", "SMAW", {}, {}, True, "runs", "multi", "single"),
    ("QW-410.10", "GTAW", {}, MACHINE, True, "electrodes", "single", "multiple"),
    ("QW-410.11", "GTAW", TITANIUM, {"closed_chamber": "yes"}, False, "closed_chamber", "yes", "no"),
    ("QW-404.5", "SAW", {}, {"a_number": "2"}, False, "a_number", "1", "3"),
    ("QW-404.9", "SAW", {}, {}, False, "flux_tensile", "7", "8"),
    ("QW-404.9", "SAW", {}, WIRE_ALONE, False, "flux", "flux 12", "flux 13"),
    ("QW-404.9", "SAW", metals("8"), {"a_number": "8"}, False, "flux", "flux 12", "flux 13"),
    ("QW-404.24", "GMAW", {}, {}, False, "supplemental_filler", "none", "cold wire"),
    ("QW-404.34", "SAW", {}, {}, False, "flux_type", "neutral", "active"),
    ("QW-404.36", "SAW", {}, {}, False, "recrushed_slag", "no", "yes"),
    ("QW-404.23", "GMAW", {}, {}, False, "product_form", "metal-cored", "flux-cored"),
    ("QW-404.23", "FCAW", {}, {}, False, "product_form", "flux-cored", "bare"),
    ("QW-404.12", "FCAW", {}, {"filler_classification": "E70T-1C"}, True, "filler_classification", "E71T-1C",
     "E71T-1M"),
    ("QW-404.12", "SMAW", {}, {"filler_classification": "E8018-B2"}, True, "filler_classification", "E8016-B2",
     "E8018-C1"),
    ("QW-404.35", "SAW", {}, {}, True, "filler_classification", "F7A2-EM12K", "F7A4-EH14"),
    ("QW-405.2", "GMAW", {"progression": "none"}, {}, True, "progression", "downhill", "uphill"),
    ("QW-408.2", "GMAW", {}, {}, False, "shielding_gas", "Ar-10CO2", "Ar-20CO2"),
    ("QW-408.2", "FCAW", {}, {"shielding_gas": "none"}, False, "shielding_gas", "none", "CO2"),
    ("QW-408.4", "PAW", {}, {}, False, "shielding_gas", "Ar", "Ar-25He"),
    ("QW-408.4", "PAW", {}, {}, False, "orifice_gas", "Ar", "Ar-5H2"),
    ("QW-408.9", "GMAW", NICKEL, {"backing_gas": "Ar"}, False, "backing_gas", "He", "none"),
    ("QW-409.1", "SAW", {}, {"heat_input_kj_mm": 2.5}, True, "heat_input_kj_mm", (1, 2.5), (1, 2.51)),
    ("QW-409.2", "GMAW", {}, {}, False, "transfer_mode", "pulsed", "short"),
    ("QW-409.2", "GMAW", {}, {"transfer_mode": "short"}, False, "transfer_mode", "short", "globular"),
    ("QW-409.4", "SAW", {}, {}, True, "current_type", "DCEP", "AC"),
    ("QW-410.10", "SAW", {}, {}, True, "electrodes", "single", "multiple"),
    ("QW-410.11", "PAW", TITANIUM, {"closed_chamber": "yes"}, False, "closed_chamber", "yes", "no"),
    ("QW-410.12", "PAW", {}, {}, False, "keyhole", "melt-in", "keyhole"),
    ("QW-410.64", "SMAW", NINE_NICKEL | {"thermal_preparation": "no"}, {}, False, "thermal_preparation", "no", "yes"),
]  # fmt: skip
TREATED = {"pwht": "below-ltt", "pwht_temperature_c": 620.0, "pwht_time_h": 4.0}


def record_and_wps(process, joint, laid, variable, stated):
    record = coupon(15, deposit(process, t=15, **laid), **joint)
    of_the_joint = variable in record.joint
    changed = {} if of_the_joint else {variable: stated}
    return record, wps(record, 15, changed, **({variable: stated} if of_the_joint else {}))


@pytest.mark.parametrize(("clause", "process", "joint", "laid", "impact", "variable", "inside", "outside"), LIMITS)
def test_the_limit_lies_where_the_clause_has_it(asme, clause, process, joint, laid, impact, variable, inside, outside):
    record, stated = record_and_wps(process, joint, laid, variable, inside)
    assert failing(judged(asme, stated, record, impact=impact)) == []
    record, stated = record_and_wps(process, joint, laid, variable, outside)
    judgement = judged(asme, stated, record, impact=impact)
    (rung,) = [rung for rung in judgement.rungs if rung.verdict != "inside"]
    assert (rung.variable, rung.verdict) == (variable, "outside")
    assert clause in rung.clause


@pytest.mark.parametrize("case", [case for case in LIMITS if case[4]], ids=lambda case: f"{case[0]} {case[5]}")
def test_a_supplementary_variable_is_free_without_impact(asme, case):
    _, process, joint, laid, _, variable, _, outside = case
    record, stated = record_and_wps(process, joint, laid, variable, outside)
    assert failing(judged(asme, stated, record)) == []


LIFTED_BY_HEAT_TREATMENT = {
    "filler_diameter_mm", "progression", "vertical_up_bead", "interpass_c", "heat_input_kj_mm", "runs", "electrodes",
}  # fmt: skip


@pytest.mark.parametrize("case", [c for c in LIMITS if c[4]], ids=lambda case: f"{case[0]} {case[5]}")
def test_heat_treatment_above_transformation_lifts_what_its_clause_says(asme, case):
    _, process, joint, laid, _, variable, _, outside = case
    treated = {"pwht": "above-utt", "pwht_temperature_c": 910.0, "pwht_time_h": 1.0}
    record, stated = record_and_wps(process, {**joint, **treated}, laid, variable, outside)
    lifted = failing(judged(asme, stated, record, impact=True)) == []
    assert lifted is (variable in LIFTED_BY_HEAT_TREATMENT)


@pytest.mark.parametrize(
    ("changed", "variable"),
    [({"pwht_temperature_c": (600, 650)}, "pwht_temperature_c"), ({"pwht_time_h": 5.1}, "pwht_time_h")],
)
def test_heat_treatment_keeps_temperature_and_a_quarter_more_time(asme, changed, variable):  # QW-407.2
    record = coupon(15, **TREATED)
    assert failing(judged(asme, wps(record, 15, pwht_time_h=5.0), record, impact=True)) == []
    assert failing(judged(asme, wps(record, 15, **changed), record, impact=True)) == [variable]
    assert failing(judged(asme, wps(record, 15, **changed), record)) == []


def test_the_inch_columns_of_the_temperature_rules(asme):  # QW-406.1, QW-406.3: 100 °F
    record = coupon(15, preheat_c=140.0, interpass_c=230.0)
    low = allowed(asme, record, "preheat_c", units="us").parts[0].low
    high = allowed(asme, record, "interpass_c", impact=True, units="us").parts[0].high
    assert (low, high) == pytest.approx((140 - 100 * FAHRENHEIT, 230 + 100 * FAHRENHEIT))


def test_a_pass_over_half_an_inch_holds_the_base_metal(asme):  # QW-403.9
    thick_pass = coupon(30, deposit(t=30, pass_thickness_mm=13.5))
    assert allowed(asme, thick_pass, "base_metal_thickness_mm").parts[0].high == pytest.approx(33)
    assert allowed(asme, thick_pass, "thicker_member_mm").parts[0].high == pytest.approx(33)
    gtaw = coupon(30, deposit("GTAW", t=30, pass_thickness_mm=13.5))
    assert allowed(asme, gtaw, "base_metal_thickness_mm").parts[0].high == 60


def test_a_thicker_pass_than_tested_is_unproven(asme):  # QW-403.9, own reading (M)
    record = coupon(30)
    judgement = judged(asme, wps(record, 30, {"pass_thickness_mm": (3, 14)}), record)
    assert [(rung.id, rung.verdict) for rung in judgement.rungs if rung.verdict != "inside"] == [
        ("pass_thickness_mm.SMAW", "unproven")
    ]


def test_a_duplex_solution_anneal_holds_to_1_1_times(asme):  # QW-407.4 (M)
    treated = {"pwht": "solution", "pwht_temperature_c": 1050.0, "pwht_time_h": 0.5}
    duplex, austenitic = (coupon(20, **metals(p), **treated) for p in ("10H", "8"))
    assert allowed(asme, duplex, "base_metal_thickness_mm").parts[0].high == pytest.approx(22)
    assert allowed(asme, austenitic, "base_metal_thickness_mm").parts[0].high == 40


def test_austenitic_metal_above_transformation_keeps_its_range(asme):  # QW-407.4: not P-7, P-8, P-45
    assert allowed(asme, coupon(20, pwht="above-utt", **metals("8")), "base_metal_thickness_mm").parts[0].high == 40


def test_partial_penetration_and_repair_have_no_upper_limit_from_38_mm(asme):  # QW-202.2(b), QW-202.3
    for weld in ("partial", "repair"):
        assert allowed(asme, coupon(38), "base_metal_thickness_mm", weld=weld).parts[0].high == float("inf")
        assert allowed(asme, coupon(37.9), "base_metal_thickness_mm", weld=weld).parts[0].high == pytest.approx(75.8)


def test_thick_nine_nickel_may_be_gouged_by_heat(asme):  # QW-410.64: grooves under 16 mm
    assert allowed(asme, coupon(15.9, **NINE_NICKEL, thermal_preparation="no"), "thermal_preparation") == choices("no")
    thick = judged(asme, wps(coupon(16, **NINE_NICKEL), 16), coupon(16, **NINE_NICKEL))
    assert "thermal_preparation" not in {rung.variable for rung in thick.rungs}


def test_closed_chamber_of_zirconium_is_not_known(asme):  # QW-410.11
    record = coupon(10, deposit("GTAW", t=10, trailing_gas="none"), **ZIRCONIUM)
    assert failing(judged(asme, wps(record, 10), record)) == ["closed_chamber.GTAW"]


def test_autogenous_gtaw_has_no_filler_variables(asme):  # QW-404.14
    record = coupon(2, deposit("GTAW", t=2, filler_present="without"))
    variables = {rung.variable for rung in judged(asme, wps(record, 2), record, impact=True).rungs}
    assert not variables & {"f_number", "a_number", "filler_classification", "product_form"}
    assert failing(judged(asme, wps(record, 2, {"filler_present": "with"}), record)) == ["filler_present.GTAW"]


def test_nonferrous_deposits_have_no_a_number(asme):  # QW-404.5: ferrous weld metal only
    record = coupon(10, deposit("GTAW", t=10, f_number="43", backing_gas="Ar"), **NICKEL)
    assert "a_number" not in {rung.variable for rung in judged(asme, wps(record, 10), record).rungs}


@pytest.mark.parametrize("variable", ["backing", "root_opening_mm", "position", "cleaning", "peening"])
def test_a_nonessential_variable_need_only_be_stated(asme, variable):
    record = coupon(15)
    stated = wps(record, 15)
    del stated.joint[variable]
    judgement = judged(asme, stated, record)
    assert (judgement.verdict, failing(judgement)) == ("unproven", [variable])


@pytest.mark.parametrize(
    ("tested", "covered", "not_covered"),
    [("3+3", ["3+1"], "1+1"), ("4+4", ["4+3", "4+1"], "3+3"), ("5A+4", ["5A+3", "5A+1"], "4+4"),
     ("4+1", ["4+3"], "4+4"), ("3+1", [], "3+3"), ("8+8", [], "8+1"), ("8+1", [], "8+3"),
     ("15E+1", ["5B+1"], "15E+5B"), ("5B+5B", [], "5B+1")],
)  # fmt: skip
def test_pairs_of_qw_424_1(asme, tested, covered, not_covered):
    record = coupon(15, **metals(*tested.split("+")))
    pairs = allowed(asme, record, "p_number")
    assert all(pairs.contains(pair) for pair in (tested, *covered))
    assert not pairs.contains(not_covered)
