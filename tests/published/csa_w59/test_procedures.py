"""Data sheets by CSA W59 and W47.1: what is known of them, and what is not.

Source: CSA W59:2018 and W47.1:2019, from memory, the confidence at each case.
"""

import pytest

from anlage.session.judging.evidence import evidence_of_document
from tests.frames import frame, judged, record

SHORT = {"current_a": (110, 130), "voltage_v": (16, 18), "wire_speed_mm_min": (4000, 4400)}
CODE = {"header__codes": ("csa-w59",), "metals__one__name": "A572-50"}


def rung(wps, variable, *records):
    return next(each for each in judged(wps, *records).rungs if each.variable == variable)


def test_a_data_sheet_without_a_test_is_at_best_unproven():  # H that joints are not held
    found = judged(frame("FCAW", **CODE))
    assert found.verdict == "unproven"
    assert "outside" not in {each.verdict for each in found.rungs}


def test_short_circuit_and_tungsten_arc_need_a_test():  # M
    assert (
        rung(frame("GMAW", deposit={"transfer_mode": "short"}, settings=SHORT, **CODE), "transfer_mode").verdict
        == "outside"
    )
    assert rung(frame("GMAW", **CODE), "transfer_mode").verdict == "inside"
    assert judged(frame("GTAW", **CODE)).verdict == "outside"


def test_ceramic_backing_needs_a_test():  # M: the reference's worked example
    ceramic = frame("FCAW", joint__backing_form="ceramic", **CODE)
    assert rung(ceramic, "root_side").verdict == "outside"
    assert rung(frame("FCAW", **CODE), "root_side").verdict == "inside"


def test_a_record_counts_only_where_somebody_knows_its_specimens():  # L
    own = record("GTAW", header__codes=("csa-w59",), metals__one__name="A572-50", joint__thickness_mm=8.0)
    assert evidence_of_document(own).state == "open"
    assert "nobody has checked" in evidence_of_document(own).reason


def test_structural_steel_alone():  # M
    stainless = frame("FCAW", header__codes=("csa-w59",), metals__one__name="A240-304L")
    assert rung(stainless, "metal_family").verdict == "outside"


def preheat(thickness, least, metal="A572-50", filler="E7018"):
    wps = frame("SMAW", deposit={"filler": filler}, **{**CODE, "metals__one__name": metal}, preheat__minimum_c=least,
                joint__thickness_mm=thickness, range__thickness_mm=(thickness, thickness))  # fmt: skip
    return rung(wps, "preheat_c").verdict


@pytest.mark.parametrize(
    ("thickness", "least", "verdict"),
    [(20, 0, "inside"), (21, 5, "outside"), (21, 10, "inside"), (48, 65, "inside"), (48, 64, "outside"),  # M
     (62, 110, "inside"), (62, 65, "unproven"), (62, 64, "outside"),  # M; 65 if the line were at 65 mm (L)
     (66, 110, "inside"), (66, 100, "outside")],
)  # fmt: skip
def test_preheat_of_350_mpa_with_low_hydrogen(thickness, least, verdict):  # the reference's worked example: 48, 62 mm
    assert preheat(thickness, least) == verdict


@pytest.mark.parametrize(
    ("thickness", "least", "verdict"),
    [(21, 65, "inside"), (21, 64, "outside"), (41, 110, "inside"), (62, 149, "unproven"), (66, 149, "outside")],
)
def test_preheat_of_mild_steel_without_low_hydrogen(thickness, least, verdict):  # M
    assert preheat(thickness, least, metal="A36", filler="E6010") == verdict


def test_what_nobody_knows_of_preheat_is_unproven():
    assert preheat(20, 150, filler="E6010") == "unproven", "over 300 MPa in general not without low hydrogen (M)"
    assert preheat(20, 0, metal="A572-65", filler="E8018-C3") == "unproven", "by a hazy row (L), never outside"
    assert preheat(20, 200, metal="A514-B", filler="E11018-M") == "unproven", "as the producer says (L)"
    assert preheat(20, None) == "unproven"


def test_preheat_of_a_range_is_that_of_its_thickest_part():
    wps = frame("FCAW", range__thickness_mm=(8.0, 48.0), preheat__minimum_c=10.0, **CODE)
    assert rung(wps, "preheat_c").verdict == "outside"
