"""The number of a deposit by ISO 4063:2009, from memory: process, gas and filler decide, or nothing is said."""

import pytest

from anlage.session.leaves.iso_numbers import efficiency_of, iso_number


@pytest.mark.parametrize(
    ("process", "filler", "gas", "number"),
    [
        ("SMAW", "E7018", None, "111"),
        ("FCAW", "E71T-8", "none", "114"),
        ("FCAW", "E71T-1C", "CO2", "136"),
        ("FCAW", "E308LT1-1", "Ar", "132"),
        ("GMAW", "ER4043", "Ar", "131"),
        ("GMAW", "ER4043", "75Ar/25He", "131"),
        ("GMAW", "ER70S-6", "Ar-18CO2", "135"),
        ("GMAW", "ER308LSi", "98Ar/2O2", "135"),
        ("MCAW", "E70C-6M", "Ar-18CO2", "138"),
        ("MCAW", "E70C-6M", "Ar", "133"),
        ("SAW", "F7A2-EM12K", None, "121"),
        ("SAW", "F7A2-EC1", None, "125"),
        ("GTAW", "ER70S-2", "Ar", "141"),
        ("GTAW", "none", "Ar", "142"),
        ("GTAW", "R308LT1-5", "Ar", "143"),
        ("GTAW", "ER308L", "95Ar/5H2", "145"),
        ("PAW", None, None, "15"),
    ],
)
def test_the_number_follows_from_process_gas_and_filler(process, filler, gas, number):
    assert iso_number(process, filler, gas) == number


@pytest.mark.parametrize(
    ("process", "filler", "gas"),
    [
        ("GMAW", "ER70S-6", None), ("GMAW", "ER70S-6", "steam"), ("GMAW", "ER70S-6", "Ar or CO2"),
        ("FCAW", "E71T-1C", None), ("GTAW", None, "Ar"), ("SAW", None, None), (None, "E7018", None),
        ("GTAW", "E7O18", "Ar"),
    ],
)  # fmt: skip
def test_what_is_not_stated_leaves_the_number_open(process, filler, gas):
    assert iso_number(process, filler, gas) == ""


@pytest.mark.parametrize(
    ("process", "filler", "gas", "k"),
    [
        ("GTAW", "ER70S-2", "Ar", 0.6), ("GTAW", "none", "Ar", None), ("GMAW", "ER70S-6", None, 0.8),
        ("SAW", "F7A2-EM12K", None, 1.0), ("SAW", "F7A2-EC1", None, None), ("SMAW", "E7018", None, 0.8),
    ],
)  # fmt: skip
def test_the_efficiency_is_that_of_the_number_where_it_is_known(process, filler, gas, k):
    """EN 1011-1:2009 Table 1, from memory: 142 and cored submerged wire are not named there."""
    assert efficiency_of(process, filler, gas).k == k
