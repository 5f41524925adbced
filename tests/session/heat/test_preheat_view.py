"""What is asked of an open procedure's preheat, from what it states: sides, hydrogen, heat, thickness, code."""

import pytest

from anlage.core.document import read_strict, with_at
from anlage.core.procedure import WPS, Metal, Wps
from anlage.data.files import FOLDER
from anlage.session.heat.preheat import heat_inputs, hydrogen_stated, preheat_view
from anlage.session.heat.preheat_picture import crayon_sentence
from anlage.session.leaves.text import with_text


@pytest.fixture(scope="module")
def shell():
    """The longitudinal seam of the penstock: A516-70, 18 mm, its certificate not read in yet."""
    wps = read_strict((FOLDER / "demo" / "OST-W-01.json").read_text(), WPS, where="demo")
    return with_at(wps, "metals/one/certificate", None)


def stated(wps, **leaves):
    for path, text in leaves.items():
        wps = with_text(wps, path.replace("__", "/"), text, "si")
    return wps


def ask(wps, own):
    return next(each for each in preheat_view(wps).asks if each.id == own)


def test_every_school_and_code_says_its_own(shell):
    asks = {each.id: each for each in preheat_view(shell).asks}
    schools = {"en1011_2_cet", "ito_bessyo", "seferian", "aws_d1_1_hydrogen_control", "en1011_2_combined"}
    assert schools | {"b31.3", "b31.1", "viii-1"} == asks.keys()
    assert asks["en1011_2_combined"].high_c is None
    assert "nomograms" in asks["en1011_2_combined"].note
    assert not asks["viii-1"].note.startswith("or")
    assert "advice" in asks["viii-1"].note


def test_a_certificate_goes_before_the_specification(shell):
    leaner = stated(shell, metals__one__certificate="C 0.14 Mn 1.1 Si 0.25")
    assert ask(leaner, "en1011_2_cet").high_c < ask(shell, "en1011_2_cet").high_c
    told = {each.name: each for each in preheat_view(leaner).told}
    assert told["Metal"].basis == "by its certificate"
    assert "specification" in next(each for each in preheat_view(shell).told if each.name == "Metal").basis
    assert ask(leaner, "b31.3").high_c == ask(shell, "b31.3").high_c  # the code asks the specification


def test_hydrogen_is_as_stated_else_planned_else_the_highest(shell):
    shell = with_at(shell, "preheat/hydrogen", None)
    assert hydrogen_stated(shell)[0] == 8
    assert hydrogen_stated(stated(shell, preheat__hydrogen="H5")) == (5, "as stated")
    unknown = with_at(shell, f"deposits/{shell.deposits[-1].id}/filler", "E9999")
    assert hydrogen_stated(unknown)[0] == 30
    assert "not known" in hydrogen_stated(unknown)[1]
    cellulosic = with_at(shell, f"deposits/{shell.deposits[-1].id}/filler", "E6010")
    assert hydrogen_stated(cellulosic)[0] == 60


def test_the_coldest_pass_counts(shell):
    heats = heat_inputs(shell)
    least = min(heats.values(), key=lambda span: span.low)
    told = next(each for each in preheat_view(shell).told if each.name == "Least heat input")
    assert told.text == f"{least.low:.2f} kJ/mm"
    bare = with_at(shell, "passes", ())
    assert "state current, volts and speed" in ask(bare, "en1011_2_cet").note


def test_out_of_its_range_a_school_does_not_govern(shell):
    view = preheat_view(shell)
    assert not ask(shell, "ito_bessyo").within
    assert view.governing.within
    assert view.governing.id != "seferian"  # it knows no hydrogen, and this is low-hydrogen work


def test_the_stated_construction_code_is_a_floor(shell):
    thick = with_at(
        stated(shell, metals__one__name="A335-P22", preheat__minimum_c="100"), "header/construction_code", "b31.3"
    )
    verdict, sentence = preheat_view(thick).verdict()
    assert preheat_view(thick).governing.id == "b31.3" or preheat_view(thick).governing.high_c >= 200
    assert verdict in ("outside", "unproven")
    assert "more than is chosen" in sentence


@pytest.mark.parametrize(("preheat", "verdict"), [("300", "outside"), ("200", "inside"), ("20", "unproven")])
def test_the_verdict_of_what_is_chosen(shell, preheat, verdict):
    assert preheat_view(stated(shell, preheat__minimum_c=preheat)).verdict()[0] == verdict


@pytest.fixture(scope="module")
def analysed(shell):
    """The seam with a whole certificate: what is chosen is what governs, and nothing is left open."""
    wps = stated(shell, metals__one__certificate="Heat 1: C 0.20 Mn 1.1 Si 0.3 Cr 0.05 Mo 0.01 V 0.003 Ni 0.1 Cu 0.1")
    wps = stated(wps, range__thickness_mm="10..18")  # the demo states it for thicker metal than is drawn
    wps = with_at(wps, "preheat/minimum_c", preheat_view(wps).governing.chosen_c)
    assert preheat_view(wps).verdict()[0] == "inside"
    return wps


@pytest.fixture
def by_number():
    """A procedure in 10 mm metal of a P-Number, under a code, with a preheat that every code thinks too little."""

    def make(p_number, code):
        told = {"joint/thickness_mm": "10", "header/construction_code": code,
                "preheat/minimum_c": "20", "preheat/interpass_maximum_c": "400"}  # fmt: skip
        wps = with_at(Wps(), "metals/one", Metal(p_number=p_number))
        for path, text in told.items():
            wps = with_text(wps, path, text, "si")
        return preheat_view(wps)

    return make


def test_what_a_code_allows_between_passes_is_told_in_the_readers_scale(by_number):
    view = by_number("6", "b31.3")
    assert view.code_interpass.between_c == 315
    assert view.code_interpass.noted("us") == "at most 599 °F between passes"
    assert view.interpass_verdict("us") == (
        "outside", "752 °F between passes is over what ASME B31.3 allows, 599 °F.",
    )  # fmt: skip


@pytest.mark.parametrize(
    ("name", "code", "words"),
    [("A514-B", "b31.1", "What ASME B31.1 asks of A514-B is not known to this program."),
     ("A353", "viii-1", "What ASME VIII-1 asks of A353 is not known to this program."),
     ("A709-HPS70W", "b31.3", "What ASME B31.3 asks of A709-HPS70W is not known: it has no P-Number here.")],
)  # fmt: skip
@pytest.mark.parametrize("side", ["one", "other"])
def test_a_metal_of_which_the_code_of_the_job_says_nothing_is_not_inside(analysed, side, name, code, words):
    wps = stated(analysed, **{f"metals__{side}__name": name, "header__construction_code": code})
    wps = with_at(with_at(wps, f"metals/{side}/certificate", None), "preheat/minimum_c", 250.0)
    verdict, sentence = preheat_view(wps).verdict()
    assert (verdict, sentence) == ("unproven", words)


@pytest.mark.parametrize(("code", "verdict"), [("b31.3", "outside"), ("viii-1", "unproven")])
def test_what_a_code_only_advises_is_not_outside(by_number, code, verdict):
    assert by_number("10I", code).interpass_verdict()[0] == verdict
    view = by_number("10I", code)
    assert view.governing.id == code
    assert view.verdict()[0] == verdict


@pytest.mark.parametrize("stated_for", ["10..36", ">= 10"])
def test_what_is_stated_for_thicker_metal_than_is_drawn_is_asked_there_too(analysed, stated_for):
    view = preheat_view(stated(analysed, range__thickness_mm=stated_for))
    verdict, sentence = view.verdict()
    assert verdict == "unproven"
    assert "no metal is over the drawn 18\u2009mm, not" in sentence
    in_inches = view.verdict("us")[1]
    assert "0.709" in in_inches
    assert "mm" not in in_inches
    assert "°C" not in in_inches


@pytest.mark.parametrize(
    ("path", "text", "words"),
    [
        ("preheat/hydrogen", "", "hydrogen is no more than 8 ml/100 g, which nothing shows"),
        ("preheat/restraint", "", "only if restraint is medium"),
        ("metals/one/certificate", "Heat 1: C 0.20 Mn 1.1", "the steel holds no Si/Cr/Mo/V/Ni/Cu (not analysed)"),
        ("metals/other/name", "Kettle steel", "Kettle steel is not in the catalogue"),
    ],
)
def test_what_a_careless_hand_leaves_out_is_not_inside(analysed, path, text, words):
    wps = with_text(analysed, path, text, "si")
    wps = with_at(wps, "preheat/minimum_c", preheat_view(wps).governing.chosen_c)
    verdict, sentence = preheat_view(wps).verdict()
    assert verdict == "unproven"
    assert words in sentence


def test_a_pass_whose_heat_nobody_states_may_be_the_coldest(analysed):
    wps = stated(analysed, preheat__hydrogen="H5")
    wps = with_at(wps, "passes", tuple(each for each in wps.passes if each.role not in ("root", "hot"))[1:])
    wps = with_at(with_at(wps, "joint/thickness_mm", 45.0), f"passes/{wps.passes[0].id}/travel_speed_mm_min", None)
    wps = with_at(wps, "preheat/minimum_c", preheat_view(wps).governing.chosen_c)
    verdict, sentence = preheat_view(wps).verdict()
    assert (verdict, "pass 1 is as hot as the others" in sentence) == ("unproven", True)


def test_the_other_side_without_carbon_is_not_inside(analysed):
    wps = with_text(analysed, "metals/other/certificate", "Mn 1.1", "si")
    assert preheat_view(wps).verdict() == (
        "unproven",
        "A516-70 has no carbon or manganese stated: what it asks is not known.",
    )


def test_what_is_left_out_does_not_matter_where_the_preheat_bears_the_worst(analysed):
    wps = stated(analysed, preheat__hydrogen="", preheat__restraint="", preheat__minimum_c="200")
    assert preheat_view(wps).unstated
    assert preheat_view(wps).verdict()[0] == "inside"


def test_bare_wire_needs_no_class(analysed):
    wps = stated(analysed, preheat__hydrogen="")
    for each in wps.deposits:
        wps = with_at(wps, f"deposits/{each.id}/process", "GTAW")
    assert not preheat_view(wps).unstated


@pytest.mark.parametrize(
    ("metal", "words"),
    [("A240-316L", "austenite does not harden"), ("A240-S32205", "75 to 100 °C"), ("B209-5083-O", "martensite"),
     ("B265-GR2", "titanium"), ("B443-N06625", "nickel alloys do not harden"), ("A335-P91", "80 to 100 °C")],
)  # fmt: skip
def test_metals_that_want_something_else_say_so_in_a_line(shell, metal, words):
    view = preheat_view(stated(shell, metals__one__name=metal))
    assert words in view.sentences[0]
    assert not [each for each in view.asks if each.kind == "school"]


def test_no_metal_no_number(shell):
    view = preheat_view(stated(shell, metals__one__name=""))
    assert view.governing is None
    assert "Name the base metal" in view.sentences[0]


def test_the_crayons_are_said_in_the_readers_scale(shell):
    assert crayon_sentence(shell, "si") == "Crayons: 100 °C must melt, 250 °C must not melt; never inside the groove."
    assert crayon_sentence(shell, "us") == "Crayons: 200 °F must melt, 475 °F must not melt; never inside the groove."
    assert crayon_sentence(stated(shell, preheat__minimum_c="", preheat__interpass_maximum_c=""), "si") == ""


def test_the_most_between_passes_is_held_against_the_code_of_the_job(shell):
    """ASME B31.3 Table 330.1.1: P-No. 6 up to 315 °C between passes (M, from memory)."""
    martensitic = with_at(shell, "metals/one", Metal(p_number="6"))
    martensitic = stated(martensitic, header__construction_code="b31.3")
    over, at = (stated(martensitic, preheat__interpass_maximum_c=text) for text in ("330", "315"))
    verdict, sentence = preheat_view(over).interpass_verdict()
    assert (verdict, sentence) == ("outside", "330 °C between passes is over what ASME B31.3 allows, 315 °C.")
    assert preheat_view(at).interpass_verdict()[0] == "inside"
    assert preheat_view(stated(over, header__construction_code="")).interpass_verdict() == ("", "")
    assert "626 °F between passes" in preheat_view(over).interpass_verdict("us")[1]


@pytest.mark.parametrize("code", ["b31.8", "b31.3:1999", "asme-ix"])
def test_a_construction_code_that_nobody_knows_leaves_the_preheat_open(analysed, code):
    verdict, sentence = preheat_view(with_at(analysed, "header/construction_code", code)).verdict()
    assert verdict == "unproven"
    assert sentence.startswith(f"What {code} asks is not known: ")
    assert preheat_view(with_at(analysed, "header/construction_code", "b31.3:2014")).verdict()[0] == "inside"
