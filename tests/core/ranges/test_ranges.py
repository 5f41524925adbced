"""The algebra of sets is exact: it agrees with membership, point by point, and obeys the laws of sets."""

import math
from itertools import combinations

import pytest
from hypothesis import given
from hypothesis import strategies as st

from anlage.core.errors import InputError
from anlage.core.ranges import (
    ANY,
    NONE,
    Choices,
    Interval,
    Numbers,
    all_but,
    between,
    choices,
    fits,
    is_any,
    is_none,
    loosened,
    numbers,
    over_corners,
    uncovered,
)
from tests.strategies import choice_sets, intervals, number_sets, probes, same_kind, words


def members(value):
    pool = words if isinstance(value, Choices) else probes
    return {probe for probe in pool if value.contains(probe)}


@given(number_sets, number_sets)
def test_and_or_not_of_numbers_agree_with_membership(a, b):
    assert members(a & b) == members(a) & members(b)
    assert members(a | b) == members(a) | members(b)
    assert members(~a) == set(probes) - members(a)


@given(choice_sets, choice_sets)
def test_and_or_not_of_choices_agree_with_membership(a, b):
    assert members(a & b) == members(a) & members(b)
    assert members(a | b) == members(a) | members(b)
    assert members(~a) == set(words) - members(a)


@given(same_kind)
def test_sets_obey_the_laws_of_sets(three):
    a, b, c = three
    assert is_none(a & ~a)
    assert is_any(a | ~a)
    assert ~(~a) == a or (is_any(a) and is_any(~(~a))) or (is_none(a) and is_none(~(~a)))
    assert (a & (b | c)).contains((a & b) | (a & c))
    assert ((a & b) | (a & c)).contains(a & (b | c))
    assert (~(a & b)).contains(~a | ~b)


@given(same_kind)
def test_containing_means_that_nothing_of_the_other_lies_outside(three):
    a, b, _ = three
    assert a.contains(b) == is_none(b & ~a)


@given(st.lists(intervals(), max_size=5))
def test_intervals_in_any_order_make_one_canonical_set(parts):
    made = numbers(parts)
    assert made == numbers(reversed(parts))
    assert all(not (left.high > right.low) for left, right in zip(made.parts, made.parts[1:], strict=False))
    assert members(made) == {probe for probe in probes if any(part.contains(probe) for part in parts)}


@given(number_sets, number_sets)
def test_a_gap_is_zero_exactly_when_the_stated_set_is_inside(allowed, stated):
    if stated.parts and allowed.parts:
        gap = allowed.gap_to(stated)
        if allowed.contains(stated):
            assert gap == 0
        else:  # None: no distance leads there; 0: only an excluded end is stated
            assert gap is None or gap != 0 or loosened_touches(allowed, stated)


def loosened_touches(allowed, stated):
    closed = numbers(Interval(p.low, p.high) for p in allowed.parts)
    return not closed.contains(stated) or closed.contains(stated & ~allowed)


@pytest.mark.parametrize(
    ("stated", "gap"),
    [(between(3, 8), 0), (between(1, 8), 1), (between(3, 13), -3), (between(0.5, 11), 1.5), (between(3, None), None)],
)
def test_a_gap_says_how_far_and_which_way_to_move(stated, gap):
    assert between(2, 10).gap_to(stated) == gap


def test_there_is_no_distance_between_words():
    assert choices("a").gap_to(choices("b")) is None
    assert choices("a").gap_to(choices("a")) == 0


@pytest.mark.parametrize(("low", "high"), [(44, 5), (math.nan, 1), (1, math.nan), (math.inf, math.inf)])
def test_an_interval_that_holds_nothing_is_refused(low, high):
    with pytest.raises(InputError, match="range: "):
        Interval(low, high)


def test_a_reversed_interval_says_swap_the_ends():
    with pytest.raises(InputError, match=r"^range: 44 to 5 holds nothing; swap the ends$"):
        Interval(44, 5)


def test_an_open_single_value_is_refused():
    with pytest.raises(InputError, match="close the end"):
        Interval(5, 5, low_open=True)


def test_numbers_and_words_cannot_be_compared():
    with pytest.raises(InputError, match="numbers and words"):
        _ = between(1, 2) & choices("a")
    assert between(1, 2) & ANY == between(1, 2)
    assert choices("a") & NONE == NONE


def test_the_tolerance_reaches_past_closed_ends_only():
    limit = 1.1 * 13
    assert fits(between(5, 14.3), between(5, limit))
    assert fits(between(5, limit * (1 + 9e-7)), between(5, limit))
    assert not fits(between(5, limit * (1 + 2e-6)), between(5, limit))
    assert fits(between(4.999999, 9), between(5, 9))
    assert not fits(between(0, 5), between(0, None, low_open=True))
    assert not fits(between(5, 9), between(5.000001, 9, low_open=True))
    assert loosened(choices("a")) == choices("a")


def test_sets_are_read_aloud():
    assert str(numbers([Interval(0, 5, low_open=True), Interval(8, math.inf)])) == "(0, 5] or [8, inf)"
    assert str(all_but("uphill")) == "all but uphill"
    assert (str(ANY), str(NONE), str(Numbers(()))) == ("any", "none", "none")


# Products ------------------------------------------------------------------------------------

AXES = ("t", "d", "p")
boxes = st.fixed_dictionaries({"t": number_sets, "d": number_sets, "p": choice_sets})
points = [(t, d, p) for t in probes[::3] for d in probes[::3] for p in words[::2]]


def holds(box, point):
    return all(box[axis].contains(value) for axis, value in zip(AXES, point, strict=True))


@given(boxes, st.lists(boxes, max_size=3))
def test_what_is_uncovered_agrees_with_membership_point_by_point(target, covers):
    rest = uncovered(target, covers, AXES)
    for point in points:
        if any(abs(abs(value) - round(abs(value))) > 0 for value in point[:2]):  # off the grid: no tolerance in play
            left = holds(target, point) and not any(holds(cover, point) for cover in covers)
            assert left == any(holds(piece, point) for piece in rest)


@given(boxes, st.lists(boxes, max_size=3))
def test_what_is_uncovered_comes_in_pieces_that_do_not_overlap(target, covers):
    for one, two in combinations(uncovered(target, covers, AXES), 2):
        assert any(is_none(one[axis] & two[axis]) for axis in AXES)


@given(boxes, st.lists(boxes, max_size=3), boxes)
def test_another_box_never_uncovers(target, covers, more):
    if not uncovered(target, covers, AXES):
        assert not uncovered(target, [*covers, more], AXES)


def test_two_boxes_that_meet_cover_together_and_a_gap_between_them_shows():
    thin, thick = {"t": between(5, 20)}, {"t": between(20, 40)}
    assert not uncovered({"t": between(6, 30)}, [thin, thick], ["t"])
    (gap,) = uncovered({"t": between(6, 30)}, [thin, {"t": between(21, 40)}], ["t"])
    assert gap["t"].contains(20.5)


def test_a_corner_that_no_box_holds_is_not_covered():
    first, second = {"t": between(5, 20), "d": between(0, 5)}, {"t": between(5, 40), "d": between(0, 3)}
    assert uncovered({"t": between(5, 40), "d": between(0, 5)}, [first, second], ["t", "d"])


def test_an_unlimited_variable_of_a_box_covers_all_of_it():
    assert not uncovered({"t": between(1, 9), "p": choices("a")}, [{"t": between(0, 10)}], ["t", "p"])


def test_a_formula_over_ranges_gives_the_extremes_of_its_corners():
    found = over_corners(lambda a, b: {"ratio": a / b, "none": None}, {"a": Interval(2, 3), "b": Interval(4, 8)})
    assert found == {"ratio": Interval(0.25, 0.75), "none": None}
