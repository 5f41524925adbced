"""Every kind of rule: allowed, just outside, unproven, not applicable; and every way a pack is refused."""

import re
from collections import Counter

import pytest
from msgspec.structs import replace

from anlage.core.codes import Coupon, Demand, Measured, Names, cover_box, read_pack, verdict_of, with_checks
from anlage.core.codes.facts import Facts
from anlage.core.codes.loader import faults_of_pack
from anlage.core.codes.specimens import lacking
from anlage.core.document import with_
from anlage.core.errors import FormatError
from anlage.core.ranges import ANY, NONE, all_but, between, choices
from anlage.core.rulebook import Check
from anlage.core.variables import read_variables
from anlage.data.tables import unit_table, vocabulary

HEAD = """[pack]
code = "toy"
name = "Toy"
title = "A toy code"
editions = ["1"]
processes = ["SMAW"]
source = "invented for this test"

[[category]]
id = "essential"
word = "essential"
"""
RULE = """
[[rule]]
id = "{id}"
variable = "{variable}"
clause = "1.2"
title = "toy"
category = "essential"
scope = "deposit"
kind = "{kind}"
confidence = "{confidence}"
{rest}
"""
GROUPS = {"E7018": "4", "E7016": "4", "E6010": "3", "EX": ""}
VARIABLES = """
variable = [
  {id = "x", name = "x"}, {id = "y", name = "y"}, {id = "x_mm", name = "x", kind = "length"},
  {id = "y_mm", name = "y", kind = "length"}, {id = "preheat_c", name = "preheat", kind = "temperature"},
  {id = "gas", name = "gas"}, {id = "word", name = "word", tokens = ["up", "down"]},
  {id = "pair", name = "pair", tokens = ["1", "3", "8"], pairs = true},
  {id = "metal", name = "metal", tokens = "catalogue.fillers.f_number"},
  {id = "process", name = "process", tokens = "vocabulary.process"},
  {id = "impact", name = "impact tests", tokens = ["yes", "no"], asked = "header/impact"},
  {id = "pass_role", name = "pass role", tokens = ["root", "fill"]},
  {id = "specimen", name = "specimen", tokens = ["up", "down"], fact = true},
]
"""
COLUMNS = {"metals": frozenset({"p_number"}), "filler": frozenset({"f_number"})}
NAMES = Names(read_variables(VARIABLES), vocabulary(), unit_table(), lambda _: GROUPS, COLUMNS)


def rule(kind, rest="", variable="x", identity="r", confidence="H"):
    return RULE.format(id=identity, variable=variable, kind=kind, rest=rest, confidence=confidence)


def pack(*rules, head=HEAD):
    return read_pack({"pack.toml": head, "rules.toml": "".join(rules)}, names=NAMES)


def allowance(rules, facts, assumed=None, **demand):
    return allowed_by(pack(*rules), facts, assumed, **demand)


def allowed_by(made, facts, assumed=None, **demand):
    record = Coupon(name="R", joint={}, deposits=({"process": "SMAW", **facts},), assumed=assumed or {})
    return cover_box(made, record, Demand(**demand)).deposits[0].get("x")


def sure(kind, rest, facts, **demand):
    return allowance([rule(kind, rest)], facts, **demand).sure


@pytest.mark.parametrize(
    ("kind", "rest", "fact", "expected"),
    [
        ("same", "", "DCEP", choices("DCEP")),
        ("same", "", 3.2, between(3.2, 3.2)),
        ("group", 'groups = [["1", "2"]]', "2", choices("1", "2")),
        ("group", 'groups = [["1", "2"]]', "3", choices("3")),
        ("map", 'map.up = "any"\nmap.down = {but = ["up"]}\notherwise = "same"', "up", ANY),
        ("map", 'map.up = "any"\nmap.down = {but = ["up"]}\notherwise = "same"', "down", all_but("up")),
        ("map", 'map.up = "any"\notherwise = "same"', "flat", choices("flat")),
        ("band", "low = {times = 0.9}\nhigh = {times = 1.1}", 100.0, between(90, 110.00000000000001)),
        ("band", "high = {times = 2, at_most = 15}", 10.0, between(None, 15)),
        ("band", "low = {times = 0.5, at_least = 8}", 10.0, between(8, None)),
        ("band", "low = {is = 0, open = true}\nhigh = {is = 6}", 1.0, between(0, 6, low_open=True)),
        ("table", "rows = [{below = 5, high = {is = 1}}, {from = 5, unlimited = true}]", 4.0, between(None, 1)),
        ("table", "rows = [{below = 5, high = {is = 1}}, {from = 5, unlimited = true}]", 5.0, between(None, None)),
        ("attribute", 'of = "fillers.f_number"', "E7018", choices("E7018", "E7016")),
        ("attribute", 'of = "fillers.f_number"\norder = "<="\nranks = ["3", "4"]', "E6010", choices("E6010")),
        ("addressed", "", "whatever", ANY),
    ],
)
def test_a_rule_turns_the_recorded_fact_into_its_set(kind, rest, fact, expected):
    assert sure(kind, rest, {"x": fact}) == expected


@pytest.mark.parametrize(
    ("kind", "rest"),
    [
        ("same", ""),
        ("group", 'groups = [["1"]]'),
        ("map", 'map.a = "any"\notherwise = "same"'),
        ("band", "low = {times = 1}"),
        ("table", "rows = [{below = 5, high = {is = 1}}]"),
        ("attribute", 'of = "fillers.f_number"'),
        ("declared", ""),
        ("function", 'function = "each_end_to_itself"'),
        ("unknown", 'note = "nobody knows"'),
    ],
)
def test_a_missing_fact_leaves_everything_possible_and_nothing_sure(kind, rest):
    found = allowance([rule(kind, rest)], {})
    assert (found.sure, found.possible) == (NONE, ANY)
    assert found.reason


def test_a_declared_range_is_taken_as_declared():
    assert sure("declared", "", {"declared.x": between(3, 8)}) == between(3, 8)


def test_percentage_rules_act_on_the_mean_and_maximum_rules_on_the_most():
    recorded = {"x": Measured(90.0, 100.0, 120.0)}
    assert sure("band", "high = {times = 1.1}", recorded) == between(None, 110.00000000000001)
    assert sure("band", 'high = {take = "most"}', recorded) == between(None, 120)
    assert sure("band", 'low = {take = "least"}', recorded) == between(90, None)


def test_a_composition_is_one_band_per_component():
    text = rule("composition", "relative.he = 10\nabsolute.co2 = {low = {is = 0}, high = {is = 20}}", variable="gas")
    record = Coupon(name="R", joint={}, deposits=({"process": "SMAW", "gas.he": 50.0},))
    box = cover_box(pack(text), record, Demand()).deposits[0]
    assert box["gas.he"].sure.contains(between(45.1, 54.9))
    assert not box["gas.he"].sure.contains(56)
    assert box["gas.co2"].sure == between(0, 20)


def test_a_wider_reading_is_possible_but_not_sure():
    found = allowance([rule("band", "high = {times = 1}\nalso = {high = {times = 2}}")], {"x": 10.0})
    assert (found.sure, found.possible) == (between(None, 10), between(None, 20))
    assert verdict_of(between(15, 15), found.sure, found.possible) == "unproven"
    assert verdict_of(between(25, 25), found.sure, found.possible) == "outside"


def test_limits_come_from_the_column_of_the_judging_system():
    text = "low = {plus = {si = -55, us = -100}}"
    facts = {"preheat_c": 140.0}
    record = Coupon(name="R", joint={}, deposits=({"process": "SMAW", **facts},))
    toy = pack(rule("band", text, variable="preheat_c"))
    lows = [cover_box(toy, record, Demand(units=u)).deposits[0]["preheat_c"].sure.parts[0].low for u in ("si", "us")]
    assert lows == pytest.approx([85, (140 * 1.8 + 32 - 100 - 32) / 1.8])


def test_rules_on_one_variable_intersect():
    two = [rule("band", "low = {is = 1}"), rule("band", "high = {is = 9}", identity="s")]
    assert allowance(two, {"x": 5.0}).sure == between(1, 9)


@pytest.mark.parametrize(("one", "other"), [("H", "M"), ("M", "H")])
def test_a_variable_is_as_sure_as_the_least_sure_of_its_rules(one, other):
    two = [rule("band", "low = {is = 1}", confidence=one), rule("band", "high = {is = 9}", "x", "s", confidence=other)]
    assert allowance(two, {"x": 5.0}).confidence == "M"


WHEN = 'when = {y = ["a", "b"]}'


def test_a_rule_that_does_not_concern_the_case_is_not_applicable():
    assert allowance([rule("same", WHEN)], {"x": "v", "y": "c"}) is None
    assert allowance([rule("same", WHEN)], {"x": "v", "y": "b"}).sure == choices("v")
    assert allowance([rule("same", WHEN)], {"x": "v", "y": frozenset("cb")}).sure == choices("v")
    assert (
        allowance([rule("same", 'unless = {y = ["a"], impact = ["yes"]}')], {"x": "v", "y": "b"}, impact=True) is None
    )


def test_a_condition_on_a_missing_fact_gives_two_readings():
    found = allowance([rule("same", WHEN)], {"x": "v"})
    assert (found.sure, found.possible, found.missing) == (choices("v"), ANY, ("y",))


def test_an_assumed_fact_serves_conditions_only():
    assert allowance([rule("same", WHEN)], {"x": "v"}, assumed={"y": "a"}).possible == choices("v")
    assert allowance([rule("same")], {}, assumed={"x": "v"}).sure == NONE


@pytest.mark.parametrize(("bound", "inside", "outside"), [("below = 5", 4.9, 5.0), ("to = 5", 5.0, 5.1),
                                                          ("above = 5", 5.1, 5.0), ("from = 5", 5.0, 4.9)])  # fmt: skip
def test_bounds_include_their_number_as_their_word_says(bound, inside, outside):
    text = rule("same", f"when = {{y_mm = {{{bound}}}}}")
    assert allowance([text], {"x": "v", "y_mm": inside}) is not None
    assert allowance([text], {"x": "v", "y_mm": outside}) is None


def test_a_hazy_rule_counts_only_in_the_edition_and_words_that_someone_has_checked():
    hazy = pack(rule("same", confidence="L"))
    (own,) = hazy.rules
    check = Check(rule="r", edition="2019", by="A. Maker", on="2026-03-02T08:00:00Z", copy="no. 7", said=own.said)
    other = with_(check, said="0" * 16)
    assert allowed_by(hazy, {"x": "v"}).sure == NONE
    assert allowed_by(with_checks(hazy, (check,), "2019"), {"x": "v"}).sure == choices("v")
    assert allowed_by(with_checks(hazy, (check,), "2021"), {"x": "v"}).sure == NONE, "checked in another edition"
    assert allowed_by(with_checks(hazy, (other,), "2019"), {"x": "v"}).sure == NONE, "its words are others since"


def test_a_process_without_rules_in_the_pack_is_unproven():
    record = Coupon(name="R", joint={}, deposits=({"process": "SAW", "x": "v"},))
    found = cover_box(pack(rule("same")), record, Demand()).deposits[0]["x"]
    assert (found.sure, found.possible) == (NONE, ANY)
    assert "no rules for SAW" in found.reason


def test_impact_demanded_of_a_record_without_impact_results_buys_nothing():
    head = f'{HEAD}\n[[demand]]\nid = "impact"\nword = "impact tests"\nchoices = ["yes", "no"]\ndefault = "no"\n'
    strict = head.replace("[pack]\n", "[pack]\nuntested = {impact = 'nothing'}\n", 1)
    record = Coupon(name="R", joint={}, deposits=({"process": "SMAW", "x": "v"},), toughness_tested=False)
    box = cover_box(pack(rule("same"), head=strict), record, Demand(impact=True))
    assert box.deposits[0]["x"].possible == NONE
    assert "no impact results" in box.empty_because
    unsaid = cover_box(pack(rule("same"), head=strict), replace(record, toughness_tested=None), Demand(impact=True))
    assert (unsaid.deposits[0]["x"].sure, unsaid.deposits[0]["x"].possible) == (NONE, choices("v"))
    assert "no passed impact results" in unsaid.deposits[0]["x"].reason
    free = cover_box(pack(rule("same"), head=head), record, Demand(impact=True))
    assert free.deposits[0]["x"].sure == choices("v"), "a pack that does not say so takes it as it is"


@pytest.mark.parametrize(
    ("facts", "applies"),
    [
        ({"y": "a", "word": "up"}, False), ({"y": "a", "word": "down"}, True), ({"y": "b", "word": "up"}, True),
        ({"y": "c", "word": "down"}, False), ({"y": "a"}, None), ({"y": "b"}, True), ({"y": "c"}, False),
    ],
)  # fmt: skip
def test_of_several_groups_each_lifts_a_rule_as_a_whole(facts, applies):
    found = allowance([rule("same", 'unless = [{y = ["a"], word = ["up"]}, {y = ["c"]}]')], {"x": "v", **facts})
    assert {None: choices("v"), True: choices("v"), False: None}[applies] == (found and found.sure)
    assert applies is not None or found.possible == ANY


@pytest.mark.parametrize(("ends", "applies"), [("a", True), ("ab", True), ("ac", False), ("c", False)])
def test_a_condition_may_ask_every_end_to_match(ends, applies):
    found = allowance([rule("same", 'when = {y = {all = ["a", "b"]}}')], {"x": "v", "y": frozenset(ends)})
    assert (found is not None) is applies


SPECIMENS = (
    '\n[[specimens]]\nid = "s"\nclause = "9"\nconfidence = "H"\nwhen = {y = ["a"]}\nany = [{up = 2}, {down = 1}]\n'
)


@pytest.mark.parametrize(
    ("facts", "passed", "missing"),
    [
        ({"y": "a"}, {"up": 2}, ()), ({"y": "a"}, {"down": 1}, ()), ({"y": "a"}, {"up": 1}, ("1 up of 9",)),
        ({"y": "a"}, {}, ("1 down of 9",)), ({}, {"up": 2}, ("y is not recorded",)),
        ({"y": "b"}, {"up": 2}, ("the code pack does not say which specimens",)),
    ],
)  # fmt: skip
def test_one_of_the_sets_of_specimens_suffices(facts, passed, missing):
    read = read_pack({"pack.toml": HEAD, "rules.toml": rule("same") + SPECIMENS}, names=NAMES)
    found = lacking(read.specimens, Facts(facts, {}), "si", Counter(passed))
    assert len(found) == len(missing)
    assert all(told.startswith(begin) for told, begin in zip(found, missing, strict=True))


@pytest.mark.parametrize(
    ("wrong", "what"),
    [
        (SPECIMENS.replace("{up = 2}", "{upp = 2}"), "line 18: upp is no specimen; write up"),
        (SPECIMENS.replace("{up = 2}", "{}"), "line 18: [[specimens]].any: Expected `object` of length >= 1"),
        (SPECIMENS.replace("{up = 2}", "{up = 0}"), "line 18: [[specimens]].any: Expected `int` >= 1"),
        (SPECIMENS.replace("{y =", "{yy ="), "no variable yy; add it"),
        (SPECIMENS.replace('clause = "9"\n', ""), "missing required field `clause`"),
    ],
)
def test_specimens_that_nobody_could_count_are_refused(wrong, what):
    with pytest.raises(FormatError) as refused:
        read_pack({"pack.toml": HEAD, "rules.toml": rule("same") + wrong}, names=NAMES)
    assert what in str(refused.value)


# Packs that are refused ----------------------------------------------------------------------

OVERLAP = "rows = [{below = 5, high = {is = 1}}, {from = 4, high = {is = 2}}]"
SPLIT = "rows = [{below = {si = 5, us = 0.3}, high = {is = 1}}, {from = {si = 5, us = 0.2}, high = {is = 2}}]"


@pytest.mark.parametrize(
    ("text", "line", "what"),
    [
        (rule("same", "clauze = 3"), 11, "a rule of kind same has no key clauze; write clause"),
        (rule("bend"), 9, "no kind bend; take one of same, only, group"),
        (rule("table", OVERLAP), 11, "rows 1 and 2 of r overlap; part them with below and from"),
        (rule("table", SPLIT, variable="x_mm"), 11, "rows 1 and 2 of r overlap"),
        (rule("same").replace('clause = "1.2"', 'clause = ""'), 5, "the rule has no clause; state clause"),
        (rule("same").replace('clause = "1.2"\n', ""), 2, "the rule has no clause; state clause"),
        (rule("same", confidence="X"), 10, "confidence is X; take one of H, M, L"),
        (rule("same").replace("deposit", "weld"), 8, "scope is weld; take one of joint, deposit, pass"),
        (rule("same").replace('"essential"', '"vital"'), 7, "category is vital; take one of essential"),
        (rule("band", "low = {timez = 2}"), 11, "low has no key timez; write times"),
        (rule("band", "low = {is = 2, times = 3}"), 11, "neither a number nor a fact"),
        (rule("band"), 2, "the band has no end; state low, high or both"),
        (rule("band", "low = {is = {si = 1, us = 2}}"), 11, "a plain number has no unit columns"),
        (rule("band", "low = {is = {si = 1}}", variable="x_mm"), 11, "is no limit; write a number, or {si"),
        (rule("map", 'map.a = 3\notherwise = "same"'), 11, "3 is no set of tokens"),
        (rule("map", 'map.a = "any"\notherwise = "none"'), 12, "otherwise is none; take same or unknown"),
        (rule("same", "when = {y = 3}"), 11, "when.y is no condition"),
        (rule("same", 'when = {yy_mm = ["a"]}'), 11, "no variable yy_mm; write y_mm"),
        (rule("same", 'when = {impact = ["maybe"]}'), 11, "maybe is no impact"),
        (rule("same", 'when = {word = "@upp"}'), 11, "no set @upp"),
        (rule("same", variable="wurd"), 4, "no variable wurd; write word"),
        (rule("band", 'low = {of = "pree_heat_c", times = 1}'), 11, "no variable pree_heat_c; write preheat_c"),
        (rule("group", 'groups = [["up", "dawn"]]', variable="word"), 11, "dawn is no word; write down"),
        (rule("group", 'groups = [["1+8", "1+88"]]', variable="pair"), 11, "1+88 is no pair"),
        (rule("group", 'groups = [["5"]]', variable="metal"), 11, "5 is no metal; take a known word"),
        (rule("group", 'groups = [[5]]', variable="metal"), 11, "groups: Expected `str`, got `int`"),
        (rule("function", 'function = "magic"'), 11, "no function magic; take one of each_end_to_itself"),
        (rule("same", 'because = "impakt"'), 2, "r counts because of impakt, which is no demand"),
        (rule("same", "when = 3"), 11, "when: Expected `object`, got `int`"),
        (rule("same", "when = {impact = []}"), 11, "[] is no list of tokens"),
        (rule("band", 'low = {take = "mots"}'), 11, "low.take: Invalid enum value 'mots'"),
        (rule("band", 'low = {times = "twice"}'), 11, "low.times: Expected `float | object`, got `str`"),
        (rule("band", 'low = {times = {si = 1}}'), 11, "times is {'si': 1}; write a number, or {si = …, us = …}"),
        (rule("band", 'low = {is = 1, open = "no"}'), 11, "low.open: Expected `bool`, got `str`"),
        ("rule = [3]", 1, "the rule: Expected `object`, got `int`"),
        ("rule = 3", 1, "the rule: Expected `object`, got `int`"),
        (rule("same") + rule("same"), 13, "the id r comes twice; see rules.toml line 2"),
    ],
)  # fmt: skip
def test_a_pack_at_fault_is_refused_with_file_line_and_reason(text, line, what):
    with pytest.raises(FormatError, match=re.escape(what)) as refusal:
        pack(text)
    assert refusal.value.where == f"rules.toml line {line}"


TOGETHER = '[[combination]]\nkind = "union"\nid = "u"\ntitle = "t"\nclause = "1"\nconfidence = "H"\n'
PAIRS = TOGETHER.replace("union", "pairs")
ROOT = """[[combination]]
kind = "borrow"
id = "b"
title = "t"
roles = ["root"]
processes = ["SMAW"]
thickness_from = 13
variables = ["x"]
deposit = "x"
times = 2
clause = "1"
confidence = "H"
"""
DERIVE = '[[derive]]\nvariable = "word"\nof = "filler"\ncolumns = ["f_number"]\n'


@pytest.mark.parametrize(
    ("more", "what"),
    [
        (TOGETHER + 'variables = ["a", "b", "c", "d"]', "Expected `array` of length <= 3"),
        (TOGETHER + 'variables = ["xx"]', "[[combination]] names xx, which is not there; write one"),
        (TOGETHER + 'variables = ["x"]\nacross = true', "Object contains unknown field `across`"),
        (TOGETHER.replace("union", "onion") + 'variables = ["x"]', "Invalid value 'onion'"),
        (PAIRS + 'variables = ["pairs"]', "[[combination]] names pairs, which is not there"),
        (ROOT.replace('"root"', '"rood"') + 'lifts = ["r"]', "[[combination]] names rood, which is not there"),
        ("[combinations]", "a pack has no key combinations; write combination"),
        (ROOT + 'lifts = ["q"]', "[[combination]] names q, which is not there"),
        ('[pack.assumed]\nyy = {is = "a", say = "b"}', "[pack.assumed] names yy, which is not there; write one"),
        ('[pack.assumed]\nword = {is = "upp", say = "b"}', "[pack.assumed] names upp, which is not there; write up"),
        ('[[demand]]\nid = "word"\nword = "w"\nchoices = ["up"]\ndefault = "up"', "[[demand]] names word, which"),
        ('[[demand]]\nid = "impact"\nword = "w"\nchoices = ["yes"]\ndefault = "no"', "[[demand]] names no, which"),
        ('[[derive]]\nvariable = "xyz"\nof = "metals"\ncolumns = ["p_number"]', "[[derive]] names xyz, which"),
        ('[[derive]]\nvariable = "x"\nof = "metals"\ncolumns = ["p_numbr"]', "names p_numbr, which is not there"),
        ('[[derive]]\nvariable = "x"\nof = "filler"\ncolumns = ["f_number"]\nanalysis = "a.toml"', "no table a.toml"),
        ('[[combination]]\nkind = "pairs"\nid = "p"\ntitle = "t"\nvariables = ["x"]\nconfidence = "H"',
         "missing required field `clause`"),
        (TOGETHER.replace('"H"', '"L"') + 'variables = ["x"]', "Invalid enum value 'L'"),
        (TOGETHER + 'variables = ["x"]\n' + TOGETHER + 'variables = ["x"]', "the id u comes twice"),
        ('[combination]\nkind = "pairs"', "[combination]: Expected `array`, got `object`"),
        (ROOT.replace("13", '"13 mm"') + 'lifts = ["r"]', "Expected `float | object`, got `str`"),
        ('[pack.assumed]\nx_mm = {is = "thin", say = "b"}', "[pack.assumed] names thin, which is not there"),
        ('[pack.assumed]\nword = {is = 3, say = "b"}', "[pack.assumed] names 3.0, which is not there"),
        ('[pack.assumed]\nword = {say = "b"}', "[pack] assumed: Object missing required field `is`"),
        (DERIVE + 'form = "pears"', "Invalid enum value 'pears'"),
        (DERIVE + 'withhold = ["l"]', "Invalid enum value 'l'"),
        (DERIVE + 'patterns = [{like = "(", is = "up"}]', "like is no pattern"),
        (DERIVE + 'patterns = [{like = "", is = "upp"}]', "[[derive]] names upp, which is not there; write up"),
        (DERIVE.replace('["f_number"]', "[]"), "Expected `array` of length >= 1"),
        ('[sets]\nboth = "up"', "[sets]: Expected `array`, got `str`"),
        ('[[category]]\nid = "new"', "Object missing required field `word`"),
    ],
)  # fmt: skip
def test_a_head_that_names_what_is_not_there_is_refused(more, what):
    with pytest.raises(FormatError, match=re.escape(what)) as refusal:
        pack(rule("same"), head=f"{HEAD}\n{more}\n")
    assert refusal.value.where.startswith("pack.toml line ")


def test_every_fault_of_a_pack_is_told_in_one_go():
    rules = rule("bend") + rule("same", confidence="X", identity="s") + rule("same", variable="z", identity="t")
    faults = faults_of_pack({"pack.toml": HEAD, "rules.toml": rules, "tables.toml": "a = = 1"}, names=NAMES)
    assert [fault.where for fault in faults] == [
        "tables.toml",
        "rules.toml line 9",
        "rules.toml line 21",
        "rules.toml line 26",
    ]


def test_a_named_set_stands_for_its_tokens():
    head = HEAD + "\n[sets]\nboth = ['up', 'down']\n"
    found = pack(rule("group", 'groups = ["@both"]', variable="word"), head=head)
    assert cover_box(
        found, Coupon(name="R", joint={}, deposits=({"process": "SMAW", "word": "up"},)), Demand()
    ).deposits[0]["word"].sure == choices("up", "down")


def test_a_pack_that_is_no_toml_is_refused_with_its_line():
    with pytest.raises(FormatError, match=r"rules.toml: no TOML: .*line 1"):
        pack("x = = 3")


def test_a_pack_without_a_source_is_refused():
    with pytest.raises(FormatError, match=r"\[pack\] has no source; state source"):
        pack(head=HEAD.replace("source", "# source"))


def test_a_pack_without_a_head_is_refused():
    with pytest.raises(FormatError, match=r"pack.toml: it has no head; write \[pack\] into it"):
        read_pack({"rules.toml": rule("same")}, names=NAMES)


def test_the_shipped_pack_names_clause_source_and_confidence_of_every_rule(asme):
    assert all(r.clause.startswith("QW-") and r.source and r.confidence in "HM" for r in asme.rules)
    assert {r.category for r in asme.rules} == {"essential", "supplementary", "nonessential"}
    assert all(r.because == "impact" for r in asme.rules if r.category == "supplementary")


def test_demands_differ_in_what_is_asked_and_in_the_units():
    assert Demand(impact=True) == Demand(impact="yes")
    assert hash(Demand(impact=True)) == hash(Demand(impact="yes"))
    assert Demand(impact=True) != Demand(impact=False)
    assert Demand(units="si") != Demand(units="us")
    assert Demand() != Demand(units="us", impact=True)


def test_a_rank_allows_itself_and_every_lower_one():
    rest = 'of = "fillers.f_number"\norder = "<="\nranks = ["3", "4"]'
    assert sure("attribute", rest, {"x": "E7018"}) == choices("E7018", "E7016", "E6010")


def test_a_pack_knows_its_categories_by_their_id(asme):
    assert [asme.category(each).word for each in ("essential", "supplementary", "nonessential")] == [
        "essential", "supplementary essential", "nonessential",
    ]  # fmt: skip
    assert asme.category("nonessential").stated


def test_two_metals_make_a_pair_of_both_ends(asme, shelves):
    one, other = shelves.metal_group("A516-70"), shelves.metal_group("A335-P11")
    for facts in (asme.derive.metal_facts(one, other), asme.derive.metal_facts(other, one)):
        assert facts["p_number"] == "4+1"
        assert facts["p_numbers"] == {"1", "4"}
        assert facts["group_number"] == "4-1+1-2"
    assert asme.derive.metal_facts(one)["p_number"] == "1+1"
