"""A text that was not taken over is judged by nobody: it is said wherever the document stands, and nothing is green."""

import threading

import pytest
from PySide6.QtWidgets import QApplication

from anlage.core.drawing import Text
from anlage.session.works.demo import demo_file
from anlage.ui.desk import app
from tests.ui.conftest import NOW


def strip(person):
    person.settle()
    return [text for _, text in person.desk.strip.parts()]


def test_it_is_said_in_the_strip_at_its_place_and_in_the_register(demo):
    path = f"passes/{demo.wps.passes[0].id}/current_a"
    demo.press("Alt+P")
    assert strip(demo) == ["47 inside"]
    demo.document.type_text(path, "95..")
    assert strip(demo) == ["47 inside", "1 text not taken over"]
    assert demo.shell.places.buttons["passes"].verdict == "unproven"
    demo.press("Alt+G")
    row = demo.place.rows[0]
    assert (row.verdict, row.said) == ("unproven", "1 text not taken over")
    demo.document.type_text(path, "95..110")
    assert strip(demo) == ["47 inside"]
    demo.desk.refresh_place()
    assert demo.place.rows[0].verdict == "inside"


def test_a_record_in_which_a_text_waits_proves_nothing(demo):
    record = next(entry.id for entry in demo.desk.works.all_entries() if entry.number == "OST-R-01")
    own = demo.document.document_id
    demo.desk.open_document(record)
    demo.document.type_text("joint/thickness_mm", "1x")
    demo.desk.open_document(own)
    assert strip(demo) != ["47 inside"]
    assert demo.desk.assessment().judgement.verdict != "inside"
    demo.press("Alt+G")
    assert {row.number: row.verdict for row in demo.place.rows}["OST-R-01"] == "unproven"
    demo.desk.open_document(record)
    demo.press("Ctrl+Z")
    demo.desk.open_document(own)
    assert strip(demo) == ["47 inside"]


def test_what_was_read_of_records_before_one_changed_judges_nothing(open_person, tmp_path, qtbot, monkeypatch):
    monkeypatch.setattr("anlage.ui.desk.works_desk.FEW_RECORDS", 1)
    may = threading.Event()
    from anlage.ui.desk import works_desk  # noqa: PLC0415 - what is held up

    read = works_desk._assessor_of

    def held_up(works, wps):
        found = read(works, wps)
        may.wait(30)
        return found

    monkeypatch.setattr(works_desk, "_assessor_of", held_up)
    person = open_person(demo_file(NOW, folder=tmp_path))
    person.settle()
    own = person.document.document_id
    record = next(entry.id for entry in person.desk.works.all_entries() if entry.number == "OST-R-01")
    person.desk.open_document(record)
    person.document.type_text("joint/thickness_mm", "3")
    person.desk.open_document(own)
    person.settle()
    may.set()
    qtbot.waitUntil(lambda: person.desk.strip is not None and person.desk.strip.proof is not None, timeout=60_000)
    assert person.desk.strip.proof.judgement.verdict != "inside"


def test_what_fails_on_a_thread_is_told_in_the_window(demo, qtbot, monkeypatch):
    before = app.sys.excepthook, threading.excepthook
    monkeypatch.setattr(app.sys, "__excepthook__", lambda *_: None)
    try:
        app.catch_faults(demo.window)
        thread = threading.Thread(target=lambda: 1 / 0)
        thread.start()
        thread.join()
        qtbot.waitUntil(lambda: "Something went wrong; the draft is saved" in demo.shell.notice.text.text())
    finally:
        app.sys.excepthook, threading.excepthook = before


def test_what_is_undone_while_in_a_field_is_what_stands_there(demo):
    demo.press("Alt+J")
    field = demo.place.column.fields["joint/thickness_mm"]
    for text in ("20", "22"):
        field.setFocus()
        field.selectAll()
        demo.type(text)
        demo.press("Tab")
    field.setFocus()
    demo.press("Ctrl+Z")
    assert (field.text(), demo.wps.joint.thickness_mm) == ("20", 20.0)
    field.selectAll()
    demo.type("x")
    assert demo.wps.joint.thickness_mm == 20.0
    demo.press("Escape")
    assert (field.text(), demo.document.working.pending) == ("20", {})


@pytest.mark.parametrize(("pasted", "value"), [("12,7", 12.7), ("12,7\n", 12.7), ("1\x002", 12.0), ("0,5 in", 12.7)])
def test_what_is_pasted_is_taken_as_if_it_was_typed(demo, pasted, value):
    demo.press("Alt+J")
    field = demo.place.column.fields["joint/thickness_mm"]
    field.setFocus()
    field.selectAll()
    QApplication.clipboard().setText(pasted)
    field.paste()
    assert demo.wps.joint.thickness_mm == pytest.approx(value)
    demo.press("Tab")
    assert demo.wps.joint.thickness_mm == pytest.approx(value)
    demo.desk.run("units")
    demo.desk.run("units")
    assert demo.wps.joint.thickness_mm == pytest.approx(value)


def test_the_sheet_says_that_it_shows_what_was_stated_before_and_is_not_issued(demo):
    path = f"passes/{demo.wps.passes[0].id}/current_a"
    demo.document.type_text(path, "95..")
    demo.press("Alt+S")
    demo.settle()
    assert demo.place.state.text() == "Draft, not issued; 1 text not taken over"
    assert not demo.place.issue_button.isEnabled()
    words = {item.text for page in demo.place.pages.pages for item in page.items if isinstance(item, Text)}
    assert "draft, not issued; 1 text not taken over" in words
    demo.press("Ctrl+Z")
    assert demo.place.state.text() == "Draft, not issued"
    assert demo.place.issue_button.isEnabled()
