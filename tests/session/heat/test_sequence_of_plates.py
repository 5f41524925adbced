"""Waits of tees, corners and laps: where they are read, which faces no heat crosses, which side a pass is read on."""

import pytest

from anlage.core.procedure import Wps, with_deposit, with_pass
from anlage.session.heat.reading_place import holds
from anlage.session.heat.section_of import section_case, touching
from anlage.session.heat.sequence import OTHER_PLACE, PLACE, asked_of, waits_of
from anlage.session.leaves.text import with_text
from anlage.session.weld.beads import joint_shape

SQUARE = ((0.0, 0.0), (4.0, 0.0), (4.0, 2.0), (0.0, 2.0))


def plates(kind, passes=3, **more):
    leaves = {
        "metals/one/name": "A572-50", "joint/product": "plate", "joint/thickness_mm": "12",
        "joint/other_thickness_mm": "16", "joint/leg_mm": "10", "preheat/minimum_c": "20",
        "preheat/interpass_maximum_c": "150", "piece/half_width_mm": "90", "piece/beyond_mm": "0",
        "joint/seam_length_mm": "300",
    }  # fmt: skip
    wps = with_text(Wps(), "joint/kind", kind, "si")
    for path, text in (leaves | {name.replace("__", "/"): text for name, text in more.items()}).items():
        wps = with_text(wps, path, text, "si")
    wps, deposit = with_deposit(wps, process="FCAW", filler="E71T-1", filler_diameter_mm=(1.2, 1.2))
    for n in range(passes):
        wps, _ = with_pass(
            wps, deposit, role="fill", side="second" if n >= 3 else "first", current_a=(240, 260), voltage_v=(26, 28),
            travel_speed_mm_min=(280, 320),
        )  # fmt: skip
    return wps


def is_on_a_face(wps, point):
    outlines = [area.outline_mm for area in section_case(wps, "short").areas]
    under, over = (any(holds(each, (point[0], point[1] + off)) for each in outlines) for off in (-0.2, 0.2))
    return under is not over


@pytest.mark.parametrize(
    ("kind", "places"),
    [("fillet", 1), ("double-fillet", 2), ("tee-bevel", 1), ("tee-double-bevel", 2), ("tee-j", 1), ("corner-fillet", 1),
     ("corner-v", 1), ("corner-bevel", 1), ("lap-fillet", 1), ("double-lap-fillet", 2)],
)  # fmt: skip
def test_every_joint_of_plates_is_read_on_a_face_beside_its_weld(kind, places):
    wps = plates(kind, passes=3 * places, piece__half_width_mm="140")
    assert not asked_of(wps).missing
    probes = section_case(wps, "long").probes
    assert len(probes) == places
    toes = [point for groove in joint_shape(wps).grooves if groove.side for point in groove.mouth]
    for place in probes.values():
        assert is_on_a_face(wps, place)
        assert min(abs(abs(place[0] - x) - 48.0) for x, _ in toes) < 1e-6


def test_no_heat_crosses_the_faces_beside_a_fillet_in_the_longest_run_and_it_does_in_the_shortest():
    wps = plates("double-fillet")
    (contact,) = section_case(wps, "long").contacts
    assert (contact.from_mm, contact.to_mm, contact.opens_with) == ((-12.0, 0.0), (0.0, 0.0), None)
    assert section_case(wps, "short").contacts == ()
    fused = section_case(plates("tee-bevel", joint__root_opening_mm="0"), "long")
    assert {each.opens_with for each in fused.contacts} == {fused.sources[0].id}


def test_a_pass_is_read_on_the_side_it_is_laid_on():
    case = section_case(plates("double-fillet", passes=6), "long")
    assert [each.wait_for.probe for each in case.sources[1:]] == [PLACE] * 2 + [OTHER_PLACE] * 3
    one_side = section_case(plates("fillet"), "long")
    assert {each.wait_for.probe for each in one_side.sources[1:]} == {PLACE}


def test_the_waits_of_a_tee_are_found_and_both_sides_are_read():
    waits = waits_of(plates("double-fillet", passes=6))
    later = [each for each in waits.passes if each.wait_s.high > 0]
    assert later
    assert all(each.before_c.high == pytest.approx(150, abs=0.5) for each in later)
    assert len(waits.film.places_mm) == 2
    (right, _), (left, _) = waits.film.places_mm
    assert left < 0 < right


def test_a_piece_that_ends_before_the_place_says_how_wide_it_has_to_be():
    found = waits_of(plates("fillet", piece__half_width_mm="40"))
    assert "40 mm ends before the place that is read; state a half width of 58 mm or more" in found


@pytest.mark.parametrize("kind", ["socket", "branch-set-on", "flare-v", "cladding"])
def test_what_is_not_the_same_all_along_its_seam_is_not_run(kind):
    assert asked_of(plates(kind)).missing[0][0] == "joint/kind"


def test_a_pipe_in_a_tee_is_not_run():
    assert asked_of(plates("fillet", joint__product="pipe", joint__od_mm="168")).missing[0][0] == "joint/kind"


@pytest.mark.parametrize(
    ("other", "spans"),
    [
        (((1.0, 2.0), (9.0, 2.0), (9.0, 5.0), (1.0, 5.0)), [((1.0, 2.0), (4.0, 2.0))]),
        (((4.0, -3.0), (6.0, -3.0), (6.0, 1.0), (4.0, 1.0)), [((4.0, 0.0), (4.0, 1.0))]),
        (((4.0, 2.0), (6.0, 2.0), (6.0, 5.0), (4.0, 5.0)), []),
        (((1.0, 2.5), (9.0, 2.5), (9.0, 5.0), (1.0, 5.0)), []),
    ],
)
def test_faces_touch_where_level_or_upright_edges_lie_on_each_other(other, spans):
    assert list(touching(SQUARE, other)) == spans


@pytest.mark.parametrize(("point", "expected"), [((1.0, 1.0), True), ((5.0, 1.0), False), ((-1.0, 1.0), False)])
def test_an_outline_holds_what_lies_within(point, expected):
    assert holds(SQUARE, point) is expected
