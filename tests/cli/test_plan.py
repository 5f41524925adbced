"""`anlage plan` over a table, a workbook, a works file; costs; several codes; what cannot be read."""

import json

import pytest
from openpyxl import Workbook

from anlage.cli.main import run

HEAD = "name,base,base2,product,thickness,od,position,process,filler,impact,pwht,weld"
SHELL = "shell,A516-70,,plate,10..30mm,,1G,SMAW,E7018,no,none,groove"
LINER = "liner,A240-304L,,plate,3..6mm,,1G,GTAW,ER308L,no,none,groove"


def table(tmp_path, *rows, name="joints.csv", head=HEAD):
    path = tmp_path / name
    path.write_text("\n".join((head, *rows)) + "\n", encoding="utf-8")
    return str(path)


def told(capsys, *words):
    status = run(["plan", *words, "--json"])
    return status, json.loads(capsys.readouterr().out)


def test_a_table_is_planned(tmp_path, capsys):
    status, found = told(capsys, table(tmp_path, SHELL, LINER), "--code", "asme-ix")
    assert status == 0
    assert found["optimal"] is True
    assert sorted(name for each in found["coupons"] for name in each["needed_for"]) == ["liner", "shell"]
    assert found["uncovered"] == []
    shell = next(each for each in found["coupons"] if each["covers"] == ["shell"])
    bought = shell["buys"]["base_metal_thickness_mm"]
    assert bought["low"] <= 10
    assert bought["high"] >= 30
    assert shell["tests"]["tension"] == 2


def test_semicolons_decimal_commas_and_a_workbook_say_the_same(tmp_path, capsys):
    plain = told(capsys, table(tmp_path, SHELL), "--code", "asme-ix")[1]["coupons"]
    cells = [cell.replace("10..30mm", "10,0..30,0 mm") for cell in SHELL.split(",")]
    other = table(tmp_path, ";".join(cells), head=HEAD.replace(",", ";"), name="other.csv")
    assert told(capsys, other, "--code", "asme-ix")[1]["coupons"] == plain
    book = Workbook()
    for row in (HEAD, SHELL):
        book.active.append(row.split(","))
    book.save(tmp_path / "joints.xlsx")
    assert told(capsys, str(tmp_path / "joints.xlsx"), "--code", "asme-ix")[1]["coupons"] == plain


def test_several_codes_are_answered_each(tmp_path, capsys):
    _, found = told(capsys, table(tmp_path, SHELL), "--code", "asme-ix", "--code", "iso-15614-1-l2")
    assert set(found["codes"]) == {"asme-ix", "iso-15614-1-l2"}


def test_what_is_not_covered_is_told_and_asks_for_attention(tmp_path, capsys):
    row = "girth,X52-PSL2,,pipe,4..10mm,60..168mm,5G,SMAW,E6010,no,none,groove"
    status, found = told(capsys, table(tmp_path, row), "--code", "api-1104")
    assert status == 1
    assert found["uncovered"][0]["reason"] == "by the nearest coupon: wall group outside"


def test_costs_are_the_persons_own(tmp_path, capsys):
    cost = table(tmp_path, "coupon,each,150", "kg,kg,4", "tension,each,80", head="what,unit,cost", name="cost.csv")
    _, found = told(capsys, table(tmp_path, SHELL), "--code", "asme-ix", "--cost", cost)
    assert found["cost"] > 150 + 2 * 80


@pytest.mark.parametrize(
    ("rows", "words", "said"),
    [([SHELL], [], "no code is named"), ([], ["--code", "asme-ix"], "no joint"),
     (["x,nothing known,,plate,10mm,,1G,glue,E7018,no,none,groove"], ["--code", "asme-ix"], "row 1"),
     ([SHELL], ["--code", "no-code"], "no-code")],
)  # fmt: skip
def test_what_cannot_be_planned_is_refused_in_one_line(tmp_path, capsys, rows, words, said):
    assert run(["plan", table(tmp_path, *rows), *words]) == 2
    out = capsys.readouterr()
    assert out.out == ""
    assert said in out.err
    assert out.err.count("\n") == 1


@pytest.mark.parametrize("name", ["none.csv", "broken.xlsx"])
def test_a_file_that_is_no_table_is_refused(tmp_path, capsys, name):
    if name.endswith("xlsx"):
        (tmp_path / name).write_bytes(b"no workbook")
    assert run(["plan", str(tmp_path / name), "--code", "asme-ix"]) == 2
    assert name in capsys.readouterr().err
