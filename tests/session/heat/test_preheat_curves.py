"""The preheat over thickness and heat input: as the schools ask at each place, where they hold, with true steps."""

from itertools import pairwise

import pytest

from anlage.core.document import read_strict, with_at
from anlage.core.drawing import Marker
from anlage.core.procedure import WPS
from anlage.data.files import FOLDER
from anlage.session.heat.preheat import preheat_view
from anlage.session.heat.preheat_curves import preheat_curves, schools_over
from anlage.session.heat.scales import degrees_more, degrees_span, in_celsius, in_reader
from anlage.session.leaves.text import with_text
from anlage.session.weld.picture_sheet import Sheet

SHEET = Sheet(100.0, 60.0, "si", lambda text, height: 0.5 * height * len(text))


@pytest.fixture(scope="module")
def shell():
    return read_strict((FOLDER / "demo" / "OST-W-01.json").read_text(), WPS, where="demo")


def held(wps, over):
    return dict(schools_over(wps, over))


@pytest.mark.parametrize("thickness_mm", [8.0, 25.0, 45.0])
def test_a_curve_says_what_the_procedure_would_be_asked_at_that_thickness(shell, thickness_mm):
    other = with_at(shell, "joint/thickness_mm", thickness_mm)
    asks = {each.id: each.high_c for each in preheat_view(other).asks if each.within and each.kind == "school"}
    for own, points in held(other, "length").items():
        assert dict(points).get(thickness_mm) == (max(asks[own], 0.0) if own in asks else None)


def test_a_school_is_drawn_only_where_it_holds(shell):
    heats = [x for x, _ in held(shell, "heat_input")["en1011_2_cet"]]
    assert 0.5 <= min(heats) <= max(heats) <= 4
    assert "ito_bessyo" not in held(shell, "heat_input"), "18 mm is under what it was made for"
    ito = held(with_at(shell, "joint/thickness_mm", 25.0), "heat_input")
    assert "ito_bessyo" in ito


def test_a_table_steps_where_it_steps(shell):
    points = held(shell, "length")["aws_d1_1_hydrogen_control"]
    steps = [(x1, x2) for (x1, y1), (x2, y2) in pairwise(points) if y1 != y2]
    assert steps
    assert all(x2 - x1 < 1e-3 for x1, x2 in steps)


def test_less_heat_asks_for_more(shell):
    asked = [y for _, y in held(shell, "heat_input")["en1011_2_cet"]]
    assert asked == sorted(asked, reverse=True)
    assert asked[0] > asked[-1]


def test_no_mark_where_a_curve_does_not_reach(shell):
    curves, picture = held(shell, "heat_input"), preheat_curves(shell, "heat_input", SHEET)
    marks = [item for item in picture.items if isinstance(item, Marker)]
    assert len(marks) == len(curves)  # the chosen line has one, method B none


@pytest.mark.parametrize("change", [("metals/one/name", "A240-316L"), ("joint/thickness_mm", "")])
def test_nothing_is_drawn_of_what_is_not_asked(shell, change):
    bare = with_at(shell, "metals/one/certificate", None)
    assert preheat_curves(with_text(bare, *change, "si"), "length", SHEET) is None


def test_no_heat_no_curve_over_it(shell):
    assert schools_over(with_at(shell, "passes", ()), "heat_input") == ()


@pytest.mark.parametrize(("celsius", "fahrenheit"), [(0.0, 32.0), (100.0, 212.0), (-40.0, -40.0)])
def test_scales(celsius, fahrenheit):
    assert in_reader(celsius, "us") == fahrenheit
    assert in_celsius(fahrenheit, "us") == celsius
    assert in_celsius(celsius, "si") == celsius == in_reader(celsius, "si")
    assert degrees_span((celsius, celsius), "us") == f"{fahrenheit:.0f} °F"


def test_a_difference_is_not_a_temperature():
    assert (degrees_more(50.0, "si"), degrees_more(50.0, "us")) == ("50 K", "90 °F")
    assert degrees_span((250.0, 315.0), "si") == "250 to 315 °C"
