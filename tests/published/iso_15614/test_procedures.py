"""Procedures by ISO 15614-1: worked cases ISO-W1 to W4 and W7 to W10 of the project's reference; wrong ones with twins.

Source: ISO 15614-1:2017 (2004 where named), from memory, the clause named at each case; the wrong ones are made up.
W5 is of welders, W6 of ISO 5817.
"""

import pytest

from anlage.core.codes import Demand
from anlage.core.ranges import NONE, Interval, between, fits
from anlage.session.judging.coupons import StatedCoupon, StatedCouponDeposit
from anlage.session.judging.what_if import what_if
from tests.frames import amiss, assert_caught, judged
from tests.vessels import PASSED, WITH_IMPACT, seam, seam_record

L1, L2 = "iso-15614-1-l1", "iso-15614-1-l2"


def bought(code, *, process="GMAW", facts=None, deposit=None, asked=None, thickness=14.0):
    """What a coupon stated by hand buys, variable by variable."""
    own = StatedCouponDeposit(process=process, **(deposit or {}))
    coupon = StatedCoupon(thickness_mm=thickness, deposits=(own,), facts={"runs": "multi", **(facts or {})})
    found = what_if(code, coupon, Demand(**(asked or {})))
    return {each.variable: each.allowance for each in found.variables}


@pytest.mark.parametrize(
    ("code", "runs", "expected"),
    [(L2, "multi", (7, 28)), (L2, "single", (7, 15.4)), (f"{L2}:2004", "single", (7, 15.4)), (L1, "multi", (5, 28))],
)
def test_w1_base_metal_thickness_of_a_butt_of_14_mm(code, runs, expected):  # Table 6, level 2 H, level 1 M
    own = bought(code, facts={"runs": runs})["base_metal_thickness_mm"]
    assert own.sure.parts[0].low == pytest.approx(expected[0])
    assert own.sure.parts[0].high == pytest.approx(expected[1])


@pytest.mark.parametrize(
    ("thickness", "runs", "expected"),
    [(2.0, "multi", (1.4, 4.0)), (2.0, "single", (1.4, 2.6)), (10.0, "multi", (3, 20)), (4.0, "single", (3, 5.2)),
     (12.0, "multi", (3, 24)), (40.0, "multi", (20, 80)), (120.0, "multi", (50, 240)), (160.0, "multi", (50, 320))],
)  # fmt: skip
def test_the_rows_of_the_table_of_butts(thickness, runs, expected):  # Table 6, M
    own = bought(L2, thickness=thickness, facts={"runs": runs})["base_metal_thickness_mm"]
    assert (own.sure.parts[0].low, own.sure.parts[0].high) == pytest.approx(expected)


def test_one_run_over_40_mm_is_known_to_2004_alone():  # 2004 H, 2017 M: unproven
    old, new = (bought(code, thickness=50.0, facts={"runs": "single"})["base_metal_thickness_mm"]
                for code in (f"{L2}:2004", L2))  # fmt: skip
    assert old.sure == old.possible
    assert fits(between(25, 55), old.sure)
    assert not fits(between(25, 56), old.sure)
    assert new.sure is NONE
    assert fits(between(25, 55), new.possible)


def test_w2_a_fillet_of_10_mm_in_one_run():  # Table 7, M
    own = bought(L2, thickness=10.0, asked={"weld": "fillet"},
                 facts={"runs": "single", "coupon_weld": "fillet", "throat_mm": 5.0})  # fmt: skip
    assert own["base_metal_thickness_mm"].sure == between(5, 20)
    assert own["throat_mm"].sure == between(3.75, 7.5)


def test_w3_heat_input_with_impact_and_hardness():  # EN 1011-1; 8.4.7, H
    settings = {name: Interval.single(value) for name, value in
                (("volts", 24.5), ("amps", 212.0), ("travel_speed_mm_min", 372.0))}  # fmt: skip
    own = bought(L2, asked={"impact": True, "hardness": True},
                 deposit={**settings, "filler": "ER70S-6", "gas": "Ar-18CO2"})["heat_input_kj_mm"]  # fmt: skip
    assert own.sure.parts[0].low == pytest.approx(0.5026, abs=1e-4)
    assert own.sure.parts[0].high == pytest.approx(0.8377, abs=1e-4)


@pytest.mark.parametrize(
    ("tested", "one", "other", "verdict"),
    [("S420ML", "S355J2", "S355J2", "inside"), ("S420ML", "S420ML", "S355J2", "inside"),
     ("S420ML", "S690QL", "S355J2", "outside"), ("S355J2", "S355J2", "S355J2", "inside"),
     ("S355J2", "S235JR", "S355J2", "inside"), ("S355J2", "S460NL", "S460NL", "outside"),
     ("S355J2", "S460NL", "S355J2", "unproven")],
)  # fmt: skip
def test_w4_and_w7_metals_by_group_and_yield(tested, one, other, verdict):  # Table 4, H; a pair of 355 with more M
    own = seam_record(metals__one__name=tested)
    wps = seam(metals__one__name=one, metals__other__name=other)
    (rung,) = [each for each in judged(wps, own).rungs if each.variable == "metals_by_yield"]
    assert rung.verdict == verdict


def test_w8_level_1_is_open_where_it_is_not_recalled():  # clause 8, M
    own = seam_record(header__codes=(L1,), technique__position="2G", preheat_least_c=60.0)
    wps = seam(header__codes=(L1,), technique__position="3G", technique__progression="downhill",
               preheat__minimum_c=20.0, range__thickness_mm=(6.0, 26.0), deposit={"operation": "machine"})  # fmt: skip
    told = {rung.variable: rung.verdict for rung in judged(wps, own).rungs}
    assert told["base_metal_thickness_mm"] == told["preheat_c"] == "inside"
    assert told["position"] == told["operation"] == "unproven"
    assert judged(wps, own).verdict == "unproven"


def test_a_record_of_level_2_serves_level_1_and_not_the_reverse():  # trap 1, H
    thick = {"range__thickness_mm": (6.0, 26.0)}
    serves = judged(seam(header__codes=(L1,), **thick), seam_record())
    assert {rung.variable: rung.verdict for rung in serves.rungs}["base_metal_thickness_mm"] == "inside"
    none = judged(seam(), seam_record(header__codes=(L1,)))
    assert not none.rungs or none.verdict == "unproven"
    assert none.supports == ((),)


@pytest.mark.parametrize(
    ("gas", "symbol", "co2"),
    [("80.5Ar/19.5CO2", "inside", "inside"), ("79Ar/21CO2", "inside", "unproven"),
     ("88Ar/12CO2", "outside", "inside"), ("70Ar/30CO2", "outside", "outside")],
)  # fmt: skip
def test_w9_the_symbol_of_the_gas_and_its_carbon_dioxide(gas, symbol, co2):  # 8.5.2; ISO 14175, M
    told = {r.variable: r.verdict for r in judged(seam(deposit={"shielding_gas": gas}), seam_record()).rungs}
    assert (told["gas_symbol"], told["co2_pct"]) == (symbol, co2)


@pytest.mark.parametrize(
    ("position", "way", "verdict"),
    [("1G", "none", "inside"), ("2G", "none", "inside"), ("4G", "none", "inside"), ("5G", "uphill", "inside"),
     ("3G", "downhill", "outside"), ("5G", "downhill", "outside"), ("6G", "downhill", "outside")],
)  # fmt: skip
def test_w10_positions_from_pf_without_impact_or_hardness(position, way, verdict):  # 8.4.2, H; wording of 2017 M
    own = seam_record(metals__one__name="S235JR", technique__position="3G", technique__progression="uphill")
    pipe = (
        {}
        if position < "5"
        else {"joint__product": "pipe", "joint__od_mm": 600.0, "range__diameter_mm": (600.0, 900.0)}
    )
    wps = seam(metals__one__name="S235JR", technique__position=position, technique__progression=way, **pipe)
    (rung,) = [each for each in judged(wps, own).rungs if each.variable == "position"]
    assert rung.verdict == verdict


def case(name, variable, clause, wrong, mended, *records):
    return pytest.param(variable, clause, wrong, mended, records or (seam_record(),), id=name)


TOUGH = seam_record(results=WITH_IMPACT)
WRONG = [
    case("thicker than twice the piece", "base_metal_thickness_mm", "8.3.2", seam(range__thickness_mm=(8.0, 30.0)),
         seam(range__thickness_mm=(8.0, 28.0))),
    case("a metal of higher yield", "metals_by_yield", "8.3.1", seam(metals__one__name="S460NL"),
         seam(metals__one__name="P265GH")),
    case("less preheat than was welded with", "preheat_c", "8.4.8", seam(preheat__minimum_c=60.0), seam()),
    case("hotter between passes", "interpass_c", "8.4.9", seam(preheat__interpass_maximum_c=250.0),
         seam(preheat__interpass_maximum_c=220.0)),
    case("gas of another symbol", "gas_symbol", "8.5.2", seam(deposit={"shielding_gas": "Ar-8CO2"}),
         seam(deposit={"shielding_gas": "Ar-18CO2"})),
    case("one run in place of several", "runs", "8.4.3", seam(technique__runs="single", roles=("root",)), seam()),
    case("a robot from a test by hand", "operation", "8.4.1", seam(deposit={"operation": "automatic"}), seam()),
    case("an open root from a gouged one", "root_side", "8.4.3", seam(joint__kind="single-v",
         technique__back_gouging="none", roles=("root", "fill", "cap")), seam()),
    case("heat treatment that was not tested", "pwht", "8.4.11", seam(pwht__kind="below-ltt",
         pwht__temperature_c=(590.0, 610.0), pwht__time_h=(1.0, 1.5)), seam()),
    case("colder arc than the hardness was tested with", "heat_input_kj_mm", "8.4.7",
         seam(settings={"current_a": (170, 180), "voltage_v": (21, 22)}, deposit={"transfer_mode": None}), seam()),
    case("hotter arc than the impact was tested with", "heat_input_kj_mm", "8.4.7", seam(header__impact=True,
         settings={"travel_speed_mm_min": (220, 260)}, deposit={"filler_make": "wire 7"}),
         seam(header__impact=True, deposit={"filler_make": "wire 7"}), TOUGH),
    case("another polarity", "current_type", "8.4.6", seam("SMAW", {"filler": "E7018", "current_type": "AC",
         "maker_current_a": None, "thickness_mm": (8, 24)}, header__impact=True),
         seam("SMAW", {"filler": "E7018", "maker_current_a": None, "thickness_mm": (8, 24), "filler_make": "rod 3"},
              header__impact=True),
         seam_record("SMAW", {"filler": "E7018", "filler_make": "rod 3"}, results=WITH_IMPACT)),
]  # fmt: skip


@pytest.mark.parametrize(("variable", "clause", "wrong", "mended", "records"), WRONG)
def test_a_wrong_procedure_is_caught_with_its_clause_and_its_mended_twin_passes(
    variable, clause, wrong, mended, records
):
    assert_caught(variable, clause, wrong, records)
    assert judged(mended, *records).verdict == "inside", amiss(mended, *records)


def test_hardness_is_demanded_by_the_metals_and_a_record_without_it_allows_nothing():  # clause 3 of the table, H
    bare = seam_record(results=[each for each in PASSED if each[0] != "hardness"])
    assert judged(seam(), bare).verdict != "inside"
    soft = {"metals__one__name": "S235JR"}
    bare = seam_record(results=[each for each in PASSED if each[0] != "hardness"], **soft)
    assert judged(seam(**soft), bare).verdict == "inside", amiss(seam(**soft), bare)


def test_impact_demanded_and_not_tested_holds_up_to_12_mm():  # 8.3.2, H
    own = seam_record(toughness_tested=False, deposit={"filler_make": "wire 7"})
    for most, verdict in ((12.0, "inside"), (13.0, "outside")):
        wps = seam(header__impact=True, range__thickness_mm=(8.0, most), deposit={"filler_make": "wire 7"},
                   joint__thickness_mm=10.0)  # fmt: skip
        (rung,) = [each for each in judged(wps, own).rungs if each.variable == "base_metal_thickness_mm"]
        assert rung.verdict == verdict


def test_what_a_careless_hand_leaves_out_is_never_inside():
    own = seam_record()
    assert judged(seam(), own).verdict == "inside", amiss(seam(), own)
    for path in ("metals__one__name", "range__thickness_mm", "joint__kind", "joint__product", "technique__position",
                 "technique__runs", "preheat__minimum_c", "pwht__kind", "header__impact",
                 "preheat__interpass_maximum_c", "technique__back_gouging", "technique__cleaning"):  # fmt: skip
        assert judged(seam(**{path: None}), own).verdict != "inside", path
    for leaf in ("filler", "filler_diameter_mm", "shielding_gas", "current_type", "operation", "electrodes",
                 "transfer_mode"):  # fmt: skip
        assert judged(seam(deposit={leaf: None}), own).verdict != "inside", leaf
    for leaf in ("current_a", "voltage_v", "travel_speed_mm_min"):
        assert judged(seam(settings={leaf: None}), own).verdict != "inside", leaf
