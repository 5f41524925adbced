"""Dials of calibrated machines: between what was read, inward to half a division, and nothing beyond."""

import pytest

from anlage.core.document import read_strict, with_at
from anlage.core.procedure import WPS, with_element
from anlage.core.ranges import Interval
from anlage.data.files import FOLDER
from anlage.session.seam.dials import dial_sentences, dial_steps


def procedure():
    return read_strict((FOLDER / "demo/OST-W-01.json").read_text(encoding="utf-8"), WPS)


def calibrated(*readings):
    wps = procedure()
    for dial, amps in readings:
        wps, _ = with_element(wps, "readings", machine="M4", tap="medium", dial=dial, current_a=amps, meter="K-2",
                              day="2026-03-02")  # fmt: skip
    return wps


def said(wps, current):
    wps = with_at(wps, f"passes/{wps.passes[0].id}/current_a", current)
    return [each.replace("\u2009", " ") for each in dial_sentences(wps, wps.passes[0].id, "si")]


def test_a_dial_between_two_readings_is_in_proportion():
    wps = calibrated((20, 60), (80, 120), (50, 90))
    (step,) = dial_steps(wps, Interval(75, 105))
    assert (step.dial, step.is_whole) == (Interval(35, 65), True)
    assert step.words == "M4 tap medium dial 35..65"
    assert said(wps, (75, 105)) == ["M4 tap medium dial 35..65 (meter K-2, 2026-03-02)."]


@pytest.mark.parametrize(
    ("current", "dial"),
    [((75.3, 104.7), "35.5..64.5"), ((75.0, 75.6), "35..35.5"), ((75.2, 75.4), "no half division gives it")],
)
def test_a_dial_is_rounded_inward_to_half_a_division(current, dial):
    """A setting that is printed gives a current inside what is stated, never outside (common practice, no source)."""
    wps = calibrated((20, 60), (80, 120))
    (text,) = said(wps, current)
    assert dial in text
    (step,) = dial_steps(wps, Interval(*current))
    if step.dial is not None:
        assert current[0] <= 40 + step.dial.low <= 40 + step.dial.high <= current[1]  # this machine: amps = dial + 40


def test_a_dial_that_turns_the_other_way_is_rounded_inward_too():
    wps = calibrated((10, 120), (70, 60))
    (step,) = dial_steps(wps, Interval(75.3, 104.7))
    assert step.dial == Interval(25.5, 54.5)


def test_a_range_that_was_read_in_part_says_which_part():
    wps = calibrated((20, 60), (80, 100))
    (text,) = said(wps, (90, 110))
    assert text.startswith("M4 tap medium dial 65..80 for 90..100 A of it, the rest was not read")


def test_beyond_what_was_read_a_dial_is_unproven():
    wps = calibrated((20, 60), (80, 100))
    assert dial_steps(wps, Interval(100, 130)) == ()
    assert said(wps, (110, 130)) == [
        "No tap was read over the current of this pass: a dial setting is unproven as amps."
    ]
    assert "No machine is calibrated" in said(procedure(), (90, 110))[0]


def test_a_reading_without_dial_or_amps_counts_for_nothing():
    wps, _ = with_element(calibrated((20, 60)), "readings", machine="M4", tap="medium", dial=90)
    (step,) = dial_steps(with_at(wps, "seam/tacks", "4"), Interval(60, 60))
    assert step.dial == Interval(20, 20)
