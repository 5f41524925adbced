"""Metals and fillers that a works adds: found like those that ship, and refused where nobody could rely on them."""

import pytest
from msgspec.structs import replace

from anlage.core.catalogue.own import _check_filler, _check_group, _check_kind, _check_metal, _check_number
from anlage.core.errors import FormatError
from anlage.data.own_materials import catalogue_adding, own_words
from anlage.data.tables import shipped_catalogue

METAL = "id,spec,grade,p_number,p_group,iso15608_group,smys_mpa,smts_mpa,C,confidence,source\n"
OWN = METAL + 'W-355,Works standard,355,1,2,1.2,355,470,0.18,M,"mill sheet, QW-420"\n'
FILLER = "classification,processes,f_number,a_number,smts_mpa,currents,confidence,source\n"
OWN_FILLER = FILLER + "W-70X,SMAW,4,1,490,DCEP;AC,M,maker's sheet\n"


def test_what_is_added_is_found_by_any_spelling_of_its_name_like_what_ships():
    own = catalogue_adding(OWN, OWN_FILLER)
    metal = own.metal_group("w 355")
    assert (metal.name, metal.yield_mpa) == ("W-355", 355)
    assert (metal.group("p_number"), metal.group("group_number"), metal.group("iso15608_group")) == ("1", "2", "1.2")
    assert (metal.source, metal.confidence) == ("mill sheet, QW-420", "M")
    assert own.base_metal("Works standard 355").composition == {"C": 0.18}
    assert own.filler("w-70x").currents == ("DCEP", "AC")
    assert own.metal_group("SA-36") == shipped_catalogue().metal_group("SA-36")
    assert [row.id for row in own.search("W-355")] == ["W-355"]


def test_nothing_added_is_the_catalogue_that_ships():
    assert catalogue_adding("", "\n") is shipped_catalogue()
    assert catalogue_adding(METAL, "").base_metals == shipped_catalogue().base_metals


@pytest.mark.parametrize(
    ("text", "said"),
    [
        (OWN.replace("p_number", "p_numbr"), "no column p_numbr; write p_number"),
        (OWN.replace("p_number", "Werkstoff"), "no column Werkstoff; name it as a saved table does"),
        (OWN.replace("smts_mpa", "smys_mpa"), "two columns smys_mpa"),
        (OWN.replace(",M,", ",sure,"), "line 2: the row has no confidence"),
        (OWN.replace('"mill sheet, QW-420"', ""), "W-355: no source"),
        (OWN.replace('"', ""), "line 2: 12 cells under 11 columns"),
        (OWN.replace("W-355", ""), "no id is stated"),
        (OWN.replace(",1,2,1.2", ",5,2,1.2"), "W-355: no p_number 5"),
        (OWN.replace(",1,2,1.2", ",1,2,1.9"), "W-355: no iso15608_group 1.9"),
        (OWN.replace("355,470", "420,520"), "W-355: a yield of 420 MPa is none of group 1.2"),
        (OWN.replace("355,470", "275,470"), "W-355: a yield of 275 MPa is none of group 1.2"),
        (OWN.replace("355,470", "470,355"), "W-355: strengths 470, 355 MPa"),
        (OWN.replace("355,470", "355,470 MPa"), "smts_mpa '470 MPa' is not a number"),
        (OWN.replace("355,470", "35500,47000"), "W-355: strengths 35500, 47000 MPa"),
        (OWN.replace("0.18", "180"), "W-355: shares add up"),
        (OWN.replace("0.18", "-1"), "W-355: shares add up"),
        (OWN + "w355,Other,1,1,2,1.2,355,470,0.18,M,sheet\n", "w355: two rows are called so"),
        (OWN.replace("W-355", "SA-36"), "SA-36: the catalogue has one called so"),
        (OWN.replace("smys_mpa", "d1_1_group"), "W-355: d1_1_group is stated, and that code lists its metals itself"),
    ],
)
def test_a_metal_that_nobody_could_rely_on_is_refused_with_its_reason(text, said):
    with pytest.raises(FormatError) as refusal:
        catalogue_adding(text, "")
    assert said in str(refusal.value)


@pytest.mark.parametrize(
    ("text", "said"),
    [
        (OWN_FILLER.replace("SMAW", "MMA"), "W-70X: no processes MMA"),
        (OWN_FILLER.replace("SMAW", ""), "W-70X: no process is stated"),
        (OWN_FILLER.replace(",4,1,", ",F4,1,"), "W-70X: no f_number F4"),
        (OWN_FILLER.replace("DCEP;AC", "DCEP;AD"), "W-70X: no currents AD"),
        (
            OWN_FILLER.replace("smts_mpa", "smts_ksi").replace("currents", "smts_mpa").replace("DCEP;AC", "760"),
            "W-70X: smts is 490 ksi, but 760 MPa is stated",
        ),
        (OWN_FILLER.replace("currents", "density_g_cm3").replace("DCEP;AC", "78"), "W-70X: density_g_cm3 is 78"),
        (OWN_FILLER.replace("currents", "smys_mpa").replace("DCEP;AC", "500"), "W-70X: strengths 500, 490 MPa"),
        (OWN_FILLER.replace("W-70X", "E7018"), "E7018: the catalogue has one called so"),
        (OWN_FILLER.replace("W-70X", "E7018-1 H4R"), "the catalogue has one called so"),
        (OWN_FILLER.replace("W-70X", "E308L-17"), "the catalogue has one called so"),
    ],
)
def test_a_filler_that_nobody_could_rely_on_is_refused_with_its_reason(text, said):
    with pytest.raises(FormatError) as refusal:
        catalogue_adding("", text)
    assert said in str(refusal.value)


@pytest.mark.parametrize(
    ("row", "said"),
    [
        ("X,8,1,1.1,,260", "p_number 8 is austenitic steel, iso15608_group 1.1 is ferritic steel"),
        ("X,1,2,8.1,,260", "p_number 1 is ferritic steel, iso15608_group 8.1 is austenitic steel"),
        ("X,1,2,1.1,austenitic,260", "family austenitic is austenitic steel"),
        ("X,45,,8.2,,220", ""),  # N08904
        ("X,45,,45,,220", ""),  # N08800
        ("X,,2,1.1,,260", "p_group has no p_number"),
        ("X,5A,4,5.2,,260", "p_group 4 is none of P-5A"),
        ("none,1,2,1.1,,260", "none says that there is none"),
    ],
)
def test_a_metal_is_of_one_kind_by_every_system(row, said):
    """P-Numbers by ASME IX QW/QB-420, groups by ISO/TR 15608:2017 (H, from memory)."""
    head = "id,p_number,p_group,iso15608_group,family,smys_mpa,confidence,source\n"
    told = ""
    try:
        catalogue_adding(f"{head}{row},H,sheet\n", "")
    except FormatError as refusal:
        told = str(refusal)
    assert said in told
    assert bool(said) == bool(told)


@pytest.mark.parametrize(
    ("row", "said"),
    [
        ("W1,GTAW,4,1", "F-4 is no filler for GTAW"),
        ("W1,SMAW;GTAW,4,1", "F-4 is no filler for GTAW"),
        ("W1,SMAW,6,1", "F-6 is no filler for SMAW"),
        ("W1,SMAW,4,8", "A-8 is no analysis of F-4"),
        ("none,SMAW,4,1", "none says that there is none"),
    ],
)
def test_the_numbers_of_a_filler_go_together(row, said):
    """ASME IX QW-432, QW-442 (H, from memory)."""
    with pytest.raises(FormatError, match=said):
        catalogue_adding("", f"classification,processes,f_number,a_number,confidence,source\n{row},H,sheet\n")


@pytest.mark.parametrize("filler", shipped_catalogue().fillers, ids=lambda row: row.classification)
def test_every_filler_that_ships_would_be_taken_under_another_name(filler):
    _check_filler(filler)
    _check_number(filler, own_words().kinds)


@pytest.mark.parametrize("metal", shipped_catalogue().base_metals, ids=lambda row: row.id)
def test_every_metal_that_ships_would_be_taken_under_another_name(metal):
    _check_metal(replace(metal, d1_1_group=""))
    _check_group(metal, own_words().groups)
    _check_kind(metal, own_words())
