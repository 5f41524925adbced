"""A record proves what its results show: nobody chooses that it is accepted."""

from itertools import groupby

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st
from msgspec.structs import replace

from anlage.core.codes import Measured
from anlage.core.document import read_strict, with_at
from anlage.core.procedure import Sector
from anlage.core.record import Override, Pqr, RecordedDeposit, Result, WeldedPass, with_row
from anlage.data.code_packs import code_pack
from anlage.data.files import FOLDER
from anlage.session.judging.assessment import Assessor
from anlage.session.judging.bought import bought_by
from anlage.session.judging.derivations import hottest_sector
from anlage.session.judging.editions import SHIPPED
from anlage.session.judging.evidence import Evidence, evidence_by_code, evidence_of, evidence_of_document
from anlage.session.judging.ladder import lines, support_sentences
from anlage.session.judging.mapper import sets_of
from anlage.session.judging.records import coupon_of
from anlage.session.kinds import PROCEDURE, RECORD

ORDER = ("outside", "unproven", "inside")


def read(number, kind):
    return read_strict((FOLDER / "demo" / f"{number}.json").read_text(encoding="utf-8"), kind.core)


@pytest.fixture(scope="module")
def pack():
    return code_pack("asme-ix")


@pytest.fixture(scope="module")
def plate():
    """A groove coupon of 16 mm."""
    return read("OST-R-01", RECORD)


@pytest.fixture(scope="module")
def wps():
    return read("OST-W-01", PROCEDURE)


def with_results(pqr, *rows):
    pqr = replace(pqr, results=())
    for kind, count, passed in rows:
        pqr, _ = with_row(pqr, "results", kind=kind, count=count, passed=passed)
    return pqr


def with_impact(pqr):
    """The record with impact results that passed."""
    return replace(with_row(pqr, "results", kind="impact", passed=True)[0], toughness_tested=True)


def demanding(wps):
    """The procedure with toughness demanded."""
    return replace(wps, header=replace(wps.header, impact=True))


def verdict(wps, *records):
    return Assessor([(f"id{n}", each) for n, each in enumerate(records)]).assess(wps).judgement.verdict


# What QW-451.1 asks of each thickness (ASME BPVC IX, from memory, H); four side bends from 10 mm on.
FACE_ROOT = (("tension", 2, True), ("face bend", 2, True), ("root bend", 2, True))
SIDE = (("tension", 2, True), ("side bend", 4, True))
LONG = (("tension", 2, True), ("longitudinal face bend", 2, True), ("longitudinal root bend", 2, True))


@pytest.mark.parametrize(
    ("thickness", "rows", "state"),
    [
        (6.0, FACE_ROOT, "accepted"), (6.0, SIDE, "open"), (6.0, LONG, "accepted"), (9.9, SIDE, "open"),
        (10.0, SIDE, "accepted"), (10.0, FACE_ROOT, "accepted"), (18.9, FACE_ROOT, "accepted"),
        (19.0, FACE_ROOT, "open"), (19.0, SIDE, "accepted"), (19.0, LONG, "accepted"), (60.0, SIDE, "accepted"),
    ],
)  # fmt: skip
def test_the_specimens_hang_on_the_thickness_of_the_coupon(pack, plate, thickness, rows, state):
    pqr = with_results(plate, *rows)
    coupon = coupon_of(pqr, pack)
    coupon = replace(coupon, joint={**coupon.joint, "base_metal_thickness_mm": thickness}, deposits=())
    assert evidence_of(pqr, pack, coupon).state == state


@pytest.mark.parametrize(
    ("rows", "words"),
    [
        ((), "open: results not recorded"),
        ((("tension", 2, True),), "open: 4 side bends of QW-451.1 not recorded as passed"),
        ((("tension", 1, True), ("side bend", 3, True)), "open: 1 tension and 1 side bend of QW-451.1"),
        ((("tension", 2, True), ("side bend", 4, None)), "open: 4 side bends of QW-451.1"),
        ((("tension", 2, True), ("side bend", 4, True), ("macro", 1, False)), "rejected: macro failed"),
        ((("tension", 2, True), ("face bend", 2, True), ("side bend", 2, True)), "open: 2 side bends of QW-451.1"),
        ((("tension", 2, True), ("a look", 9, True)), "open: 4 side bends of QW-451.1"),
    ],
)
def test_what_is_missing_or_failed_is_said(plate, rows, words):
    assert evidence_of_document(with_results(plate, *rows)).words().startswith(words)


@pytest.mark.parametrize(
    ("product", "count", "state"), [("plate", 5, "accepted"), ("plate", 4, "open"), ("pipe", 4, "accepted")]
)
def test_a_fillet_coupon_is_shown_by_its_sections(plate, product, count, state):
    fillet = with_at(with_at(with_at(plate, "header/weld", "fillet"), "joint/kind", "fillet"), "joint/product", product)
    assert evidence_of_document(with_results(fillet, ("macro", count, True))).state == state


@pytest.mark.parametrize(
    ("changes", "words"),
    [
        ({"header/codes": ()}, "open: code not stated"),
        ({"header/codes": ("csa-w47",)}, "open: no csa-w47"),
        ({"welded_on": "2026-02-30"}, "open: welded on 2026-02-30, which is no day"),
        ({"joint/thickness_mm": None}, "open: base metal thickness is not recorded, on which the specimens hang"),
        ({"override/verdict": "accepted"}, "accepted"),
    ],
)
def test_what_stands_against_counting_a_record_is_said(plate, changes, words):
    for path, value in changes.items():
        plate = with_at(plate, path, value)
    assert evidence_of_document(plate).words().startswith(words)


def test_a_record_of_another_code_supports_nothing_under_this_one(wps, plate, pack):
    other = with_at(plate, "header/codes", ("aws-d1.1",))
    found = Assessor([("1", other)]).assess(wps)
    assert found.judgement.verdict == "unproven"
    assert found.set_aside == (("OST-R-01", "open: made to aws-d1.1, not to asme-ix"),)
    assert "OST-R-01 supports nothing, it is open: made to aws-d1.1" in "; ".join(support_sentences(wps, found))
    taken = replace(pack, accepts_records_of=frozenset(("asme-ix", "aws-d1.1")))
    assert evidence_of(other, taken, coupon_of(other, taken)).state == "accepted"


@pytest.mark.parametrize(
    ("by", "reason", "state"),
    [("A. Author", "agreed with the inspector", "accepted"), ("A. Author", None, "open"), (None, "because", "open")],
)
def test_an_override_counts_with_name_and_reason_and_is_told_everywhere(wps, plate, by, reason, state):
    told = replace(
        with_results(plate, ("tension", 2, True)), override=Override(verdict="accepted", by=by, reason=reason)
    )
    assert evidence_of_document(told).state == state
    found = Assessor([("1", told)]).assess(wps)
    if state == "accepted":
        remark = "OST-R-01 was accepted by A. Author against its results: agreed with the inspector"
        assert found.remarks == (remark,)
        assert all(remark in line.reason for line in lines(wps, found, "si"))
        assert remark in support_sentences(wps, found)
    else:
        assert "an override needs a name and a reason" in found.set_aside[0][1]


def test_a_rejection_holds_against_passed_results(plate, wps):
    no = replace(plate, override=Override(verdict="rejected"))
    assert evidence_of_document(no).state == "rejected"
    assert verdict(wps, no) == "unproven"


KINDS = ("tension", "face bend", "root bend", "side bend", "macro", "impact", "nonsense")
ROWS = st.lists(st.tuples(st.sampled_from(KINDS), st.integers(1, 4), st.sampled_from((True, False, None))), max_size=6)


@given(ROWS, st.tuples(st.sampled_from(KINDS), st.integers(1, 4)))
@settings(max_examples=60, deadline=None)
def test_a_passed_result_more_never_lowers_a_verdict_and_one_less_never_raises_it(rows, more):
    plate, wps = read("OST-R-01", RECORD), read("OST-W-01", PROCEDURE)
    fewer, full = with_results(plate, *rows), with_results(plate, *rows, (*more, True))
    assert ORDER.index(verdict(wps, full)) >= ORDER.index(verdict(wps, fewer))


@pytest.mark.parametrize(
    ("rows", "said", "tested"),
    [((), None, None), ((), True, None), ((), False, False), ((("impact", 2, True),), None, True),
     ((("impact", 2, True),), False, None), ((("impact", 2, None),), True, None),
     ((("impact", 2, False),), False, None), ((("impact", 2, True),), True, True)],
)  # fmt: skip
def test_impact_results_are_there_when_they_passed(plate, pack, rows, said, tested):
    assert coupon_of(with_at(with_results(plate, *rows), "toughness_tested", said), pack).toughness_tested is tested


def test_impact_demanded_of_a_record_that_does_not_say_is_unproven(wps, plate):
    for said, expected in ((None, "unproven"), (False, "outside")):
        record = with_at(plate, "toughness_tested", said)
        rungs = Assessor([("1", record)]).assess(demanding(wps)).judgement.rungs
        assert {rung.verdict for rung in rungs if rung.variable == "p_number"} == {expected}


# Heat input: what belongs together in one pass ------------------------------------------------


def heat(pack, deposit, *welded):
    pqr = Pqr(deposits=(deposit,), welded=welded, ids=9)
    return coupon_of(pqr, pack).deposits[0].get("heat_input_kj_mm")


def passes(*read, **more):
    return tuple(
        WeldedPass(id=f"w{n}", deposit="d1", current_a=a, voltage_v=v, travel_speed_mm_min=s, **more)
        for n, (a, v, s) in enumerate(read, 2)
    )


def test_the_hottest_is_the_hottest_pass_and_not_the_corner_of_all(pack):
    smaw = RecordedDeposit(id="d1", process="SMAW")
    # By hand: 100·22·60/100 = 1320 J/mm, 150·25·60/180 = 1250 J/mm; the corner of both would be 2250.
    fact = heat(pack, smaw, *passes((100.0, 22.0, 100.0), (150.0, 25.0, 180.0)))
    assert fact == Measured(pytest.approx(1.25), pytest.approx(1.285), pytest.approx(1.32))
    assert fact.sure is None


def test_a_controlled_waveform_counts_by_what_its_source_shows(pack):
    controlled = RecordedDeposit(id="d1", process="SMAW", waveform="yes")
    assert heat(pack, controlled, *passes((100.0, 22.0, 100.0))) is None, "QW-409.1(a) is not for it"
    # QW-409.1(c), examples of the reference: 4300 W over 38 s on 190 mm; 61 200 J on 2.4 in.
    power = WeldedPass(id="w2", deposit="d1", power_w=4300.0, travel_speed_mm_min=190 / 38 * 60)
    assert heat(pack, controlled, power).most == pytest.approx(0.860)
    energy = WeldedPass(id="w2", deposit="d1", energy_j=61200.0, bead_mm=2.4 * 25.4)
    assert heat(pack, controlled, energy).most == pytest.approx(1.0039, abs=1e-4)
    half = WeldedPass(id="w2", deposit="d1", energy_j=61200.0)
    assert heat(pack, controlled, half) is None


def test_bead_size_and_run_out_are_recorded_where_no_energy_is(pack):
    # QW-409.1(b), examples of the reference: 11 × 3.0 mm; 180 mm of bead for 300 mm of electrode.
    smaw = RecordedDeposit(id="d1", process="SMAW")
    bead = WeldedPass(id="w2", deposit="d1", bead_area_mm2=33.0)
    coupon = coupon_of(Pqr(deposits=(smaw,), welded=(bead,), ids=9), pack)
    assert (coupon.deposits[0]["heat_input_measure"], coupon.deposits[0]["bead_area_mm2"].most) == ("bead_area", 33.0)
    out = WeldedPass(id="w2", deposit="d1", bead_mm=180.0, electrode_mm=300.0)
    coupon = coupon_of(Pqr(deposits=(smaw,), welded=(out,), ids=9), pack)
    assert (coupon.deposits[0]["heat_input_measure"], coupon.deposits[0]["run_out_ratio"].least) == ("run_out", 0.6)


@pytest.mark.parametrize(("measure", "leaf", "inside", "outside"), [
    ({"bead_area_mm2": 33.0}, "bead_area_mm2", [30, 33], [30, 36]),
    ({"bead_mm": 180.0, "electrode_mm": 300.0}, "run_out_ratio", [0.6, 0.7], [0.55, 0.6]),
])  # fmt: skip
def test_a_procedure_is_judged_by_the_measure_of_its_record(plate, wps, measure, leaf, inside, outside):
    bare = {"current_a": None, "voltage_v": None, "travel_speed_mm_min": None}
    plate = replace(
        with_impact(plate),
        deposits=tuple(replace(each, **bare) for each in plate.deposits),
        welded=tuple(WeldedPass(id=f"w{n}", deposit=each.id, **measure) for n, each in enumerate(plate.deposits, 90)),
        ids=99,
    )
    wps = demanding(wps)
    for value, expected in ((inside, "inside"), (outside, "outside")):
        stated = replace(wps, passes=tuple(with_at(each, leaf, value) for each in wps.passes))
        rungs = Assessor([("1", plate)]).assess(stated).judgement.rungs
        assert {rung.verdict for rung in rungs if rung.variable == leaf} == {expected}


def test_of_extremes_the_mean_is_sure_and_the_hottest_corner_possible(plate, wps):
    tested = replace(with_impact(plate), welded=())
    wps = demanding(wps)
    cooler = replace(wps, passes=tuple(with_at(each, "travel_speed_mm_min", [110, 120]) for each in wps.passes))
    rungs = {rung.id: rung for rung in Assessor([("1", tested)]).assess(cooler).judgement.rungs}
    rung = rungs["heat_input_kj_mm.SMAW"]
    assert rung.verdict == "unproven"
    # By hand: mean 23.6·126·60/124 = 1438.8, hottest corner 25.5·158·60/92 = 2627.6 J/mm.
    assert (rung.sure.parts[0].high, rung.possible.parts[0].high) == pytest.approx((1.4388, 2.6276), abs=1e-4)
    assert "what belongs together in one pass" in rung.reason


def test_a_procedure_of_controlled_waveform_states_what_its_source_shows(wps, plate):
    wps = with_at(demanding(wps), "deposits/d2/waveform", "yes")
    tested = with_impact(plate)

    def rung(stated):
        rungs = Assessor([("1", tested)]).assess(stated).judgement.rungs
        return next(each for each in rungs if each.id == "heat_input_kj_mm.SMAW")

    assert rung(wps).stated is None, "volts times amps says nothing of it"
    shown = replace(wps, passes=tuple(with_at(each, "heat_input_kj_mm", [1.0, 1.2]) for each in wps.passes))
    assert rung(shown).verdict == "inside"


def test_every_sector_of_a_pass_is_judged_and_the_hottest_named(wps, plate):
    sector = Sector(id="c90", of="p13", reach="6 to 3", current_a=[140, 150])
    hot = replace(wps, sectors=(sector,), ids=99)
    one = next(each for each in wps.passes if each.id == "p13")
    assert sets_of(wps, "pass", one)["amps"].parts[0].high == 125
    found = sets_of(hot, "pass", one)
    assert found["amps"].parts[0].high == 150
    assert hottest_sector(wps, one) is None
    assert hottest_sector(hot, one) == sector
    told = lines(demanding(hot), Assessor([("1", with_impact(plate))]).assess(demanding(hot)), "si")
    said = {line.rung.id: line.reason for line in told}
    assert said["heat_input_kj_mm.SMAW"].endswith("Pass 4 is hottest at 6 to 3.")
    # By hand: 150·24·60/57 J/mm.
    assert found["heat_input_kj_mm"].parts[0].high == pytest.approx(150 * 24 * 60 / 57 / 1000)


def test_an_empty_result_counts_for_nothing(plate):
    odd = replace(plate, results=(Result(id="r1"),))
    assert evidence_of_document(odd).state == "open"


# The numbers of a filler ---------------------------------------------------------------------


@pytest.mark.parametrize(("analysis", "a_number"), [({}, "1"), ({"C": 0.05, "Mo": 0.5, "Mn": 0.9, "Si": 0.5}, "2")])
def test_a_deposit_analysis_wins_over_what_the_classification_says(plate, pack, analysis, a_number):
    # QW-442 (from memory, H): A-1 has no molybdenum to speak of, A-2 0.40 to 0.65 %.
    analysed = with_at(plate, "deposits/d2/deposit_analysis_percent", analysis)
    assert coupon_of(analysed, pack).deposits[1]["a_number"] == a_number


# A heat-treated record -----------------------------------------------------------------------


def repeating(wps, **treated):
    """The procedure as it repeats the plate coupon, heat treated, with toughness demanded."""
    settings_ = {"d1": (104, 10.6, 66), "d2": (112, 22.6, 96)}
    for one in wps.passes:
        amps, volts, speed = settings_[one.deposit]
        for leaf, value in (("current_a", amps), ("voltage_v", volts), ("travel_speed_mm_min", speed)):
            wps = with_at(wps, f"passes/{one.id}/{leaf}", [value, value])
    changes = {"joint/thickness_mm": 16.0, "range/thickness_mm": [16, 16], "deposits/d1/waveform": "no"}
    for path, value in {**changes, **{f"pwht/{name}": value for name, value in treated.items()}}.items():
        wps = with_at(wps, path, value)
    return demanding(wps)


@pytest.mark.parametrize(
    ("treated", "expected"),
    [
        ({"kind": "below-ltt", "temperature_c": [600, 640], "time_h": [1, 2.5]}, "inside"),
        ({"kind": None, "temperature_c": [600, 640], "time_h": [1, 2]}, "inside"),
        ({"kind": "below-ltt", "temperature_c": [600, 650], "time_h": [1, 2]}, "outside"),
        ({"kind": "below-ltt", "temperature_c": [600, 640], "time_h": [1, 2.6]}, "outside"),
        ({"kind": "below-ltt", "temperature_c": None, "time_h": [1, 2]}, "unproven"),
        ({"kind": "below-ltt", "temperature_c": [600, 640], "time_h": None}, "unproven"),
        ({"kind": "none", "temperature_c": None, "time_h": None}, "outside"),
    ],
)  # fmt: skip
def test_a_heat_treated_record_covers_the_procedure_that_repeats_it_under_impact_too(plate, wps, treated, expected):
    record = with_impact(plate)
    for path, value in {"kind": "below-ltt", "temperature_c": [600, 640], "time_h": [2, 3]}.items():
        record = with_at(record, f"pwht/{path}", value)
    found = Assessor([("1", record)]).assess(repeating(wps, **treated))
    problems = [(rung.id, rung.reason) for rung in found.problems()]
    assert found.judgement.verdict == expected, problems


def made_to(pqr, *codes):
    return with_at(pqr, "header/codes", codes)


def test_of_several_codes_all_have_to_accept_it(plate):
    both = made_to(plate, "asme-ix", "aws-d1.1")
    assert [(name, each.state) for name, each in evidence_by_code(both)] == [
        ("ASME IX", "accepted"), ("AWS D1.1", "open"),
    ]  # fmt: skip
    found = evidence_of_document(both)
    assert found.state == "open", "AWS D1.1 asks for what ASME IX does not"
    assert found.reason.startswith("accepted by ASME IX; open by AWS D1.1, ")
    told = both
    for kind in ("visual", "radiographic"):
        told, _ = with_row(told, "results", kind=kind, count=1, passed=True)
    assert evidence_of_document(told) == Evidence("accepted")
    failed, _ = with_row(told, "results", kind="radiographic", count=1, passed=False)
    assert evidence_of_document(failed).state == "rejected"
    assert evidence_of_document(made_to(plate, "asme-ix", "no-code")).state == "open"


def test_what_a_record_of_two_codes_buys_is_told_code_by_code(plate):
    alone = bought_by(plate, "si", SHIPPED)
    both = bought_by(made_to(plate, "asme-ix", "aws-d1.1"), "si", SHIPPED)
    assert {each.code for each in alone} == {""}
    assert tuple(replace(each, code="") for each in both if each.code == "ASME IX") == alone
    assert any(each.title.startswith("Base metal thickness") for each in both if each.code == "AWS D1.1")
    assert [code for code, _ in groupby(each.code for each in both)] == ["ASME IX", "AWS D1.1"]
