"""Where a joint's temperature is read, on its section: least and most apart, the crayon for each."""

import pytest

from anlage.core.document import read_strict
from anlage.core.drawing import Marker, Path, Text
from anlage.core.procedure import WPS
from anlage.data.files import FOLDER
from anlage.session.heat.reading_picture import reading_picture
from anlage.session.leaves.text import with_text
from anlage.session.weld.picture_sheet import Sheet

SHEET = Sheet(100.0, 40.0, "si", lambda text, height: 0.5 * height * len(text))


@pytest.fixture(scope="module")
def shell():
    return read_strict((FOLDER / "demo" / "OST-W-01.json").read_text(), WPS, where="demo")


def stated(wps, **leaves):
    for path, text in leaves.items():
        wps = with_text(wps, path.replace("__", "/"), text, "si")
    return wps


def words(picture):
    return [item.text for item in picture.items if isinstance(item, Text)]


def arrow(picture):
    return next(item for item in picture.items if isinstance(item, Marker))


def test_least_and_most_are_read_apart_each_with_its_crayon(shell):
    picture = reading_picture(shell, SHEET)
    assert words(picture) == [
        "250 °C must not melt", "most 250 °C, hottest place", "100 °C must melt", "least 80 °C", "50 mm",
    ]  # fmt: skip
    edge = max(
        x for item in picture.items if isinstance(item, Path) and item.role == "extension" for x, _ in item.points
    )
    assert arrow(picture).at[0] == pytest.approx(edge)
    assert arrow(picture).direction_deg == -90
    assert "2.0 in" in words(reading_picture(shell, Sheet(100.0, 40.0, "us", SHEET.measure)))
    assert "250 °F must melt" not in words(picture)


def test_a_thin_piece_is_read_four_thicknesses_from_the_groove_a_thick_one_across_from_the_heating(shell):
    assert "24 mm" in words(reading_picture(stated(shell, joint__thickness_mm="6"), SHEET))
    thick = reading_picture(stated(shell, joint__thickness_mm="60"), SHEET)
    assert "75 mm" in words(thick)
    assert "across from the heating" in words(thick)
    assert arrow(thick).direction_deg == 90


def test_what_is_not_stated_is_not_drawn(shell):
    least = reading_picture(stated(shell, preheat__interpass_maximum_c=""), SHEET)
    assert not [text for text in words(least) if text.startswith("most")]
    most = reading_picture(stated(shell, preheat__minimum_c=""), SHEET)
    assert not [item for item in most.items if isinstance(item, Marker)]
    assert reading_picture(stated(shell, preheat__minimum_c="", preheat__interpass_maximum_c=""), SHEET) is None
    assert reading_picture(stated(shell, joint__thickness_mm=""), SHEET) is None
    node = read_strict((FOLDER / "demo" / "OST-W-03.json").read_text(), WPS, where="demo")
    assert reading_picture(stated(node, preheat__minimum_c="50"), SHEET) is None


def test_a_preheat_as_warm_as_a_room_needs_no_crayon(shell):
    assert "least 20 °C" in words(reading_picture(stated(shell, preheat__minimum_c="20"), SHEET))
    assert not [
        text for text in words(reading_picture(stated(shell, preheat__minimum_c="20"), SHEET)) if "must melt" in text
    ]


@pytest.mark.parametrize("kind", ["fillet", "double-fillet", "tee-bevel", "corner-v", "lap-fillet"])
def test_tees_corners_and_laps_are_read_on_the_face_beside_the_weld(shell, kind):
    picture = reading_picture(stated(shell, joint__kind=kind, joint__other_thickness_mm="16", joint__leg_mm="8"), SHEET)
    said = words(picture)
    assert any(text.startswith("least 80") for text in said)
    assert any(text.startswith("most 250") for text in said)
    assert len([item for item in picture.items if isinstance(item, Path) and item.role == "metal"]) == 2
