"""Least preheat of construction codes by P-Number: ASME B31.3 Table 330.1.1, B31.1 para. 131.4, VIII-1 Appendix R.

All from memory: B31.3 of the common P-Numbers H, the rest M.
"""

import pytest

from anlage.core.thermal.code_preheat import PartFacts, code_minimum
from anlage.core.thermal.crayons import crayon_pair
from anlage.data.metal_tables import code_preheat, crayons


def asked(code, p_number, thickness=None, smts=None, carbon=None, chromium=None, units="si"):
    found = code_minimum(
        code, [PartFacts(p_number, thickness, smts, carbon, chromium)], units=units, tables=code_preheat()
    )
    return None if found is None else (found.low_c, found.high_c)


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
    found = code_minimum("b31.3", [PartFacts("1", None, 485, None, None)], units="si", tables=code_preheat())
    assert found.lacks == ("thickness", "carbon")


def test_of_two_sides_the_higher_holds_and_one_that_is_not_listed_leaves_none():
    parts = [PartFacts("1", 10, 485, 0.2, None), PartFacts("5A", 10, 415, 0.15, 2.25)]
    found = code_minimum("b31.3", parts, units="si", tables=code_preheat())
    assert (found.low_c, found.high_c, found.interpass_c) == (200, 200, None)
    assert (
        code_minimum("b31.3", [PartFacts("6", 10, 415, 0.15, 12)], units="si", tables=code_preheat()).interpass_c == 315
    )
    assert code_minimum("b31.1", [PartFacts("34", 10, 415, 0, 0)], units="si", tables=code_preheat()) is None
    assert code_minimum("b31.1", [], units="si", tables=code_preheat()) is None


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
