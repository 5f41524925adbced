"""Tempering, hydrogen leaving a plate and purging: published formulas worked by hand, all from memory."""

import math

import pytest

from anlage.core.errors import InputError
from anlage.core.purge import Oxygen, leak_floor, oxygen_left, purge_time, purged_volume, thumb_time
from anlage.core.thermal.hydrogen import diffusivity, hold_time, hydrogen_left
from anlage.core.thermal.tempering import added_up, equivalent_time, heating_rates, hollomon_jaffe, ramp_time


@pytest.mark.parametrize(
    ("celsius", "hours", "thousands"), [(620, 2, 18.132), (675, 3, 19.415), (760, 2, 20.974), (600, 1, 17.463)]
)
def test_hollomon_and_jaffe(celsius, hours, thousands):
    """Hollomon and Jaffe 1945, C = 20."""
    assert hollomon_jaffe(celsius, hours) == pytest.approx(thousands, abs=5e-4)


def test_holds_that_equal_each_other():
    parameter = hollomon_jaffe(620, 2)
    assert (equivalent_time(parameter, 600), equivalent_time(parameter, 640)) == pytest.approx((5.835, 0.72), abs=0.005)
    both = added_up([(620, 2), (600, 3)], reference_c=620)
    assert both.hours == pytest.approx(3.04, abs=0.005)
    assert hollomon_jaffe(620, both.hours) == pytest.approx(18.295, abs=5e-4)
    assert both.in_turn_hours == pytest.approx(3.00, abs=0.005)
    assert added_up([(600, 3), (620, 2)], reference_c=620).hours == pytest.approx(both.hours)
    alone = added_up([(600, 1)], reference_c=600)
    assert (alone.hours, alone.in_turn_hours) == pytest.approx((1, 1))


def test_a_ramp_counts():
    """Handbook rule on the same formula, M."""
    assert ramp_time(620, rate_k_h=55) == pytest.approx(0.39, abs=0.005)
    assert ramp_time(620, rate_k_h=110) == pytest.approx(893.15 / (2.3 * 110 * (20 - math.log10(110))))


@pytest.mark.parametrize(
    ("thickness", "heating", "cooling"), [(40, 141, 178), (150, 56, 56), (10, 222, 280), (25.4, 222, 280)]
)
def test_rates_of_a_vessel(thickness, heating, cooling):
    """ASME VIII-1 UCS-56, above 425 °C."""
    found = heating_rates(thickness)
    assert (found.heating_k_h, found.cooling_k_h) == pytest.approx((heating, cooling), abs=0.5)


@pytest.mark.parametrize(
    "call",
    [lambda: hollomon_jaffe(620, 0), lambda: hollomon_jaffe(-300, 1), lambda: added_up([], reference_c=600),
     lambda: ramp_time(620, rate_k_h=0)],
)  # fmt: skip
def test_no_heat_treatment(call):
    with pytest.raises(InputError):
        call()


@pytest.mark.parametrize(
    ("celsius", "d", "hours"),
    [(20, 1.79e-5, 2965), (100, 3.17e-4, 167), (150, 1.10e-3, 48.1), (200, 4.64e-3, 11.4), (250, 6.43e-3, 8.24),
     (300, 8.41e-3, 6.30), (350, 1.05e-2, 5.03)],
)  # fmt: skip
def test_hydrogen_wanders(celsius, d, hours):
    """Johnson and Hill 1960; hours until a tenth is left in 30 mm by Crank 1975."""
    assert diffusivity(celsius) == pytest.approx(d, rel=5e-3)
    assert hold_time(30, temperature_c=celsius, left=0.1) == pytest.approx(hours, rel=5e-3)


def test_hydrogen_that_is_left():
    """Crank 1975: the sum for a slab, early and late."""
    assert hydrogen_left(40, temperature_c=250, hours=4) == pytest.approx(0.4584, abs=5e-5)
    assert hold_time(40, temperature_c=250, left=0.2) == pytest.approx(9.80, abs=0.005)
    assert hydrogen_left(40, temperature_c=250, hours=hold_time(40, temperature_c=250, left=0.2)) == pytest.approx(
        0.2, abs=1e-4
    )
    assert hydrogen_left(40, temperature_c=250, hours=0) == 1
    lots = sum(math.exp(-((2 * n + 1) ** 2) * 0.05) / (2 * n + 1) ** 2 for n in range(2000)) * 8 / math.pi**2
    hours = 0.05 * 40**2 / (math.pi**2 * diffusivity(250) * 3600)
    assert hydrogen_left(40, temperature_c=250, hours=hours) == pytest.approx(lots, rel=1e-6)


@pytest.mark.parametrize(
    ("target", "gas", "changes", "minutes"),
    [(500, 5, 6.048, 2.24), (100, 5, 7.699, 2.85), (50, 5, 8.446, 3.12), (20, 5, 9.544, 3.53), (50, 0, 8.340, None)],
)
def test_purging_a_bore(target, gas, changes, minutes):
    """A well-mixed vessel from air; 102.26 mm bore, dams 450 mm apart, 10 l/min."""
    volume = purged_volume(102.26, 450)
    found = purge_time(volume, flow_l_min=10, oxygen=Oxygen(target, gas_ppm=gas))
    assert volume == pytest.approx(3.696, abs=5e-4)
    assert found.volume_changes == pytest.approx(changes, abs=5e-4)
    assert found.plug_min == pytest.approx(0.37, abs=0.005)
    if minutes:
        assert found.mixing_min == pytest.approx(minutes, abs=0.005)
    assert oxygen_left(found.volume_changes, gas_ppm=gas) == pytest.approx(target)


def test_poor_mixing_and_leaks():
    poor = purge_time(10, flow_l_min=10, oxygen=Oxygen(100), mixing=0.5)
    assert poor.mixing_min == pytest.approx(2 * purge_time(10, flow_l_min=10, oxygen=Oxygen(100)).mixing_min)
    assert leak_floor(10, leak_l_min=0.01) == pytest.approx(209.5, rel=2e-3)


@pytest.mark.parametrize(
    ("bore", "changes", "ppm"), [(2, 6.1, 460), (3, 4.07, 3600), (4, 3.06, 9900), (6, 2.04, 27000)]
)
def test_what_the_rule_of_thumb_really_leaves(bore, changes, ppm):
    """Common practice, no source: minutes = 4 × bore [in] × length [ft] / flow [ft³/h]."""
    minutes = thumb_time(25.4 * bore, length_mm=304.8, flow_l_min=0.471947 * 10)
    assert minutes == pytest.approx(4 * bore / 10)
    found = minutes * 0.471947 * 10 / purged_volume(25.4 * bore, 304.8)
    assert found == pytest.approx(changes, rel=5e-3)
    assert oxygen_left(found) == pytest.approx(ppm, rel=0.03)


@pytest.mark.parametrize(
    ("oxygen", "mixing", "words"),
    [(Oxygen(5, gas_ppm=5), 1, "never reached"), (Oxygen(300000), 1, "not below"), (Oxygen(50), 0, "no share"),
     (Oxygen(50), 1.5, "no share"), (Oxygen(50, gas_ppm=-1), 1, "never reached")],
)  # fmt: skip
def test_no_purge(oxygen, mixing, words):
    with pytest.raises(InputError, match=words):
        purge_time(10, flow_l_min=10, oxygen=oxygen, mixing=mixing)
