"""Least preheat of construction codes by P-Number: ASME B31.3 Table 330.1.1, B31.1 para. 131.4, VIII-1 Appendix R.

All from memory: B31.3 of the common P-Numbers H, the rest M.
"""

from math import inf

import pytest

from anlage.core.ranges import Interval, numbers
from anlage.core.thermal.crayons import crayon_pair
from anlage.data.metal_tables import crayons
from anlage.session.heat.construction import SideFacts, asked_by


def side(p_number, thickness=None, smts=None, carbon=None, chromium=None):
    return SideFacts(p_number=p_number, thickness_mm=thickness, smts_mpa=smts, carbon=carbon, chromium=chromium)


def asked(code, *facts, units="si"):
    found = asked_by(code, [side(*facts)], "preheat_c", units=units)
    return None if found is None else (found.possible.parts[0].low, found.sure.parts[0].low)


@pytest.mark.parametrize(
    ("code", "facts", "celsius"),
    [("b31.3", ("1", 25, 485, 0.35), 10), ("b31.3", ("1", 26, 485, 0.30), 10), ("b31.3", ("1", 26, 485, 0.31), 95),
     ("b31.3", ("3", 13, 450, 0.2), 10), ("b31.3", ("3", 14, 450, 0.2), 95), ("b31.3", ("3", 5, 480, 0.2), 95),
     ("b31.3", ("4", 5, 415, 0.15), 120), ("b31.3", ("5A", 5, 414, 0.15, 2.25), 150),
     ("b31.3", ("5A", 5, 415, 0.15, 2.25), 200),
     ("b31.3", ("5B", 14, 400, 0.15, 9.0), 200), ("b31.3", ("5B", 13, 400, 0.15, 9.0), 150),
     ("b31.3", ("15E", 5, 585, 0.1, 9.0), 200),
     ("b31.3", ("9A", 20, 480, 0.2), 120), ("b31.3", ("8", 20, 485, 0.03, 18.0), 10),
     ("b31.1", ("1", 30, 485, 0.35), 95),
     ("b31.1", ("4", 5, 415, 0.15), 120), ("viii-1", ("1", 30, 485, 0.35), 79), ("viii-1", ("4", 10, 400, 0.15), 10),
     ("viii-1", ("4", 14, 400, 0.15), 121), ("viii-1", ("15E", 10, 585, 0.1, 9.0), 204)],
)  # fmt: skip
def test_least_preheat(code, facts, celsius):
    assert asked(code, *facts) == (celsius, celsius)


def test_the_column_of_the_unit_system_is_read():
    assert asked("b31.3", "4", 10, 415, 0.15, units="us") == pytest.approx((250 / 1.8 - 32 / 1.8,) * 2)
    assert asked("b31.3", "1", 25.4, 485, 0.35, units="us") == pytest.approx((10, 10))
    assert asked("b31.3", "1", 25.4, 485, 0.35, units="si") == (95, 95)


def test_what_is_not_known_leaves_two_readings():
    assert asked("b31.3", "1", 30, 485, None) == (10, 95)
    assert asked("b31.3", "3", None, 450, 0.2) == (10, 95)
    found = asked_by("b31.3", [side("1", None, 485)], "preheat_c")
    assert found.lacks == ("thicker member", "specified carbon")
    assert asked("b31.1", "3", 10, 430, 0.2) == (10, 95)  # editions draw the line at 413 or at 450 MPa
    assert asked("b31.1", "3", 10, 460, 0.2) == (95, 95)
    assert asked("b31.1", "3", 10, 410, 0.2) == (10, 10)


def test_of_two_sides_the_higher_holds_and_one_that_is_not_listed_leaves_none():
    parts = [side("1", 10, 485, 0.2), side("5A", 10, 415, 0.15, 2.25)]
    found = asked_by("b31.3", parts, "preheat_c")
    assert found.sure == found.possible == numbers([Interval(200, inf)])
    assert asked_by("b31.3", parts, "interpass_c") is None
    assert asked_by("b31.3", [side("6", 10, 415, 0.15, 12)], "interpass_c").sure.parts[0].high == 315
    assert asked("b31.1", "34", 10, 415, 0, 0) is None
    assert asked_by("b31.1", [], "preheat_c") is None


@pytest.mark.parametrize(
    ("least", "most", "units", "pair"),
    [(80, 250, "si", (100, 250)), (100, 249, "si", (100, 225)), (250, 400, "us", (250, 400)),
     (251, 399, "us", (275, 375)),
     (None, 60, "si", (None, 50)), (400, 40, "si", (None, None))],
)  # fmt: skip
def test_crayons_for_a_least_and_a_most(least, most, units, pair):
    """Common practice, no source: the minimum must melt, the maximum must not."""
    found = crayon_pair(crayons(), least=least, most=most, units=units)
    assert (found.must_melt, found.must_not) == pair
