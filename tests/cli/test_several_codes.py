"""`--code` more than once: one answer for each, and the worst verdict over all."""

import json

import pytest

from tests.cli.test_documents import PLATE, SOUND, ask, refusal

BOTH = ("--code", "asme-ix", "--code", "asme-ix:2019")


def test_a_procedure_is_checked_by_each_code_named(capsys):
    status, out = ask(capsys, "check", SOUND, "--pqr", PLATE, *BOTH, "--json")
    found = json.loads(out)
    assert (status, found["verdict"]) == (0, "inside")
    assert {code: each["edition"] for code, each in found["codes"].items()} == {
        "asme-ix": "2023",
        "asme-ix:2019": "2019",
    }
    _, table = ask(capsys, "check", SOUND, "--pqr", PLATE, *BOTH)
    assert "by asme-ix:2019" in table


def test_one_code_answers_as_ever_whatever_the_procedure_names(capsys):
    own = json.loads(ask(capsys, "check", SOUND, "--pqr", PLATE, "--json")[1])
    named = json.loads(ask(capsys, "check", SOUND, "--pqr", PLATE, "--code", "asme-ix:2019", "--json")[1])
    assert list(own["codes"]) == list(named["codes"]) == ["asme-ix"]
    assert named["codes"]["asme-ix"]["edition"] == "2019"


@pytest.mark.parametrize("words", [("coupon", "process=SMAW", "thickness=20mm"), ("ranges", PLATE)])
def test_what_a_coupon_or_a_record_buys_is_told_by_each_code(capsys, words):
    one = json.loads(ask(capsys, *words, *BOTH[:2], "--json")[1])
    both = json.loads(ask(capsys, *words, *BOTH, "--json")[1])
    assert list(both["codes"]) == ["asme-ix", "asme-ix:2019"]
    assert both["codes"]["asme-ix"] == {key: one[key] for key in both["codes"]["asme-ix"]}
    assert both["codes"]["asme-ix:2019"]["edition"] == "2019"


def test_an_unknown_code_among_several_is_refused(capsys):
    assert "api-1105" in refusal(capsys, "coupon", *BOTH, "--code", "api-1105", "process=SMAW", "thickness=20mm")
    assert "1999" in refusal(capsys, "check", SOUND, "--code", "asme-ix:1999")
