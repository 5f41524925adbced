"""Reasons say why: from which recorded fact, by which factor and clause, and what would lift the limit."""

import re

import pytest

from anlage.core.codes.explain import Origin, origin_of
from anlage.core.codes.facts import Facts
from anlage.core.document import read_strict, with_at
from anlage.data.code_packs import code_pack
from anlage.data.files import FOLDER
from anlage.session.judging.assessment import Assessor
from anlage.session.judging.ladder import lines, problem_sentences
from anlage.session.kinds import PROCEDURE, RECORD


def read(number, kind):
    return read_strict((FOLDER / "demo" / f"{number}.json").read_text(encoding="utf-8"), kind.core)


@pytest.fixture(scope="module")
def judge():
    return Assessor([("1", read("OST-R-01", RECORD))])


def line(judge, variable, system="si", **changes):
    wps = read("OST-W-01", PROCEDURE)
    for path, value in changes.items():
        wps = with_at(wps, path.replace("__", "/"), value)
    (found,) = [each for each in lines(wps, judge.assess(wps), system) if each.rung.id == variable]
    return found


def plain(text):
    return text.replace("\u2009", " ").replace("×", "x")


@pytest.mark.parametrize(
    ("variable", "changes", "why"),
    [
        ("base_metal_thickness_mm", {"range__thickness_mm": [6, 40]},
         "2 x 16 mm recorded on OST-R-01 by QW-403.8, QW-451.1; a coupon from 20 mm on would lift it"),
        ("base_metal_thickness_mm", {"range__thickness_mm": [6, 120]}, "a coupon from 38 mm on would lift it"),
        ("base_metal_thickness_mm", {"range__thickness_mm": [3, 22]}, "5 mm by QW-403.8, QW-451.1"),
        ("deposit_thickness_mm.SMAW", {"deposits__d2__thickness_mm": [0, 24]},
         "2 x 10.5 mm recorded on OST-R-01 by QW-404.30, QW-451.1"),
        ("preheat_c", {"preheat__minimum_c": 20.0}, "85 °C recorded on OST-R-01, less 55 K by QW-406.1"),
    ],
)  # fmt: skip
def test_a_limit_says_where_it_comes_from(judge, variable, changes, why):
    assert why in plain(line(judge, variable, **changes).reason)


def test_numbers_carry_the_units_of_the_reader(judge):
    said = plain(line(judge, "base_metal_thickness_mm", "us", range__thickness_mm=[6, 40]).reason)
    assert "2 x 0.630 in recorded" in said
    assert "mm" not in said


def test_two_numbers_that_would_read_alike_get_one_more_digit(judge):
    found = line(judge, "base_metal_thickness_mm", range__thickness_mm=[6, 32.04])
    assert plain(found.reason).startswith("6..32.04 mm is stated; OST-R-01 allows 5..32 mm: 2 x 16 mm recorded")
    assert plain(found.mend).startswith("State at most 32 mm")


@pytest.mark.parametrize(
    ("variable", "changes", "mend"),
    [
        ("p_number", {"metals__one__name": "A240-304L"}, "Weld a test with these base metals."),
        ("f_number.SMAW", {"deposits__d2__filler": "E6010"},
         "Take a filler of F-Number 4, or weld a test that covers it."),
    ],
)  # fmt: skip
def test_nobody_is_told_to_take_other_base_metals(judge, variable, changes, mend):
    assert line(judge, variable, **changes).mend == mend


def test_an_unknown_filler_is_named_as_unknown(judge):
    said = line(judge, "f_number.SMAW", deposits__d2__filler="E9999").reason
    assert said == "The catalogue has no filler E9999: nothing counts as stated."


def test_a_verdict_over_several_deposits_names_the_one_that_fails():
    heavy = read("OST-R-01", RECORD)
    for deposit, thickness in (("d1", 2.0), ("d2", 14.0)):  # a pass over 13 mm: 1.1 times the coupon, for SMAW
        for leaf in ("thickness_mm", "max_pass_thickness_mm"):
            heavy = with_at(heavy, f"deposits/{deposit}/{leaf}", thickness)
    found = line(Assessor([("1", heavy)]), "base_metal_thickness_mm", deposits__d1__thickness_mm=[0, 4])
    assert found.rung.member == "SMAW"
    assert ", for SMAW: 1.1 x 16 mm recorded on OST-R-01 by QW-403.9" in plain(found.reason)


@pytest.mark.parametrize("system", ["si", "us"])
def test_no_sentence_shows_raw_brackets(judge, system):
    wps = read("OST-W-01", PROCEDURE)
    for path, value in {
        "range/thickness_mm": [3, 60], "deposits/d2/thickness_mm": [0, 60], "header/impact": True,
        "technique/peening": None, "deposits/d2/filler": "E6010", "preheat/minimum_c": 10.0,
    }.items():  # fmt: skip
        wps = with_at(wps, path, value)
    found = problem_sentences(wps, judge.assess(wps), system)
    assert found
    assert not [each for each in found if re.search(r"\[[\d.-]|frozenset|Interval", each)]


def test_an_origin_tells_factor_step_and_what_is_held():
    pack = code_pack("asme-ix")
    rules = {rule.id: rule for rule in pack.rules}
    facts = Facts({"base_metal_thickness_mm": 20.0, "preheat_c": 140.0}, {})
    least = origin_of(rules["t_base_min"].kind, facts, "si", high=False, stated=10.0)
    assert least == Origin("base_metal_thickness_mm", 20.0, held=True), "20 mm, held to 16 mm"
    assert origin_of(rules["f_number"].kind, facts, "si", high=True, stated=1.0) is None
    assert origin_of(rules["t_base"].kind, Facts({}, {}), "si", high=True, stated=1.0) is None
