"""Several sheets in one go, by the window."""

import pytest
from PySide6.QtCore import Qt
from PySide6.QtWidgets import QApplication, QFileDialog

from anlage.ui.desk.batch_dialog import BatchDialog


@pytest.fixture
def batch(demo):
    demo.press("Ctrl+Shift+E")
    (dialog,) = [each for each in QApplication.topLevelWidgets() if isinstance(each, BatchDialog) and each.isVisible()]
    return demo, dialog


def test_the_ticked_procedures_go_into_one_file(batch, tmp_path, monkeypatch):
    person, dialog = batch
    dialog.list.item(1).setCheckState(Qt.CheckState.Unchecked)
    target = tmp_path / "all.pdf"
    monkeypatch.setattr(QFileDialog, "getSaveFileName", lambda *_: (str(target), ""))
    person.click(dialog.pdf_button)
    assert target.read_bytes().startswith(b"%PDF-")
    assert b"OST-W-01 draft, OST-W-03 draft" in target.read_bytes()
    assert f"pages are written to {target}." in person.shell.notice.text.text()


def test_what_was_never_issued_is_told(batch):
    person, dialog = batch
    dialog.issued.setChecked(True)
    person.click(dialog.pdf_button)
    assert dialog.complaint.text().startswith("OST-W-01 was never issued; OST-W-02 was never issued")


def test_nothing_ticked_is_said(batch):
    person, dialog = batch
    for n in range(dialog.list.count()):
        dialog.list.item(n).setCheckState(Qt.CheckState.Unchecked)
    person.click(dialog.print_button)
    assert (dialog.complaint.text(), dialog.print_dialog) == ("Tick a procedure first.", None)
    dialog.list.item(0).setCheckState(Qt.CheckState.Checked)
    person.click(dialog.print_button)
    assert dialog.print_dialog is not None
