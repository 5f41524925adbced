"""What follows the last pass: asked by the code, borne by the metals, and what hydrogen release and holds come to."""

import pytest

from anlage.core.document import read_strict, with_at
from anlage.core.drawing import Marker, Path
from anlage.core.procedure import WPS
from anlage.data.files import FOLDER
from anlage.session.heat.after import DRAWN_K_H, after_view, with_treatment
from anlage.session.heat.after_picture import after_axes, after_picture, course_of
from anlage.session.heat.lower_transformation import MARGIN_K, does_transform, lower_transformations
from anlage.session.leaves.text import with_text
from anlage.session.weld.picture_sheet import Sheet

SHEET = Sheet(150.0, 90.0, "si", lambda text, height: 0.5 * height * len(text))
TREATED = {"pwht__kind": "below-ltt", "pwht__temperature_c": "690..740", "pwht__time_h": "1"}


def stated(wps, **leaves):
    for path, text in leaves.items():
        wps = with_text(wps, path.replace("__", "/"), text, "si")
    return wps


@pytest.fixture(scope="module")
def stub():
    """The stub of the boiler drum: P22, 15.88 mm, under B31.3, stated for what is drawn alone."""
    wps = read_strict((FOLDER / "demo" / "OST-W-05.json").read_text(), WPS, where="demo")
    return stated(
        wps, metals__one__certificate="", range__thickness_mm="5..15.88", range__thicker_member_mm="",
        header__construction_code="b31.3", preheat__minimum_c="200", technique__runs="multi",
        after__heating_rate_k_h="",
    )  # fmt: skip


def verdicts(wps, system="si"):
    return [(line.verdict, line.text.replace("\u2009", " ")) for line in after_view(wps, system=system).lines]


@pytest.mark.parametrize(
    ("leaves", "verdict", "words"),
    [
        ({"pwht__kind": "none"}, "inside", "ASME B31.3 lets it stay as welded"),
        ({"pwht__kind": ""}, "unproven", "Nothing is stated of heat treatment; ASME B31.3 does not ask it"),
        ({"pwht__kind": "none", "preheat__minimum_c": "140"}, "outside", "less preheat than 150 °C"),
        ({"pwht__kind": "none", "preheat__minimum_c": ""}, "unproven", "may ask heat treatment: preheat not stated"),
        ({"pwht__kind": "none", "technique__runs": ""}, "unproven", "runs not stated"),
        ({"pwht__kind": "none", "range__thickness_mm": "5..25"}, "unproven", "in 25 mm, as the procedure is stated"),
        ({"pwht__kind": "none", "range__thickness_mm": ">= 5"}, "unproven", "in 200 mm, as the procedure is stated"),
        ({"pwht__kind": "none", "header__construction_code": ""}, "unproven", "no construction code is stated"),
        ({"pwht__kind": "none", "header__construction_code": "b31.1"}, "unproven", "table of heat treatment"),
        ({"pwht__kind": "none", "metals__one__name": "Kettle steel"}, "unproven", "P-Number of a side is not"),
        (TREATED, "inside", "does not ask heat treatment, and it is stated"),
    ],
)  # fmt: skip
def test_whether_heat_treatment_is_asked(stub, leaves, verdict, words):
    told = verdicts(stated(stub, **leaves))[0]
    assert told[0] == verdict
    assert words in told[1]


@pytest.mark.parametrize(
    ("leaves", "verdict", "words"),
    [
        ({}, "inside", "690..740 °C for heat treatment: ASME B31.3 asks 675..760 °C (Table 331.1.1)"),
        ({"pwht__temperature_c": "670..740"}, "outside", "asks 675..760 °C"),
        ({"pwht__temperature_c": ""}, "unproven", "Its temperature is not stated; ASME B31.3 asks 675..760 °C"),
        ({}, "inside", "1 h for the hold: ASME B31.3 asks ≥ 0.64 h"),
        ({"pwht__time_h": "0.5"}, "outside", "0.5 h for the hold"),
        ({"pwht__time_h": ""}, "unproven", "Its hold is not stated"),
        ({"range__thickness_mm": "5..40"}, "unproven",
         "1 h is enough for the drawn 15.88 mm; 40 mm, as the procedure is stated for, asks ≥ 1.6 h"),
        ({"joint__thickness_mm": ""}, "unproven", "Its hold cannot be judged: thicker member not stated"),
    ],
)  # fmt: skip
def test_what_is_stated_of_it_is_held_against_the_code(stub, leaves, verdict, words):
    told = verdicts(stated(stub, **(TREATED | leaves)))
    assert any(own == verdict and words in text for own, text in told), told


def test_what_the_program_does_not_know_of_a_code_is_not_green(stub):
    """The table of ASME B31.1 is not known here: nothing of a heat treatment that is stated is inside by it."""
    told = verdicts(stated(stub, **TREATED, header__construction_code="b31.1"))
    cannot = [text for verdict, text in told if verdict == "unproven" and "cannot be judged" in text]
    assert len(cannot) == 3, told


def test_rates_are_limited_where_the_code_limits_them(stub):
    vessel = stated(stub, **TREATED, header__construction_code="viii-1", after__heating_rate_k_h="230")
    told = dict(reversed(each) for each in verdicts(vessel))
    assert next(v for text, v in told.items() if "for heating" in text) == "outside"
    assert next(v for text, v in told.items() if "cooling rate is not stated" in text) == "unproven"
    unknown = [line for line in verdicts(stated(stub, **TREATED)) if "heated and cooled" in line[1]]
    assert unknown == [
        ("unproven",
         "How fast it is heated and cooled cannot be judged: the rates of this code are not known to this program.")
    ]  # fmt: skip


@pytest.mark.parametrize(
    ("temperature", "verdict", "words"),
    [("690..735", "inside", "below where the first metal transforms"), ("690..760", "unproven", "is within 25 K"),
     ("690..820", "outside", "is over the transformation")],
)  # fmt: skip
def test_it_stays_below_where_the_metals_transform(stub, temperature, verdict, words):
    wps = stated(stub, **TREATED, metals__one__certificate="Heat 1: C 0.12 Mn 0.45 Si 0.3 Cr 2.2 Mo 1.0 Ni 0.1")
    lowest = min(each.celsius for each in lower_transformations(wps))
    assert lowest == pytest.approx(723 - 10.7 * 0.45 - 16.9 * 0.1 + 29.1 * 0.3 + 16.9 * 2.2)  # the certificate
    told = verdicts(stated(wps, pwht__temperature_c=temperature))
    assert any(own == verdict and words in text for own, text in told), told


def test_a_metal_whose_transformation_nobody_knows_leaves_it_open(stub):
    nine = stated(stub, **TREATED, metals__one__name="A335-P91")
    deposit = nine.deposits[0].id
    nine = stated(nine, **{f"deposits__{deposit}__filler": "ER90S-B9"})
    told = verdicts(nine)
    assert any(own == "unproven" and "ask its maker" in text for own, text in told), told
    assert "martensite" in after_view(nine).cautions[0]
    assert after_view(nine).takes is None


@pytest.mark.parametrize("kind", ["above-utt", "between", "above-utt-then-below-ltt", "solution", "range"])
def test_a_heat_treatment_of_another_kind_is_not_the_one_that_the_code_asks(stub, kind):
    wps = stated(stub, **{**TREATED, "pwht__kind": kind})
    told = verdicts(wps)
    assert any(own == "unproven" and "is below the lower transformation" in text for own, text in told), told
    assert not any(own == "inside" and "675" in text for own, text in told), told
    asked = verdicts(stated(wps, header__construction_code="viii-1"))
    assert asked[0] == ("unproven", "ASME VIII-1 asks heat treatment, and it is stated.")


@pytest.mark.parametrize("leaf", ["pwht__temperature_c", "pwht__time_h"])
@pytest.mark.parametrize("kind", ["none", ""])
def test_as_welded_with_the_figures_of_a_heat_treatment_is_a_contradiction(stub, leaf, kind):
    told = verdicts(stated(stub, pwht__kind=kind, **{leaf: TREATED[leaf]}))
    assert any(own == "unproven" and "yet a temperature or a time" in text for own, text in told), told


@pytest.mark.parametrize(("name", "word"), [("A240-304", "sensitizes"), ("A790-S32205", "embrittles")])
def test_metal_that_does_not_transform_is_not_cleared_for_a_hold_below_it(stub, name, word):
    view = after_view(stated(stub, metals__one__name=name, **TREATED))
    assert ("unproven", "No metal of this joint is known to transform: what the hold does is to be shown.") in [
        (line.verdict, line.text) for line in view.lines
    ]
    assert word in view.cautions[0]


@pytest.mark.parametrize(
    ("span", "verdict"),
    [("200..300", "inside"), ("180..300", "unproven"), ("250..350", "unproven"), ("600", "unproven")],
)
def test_a_hydrogen_release_is_as_hot_as_is_usual(stub, span, verdict):
    told = verdicts(stated(stub, after__release_c=span, after__release_h="2"))
    assert next(own for own, text in told if text.startswith("Hydrogen release")) == verdict


def test_figures_are_in_the_readers_units(stub):
    wps = stated(stub, after__release_c="150", after__release_h="2", **TREATED)
    notes = " ".join(f"{each.text} {each.note}" for each in after_view(wps, system="us").facts)
    assert "°C" not in notes
    assert "180 °F/h" in notes


@pytest.mark.parametrize(
    ("chromium", "nickel", "transforms"),
    [(0.0, 0.0, True), (2.3, 0.0, True), (0.1, 9.0, True), (9.0, 0.6, True), (12.0, 0.5, True), (12.0, 4.5, True),
     (20.0, 10.0, False), (22.5, 8.5, False), (0.1, 92.0, False), (19.0, 70.0, False)],
)  # fmt: skip
def test_martensitic_metal_transforms_and_austenitic_metal_does_not(chromium, nickel, transforms):
    assert does_transform({"Cr": chromium, "Ni": nickel}) is transforms


@pytest.mark.parametrize("filler", ["ER308L", "ER309L", "ER2209", "ERNiCr-3"])
def test_austenitic_duplex_and_nickel_fillers_do_not_transform(stub, filler):
    deposit = stub.deposits[0].id
    names = [each.name for each in lower_transformations(with_at(stub, f"deposits/{deposit}/filler", filler))]
    assert filler not in names


def test_metals_that_do_not_transform_are_asked_nothing_of_it():
    for number in ("07", "08"):
        wps = read_strict((FOLDER / "demo" / f"OST-W-{number}.json").read_text(), WPS, where="demo")
        view = after_view(wps)
        assert (view.lines, view.facts, view.begins, view.takes) == ((), (), (), None)
        told = after_view(stated(wps, after__release_c="250", after__release_h="2")).lines
        assert [line.verdict for line in told] == ["unproven"]


@pytest.mark.parametrize(
    ("celsius", "hours", "verdict"),
    [("250..300", "2", "inside"), ("250", "1.5", "unproven"), ("180", "4", "unproven"), ("", "4", "unproven"),
     ("250", "", "unproven")],
)  # fmt: skip
def test_a_hydrogen_release_is_what_the_trade_does(stub, celsius, hours, verdict):
    """Common practice, no source: 200 to 300 °C, 1 h for 25 mm and 2 h at least (M)."""
    told = verdicts(stated(stub, pwht__kind="none", after__release_c=celsius, after__release_h=hours))
    assert told[-1][0] == verdict
    assert "ydrogen release" in told[-1][1]


def test_the_figures_are_those_of_the_core(stub):
    wps = stated(stub, **TREATED, after__release_c="250", after__release_h="4")
    facts = {fact.name: fact for fact in after_view(wps).facts}
    assert facts["Hydrogen left after it"].text == "2 %"
    assert facts["To 10 % of the hydrogen"].text.startswith("2.3 h at 250 °C")
    assert facts["Tempering parameter"].text == "19.26 to 20.26"


def test_what_the_code_asks_is_taken_below_the_transformation(stub):
    thick = stated(stub, range__thickness_mm="5..40")
    takes = after_view(thick).takes
    assert (takes.temperature_c.low, takes.hours) == (675, 1.75)
    assert takes.temperature_c.high <= min(each.celsius for each in lower_transformations(thick)) - MARGIN_K
    taken = after_view(with_treatment(thick, takes)).lines
    assert {line.verdict for line in taken if "How fast" not in line.text} == {"inside"}
    assert after_view(stub).takes is None  # nothing is asked of what is drawn


def test_the_course_is_drawn_in_both_scales_with_its_handles(stub):
    wps = stated(stub, **TREATED, after__release_c="280..300", after__release_h="2..3", after__cooling_rate_k_h="60")
    view, course = after_view(wps), course_of(wps, "si")
    assert [hold.end - hold.start for hold in course.holds] == pytest.approx([2, 1])
    heating, cooling = course.legs[-3], course.legs[-1]
    assert (heating.known, cooling.known) == (False, True)
    assert heating.points[1][0] - heating.points[0][0] == pytest.approx((715 - 20) / DRAWN_K_H)
    assert cooling.points[1][0] - cooling.points[0][0] == pytest.approx((715 - 20) / 60)
    axes = after_axes(wps, view, SHEET)
    items = after_picture(wps, view, axes, SHEET).items
    handles = [item.target for item in items if isinstance(item, Marker)]
    assert handles == ["after/release_c", "after/release_h", "pwht/temperature_c", "pwht/time_h"]
    assert any(isinstance(item, Path) and item.role == "limit" for item in items)
    assert axes.read(axes.at((3.0, 500.0))) == pytest.approx((3.0, 500.0))
    assert course_of(wps, "us").holds[0].low == pytest.approx(280 * 1.8 + 32)
    assert course_of(stated(wps, pwht__kind="none", after__release_h=""), "si") is None
