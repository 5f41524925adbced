"""Arc energy, heat input and run-out.

Sources: ASME BPVC IX QW-409.1 and Appendix H (H), ISO/TR 18491:2015 (H), EN 1011-1:2009 (H), EN 1011-2:2001 Annex C
(M). The worked figures are from memory, checked by hand from the formulas.
"""

import pytest
from hypothesis import given
from hypothesis import strategies as st

from anlage.core.errors import InputError
from anlage.core.heat import (
    arc_energy,
    arc_energy_from_energy,
    arc_energy_from_power,
    heat_input,
    over_range,
    run_out,
)
from anlage.core.processes import thermal_efficiency
from anlage.core.ranges import Interval
from anlage.data.tables import processes, run_out_factors

IN = 25.4


@pytest.mark.parametrize(("voltage_v", "current_a", "speed_in_min"), [(22.4, 128.0, 5.3), (31.0, 415.0, 17.5)])
def test_us_and_european_formula_agree(voltage_v, current_a, speed_in_min):  # QW-409.1(a); EN 1011-1 with k = 1
    joules_per_inch = voltage_v * current_a * 60 / speed_in_min
    assert arc_energy(voltage_v, current_a, speed_in_min * IN / 60) == pytest.approx(joules_per_inch / 25_400)


@pytest.mark.parametrize(
    ("found", "joules_per_mm"),
    [
        (arc_energy(24.5, 135, 4.2 * IN / 60), 1860.2),
        (arc_energy(27, 240, 320 / 60), 1215.0),
        (arc_energy_from_power(4300, 190 / 38), 860),
        (arc_energy_from_energy(61_200, 2.4 * IN), 1003.9),
    ],
)
def test_the_methods_of_qw_409_1(found, joules_per_mm):
    assert found * 1000 == pytest.approx(joules_per_mm, rel=5e-5)


def test_arc_energy_times_efficiency_is_heat_input():  # EN 1011-1, process 135, k = 0.8
    energy = arc_energy(24.6, 208, 285 / 60)
    assert energy == pytest.approx(1.0772, abs=5e-5)
    assert heat_input(energy, 0.8) == pytest.approx(0.8618, abs=5e-5)


def test_mean_power_of_a_pulsed_arc_is_not_mean_volts_times_mean_amps():  # identity of HI-8, HI-9: algebra
    share, pulse, base = 0.23, (33.5, 395.0), (19.5, 62.0)
    power = share * pulse[0] * pulse[1] + (1 - share) * base[0] * base[1]
    assert power == pytest.approx(3974.4, abs=0.05)
    assert heat_input(arc_energy_from_power(power, 7.0), 0.8) == pytest.approx(0.4542, abs=5e-5)


@pytest.mark.parametrize(
    ("word", "process", "k"),
    [("SMAW", "SMAW", 0.8), ("GTAW", "GTAW", 0.6), ("SAW", "SAW", 1.0), ("PAW", "PAW", 0.6), ("136", "FCAW", 0.8),
     ("138", "MCAW", 0.8), ("142", "GTAW", None)],
)  # fmt: skip
def test_efficiencies_of_en_1011_1_table_1(word, process, k):
    assert thermal_efficiency(word, process, processes()).k == k


def test_run_out_of_a_4_mm_electrode():  # EN 1011-2:2001 Annex C (M)
    found = run_out(
        4, consumed_length_mm=410, bead_length_mm=260, electrode_efficiency_percent=105, factors=run_out_factors()
    )
    assert found.heat_input_kj_mm == pytest.approx(1.0294, abs=5e-5)
    assert found.run_out_ratio == pytest.approx(0.6341, abs=5e-5)


def test_run_out_agrees_with_the_energy_an_electrode_burns():  # plausibility: 160 A, 23 V, 78 s, k = 0.8 for 310 mm
    per_length = run_out(
        4, consumed_length_mm=310, bead_length_mm=200, electrode_efficiency_percent=120, factors=run_out_factors()
    )
    assert per_length.heat_input_kj_mm * 200 == pytest.approx(0.8 * 160 * 23 * 78 / 1000, rel=0.05)


@pytest.mark.parametrize(
    ("efficiency", "factor"), [(95, 0.0368), (96, 0.0408), (110, 0.0408), (130, 0.0472), (131, 0.0608)]
)
def test_the_factor_changes_where_the_table_says(efficiency, factor):
    found = run_out(
        1, consumed_length_mm=1, bead_length_mm=1, electrode_efficiency_percent=efficiency, factors=run_out_factors()
    )
    assert found.heat_input_kj_mm == factor


positive = st.floats(1, 500)


@given(positive, positive, positive, st.tuples(*[st.floats(0, 1)] * 3))
def test_no_stated_value_gives_more_or_less_energy_than_the_corners(volts, amps, speed, place):
    stated = [Interval(value, value * 1.5) for value in (volts, amps, speed)]
    inner = [s.low + p * (s.high - s.low) for s, p in zip(stated, place, strict=True)]
    rising = {"volts": stated[0], "amps": stated[1]}
    found = over_range(arc_energy, rising=rising, falling={"speed": stated[2]})
    assert found.low.energy_kj_mm <= arc_energy(*inner) * (1 + 1e-12)
    assert arc_energy(*inner) <= found.high.energy_kj_mm * (1 + 1e-12)


def test_the_highest_energy_is_at_the_lowest_speed():  # W07: 25-28 V, 220-250 A, 300-360 mm/min -> 1400 J/mm
    rising = {"volts": Interval(25, 28), "amps": Interval(220, 250)}
    found = over_range(arc_energy, rising=rising, falling={"speed": Interval(300 / 60, 360 / 60)})
    assert found.high.energy_kj_mm == pytest.approx(1.4)
    assert dict(found.high.values) == {"volts": 28, "amps": 250, "speed": 5}


@pytest.mark.parametrize("bad", [0.0, -1.0, float("nan"), float("inf")])
def test_a_value_that_is_not_above_zero_is_refused(bad):
    with pytest.raises(InputError, match=r"current_a: .* is not above 0; state a positive value"):
        arc_energy(22, bad, 3)
    with pytest.raises(InputError, match="efficiency: "):
        heat_input(1.0, bad if bad <= 0 or bad != bad else 2.0)  # noqa: PLR0124 - NaN alone differs from itself
