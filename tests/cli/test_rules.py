"""`anlage rules`: read, filtered, printed, checked, corrected and carried to another works."""

import json
from pathlib import Path

import pytest

from anlage.core.rulebook import RULEBOOK
from anlage.session.works.demo import demo_file
from anlage.store import open_works
from tests.cli.test_documents import ask, refusal

NOW = "2026-11-23T12:00:00Z"
OVERLAY = """code = "asme-ix"
[[overlay]]
rule = "preheat_min"
reason = "our copy says so"
[overlay.keys]
low = { times = 1 }
"""


@pytest.fixture
def works(tmp_path):
    return str(demo_file(NOW, folder=tmp_path))


@pytest.fixture
def overlay(tmp_path):
    path = tmp_path / "marks.toml"
    path.write_text(OVERLAY)
    return str(path)


def rules(capsys, *words):
    status, out = ask(capsys, "rules", "asme-ix", *words, "--json")
    assert status == 0
    return json.loads(out)


def test_a_rule_says_words_confidence_and_a_worked_example(capsys):
    found = rules(capsys, "--clause", "406.1")
    (own,) = found["rules"]
    assert (own["id"], own["clause"], own["checked"], own["variables"]) == (
        "preheat_min",
        "QW-406.1",
        False,
        ["preheat_c"],
    )
    assert own["examples"] == [{"coupon": "Preheat 100\u2009°C", "allowed": [45, None], "possible": [45, None],
                                "text": "≥ 45\u2009°C"}]  # fmt: skip
    assert (found["edition"], found["sources"][0]["confidence"]) == ("2023", "H")


def test_rules_are_found_by_variable_and_an_unknown_one_is_refused(capsys):
    assert {each["id"] for each in rules(capsys, "--variable", "diameter_mm")["rules"]} == set()
    assert "preheat_min" in {each["id"] for each in rules(capsys, "--variable", "preheat_c")["rules"]}
    assert "preheat_d" in refusal(capsys, "rules", "asme-ix", "--variable", "preheat_d")


def test_the_table_says_the_same(capsys):
    status, out = ask(capsys, "rules", "asme-ix", "--clause", "406.1")
    assert status == 0
    assert "Preheat 100\u2009°C: ≥ 45\u2009°C" in out
    assert "1 rules, 0 of them checked" in out


def test_a_rule_is_signed_in_a_works_file_and_check_says_so(capsys, works):
    status, _ = ask(
        capsys, "rules", "asme-ix", "--sign", "preheat_min", "--by", "A. Maker", "--copy", "3", "--works", works
    )
    assert status == 0
    (own,) = rules(capsys, "--clause", "406.1", "--works", works)["rules"]
    assert [(each["by"], each["copy"], each["edition"]) for each in own["checks"]] == [("A. Maker", "3", "2023")]
    assert "preheat_min" not in {each["id"] for each in rules(capsys, "--unchecked", "--works", works)["rules"]}
    _, out = ask(capsys, "check", f"{works}#OST-W-01", "--json")
    found = json.loads(out)["codes"]["asme-ix"]["variables"]
    assert (found["preheat_c"]["checked"], found["f_number.SMAW"]["checked"]) == (True, False)


def test_a_correction_counts_wherever_its_works_file_is_named(capsys, works, overlay, tmp_path):
    status, _ = ask(capsys, "rules", "asme-ix", "--overlay", overlay, "--by", "A. Maker", "--works", works)
    assert status == 0
    status, out = ask(capsys, "check", f"{works}#OST-W-01", "--json")
    own = json.loads(out)["codes"]["asme-ix"]["variables"]["preheat_c"]
    assert (status, own["verdict"]) == (1, "outside")
    assert own["overlay"] == [own["overlay"][0]]
    assert "our copy says so" in own["overlay"][0]
    keys = ("process=SMAW", "thickness=20mm", "preheat=100degC")
    allowed = [
        json.loads(ask(capsys, "coupon", "--code", "asme-ix", *keys, *more, "--json")[1])["variables"]["preheat_c"][
            "allowed"
        ]
        for more in ((), ("--works", works))
    ]
    assert allowed == [[45, None], [100, None]]
    out_file = tmp_path / "out.toml"
    assert ask(capsys, "rules", "asme-ix", "--export", str(out_file), "--works", works)[0] == 0
    assert "our copy says so" in out_file.read_text()


def test_what_was_marked_is_taken_back_and_stays_in_the_revisions(capsys, works, overlay):
    ask(capsys, "rules", "asme-ix", "--overlay", overlay, "--by", "A. Maker", "--works", works)
    status, out = ask(capsys, "rules", "asme-ix", "--take-back", "preheat_min", "--by", "A. Maker", "--works", works)
    assert (status, "the overlay of preheat_min is taken back" in out) == (0, True)
    with open_works(Path(works), read_only=True) as file:
        (own,) = [entry for entry in file.entries() if entry.kind == RULEBOOK.format]
        assert [len(json.loads(each.body)["overlays"]) for each in file.revisions(own.id)] == [1, 0]


def test_a_checking_list_is_written_and_never_over_a_works_file(capsys, works, tmp_path):
    target = tmp_path / "list.pdf"
    status, out = ask(capsys, "rules", "asme-ix", "--clause", "QW-403", "-o", str(target), "--json")
    assert (status, json.loads(out)["rules"]) == (0, 15)
    assert target.read_bytes().startswith(b"%PDF")
    assert "exists already" in refusal(capsys, "rules", "asme-ix", "-o", str(target))
    assert "works file" in refusal(capsys, "rules", "asme-ix", "-o", works, "--force")


@pytest.mark.parametrize(
    ("words", "told"),
    [
        (("--sign", "t_base", "--by", "A", "--copy", "3"), "say --works"),
        (("--sign", "t_base", "--works", "WORKS", "--copy", "3"), "state who compared it"),
        (("--sign", "t_base", "--works", "WORKS", "--by", "A"), "name the copy"),
        (("--sign", "t_bass", "--works", "WORKS", "--by", "A", "--copy", "3"), "t_bass"),
        (("--take-back", "t_base", "--works", "WORKS", "--by", "A"), "is not checked"),
        (("--sign", "t_base", "--take-back", "t_base"), "one thing at a time"),
        (("--clause", "nothing has it", "-o", "x.pdf"), "no rule is asked for"),
    ],
)
def test_what_cannot_be_done_is_one_line(capsys, works, words, told):
    assert told in refusal(capsys, "rules", "asme-ix", *(works if each == "WORKS" else each for each in words))
