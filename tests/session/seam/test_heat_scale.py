"""One heat scale for a document: one colour is one energy in every picture."""

import pytest

from anlage.core.document import read_strict
from anlage.core.procedure import WPS, Wps, pass_energy, with_element
from anlage.data.files import FOLDER
from anlage.data.look import heat_colour
from anlage.formats.font import measure
from anlage.session.output.pictures import picture_file
from anlage.session.seam.heat import heat_span


@pytest.fixture
def wps():
    return read_strict((FOLDER / "demo" / "OST-W-02.json").read_text(encoding="utf-8"), WPS)


def test_the_scale_spans_all_passes_and_their_sectors(wps):
    low, high = heat_span(wps)
    energies = [pass_energy(each).interval for each in wps.passes]
    assert low <= min(each.low for each in energies)
    hotter, _ = with_element(wps, "sectors", of=wps.passes[0].id, reach="6 to 3", current_a=[200, 260])
    assert heat_span(hotter)[1] > high
    assert heat_span(Wps()) is None


def test_an_energy_has_one_colour_in_every_picture(wps):
    span = heat_span(wps)
    hot = pass_energy(wps.passes[0]).high.energy_kj_mm
    colour = heat_colour(hot, coldest=span[0], hottest=span[1])
    for name in ("beads", "stops", f"sectors/{wps.passes[0].id}"):
        assert colour in picture_file(wps, name, ".svg", "si", measure).decode(), name
