"""The kind `pairs`: what its parameters say, how a misuse is refused, and how a rule of it judges a procedure.

The groups and letters here are invented; the table of a published code is in tests/published.
"""

import pytest
from hypothesis import given
from hypothesis import strategies as st

from anlage.core.catalogue import MetalGroup
from anlage.core.codes import Coupon, Demand, Stated, StatedDeposit, cover_box, judge, read_pack
from anlage.core.codes.examples import examples_of
from anlage.core.codes.metal_pairs import MetalPairs, PairRow, member_of
from anlage.core.errors import FormatError
from anlage.core.ranges import choices, fits
from anlage.data.code_packs import pack_names
from anlage.session.keyed.answer import range_as_json
from anlage.session.leaves.set_text import set_text
from anlage.session.rulebook.entries import example_lines, samples

CODE = """
[pack]
code = "pair-code"
name = "Pair code"
title = "Invented groups"
editions = ["1"]
processes = ["SMAW"]
source = "invented for a test"

[[category]]
id = "binding"
word = "binding"

[[derive]]
variable = "metals_by_yield"
of = "metals"
columns = ["iso15608_group"]
form = "pair"
graded = true

[[rule]]
id = "metals"
variable = "metals_by_yield"
clause = "5"
title = "Metals by the pair that was tested"
category = "binding"
scope = "joint"
kind = "pairs"
confidence = "H"
members = { "1" = ["1.1", "1.2"], "5" = ["5.1", "5.2", "5.3"], "8" = ["8.1", "8.2"] }
letters = { a = ["1"], b = ["5"], c = ["8"] }
alone = ["5.3"]
otherwise = "letter"
rows = [
  { tested = "1-1", covers = ["1a-1"] },
  { tested = "5-5", covers = ["5b-5", "5b-1"], confidence = "M" },
  { tested = "8-5", covers = ["8c-5b", "8c-5.1"] },
]
"""
TOKENS = [f"{one}@{high}+{two}@{low}" for one, high in (("1.2", 355), ("5.2", 275), ("5.3", 460), ("8.1", 205))
          for two, low in (("1.1", 235), ("5.1", 300), ("8.2", 220))]  # fmt: skip


def pack(text=CODE):
    return read_pack({"pack.toml": text}, names=pack_names())


def allowed(token, text=CODE):
    """What a tested pair allows."""
    code = pack(text)
    coupon = Coupon(name="R", joint={"metals_by_yield": token}, deposits=({"process": "SMAW"},))
    return cover_box(code, coupon, Demand()).deposits[0]["metals_by_yield"]


def state(tested, stated):
    code = pack()
    coupon = Coupon(name="R", joint={"metals_by_yield": tested}, deposits=({"process": "SMAW"},))
    stated_sets = Stated({"metals_by_yield": choices(stated)}, (StatedDeposit("SMAW", {}),))
    found = judge(code, stated_sets, [cover_box(code, coupon, Demand())])
    return next(rung for rung in found.rungs if rung.variable == "metals_by_yield").verdict


@pytest.mark.parametrize(
    ("tested", "stated", "found"),
    [
        ("1.2@355+1.1@235", "1.1@355+1.2@235", "inside"),  # a: the group, each up to its yield, sorted
        ("1.2@355+1.1@235", "1.2@355+1.2@355", "unproven"),  # the letter stands at one end alone
        ("1.2@355+1.1@235", "1.2@420+1.1@420", "outside"),
        ("1.2@355+1.1@235", "5.1@235+1.1@235", "outside"),
        ("5.2@310+5.2@310", "5.1@900+5.2@900", "inside"),  # b: the subgroup and those before, whatever the yield
        ("5.2@310+5.2@310", "5.3@310+5.1@310", "unproven"),
        ("5.2@310+5.2@310", "5.3@310+5.3@310", "outside"),
        ("5.2@310+5.2@310", "5.1@310+1.1@310", "inside"),  # swapped: up to the tested yield
        ("5.2@310+5.2@310", "5.1@310+1.1@355", "unproven"),
        ("5.3@310+5.3@310", "5.3@310+5.3@310", "inside"),
        ("5.3@310+5.3@310", "5.1@310+5.3@310", "unproven"),  # alone: no step above those before
        ("8.1@205+5.2@310", "5.1@310+8.1@205", "inside"),
        ("8.1@205+5.2@310", "8.2@205+5.1@310", "outside"),  # c: the tested subgroup
        ("8.1@205+1.1@235", "8.1@205+1.2@235", "inside"),  # in no row: each end within its own letter
        ("8.1@205+1.1@235", "8.1@205+1.2@275", "outside"),
        ("1.2@355+1.1@235", "7.1@355+1.1@235", "unproven"),  # a group that the table does not hold
        ("7.1@355+1.1@235", "7.1@355+1.1@235", "unproven"),
    ],
)
def test_a_stated_pair_against_a_tested_one(tested, stated, found):
    assert state(tested, stated) == found


@pytest.mark.parametrize("token", TOKENS)
def test_a_tested_pair_covers_itself(token):
    assert fits(choices(token), allowed(token).sure)


@given(st.sampled_from(TOKENS), st.floats(100, 900), st.floats(100, 900))
def test_a_stronger_metal_is_never_better_off(token, grade, more):
    box = allowed(token)
    low, high = sorted((grade, more))
    for metal in ("1.1", "5.1", "5.2", "8.1"):
        weak, strong = (choices(f"{metal}@{each:g}+1.1@200") for each in (low, high))
        assert fits(weak, box.sure) or not fits(strong, box.sure)
        assert fits(weak, box.possible) or not fits(strong, box.possible)


def test_sure_lies_within_possible_and_a_row_carries_its_confidence():
    for token in TOKENS:
        box = allowed(token)
        assert box.possible.contains(box.sure)
    assert allowed("5.2@310+5.2@310").rulings[0].readings.confidence == "M"


def test_without_another_row_a_pair_is_unknown():
    text = CODE.replace('otherwise = "letter"\n', "")
    assert "does not say what 8.1@205+1.1@235 covers" in allowed("8.1@205+1.1@235", text).rulings[0].readings.reason


@pytest.mark.parametrize(
    ("old", "new", "said"),
    [
        ('variable = "metals_by_yield"\nclause', 'variable = "p_number"\nclause', "are no pairs with a grade"),
        ('c = ["8"]', 'd = ["8"]', "group 8 has no letter"),
        ('c = ["8"]', 'c = ["8", "9"]', "group 9 has no letter or no members"),
        ('"8" = ["8.1", "8.2"]', '"8" = ["8.1", "5.2"]', "in two groups"),
        ('alone = ["5.3"]', 'alone = ["5.4"]', "alone names none"),
        ('otherwise = "letter"', 'otherwise = "same"', "otherwise is same"),
        ('"8c-5.1"', '"8c-9"', "8c-9 is no pair of groups"),
        ('"8c-5.1"', '"8c"', "8c is no pair of groups"),
        ('tested = "8-5"', 'tested = "8c-5"', "8c-5 are no groups"),
        ('tested = "8-5"', 'tested = "5-5"', "the same groups twice"),
        ('confidence = "M" }', 'confidence = "X" }', "confidence is X"),
        ('confidence = "M" }', 'grade = 3 }', "grade"),
        ('"8" = ["8.1", "8.2"]', '"8" = "8.1"', "members"),
    ],
)  # fmt: skip
def test_a_misuse_is_refused_with_file_and_line(old, new, said):
    assert old in CODE
    with pytest.raises(FormatError, match=r"pack\.toml.*line \d+|line \d+") as refused:
        pack(CODE.replace(old, new))
    assert said in str(refused.value)


def test_metals_of_the_catalogue_become_a_pair_only_with_group_and_yield():
    derive = pack().derive
    strong = MetalGroup("A", {"iso15608_group": "1.2"}, "H", "invented", 355.0)
    weak = MetalGroup("B", {"iso15608_group": "1.1"}, "H", "invented", 235.0)
    assert derive.metal_facts(weak, strong) == {"metals_by_yield": "1.2@355+1.1@235"}
    assert derive.metal_facts(strong) == {"metals_by_yield": "1.2@355+1.2@355"}
    assert derive.metal_facts(strong, MetalGroup("C", {"iso15608_group": "1.1"}, "H", "invented")) == {}
    assert derive.metal_facts(strong, MetalGroup("D", {}, "H", "invented", 235.0)) == {}


def test_it_is_said_in_words_shown_as_examples_and_written_as_json():
    sure = allowed("5.2@310+5.2@310").sure
    said = set_text("metals_by_yield", sure, "si")
    assert said == "5.1, 5.2 with 5.1, 5.2; 5.1, 5.2 with 1.1, 1.2 up to 310\u2009MPa"
    assert (
        set_text("metals_by_yield", choices("1.2@355+1.1@235"), "si") == "1.2 at 355\u2009MPa with 1.1 at 235\u2009MPa"
    )
    assert "ksi" in set_text("metals_by_yield", sure, "us")
    assert range_as_json(sure)["pairs"][1] == [
        {"one_of": ["5.1", "5.2"], "to": None},
        {"one_of": ["1.1", "1.2"], "to": 310},
    ]
    code = pack()
    assert len(examples_of(code.rules[0], code, pack_names(), samples(), "si")) == 3
    first = example_lines(code.rules[0], code, "si")[0]
    assert first.coupon == "Groups and yield of the metals 1.2 at 355\u2009MPa with 1.1 at 240\u2009MPa"
    assert first.allowed.startswith("1.1, 1.2 up to 355\u2009MPa with 1.1, 1.2 up to 240\u2009MPa, perhaps ")


def test_a_printed_end_is_read():
    assert member_of("6.1").metals == "6.1"
    assert member_of("8d") is None
    row = PairRow(("1", "1"), ((member_of("1a"), member_of("1")),))
    kind = MetalPairs("metals_by_yield", {"1": ("1.1",)}, {"1": "a"}, (row,))
    assert (kind.group_of("1"), kind.group_of("1.1"), kind.group_of("2")) == ("1", "1", "")
