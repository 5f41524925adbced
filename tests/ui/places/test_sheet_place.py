"""The Sheet place: preview, paper, issuing and PDF through the real window."""

import pytest
from PySide6.QtWidgets import QApplication, QFileDialog

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
    assert dialog.complaint.text().startswith("reason: why it is issued with 1 outside is not said")
    dialog.reason.setText("trial piece, not for the job")
    sheet.click(dialog.issue_button)
    assert "Issued although not everything is inside: trial piece, not for the job" in words(sheet)


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
    sheet.press("Alt+J", "Ctrl+P")
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
    monkeypatch.setattr(demo.place, "_made", lambda standing: made.append(standing) or ())
    demo.desk.document.type_text("header/title", "Once")
    demo.settle()
    assert len(made) == 1
