"""What of a procedure's heat is told to whoever issues it, on the sheet and before it is issued."""

import pytest

from anlage.core.document import read_strict, with_at
from anlage.core.procedure import WPS, Wps
from anlage.data.files import FOLDER
from anlage.session.heat.amiss import heat_amiss
from anlage.session.leaves.text import with_text


@pytest.fixture(scope="module")
def stub():
    """The stub of the boiler drum: 150 °C where ASME B31.1 asks 200."""
    return read_strict((FOLDER / "demo" / "OST-W-05.json").read_text(), WPS, where="demo")


def test_a_preheat_below_the_construction_code_is_told(stub):
    assert ("outside", "Preheat", "ASME B31.1 asks 200 °C, 50 K more than is chosen.") in heat_amiss(stub)
    told = heat_amiss(stub, system="us")
    assert told[0] == ("outside", "Preheat", "ASME B31.1 asks 392 °F, 90 °F more than is chosen.")


@pytest.mark.parametrize(
    ("leaf", "text", "word", "verdict"),
    [
        ("preheat/minimum_c", "", "Preheat", "unproven"),
        ("preheat/minimum_c", "200", "Preheat", None),
        ("preheat/interpass_maximum_c", "", "Between passes", "unproven"),
        ("preheat/interpass_maximum_c", "140", "Preheat", "outside"),
        ("header/construction_code", "", "After welding", "unproven"),
        ("pwht/temperature_c", "780..800", "After welding", "outside"),
        ("metals/one/name", "Kettle steel", "After welding", "unproven"),
    ],
)
def test_what_is_left_out_or_typed_wrongly_is_told(stub, leaf, text, word, verdict):
    wps = with_text(with_at(stub, "metals/one/certificate", None), leaf, text, "si")
    told = {own for own, of, _ in heat_amiss(wps) if of == word}
    assert (verdict in told) if verdict else not told, heat_amiss(wps)


def test_of_a_procedure_without_metals_nothing_is_told():
    assert heat_amiss(Wps()) == ()


@pytest.mark.parametrize("leaf", ["header/hardness", "header/sour_service"])
def test_hardness_is_told_where_the_job_limits_it(stub, leaf):
    asked = with_text(stub, leaf, "yes", "si")
    assert [own for own, of, _ in heat_amiss(asked) if of == "Hardness"] == ["unproven"]
    assert not [of for _, of, _ in heat_amiss(with_text(stub, leaf, "no", "si")) if of == "Hardness"]
