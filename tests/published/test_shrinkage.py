"""Shrinkage by the published schools, worked by hand from their formulas (all from memory; ± 50 % in themselves)."""

import pytest

from anlage.core.errors import InputError
from anlage.core.shrinkage import fillet_transverse, fillet_turn, transverse


def said(**given):
    return {school.name: (school.low_mm, school.high_mm) for school in transverse(165, thickness_mm=14, **given)}


def test_the_schools_of_a_butt_weld():
    found = said(root_opening_mm=3, heat_input_j_mm=1500)
    assert found["spraragen_ettinger"][0] == pytest.approx(0.2 * 165 / 14 + 0.05 * 3)  # 1944: 2.51 mm
    assert found["blodgett"][0] == pytest.approx(1.18, abs=0.005)  # 1966: a tenth of the mean width
    assert found["malisius"] == pytest.approx((1.78, 2.62), abs=0.01)  # 1936, k 43 and 64
    assert sum(found["okerblom"]) / 2 == pytest.approx(0.7 * 2.449e-3 * 1500 / 14)  # 0.184 mm, one pass
    assert "okerblom" not in said(root_opening_mm=3)


def test_a_fillet_turns_its_plate():
    """Blodgett 1966 in inches: 0.02·W·ω^1.3/t²."""
    inches = 0.02 * (150 / 25.4) * (7 / 25.4) ** 1.3 / (12 / 25.4) ** 2
    assert fillet_turn(150, leg_mm=7, thickness_mm=12) == pytest.approx(25.4 * inches)
    assert fillet_turn(150, leg_mm=7, thickness_mm=12) == pytest.approx(2.52, abs=0.005)


def test_a_fillet_draws_its_plates_together():
    """Handbook rule, 1/32 in (0.8 mm) a fillet with a leg up to three quarters of the thickness, from memory."""
    assert fillet_transverse(leg_mm=9, thickness_mm=12) == pytest.approx(25.4 / 32, abs=0.01)
    assert fillet_transverse(leg_mm=9.01, thickness_mm=12) is None
    with pytest.raises(InputError, match="thickness"):
        fillet_transverse(leg_mm=5, thickness_mm=0)


def test_a_weld_without_area_is_refused():
    with pytest.raises(InputError, match="area"):
        transverse(0, thickness_mm=10)
