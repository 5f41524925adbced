"""Metals and fillers of the works at Metals: brought in, offered where names are typed, taken out; all at once."""

import pytest
from PySide6.QtWidgets import QFileDialog

from anlage.session.leaves.suggestions import suggestions
from anlage.session.leaves.table import field_of

METAL = "id,p_number,p_group,smys_mpa,smts_mpa,C,Mn,confidence,source\nW-260,1,2,260,485,0.2,1.2,M,mill sheet\n"


@pytest.fixture
def table(tmp_path):
    path = tmp_path / "metals.csv"
    path.write_text(METAL)
    return path


@pytest.fixture
def metals(demo):
    """Someone at Metals whose procedure is of a metal that the catalogue does not have."""
    demo.desk.keep(author="A. Maker")
    demo.document.type_text("metals/one/certificate", "")
    demo.document.type_text("metals/one/name", "W-260")
    demo.press("Alt+T")
    demo.settle()
    return demo


def ask(person):
    person.place.own.click()
    person.settle()
    return person.place.dialog


def verdict(person):
    rungs = person.desk.assess(person.wps).judgement.rungs
    return next(each.verdict for each in rungs if each.variable == "p_number")


def strength(person):
    return [line.text.text() for line in person.place.said if not line.isHidden()]


def test_a_metal_brought_in_is_offered_judged_and_drawn_at_once_and_unknown_once_taken_out(metals, table, monkeypatch):
    assert not any("485" in text for text in strength(metals))
    dialog = ask(metals)
    assert dialog.nothing.isVisible()
    assert not dialog.out.isEnabled()
    monkeypatch.setattr(QFileDialog, "getOpenFileName", lambda *_: (str(table), ""))
    metals.press("Space")  # the first button has the keyboard
    metals.settle()
    assert dialog.list.item(0).text() == "W-260: P-No. 1, Group 2 (less sure)\nmill sheet (M)"
    assert verdict(metals) == "inside"
    assert "W-260" in suggestions(field_of("metals/one/name"))
    assert any("485 MPa" in text for text in strength(metals)), "the place says so at once"
    assert not metals.desk.works.read(metals.document.document_id)[1], "the document is what it was"
    dialog.list.setFocus()
    metals.press("Home", "Tab", "Tab", "Space")
    metals.settle()
    assert dialog.list.count() == 0
    assert verdict(metals) == "unproven"
    assert "W-260" not in suggestions(field_of("metals/one/name"))
    assert not any("485" in text for text in strength(metals))


def test_a_table_at_fault_changes_nothing_and_says_where(metals, table):
    table.write_text(METAL.replace(",1,2,260", ",1,9,260"))
    dialog = ask(metals)
    dialog.bring_in(table)
    assert dialog.complaint.text().startswith("metals.csv, W-260: no p_group 9")
    assert dialog.list.count() == 0
    dialog.bring_in(table.with_name("gone.csv"))
    assert "gone.csv" in dialog.complaint.text()


def test_nobody_brings_anything_in(metals, table):
    metals.desk.keep(author="")
    dialog = ask(metals)
    dialog.bring_in(table)
    assert "state your name in the settings" in dialog.complaint.text()
    assert dialog.list.count() == 0


def test_a_saved_table_has_every_column_and_comes_in_again(metals, table, tmp_path, monkeypatch):
    dialog, target = ask(metals), tmp_path / "out.csv"
    dialog.bring_in(table)
    monkeypatch.setattr(QFileDialog, "getSaveFileName", lambda *_: (str(target), ""))
    dialog.save_metals.click()
    head, row = target.read_text().splitlines()
    assert head.startswith("id,spec,grade,uns_or_en,product_form,family,p_number,p_group,iso15608_group")
    assert row.startswith("W-260,")
    dialog.list.setCurrentRow(0)
    dialog.out.click()
    dialog.bring_in(target)
    assert dialog.list.count() == 1
    monkeypatch.setattr(QFileDialog, "getSaveFileName", lambda *_: (str(tmp_path / "none" / "x.csv"), ""))
    dialog.save_fillers.click()
    assert "x.csv" in dialog.complaint.text()
