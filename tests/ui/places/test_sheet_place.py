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
    sheet.place.author.setFocus()
    sheet.fill("A. Author")
    sheet.click(sheet.place.issue_button)
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


def test_what_cannot_be_issued_says_why(sheet):
    sheet.click(sheet.place.issue_button)
    assert sheet.place.complaint.text().startswith("author: nobody issues it")
    sheet.place.author.setText("A. Author")
    sheet.document.type_text("joint/thickness_mm", "x")
    sheet.find("issue revision")
    assert "was not taken over" in sheet.place.complaint.text()


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
