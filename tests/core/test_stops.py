"""Starts and stops: no run longer than its electrode, none where a rule forbids, staggered between passes."""

from itertools import pairwise

import pytest
from hypothesis import given
from hypothesis import strategies as st

from anlage.core.errors import InputError
from anlage.core.stops import DOWNHILL_ARCS, Barred, Rules, barred_on, halves, share_of, stops_along


def test_an_endless_filler_has_no_stop():
    assert stops_along(600, None).at_mm == stops_along(100, 120).at_mm == ()


def test_stops_are_as_few_and_as_even_as_they_can_be():
    assert stops_along(400, 100).at_mm == pytest.approx((100, 200, 300))
    assert stops_along(401, 100).at_mm == pytest.approx((80.2, 160.4, 240.6, 320.8))


def test_no_stop_lies_in_a_barred_stretch():
    found = stops_along(400, 150, Rules(barred=(Barred(120, 210, "3 to 5 o'clock"),)))
    assert found.problem == ""
    assert not any(120 < at < 210 for at in found.at_mm)


def test_a_barred_stretch_longer_than_an_electrode_is_told():
    found = stops_along(400, 80, Rules(barred=(Barred(120, 210, "3 to 5 o'clock"),)))
    assert found.problem == "one electrode lays 80 mm, 3 to 5 o'clock is 90 mm"


def test_stops_keep_away_from_those_of_the_pass_below():
    below = stops_along(400, 150).at_mm
    found = stops_along(400, 150, Rules(before=below, stagger_mm=25))
    assert found.problem == ""
    assert min(abs(a - b) for a in found.at_mm for b in below) >= 25 - 1e-6


def test_when_nothing_is_far_enough_the_plan_says_so_and_stops_all_the_same():
    found = stops_along(100, 50.5, Rules(before=(50,), stagger_mm=40))
    assert found.problem == "no place is 40 mm from the stops below"
    assert len(found.at_mm) == 1


def test_marks_are_kept_and_the_way_between_them_is_shared_out_by_the_same_rules():
    rules = Rules(barred=(Barred(120, 210, "3 to 5 o'clock"),), marks=(60.0, 260.0, 900.0))
    found = stops_along(400, 110, rules)
    assert {60.0, 260.0} <= set(found.at_mm)
    assert found.problem == ""
    assert not any(120 < at < 210 for at in found.at_mm)
    assert max(end - start for start, end in found.runs(400)) <= 110


def test_a_mark_in_a_barred_stretch_is_kept_and_told():
    found = stops_along(400, None, Rules(barred=(Barred(120, 210, "the stretch"),), marks=(150.0,)))
    assert (found.at_mm, found.problem) == ((150.0,), "a marked stop lies in the stretch")


def test_a_place_on_the_clock_lies_on_one_half_alone():
    for progression in ("uphill", "downhill"):
        for place in (30.0, 135.0, 200.0, 300.0):
            shares = [share for half in halves(progression) if (share := share_of(half, place)) is not None]
            assert len(shares) == 1
    assert share_of(halves("uphill")[0], 135.0) == pytest.approx(0.25)


def test_what_is_no_length_is_refused():
    with pytest.raises(InputError, match="length"):
        stops_along(0, 100)


@given(st.floats(50, 2000), st.floats(40, 400), st.lists(st.tuples(st.floats(0, 1), st.floats(0.01, 0.1)), max_size=3),
       st.floats(0, 30))  # fmt: skip
def test_any_plan_keeps_its_rules_or_names_the_one_it_cannot(length, reach, bars, stagger):
    barred = tuple(Barred(at * length, min((at + wide) * length, length), "x") for at, wide in bars)
    below = stops_along(length, reach).at_mm
    found = stops_along(length, reach, Rules(barred, below, stagger))
    runs = found.runs(length)
    assert all(one[1] == other[0] for one, other in pairwise(runs))
    assert all(0 < end - start <= reach + 1e-6 for start, end in runs)
    if not found.problem:
        assert not any(b.start_mm + 1e-6 < at < b.end_mm - 1e-6 for at in found.at_mm for b in barred)
        assert all(abs(at - s) >= stagger - 1e-6 for at in found.at_mm for s in below)


def test_halves_go_uphill_from_the_bottom_and_downhill_from_the_top():
    up, down = halves("uphill")[0], halves("downhill")[1]
    assert (up.at(0), up.at(0.5), up.at(1)) == (180, 90, 0)
    assert (down.at(0), down.at(0.5), down.at(1)) == (360, 270, 180)


def test_the_barred_arcs_of_downhill_lie_on_both_halves():
    """None between 3 and 5 o'clock downhill, nor on the other side (common practice, no source)."""
    right, left = halves("downhill")
    for half in (right, left):
        (one,) = barred_on(half, 600, DOWNHILL_ARCS, "3 to 5 o'clock")
        assert (one.start_mm, one.end_mm) == pytest.approx((300, 500))
