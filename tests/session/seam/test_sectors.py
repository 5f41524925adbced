"""Settings by sector and dials of calibrated machines: energy per sector, nothing beyond what was read."""

import pytest

from anlage.core.document import read_mending, read_strict, with_, with_at, write
from anlage.core.drawing import Path, Text
from anlage.core.errors import FormatError
from anlage.core.procedure import WPS, Wps, pass_energy, with_element, without_pass
from anlage.data.files import FOLDER
from anlage.session.seam.heat import heat_span
from anlage.session.seam.sectors import (
    sector_energy,
    sector_picture,
    sector_sentences,
)
from anlage.session.weld.picture_sheet import Sheet


def procedure():
    """The demo's pipe without the sectors and readings it has."""
    wps = read_strict((FOLDER / "demo/OST-W-02.json").read_text(encoding="utf-8"), WPS)
    return with_(wps, sectors=(), readings=())


def with_sectors(*rows):
    wps = procedure()
    root = wps.passes[0].id
    for reach, amps in rows:
        wps, _ = with_element(wps, "sectors", of=root, reach=reach, current_a=amps)
    return wps, root


def test_a_sector_takes_from_its_pass_what_it_does_not_state():
    wps, root = with_sectors(("6 to 3", [95, 105]), ("3 to 12", [85, 95]))
    whole = pass_energy(wps.passes[0]).interval
    low, high = (sector_energy(wps, each).interval for each in wps.sectors)
    assert low.high == pytest.approx(whole.high)
    assert high.high == pytest.approx(whole.high * 95 / 105)
    assert sector_sentences(wps, root, "si")[-1] == "Hottest: 6 to 3."


SHEET = Sheet(120.0, 120.0, "si", lambda text, height: 0.5 * height * len(text))


def arcs(wps, root):
    picture = sector_picture(wps, root, SHEET)
    return picture, [item for item in picture.items if isinstance(item, Path) and item.role == "clock_run"]


def test_sectors_lie_round_their_pass_each_with_its_own_energy():
    wps, root = with_sectors(("6 to 4, 6 to 8", [95, 105]), ("1 to 12", [85, 95]), ("unreadable", [80, 90]))
    picture, (inner, *outer) = arcs(wps, root)
    assert inner.target == f"passes/{root}"
    assert [arc.target for arc in outer] == [f"sectors/{wps.sectors[n].id}" for n in (0, 0, 1)]
    right, left, top = ([sum(c) / len(arc.points) for c in zip(*arc.points, strict=True)] for arc in outer)
    assert right[0] > 0 > right[1]  # from 6 to 4 o'clock: below, to the right
    assert left[0] < 0 > left[1]
    assert top[0] > 0 < top[1]
    assert outer[0].heat == pytest.approx(inner.heat)
    assert outer[2].heat == pytest.approx(inner.heat * 95 / 105)
    low, high = heat_span(wps)
    assert high == pytest.approx(max(pass_energy(each).interval.high for each in wps.passes)), "one scale for all"
    assert low <= inner.heat <= high
    labels = [item.text for item in picture.items if isinstance(item, Text) and item.role == "value"]
    assert labels[0] == "1"
    assert labels[1].replace("\u2009", " ") == "95..105 A"


def test_sectors_of_a_plate_lie_along_it():
    wps, root = with_sectors(("0 mm to 100 mm", [95, 105]))
    wps = with_at(with_at(wps, "joint/product", "plate"), "joint/seam_length_mm", 400.0)
    _, (inner, outer) = arcs(wps, root)
    widths = [max(x for x, _ in arc.points) - min(x for x, _ in arc.points) for arc in (inner, outer)]
    assert widths[1] / widths[0] == pytest.approx(0.25, abs=0.05)


def test_no_pass_has_no_picture_of_sectors():
    assert sector_picture(procedure(), "p99", SHEET) is None
    assert heat_span(Wps()) is None


def test_settings_outside_those_of_the_pass_are_told():
    wps, root = with_sectors(("top", [60, 95]))
    assert any("top: current lies outside what the pass states" in text for text in sector_sentences(wps, root, "si"))


def test_sectors_go_with_their_pass():
    wps, root = with_sectors(("a", [90, 95]), ("b", [90, 95]))
    assert without_pass(wps, root).sectors == ()
    assert "No sector" in sector_sentences(procedure(), root, "si")[0]


def test_a_sector_of_no_pass_is_refused_and_left_out_on_opening():
    wps, _ = with_sectors(("a", [90, 95]))
    raw = write(wps).replace(f'"of": "{wps.sectors[0].of}"', '"of": "p99"')
    with pytest.raises(FormatError, match="belongs to p99, which is no pass"):
        read_strict(raw, WPS)
    mended, notices = read_mending(raw, WPS)
    assert mended.sectors == ()
    assert any("belongs to no pass" in notice.text for notice in notices)
