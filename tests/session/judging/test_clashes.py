"""What a document says twice and not alike proves nothing: one document a clash, and its healthy twin."""

import math

import pytest
from msgspec.structs import replace

from anlage.core.codes.derive import Derivations
from anlage.core.document import read_strict, with_at
from anlage.core.procedure import WPS, HoldPoint
from anlage.core.ranges import Interval
from anlage.core.record import Recorded, with_row
from anlage.data.code_packs import code_pack
from anlage.data.files import FOLDER
from anlage.session.judging.assessment import Assessor
from anlage.session.judging.clashes.all_clashes import clashes_of, complaints_of
from anlage.session.judging.clashes.clash import is_day
from anlage.session.judging.clashes.procedure import _laid
from anlage.session.judging.records import coupon_of
from anlage.session.judging.statements import demand_of, stated_of
from anlage.session.kinds import PROCEDURE, RECORD

DEMO = FOLDER / "demo"


def read(number, kind):
    return read_strict((DEMO / f"{number}.json").read_text(encoding="utf-8"), kind.core)


@pytest.fixture(scope="module")
def wps():
    """A procedure that stands all inside, on the record `pqr`."""
    return changed(read("OST-W-02", PROCEDURE), {"range/thickness_mm": [4, 13], "technique/peening": "none"})


@pytest.fixture(scope="module")
def pqr():
    return read("OST-R-02", RECORD)


@pytest.fixture(scope="module")
def pack():
    return code_pack("asme-ix")


def changed(document, changes):
    """A document with some leaves stated otherwise."""
    for path, value in changes.items():
        document = with_at(document, path, value)
    return document


def verdict(wps, *records):
    return Assessor([(f"id{n}", each) for n, each in enumerate(records)]).assess(wps)


# What a careless person types, the variables that must not be inside, and the words of the sentence.
CLASHES = [
    ({"header/weld": "fillet"}, {"weld"}, "what is drawn is a groove"),
    ({"range/thickness_mm": [7, 12]}, {"base_metal_thickness_mm"}, "6.55\u2009mm is drawn, but the"),
    ({"joint/other_thickness_mm": 16.0}, {"base_metal_thickness_mm"}, "16\u2009mm is drawn"),
    ({"joint/other_thickness_mm": 13.0, "range/thicker_member_mm": [5, 12]}, {"thicker_member_mm"},
     "13\u2009mm is drawn"),
    ({"range/diameter_mm": [150, 300]}, {"diameter_mm"}, "a diameter of 141.3\u2009mm is drawn"),
    ({"deposits/d1/thickness_mm": [0, 2]}, {"deposit_thickness_mm"}, "the passes lay 4\u2009mm, but at most 2\u2009mm"),
    ({"deposits/d2/thickness_mm": [6, 7]}, {"deposit_thickness_mm"}, "lay 4.1\u2009mm, but at least 6\u2009mm"),
    ({"deposits/d1/thickness_mm": [0, 4], "deposits/d2/thickness_mm": [0, 1.9], "passes/p9/thickness_mm": [0.5, 1]},
     {"deposit_thickness_mm"}, "add up to at most 5.9\u2009mm in a joint of 6.55\u2009mm"),
    ({"metals/one/p_number": "8"}, {"p_number"}, "A106-B is P-1, but P-8 is stated"),
    ({"pwht/temperature_c": [600, 640]}, {"pwht"}, "no heat treatment is stated, but a temperature"),
    ({"pwht/time_h": [1, 2]}, {"pwht"}, "no heat treatment is stated, but a time"),
    ({"pwht/kind": "above-utt", "pwht/temperature_c": [600, 640]}, {"pwht"}, "stays below the lower transformation"),
    ({"pwht/kind": "below-ltt", "pwht/temperature_c": [600, 790]}, {"pwht"}, "reaches the lower transformation"),
    ({"technique/progression": "none"}, {"position"}, "position 6G goes up or down"),
    ({"technique/position": "all", "technique/progression": "none"}, {"position"}, "goes up or down"),
    ({"technique/position": "1G, 2G"}, {"position"}, "goes neither up nor down"),
    ({"technique/position": "PJ"}, {"position"}, "says otherwise"),
    ({"technique/bead_technique": "stringer"}, {"bead_technique"}, "pass 3 is woven"),
    ({"passes/p8/bead": "stringer", "passes/p9/bead": "stringer"}, {"bead_technique"}, "every pass is a stringer"),
    ({"technique/runs": "single"}, {"runs"}, "4 are laid on one"),
    ({"joint/kind": "v-backing", "joint/backing": "none"}, {"backing"}, "no backing is stated"),
    ({"deposits/d1/filler": "E7018"}, {"f_number"}, "E7018 is a filler for SMAW, not for GTAW"),
    ({"deposits/d2/filler": "none"}, {"filler_present"}, "SMAW lays no weld without filler"),
    ({"preheat/minimum_c": 200.0, "preheat/interpass_maximum_c": 150.0}, {"preheat_c"}, "above the interpass"),
    ({"joint/kind": "cladding"}, {"weld"}, "a surfacing"),
    ({"joint/kind": "plug"}, {"weld"}, "a plug weld"),
    ({"deposits/d2/current_type": "DCEN"}, {"current_type"}, "E7018 is made for AC and DCEP, not for DCEN"),
    ({"deposits/d2/shielding_gas": "CO2"}, {"shielding_gas"}, "SMAW takes no shielding gas"),
    ({"joint/product": "plate"}, {"position"}, "6G is a position of pipe"),
    ({"joint/product": "plate", "technique/position": "1G, PH and 6G", "technique/progression": "uphill"}, {"position"},
     "PH and 6G are positions of pipe"),
    ({"technique/position": "5F"}, {"position", "weld"}, "5F is a position of a fillet, but the weld is a groove"),
    ({"technique/position": "PB; 4F", "technique/progression": "none"}, {"position", "weld"},
     "PB and 4F are positions of a fillet"),
    ({"technique/position": "2F", "technique/progression": "none", "header/weld": None}, {"position"},
     "2F is a position of a fillet"),
    ({"deposits/d1/filler": "E9999"}, {"f_number"}, "the catalogue has no filler E9999"),
    ({"metals/one/name": "unobtainium"}, {"p_number"}, "the catalogue has no base metal unobtainium"),
    ({"deposits/d1/shielding_gas": "Ar or steam"}, {"shielding_gas"}, "steam is no gas"),
]  # fmt: skip


def test_the_healthy_procedure_and_its_record_say_nothing_twice(wps, pqr, pack):
    assert clashes_of(wps, pack.derive) == clashes_of(pqr, pack.derive) == ()
    assert verdict(wps, pqr).judgement.verdict == "inside"


@pytest.mark.parametrize(("changes", "variables", "words"), CLASHES, ids=[each[2] for each in CLASHES])
def test_a_procedure_that_contradicts_itself_is_never_inside(wps, pqr, pack, changes, variables, words):
    found = changed(wps, changes)
    told = clashes_of(found, pack.derive)
    assert [each for each in told if words in each.text], told
    judgement = verdict(found, pqr).judgement
    assert judgement.verdict != "inside"
    unproven = {rung.variable for rung in judgement.rungs if rung.clash and rung.verdict == "unproven"}
    assert variables & {name for each in told for name in each.variables}
    assert unproven, "a rung says so"
    complaints = complaints_of(found, "si")
    (clash, *_) = [each for each in told if words in each.text]
    assert all(words in complaints[leaf].what for leaf in clash.leaves[:2]), "the sentence stands at both fields"


@pytest.mark.parametrize(
    "changes",
    [
        {"header/weld": "partial"},
        {"header/weld": "repair"},
        {"range/thickness_mm": [4, 6.55]},
        {"joint/other_thickness_mm": 9.0},
        {"metals/one/p_number": "1", "metals/one/group_number": "1"},
        {"deposits/d1/thickness_mm": [0, 3.6]},
        {"technique/position": "PH"},
        {"technique/position": "1G, 6G"},
        {"technique/position": "6G, 2F"},
        {"technique/position": "2F or as it comes", "technique/progression": "uphill"},
        {"technique/position": "5F, all", "technique/progression": "uphill"},
        {"technique/runs": None},
        {"technique/bead_technique": None},
        {"pwht/kind": "below-ltt", "pwht/temperature_c": [600, 640]},
        {"pwht/kind": None, "pwht/temperature_c": [600, 640]},
        {"joint/kind": None},
        {"preheat/minimum_c": 150.0, "preheat/interpass_maximum_c": 150.0},
        {"metals/one/name": "a metal nobody knows", "metals/one/p_number": "8"},
    ],
    ids=str,
)
def test_what_agrees_is_no_clash(wps, pack, changes):
    assert clashes_of(changed(wps, changes), pack.derive) == ()


RECORD_CLASHES = [
    ({"header/weld": "partial"}, "coupon_weld", "no rule says what a coupon of partial penetration"),
    ({"technique/runs": "single"}, "runs", "one pass a side is recorded, but 4 were laid"),
    ({"header/weld": "fillet"}, "coupon_weld", "what is drawn is a groove"),
    ({"technique/position": "2F", "technique/progression": "none"}, "coupon_weld", "2F is a position of a fillet"),
    ({"metals/one/p_number": "8"}, "p_number", "A106-B is P-1, but P-8"),
    ({"pwht/temperature_c": [600, 640]}, "pwht", "no heat treatment is stated"),
    ({"technique/progression": "none"}, "progression", "goes up or down"),
    ({"preheat_least_c": 300.0}, "preheat_c", "above the interpass"),
    ({"deposits/d1/filler": "E7018"}, "f_number", "not for GTAW"),
    ({"deposits/d1/max_pass_thickness_mm": 3.5}, "deposit_thickness_mm", "a pass of 3.5\u2009mm is recorded"),
    ({"joint/thickness_mm": 65.5}, "base_metal_thickness_mm", "add up to 6.55\u2009mm in a coupon of 65.5\u2009mm"),
    ({"deposits/d1/current_a": Recorded(least=20, mean=30, most=40)}, "heat_input_kj_mm", "current of a pass as read"),
    ({"deposits/d2/heat_input_kj_mm": Recorded(least=0.9, mean=1.4, most=2.9)}, "heat_input_kj_mm", "volts, amps and"),
]


@pytest.mark.parametrize(("changes", "fact", "words"), RECORD_CLASHES, ids=[each[2] for each in RECORD_CLASHES])
def test_a_record_that_contradicts_itself_supports_nothing_on_that_variable(wps, pqr, pack, changes, fact, words):
    found = changed(pqr, changes)
    assert any(words in each.text for each in clashes_of(found, pack.derive))
    coupon = coupon_of(found, pack)
    assert all(fact not in {**coupon.joint, **own} for own, said in zip(
        coupon.deposits, coupon.deposit_clashes, strict=True) if fact in {**coupon.clashes, **said}
    )  # fmt: skip
    demanding = changed(wps, {"header/impact": True})
    tested = replace(with_row(found, "results", kind="impact", passed=True)[0], toughness_tested=True)
    assert verdict(demanding, tested).judgement.verdict != "inside"
    if fact in ("coupon_weld", "base_metal_thickness_mm"):
        assert words in verdict(wps, found).set_aside[0][1], "no specimens can be told for it"
    elif fact in ("p_number", "pwht", "preheat_c", "f_number", "deposit_thickness_mm"):
        judgement = verdict(wps, found).judgement
        assert judgement.verdict != "inside"
        assert any(words in rung.reason for rung in judgement.rungs)


def test_impact_results_beside_the_word_that_there_are_none_are_a_clash(pqr):
    found, row = with_row(pqr, "results", kind="Charpy V", passed=True)
    assert "impact tests are listed" in complaints_of(found, "si")["toughness_tested"].what
    assert f"results/{row}/kind" in complaints_of(found, "si")
    assert complaints_of(replace(found, toughness_tested=True), "si") == {}


@pytest.mark.parametrize(("text", "is_one"), [("2026-02-28", True), ("2026-02-30", False), ("2025-02-29", False)])
def test_a_day_that_does_not_exist_is_told(pqr, text, is_one):
    assert is_day(text) == is_one
    told = complaints_of(changed(pqr, {"welded_on": text}), "si")
    assert ("welded_on" in told) != is_one


def test_the_sentence_speaks_in_the_units_of_the_reader(wps):
    told = clashes_of(changed(wps, {"range/thickness_mm": [7, 12]}), Derivations(), "us")
    assert "in is drawn" in told[0].text
    assert "mm" not in told[0].text


def test_a_demand_that_is_not_stated_leaves_two_readings(wps, pqr, pack):
    unsaid = changed(wps, {"header/impact": None, "preheat/interpass_maximum_c": 400.0})
    assert demand_of(unsaid, pack).unsaid == {"impact"}
    judgement = verdict(unsaid, pqr).judgement
    told = {rung.variable: rung for rung in judgement.rungs if rung.verdict != "inside"}
    assert judgement.verdict == "unproven"
    assert "does not say whether impact testing is demanded" in told["impact"].reason
    assert "hangs on impact" in told["interpass_c"].reason
    assert verdict(changed(unsaid, {"header/impact": False}), pqr).judgement.verdict == "inside"


@pytest.mark.parametrize("demand", ["hardness", "sour_service"])
def test_a_demand_that_no_rule_answers_is_said(wps, pqr, demand):
    judgement = verdict(changed(wps, {f"header/{demand}": True}), pqr).judgement
    (rung,) = [each for each in judgement.rungs if each.verdict != "inside"]
    assert (rung.variable, rung.verdict) == (demand, "unproven")
    assert "ASME IX has no rule on" in rung.reason


def test_a_clash_of_the_weld_leaves_the_rules_of_both_kinds(wps, pqr, pack):
    found = stated_of(changed(wps, {"header/weld": "fillet", "range/thickness_mm": [4, 20]}), pack)
    assert "weld" in found.demand.unsaid
    judgement = verdict(changed(wps, {"header/weld": "fillet", "range/thickness_mm": [4, 20]}), pqr).judgement
    assert "base_metal_thickness_mm" in {rung.variable for rung in judgement.rungs if rung.verdict == "unproven"}


@pytest.mark.parametrize(
    ("stated", "recorded", "expected"),
    [
        ("Argon", "Ar", "inside"), ("argon", "Argon", "inside"), ("Ar or 75Ar/25He", "Ar", "outside"),
        ("Ar-12CO2", "88Ar/12CO2", "inside"), ("Ar-12CO2", "Ar-13CO2", "outside"), ("Ar", "Ar or He", "unproven"),
        ("Ar", "steam", "unproven"), ("90Ar/20CO2", "Ar", "unproven"),
    ],
)  # fmt: skip
def test_gases_are_compared_by_what_they_are(wps, pqr, stated, recorded, expected):
    record = changed(pqr, {"deposits/d1/shielding_gas": recorded})
    judgement = verdict(changed(wps, {"deposits/d1/shielding_gas": stated}), record).judgement
    assert {rung.verdict for rung in judgement.rungs if rung.variable == "shielding_gas"} == {expected}


def test_what_cannot_be_drawn_or_is_half_stated_is_no_clash(pack):
    empty = PROCEDURE.core.model()
    assert clashes_of(empty, pack.derive) == ()
    assert clashes_of(RECORD.core.model(), pack.derive) == ()
    odd = replace(empty, hold_points=(HoldPoint(id="h1"),), ids=1)
    assert clashes_of(odd, pack.derive) == ()


def test_what_passes_lay_at_least_is_never_more_than_what_they_lay_at_most(wps):
    """A bead beside a thinner one makes the layer as thick as itself."""
    thin, thick = (replace(wps.passes[0], thickness_mm=Interval(each, each), layer=layer, reach=None)
                   for each, layer in ((2.0, "new"), (3.5, "beside")))  # fmt: skip
    assert _laid([thin, thick]) == Interval(3.5, 3.5)
    assert _laid([thin, replace(thick, layer=None), thin]) == Interval(5.5, 7.5)
    tenths = replace(thin, thickness_mm=Interval(0.1, 0.1))
    assert _laid([tenths, replace(tenths, layer=None)] * 40).low > 0


def test_a_range_without_an_end_is_held_against_what_is_drawn():
    wps = read_strict((FOLDER / "demo" / "OST-W-02.json").read_text(encoding="utf-8"), WPS)
    assert complaints_of(with_at(wps, "range/diameter_mm", Interval(60.3, math.inf)), "si") == {}
    told = complaints_of(with_at(wps, "range/diameter_mm", Interval(200, math.inf)), "si")
    assert "stated for ≥ 200" in str(told["joint/od_mm"])
    thin = complaints_of(with_at(wps, "range/thickness_mm", Interval(0, 5, low_open=True)), "si")
    assert "stated for ≤ 5" in str(thin["range/thickness_mm"])


@pytest.fixture(scope="module")
def gates():
    """A procedure of a short-circuit and a cored wire that is all inside, and its record."""
    wps = changed(read("OST-W-04", PROCEDURE), {
        "preheat/minimum_c": 35.0, "deposits/d2/shielding_gas": "Ar-20CO2", "range/thickness_mm": Interval(6, 36),
    })  # fmt: skip
    record = read("OST-R-03", RECORD)
    assert verdict(wps, record).judgement.verdict == "inside"
    return wps, record


SOLID = {"deposits/d1/shielding_gas": "Ar-2O2"}
# What is written the same in procedure and record, and so would agree; what hangs on it; the words.
AGREED = [
    ({"deposits/d1/transfer_mode": "spray"}, "transfer_mode", "as spray under Ar-25CO2"),
    ({"deposits/d1/transfer_mode": "pulsed", "deposits/d1/shielding_gas": "CO2"}, "transfer_mode", "pulsed under CO2"),
    (SOLID | {"deposits/d1/transfer_mode": "spray"}, "transfer_mode", "spray begins near 165\u2009A"),
    ({"deposits/d2/filler": "E71T-11"}, "shielding_gas", "E71T-11 shields itself"),
    ({"deposits/d2/filler": "E71T-11"}, "current_type", "E71T-11 is made for DCEN, not for DCEP"),
    ({"deposits/d2/current_type": "DCEN"}, "current_type", "E71T-1M is made for DCEP"),
    ({"deposits/d2/shielding_gas": "none"}, "shielding_gas", "E71T-1M needs a shielding gas"),
    ({"joint/backing_form": "ceramic"}, "backing", "ceramic is stated as backing, and steel bar as well"),
]


@pytest.mark.parametrize(("changes", "variable", "words"), AGREED, ids=[each[2] for each in AGREED])
def test_a_contradiction_that_procedure_and_record_share_is_not_inside(gates, changes, variable, words):
    wps, record = (changed(each, changes) for each in gates)
    judgement = verdict(wps, record).judgement
    rung = next(each for each in judgement.rungs if words in each.clash)
    assert (rung.variable, rung.verdict) == (variable, "unproven")


def with_settings(wps, amps, volts):
    """The passes of the solid wire at other settings."""
    own = [each.id for each in wps.passes if each.deposit == "d1"]
    return changed(wps, {f"passes/{each}/current_a": Interval(*amps) for each in own}
                   | {f"passes/{each}/voltage_v": Interval(*volts) for each in own})  # fmt: skip


@pytest.mark.parametrize(
    ("mode", "amps", "volts", "words"),
    [
        ("globular", (100, 130), (17, 19), "globular is stated, but at 100..130\u2009A and 17..19\u2009V metal"),
        ("globular", (100, 130), (17, 23), ""),  # it may be
        ("globular", (190, 220), (23, 26), ""),
        ("short", (240, 280), (27, 30), "short is stated, but at 240..280\u2009A and 27..30\u2009V metal"),
        ("short", (180, 220), (21, 24), ""),
        ("short", (100, 130), (17, 19), ""),
    ],
)
def test_a_transfer_at_the_settings_of_another_is_none(gates, pack, mode, amps, volts, words):
    wps = changed(with_settings(gates[0], amps, volts), {"deposits/d1/transfer_mode": mode,
                  "deposits/d1/shielding_gas": "CO2"})  # fmt: skip
    told = [each.text for each in clashes_of(wps, pack.derive) if "transfer_mode" in each.variables]
    assert [text.startswith(words) for text in told] == ([True] if words else [])


def test_drops_over_the_current_of_spray_are_not_globular(gates, pack):
    hot = changed(with_settings(gates[0], (200, 230), (25, 28)), SOLID | {"deposits/d1/transfer_mode": "globular"})
    assert [each.text for each in clashes_of(hot, pack.derive)] == [
        "globular is stated, but spray begins near 165\u2009A and 200..230\u2009A is set"
    ]


def test_aluminium_has_other_windows_of_transfer(gates, pack):
    changes = {
        "deposits/d1/transfer_mode": "globular",
        "deposits/d1/filler": "ER5356",
        "deposits/d1/shielding_gas": "Ar",
    }
    cold = changed(with_settings(gates[0], (60, 70), (17, 19)), changes)
    assert not [each for each in clashes_of(cold, pack.derive) if "metal crosses the arc" in each.text]


def test_a_short_circuit_over_the_current_of_spray_is_none(gates, pack):
    hot = {f"passes/{each.id}/current_a": Interval(200, 230) for each in gates[0].passes if each.deposit == "d1"}
    told = clashes_of(changed(gates[0], SOLID | hot), pack.derive)
    assert [each.text for each in told] == [
        "short is stated, but spray begins near 165\u2009A and 200..230\u2009A is set"
    ]


def test_the_transfer_of_a_record_is_held_against_every_pass_as_read(gates, pack):
    read_hot = changed(gates[1], SOLID | {f"welded/{gates[1].welded[0].id}/current_a": 210.0})
    found = [each for each in clashes_of(read_hot, pack.derive) if "transfer_mode" in each.variables]
    assert [each.leaves[1] for each in found] == [f"welded/{gates[1].welded[0].id}/current_a"]
    healthy = changed(gates[1], SOLID)
    assert not [each for each in clashes_of(healthy, pack.derive) if "transfer_mode" in each.variables]
