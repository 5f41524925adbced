"""Waits of an open procedure: what must be stated, what comes out, how it moves with heat, piece and limit."""

import numpy as np
import pytest
from msgspec.structs import replace

from anlage.core.document import read_strict, with_at
from anlage.core.procedure import WPS
from anlage.core.ranges import Interval
from anlage.data.files import FOLDER
from anlage.session.heat import section_runs
from anlage.session.heat.known_waits import known_waits, worked_out
from anlage.session.heat.measured import measuring_mm
from anlage.session.heat.purge_picture import purge_picture
from anlage.session.heat.purging import purge_plan
from anlage.session.heat.section_of import section_case
from anlage.session.heat.sequence import GIVEN_UP, asked_of, waits_of
from anlage.session.heat.sequence_words import (
    headline,
    minutes,
    pass_rows,
    sequence_picture,
    stated_sentences,
    wait_sentences,
)
from anlage.session.leaves.text import with_text
from anlage.session.weld.picture_sheet import Sheet

SHEET = Sheet(160.0, 90.0, "si", lambda text, height: 0.5 * height * len(text))


@pytest.fixture(scope="module")
def waits(pipe):
    return waits_of(pipe)


def test_what_is_missing_is_said_before_anything_is_run(pipe):
    bare = with_at(pipe, "piece/half_width_mm", None)
    assert [path for path, _ in asked_of(bare).missing] == ["piece/half_width_mm"]
    slow = with_at(pipe, f"passes/{pipe.passes[1].id}/travel_speed_mm_min", None)
    assert asked_of(slow).missing[0][1] == "current, volts and speed of pass 2"
    no_limit = with_at(pipe, "preheat/interpass_maximum_c", None)
    assert "preheat/interpass_maximum_c" in [path for path, _ in asked_of(no_limit).missing]
    node = read_strict((FOLDER / "demo" / "OST-W-03.json").read_text(), WPS, where="demo")
    assert any("butt joint" in what for _, what in asked_of(node).missing)
    assert not asked_of(pipe).missing


def test_waits_are_ranges_and_no_pass_starts_too_hot(pipe, waits):
    assert [each.number for each in waits.passes] == [1, 2, 3, 4]
    assert waits.passes[0].wait_s == Interval(0, 0)
    for each in waits.passes[1:]:
        assert each.wait_s.low <= each.wait_s.high
        assert each.before_c.high <= pipe.preheat.interpass_maximum_c + 0.5
    assert waits.total_s.low < waits.total_s.high
    assert any("not predicted" in sentence for sentence in waits.minding)
    assert any("150 mm from the weld" in sentence for sentence in stated_sentences(waits, "si"))
    told = " ".join(stated_sentences(waits, "us"))
    assert "Piece 5.9 in from the weld" in told
    assert "Air 68 °F" in told
    assert "mm" not in told


def test_a_lower_limit_and_a_smaller_piece_take_longer(pipe, waits):
    cooler = waits_of(with_at(pipe, "preheat/interpass_maximum_c", 150.0))
    smaller = waits_of(with_at(pipe, "piece/half_width_mm", 60.0))
    longest = [sum(each.wait_s.high for each in found.passes) for found in (waits, cooler, smaller)]
    assert longest[0] < longest[1]
    assert longest[0] < longest[2]


def test_a_long_seam_cools_under_the_least_before_its_arc_comes(pipe, waits):
    """The hottest place is read when the arc is struck; the arc comes there a whole lap later."""
    assert all(each.reached_c.high <= each.before_c.high + 0.5 for each in waits.passes)
    assert waits.passes[1].reached_c.high < waits.passes[1].before_c.low
    assert waits.cold == ()
    assert "Heat again" not in headline(waits)
    warm = waits_of(with_at(pipe, "preheat/minimum_c", 150.0))
    assert warm.cold == tuple(each.number for each in warm.passes if each.reached_c.low < 149.5) != ()
    assert headline(warm).endswith("Heat again ahead of the arc of pass 2, 4.")


def test_a_limit_that_is_never_reached_has_no_number(pipe):
    found = waits_of(with_at(pipe, "preheat/interpass_maximum_c", 20.0))
    assert found.passes[-1].wait_s is None
    assert found.total_s is None
    assert "No number" in headline(found) or "Wait" in headline(found)
    assert any("24 hours" in sentence for sentence in found.minding)


def test_a_run_can_be_given_up(pipe):
    assert waits_of(pipe, lambda _share: False) == "Given up."


def test_a_place_beyond_the_piece_is_said_and_not_run(pipe):
    found = waits_of(with_at(pipe, "piece/half_width_mm", 20.0))
    assert "ends before the place that is read" in found


def test_the_case_is_the_joint_with_its_beads(pipe):
    long, short = section_case(pipe, "long"), section_case(pipe, "short")
    assert len(long.sources) == 4
    assert all(a.heat_j_mm > b.heat_j_mm for a, b in zip(long.sources, short.sources, strict=True))
    assert long.seam.closed
    assert long.pipe.od_mm == 141.3
    assert max(y for area in long.areas for y, _ in area.outline_mm) == 150.0
    assert measuring_mm(pipe) == pytest.approx(26.2)
    assert measuring_mm(with_at(pipe, "joint/thickness_mm", 60.0)) == 75


def test_the_words_and_the_curve(waits, pipe):
    assert headline(waits).startswith("Wait up to")
    assert "longest" in headline(waits)
    assert minutes(Interval(30, 90)) == "0.5 to 1.5 min"
    assert minutes(Interval(600, 1200)) == "10 to 20 min"
    assert minutes(Interval(7200, 10800)) == "2.0 to 3.0 h"
    assert pass_rows(waits, "us")[0][:4] == ("1", "none", "68 °F", "68 °F")
    low, high = (float(each) for each in pass_rows(waits, "us")[0][4].removesuffix(" °F").split(" to "))
    assert 250 < low < high < 550  # the peak, 26 mm from the groove of a wall of 6.55 mm
    assert sequence_picture(pipe, waits, SHEET).items


# Purging ------------------------------------------------------------------------------------------------------------


def test_a_purge_is_planned_once_space_flow_and_target_are_stated(pipe):
    bare = purge_plan(pipe)
    assert [path for path, _ in bare.missing] == ["purge/length_mm", "purge/flow_l_min", "purge/target_ppm"]
    assert purge_picture(pipe, SHEET) is None
    full = pipe
    for path, text in (("purge/length_mm", "400"), ("purge/flow_l_min", "10..12"), ("purge/target_ppm", "50")):
        full = with_text(full, path, text, "si")
    lines = {line.name: line for line in purge_plan(full).lines}
    assert lines["Before the root"].text == "4.4 to 8.7 min"
    assert "18,601 ppm" in lines["By the rule of thumb"].note
    assert "never call it ready" in lines["By the rule of thumb"].note
    mixed = {line.name: line for line in purge_plan(with_text(full, "purge/mixing", "1", "si")).lines}
    assert mixed["Before the root"].text == "4.4 min"  # only where somebody states how well it mixes
    assert any("nobody enters" in caution for caution in purge_plan(full).cautions)
    assert purge_picture(full, SHEET).items
    impossible = with_text(full, "purge/target_ppm", "3", "si")
    assert "never reached" in purge_plan(impossible).lines[-1].note
    assert purge_picture(impossible, SHEET) is None


@pytest.mark.parametrize(
    ("metal", "words"),
    [("A240-316L", "50 to 100 ppm"), ("B265-GR2", "20 to 50 ppm"), ("A335-P22", "chromium"), ("A106-B", "no purge")],
)
def test_which_roots_want_a_purge(pipe, metal, words):
    assert words in purge_plan(with_at(pipe, "metals/one/name", metal)).needed


def test_what_was_worked_out_is_given_again_until_something_of_it_changes(pipe):
    first = worked_out(pipe)
    renamed = with_text(pipe, "header/title", "Another title", "si")
    assert known_waits(renamed) is first
    assert worked_out(renamed) is first
    for path, text in (("piece/half_width_mm", "149"), (f"passes/{pipe.passes[1].id}/current_a", "91"),
                       ("preheat/interpass_maximum_c", "190")):  # fmt: skip
        assert known_waits(with_text(pipe, path, text, "si")) is None, path
    assert worked_out(with_text(pipe, "piece/half_width_mm", "", "si")) is None


def test_a_run_that_was_given_up_is_not_kept(pipe):
    other = with_text(pipe, "piece/half_width_mm", "147", "si")
    assert worked_out(other, goes_on=lambda _share: False) == GIVEN_UP
    assert known_waits(other) is None


def test_the_floor_is_told_every_wait(waits):
    said = wait_sentences(waits)
    assert said[0].startswith("Wait before pass 2 up to")
    assert said[0].count("before pass") == sum(each.wait_s.high >= 30 for each in waits.passes)
    assert said[-1].startswith("First arc to last")
    quick = replace(waits, passes=tuple(replace(each, wait_s=Interval(0, 1)) for each in waits.passes))
    assert wait_sentences(quick)[0] == "No waiting: the stop is enough before every pass."
    never = replace(waits, passes=(*waits.passes[:2], replace(waits.passes[2], wait_s=None)), cold=(2, 3), total_s=None)
    assert wait_sentences(never)[1:] == (
        "No number from pass 3 on.",
        "Heat again ahead of the arc of pass 2 to 3: it comes to metal below the least.",
    )
    assert (never.waited_s, waits.waited_s.high) == (None, sum(each.wait_s.high for each in waits.passes))


def test_an_edit_of_a_late_pass_starts_there_and_says_what_a_whole_run_says(pipe):
    """What is taken up from the last run and what is run anew come to the same waits, curve and film."""
    shares: list[float] = []
    section_runs._last.clear()
    waits_of(pipe, lambda share: shares.append(share) or True)
    late = with_text(pipe, f"passes/{pipe.passes[3].id}/travel_speed_mm_min", "52..64", "si")
    taken_up: list[float] = []
    quick = waits_of(late, lambda share: taken_up.append(share) or True)
    assert len(taken_up) < 0.5 * len(shares)
    assert taken_up[0] >= 0.3
    assert max(shares) <= 1.0
    assert shares == sorted(shares)
    section_runs._last.clear()
    whole = waits_of(late)
    for one, other in zip(quick.passes, whole.passes, strict=True):
        for name in ("wait_s", "before_c", "reached_c", "peak_c"):
            ends = [(getattr(each, name).low, getattr(each, name).high) for each in (one, other)]
            assert ends[0] == pytest.approx(ends[1], rel=1e-9)
    assert quick.total_s.high == pytest.approx(whole.total_s.high, rel=1e-9)
    assert quick.film.frames.times == pytest.approx(whole.film.frames.times)
    assert np.allclose(quick.film.frames.fields, whole.film.frames.fields, rtol=1e-5, equal_nan=True)


def test_another_piece_is_run_from_the_start(pipe):
    waits_of(pipe)
    taken: list[float] = []
    waits_of(with_text(pipe, "piece/half_width_mm", "160", "si"), lambda share: taken.append(share) or True)
    assert taken[0] == 0.0
