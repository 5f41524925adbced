"""How a finished weld may look: B31.3, VIII-1, B31.1, AWS D1.1, API 1104, ISO 5817, clause and thickness at each case.

Sources, from memory: ASME B31.3 Table 341.3.2 (H); ASME VIII-1 UW-35(d) (M); ASME B31.1 Table 127.4.2 (M);
AWS D1.1:2020 7.23 and Table 8.1 (H); API 1104 7.2, 7.8.2, 9.7 (M, H); ISO 5817:2014, 501, 502, 504, 5071, 5072 (H).
ISO-W6 is a worked case of the project's reference.
"""

import pytest

from anlage.core.document import Dimension, with_at
from anlage.session.judging.finish import finish_limits, finish_words
from tests.vessels import seam

CAP = "joint__reinforcement_mm"


def limits(code, thickness=14.0, cap=None, **leaves):
    wps = seam(**{"header__construction_code": code, "joint__thickness_mm": thickness, "joint__kind": "single-v",
                  "range__thickness_mm": None if thickness is None else (thickness, thickness), **leaves})  # fmt: skip
    if cap is not None:
        wps = with_at(wps, "joint/reinforcement_mm", cap if isinstance(cap, Dimension) else Dimension(nominal=cap))
    return {each.variable: each for each in finish_limits(wps)}


@pytest.mark.parametrize(("thickness", "most"), [(6.0, 1.5), (6.1, 3), (13.0, 3), (14.0, 4), (25.0, 4), (26.0, 5)])
def test_b31_3_cap_and_root_each(thickness, most):  # H
    found = limits("b31.3", thickness)
    assert found["cap_mm"].most_mm == found["root_cap_mm"].most_mm == most
    assert found["cap_mm"].clause == "Table 341.3.2"


@pytest.mark.parametrize(
    ("thickness", "least", "most"), [(2.0, 0.8, 2.5), (4.0, 1.5, 3), (10.0, 2.5, 4), (20.0, 2.5, 5), (60.0, 4, 6)]
)
def test_viii_1_by_which_weld_it_is(thickness, least, most):  # M: both are read
    own = limits("viii-1", thickness, cap=most)["cap_mm"]
    assert own.most_mm == least
    assert own.verdict == "unproven"
    assert limits("viii-1", thickness, cap=least)["cap_mm"].verdict == "inside"
    assert limits("viii-1", thickness, cap=most + 0.2)["cap_mm"].verdict == "outside"


def test_b31_1_by_a_design_temperature_that_nobody_states():  # M
    assert [limits("b31.1", 10.0, cap=cap)["cap_mm"].verdict for cap in (1.5, 4.0, 5.5)] == [
        "inside", "unproven", "outside",
    ]  # fmt: skip


@pytest.mark.parametrize(("thickness", "most"), [(25.0, 3), (26.0, 5), (50.0, 5), (60.0, 6)])
def test_d1_1_reinforcement_of_a_butt(thickness, most):  # H
    assert limits("aws-d1.1-work", thickness)["cap_mm"].most_mm == most


@pytest.mark.parametrize(
    ("thickness", "loading", "most"),
    [(14.0, "static", 1), (25.0, "static", 2), (14.0, "cyclic", 0.25), (30.0, "cyclic", 0.25)],
)
def test_d1_1_undercut(thickness, loading, most):  # H; cyclic by two readings
    own = limits("aws-d1.1-work", thickness, header__loading=loading)["undercut_mm"]
    assert own.most_mm == most
    assert own.when == "at inspection"
    assert own.verdict is None, "nobody draws an undercut"


def test_api_1104():  # numbers H, the verb M
    found = limits("api-1104-work", 5.0, cap=1.6)
    assert found["cap_mm"].verdict == "inside"
    assert limits("api-1104-work", 5.0, cap=1.8)["cap_mm"].verdict == "outside"
    assert found["undercut_mm"].most_mm == pytest.approx(0.125 * 5.0)
    assert limits("api-1104-work", 20.0)["undercut_mm"].most_mm == 0.8
    assert (found["offset_mm"].most_mm, found["offset_mm"].when) == (3, "at fit-up")


@pytest.mark.parametrize(
    ("level", "undercut", "plate", "pipe"), [("b", 0.5, 1.1, 2), ("c", 0.5, 1.65, 3), ("d", 1.0, 2.75, 4)]
)
def test_iso_w6_undercut_and_offset_of_11_mm(level, undercut, plate, pipe):  # H: the case is level B
    found = limits(f"iso-5817-{level}", 11.0)
    assert found["undercut_mm"].most_mm == pytest.approx(undercut)
    assert found["offset_mm"].most_mm == pytest.approx(plate)
    own = limits(f"iso-5817-{level}", 11.0, joint__product="pipe", joint__od_mm=300.0)
    assert own["offset_mm"].most_mm == pytest.approx(pipe)


@pytest.mark.parametrize(("level", "times", "most"), [("b", 0.1, 5), ("c", 0.15, 7), ("d", 0.25, 10)])
def test_iso_w6_excess_weld_metal_by_the_width_of_the_cap(level, times, most):  # H: 1 + 0.1 b at level B, 2.6 of 16 mm
    wide = limits(f"iso-5817-{level}", 60.0)["cap_mm"].most_mm
    narrow = limits(f"iso-5817-{level}", 14.0)["cap_mm"].most_mm
    assert 1 < narrow < wide <= most
    base = {
        "joint__kind": "square", "joint__root_face_mm": None, "joint__groove_angle_deg": None,
        "joint__root_opening_mm": Dimension(nominal=4.0), "joint__cap_overlap_mm": Dimension(nominal=6.0),
    }  # fmt: skip
    assert limits(f"iso-5817-{level}", 3.0, **base)["cap_mm"].most_mm == pytest.approx(1 + times * 16)


def test_without_a_cap_drawn_nothing_is_judged_and_without_a_width_nothing_is_sure():
    assert limits("b31.3")["cap_mm"].verdict is None
    own = limits("iso-5817-b", joint__kind=None, joint__root_face_mm=None, joint__groove_angle_deg=None,
                 joint__root_opening_mm=None, cap=1.0)["cap_mm"]  # fmt: skip
    assert own.verdict == "unproven"


def test_the_tolerance_of_a_cap_counts():
    assert limits("b31.3", cap=Dimension(nominal=3.0, plus=1.0))["cap_mm"].verdict == "inside"
    assert limits("b31.3", cap=Dimension(nominal=3.0, plus=1.5))["cap_mm"].verdict == "outside"


def test_where_no_code_is_named_the_contract_is_not_stated():
    assert finish_words(seam()) == "Cap, root, undercut and offset: contract: not stated."
    assert finish_limits(seam(header__construction_code="no code at all")) == ()
    said = finish_words(seam(header__construction_code="iso-5817-b", range__thickness_mm=(14.0, 14.0)))
    assert said.startswith("Cap ≤ 1.")
    assert "undercut ≤ 0.5\u2009mm at inspection (501)" in said.replace("0.5 mm", "0.5\u2009mm")


def test_a_joint_that_is_welded_from_both_sides_has_caps_alone():
    assert "root_cap_mm" in limits("b31.3")
    assert "root_cap_mm" not in limits("b31.3", joint__kind="double-v")


@pytest.mark.parametrize(("own", "said"), [("A", "0.05 of the thickness"), ("B", "0.07"), ("C", "0.2")])
def test_d17_1_undercut_by_class_is_hazy(own, said):  # L: unproven until somebody compares it
    found = limits("aws-d17.1-work", 2.3, header__weld_class=own)["undercut_mm"]
    assert found.allowed.startswith("unproven")
    assert found.confidence == "L"
    assert said in found.note


def test_a_cap_drawn_for_one_thickness_is_not_proven_for_a_thinner_one():
    cap = Dimension(nominal=2.5)
    assert limits("b31.3", cap=cap)["cap_mm"].verdict == "inside"
    own = limits("b31.3", cap=cap, range__thickness_mm=(4.0, 40.0))["cap_mm"]
    assert own.verdict == "unproven"
    assert "over its range of thickness ≤ 1.5" in own.words
    assert limits("b31.3", cap=Dimension(nominal=1.5), range__thickness_mm=(4.0, 40.0))["cap_mm"].verdict == "inside"
    assert limits("b31.3", cap=Dimension(nominal=4.5), range__thickness_mm=(4.0, 40.0))["cap_mm"].verdict == "outside"
