"""What holds of every code whatever its rules say: a record covers its own coupon, more asked is never better off."""

from functools import cache

import pytest
from hypothesis import given
from hypothesis import strategies as st

from anlage.core.document import read_strict, with_at
from anlage.core.procedure import Wps, with_deposit, with_pass
from anlage.core.ranges import Interval, is_none
from anlage.core.record import PQR
from anlage.data.code_packs import code_pack
from anlage.data.files import FOLDER
from anlage.data.installed_codes import code_choices
from anlage.session.judging.assessment import Assessor
from tests.frames import record
from tests.girths import girth_record
from tests.sheets import aerospace_record, stainless_record
from tests.vessels import seam_record

CODES = sorted({code for code in code_choices("qualification") if ":" not in code})
ORDER = ("inside", "unproven", "outside")
SHARED = ("process", "filler", "current_type", "transfer_mode", "shielding_gas", "backing_gas", "trailing_gas",
          "operation", "closed_chamber", "waveform", "flux", "flux_type", "recrushed_slag", "supplemental_filler",
          "filler_make", "electrodes", "output", "hot_wire", "oscillation")  # fmt: skip
SPANS = ("filler_diameter_mm", "gas_flow_l_min", "travel_angle_deg", "work_angle_deg", "trailing_gas_flow_l_min")


@cache
def records(code):
    """Accepted records of a code: those of the demo, or made for the tests."""
    found = []
    if code == "asme-ix":
        texts = [path.read_text(encoding="utf-8") for path in sorted((FOLDER / "demo").glob("OST-R-0[12].json"))]
        found = [read_strict(text, PQR) for text in texts]
    elif code == "aws-d1.1":
        found = [record(process, joint__thickness_mm=t) for process in ("FCAW", "GMAW", "SAW") for t in (16.0, 26.0)]
    elif code == "api-1104":
        found = [girth_record(metals__one__name=grade) for grade in ("X42-PSL2", "X52-PSL2", "X60-PSL2")]
    elif code.startswith("iso-15614-1"):
        found = [
            seam_record(header__codes=(code,), joint__thickness_mm=t, deposit={"thickness_mm": t}) for t in (10.0, 14.0)
        ]
    elif code == "aws-d1.6":
        found = [stainless_record(joint__thickness_mm=t, deposit={"thickness_mm": t}) for t in (9.0, 14.0)]
    elif code == "aws-d17.1":
        found = [aerospace_record(joint__thickness_mm=t, deposit={"thickness_mm": t}) for t in (2.3, 5.0)]
    elif code == "csa-w59":
        found = [record("FCAW", header__codes=(code,), joint__thickness_mm=t) for t in (16.0, 26.0)]
    assert found, f"no record of {code} is known to this test"
    return tuple(found)


def as_procedure(pqr):
    """The procedure that states what a record says, and no more."""
    wps = Wps(header=pqr.header, metals=pqr.metals, joint=pqr.joint, pwht=pqr.pwht, technique=pqr.technique)
    for path, value in {
        "header/impact": False, "header/hardness": False, "header/sour_service": False, "header/loading": "static",
        "header/strength": "matching", "range/thickness_mm": Interval.single(pqr.joint.thickness_mm),
        "range/diameter_mm": Interval.single(pqr.joint.od_mm) if pqr.joint.od_mm else None,
        "technique/clamp": "none", "technique/second_to_rest_min": 20.0, "technique/cleaning": "brush",
        "preheat/minimum_c": pqr.preheat_least_c, "preheat/interpass_maximum_c": pqr.interpass_most_c,
    }.items():  # fmt: skip
        wps = with_at(wps, path, value)
    for each in pqr.deposits:
        own = {name: getattr(each, name) for name in SHARED if getattr(each, name) is not None}
        own |= {name: Interval.single(getattr(each, name)) for name in SPANS if getattr(each, name) is not None}
        if each.thickness_mm:
            own["thickness_mm"] = Interval.single(each.thickness_mm)
        wps, home = with_deposit(wps, **own)
        read = {name: getattr(each, name) for name in ("current_a", "voltage_v", "travel_speed_mm_min")}
        laid = {name: Interval.single(one.mean) for name, one in read.items() if one and one.mean}
        thick = {"thickness_mm": Interval.single(each.max_pass_thickness_mm)} if each.max_pass_thickness_mm else {}
        wps, _ = with_pass(wps, home, role="fill", **laid, **thick)
    return wps


def judged(wps, code, *of):
    pack = code_pack(code)
    own = with_at(wps, "header/codes", (code,))
    found = Assessor([(str(n), each) for n, each in enumerate(of)]).assess(own)
    assert found.pack is pack or found.pack.code == code
    return found.judgement


@pytest.mark.parametrize("code", CODES)
def test_a_record_covers_its_own_coupon(code):
    for pqr in records(code):
        judgement = judged(as_procedure(pqr), code, pqr)
        bad = {rung.id: rung.reason for rung in judgement.rungs if rung.verdict == "outside"}
        assert not bad, (pqr.header.number, bad)
        unsaid = {
            rung.id for rung in judgement.rungs if rung.stated is None
        }  # nothing that a record says of a procedure
        unsaid |= {rung.id for rung in judgement.rungs if is_none(rung.sure)}  # nothing that the code is known to say
        assert {rung.id for rung in judgement.rungs if rung.verdict == "unproven"} <= unsaid


@pytest.mark.parametrize("test", ["impact", "hardness"])
@pytest.mark.parametrize("code", CODES)
def test_what_is_demanded_and_was_not_tested_is_never_inside(code, test):
    for pqr in records(code):
        without = with_at(pqr, "results", tuple(each for each in pqr.results if each.kind != test))
        for said in (None, False) if test == "impact" else (None,):
            own = with_at(without, "toughness_tested", said)
            wps = with_at(as_procedure(own), f"header/{test}", True)  # noqa: FBT003 - a leaf
            judgement = judged(wps, code, own)
            assert judgement.verdict != "inside"
            assert not all(judgement.supports) or test not in code_pack(code).answered


@pytest.mark.parametrize("code", CODES)
@given(data=st.data())
def test_a_wider_statement_is_never_better_off(code, data):
    pqr = data.draw(st.sampled_from(records(code)))
    narrow = as_procedure(pqr)
    path = data.draw(st.sampled_from(("range/thickness_mm", f"passes/{narrow.passes[0].id}/current_a",
                                      f"passes/{narrow.passes[0].id}/voltage_v")))  # fmt: skip
    low = data.draw(st.floats(0.4, 1.0))
    high = data.draw(st.floats(1.0, 3.0))
    more = data.draw(st.floats(1.0, 2.0))

    def stated(one, other):
        own = next(iter(x for x in [_at(narrow, path)] if x), Interval.single(10.0))
        return with_at(narrow, path, Interval(own.low * one, own.high * other))

    inner, outer = (judged(stated(*ends), code, pqr).verdict for ends in ((low, high), (low / more, high * more)))
    assert ORDER.index(outer) >= ORDER.index(inner)


def _at(wps, path):
    value = wps
    for step in path.split("/"):
        value = next(each for each in value if each.id == step) if isinstance(value, tuple) else getattr(value, step)
    return value


@pytest.mark.parametrize("code", CODES)
@given(data=st.data())
def test_one_more_record_never_takes_cover_away(code, data):
    own = records(code)
    wps = as_procedure(data.draw(st.sampled_from(own)))
    some = data.draw(st.lists(st.sampled_from(own), max_size=3))
    more = data.draw(st.sampled_from(own))
    before, after = judged(wps, code, *some), judged(wps, code, *some, more)
    assert after.verdict == "inside" or before.verdict != "inside"
    assert all(bool(b) <= bool(a) for b, a in zip(before.supports, after.supports, strict=True))


@pytest.mark.parametrize("code", CODES)
def test_what_a_procedure_states_twice_and_not_alike_is_never_inside(code):
    for pqr in records(code):
        wps = as_procedure(pqr)
        assert judged(wps, code, pqr).verdict != "outside"
        for path, value in (
            ("metals/one/p_number", "8"), ("technique/progression", "uphill"),
            (f"deposits/{wps.deposits[0].id}/filler", "E308L-16"),
        ):  # fmt: skip
            assert judged(with_at(wps, path, value), code, pqr).verdict != "inside", path
