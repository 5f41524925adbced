"""Preheat by the schools, cooling time, hardness: published formulas worked by hand, all from memory."""

import pytest

from anlage.core.errors import InputError
from anlage.core.thermal.cooling import (
    cooling_time,
    cooling_time_series,
    cooling_time_thick,
    cooling_time_thin,
    transition_thickness,
)
from anlage.core.thermal.hardness import duren_hardness, yurioka, yurioka_hardness
from anlage.core.thermal.hydrogen_control import GROUPS, Restrained, asked_preheat, hydrogen_level, susceptibility
from anlage.core.thermal.preheat import combined_thickness, governing_cet, ito_bessyo, method_b, seferian
from anlage.data.metal_tables import cooling_joints, hydrogen_control
from tests.published.steels import STEEL

CET, PCM = 0.33375, 0.276167


def test_method_b():
    """EN 1011-2:2001 method B; its terms 750·CET - 150, 160·tanh(d/35) - 110, 62·HD^0.35 - 100 and the one of heat."""
    found = method_b(CET, thickness_mm=32, hydrogen=8, heat_input_kj_mm=1.4)
    assert found.preheat_c == pytest.approx(128.7, abs=0.05)
    assert found.preheat_c == pytest.approx(100.3 + 5.7 + 28.4 - 5.7, abs=0.15)
    assert found.outside == ()
    thick = [method_b(CET, thickness_mm=d, hydrogen=8, heat_input_kj_mm=1.4).preheat_c for d in (80, 90)]
    assert thick[1] - thick[0] < 3  # beyond 60 mm thickness hardly counts
    for over, name in (
        ({"thickness_mm": 100}, "thickness"),
        ({"hydrogen": 25}, "hydrogen"),
        ({"heat_input_kj_mm": 5}, "heat_input"),
    ):
        stated = {"thickness_mm": 32, "hydrogen": 8, "heat_input_kj_mm": 1.4} | over
        assert [each[0] for each in method_b(CET, **stated).outside] == [name]


def test_heat_lowers_the_preheat_of_every_steel_in_range():
    for cet in (0.2, 0.35, 0.5):
        low, high = (method_b(cet, thickness_mm=25, hydrogen=5, heat_input_kj_mm=q).preheat_c for q in (0.6, 3))
        assert high < low


def test_which_carbon_equivalent_governs():
    """EN 1011-2:2001: the parent's where it is 0.03 over the weld's or more, else the weld's and 0.03."""
    assert governing_cet(0.33, 0.30)[0] == 0.33
    assert governing_cet(0.32, 0.30)[0] == pytest.approx(0.33)
    assert governing_cet(0.28, None)[0] == 0.28


def test_ito_and_bessyo():
    """P_c and P_w of 1968 and 1969; glycerine hydrogen 0.64·HD - 0.93."""
    found = ito_bessyo(PCM, thickness_mm=32, hydrogen=8, heat_input_kj_mm=2.0)
    assert (found.hydrogen_glycerine, found.p_c) == pytest.approx((4.19, 0.3993), abs=5e-5)
    assert found.by_thickness_c == pytest.approx(183, abs=0.5)
    assert found.outside == ()
    for restraint, k, celsius in (("low", 800, 135), ("medium", 1280, 152), ("high", 2208, 186)):
        by = ito_bessyo(PCM, thickness_mm=32, hydrogen=8, restraint=restraint)
        assert by.k_kgf_mm2 == pytest.approx(k)
        assert by.by_restraint_c == pytest.approx(celsius, abs=0.5)
    assert ito_bessyo(PCM, thickness_mm=32, hydrogen=1).hydrogen_glycerine == 0  # the glycerine method finds none
    assert [each[0] for each in ito_bessyo(PCM, thickness_mm=15, hydrogen=8, restraint="low").outside] == [
        "thickness",
        "k_kgf_mm2",
    ]


def test_seferian():
    """Séférian 1959: 350·√(C_t - 0.25), nothing below."""
    assert seferian(STEEL, thickness_mm=32) == pytest.approx(139, abs=0.5)
    assert seferian({"C": 0.30, "Mn": 0.9}, thickness_mm=40) == pytest.approx(350 * (0.4 * 1.2 - 0.25) ** 0.5)
    assert seferian({"C": 0.10, "Mn": 0.45}, thickness_mm=10) == 0
    assert seferian({"C": 0.2}, thickness_mm=10) is None


def test_combined_thickness():
    """EN 1011-2:2001 method A: what meets at the joint; half for twin fillets laid at once."""
    assert combined_thickness(25, 25) == 50
    assert combined_thickness(20, 20, 12) == 52
    assert combined_thickness(20, 20, 12, twin=True) == 26
    with pytest.raises(InputError, match="thickness_2_mm"):
        combined_thickness(20, 0)


@pytest.mark.parametrize(
    ("pcm", "index", "by_index", "by_table", "group"),
    [(0.19, 3.0, "A", "B", "B"), (0.32, 4.5, "D", "D", "D"), (0.322, 4.6, "E", "D", "E"), (0.37, 5.1, "F", "E", "F")],
)
def test_group_of_hydrogen_control_is_the_higher_of_two(pcm, index, by_index, by_table, group):
    """AWS D1.1:2015 annex H, level H1: index rounded to a decimal, and the table by Pcm; M."""
    found = asked_preheat(pcm, hydrogen=5, joint=Restrained(45, "medium", "si"), control=hydrogen_control())
    assert (found.index, found.index_group, found.table_group, found.group) == (index, by_index, by_table, group)


@pytest.mark.parametrize(
    ("hydrogen", "thickness", "restraint", "units", "celsius"),
    [(8, 32, "medium", "si", 110), (8, 32, "high", "si", 140), (8, 32, "medium", "us", (230 - 32) / 1.8),
     (8, 32, "high", "us", (280 - 32) / 1.8), (10, 45, "medium", "si", 130), (10, 38, "medium", "si", 110),
     (10, 76, "medium", "si", 150), (10, 9.9, "low", "si", 20), (10, 9.525, "low", "us", 60)],
)  # fmt: skip
def test_temperatures_of_hydrogen_control(hydrogen, thickness, restraint, units, celsius):
    """AWS D1.1:2015 annex H, group D; the Celsius column is the code's own, no conversion; M."""
    joint = Restrained(thickness, restraint, units)
    found = asked_preheat(PCM, hydrogen=hydrogen, joint=joint, control=hydrogen_control())
    assert found.group == "D"
    assert found.preheat_c == pytest.approx(celsius)


def test_hydrogen_that_is_not_controlled_and_steel_beyond_the_table():
    control = hydrogen_control()
    assert [hydrogen_level(hd, control).id for hd in (4, 5, 5.1, 10, 11, 30)] == ["H1", "H1", "H2", "H2", "H3", "H3"]
    assert susceptibility(0.2667, hydrogen_level(10, control)) == 4.2
    beyond = asked_preheat(0.40, hydrogen=5, joint=Restrained(20, "low", "si"), control=control)
    assert beyond.preheat_c is None
    with pytest.raises(InputError, match="low, medium or high"):
        asked_preheat(0.3, hydrogen=5, joint=Restrained(20, "some", "si"), control=control)


def test_temperatures_never_fall_with_group_thickness_or_restraint():
    """Our own reading of the table as a whole: a slip of typing would break it."""
    control = hydrogen_control()
    for units in ("si", "us"):
        rows = [getattr(band, units) for band in control.bands]
        assert all(list(row) == sorted(row) for row in rows)
        for first, second in zip(control.bands, control.bands[1:], strict=False):
            if first.restraint == second.restraint:
                assert all(a <= b for a, b in zip(getattr(first, units), getattr(second, units), strict=True))
    assert len(GROUPS) == len(control.index_to) == len(control.bands[0].si)
    assert len(control.bands) == 15


# Cooling time -------------------------------------------------------------------------------------------------------


def test_cooling_thick_and_thin():
    """EN 1011-2:2001 Annex D; where both meet, the ratio is (d_t/d)²."""
    d_t = transition_thickness(1.6, preheat_c=120)
    thick, thin = cooling_time_thick(1.6, preheat_c=120), cooling_time_thin(1.6, thickness_mm=18, preheat_c=120)
    assert (d_t, thick, thin) == pytest.approx((20.18, 11.33, 14.24), abs=0.005)
    assert thin / thick == pytest.approx((d_t / 18) ** 2)
    assert cooling_time_thin(1.6, thickness_mm=d_t, preheat_c=120) == pytest.approx(thick)
    assert cooling_time_thick(1.0, preheat_c=20) == pytest.approx(6600 * (1 / 480 - 1 / 780))
    with pytest.raises(InputError, match="below 500"):
        cooling_time_thick(1.0, preheat_c=500)


@pytest.mark.parametrize(
    ("name", "q", "d", "low", "high", "series"),
    [("plate", 1.6, 18, 14.24, 14.24, (12.55, 12.55)), ("plate", 1.6, 16, 18.02, 18.02, (14.59, 14.59)),
     ("butt", 1.6, 18, 12.82, 12.82, (11.30, 11.30)), ("plate", 1.6, 30, 11.33, 11.33, (None, None)),
     ("tee", 1.2, 12, 8.11, 12.07, (6.74, 10.27)), ("corner", 1.2, 12, 12.07, 16.22, (6.74, 15.42))],
)  # fmt: skip
def test_cooling_in_joints_and_between_thin_and_thick(name, q, d, low, high, series):
    """EN 1011-2:2001 Annex D, preheat 120 °C; between by the image series of Carslaw and Jaeger."""
    found = cooling_time(q, thickness_mm=d, preheat_c=120, joint=cooling_joints()[name])
    assert (found.low_s, found.high_s) == pytest.approx((low, high), abs=0.005)
    assert (found.series_low_s, found.series_high_s) == (
        pytest.approx(series, abs=0.005) if series[0] is not None else series
    )
    assert found.shortest_s <= found.low_s <= found.high_s <= found.longest_s or series[1] is not None


@pytest.mark.parametrize(
    ("preheat", "shares"),
    [(20, {0.5: 1.0, 0.6: 0.947, 0.7: 0.831, 0.75: 0.802, 0.85: 0.836, 0.95: 0.954, 1.0: 1.034, 1.1: 1.011, 1.5: 1.0}),
     (150, {0.55: 0.980, 0.65: 0.892, 0.8: 0.814, 0.9: 0.892, 1.05: 1.022})],
)  # fmt: skip
def test_image_series_over_the_formulas(preheat, shares):
    """Conduction in a plate of finite thickness over the larger of the two formulas, by thickness over d_t."""
    d_t = transition_thickness(1.4, preheat_c=preheat)
    for share, ratio in shares.items():
        d = share * d_t
        formula = max(
            cooling_time_thick(1.4, preheat_c=preheat), cooling_time_thin(1.4, thickness_mm=d, preheat_c=preheat)
        )
        assert cooling_time_series(1.4, thickness_mm=d, preheat_c=preheat) / formula == pytest.approx(ratio, abs=2e-3)


def test_shape_factors_enter_the_series_so_that_both_ends_are_the_standards():
    told = {"preheat_c": 100, "f2": 0.45, "f3": 0.67}
    thick = cooling_time_series(1.0, thickness_mm=80, **told)
    thin = cooling_time_series(1.0, thickness_mm=4, **told)
    assert thick == pytest.approx(0.67 * cooling_time_thick(1.0, preheat_c=100), rel=1e-6)
    assert thin == pytest.approx(0.45 * cooling_time_thin(1.0, thickness_mm=4, preheat_c=100), rel=1e-3)


# Hardness -----------------------------------------------------------------------------------------------------------


def test_end_values_of_yurioka():
    """Yurioka et al. 1987, Metal Construction 19(4), M."""
    found = yurioka(STEEL)
    assert (found.ce_i, found.ce_ii, found.ce_iii) == pytest.approx((0.4674, 0.5456, 0.6216), abs=5e-5)
    assert (found.martensite_hv, found.bainite_hv) == pytest.approx((443.0, 228.0), abs=0.05)
    assert (found.martensite_s, found.bainite_s) == pytest.approx((1.167, 98.89), rel=5e-4)


@pytest.mark.parametrize(
    ("seconds", "by_yurioka", "by_duren"),
    [
        (3, 419.0, 441.3),
        (5, 394.5, 422.3),
        (8, 360.9, 376.4),
        (12, 325.8, 336.9),
        (20, 285.6, 287.1),
        (40, 250.5, 258.7),
    ],
)
def test_hardness_over_the_cooling_time(seconds, by_yurioka, by_duren):
    """Yurioka et al. 1987; Düren 1981, held between all bainite and all martensite."""
    assert yurioka_hardness(STEEL, seconds).hv == pytest.approx(by_yurioka, abs=0.05)
    assert duren_hardness(STEEL, seconds).hv == pytest.approx(by_duren, abs=0.05)


def test_hardness_is_held_at_its_ends_and_says_so():
    fast, slow = yurioka_hardness(STEEL, 0.5), yurioka_hardness(STEEL, 200)
    assert (fast.raw_hv, fast.hv, slow.raw_hv, slow.hv) == pytest.approx((455.1, 443.0, 217.5, 228.0), abs=0.05)
    assert fast.is_held
    assert slow.is_held
    assert not yurioka_hardness(STEEL, 8).is_held
    assert duren_hardness(STEEL, 3).raw_hv == pytest.approx(472.0, abs=0.05)


def test_boron_hardens_unless_nitrogen_binds_it():
    """Yurioka et al. 1987: 0.03, 0.06, 0.09 for 2, 3 and 4 ppm of boron, less by the nitrogen."""
    plain = yurioka(STEEL).ce_i
    for ppm, more in ((1, 0.0), (2, 0.03), (3, 0.06), (4, 0.09), (30, 0.09)):
        assert yurioka({**STEEL, "B": ppm * 1e-4}).ce_i - plain == pytest.approx(more)
    assert yurioka({**STEEL, "B": 4e-4, "N": 0.01}).ce_i - plain == pytest.approx(0.045)


def test_no_number_where_the_ends_cross():
    """A steel so rich in molybdenum and boron that all martensite would come at longer times than no martensite."""
    hardening = {"C": 0.8, "Si": 1.2, "Mo": 3.0, "B": 0.003}
    found = yurioka(hardening)
    assert found.bainite_s < found.martensite_s
    assert yurioka_hardness(hardening, 8) is None
    assert duren_hardness({"C": 0.02, "Mn": 1.9, "Cr": 3.0, "Mo": 1.0, "V": 0.4}, 8) is None
