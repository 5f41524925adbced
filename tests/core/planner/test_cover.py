"""The least cover, against trying every choice."""

from itertools import combinations

import pytest
from hypothesis import given
from hypothesis import strategies as st

from anlage.core.planner import least_cover
from anlage.core.planner.cover import _greedy


def brute(covers, costs):
    """The least cost of any choice that covers what can be covered."""
    asked = set().union(*covers) if covers else set()
    choices = (choice for size in range(len(covers) + 1) for choice in combinations(range(len(covers)), size))
    full = (choice for choice in choices if asked <= set().union(*(covers[each] for each in choice)))
    return min(sum(costs[each] for each in choice) for choice in full)


CASES = st.integers(1, 12).flatmap(
    lambda elements: st.tuples(
        st.lists(st.frozensets(st.integers(0, elements - 1)), min_size=1, max_size=10), st.just(elements)
    )
)


@given(case=CASES, data=st.data())
def test_no_choice_costs_less(case, data):
    covers, elements = case
    costs = data.draw(st.lists(st.integers(1, 9), min_size=len(covers), max_size=len(covers)))
    found = least_cover(covers, costs, elements)
    assert found.cost == pytest.approx(brute(covers, costs))
    assert found.is_optimal
    assert found.gap_percent == 0
    covered = set().union(*(covers[each] for each in found.chosen))
    assert covered == set().union(*covers)
    assert set(found.uncovered) == set(range(elements)) - covered


def test_nothing_to_cover_and_nothing_that_covers():
    assert least_cover([], [], 2).uncovered == (0, 1)
    assert least_cover([frozenset()], [1.0], 1).chosen == ()
    assert least_cover([frozenset((0,))], [1.0], 0).cost in (0.0, 1.0)


def test_without_time_the_best_found_is_told_with_how_far_it_may_be_off():
    """Rows of a plane of order 11: each pair of points on one line; hard enough not to be solved at once."""
    lines = [frozenset((k * x + m) % 31 + 31 * (x % 3) for x in range(31)) for k in range(31) for m in range(31)]
    found = least_cover(lines, [1.0] * len(lines), 93, seconds=0.0)
    covered = set().union(*(lines[each] for each in found.chosen))
    assert covered == set().union(*lines)
    assert found.bound <= found.cost
    assert found.is_optimal or found.gap_percent > 0


def test_the_greedy_way_covers_all():
    covers = [frozenset((0, 1, 2)), frozenset((2, 3)), frozenset((3, 4)), frozenset((4,))]
    chosen = _greedy(covers, [1.0] * 4, range(4), frozenset(range(5)))
    assert set().union(*(covers[each] for each in chosen)) == set(range(5))
