"""How the metals of a procedure go together: match, hardening, the mixture, cautions, other fillers."""

import pytest

from anlage.core.document import read_strict, with_at
from anlage.core.drawing.equivalents import dilution_at
from anlage.core.errors import FormatError, InputError
from anlage.core.procedure import WPS
from anlage.data.files import FOLDER
from anlage.session.leaves.text import shown, with_text
from anlage.session.metals.certificates import heats_in, with_heat
from anlage.session.metals.picture import metals_picture, mixing_of, plane_of
from anlage.session.metals.together import deposit_names, together
from anlage.session.weld.picture_sheet import Sheet

SHEET = Sheet(160.0, 90.0, "si", lambda text, height: 0.5 * height * len(text))


@pytest.fixture(scope="module")
def steel():
    wps = read_strict((FOLDER / "demo" / "OST-W-01.json").read_text(), WPS, where="demo")
    return with_at(wps, "metals/one/certificate", None)


def joined(wps, one, other="", filler=""):
    wps = with_text(with_text(wps, "metals/one/name", one, "si"), "metals/other/name", other, "si")
    return with_at(wps, f"deposits/{wps.deposits[0].id}/filler", filler) if filler else wps


def texts(wps, verdict=None):
    return " ".join(each.text for each in together(wps).cautions if verdict in (None, each.verdict))


def test_steel_with_its_filler_is_judged_by_strength_and_hardening(steel):
    found = together(steel)
    assert not found.is_stainless
    assert {figure.name.partition(",")[0] for figure in found.figures} >= {
        "CE (IIW)",
        "CET",
        "Pcm",
        "CEN",
        "Ms (Andrews)",
    }
    assert "matches" in texts(steel, "inside")
    assert [each.name for each in found.strengths] == ["A516-70", "ER70S-2"]
    assert "undermatching" in texts(joined(steel, "S690QL"), "outside")
    assert metals_picture(steel, "", plane_of(found, SHEET), SHEET).items


def test_a_carbon_equivalent_says_what_its_certificate_left_out(steel):
    part = with_text(steel, "metals/one/certificate", "C 0.14 Mn 1.1 Cr 0.1", "si")
    notes = {each.name: each.note for each in together(part).figures}
    assert notes["CE (IIW), A516-70"] == "counted as none: Mo, V, Ni, Cu"
    assert "Si" in notes["Pcm, A516-70"]


def test_carbon_steel_to_stainless_is_a_mixture(steel):
    wps = joined(steel, "A516-70", "A240-316L", "ER309L")
    found = together(wps)
    assert found.is_stainless
    assert found.mixture.mode in ("AF", "FA")
    assert {each.filler for each in found.compared} >= {"ER308L", "ER309L", "ER2209"}
    assert "309L up to about 300 °C" in texts(wps)
    assert metals_picture(wps, "", plane_of(found, SHEET), SHEET).items


ANALYSED = "C 0.18 Mn 1.1 Si 0.3 Cr 0.05 Mo 0.01 V 0.003 Ni 0.1 Cu 0.1"


@pytest.mark.parametrize(
    ("filler", "certificate", "dilution", "verdict", "words"),
    [
        ("ER309L", ANALYSED, 0.2, "inside", "no martensite, on either side"),
        ("ER308L", ANALYSED, 0.3, "unproven", "A run on A516-70 alone, 30 % diluted, turns to martensite."),
        ("ER309L", ANALYSED, None, "unproven", "A run on A516-70 alone, 50 % diluted"),  # GTAW may melt off so much
        ("ER309L", "", 0.4, "unproven", "if that holds little carbon: state its certificate"),
        ("ER309L", ANALYSED, 0.1, "unproven", "10 % of dilution is not usual of the process, 20 % to 50 %"),
    ],
)  # the mixture with one side alone is that of a first run (common practice, no source)
def test_a_dissimilar_joint_is_inside_only_where_each_side_alone_goes(
    steel, filler, certificate, dilution, verdict, words
):
    wps = with_text(joined(steel, "A516-70", "A240-316L", filler), "metals/one/certificate", certificate, "si")
    assert words in texts(with_at(wps, "metals/dilution", dilution), verdict)


def test_no_other_deposit_may_undermatch(steel):
    strong = joined(steel, "A514-F", "", "ER120S-1")
    assert "E7018 is undermatching" in texts(strong, "outside")


def test_no_martensite_start_below_any_cold(steel):
    found = together(joined(steel, "A240-S32205", "", "ER2209"))
    assert {each.name: each.text for each in found.figures}["Martensite start"] == "none"


def test_a_lean_filler_on_carbon_steel_turns_to_martensite(steel):
    lean = with_at(joined(steel, "A516-70", "", "ER308L"), "metals/dilution", 0.45)
    assert "turns to martensite" in texts(lean, "outside")
    rich = with_at(joined(steel, "A516-70", "", "ER309L"), "metals/dilution", 0.2)
    assert "turns to martensite" not in texts(rich)
    assert "A stainless filler between steels" in texts(rich)


def test_the_mixture_lies_on_its_line_and_is_read_back(steel):
    wps = with_at(joined(steel, "A516-70", "A240-316L", "ER309L"), "metals/dilution", 0.3)
    found = together(wps)
    mixing = mixing_of(found)
    assert dilution_at((mixing.at.cr_eq, mixing.at.ni_eq), mixing) == pytest.approx(0.3, abs=1e-6)
    assert dilution_at((mixing.filler.cr_eq + 9, mixing.filler.ni_eq), mixing) == 0
    assert found.usual_dilution == (0.2, 0.5)  # GTAW


@pytest.mark.parametrize("metal", ["B209-5083-O", "B265-GR2", "B443-N06625"])
def test_no_carbon_equivalent_of_metals_that_do_not_harden(steel, metal):
    found = together(joined(steel, metal))
    assert not found.figures
    assert "no carbon equivalent" in texts(joined(steel, metal))


def test_what_is_not_known_is_unproven(steel):
    assert "composition not known" in texts(joined(steel, "Kettle steel"), "unproven")
    assert "composition not known" in texts(joined(steel, ""), "unproven")
    assert "states no strength" not in texts(steel)


def test_aluminium_is_not_joined_to_steel(steel):
    assert "Aluminium is not fusion welded" in texts(joined(steel, "A516-70", "B209-5083-O"), "outside")


def test_deposits_are_offered_by_their_filler(steel):
    assert [name for _, name in deposit_names(steel)] == ["GTAW  ER70S-2", "SMAW  E7018"]
    assert together(steel, steel.deposits[1].id).strengths[-1].name == "E7018"


def test_certificates_come_from_a_table(steel, tmp_path):
    path = tmp_path / "heats.csv"
    path.write_text("heat,C,Mn,Si\nA1,0.17,1.42,0.35\nA2,0.2,1.1,0.2\n")
    heats = heats_in(path).heats
    assert [each.name for each in heats] == ["1. A1", "2. A2"]
    typed = with_heat(steel, "metals/one/certificate", heats[0], "si")
    assert shown(typed, "metals/one/certificate", "si") == "Heat A1: C 0.17 Mn 1.42 Si 0.35"
    assert together(typed).sides[0].basis == "by its certificate, heat A1"
    with pytest.raises(InputError, match="cannot be read"):
        heats_in(tmp_path / "none.csv")
    path.write_text("1,2\n")
    with pytest.raises(FormatError, match="names no elements"):
        heats_in(path)


def test_another_heat_of_the_same_metal_makes_a_second_side(steel):
    two = with_text(steel, "metals/other/certificate", "C 0.2 Mn 1.1", "si")
    assert (two.metals.other.name, len(together(two).sides)) == ("A516-70", 2)
    assert with_text(steel, "metals/other/certificate", "", "si") is steel
    with pytest.raises(InputError, match="not understood"):
        with_text(steel, "metals/one/certificate", "lots of carbon", "si")
