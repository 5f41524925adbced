"""The worked cases W01…W15 of the project's ASME BPVC Section IX reference that concern procedures.

Source: ASME BPVC Section IX, 2019-2023, the clauses named at each case; the cases themselves are from memory, worked
by hand from the clauses (H unless marked).
"""

import math
import re

import pytest
from msgspec.structs import replace

from anlage.core.heat import arc_energy
from anlage.core.ranges import between, choices
from tests.builders import allowed, coupon, deposit, failing, judged, metals, verdict, wps

IN = 25.4


def test_w01_thickness_from_an_inch_coupon(asme):  # QW-403.8, QW-404.30, QW-451.1
    record = coupon(0.55 * IN, deposit(t=0.55 * IN, pass_thickness_mm=0.12 * IN))
    t = allowed(asme, record, "base_metal_thickness_mm", units="us")
    assert t.parts[0].low / IN == pytest.approx(3 / 16)
    assert t.parts[0].high / IN == pytest.approx(1.10)
    deposited = allowed(asme, record, "deposit_thickness_mm", units="us")
    assert deposited.parts[0].high / IN == pytest.approx(1.10)
    laid = {"deposit_thickness_mm": (0, 1.0 * IN)}
    assert verdict(asme, wps(record, (3 / 16 * IN, 1.0 * IN), laid), record, units="us") == "inside"
    judgement = judged(asme, wps(record, (1 / 8 * IN, 1.0 * IN), laid), record, units="us")
    assert judgement.verdict == "outside"
    assert failing(judgement) == ["base_metal_thickness_mm", "thicker_member_mm"]


def test_w02_toughness_raises_the_lower_limit(asme):  # QW-403.6, QW-451.1
    record = coupon(22, **metals("1", groups=("2", "2")))
    assert allowed(asme, record, "base_metal_thickness_mm", impact=True) == between(16, 44)
    assert allowed(asme, record, "deposit_thickness_mm", impact=True) == between(0, 44)
    low, high = wps(record, (12, 40)), wps(record, (16, 40))
    assert verdict(asme, low, record, impact=True) == "outside"
    assert verdict(asme, high, record, impact=True) == "inside"
    assert verdict(asme, low, record) == verdict(asme, high, record) == "inside"


def test_w03_each_process_has_the_thickness_of_its_own_deposit(asme):  # QW-200.4(a), QW-404.30
    record = coupon(13.49, deposit("GTAW", t=4.0), deposit("SMAW", t=9.5))
    assert allowed(asme, record, "base_metal_thickness_mm") == between(5, 26.98)
    assert allowed(asme, record, "deposit_thickness_mm") == between(0, 8.0)
    assert allowed(asme, record, "deposit_thickness_mm", deposit_index=1) == between(0, 19.0)
    both = wps(record, 20, {"deposit_thickness_mm": 6}, {"deposit_thickness_mm": 14})
    assert verdict(asme, both, record) == "inside"
    root_only = coupon(10, deposit("GTAW", t=10))
    alone = judged(asme, wps(root_only, 10, {"deposit_thickness_mm": 10}), record)
    assert failing(alone) == ["deposit_thickness_mm.GTAW"]
    assert alone.verdict == "outside"


def test_w04_heat_treatment_above_transformation_holds_to_1_1_times(asme):  # QW-407.4, QW-403.6 lifted
    record = coupon(
        50, deposit("SAW", t=50, pass_thickness_mm=6.0), pwht="above-utt", pwht_temperature_c=910.0, pwht_time_h=2.0
    )
    t = allowed(asme, record, "base_metal_thickness_mm", impact=True)
    assert t.parts[0].low == 5
    assert t.parts[0].high == pytest.approx(55)
    assert verdict(asme, wps(record, (20, 60)), record, impact=True) == "outside"
    assert verdict(asme, wps(record, (20, 55)), record, impact=True) == "inside"


@pytest.mark.parametrize(
    ("tested", "groups", "impact", "pair", "pair_groups", "expected"),
    [
        ("5A", ("1", "1"), False, ("5A", "1"), ("1", "1"), "inside"),
        ("5A", ("1", "1"), False, ("4", "4"), ("1", "1"), "outside"),
        ("15E", ("1", "1"), False, ("15E", "5B"), ("1", "1"), "inside"),  # M
        ("15E", ("1", "1"), False, ("15E", "5A"), ("1", "1"), "outside"),
        ("5A", ("1", "1"), True, ("5A", "1"), ("1", "2"), "outside"),
        ("5A", ("1", "1"), True, ("5A", "5A"), ("1", "1"), "inside"),
        ("15E", ("1", "1"), True, ("15E", "5B"), ("1", "1"), "outside"),
    ],
)
def test_w05_which_pairs_of_metals_a_coupon_covers(asme, tested, groups, impact, pair, pair_groups, expected):
    record = coupon(20, **metals(tested, groups=groups))  # QW-403.11, QW-424.1, QW-403.5
    joint = {name: value for name, value in metals(*pair, groups=pair_groups).items() if name != "p_numbers"}
    assert verdict(asme, wps(record, 20, **joint), record, impact=impact) == expected


def test_w06_preheat_and_interpass_by_55_degrees(asme):  # QW-406.1, QW-406.3
    record = coupon(20, preheat_c=140.0, interpass_c=230.0)
    assert allowed(asme, record, "preheat_c") == between(85, None)
    assert allowed(asme, record, "interpass_c", impact=True) == between(None, 285)

    def stated(preheat, interpass):
        return wps(record, 20, preheat_c=(preheat, interpass), interpass_c=(preheat, interpass))

    assert verdict(asme, stated(95, 280), record, impact=True) == "inside"
    assert verdict(asme, stated(80, 280), record, impact=True) == "outside"
    assert verdict(asme, stated(95, 290), record, impact=True) == "outside"
    assert verdict(asme, stated(95, 290), record) == "inside"


def test_w07_heat_input_of_a_spray_arc(asme):  # QW-409.1(a)
    tested = arc_energy(27, 240, 320 / 60)
    assert tested == pytest.approx(1.215)
    record = coupon(20, deposit("GMAW", t=20, heat_input_kj_mm=tested))
    hottest, held = arc_energy(28, 250, 300 / 60), arc_energy(28, 250, 346 / 60)
    assert (hottest, held) == (pytest.approx(1.4), pytest.approx(1.2139, abs=1e-4))
    over = wps(record, 20, {"heat_input_kj_mm": (0.9, hottest)})
    assert failing(judged(asme, over, record, impact=True)) == ["heat_input_kj_mm.GMAW"]
    assert verdict(asme, wps(record, 20, {"heat_input_kj_mm": (0.9, held)}), record, impact=True) == "inside"
    assert verdict(asme, over, record) == "inside"


def test_w08_f_number_a_number_and_classification(asme, shelves):  # QW-404.4, .5, .12
    record = coupon(20, deposit(t=20))
    assert allowed(asme, record, "f_number") == choices("4")
    assert allowed(asme, record, "a_number") == choices("1", "2")
    other = {name: asme.derive.filler_facts(shelves.filler(name)) for name in ("E7018-A1", "E8018-B2", "E7016")}
    molybdenum, chromium, sister = (wps(record, 20, other[n] | {"product_form": "x"}) for n in other)
    assert verdict(asme, molybdenum, record) == "inside"
    assert failing(judged(asme, molybdenum, record, impact=True)) == ["filler_classification.SMAW"]
    assert failing(judged(asme, chromium, record)) == ["a_number.SMAW"]
    assert verdict(asme, sister, record, impact=True) == "inside"


@pytest.mark.parametrize(
    ("changed", "expected"),
    [
        ({"shielding_gas": "Ar-20CO2"}, ["shielding_gas"]),
        ({"transfer_mode": "pulsed"}, []),
        ({"transfer_mode": "short"}, ["transfer_mode"]),
        ({"process": "MCAW", "product_form": "metal-cored", "filler_classification": "E70C-6M"}, []),
        ({"process": "FCAW", "product_form": "flux-cored", "filler_classification": "E71T-1M"}, ["product_form"]),
    ],
)
def test_w09_gas_transfer_and_form_of_the_wire(asme, changed, expected):  # QW-408.2, QW-409.2, QW-404.23
    record = coupon(20, deposit("GMAW", t=20))
    found = failing(judged(asme, wps(record, 20, changed), record))
    assert [name.split(".")[0] for name in found] == expected


@pytest.mark.parametrize(
    ("thickness", "p", "t_allowed", "thinner", "thicker", "expected"),
    [
        (20, "1", between(5, 40), 12, 60, "outside"),
        (40, "1", between(5, 200), 12, 250, "inside"),
        (7, "8", between(1.5, 14), 10, 75, "inside"),
    ],
)
def test_w10_unequal_members(asme, thickness, p, t_allowed, thinner, thicker, expected):  # QW-202.4(a)(b)
    record = coupon(thickness, **metals(p))
    assert allowed(asme, record, "base_metal_thickness_mm") == t_allowed
    stated = wps(record, thinner, {"deposit_thickness_mm": thinner}, thicker_member_mm=thicker)
    assert verdict(asme, stated, record) == expected


def test_w10_the_deposit_limit_holds_however_thick_the_member(asme):
    record = coupon(7, **metals("8"))
    assert allowed(asme, record, "deposit_thickness_mm") == between(0, 14)


def test_w13_a_groove_coupon_covers_fillets_of_every_thickness(asme):  # QW-202.2(c), QW-451.4
    record = coupon(12, **metals("1", groups=("2", "2")))
    for impact, groove in ((False, between(5, 24)), (True, between(12, 24))):
        assert allowed(asme, record, "base_metal_thickness_mm", impact=impact) == groove
        fillet = wps(record, (4, 70), {"deposit_thickness_mm": (5, 20)}, weld="fillet")
        judgement = judged(asme, fillet, record, impact=impact, weld="fillet")
        # Under toughness the reference lets it pass with a warning; two readings stay unproven (QW-403.6, M).
        assert judgement.verdict == ("unproven" if impact else "inside")
        assert verdict(asme, wps(record, (4, 70)), record, impact=impact) == "outside"
        thickness = [rung for rung in judgement.rungs if rung.variable == "base_metal_thickness_mm"]
        limits = [(rung.clause, rung.sure.parts[0].low, rung.sure.parts[0].high) for rung in thickness]
        assert limits == ([("QW-403.6", 12, math.inf)] if impact else [])
        thick = wps(record, (12, 70), {"deposit_thickness_mm": (5, 20)}, weld="fillet")
        assert verdict(asme, thick, record, impact=impact, weld="fillet") == "inside"


def test_w13_a_fillet_coupon_covers_no_groove(asme):  # QW-451.3
    record = coupon(12, coupon_weld="fillet")
    assert verdict(asme, wps(record, 12), record) == "outside"
    assert verdict(asme, wps(record, 12, weld="fillet"), record, weld="fillet") == "inside"


def test_w14_another_process_is_outside(asme):  # QW-401
    gtaw, smaw = coupon(20, deposit("GTAW", t=20)), coupon(20)
    judgement = judged(asme, wps(smaw, 20), gtaw)
    assert judgement.verdict == "outside"
    assert "process.SMAW" in failing(judgement)


def test_w14_gas_metal_and_flux_cored_arc_are_one_process(asme):  # QW-401, QW-404.23, QW-255
    record = coupon(20, deposit("GMAW", t=20))
    cored = {"process": "FCAW", "product_form": "flux-cored", "filler_classification": "E71T-1M"}
    judgement = judged(asme, wps(record, 20, cored), record)
    assert [rung.verdict for rung in judgement.rungs if rung.variable == "process"] == ["inside"]
    assert failing(judgement) == ["product_form.FCAW"]
    assert allowed(asme, record, "process") == choices("GMAW", "FCAW", "MCAW")


# Short-circuit transfer, plasma and submerged arc: no case of the reference, the clause is worked by hand -----------


@pytest.mark.parametrize(("thickness", "high"), [(10.0, 11.0), (12.9, 14.19), (13.0, 26.0)])
def test_short_circuit_transfer_holds_metal_and_deposit_to_1_1_times(asme, thickness, high):  # QW-403.10, QW-404.32
    record = coupon(thickness, deposit("GMAW", t=thickness, transfer_mode="short"))
    assert allowed(asme, record, "base_metal_thickness_mm").parts[0].high == pytest.approx(high)
    assert allowed(asme, record, "deposit_thickness_mm").parts[0].high == pytest.approx(high)


def test_a_short_circuit_root_leaves_the_other_deposit_its_range(asme):  # QW-403.10, QW-200.4(a); scope M
    record = coupon(12, deposit("GMAW", t=3, transfer_mode="short"), deposit("FCAW", t=9))
    ranges = [allowed(asme, record, "base_metal_thickness_mm", deposit_index=n).parts[0].high for n in (0, 1)]
    assert ranges == [pytest.approx(13.2), pytest.approx(24)]


def test_transfer_that_is_not_recorded_leaves_the_thickness_open(asme):
    record = coupon(10, deposit("GMAW", t=10, transfer_mode=None))
    stated = wps(record, 15, {"deposit_thickness_mm": 15, "transfer_mode": "spray"})
    found = {rung.variable: rung.verdict for rung in judged(asme, stated, record).rungs if rung.verdict != "inside"}
    assert found == dict.fromkeys(
        ("transfer_mode", "base_metal_thickness_mm", "thicker_member_mm", "deposit_thickness_mm"), "unproven"
    )


@pytest.mark.parametrize(
    ("keyhole", "pair", "expected"),
    [("melt-in", ("4", "3"), "inside"), ("keyhole", ("4", "3"), "outside"), ("combined", ("4", "4"), "inside"),
     ("melt-in", ("3", "3"), "outside"), (None, ("4", "3"), "unproven")],
)  # fmt: skip
def test_plasma_goes_down_the_p_numbers_only_where_it_melts_in(asme, keyhole, pair, expected):  # QW-403.12 (M)
    record = coupon(20, deposit("PAW", t=20, keyhole=keyhole), **metals("4"))
    joint = {name: value for name, value in metals(*pair).items() if name != "p_numbers"}
    judgement = judged(asme, wps(record, 20, {"keyhole": keyhole or "keyhole"}, **joint), record)
    assert [rung.verdict for rung in judgement.rungs if rung.variable == "p_number"] == [expected]


def test_a_wire_without_classified_flux_is_free_while_its_a_number_holds(asme):  # QW-404.9(c)
    alone = {"filler_classification": "EM12K", "flux_wire": "wire", "flux_tensile": None}
    record = coupon(20, deposit("SAW", t=20, **alone))
    assert verdict(asme, wps(record, 20, {"filler_classification": "EM14K"}), record) == "inside"
    combined = {"filler_classification": "F7A2-EM12K", "flux_wire": "combination", "flux_tensile": "7"}
    assert verdict(asme, wps(record, 20, combined), record) == "inside", "by the flux of the record"
    assert failing(judged(asme, wps(record, 20, {"flux": "flux 13"}), record)) == ["flux.SAW"]


@pytest.mark.parametrize("name", ["F7A2-EM12K", "F8P2-EB2-B2", "F48A2-EM12K", "F10A4-EM3-M3"])
def test_the_strength_of_flux_and_wire_is_read_off_their_classification(asme, name):  # AWS A5.17, A5.23 (M)
    (row,) = [each for each in asme.derive.rows if each.variable == "flux_tensile"]
    found = next(each.token for each in row.patterns if re.match(each.like, name))
    assert found == {"F7A2-EM12K": "7", "F8P2-EB2-B2": "8", "F48A2-EM12K": "7", "F10A4-EM3-M3": "10"}[name]


def test_a_process_without_rules_leaves_its_deposit_unproven_and_the_rest_judged(asme):
    pack = replace(asme, processes=asme.processes - {"SAW"})
    record = coupon(20, deposit("GTAW", t=4), deposit("SAW", t=16))
    judgement = judged(pack, wps(record, 20), record)
    assert failing(judgement) == ["process.SAW"]
    assert judgement.verdict == "unproven"
    assert judgement.supports == (("PQR",), ())
    assert any(rung.id == "f_number.GTAW" and rung.verdict == "inside" for rung in judgement.rungs)
    assert not any(rung.label == "SAW" for rung in judgement.rungs if rung.variable != "process")


@pytest.mark.parametrize("process", ["SMAW", "SAW", "GMAW", "FCAW", "MCAW", "GTAW", "PAW"])
@pytest.mark.parametrize("impact", [False, True])
def test_a_record_covers_a_procedure_like_its_own_coupon(asme, process, impact):
    record = coupon(16, deposit(process, t=16))
    assert failing(judged(asme, wps(record, 16), record, impact=impact)) == []


def test_w15_an_a_number_is_derived_again_from_the_deposit(asme, shelves):  # QW-404.5, QW-442 (M)
    composition = {"C": 0.07, "Cr": 5.0, "Mo": 0.55, "Mn": 0.7, "Si": 0.5}
    facts = asme.derive.filler_facts(shelves.filler("E8018-B6"), deposit=composition)
    assert facts["a_number"] == "5"
    record = coupon(20, deposit(t=20, **facts), **metals("5B"))
    assert verdict(asme, wps(record, 20, {"a_number": "5"}), record) == "inside"
    as_recorded = coupon(20, deposit(t=20, **facts | {"a_number": "4"}), **metals("5B"))
    assert verdict(asme, wps(as_recorded, 20, {"a_number": "5"}), as_recorded) == "outside"


@pytest.mark.parametrize(
    ("t", "expected"),
    [
        (1.2, (1.2, 2.4)),
        (2.4, (1.5, 4.8)),
        (4.5, (2.25, 9)),
        (7, (7, 14)),
        (14, (14, 28)),
        (22, (16, 44)),
        (45, (16, 200)),
    ],
)
def test_effect_of_toughness_on_the_thickness_range(asme, t, expected):  # QW-451.1 with QW-403.6
    part = allowed(asme, coupon(t), "base_metal_thickness_mm", impact=True).parts[0]
    assert (part.low, part.high) == pytest.approx(expected)


@pytest.mark.parametrize(
    ("t_in", "low", "high", "deposit_high"),
    [(0.05, 0.05, 0.10, 0.10), (1 / 16, 1 / 16, 1 / 8, 1 / 8), (3 / 8, 1 / 16, 3 / 4, 3 / 4), (0.6, 3 / 16, 1.2, 1.2),
     (0.75, 3 / 16, 1.5, 1.5), (1.49, 3 / 16, 2.98, 2.98), (1.5, 3 / 16, 8, 8), (6, 3 / 16, 8, 8),
     (7, 3 / 16, 9.31, 9.31)],
)  # fmt: skip
def test_the_rows_of_qw_451_1_in_inches(asme, t_in, low, high, deposit_high):
    record = coupon(t_in * IN)
    part = allowed(asme, record, "base_metal_thickness_mm", units="us").parts[0]
    assert (part.low / IN, part.high / IN) == pytest.approx((low, high))
    assert allowed(asme, record, "deposit_thickness_mm", units="us").parts[0].high / IN == pytest.approx(deposit_high)


def test_a_thin_deposit_in_a_thick_coupon_doubles(asme):  # QW-451.1 rows r4, r6, r8
    for thickness in (20, 50, 160):
        record = coupon(thickness, deposit(t=18), deposit(t=thickness - 18))
        assert allowed(asme, record, "deposit_thickness_mm") == between(0, 36)


def test_the_metric_and_the_inch_column_differ_and_are_not_mixed(asme):  # QG-100: paired, soft conversions
    record = coupon(13.0, deposit(t=13, pass_thickness_mm=12.9))
    assert allowed(asme, record, "base_metal_thickness_mm").parts[0].low == 5
    assert allowed(asme, record, "base_metal_thickness_mm", units="us").parts[0].low == pytest.approx(4.7625)
    assert allowed(asme, coupon(20, deposit(t=20, pass_thickness_mm=12.9)), "base_metal_thickness_mm") == between(5, 40)
    held = allowed(asme, coupon(20, deposit(t=20, pass_thickness_mm=12.9)), "base_metal_thickness_mm", units="us")
    assert held.parts[0].high == pytest.approx(22)  # 12.9 mm is over 1/2 in: QW-403.9


def test_a_diameter_is_no_variable_of_procedures(asme):  # QW-211
    assert "diameter_mm" not in asme.variables


def test_heat_input_is_the_highest_of_the_coupon_and_open_at_zero(asme):  # QW-409.1(a)
    limit = allowed(asme, coupon(20, deposit(t=20, heat_input_kj_mm=1.215)), "heat_input_kj_mm", impact=True)
    assert limit == between(0, 1.215, low_open=True)


@pytest.mark.parametrize(("measure", "fact", "tested", "stated"), [
    ("bead_area", "bead_area_mm2", 33.0, 36.0), ("run_out", "run_out_ratio", 0.60, 0.55)])  # fmt: skip
def test_more_weld_metal_per_length_fails(asme, measure, fact, tested, stated):  # QW-409.1(b)
    record = coupon(20, deposit(t=20, **{fact: tested}), heat_input_measure=measure)
    assert verdict(asme, wps(record, 20), record, impact=True) == "inside"
    assert failing(judged(asme, wps(record, 20, {fact: stated}), record, impact=True)) == [f"{fact}.SMAW"]


@pytest.mark.parametrize("leaf", ["gas_flow_l_min", "cup_size"])
def test_a_wire_that_shields_itself_has_no_gas_to_state(asme, leaf):  # QW-408.3, QW-410.3: nothing to address
    alone = coupon(16, deposit("FCAW", t=16, shielding_gas="none", filler_classification="E71T-8"))
    gassed = coupon(16, deposit("FCAW", t=16))
    found = []
    for record in (alone, gassed):
        stated = wps(record, 16)
        without = replace(stated, joint={name: each for name, each in stated.joint.items() if name != leaf})
        found.append(failing(judged(asme, without, record)))
    assert found == [[], [f"{leaf}.FCAW"]]
