"""A works file that cannot be written: it is said, nothing typed is lost, and the window does not close over it."""

import sqlite3
from pathlib import Path

import pytest
from msgspec.structs import replace
from PySide6.QtWidgets import QApplication, QFileDialog

from anlage.session.works.demo import demo_file
from anlage.store import copies_of, create_works, open_works
from anlage.ui.desk.leaving import LeavingDialog
from tests.demo import NUMBERS

NOW = "2026-11-23T12:00:00Z"
LONG = "Penstock shells " * 20_000  # more than a title may be: it waits in its field, and is kept


@pytest.fixture(autouse=True)
def _quick(monkeypatch):
    monkeypatch.setattr("anlage.store.saver.AGAIN_S", 0.05)


def full_disk(person):
    """Let the works file grow no more."""
    live = person.desk.works._file._database._connection
    (pages,) = live.execute("PRAGMA page_count").fetchone()
    live.execute(f"PRAGMA max_page_count = {pages}")


def room(person):
    person.desk.works._file._database._connection.execute("PRAGMA max_page_count = 1000000")


def question(person):
    (found,) = [each for each in person.shell.findChildren(LeavingDialog) if each.isVisible()]
    return found


@pytest.fixture
def full(demo, qtbot):
    """Someone who typed a long title while the disk was full, and was told."""
    full_disk(demo)
    demo.document.type_text("header/title", LONG)
    qtbot.waitUntil(lambda: "the disk is full" in demo.shell.notice.text.text())
    demo.settle()
    yield demo
    if demo.desk.works is not None:
        room(demo)


def test_a_full_disk_is_told_for_as_long_as_it_is_full_and_the_draft_saved_once_there_is_room(full, qtbot, tmp_path):
    assert full.shell.notice.text.text().startswith("OST-W-01 is not saved: ostrel-demo.anlage: the disk is full; make")
    assert full.shell.band.state.text() == "not saved"
    assert full.shell.windowTitle().startswith("not saved: OST-W-01")
    full.desk.say("Something else.")
    assert "the disk is full" in full.shell.notice.text.text(), "no other sentence puts it away"
    full.shell.notice.away.click()
    assert full.shell.notice.isVisible()
    assert "Something else" not in full.shell.notice.text.text()
    room(full)
    qtbot.waitUntil(full.shell.notice.isHidden)
    full.settle()
    assert full.shell.band.state.text() == "draft"
    with open_works(demo_file(NOW, folder=tmp_path), read_only=True) as works:
        assert works.draft(full.document.document_id).pending == {"header/title": LONG}


def test_the_window_does_not_close_over_what_is_not_saved(full):
    full.shell.close()
    assert full.shell.isVisible()
    asked = question(full)
    assert "OST-W-01 is not saved" in asked.said.text()
    asked.reject()
    full.settle()
    assert full.shell.isVisible(), "Esc stays"
    assert full.document.working.pending == {"header/title": LONG}


def test_the_question_goes_once_everything_is_saved_and_what_was_wanted_is_done(full, qtbot, tmp_path):
    full.shell.close()
    assert question(full).isVisible()
    room(full)
    qtbot.waitUntil(full.shell.isHidden)
    with open_works(demo_file(NOW, folder=tmp_path), read_only=True) as works:
        assert works.draft(works.entries()[0].id).pending == {"header/title": LONG}


def test_try_again_closes_once_there_is_room(full, qtbot, tmp_path, monkeypatch):
    monkeypatch.setattr("anlage.store.saver.AGAIN_S", 600)  # not by itself
    full.shell.close()
    full.click(question(full).buttons["Try again"])
    full.settle()
    assert full.shell.isVisible()
    asked = question(full)
    room(full)
    full.click(asked.buttons["Try again"])
    qtbot.waitUntil(full.shell.isHidden)
    with open_works(demo_file(NOW, folder=tmp_path), read_only=True) as works:
        assert works.draft(works.entries()[0].id).pending == {"header/title": LONG}


def test_close_without_saving_closes_and_the_file_is_as_it_was(full, qtbot, tmp_path):
    full.shell.close()
    full.click(question(full).buttons["Close without saving"])
    qtbot.waitUntil(full.shell.isHidden)
    with open_works(demo_file(NOW, folder=tmp_path)) as works:
        assert works.can_write
        assert works.draft(works.entries()[0].id).pending == {}


def test_save_elsewhere_keeps_everything_and_then_closes(full, qtbot, tmp_path, monkeypatch):
    other = tmp_path / "stick.anlage"
    monkeypatch.setattr(QFileDialog, "getSaveFileName", lambda *_, **__: (str(other), ""))
    full.shell.close()
    full.click(question(full).buttons["Save under another name…"])
    qtbot.waitUntil(full.shell.isHidden)
    with open_works(other, read_only=True) as works:
        assert works.draft(works.entries()[0].id).pending == {"header/title": LONG}
        assert works.verify() == ()


def test_another_works_file_is_not_opened_over_what_is_not_saved(full, tmp_path):
    create_works(tmp_path / "other.anlage").close()
    assert not full.desk.open_file(tmp_path / "other.anlage")
    assert full.desk.works.path.name == "ostrel-demo.anlage"
    full.click(question(full).buttons["Close without saving"])
    full.settle()
    assert full.desk.works.path.name == "other.anlage"
    assert full.shell.notice.isHidden()


def test_a_revision_is_not_issued_when_its_draft_could_not_be_saved(demo, tmp_path):
    full_disk(demo)
    passes = [replace(each, id=f"q{n}") for n, each in enumerate(demo.wps.passes * 40, start=100)]
    demo.document.edit(replace(demo.wps, passes=tuple(passes), ids=9999), "Passes")
    demo.desk.go("sheet")
    demo.place.issue()
    demo.place.dialog.author.setText("A. Maker")
    demo.place.dialog.reason.setText("to see it refused")
    demo.place.dialog.issue()
    said = demo.place.dialog.complaint.text()
    room(demo)
    assert said.startswith(
        "ostrel-demo.anlage: OST-W-01 is not issued, for its draft is not saved: the disk is full; make room"
    )
    with open_works(demo_file(NOW, folder=tmp_path), read_only=True) as works:
        assert works.links() == ()


def test_each_command_that_writes_says_why_it_cannot_and_does_nothing_else(demo):
    before = [(entry.id, entry.number) for entry in demo.desk.works.all_entries()]
    in_front = demo.document
    demo.desk.works._keep_copy()  # what is kept beside is another matter
    live = demo.desk.works._file._database._connection
    live.set_authorizer(
        lambda action, *_: sqlite3.SQLITE_DENY if action in (sqlite3.SQLITE_INSERT, sqlite3.SQLITE_UPDATE) else 0
    )
    for keys in ("Ctrl+N", "Ctrl+Shift+R", "Ctrl+Shift+D", "Ctrl+Backspace"):
        demo.desk.say("")
        demo.press(keys)
        assert demo.shell.notice.text.text().startswith("ostrel-demo.anlage: "), keys
        assert len(demo.shell.notice.text.text().splitlines()) == 1
        assert [(entry.id, entry.number) for entry in demo.desk.works.all_entries()] == before
        assert demo.document is in_front
    live.set_authorizer(None)


def test_a_file_renamed_under_the_window_goes_on_being_written(demo, tmp_path):
    path = demo.desk.works.path
    demo.document.type_text("joint/thickness_mm", "21")
    demo.desk.flush()
    path.rename(path.with_name("renamed.anlage"))
    demo.document.type_text("joint/thickness_mm", "22")
    assert demo.desk.flush() == {}
    with open_works(tmp_path / "renamed.anlage", read_only=True) as works:
        assert '"thickness_mm": 22.0' in works.draft(demo.document.document_id).body


def test_a_file_removed_under_the_window_is_told_and_saved_under_another_name(demo, qtbot, tmp_path, monkeypatch):
    demo.desk.works.path.unlink()
    demo.document.type_text("joint/thickness_mm", "22")
    qtbot.waitUntil(lambda: "it is no longer there" in demo.shell.notice.text.text())
    other = tmp_path / "saved.anlage"
    monkeypatch.setattr(QFileDialog, "getSaveFileName", lambda *_, **__: (str(other), ""))
    stack = demo.document.undo_stack
    demo.press("Ctrl+Shift+S")
    qtbot.waitUntil(lambda: demo.desk.works.path == other)
    assert demo.shell.notice.text.text() == "Saved as saved.anlage; from here on you write in it."
    demo.document.type_text("joint/thickness_mm", "23")
    assert demo.desk.flush() == {}
    assert demo.document.undo_stack is stack, "what was done can still be undone"
    with open_works(other, read_only=True) as works:
        assert '"thickness_mm": 23.0' in works.draft(demo.document.document_id).body


def test_the_file_that_is_open_is_opened_again_without_any_change(demo, tmp_path):
    works, document = demo.desk.works, demo.document
    demo.document.type_text("joint/thickness_mm", "21")
    link = tmp_path / "link.anlage"
    link.symlink_to(works.path)
    for path in (works.path, link):
        assert demo.desk.open_file(path)
        assert demo.desk.works is works
        assert demo.document is document
        assert demo.document.undo_stack.canUndo()


def test_a_file_that_is_only_read_is_saved_under_another_name_and_written_there(
    demo, open_person, tmp_path, monkeypatch
):
    second = open_person(demo.desk.works.path)
    assert not second.document.can_write
    monkeypatch.setattr(QFileDialog, "getSaveFileName", lambda *_, **__: (str(tmp_path / "mine"), ""))
    second.press("Ctrl+Shift+S")
    second.settle()
    assert second.desk.works.path == tmp_path / "mine.anlage"
    assert second.document.can_write
    second.document.type_text("joint/thickness_mm", "23")
    assert second.desk.flush() == {}


def test_every_document_is_saved_as_json(demo, tmp_path, monkeypatch):
    folder = tmp_path / "out"
    folder.mkdir()
    (folder / "OST-W-01.json").write_text("keep")
    demo.document.type_text("header/number", "OST/W 01")
    monkeypatch.setattr(QFileDialog, "getExistingDirectory", lambda *_, **__: str(folder))
    demo.find("Save every document as JSON")
    names = sorted(each.name for each in folder.iterdir())
    assert names == sorted([*(f"{number}.json" for number in NUMBERS), "OST-W 01.json"])
    assert (folder / "OST-W-01.json").read_text() == "keep"


def test_the_state_before_the_first_change_is_kept_beside_the_file(demo):
    assert copies_of(demo.desk.works.path) == ()
    demo.document.type_text("joint/thickness_mm", "21")
    demo.desk.flush()
    demo.document.type_text("joint/thickness_mm", "22")
    demo.desk.flush()
    (copy,) = copies_of(demo.desk.works.path)
    with open_works(copy, read_only=True) as works:
        assert '"thickness_mm": 18.0' in works.draft(demo.document.document_id).body


def test_a_copy_that_could_not_be_kept_is_told_and_the_draft_is_saved(demo, qtbot):
    path: Path = demo.desk.works.path
    path.with_name("ostrel-demo copies").write_text("a file where the folder should be")
    demo.document.type_text("joint/thickness_mm", "21")
    assert demo.desk.flush() == {}
    qtbot.waitUntil(lambda: "No copy was kept" in demo.shell.notice.text.text())


def test_what_was_not_saved_is_not_said_to_be_saved_after_a_fault(full, monkeypatch, capsys):
    import sys  # noqa: PLC0415

    from anlage.ui.desk.app import catch_faults  # noqa: PLC0415

    monkeypatch.setattr(sys, "excepthook", sys.excepthook)
    catch_faults(full.window)
    fault = ZeroDivisionError("torch")
    sys.excepthook(type(fault), fault, fault.__traceback__)
    assert "Something went wrong, and the draft is not saved" in full.shell.notice.text.text()
    capsys.readouterr()
    QApplication.processEvents()
