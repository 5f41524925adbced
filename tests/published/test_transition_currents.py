"""Spray transition currents (AWS Welding Handbook, from memory, M), and what feed, current and gas say together."""

import pytest

from anlage.core.document import with_at
from anlage.core.procedure import Wps, with_deposit, with_pass
from anlage.core.ranges import Interval
from anlage.core.transition import transfer, transition
from anlage.data.tables import catalogue
from anlage.data.transition_table import transitions
from anlage.session.weld.transfer import fed_current, transfer_sentences


@pytest.mark.parametrize(
    ("family", "size", "amps"),
    [
        ("solid carbon steel", 0.8, 150), ("solid carbon steel", 0.9, 165), ("solid carbon steel", 1.2, 220),
        ("solid carbon steel", 1.6, 275), ("austenitic stainless", 0.9, 170), ("austenitic stainless", 1.2, 225),
        ("austenitic stainless", 1.6, 285), ("aluminium Al-Mg", 0.8, 95), ("aluminium Al-Mg", 1.2, 135),
        ("aluminium Al-Mg", 1.6, 180),
    ],
)  # fmt: skip
def test_a_wire_sprays_from_the_current_of_the_handbook(family, size, amps):
    found = transition(family, size, 0.0, transitions())
    assert found.between == Interval.single(amps)


def test_carbon_dioxide_raises_it_and_from_a_quarter_on_there_is_no_spray():
    """Argon with 8 to 20 % CO2 adds about 20 to 50 A (L)."""
    found = transition("solid carbon steel", 1.2, 18.0, transitions())
    assert (found.between, found.confidence) == (Interval(240, 270), "L")
    assert transition("solid carbon steel", 1.2, 25.0, transitions()).between is None
    assert transition("solid carbon steel", 1.2, 100.0, transitions()).between is None


@pytest.mark.parametrize(
    ("family", "size"), [("solid carbon steel", 2.4), ("titanium pure", 1.2), ("nickel Ni-Cr", 1.2)]
)
def test_what_is_in_no_table_is_not_made_up(family, size):
    assert transition(family, size, 0.0, transitions()) is None


@pytest.mark.parametrize(
    ("amps", "kind"), [((100, 190), "under"), ((100, 205), "edge"), ((210, 260), "edge"), ((220, 260), "spray")]
)
def test_a_whole_range_lies_under_at_or_over_it(amps, kind):
    found = transition("solid carbon steel", 1.2, 0.0, transitions())
    assert transfer(Interval(*amps), found, transitions().near) == kind


def gmaw(mode=None, gas="Ar-2O2", **stated):
    wps, home = with_deposit(Wps(), process="GMAW", filler="ER70S-6", filler_diameter_mm=(0.9, 0.9), transfer_mode=mode,
                             shielding_gas=gas)  # fmt: skip
    wps, own = with_pass(wps, home, **stated)
    return wps, next(each for each in wps.passes if each.id == own)


def test_the_current_of_a_wire_follows_from_its_feed():
    """0.9 mm: 425 to 430 in/min, about 200 A (common practice, no source)."""
    wps, each = gmaw("spray", wire_speed_mm_min=(425 * 25.4, 430 * 25.4))
    fed = fed_current(wps.deposits[0], each)
    assert (fed.low + fed.high) / 2 == pytest.approx(200, rel=0.15)
    row = catalogue().filler_current("ER70S-6", 0.9, mode="spray")
    assert row.amps_min <= fed.low <= fed.high <= row.amps_max


@pytest.mark.parametrize(
    ("mode", "gas", "stated", "said"),
    [
        ("spray", "Ar-2O2", {"current_a": (180, 220)}, ()),
        ("spray", "Ar-2O2", {"current_a": (150, 190)}, ("Spray begins near 165 A (M): at the edge of spray",)),
        ("spray", "Ar-2O2", {"current_a": (90, 120)}, ("Spray begins near 165 A (M): drops",)),
        ("spray", "Ar-25CO2", {"current_a": (180, 220)}, ("There is no spray in Ar-25CO2",)),
        ("short", "Ar-2O2", {"current_a": (180, 220)}, ("Spray begins near 165 A (M): this is no short circuit",)),
        ("short", "Ar-25CO2", {"current_a": (100, 140)}, ()),
        (None, "Ar-2O2", {"current_a": (180, 220)}, ("Transfer by its current: spray",)),
        (None, "a gas of our own", {"current_a": (180, 220)}, ()),
        (
            "spray",
            "Ar-2O2",
            {"current_a": (170, 190), "wire_speed_mm_min": (15000, 15200)},
            ("By its feed the wire draws",),
        ),
    ],
)
def test_what_does_not_go_together_is_told(mode, gas, stated, said):
    wps, each = gmaw(mode, gas, **stated)
    found = [text.replace("\u2009", " ") for text in transfer_sentences(wps, each, "si")]
    assert len(found) == len(said)
    assert all(text.startswith(start) for text, start in zip(found, said, strict=True))


def test_a_rod_has_no_transfer():
    wps, home = with_deposit(Wps(), process="GTAW", filler="ER70S-6", filler_diameter_mm=(2.4, 2.4), shielding_gas="Ar")
    wps, _ = with_pass(wps, home, current_a=(90, 110))
    assert transfer_sentences(with_at(wps, "technique/position", "1G"), wps.passes[0], "si") == ()
