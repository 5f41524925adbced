"""The section over its passes: frames that are kept, places that are read, colours, lines of equal temperature."""

import numpy as np
import pytest

from anlage.core.drawing import Marker, Path, Text
from anlage.core.ranges import Interval
from anlage.session.heat.known_waits import worked_out
from anlage.session.heat.section_frames import (
    MOST,
    Frames,
    Recorder,
    inside,
    isotherm,
    raster,
    sampled,
    strips_of,
)
from anlage.session.heat.section_picture import HOTTEST_C, first_look, section_picture, within
from anlage.session.heat.sequence_words import MOMENT, LookedAt, moment_at, sequence_picture
from anlage.session.weld.picture_sheet import Sheet

SHEET = Sheet(180.0, 70.0, "si", lambda text, height: 0.5 * height * len(text))
LINES = (np.array([0.0, 2.0, 4.0, 6.0]), np.array([0.0, 1.0, 3.0]))
NONE = float("nan")


def field():
    """Three columns of 100, 200, 300 °C; the upper right cell holds no metal."""
    return np.array([[100.0, 100.0], [200.0, 200.0], [300.0, NONE]])


def test_a_place_is_read_between_the_middles_of_cells_and_not_where_there_is_no_metal():
    found = sampled(field(), LINES, [0.5, 2.0, 3.0, 5.9], [0.5, 2.5])
    assert found[:, 0] == pytest.approx([100, 150, 200, 300])
    assert found[:3, 1] == pytest.approx([100, 150, 200])
    assert np.isnan(found[3, 1])


def test_frames_are_read_between_two_times_and_metal_that_comes_later_is_not_there_yet():
    early, late = field(), field() * 2
    late[2, 1] = 700.0
    frames = Frames(LINES, np.array([0.0, 10.0]), np.stack([early, late]).astype(np.float32))
    assert frames.read(5.0, (1.0, 0.5)) == pytest.approx(150)
    assert frames.read(5.0, (5.0, 2.0)) is None
    assert frames.read(10.0, (5.0, 2.0)) == pytest.approx(700)
    assert frames.read(99.0, (1.0, 0.5)) == pytest.approx(200)
    assert [value for pair in frames.over_time((1.0, 0.5)) for value in pair] == pytest.approx([0, 100, 10, 200])
    assert frames.over_time((5.0, 2.0)) == ((10.0, pytest.approx(700.0)),)
    for place in ((2.7, 1.4), (3.9, 0.2), (0.1, 2.9)):
        for time, celsius in frames.over_time(place):
            assert celsius == pytest.approx(frames.read(time, place))


def test_a_long_run_keeps_fewer_frames_evenly():
    recorder = Recorder(LINES)
    assert recorder.frames() is None
    for n in range(5 * MOST + 3):
        recorder.take(float(n), field())
    times = recorder.frames().times
    assert MOST <= len(times) < 2 * MOST
    assert set(np.diff(times[:-1])) == {4.0}
    assert times[-1] == 5 * MOST + 2


def test_strips_cover_the_metal_once_and_no_place_without():
    box = ((0.0, 0.0), (6.0, 3.0))
    places = raster(field(), LINES, box, 0.5)
    strips = list(strips_of(places, box, 0.5, np.array([50.0, 150.0, 250.0])))
    area = sum((each.right - each.left) * (each.top - each.bottom) for each in strips)
    assert area == pytest.approx(np.count_nonzero(~np.isnan(places)) * 0.25)
    assert {each.celsius for each in strips} == {100.0, 200.0, 250.0}
    assert max(each.right for each in strips if each.bottom > 1.0) == pytest.approx(4.0)


def test_a_line_of_one_temperature_lies_where_that_is():
    box = ((0.0, 0.0), (6.0, 1.0))
    places = raster(np.array([[100.0], [200.0], [300.0]]), (LINES[0], np.array([0.0, 1.0])), box, 0.1)
    pieces = list(isotherm(places, box, 0.1, 180.0))
    xs = [x for piece in pieces for x, _ in piece]
    assert len(pieces) == 9
    assert xs == pytest.approx([2.6] * len(xs), abs=1e-6)
    assert not list(isotherm(places, box, 0.1, 500.0))


def test_what_lies_in_an_outline_is_counted_by_crossings():
    corner = ((0.0, 0.0), (2.0, 0.0), (2.0, 1.0), (1.0, 1.0), (1.0, 2.0), (0.0, 2.0))
    found = inside(corner, ((-1, -1), (3, 3)), 0.5, (8, 8))
    assert np.count_nonzero(found) * 0.25 == pytest.approx(3.0)


@pytest.fixture(scope="module")
def waits(pipe):
    return worked_out(pipe)


def texts(picture):
    return [item.text.replace("\u2009", " ") for item in picture.items if isinstance(item, Text)]


def test_the_film_says_what_the_run_said(waits):
    film = waits.film
    for n, each in enumerate(waits.passes):
        if n and each.wait_s.high > 0:
            assert film.frames.read(waits.struck_s[n], film.place_mm) == pytest.approx(each.before_c.high, abs=3.0)
    assert film.frames.end_s == pytest.approx(waits.curve[-1][0])


def test_the_section_is_coloured_and_says_which_moment_it_is(pipe, waits):
    look = first_look(pipe, waits.film)
    last = section_picture(pipe, waits, look, SHEET)
    assert any("after pass 4; colours to 800 °C" in text for text in texts(last))
    heats = [item.heat for item in last.items if isinstance(item, Path) and item.heat is not None]
    assert min(heats) >= 20
    assert max(heats) <= HOTTEST_C
    assert [item.target for item in last.items if isinstance(item, Marker)] == ["probe"]
    waiting = section_picture(pipe, waits, LookedAt(waits.struck_s[1] - 5.0, look.probe_mm), SHEET)
    assert any("waiting before pass 2" in text for text in texts(waiting))
    on_its_way = section_picture(pipe, waits, LookedAt(waits.struck_s[1] + 5.0, look.probe_mm), SHEET)
    assert any("the arc of pass 2 is on its way" in text for text in texts(on_its_way))
    cooled = LookedAt(waits.struck_s[1], look.probe_mm)  # when the place is as hot as may be
    assert "200 °C between passes" in texts(section_picture(pipe, waits, cooled, SHEET))
    first = section_picture(pipe, waits, LookedAt(0.0, (0.0, waits.film.place_mm[1] - 1.0)), SHEET)
    assert "no metal yet" in texts(first)


def test_what_is_over_the_ramp_is_not_claimed(pipe, waits):
    under_arc = next(time for time, celsius in waits.film.frames.over_time((0.0, 1.0)) if celsius > HOTTEST_C)
    said = texts(section_picture(pipe, waits, LookedAt(under_arc, (0.0, 1.0)), SHEET))
    assert "over 800 °C: not predicted" in said


def test_the_curve_has_a_cursor_and_the_probe(pipe, waits):
    look = first_look(pipe, waits.film)
    plain, looked = (sequence_picture(pipe, waits, SHEET, each) for each in (None, look))
    assert [item.target for item in looked.items if isinstance(item, Marker)] == [MOMENT]
    assert not [item for item in plain.items if isinstance(item, Marker)]
    curves = [item for item in looked.items if isinstance(item, Path) and item.role == "curve"]
    assert curves
    top = max(y for item in looked.items if isinstance(item, Path) and item.role == "chosen_at" for _, y in item.points)
    assert all(y <= top + 1e-6 for each in curves for _, y in each.points)
    end = waits.curve[-1][0]
    assert [moment_at(waits, SHEET, x) for x in (-5.0, 73.0, 999.0)] == pytest.approx([0.0, end / 2, end])


def test_a_probe_stays_where_something_is_shown(pipe, waits):
    (x, y) = within(pipe, waits.film, (1e6, -1e6))
    assert Interval(waits.film.place_mm[0], 150.0).low < x <= 150.0
    assert y == pytest.approx(0.0)
