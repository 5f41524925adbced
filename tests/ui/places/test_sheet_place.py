"""The Sheet place: preview, paper, issuing and PDF through the real window."""

import time
from pathlib import Path

import pytest
from PySide6.QtPrintSupport import QPrinter
from PySide6.QtWidgets import QApplication, QDialog, QFileDialog

from anlage.core.drawing import Text


@pytest.fixture
def sheet(demo):
    demo.press("Alt+S")
    return demo


def test_the_pages_are_shown_in_the_chosen_paper(sheet):
    assert sheet.place.pages.pages[0].high == (210.0, 297.0)
    sheet.place.paper.setCurrentIndex(1)
    assert sheet.place.pages.pages[0].high == (215.9, 279.4)
    sheet.shell.close()
    assert sheet.kept[-1].paper == "letter"


def test_the_preview_is_paper_in_both_themes(sheet):
    for _ in range(2):
        image = sheet.place.pages.grab().toImage()
        assert image.pixelColor(image.width() // 2, 24).name() == "#ffffff"
        sheet.press("Ctrl+T")


def test_a_revision_is_issued_and_an_edit_makes_it_a_draft_again(sheet):
    assert sheet.place.state.text() == "Draft, not issued"
    issue(sheet)
    assert sheet.place.state.text().startswith("Revision 1, issued ")
    assert not sheet.place.issue_button.isEnabled()
    QApplication.processEvents()
    assert sheet.shell.band.state.text() == "revision 1"
    sheet.document.type_text("header/title", "Other")
    QApplication.processEvents()
    assert sheet.place.state.text() == "Draft after revision 1, not issued"
    assert sheet.shell.band.state.text() == "draft after 1"
    sheet.press("Ctrl+Z")
    assert sheet.place.state.text().startswith("Revision 1, issued ")


def issue(person, *, change="", reason="", author="A. Author"):
    """Issue what is in front, by what is typed in the question."""
    person.click(person.place.issue_button)
    dialog = person.place.dialog
    for field, text in ((dialog.author, author), (dialog.change, change), (dialog.reason, reason)):
        field.setText(text)
    person.click(dialog.issue_button)
    return dialog


def words(person):
    pages = person.place.pages.pages
    return " ".join(item.text for page in pages for item in page.items if isinstance(item, Text))


def test_the_keyboard_stands_at_the_pages_and_no_stray_key_issues(sheet):
    assert sheet.focus() is sheet.place.scroll
    sheet.press("Return", "Space")
    sheet.click(sheet.place.issue_button)
    sheet.place.dialog.author.setText("A. Author")
    sheet.place.dialog.author.setFocus()
    sheet.press("Return")
    assert sheet.desk.revisions(sheet.document) == ()
    sheet.press("Escape")
    assert sheet.place.state.text() == "Draft, not issued"


def test_what_cannot_be_issued_says_why(sheet):
    dialog = issue(sheet, author="")
    assert dialog.complaint.text().startswith("author: nobody issues it")
    dialog.reject()
    sheet.settle()
    sheet.document.type_text("joint/thickness_mm", "x")
    sheet.find("issue revision")
    assert "1 text not taken over" in sheet.place.complaint.text()


def test_each_revision_says_what_changed(sheet):
    issue(sheet)
    sheet.document.type_text("header/title", "Other")
    dialog = issue(sheet)
    assert dialog.complaint.text() == "change: what changed since the last revision is not said; type it"
    dialog.change.setText("the title")
    sheet.click(dialog.issue_button)
    assert sheet.place.state.text().startswith("Revision 2")
    assert "What changed: the title" in words(sheet)
    sheet.document.type_text("header/title", "Third")
    assert "What changed" not in words(sheet)
    sheet.click(sheet.place.issue_button)
    assert sheet.place.dialog.change.text() == "", "it belongs to each revision"


def test_what_is_outside_is_issued_only_with_a_reason_that_is_printed(sheet):
    sheet.document.type_text("range/thickness_mm", "6..40")
    sheet.settle()
    dialog = issue(sheet)
    assert "Outside: 1" in dialog.listed.text()
    assert "Base metal thickness: 6..40" in dialog.listed.text()
    assert dialog.complaint.text().startswith("reason: why it is issued with 1 outside, 2 unproven is not said")
    dialog.reason.setText("trial piece, not for the job")
    sheet.click(dialog.issue_button)
    assert "Issued although not everything is inside: trial piece, not for the job" in words(sheet)


def test_a_preheat_below_the_construction_code_needs_a_reason_and_stands_on_the_sheet(demo):
    demo.desk.open_document(next(each.id for each in demo.desk.works.entries() if each.number == "OST-W-05"))
    demo.press("Alt+S")
    demo.settle()
    asks = "ASME B31.1 asks 200 °C, 50 K more than is chosen."
    assert f"Preheat: outside. {asks}" in words(demo)
    assert "()" not in words(demo), "a demand that nobody stated has no clause"
    dialog = issue(demo)
    assert f"  Preheat: {asks}" in dialog.listed.text().splitlines()
    assert dialog.reason.isVisibleTo(dialog)
    assert demo.desk.revisions(demo.document) == ()


def test_an_empty_procedure_is_issued_only_with_a_reason(newcomer):
    newcomer.press("Alt+S")
    newcomer.settle()
    dialog = issue(newcomer)
    assert dialog.listed.text() == "No passes are stated.\nNot judged: no code is stated."
    assert "no passes are stated, not judged" in dialog.complaint.text()
    assert newcomer.desk.revisions(newcomer.document) == ()


def test_the_sheet_is_saved_as_pdf(sheet, tmp_path, monkeypatch):
    target = tmp_path / "sheet.pdf"
    monkeypatch.setattr(QFileDialog, "getSaveFileName", lambda *_: (str(target), ""))
    sheet.press("Alt+J", "Ctrl+E")
    assert sheet.desk.place == "sheet"
    assert target.read_bytes().startswith(b"%PDF-")
    sheet.place.save_pdf(tmp_path / "no/such/folder.pdf")
    assert "cannot be written" in sheet.place.complaint.text()


def test_a_hidden_sheet_is_not_set_with_every_key(sheet):
    before = sheet.place.pages.pages
    place = sheet.place
    sheet.press("Alt+J")
    sheet.document.type_text("joint/thickness_mm", "19")
    assert place.pages.pages is before
    sheet.press("Alt+S")
    assert place.pages.pages is not before


def test_the_sheet_is_shown_before_judging_caught_up(demo):
    demo.press("Alt+P")
    demo.desk.document.type_text("header/title", "Typed just now")
    demo.desk.document.type_text("joint/thickness_mm", "40")
    demo.desk.go("sheet")  # in the same turn of the event loop
    assert demo.place.pages.pages
    words = {item.text for page in demo.place.pages.pages for item in page.items if isinstance(item, Text)}
    assert any("Typed just now" in each for each in words)
    demo.settle()
    assert demo.place.proof.judgement.verdict != "inside"


def test_the_pages_are_made_once_for_an_edit(demo, monkeypatch):
    demo.press("Alt+S")
    made = []
    whole = demo.place._made
    monkeypatch.setattr(demo.place, "_made", lambda state: made.append(state) or whole(state))
    demo.desk.document.type_text("header/title", "Once")
    demo.settle()
    assert len(made) == 1


# Earlier revisions ---------------------------------------------------------------------------


@pytest.fixture
def twice(sheet):
    """Someone at a procedure that was issued twice and edited since."""
    issue(sheet)
    sheet.document.type_text("header/title", "Second")
    sheet.document.type_text(f"passes/{sheet.wps.passes[0].id}/current_a", "99..120")
    issue(sheet, change="title and root")
    sheet.document.type_text("preheat/minimum_c", "95")
    sheet.settle()
    return sheet


def choose(person, box, text):
    (index,) = [n for n in range(box.count()) if box.itemText(n).startswith(text)]
    box.setCurrentIndex(index)
    box.activated.emit(index)
    person.settle()


def test_an_earlier_revision_is_shown_as_it_was_and_the_draft_stays(twice, tmp_path):
    place, before = twice.place, twice.document.working
    choose(twice, place.shown, "revision 1")
    assert "Penstock shell, longitudinal seam" in words(twice)
    assert "What changed" not in words(twice)
    choose(twice, place.shown, "revision 2")
    assert "What changed: title and root" in words(twice)
    assert twice.document.working is before
    place.save_pdf(tmp_path / "second.pdf")
    assert b"/Author (A. Author)" in (tmp_path / "second.pdf").read_bytes()
    assert twice.shell.notice.text.text() == f"OST-W-01 revision 2 is written to {tmp_path / 'second.pdf'}."


def test_two_states_stand_beside_each_other_with_what_differs(twice):
    place = twice.place
    assert place.comparison.isHidden()
    choose(twice, place.shown, "revision 1")
    choose(twice, place.beside, "as it is now")
    table = place.comparison.table
    rows = [[table.item(row, column).text() for column in range(3)] for row in range(table.rowCount())]
    assert rows == [
        ["Title", "Penstock shell, longitudinal seam", "Second"], ["Preheat, least", "80 °C", "95 °C"],
        ["Current of pass 1", "95..115 A", "99..120 A"],
    ]  # fmt: skip
    assert place.other_pages.pages
    place.scroll.verticalScrollBar().setValue(300)
    assert place.other_scroll.verticalScrollBar().value() == 300
    choose(twice, place.beside, "nothing")
    assert place.other_scroll.isHidden()


def test_what_is_shown_is_printed(twice, tmp_path):
    choose(twice, twice.place.shown, "revision 1")
    twice.press("Ctrl+P")
    assert twice.place.print_dialog.windowTitle() == "Print OST-W-01 revision 1"
    printer = twice.place.print_dialog.printer()
    printer.setOutputFormat(QPrinter.OutputFormat.PdfFormat)
    printer.setOutputFileName(str(tmp_path / "printed.pdf"))
    QDialog.accept(twice.place.print_dialog)
    data = (tmp_path / "printed.pdf").read_bytes()
    assert data.count(b"/Type /Page\n") + data.count(b"/Type /Page ") == len(twice.place.pages.pages)


def test_before_the_first_revision_there_is_nothing_to_choose(sheet):
    assert sheet.place.shown.isHidden()
    issue(sheet)
    assert sheet.place.shown.isVisible()


def test_the_file_of_a_sheet_is_proposed_by_number_and_revision_in_the_documents(twice, monkeypatch):
    asked = []
    monkeypatch.setattr(QFileDialog, "getSaveFileName", lambda *words: asked.append(words[2]) or ("", ""))
    twice.press("Ctrl+E")
    choose(twice, twice.place.shown, "revision 1")
    twice.press("Ctrl+E")
    assert [Path(name).name for name in asked] == ["OST-W-01 draft.pdf", "OST-W-01 revision 1.pdf"]
    assert all(Path(name).is_absolute() for name in asked)


def test_the_waits_are_worked_out_beside_and_nothing_is_printed_without_them(demo):
    entries = {entry.number: entry.id for entry in demo.desk.works.all_entries()}
    demo.desk.open_document(entries["OST-W-02"])
    demo.document.type_text("piece/half_width_mm", "143")
    demo.press("Alt+S")
    place = demo.place
    assert not place.pdf_button.isEnabled()
    assert "being worked out" in place.print_button.toolTip()
    end = time.monotonic() + 30
    while place.runs.is_due and time.monotonic() < end:
        demo.settle()
        time.sleep(0.02)
    demo.settle()
    assert place.pdf_button.isEnabled()
    texts = [item.text for page in place._in_hand().pages for item in page.items if isinstance(item, Text)]
    assert any(text.startswith("Wait before pass") for text in texts)
