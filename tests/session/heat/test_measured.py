"""What the floor is told of temperatures, and the temperatures of a first draft."""

import pytest

from anlage.core.document import read_strict, with_at
from anlage.core.procedure import WPS, Wps
from anlage.data.files import FOLDER
from anlage.data.metal_tables import measuring
from anlage.session.draft.temperatures import with_temperatures
from anlage.session.heat.measured import heat_sentences, measuring_sentences, purge_rows
from anlage.session.heat.preheat import preheat_view
from anlage.session.leaves.text import with_text
from anlage.session.proposal.draft import drafted


@pytest.fixture(scope="module")
def shell():
    return read_strict((FOLDER / "demo" / "OST-W-01.json").read_text(), WPS, where="demo")


def test_the_place_follows_the_thickness():
    assert [measuring().from_groove_mm(each) for each in (6.55, 12.5, 30.0, 50.0, 50.1)] == [26.2, 50, 50, 50, 75]


def test_the_floor_is_told_crayons_and_places_in_the_units_of_the_case(shell):
    said = [each.replace("\u2009", " ") for each in heat_sentences(shell, "si")]
    assert said[0] == "Crayons: 100 °C must melt, 250 °C must not melt; never inside the groove."
    assert said[1].startswith("Read the least 50 mm from the groove edge, on the welder's side")
    assert "1.4 min after heating stops" in said[1]
    assert "right before each arc" in said[2]
    assert "2.0 in from the groove edge" in measuring_sentences(shell, "us")[0].replace("\u2009", " ")
    thick = with_at(shell, "joint/thickness_mm", 60.0)
    assert "75 mm from the groove edge, or more, across from the heating" in measuring_sentences(thick, "si")[
        0
    ].replace("\u2009", " ")


def test_a_piece_at_room_temperature_wants_no_crayon_that_melts(shell):
    cool = with_at(shell, "preheat/minimum_c", 20.0)
    assert next(heat_sentences(cool, "si")) == "Crayons: 250 °C must not melt; never inside the groove."
    unheated = with_at(cool, "preheat/interpass_maximum_c", None)
    assert next(heat_sentences(unheated, "si")).startswith("Read the least")


def test_nothing_is_said_of_what_nobody_states(shell):
    bare = with_at(with_at(shell, "preheat/minimum_c", None), "preheat/interpass_maximum_c", None)
    assert list(heat_sentences(bare, "si")) == []
    assert measuring_sentences(with_at(shell, "joint/thickness_mm", None), "si") == ()
    assert purge_rows(shell) == ()


def test_a_purge_in_part_names_what_is_missing(shell):
    part = with_text(shell, "purge/flow_l_min", "10", "si")
    rows = purge_rows(part)
    assert all(name == "Not stated" for name, _ in rows)
    assert any("oxygen" in what for _, what in rows)
    whole = with_text(with_text(part, "purge/volume_l", "8", "si"), "purge/target_ppm", "100", "si")
    assert dict(purge_rows(whole))["Before the root"].endswith("the longer where only 0.5 of the gas mixes")


# The first draft -----------------------------------------------------------------------------


def draft_of(metal, thickness_mm=20.0, process="SMAW", **others):
    wps = with_at(Wps(), "metals/one/name", metal)
    for path, value in {
        "joint/product": "plate",
        "joint/thickness_mm": thickness_mm,
        "technique/position": "3G",
    }.items():
        wps = with_at(wps, path, value)
    for path, value in others.items():
        wps = with_at(wps, path.replace("__", "/"), value)
    return with_temperatures(drafted(wps, (process,)))


def test_a_draft_proposes_what_governs_and_what_is_usual_each_with_its_reason():
    wps = draft_of("S355J2").wps
    assert wps.preheat.minimum_c == -(-preheat_view(wps).governing.high_c // 5) * 5
    assert wps.preheat.reason == wps.proposed["preheat/minimum_c"].reason
    assert wps.preheat.interpass_maximum_c == 250
    assert {path for path in wps.proposed if path.startswith("preheat/")} == {
        "preheat/minimum_c",
        "preheat/interpass_maximum_c",
        "preheat/reason",
    }


def test_what_is_stated_stays():
    wps = draft_of("S355J2", preheat__minimum_c=60.0, preheat__interpass_maximum_c=200.0).wps
    assert (wps.preheat.minimum_c, wps.preheat.interpass_maximum_c, wps.preheat.reason) == (60, 200, None)
    assert not any(path.startswith("preheat/") for path in wps.proposed)


def test_a_code_that_nobody_stated_is_taken_with_low_confidence():
    wps = draft_of("A335-P22", 16.0, "GTAW").wps
    assert wps.proposed["preheat/minimum_c"].confidence == "L"
    assert "no construction code is stated" in wps.preheat.reason
    assert wps.preheat.minimum_c >= 200
    stated = draft_of("A335-P22", 16.0, "GTAW", header__construction_code="b31.1").wps
    assert (stated.preheat.minimum_c, stated.preheat.reason) == (200, "ASME B31.1")


@pytest.mark.parametrize(("metal", "most"), [("A240-316L", 150), ("B209-5083-O", 65)])
def test_metals_that_do_not_harden_get_no_preheat_and_a_most_between_passes(metal, most):
    found = draft_of(metal, 8.0, "GTAW")
    assert (found.wps.preheat.minimum_c, found.wps.preheat.interpass_maximum_c) == (None, most)
    assert not any("preheat" in each for each in found.said)


def test_no_preheat_is_proposed_that_no_pass_could_start_at():
    found = draft_of("S690QL", 30.0)  # no usual filler is known: the highest hydrogen is counted
    assert found.wps.preheat.minimum_c is None
    assert any("over the 150 °C that are usual between passes" in each for each in found.said)
