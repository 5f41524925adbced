"""What a change costs, on the command line and by itself: variable by variable, and whether a record is asked for."""

import json

import pytest

from anlage.core.document import read_strict, with_at, write
from anlage.core.errors import InputError
from anlage.core.procedure import WPS
from anlage.core.record import PQR
from anlage.data.files import text_of
from anlage.session.judging.assessment import Assessor
from anlage.session.judging.change_cost import changes_between
from tests.cli.test_documents import PLATE, SOUND, ask, refusal
from tests.demo import RECORDS

JUDGE = Assessor([(number, read_strict(text_of(f"demo/{number}.json"), PQR)) for number in RECORDS])


def sound():
    return read_strict(text_of("demo/OST-W-01.json"), WPS)


@pytest.fixture
def other(tmp_path):
    """A procedure that differs in what costs most, less, and nothing."""
    wps = sound()
    for path, value in {
        "preheat/minimum_c": 10.0,
        "range/thickness_mm": (6, 24),
        "technique/cleaning": "grind",
    }.items():
        wps = with_at(wps, path, value)
    path = tmp_path / "other.json"
    path.write_text(write(wps))
    return str(path)


def test_each_difference_says_what_it_asks_for_the_dearest_first(capsys, other):
    status, out = ask(capsys, "diff", SOUND, other, "--pqr", PLATE)
    assert status == 1
    lines = [line.replace("\u2009", " ") for line in out.splitlines()]
    assert "1 needs a record that covers it, 1 still covered, 1 editorial" in lines[0]
    assert "80 °C to 10 °C: needs a record that covers it (QW-406.1)" in lines[1]
    assert "6..22 mm to 6..24 mm: still covered" in lines[2]
    assert "brush and grind each layer to grind: editorial (QW-410.5)" in lines[3]


def test_as_json_each_variable_has_both_verdicts(capsys, other):
    status, out = ask(capsys, "diff", other, SOUND, "--pqr", PLATE, "--json")
    found = json.loads(out)["codes"]["asme-ix"]["variables"]
    assert status == 0, "the way back asks for nothing"
    preheat = found["preheat_c"]
    assert (preheat["verdict_before"], preheat["verdict_after"]) == ("outside", "inside")
    assert (preheat["consequence"], preheat["changed"], preheat["category"]) == ("covered", True, "essential")
    assert (preheat["before"], preheat["after"]) == ([10, 10], [80, 80])
    assert found["cleaning"]["consequence"] == "editorial"


def test_a_procedure_and_itself_differ_in_nothing(capsys):
    status, out = ask(capsys, "diff", SOUND, SOUND, "--pqr", PLATE)
    assert (status, out.splitlines()[0].split()[-3:]) == (0, ["no", "variable", "differs"])


def test_without_a_code_nothing_is_compared(capsys, tmp_path):
    bare = tmp_path / "bare.json"
    bare.write_text(write(with_at(sound(), "header/codes", ())))
    assert refusal(capsys, "diff", str(bare), SOUND) == "code: no code is stated; state it in the procedure"
    assert ask(capsys, "diff", str(bare), SOUND, "--code", "asme-ix", "--pqr", PLATE)[0] == 0


def changes(**changed):
    wps = sound()
    for path, value in changed.items():
        wps = with_at(wps, path.replace("__", "/"), value)
    return {each.id: each for each in changes_between(sound(), wps, JUDGE.assess)}


def test_a_demand_that_is_made_changes_verdicts_of_what_is_stated_alike():
    found = changes(header__impact=True)
    assert found["interpass_c"].changed is False
    assert found["interpass_c"].consequence == "requalify", "the record has no impact results"
    assert found["interpass_c"].verdict_before == ""


def test_what_is_not_stated_any_more_is_unproven():
    found = changes(technique__cleaning=None)
    assert [(each.id, each.consequence, each.after) for each in found.values()] == [("cleaning", "unproven", None)]


def test_what_cannot_be_judged_says_why():
    with pytest.raises(InputError, match="no code is stated"):
        changes_between(with_at(sound(), "header/codes", ()), sound(), JUDGE.assess)
