"""Worked examples: made by the rule itself, one for each thing that it says, for a coupon that it concerns."""

import pytest

from anlage.core.codes import Demand
from anlage.core.codes.box import readings_of
from anlage.core.codes.examples import Samples, examples_of
from anlage.core.codes.facts import Facts
from anlage.core.codes.kinds import Map, Table
from anlage.core.ranges import ANY, NONE, between, choices
from anlage.data.code_packs import code_pack, pack_names
from anlage.session.rulebook.entries import samples
from tests.core.codes.test_code_rules import NAMES, pack, rule

PACK = code_pack("asme-ix")
SAMPLES = Samples({"length": 20.0}, {"x": "v"})


def of(kind, rest, **options):
    made = pack(rule(kind, rest, **options))
    return examples_of(made.rules[0], made, NAMES, SAMPLES, "si")


@pytest.mark.parametrize("own", PACK.rules, ids=lambda each: each.id)
def test_every_rule_of_the_code_has_examples_that_it_concerns_itself(own):
    found = examples_of(own, PACK, pack_names(), samples(), "si")
    assert found
    demanded = PACK.facts_of(Demand())
    for each in found:
        assert readings_of(own, Facts({**demanded, **each.facts}, {}), Demand()) == each.readings


@pytest.mark.parametrize("own", [each for each in PACK.rules if isinstance(each.kind, Table)], ids=lambda each: each.id)
@pytest.mark.parametrize("units", ["si", "us"])
def test_every_row_of_a_table_has_an_example_that_lies_in_it(own, units):
    found = examples_of(own, PACK, pack_names(), samples(), units)
    seen = {each.rows for each in found}
    for each in found:
        assert all(row.holds(Facts(dict(each.facts), {}), units) for row in each.rows)
    reachable = [row for row in own.kind.rows if not any(c.fact == row.on.fact for c in own.when)]
    assert {(row.on, row.second) if row.second else (row.on,) for row in reachable} <= seen


@pytest.mark.parametrize("own", [each for each in PACK.rules if isinstance(each.kind, Map)], ids=lambda each: each.id)
def test_every_word_of_a_map_has_an_example_unless_a_condition_bars_it(own):
    named = {each.facts[own.kind.on] for each in examples_of(own, PACK, pack_names(), samples(), "si")}
    barred = {token for c in own.when if c.fact == own.kind.on for token in own.kind.allows if token not in c.tokens}
    lifted = {token for g in own.unless for c in g if c.fact == own.kind.on for token in c.tokens}
    assert set(own.kind.allows) - barred - lifted <= named


def test_both_sides_of_a_number_that_holds_a_product_are_shown():
    found = of("band", "high = { times = 2, at_least = 30 }", variable="y_mm")
    assert [each.readings.sure for each in found] == [between(None, 40), between(None, 30)]


def test_a_second_reading_and_an_unknown_are_said():
    (found,) = of("band", "low = { is = 2 }\nalso = { low = { is = 1 } }", variable="y_mm")
    assert (found.readings.sure, found.readings.possible) == (between(2, None), between(1, None))
    (found,) = of("unknown", 'note = "nobody knows"')
    assert (found.readings.sure, found.readings.possible) == (NONE, ANY)


def test_a_rule_that_conditions_shut_out_has_no_example():
    assert of("same", "when = { y_mm = { above = 3 } }\nunless = { y_mm = { above = 2 } }") == ()


def test_what_lifts_a_rule_is_not_so_in_its_examples():
    (found,) = of("same", "unless = { y_mm = { above = 12 } }")
    assert found.facts["y_mm"] <= 12
    assert found.readings.sure == choices("v")
