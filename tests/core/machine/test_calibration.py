"""What the readings of a machine prove on a day, and where it is set: every way in which they may prove nothing."""

from itertools import pairwise

import pytest
from hypothesis import given
from hypothesis import strategies as st

from anlage.core.document import read_mending, read_strict, with_at, write
from anlage.core.errors import InputError
from anlage.core.machine import MACHINE, Calibrated, Machine, dial_steps, folded, with_reading, without_reading
from anlage.core.ranges import Interval

TODAY = "2026-11-23"
WHOLE = {"tap": "B", "meter": "K-2", "day": "2026-10-05"}


def machine(*rows, number="M-1", **stated):
    """A machine with a reading of each dial and current; `stated` is said of every one."""
    found = with_at(Machine(), "header/number", number)
    for dial, amps in rows:
        found, _ = with_reading(found, **{**WHOLE, "dial": dial, "current_a": amps, **stated})
    return found


def taps(*machines, today=TODAY, months=12):
    return Calibrated(machines=machines, today=today, months=months).taps()


def test_readings_that_are_whole_and_in_date_prove_a_current():
    (tap,) = taps(machine((3, 71), (7, 116), (5, 92)))
    assert tap.why_not == ""
    assert [each[:2] for each in tap.points] == [(3, 71), (5, 92), (7, 116)], "by the dial, however they were typed"
    assert (tap.day, tap.until.isoformat(), tap.meters) == ("2026-10-05", "2027-10-05", ("K-2",))


@pytest.mark.parametrize(
    ("rows", "stated", "why"),
    [
        (((3, 71), (5, 92)), {"day": "2025-11-22"}, "read last on 2025-11-22, out of date since 2026-11-22"),
        (((3, 71), (5, 92)), {"day": "2026-11-24"}, "its last reading, of 2026-11-24, lies ahead"),
        (((3, 71), (5, 92)), {"day": None}, "no reading says dial, amps, meter and day"),
        (((3, 71), (5, 92)), {"meter": None}, "no reading says dial, amps, meter and day"),
        (((3, 71), (5, 92)), {"meter": ""}, "no reading says dial, amps, meter and day"),
        (((3, None), (None, 92)), {}, "no reading says dial, amps, meter and day"),
        (((3, 71), (3, 92)), {}, "dial 3 was read as 71 A and as 92 A"),
        (((3, 71), (5, 71)), {}, "dial 3 and 5 were both read as 71 A"),
        (((2, 104), (4, 128), (6, 115)), {}, "its current neither rises nor falls all along the dial"),
    ],
)
def test_what_is_left_out_or_typed_wrongly_proves_nothing_and_says_why(rows, stated, why):
    found = machine(*rows, **stated)
    (tap,) = taps(found)
    assert tap.why_not.startswith(why)
    assert dial_steps((tap,), Interval(75, 85)) == ()


@pytest.mark.parametrize("day", ["2025-11-23", TODAY])
def test_the_first_and_the_last_day_in_date_are_in_date(day):
    (tap,) = taps(machine((3, 71), (5, 92), day=day))
    assert tap.why_not == ""


def test_the_months_that_a_calibration_holds_are_a_setting():
    found = machine((3, 71), (5, 92))
    assert taps(found, today="2027-01-05", months=3)[0].why_not == ""
    assert taps(found, today="2027-01-06", months=3)[0].why_not.endswith("out of date since 2027-01-05")


def test_only_the_readings_of_the_last_day_count_together():
    """In between the machine may have been mended: a tap's old points and its new ones are no one curve."""
    found = machine((2, 60), (8, 150))
    found, _ = with_reading(found, **{**WHOLE, "dial": 3, "current_a": 90, "day": "2026-11-02"})
    found, _ = with_reading(found, **{**WHOLE, "dial": 6, "current_a": 140, "day": "2026-11-02"})
    (tap,) = taps(found)
    assert [each[:2] for each in tap.points] == [(3, 90), (6, 140)]
    assert tap.set_aside == 2


def test_an_unfinished_reading_beside_whole_ones_is_counted_and_left_out():
    found, _ = with_reading(machine((3, 71), (5, 92)), tap="B", dial=9)
    (tap,) = taps(found)
    assert (len(tap.points), tap.unfinished, tap.why_not) == (2, 1, "")


def test_other_leads_are_another_tap():
    found = machine((3, 71), (5, 92), lead_m=15)
    for dial, amps in ((3, 66), (5, 84)):
        found, _ = with_reading(found, **WHOLE, dial=dial, current_a=amps, lead_m=40)
    assert [(each.lead_m, each.why_not) for each in taps(found)] == [(15, ""), (40, "")]


def test_a_dial_lies_between_two_readings_in_proportion_and_inward_to_half_a_division():
    (step,) = dial_steps(taps(machine((20, 60), (80, 120), (50, 90))), Interval(75.3, 104.7))
    assert (step.dial, step.is_whole, step.dial_text) == (Interval(35.5, 64.5), True, "35.5..64.5")


def test_a_dial_that_turns_the_other_way_is_rounded_inward_too():
    (step,) = dial_steps(taps(machine((10, 120), (70, 60))), Interval(75.3, 104.7))
    assert step.dial == Interval(25.5, 54.5)


def test_where_no_half_division_gives_it_none_is_said():
    (step,) = dial_steps(taps(machine((20, 60), (80, 120))), Interval(75.2, 75.4))
    assert (step.dial, step.dial_text) == (None, "")


@pytest.mark.parametrize(
    ("wanted", "covered"),
    [((90, 110), (90, 100)), ((50, 70), (60, 70)), ((100, 130), None), ((10, 60), None), ((60, 60), (60, 60))],
)
def test_beyond_what_was_read_nothing_is_said(wanted, covered):
    steps = dial_steps(taps(machine((20, 60), (80, 100))), Interval(*wanted))
    assert [(each.covered_a, each.is_whole) for each in steps] == (
        [(Interval(*covered), covered == wanted)] if covered else []
    )


ROWS = st.lists(st.tuples(st.integers(0, 40), st.floats(20, 400)), min_size=1, max_size=6, unique_by=lambda row: row[0])


@given(ROWS, st.floats(10, 450), st.floats(0, 80))
def test_a_dial_that_is_printed_gives_a_current_inside_what_is_wanted(rows, low, width):
    """Whatever was read, both ends of the dial give, between its neighbours, a current that was asked for."""
    rows = [(dial / 2, amps) for dial, amps in rows]
    for step in dial_steps(taps(machine(*rows)), Interval(low, low + width)):
        for end in (step.dial.low, step.dial.high) if step.dial else ():
            assert end * 2 == int(end * 2)
            amps = _current(sorted(rows), end)
            assert low - 1e-6 <= amps <= low + width + 1e-6


def _current(rows, dial):
    for (x1, y1), (x2, y2) in pairwise(rows):
        if x1 <= dial <= x2:
            return y1 + (y2 - y1) * (dial - x1) / (x2 - x1)
    return rows[0][1]


def test_numbers_of_machines_are_compared_without_case_and_blanks():
    works = Calibrated(machines=(machine((3, 71), number="Set 4"),), today=TODAY)
    assert works.knows("set4")
    assert folded("OST-M-01 ") == "ost-m-01"
    assert works.taps("SET 4")
    assert not works.taps("Set 5")


@pytest.mark.parametrize("day", ["2026-02-30", "2026-13-01", "26-01-01", "2026-W01-1", "yesterday"])
def test_a_day_that_no_calendar_has_is_refused(day):
    with pytest.raises(InputError, match=r"write (it|the day) as 2026-04-14"):
        with_reading(Machine(), day=day)


def test_a_machine_is_written_and_read_again_and_a_row_is_taken_out():
    found = machine((3, 71), (5, 92), lead_m=15)
    text = write(found)
    assert read_strict(text, MACHINE) == found
    assert read_mending(text.replace('"id": "r2"', '"id": "r1"'), MACHINE)[1], "an id that comes twice is told"
    assert [each.id for each in without_reading(found, "r1").readings] == ["r2"]
    assert without_reading(found, "r9") is found
