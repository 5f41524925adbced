"""Which joined steels a tested pair covers by ISO 15614-1:2017 Table 4 (2004 Table 3), level 2; all from memory.

The rows are of confidence H or M as they say; that the letters are read in two ways is M.
"""

import pytest

from anlage.core.codes import Coupon, Demand, cover_box, read_pack
from anlage.core.ranges import choices, fits
from anlage.data.code_packs import pack_names

TABLE = """
[pack]
code = "steel-pairs"
name = "Pairs of steels"
title = "ISO 15614-1 Table 4 alone"
editions = ["2017"]
processes = ["SMAW"]
source = "ISO 15614-1:2017 Table 4, from memory"

[[category]]
id = "essential"
word = "essential"

[[rule]]
id = "metals"
variable = "metals_by_yield"
clause = "Table 4"
title = "Base metals by the pair that was tested"
category = "essential"
scope = "joint"
kind = "pairs"
confidence = "H"
otherwise = "letter"
alone = ["10.3"]
letters = { a = ["1", "2", "3"], b = ["4", "5", "6", "9", "10", "11"], c = ["7", "8"] }
rows = [
  { tested = "1-1", covers = ["1a-1"] },
  { tested = "2-2", covers = ["2a-2", "1-1", "2a-1"] },
  { tested = "3-3", covers = ["3a-3", "1-1", "2-1", "2-2", "3a-1", "3a-2"] },
  { tested = "4-4", covers = ["4b-4", "4b-1", "4b-2"] },
  { tested = "5-5", covers = ["5b-5", "5b-1", "5b-2"] },
  { tested = "6-6", covers = ["6b-6", "6b-1", "6b-2"] },
  { tested = "7-7", covers = ["7c-7"] },
  { tested = "7-3", covers = ["7c-3", "7c-1", "7c-2"], confidence = "M" },
  { tested = "7-2", covers = ["7c-2", "7c-1"], confidence = "M" },
  { tested = "8-8", covers = ["8c-8"] },
  { tested = "8-6", covers = ["8c-6b", "8c-1", "8c-2", "8c-4"], confidence = "M" },
  { tested = "8-5", covers = ["8c-5b", "8c-1", "8c-2", "8c-4", "8c-6.1", "8c-6.2"], confidence = "M" },
  { tested = "8-3", covers = ["8c-3a", "8c-1", "8c-2"], confidence = "M" },
  { tested = "8-2", covers = ["8c-2a", "8c-1"], confidence = "M" },
  { tested = "9-9", covers = ["9b-9"] },
  { tested = "10-10", covers = ["10b-10"] },
  { tested = "10-8", covers = ["10b-8c"] },
  { tested = "10-6", covers = ["10b-6b", "10b-1", "10b-2", "10b-4"], confidence = "M" },
  { tested = "10-5", covers = ["10b-5b", "10b-1", "10b-2", "10b-4", "10b-6.1", "10b-6.2"], confidence = "M" },
  { tested = "10-3", covers = ["10b-3a", "10b-1", "10b-2"], confidence = "M" },
  { tested = "10-2", covers = ["10b-2a", "10b-1"], confidence = "M" },
  { tested = "11-11", covers = ["11b-11", "11b-1"], confidence = "M" },
]
[rule.members]
1 = ["1.1", "1.2", "1.3", "1.4"]
2 = ["2.1", "2.2"]
3 = ["3.1", "3.2", "3.3"]
4 = ["4.1", "4.2"]
5 = ["5.1", "5.2", "5.3", "5.4"]
6 = ["6.1", "6.2", "6.3", "6.4"]
7 = ["7.1", "7.2", "7.3"]
8 = ["8.1", "8.2", "8.3"]
9 = ["9.1", "9.2", "9.3"]
10 = ["10.1", "10.2", "10.3"]
11 = ["11.1", "11.2", "11.3"]
"""


@pytest.fixture(scope="module")
def code():
    return read_pack({"pack.toml": TABLE}, names=pack_names())


def covered(code, tested, stated):
    """Whether a tested pair covers another: yes, perhaps or no."""
    coupon = Coupon(name="R", joint={"metals_by_yield": tested}, deposits=({"process": "SMAW"},))
    box = cover_box(code, coupon, Demand()).deposits[0]["metals_by_yield"]
    own = choices(stated)
    return "yes" if fits(own, box.sure) else "perhaps" if fits(own, box.possible) else "no"


@pytest.mark.parametrize(
    ("tested", "stated", "expected"),
    [
        # Table 4, two like steels of group 2 (H)
        ("2.1@420+2.1@420", "1.2@355+1.2@355", "yes"),
        ("2.1@420+2.1@420", "2.1@420+1.2@355", "yes"),
        ("2.1@420+2.1@420", "2.2@500+2.2@500", "no"),
        ("2.1@420+2.1@420", "3.1@420+1.2@355", "no"),
        ("2.1@420+2.1@420", "1.3@460+1.3@460", "perhaps"),  # the swapped group, by the letter (M)
        # Table 4 footnote a, group 1 (H; the unmarked end M)
        ("1.2@355+1.2@355", "1.2@355+1.2@355", "yes"),
        ("1.2@355+1.2@355", "1.1@275+1.2@355", "yes"),
        ("1.2@355+1.2@355", "1.2@355+1.3@420", "perhaps"),
        ("1.2@355+1.2@355", "1.3@420+1.3@420", "no"),
        # footnote b, Cr-Mo steels (H)
        ("5.2@310+5.2@310", "5.1@275+5.1@275", "yes"),
        ("5.2@310+5.2@310", "5.2@310+1.1@235", "yes"),
        ("5.2@310+5.2@310", "5.3@310+5.3@310", "no"),
        ("5.2@310+5.2@310", "6.1@310+5.1@310", "no"),
        # footnote c, stainless (H), and stainless to carbon steel, in no row (M)
        ("8.1@205+8.1@205", "8.1@240+8.1@240", "yes"),
        ("8.1@205+8.1@205", "8.2@205+8.2@205", "no"),
        ("8.1@205+1.2@355", "8.1@205+1.1@235", "yes"),
        ("8.1@205+1.2@355", "8.1@205+1.3@420", "no"),
        ("8.1@205+5.2@310", "8.1@205+6.2@275", "yes"),  # swapped, up to the tested yield (M)
        ("8.1@205+5.2@310", "8.1@205+6.3@275", "no"),
        # duplex: the lean subgroup is no higher alloy (M)
        ("10.2@550+10.2@550", "10.1@450+10.2@550", "yes"),
        ("10.3@450+10.3@450", "10.3@450+10.3@450", "yes"),
        ("10.3@450+10.3@450", "10.1@450+10.1@450", "perhaps"),
    ],
)
def test_a_tested_pair_covers(code, tested, stated, expected):
    assert covered(code, tested, stated) == expected


def test_every_pair_of_the_table_covers_itself(code):
    some = "1.2@355 1.4@355 2.2@500 3.1@690 4.1@400 5.3@350 6.4@450 7.2@650 8.3@300 9.1@275 10.3@450 11.1@250"
    metals = some.split()
    for one in metals:
        for other in metals:
            pair = f"{one}+{other}"
            assert covered(code, pair, pair) == "yes", pair
