"""Ferrite, solidification and dilution of stainless deposits, from published formulas and mass balances."""

import pytest

from anlage.core.errors import FormatError, InputError
from anlage.core.metal.dilution import buttered, mixed, weld_metal
from anlage.core.metal.ferrite import (
    delong_number,
    ferrite_estimate,
    read_lines,
    read_off,
    seferian_ferrite,
    solidification_mode,
)
from anlage.core.metal.strength import weld_strength

STEEL = {"C": 0.16, "Si": 0.30, "Mn": 1.2, "Cr": 0.05, "Ni": 0.05, "Mo": 0.01, "N": 0.006, "Cu": 0.10}
PLATE_316L = {"C": 0.02, "Si": 0.45, "Mn": 1.3, "Cr": 16.8, "Ni": 10.2, "Mo": 2.05, "N": 0.05, "Cu": 0.30}
WIRE_309LMO = {"C": 0.015, "Si": 0.45, "Mn": 1.5, "Cr": 23.2, "Ni": 13.1, "Mo": 2.5, "N": 0.05, "Cu": 0.10}


def test_a_dissimilar_weld_by_mass_balance():
    weld = weld_metal(STEEL, PLATE_316L, WIRE_309LMO, dilution=0.3, first_share=0.5)
    by_hand = {"C": 0.0375, "Si": 0.4275, "Mn": 1.425, "Cr": 18.767, "Ni": 10.707, "Mo": 2.059, "N": 0.0434}
    assert {name: weld[name] for name in by_hand} == pytest.approx(by_hand, abs=6e-4)
    assert weld_metal(STEEL, PLATE_316L, WIRE_309LMO, dilution=0, first_share=0.5) == pytest.approx(WIRE_309LMO)
    assert weld_metal(STEEL, PLATE_316L, WIRE_309LMO, dilution=1, first_share=1) == pytest.approx(STEEL)


def test_layers_of_buttering():
    layers = buttered(STEEL, WIRE_309LMO, dilution=0.25, layers=3)
    assert [layer["Cr"] for layer in layers[:2]] == pytest.approx([17.412, 21.753], abs=1e-3)
    share = (WIRE_309LMO["Cr"] - layers[2]["Cr"]) / (WIRE_309LMO["Cr"] - STEEL["Cr"])
    assert share == pytest.approx(0.25**3)  # 1.56 % of the base is left in the third layer


def test_an_element_that_a_part_does_not_state_is_in_no_mixture():
    assert mixed([({"Cr": 18.0, "Nb": 0.5}, 0.5), ({"Cr": 20.0}, 0.5)]) == {"Cr": 19.0}
    with pytest.raises(InputError, match="add up"):
        mixed([({"Cr": 18.0}, 0.5), ({"Cr": 20.0}, 0.4)])
    with pytest.raises(InputError, match="no share"):
        weld_metal(STEEL, STEEL, STEEL, dilution=1.2, first_share=0.5)


def test_ferrite_by_formula():
    assert seferian_ferrite(21.468, 12.545) == pytest.approx(9.3, abs=0.05)  # Séférian
    assert seferian_ferrite(6.7 + 0.93 * 12, 12) == pytest.approx(0)  # his line of no ferrite
    assert delong_number(21.468, 13.847) == pytest.approx(9.0, abs=0.1)  # DeLong 1974, linear form, L


@pytest.mark.parametrize(
    ("cr_eq", "ni_eq", "usual"),
    [
        (19.8, 12.05, (9, 10)),
        (21.1, 13.7, (7, 8)),
        (23.5, 15.25, (12, 14)),
        (25.9, 12.7, (45, 50)),
        (29.0, 15.5, (45, 50)),
    ],
    ids=["308L", "316L", "309L", "2209", "2594"],
)
def test_the_band_of_an_estimate_holds_typical_deposits(cr_eq, ni_eq, usual):
    """Typical all-weld ferrite numbers, from memory, M: what the estimate was fitted to."""
    band = ferrite_estimate(cr_eq, ni_eq)
    assert band.low <= usual[0]
    assert usual[1] <= band.high
    assert band.high - band.low >= min(7, usual[0])


def test_no_estimate_beyond_its_equivalents():
    assert ferrite_estimate(16.9, 10) is None
    assert ferrite_estimate(20, 18.1) is None


@pytest.mark.parametrize(
    ("cr_eq", "ni_eq", "mode"),
    [(12.4, 10, "A"), (12.5, 10, "AF"), (14.7, 10, "AF"), (14.9, 10, "FA"), (19.4, 10, "FA"), (19.6, 10, "F")],
)
def test_solidification_by_the_ratio(cr_eq, ni_eq, mode):
    """Suutala: borders 1.25, 1.48 and 1.95 of Schaeffler's equivalents."""
    assert solidification_mode(cr_eq, ni_eq) == mode


OWN = "fn,cr_eq,ni_eq\n0,18,12\n0,22,16\n10,18,10\n10,22,14\n20,18,8\n20,22,12\n"


@pytest.mark.parametrize(
    ("cr_eq", "ni_eq", "number"),
    [(20, 13, 5.0), (20, 10.5, 17.5), (18, 12, 0.0), (20, 15, None), (20, 9, None), (23, 14, None)],
)
def test_lines_of_an_engineer_are_read_between_them_alone(cr_eq, ni_eq, number):
    assert read_off(read_lines(OWN, name="own"), cr_eq, ni_eq) == pytest.approx(number)


@pytest.mark.parametrize(
    ("text", "words"),
    [("fn;cr;ni\n", "columns"), ("fn,cr_eq,ni_eq\n0,18\n", "line 2"), ("fn,cr_eq,ni_eq\n0,18,x\n", "three numbers"),
     ("fn,cr_eq,ni_eq\n0,18,12\n", "too few"), ("fn,cr_eq,ni_eq\n0,18,12\n0,18,13\n", "too few"),
     ("fn,cr_eq,ni_eq\n0,nan,12\n0,18,13\n", "without end"), ("", "columns")],
)  # fmt: skip
def test_no_table_of_lines(text, words):
    with pytest.raises(FormatError, match=words):
        read_lines(text, name="own.csv")


def test_strength_of_plain_weld_metal():
    """Evans: all-weld metal of carbon-manganese basic electrodes, from memory, M."""
    found = weld_strength({"C": 0.07, "Mn": 1.35})
    assert (found.yield_mpa, found.tensile_mpa) == pytest.approx((480.8, 548.7), abs=0.05)
    lean = weld_strength({"C": 0.05, "Mn": 0.7})
    assert lean.yield_mpa == pytest.approx(335 + 21.95 + 42 + 12.635)
    assert (found.outside, found.alloyed) == ((), ())
    assert weld_strength({"C": 0.2, "Mn": 1.0, "Ni": 1.0}).outside == (("C", 0.2, 0.045, 0.145),)
    assert weld_strength({"C": 0.08, "Mn": 1.0, "Ni": 1.0}).alloyed == ("Ni",)
    assert weld_strength({"C": 0.08}) is None
