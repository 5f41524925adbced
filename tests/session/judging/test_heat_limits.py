"""How much arc energy the records allow, as lines of the operating window."""

import pytest

from anlage.core.drawing import Path, Text
from anlage.core.drawing.operating_window import HeatLimit
from anlage.session.judging.assessment import Assessor
from anlage.session.judging.heat_limits import heat_limits
from anlage.session.weld.operating_window import boxes, plane_of, window_picture
from anlage.session.weld.picture_sheet import Sheet
from tests.session.judging.test_evidence import demanding, with_impact
from tests.session.judging.test_heat_basis import procedure, record

SHEET = Sheet(150.0, 90.0, "si", lambda text, height: len(text) * height * 0.5)


@pytest.fixture(scope="module")
def wps():
    return demanding(procedure())


@pytest.fixture(scope="module")
def proof(wps):
    return Assessor([("1", with_impact(record()))]).assess(wps)


def test_each_deposit_has_the_limit_of_its_record_and_the_chosen_pass_names_its_own(wps, proof):
    chosen = wps.passes[-1].id
    found = heat_limits(wps, proof, "si", chosen)
    allowed = {
        rung.label: rung.sure.parts[-1].high for rung in proof.judgement.rungs if rung.variable == "heat_input_kj_mm"
    }
    assert {each.label.partition(" ")[0]: each.arc_energy_kj_mm for each in found} == pytest.approx(allowed)
    assert [each.label.partition(" ")[0] for each in found if each.chosen] == ["SMAW"]
    assert all("by OST-R-01" in each.label for each in found)
    assert not any(each.chosen for each in heat_limits(wps, proof, "si"))


def test_where_no_heat_is_limited_there_is_no_line(wps):
    bare = procedure()
    assert heat_limits(bare, Assessor([("1", record())]).assess(bare), "si", bare.passes[0].id) == ()
    assert heat_limits(wps, None, "si") == ()
    assert heat_limits(wps, Assessor([("1", record())]).assess(wps), "si") == (), (
        "without impact results nothing is allowed"
    )


def test_what_lies_under_the_line_is_what_the_record_allows(wps, proof):
    """The slope of the line is the energy: a box under it all over has no corner with more."""
    (limit,) = [each for each in heat_limits(wps, proof, "si", wps.passes[-1].id) if each.chosen]
    plane = plane_of(wps, SHEET)
    items = window_picture(wps, wps.passes[-1].id, plane, SHEET, [limit]).items
    (line,) = [item for item in items if item.role == "limit"]
    speed, power = plane.read(line.points[1])
    assert power * 0.06 / speed == pytest.approx(limit.arc_energy_kj_mm)
    over = [each for each in boxes(wps) if each.arc_energy_kj_mm.high > limit.arc_energy_kj_mm]
    for each in over:
        x, y = plane.at(each.travel_speed_mm_min.low, each.power_w.high)
        assert y / x > line.points[1][1] / line.points[1][0]
    assert [item.text for item in items if isinstance(item, Text)][-1] == limit.label


def test_only_the_limit_of_the_chosen_pass_is_barred_and_named(wps):
    limits = [HeatLimit(1.0, "one", chosen=True), HeatLimit(2.0, "other")]
    items = window_picture(wps, "", plane_of(wps, SHEET), SHEET, limits).items
    roles = [item.role for item in items if isinstance(item, Path)]
    assert (roles.count("limit"), roles.count("limit_other")) == (1, 1)
    assert "limit_bar" in roles
    assert "other" not in [item.text for item in items if isinstance(item, Text)]
