"""Carbon equivalents, transformation points, equivalents of stainless steel: published formulas worked by hand."""

import pytest

from anlage.core.errors import InputError, UnknownNameError
from anlage.core.metal.composition import require_composition
from anlage.core.metal.indices import ac3_andrews, accommodation, cen, summed
from anlage.data.metal_tables import indices
from anlage.data.tables import catalogue
from tests.published.steels import STEEL

# Carbon steel, 316L and filler 309LMo at 15, 15 and 70 %.
DEPOSIT = {"C": 0.0375, "Si": 0.4275, "Mn": 1.425, "Cr": 18.767, "Ni": 10.707, "Mo": 2.059, "N": 0.0434, "Cu": 0.13}


@pytest.mark.parametrize(
    ("index", "value"),
    [("ce_iiw", 0.4667),  # IIW IX-535-67
     ("ce_aws", 0.5250),  # AWS D1.1: CE (IIW) and Si/6
     ("ce_wes", 0.4594),  # JIS G 3106, WES 3001
     ("cet", 0.3337),  # EN 1011-2:2001 method B
     ("pcm", 0.2762),  # Ito and Bessyo 1968
     ("pls", 0.2959),  # Düren and Niederhoff 1986
     ("ms_andrews_c", 419.6), ("ac1_andrews_c", 717.5),  # Andrews 1965
     ("ms_steven_haynes_c", 428.3), ("bs_steven_haynes_c", 639.9)],  # Steven and Haynes 1956
)  # fmt: skip
def test_sums_over_a_structural_steel(index, value):
    assert summed(STEEL, indices()[index]).value == pytest.approx(value, abs=0.05 if value > 1 else 5e-5)


@pytest.mark.parametrize(
    ("index", "value"),
    [("schaeffler_creq", 21.468), ("schaeffler_nieq", 12.545),  # Schaeffler 1949
     ("delong_nieq", 13.847),  # DeLong 1974
     ("wrc_creq", 20.826), ("wrc_nieq", 12.920),  # Kotecki and Siewert 1992
     ("hammar_creq", 22.229), ("hammar_nieq", 12.720)],  # Hammar and Svensson 1979
)  # fmt: skip
def test_equivalents_of_a_dissimilar_weld(index, value):
    assert summed(DEPOSIT, indices()[index]).value == pytest.approx(value, abs=0.002)


@pytest.mark.parametrize(
    ("shares", "number"),
    [({"Cr": 22.8, "Mo": 3.1, "N": 0.17}, 35.75), ({"Cr": 25.2, "Mo": 3.7, "W": 0.6, "N": 0.27}, 42.72)],
)
def test_pitting_resistance(shares, number):
    """Cr + 3.3 (Mo + 0.5 W) + 16 N, common practice; with a tungsten of none it is PREN."""
    assert summed(shares, indices()["prew"]).value == pytest.approx(number, abs=0.005)
    if "W" not in shares:
        assert summed(shares, indices()["pren"]).value == pytest.approx(number, abs=0.005)


def test_cen_goes_between_two_formulas():
    """Yurioka et al. 1983: CE (IIW) weights well above 0.17 % carbon, half of them well below 0.08 %."""
    assert cen(STEEL) == pytest.approx(0.4641, abs=5e-5)
    assert [accommodation(carbon) for carbon in (0.06, 0.08, 0.12, 0.16, 0.20)] == pytest.approx(
        [0.542, 0.584, 0.750, 0.916, 0.980], abs=5e-4
    )
    rich = {"C": 0.45, "Mn": 1.2, "Cr": 0.5}
    assert cen(rich) == pytest.approx(0.45 + 1.2 / 6 + 0.5 / 5, abs=1e-5)
    poor = {"C": 0.0, "Mn": 1.2, "Cr": 0.5}
    assert cen(poor) == pytest.approx((1.2 / 6 + 0.5 / 5) / 2, rel=0.02)


def test_ac3():
    """Andrews 1965; a plain carbon steel beside the alloyed one."""
    assert ac3_andrews(STEEL) == pytest.approx(844.8, abs=0.05)
    assert ac3_andrews({"C": 0.25, "Si": 0.2}) == pytest.approx(910 - 203 * 0.5 + 44.7 * 0.2)


@pytest.mark.parametrize(
    ("name", "ce", "pcm"), [("A516-70", 0.480, 0.353), ("A572-50", 0.485, 0.326), ("A514-F", 0.733, 0.414)]
)
def test_specification_maxima_of_grades(name, ce, pcm):
    """ASTM limits, summed by hand; what the specification does not limit counts as 0."""
    steel = catalogue().base_metal(name).composition
    assert summed(steel, indices()["ce_iiw"]).value == pytest.approx(ce, abs=5e-4)
    assert summed(steel, indices()["pcm"]).value == pytest.approx(pcm, abs=5e-4)


@pytest.mark.parametrize(
    ("chromium", "nickel", "share", "celsius"),
    [
        (20.0, 9.9, 0.2, -63),
        (20.0, 9.9, 0.3, 66),
        (20.0, 9.9, 0.4, 196),
        (23.8, 13.2, 0.3, -186),
        (23.8, 13.2, 0.4, -20),
    ],
)
def test_martensite_start_of_diluted_deposits(chromium, nickel, share, celsius):
    """Eichelman and Hull 1953: a deposit of 308L turns hard with a third of carbon steel, one of 309L takes more."""
    steel = {"C": 0.16, "Si": 0.30, "Mn": 1.2, "Cr": 0.05, "Ni": 0.05, "N": 0.006}
    wire = {"C": 0.02, "Si": 0.45, "Mn": 1.8, "Cr": chromium, "Ni": nickel, "N": 0.05}
    deposit = {name: share * steel[name] + (1 - share) * wire[name] for name in wire}
    assert summed(deposit, indices()["ms_eichelman_hull_c"]).value == pytest.approx(celsius, abs=1)


def test_what_is_not_stated_is_told():
    found = summed({"C": 0.2, "Mn": 1.0, "Cr": 1.2}, indices()["ce_iiw"])
    assert found.counted_as_none == ("Mo", "V", "Ni", "Cu")
    assert found.outside == (("Cr", 1.2, 0.0, 0.9),)
    assert summed({"Mn": 1.0}, indices()["pcm"]).lacks == ("C",)


@pytest.mark.parametrize(
    ("shares", "fault", "words"),
    [({"C": -0.1}, InputError, "no share"), ({"Cr": 101.0}, InputError, "no share"),
     ({"Cr": 60.0, "Ni": 60.0}, InputError, "adds up to 120"), ({"Xx": 1.0}, UnknownNameError, "Xx"),
     ({"C": float("nan")}, InputError, "no share")],
)  # fmt: skip
def test_no_metal_is_made_of_that(shares, fault, words):
    with pytest.raises(fault, match=words):
        require_composition(shares)
