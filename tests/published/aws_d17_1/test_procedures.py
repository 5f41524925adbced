"""Procedures by AWS D17.1: thicknesses of worked cases 1 to 3 of the project's reference; wrong ones, and their twins.

Source: AWS D17.1/D17.1M:2017, from memory. The cases are of welders, where 0.67 to 4 times the coupon is sure (H); of
procedures it is believed (L), so that nothing is inside by it and what lies beyond is outside.
"""

import pytest

from anlage.core.codes.facts import Facts
from anlage.data.code_packs import code_pack
from anlage.session.judging.evidence import evidence_of_document
from tests.frames import assert_caught, judged
from tests.sheets import aerospace, aerospace_record


def rung(wps, variable, *records):
    return next(each for each in judged(wps, *records).rungs if each.variable == variable)


@pytest.mark.parametrize(
    ("coupon", "stated"), [(2.3, (1.541, 9.2)), (2.3, (1.4, 1.4)), (5.0, (3.35, 20.0)), (5.0, (18.0, 18.0))]
)
def test_thickness_is_hazy_of_procedures(coupon, stated):  # L: nobody has compared it with an owned copy
    record = aerospace_record(joint__thickness_mm=coupon, deposit={"thickness_mm": coupon})
    own = rung(aerospace(range__thickness_mm=stated, joint__thickness_mm=stated[1]), "base_metal_thickness_mm", record)
    assert (own.verdict, own.confidence) == ("unproven", "L")


@pytest.mark.parametrize(("coupon", "least", "most"), [(2.3, 1.541, 9.2), (5.0, 3.35, 20.0)])
def test_067_to_4_times_the_coupon(coupon, least, most):  # H of welders
    """The figures of the rule itself, as whoever checks it reads them."""
    (rule,) = [each for each in code_pack("aws-d17.1").rules if each.id == "thickness"]
    told = rule.kind.allowed(Facts({"base_metal_thickness_mm": coupon}, {}), "si")
    assert (told.possible.parts[0].low, told.possible.parts[0].high) == pytest.approx((least, most))


def test_a_sound_procedure_is_unproven_where_nobody_recalls_a_limit():
    found = judged(aerospace(), aerospace_record())
    assert found.verdict == "unproven"
    assert "outside" not in {each.verdict for each in found.rungs}
    inside = {each.variable for each in found.rungs if each.verdict == "inside"}
    assert {"process", "operation", "metal_family", "weld", "backing", "current_type"} <= inside


WRONG = [
    ("operation", {}, {"operation": "automatic"}),
    ("current_type", {}, {"current_type": "AC"}),
    ("metal_family", {"metals__one__name": "B209-6061-T6"}, {}),
    ("metal_family", {"metals__one__name": "A240-304L"}, {}),
    ("filler_present", {}, {"filler": "none", "filler_diameter_mm": None}),
]  # fmt: skip


@pytest.mark.parametrize(("variable", "wrong", "laid"), WRONG)
def test_a_wrong_procedure_is_caught_and_its_twin_is_not(variable, wrong, laid):
    record = aerospace_record()
    assert_caught(variable, "5 (", aerospace(laid, **wrong), [record])
    assert rung(aerospace(), variable, record).verdict != "outside"


def test_backing_serves_the_open_root_never_the_other_way_round():
    backed = {"joint__kind": "v-backing", "joint__root_face_mm": None}
    assert_caught("backing", "5 (", aerospace(), [aerospace_record(**backed)])
    assert rung(aerospace(**backed), "backing", aerospace_record()).verdict == "inside"


def test_a_test_weld_is_examined_by_surface_and_through():  # M
    assert evidence_of_document(aerospace_record()).state == "accepted"
    short = aerospace_record(results=(("visual", 1), ("radiographic", 1)))
    assert evidence_of_document(short).state == "open"


def test_the_packet_of_papers_is_named():
    """B6 of the reference (M)."""
    papers = " ".join(code_pack("aws-d17.1").papers)
    for word in ("record", "vision", "log of use", "lot", "rework"):
        assert word in papers


def test_the_class_of_the_weld_is_stated():
    assert rung(aerospace(header__weld_class=None), "weld_class", aerospace_record()).verdict == "unproven"
    assert rung(aerospace(header__weld_class="C"), "weld_class", aerospace_record()).verdict == "inside"
