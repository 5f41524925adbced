"""How far meters make a heat input wrong: JCGM 100 (GUM), standard uncertainties add as squares; from memory, H."""

import math

import pytest

from anlage.core.errors import InputError
from anlage.core.heat.uncertainty import Tolerance, heat_spread, tolerance_of
from anlage.data.tables import unit_table

CURRENT, SPEED = unit_table()["current"], unit_table()["speed"]


def test_three_meters_of_a_run():
    """25.4 V ±1 %, 214 A ±2.5 %, 318 mm/min ±3 %, k 0.8: 0.8205 kJ/mm, ±4.65 % (±0.0382), worst 0.7689 to 0.8757."""
    one, two, three = (Tolerance(share=each) for each in (0.01, 0.025, 0.03))
    heat = 0.8 * 25.4 * 214 * 60 / 318 / 1000
    found = heat_spread([(25.4, one), (214, two)], [(318, three)])
    assert heat == pytest.approx(0.8205, abs=5e-5)
    assert found.expanded == pytest.approx(0.0465, abs=5e-5)
    assert heat * found.expanded == pytest.approx(0.0382, abs=5e-5)
    assert (heat * found.least, heat * found.most) == pytest.approx((0.7689, 0.8757), abs=5e-5)


def test_a_share_of_full_scale_is_an_amount():
    """A meter of class 1 with 500 A full scale that reads 214 A: 2.34 %."""
    assert tolerance_of("1 % of 500 A", CURRENT).half_width(214) == pytest.approx(0.0234, abs=5e-5)


def test_length_over_time():
    """±1 mm in 180 mm and ±0.5 s in 34 s: the speed's standard uncertainty is 0.908 %."""
    squares = [Tolerance(amount=a).standard(of) ** 2 for a, of in ((1, 180), (0.5, 34))]
    assert math.sqrt(sum(squares)) == pytest.approx(0.00908, abs=5e-6)


def test_two_sigma_is_halved_and_a_tolerance_is_taken_as_even():
    assert tolerance_of("3 % two sigma", CURRENT).standard(100) == pytest.approx(0.015)
    assert tolerance_of("3 %", CURRENT).standard(100) == pytest.approx(0.03 / math.sqrt(3))


@pytest.mark.parametrize(
    ("text", "kind", "expected"),
    [("2,5 %", CURRENT, Tolerance(share=0.025)), ("±2.5% of reading", CURRENT, Tolerance(share=0.025)),
     ("+-5 A", CURRENT, Tolerance(amount=5)), ("5 amps, 2 sigma", CURRENT, Tolerance(amount=5, two_sigma=True)),
     ("1 % of 20 ipm", SPEED, Tolerance(amount=5.08)), ("0.5 in/min", SPEED, Tolerance(amount=12.7)),
     ("4 % 2σ", CURRENT, Tolerance(share=0.04, two_sigma=True))],
)  # fmt: skip
def test_as_people_state_it(text, kind, expected):
    found = tolerance_of(text, kind)
    assert (found.share, found.amount) == pytest.approx((expected.share, expected.amount))
    assert found.two_sigma is expected.two_sigma


@pytest.mark.parametrize("text", ["", "good", "5", "5 V", "0 %", "-3 %", "60 %", "1 % of 500", "1 % of 500 V", "3 % 3"])
def test_nonsense_is_refused_with_what_would_do(text):
    with pytest.raises(InputError, match=r"write 2\.5 %, 1 % of 500 A"):
        tolerance_of(text, CURRENT)
