"""Heat treatment after welding of construction codes: ASME B31.3 Tables 331.1.1, 331.1.3 (2014 on), VIII-1 UCS-56.

All from memory: temperatures and holds of P-No. 1 H, the rest M unless marked.
"""

from math import inf

import pytest

from anlage.core.ranges import Choices, Interval, Numbers, is_none
from anlage.session.heat.construction import SideFacts, asked_by, construction_codes


def asked(code, variable, units="si", **facts):
    return asked_by(code, [SideFacts(**facts)], variable, units=units)


def is_left_out(code, **facts):
    """Return the verdict on no heat treatment at all."""
    found = asked(code, "pwht", **facts)
    return "inside" if found is None else found.verdict(Choices(frozenset(("none",))))


@pytest.mark.parametrize(
    ("facts", "verdict"),
    [
        ({"p_number": "1", "thickness_mm": 25, "preheat_c": 10, "runs": "multi"}, "inside"),
        ({"p_number": "1", "thickness_mm": 26, "preheat_c": 94, "runs": "multi"}, "outside"),
        ({"p_number": "1", "thickness_mm": 26, "preheat_c": 95, "runs": "multi"}, "inside"),
        ({"p_number": "1", "thickness_mm": 6, "preheat_c": 95, "runs": "single"}, "outside"),
        ({"p_number": "1", "thickness_mm": 26, "preheat_c": None, "runs": "multi"}, "unproven"),
        ({"p_number": "1", "thickness_mm": None, "preheat_c": 95, "runs": None}, "unproven"),
        ({"p_number": "4", "thickness_mm": 16, "preheat_c": 120, "carbon": 0.15, "runs": "multi"}, "inside"),
        ({"p_number": "4", "thickness_mm": 16, "preheat_c": 120, "carbon": 0.16, "runs": "multi"}, "outside"),
        ({"p_number": "4", "thickness_mm": 17, "preheat_c": 120, "carbon": 0.15, "runs": "multi"}, "outside"),
        ({"p_number": "5A", "thickness_mm": 10, "preheat_c": 149, "carbon": 0.15, "runs": "multi"}, "outside"),
        ({"p_number": "15E", "thickness_mm": 4, "preheat_c": 200}, "outside"),
        ({"p_number": "5B", "thickness_mm": 4, "preheat_c": 200}, "unproven"),  # its exemption is not known
        ({"p_number": "3", "group": "3", "thickness_mm": 10, "preheat_c": 95, "carbon": 0.2, "runs": "multi"},
         "unproven"),
        ({"p_number": "8", "thickness_mm": 40}, "inside"),
        ({"p_number": "34", "thickness_mm": 40}, "unproven"),
    ],
)  # fmt: skip
def test_when_b31_3_lets_a_groove_weld_stay_as_welded(facts, verdict):
    assert is_left_out("b31.3", **facts) == verdict


@pytest.mark.parametrize(
    ("facts", "verdict"),
    [
        ({"p_number": "1", "thickness_mm": 32, "preheat_c": 10}, "inside"),
        ({"p_number": "1", "thickness_mm": 33, "preheat_c": 10}, "outside"),
        ({"p_number": "1", "thickness_mm": 38, "preheat_c": 95}, "inside"),
        ({"p_number": "1", "thickness_mm": 39, "preheat_c": 95}, "outside"),
        ({"p_number": "3", "group": "1", "thickness_mm": 17, "preheat_c": 95}, "outside"),
        ({"p_number": "3", "group": "1", "thickness_mm": 16, "preheat_c": 95}, "unproven"),  # qualified as welded?
        ({"p_number": "3", "group": "3", "thickness_mm": 5, "preheat_c": 95}, "outside"),
        ({"p_number": "4", "thickness_mm": 10, "preheat_c": 120, "carbon": 0.15,
          "diameter_mm": Interval(60.3, 114.3)}, "inside"),
        ({"p_number": "4", "thickness_mm": 10, "preheat_c": 120, "carbon": 0.15, "diameter_mm": Interval(60.3, inf)},
         "outside"),
        ({"p_number": "4", "thickness_mm": 10, "preheat_c": 120, "carbon": 0.15}, "unproven"),
        ({"p_number": "8", "thickness_mm": 40}, "unproven"),
    ],
)  # fmt: skip
def test_when_viii_1_lets_a_weld_stay_as_welded(facts, verdict):
    assert is_left_out("viii-1", **facts) == verdict


def test_a_side_that_is_asked_nothing_does_not_free_the_other():
    """Carbon steel of 40 mm joined to austenitic steel is heat treated, and preheated, for the carbon steel."""
    carbon = SideFacts(p_number="1", thickness_mm=40, smts_mpa=485, carbon=0.35, preheat_c=10, runs="multi")
    austenitic = SideFacts(p_number="8", thickness_mm=40, preheat_c=10, runs="multi")
    for sides in ([carbon, austenitic], [austenitic, carbon]):
        found = asked_by("b31.3", sides, "pwht")
        assert found.verdict(Choices(frozenset(("none",)))) == "outside"
        assert asked_by("b31.1", sides, "preheat_c").sure == Numbers((Interval(95, inf),))
    assert asked_by("b31.3", [austenitic], "pwht") is None


def test_the_table_of_b31_1_is_not_known():
    assert is_left_out("b31.1", p_number="1", thickness_mm=10) == "unproven"


@pytest.mark.parametrize(
    ("code", "p_number", "low", "high"),
    [("b31.3", "1", 595, 650), ("b31.3", "3", 595, 650), ("b31.3", "4", 650, 705), ("b31.3", "5A", 675, 760),
     ("b31.3", "6", 760, 800), ("b31.3", "15E", 705, 775), ("viii-1", "1", 595, inf), ("viii-1", "4", 650, inf),
     ("viii-1", "5A", 675, inf), ("viii-1", "15E", 730, 775)],
)  # fmt: skip
def test_temperature(code, p_number, low, high):
    found = asked(code, "pwht_temperature_c", p_number=p_number, thickness_mm=20, pwht="below-ltt")
    assert found.sure == found.possible == Numbers((Interval(low, high),))


def test_what_nobody_is_sure_of_is_withheld():
    found = asked("b31.3", "pwht_temperature_c", p_number="10I", thickness_mm=20, pwht="below-ltt")  # L
    assert is_none(found.sure)
    assert "hazy" in found.reason


@pytest.mark.parametrize(
    ("code", "p_number", "thickness", "hours"),
    [("b31.3", "1", 5, 0.25), ("b31.3", "1", 25, 1), ("b31.3", "3", 50, 2), ("b31.3", "1", 75, 2.25),
     ("b31.3", "1", 100, 2.5), ("b31.3", "5A", 10, 0.5), ("b31.3", "5A", 100, 4), ("viii-1", "1", 40, 1.6),
     ("viii-1", "1", 100, 2.5)],
)  # fmt: skip
def test_hold(code, p_number, thickness, hours):
    found = asked(code, "pwht_time_h", p_number=p_number, thickness_mm=thickness, pwht="below-ltt")
    assert found.sure.parts[0].low == pytest.approx(hours)


def test_an_hour_for_an_inch_in_the_other_column():
    found = asked("b31.3", "pwht_time_h", "us", p_number="1", thickness_mm=25.4, pwht="below-ltt")
    assert found.sure.parts[0].low == pytest.approx(1, abs=1e-9)
    assert found.verdict(Numbers((Interval(1, 1),))) == "inside"


@pytest.mark.parametrize(("thickness", "heating", "cooling"), [(10, 222, 280), (40, 141, 178), (150, 56, 56)])
def test_rates_of_ucs_56(thickness, heating, cooling):
    """HT-4: 222 and 280 K/h over the thickness in inches, never need it be below 56 (H)."""
    told = {"p_number": "1", "thickness_mm": thickness, "pwht": "below-ltt"}
    rates = [asked("viii-1", name, **told).sure.parts[0].high for name in ("heating_rate_k_h", "cooling_rate_k_h")]
    assert rates == pytest.approx([heating, cooling], abs=0.5)


def test_the_rates_in_fahrenheit_are_400_and_500_an_inch():
    told = {"p_number": "1", "thickness_mm": 25.4, "pwht": "below-ltt"}
    found = [
        asked("viii-1", name, "us", **told).sure.parts[0].high for name in ("heating_rate_k_h", "cooling_rate_k_h")
    ]
    assert found == pytest.approx([400 / 1.8, 500 / 1.8])


@pytest.mark.parametrize("code", construction_codes())
@pytest.mark.parametrize("variable", ["preheat_c", "pwht_time_h", "pwht_temperature_c"])
@pytest.mark.parametrize("p_number", ["1", "3", "4", "5A", "5B", "8", "15E"])
def test_what_nobody_states_is_never_better_than_the_worst_of_it(code, variable, p_number):
    """Leaving a fact out may not turn what is outside or unproven with it into inside."""
    whole = {"p_number": p_number, "thickness_mm": 60.0, "smts_mpa": 600.0, "carbon": 0.35, "chromium": 9.0,
             "preheat_c": 10.0, "runs": "single", "pwht": "below-ltt"}  # fmt: skip
    told = asked(code, variable, **whole)
    for fact in ("thickness_mm", "smts_mpa", "carbon", "chromium", "preheat_c", "runs"):
        less = asked(code, variable, **(whole | {fact: None}))
        assert (less is None) == (told is None)
        assert told is None or told.sure.contains(less.sure) or is_none(less.sure)
