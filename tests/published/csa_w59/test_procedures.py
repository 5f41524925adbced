"""Data sheets by CSA W59 and W47.1: what is known of them, and what is not.

Source: CSA W59:2018 and W47.1:2019, from memory, the confidence at each case.
"""

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
