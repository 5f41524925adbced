"""Pairs of graded ends against every pair of a small world, one by one."""

from itertools import product

import pytest
from hypothesis import given
from hypothesis import strategies as st

from anlage.core.errors import InputError
from anlage.core.ranges import (
    ANY,
    NONE,
    GradedEnd,
    all_but,
    choices,
    ends_of,
    fits,
    graded_end,
    is_none,
    pairs,
    uncovered,
    without,
)

GROUPS, GRADES = ("1.1", "1.2", "8.1", "9.9"), (200.0, 300.0, 400.0)  # nobody names 9.9
WORLD = [f"{graded_end(*one)}+{graded_end(*two)}" for one, two in product(product(GROUPS, GRADES), repeat=2)]
ends = st.builds(
    GradedEnd, st.frozensets(st.sampled_from(GROUPS[:3]), min_size=1), st.sampled_from(GRADES), but=st.booleans()
)
boxes = st.lists(st.tuples(ends, ends), max_size=3)
sets = st.builds(pairs, boxes, st.frozensets(st.sampled_from(WORLD), max_size=3))


def members(values):
    """Every pair of the world that lies in a set."""
    return {token for token in WORLD if values.contains(token)}


@given(sets, sets)
def test_and_or_contains_are_those_of_the_pairs_themselves(one, other):
    assert members(one & other) == members(one) & members(other)
    assert members(one | other) == members(one) | members(other)
    if one.contains(other):
        assert members(other) <= members(one)


@given(boxes, boxes)
def test_a_box_is_held_exactly_where_all_its_pairs_are(one, other):
    assert pairs(one).contains(pairs(other)) is (members(pairs(other)) <= members(pairs(one)))


@given(sets, st.frozensets(st.sampled_from(WORLD), min_size=1, max_size=5))
def test_words_meet_pairs_as_what_they_are(allowed, tokens):
    stated = choices(*tokens)
    kept, left = stated & allowed, without(stated, allowed)
    assert (members(kept), members(left)) == (tokens & members(allowed), tokens - members(allowed))
    assert (stated | allowed).contains(stated)
    assert fits(stated, allowed) is is_none(left)
    assert bool(uncovered({"m": stated}, [{"m": allowed}], ["m"])) is not fits(stated, allowed)


@given(boxes.map(pairs))
def test_either_way_round_a_pair_lies_in_a_box(allowed):
    for token in WORLD:
        assert allowed.contains(token) is allowed.contains("+".join(reversed(token.split("+"))))


@given(sets)
def test_everything_and_nothing(one):
    assert (one & ANY, one | NONE, one | ANY) == (one, one, ANY)
    assert (ANY.contains(one), one.contains(NONE), one.contains(ANY)) == (True, True, False)
    assert is_none(one) is not bool(one.boxes or one.tokens)


def test_a_yield_at_the_limit_lies_within_and_one_over_it_does_not():
    allowed = pairs([(GradedEnd(frozenset(("1.2",)), 355 * (1 - 1e-9)), GradedEnd(frozenset(("1.1",)), 235))])
    assert fits(choices("1.2@355+1.1@235"), allowed)
    assert not fits(choices("1.2@356+1.1@235"), allowed)
    assert str(allowed) == "1.2 to 355 + 1.1 to 235"


@pytest.mark.parametrize(
    "text",
    [
        "",
        "1.2",
        "1.2+1.1",
        "1.2@+1.1@235",
        "1.2@high+1.1@235",
        "@355+1.1@235",
        "1@1+2@2+3@3",
        "1@inf+2@9",
        "1@nan+2@9",
        "1@-5+2@9",
    ],
)
def test_what_is_no_pair_lies_nowhere(text):
    assert ends_of(text) is None
    assert not pairs([(GradedEnd(frozenset(), but=True), GradedEnd(frozenset(), but=True))]).contains(text)


def test_all_but_some_words_has_no_common_measure_with_pairs():
    box = pairs([(GradedEnd(frozenset(("1.2",))), GradedEnd(frozenset(("1.1",))))])
    for between in (lambda: box & all_but("1.2@355+1.1@235"), lambda: all_but("1.2@355+1.1@235") | box):
        with pytest.raises(InputError, match="cannot be"):
            between()
