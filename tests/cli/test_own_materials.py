"""A table of metals or fillers brought into a works file, and what then knows them: `coupon`, `check`, `ranges`."""

import json

import pytest

from anlage.session.works.demo import demo_file
from tests.cli.test_documents import ask, refusal

NOW = "2026-11-29T12:00:00Z"
METAL = "id,p_number,p_group,iso15608_group,smys_mpa,smts_mpa,confidence,source\nW-260,1,2,1.1,260,485,M,mill sheet\n"
FILLER = "classification,processes,f_number,a_number,confidence,source\nW-70X,SMAW,4,1,M,maker's sheet\n"
WORDS = ("process=SMAW", "thickness=12mm", "base=W-260", "filler=W-70X")


@pytest.fixture
def works(tmp_path):
    return str(demo_file(NOW, folder=tmp_path))


def bring(capsys, tmp_path, works, text, *more, by="A. Maker"):
    path = tmp_path / "table.csv"
    path.write_text(text)
    return ask(capsys, "import", str(path), "--into", works, "--by", by, "--json", *more)


def test_what_is_brought_in_is_known_with_the_works_file_and_without_it_is_not(capsys, tmp_path, works):
    for text, name in ((METAL, "W-260"), (FILLER, "W-70X")):
        status, out = bring(capsys, tmp_path, works, text)
        assert (status, json.loads(out)["added"]) == (0, [name])
    status, out = ask(capsys, "coupon", "--code", "asme-ix", "--works", works, *WORDS)
    assert status == 0
    assert "W-260: P-1: mill sheet (M)" in out
    assert "W-70X: F-4, A-1: maker's sheet (M)" in out
    assert "no base metal" not in out


@pytest.mark.parametrize("code", ["asme-ix", "aws-d1.1", "api-1104", "iso-15614-1-l1", "iso-15614-1-l2"])
def test_every_code_takes_an_added_metal(capsys, tmp_path, works, code):
    bring(capsys, tmp_path, works, METAL)
    status, out = ask(capsys, "coupon", "--code", code, "--works", works, *WORDS[:3])
    assert status == 0
    assert "W-260" in out


def test_without_the_works_file_the_metal_is_unknown(capsys):
    assert "W-260" in refusal(capsys, "coupon", "--code", "asme-ix", *WORDS)


def test_a_table_at_fault_is_refused_and_nothing_is_changed(capsys, tmp_path, works):
    path = tmp_path / "wrong.csv"
    path.write_text(METAL.replace("W-260", "SA-36"))
    said = refusal(capsys, "import", str(path), "--into", works, "--by", "A. Maker")
    assert said.startswith("wrong.csv: SA-36: the catalogue has one called so")
    path.write_text(METAL)
    assert "nobody brings the table in" in refusal(capsys, "import", str(path), "--into", works)
    assert "W-260" in refusal(capsys, "coupon", "--code", "asme-ix", "--works", works, *WORDS)


def test_a_draft_is_made_of_an_added_metal(capsys, tmp_path, works):
    bring(capsys, tmp_path, works, METAL.replace("id,", "id,family,").replace("W-260,", "W-260,carbon-manganese,"))
    words = ("draft", "base=W-260", "product=plate", "thickness=12mm", "position=1G", "process=SMAW", "code=asme-ix")
    status, out = ask(capsys, *words, "--works", works, "--json")
    assert status == 0
    found = json.loads(out)
    assert found["passes"] > 2
    assert any("E7018" in str(each["value"]) for each in found["proposed"].values())
