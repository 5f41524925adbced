"""The shell: commands, palette, job data, units, theme, files, and what happens when something goes wrong."""

import subprocess
import sys
import time
from pathlib import Path

import pytest
from PySide6.QtCore import QEvent, QPoint, Qt
from PySide6.QtGui import QHelpEvent
from PySide6.QtWidgets import QApplication, QFileDialog, QLabel

from anlage.session.kinds import RECORD
from anlage.session.machine.settings import Settings, last_works, state_folder
from anlage.session.works.demo import demo_file
from anlage.store import open_works
from anlage.ui.desk.app import catch_faults
from anlage.ui.desk.finding import entries
from anlage.ui.desk.incoming import open_named
from anlage.ui.frame.palette import Entry, matching
from anlage.ui.places import place_specs
from tests.demo import PROCEDURES, following

NOW = "2026-11-23T12:00:00Z"


def test_nothing_but_the_window_itself_ever_opens(demo):
    demo.press("Alt+P", "Alt+J")
    demo.desk.open_document(demo.desk.works.entries()[1].id)
    demo.press("Alt+P")
    assert [w for w in QApplication.topLevelWidgets() if w.isVisible()] == [demo.shell]
    assert demo.shell.isActiveWindow()


def test_every_command_has_a_name_and_no_shortcut_comes_twice(demo):
    for document in (demo.desk.works.entries()[0], demo.desk.works.entries(RECORD)[0]):
        demo.desk.open_document(document.id)
        can = [action for action in demo.shell.commands if action.isEnabled() and not action.shortcut().isEmpty()]
        keys = [action.shortcut().toString() for action in can]
        assert len(keys) == len(set(keys))
    assert all(action.text() and action.toolTip() for action in demo.shell.commands)


def test_every_button_says_what_it_is(demo):
    demo.press("Alt+P")
    for button in (*demo.place.tools.values(), demo.shell.band.undo, demo.shell.band.search, demo.shell.band.theme):
        assert button.accessibleName()
        assert button.toolTip()


def test_the_palette_finds_commands_procedures_and_fields(demo):
    demo.find("root face")
    assert demo.focus() is demo.place.column.fields["joint/root_face_mm"]
    demo.find("ost-w-02")
    assert demo.wps.header.number == "OST-W-02"
    demo.find("go to passes")
    assert demo.desk.place == "passes"
    demo.press("Ctrl+K")
    demo.press("Escape")
    assert demo.desk.palette.isHidden()


def test_the_palette_lists_what_starts_so_first_and_wraps_round(demo):
    found = matching([Entry("Go to Joint", "", print), Entry("Joint", "", print), Entry("Passes", "", print)], "joint")
    assert [entry.text for entry in found] == ["Joint", "Go to Joint"]
    demo.press("Ctrl+K")
    count = demo.desk.palette.list.count()
    demo.press("Up")
    assert demo.desk.palette.list.currentRow() == count - 1
    demo.press("Down")
    assert demo.desk.palette.list.currentRow() == 0
    demo.type("no such thing at all")
    demo.press("Return", "Escape")
    assert demo.desk.palette.list.count() == 0


def test_every_field_the_palette_offers_can_be_gone_to(demo):
    for entry in entries(demo.desk):
        if entry.note == "field":
            entry.do()
            assert demo.focus().accessibleName().startswith(entry.text), entry.text


def test_number_and_title_are_stated_at_the_job(demo):
    demo.press("Ctrl+J")
    demo.place.fields["header/number"].setFocus()
    demo.place.fields["header/number"].selectAll()
    demo.fill("OST-W-09")
    demo.fill("Gate leaf")
    assert (demo.wps.header.number, demo.wps.header.title) == ("OST-W-09", "Gate leaf")
    assert demo.shell.band.number.text() == "OST-W-09"
    assert demo.shell.windowTitle().startswith("OST-W-09")


def test_a_number_that_another_procedure_has_is_marked(demo):
    demo.press("Ctrl+J")
    field = demo.place.fields["header/number"]
    field.setFocus(Qt.FocusReason.TabFocusReason)
    demo.fill("OST-W-02")
    assert field.property("mark") == "clash"
    assert "another document's" in field.toolTip()


def test_the_theme_is_switched_at_once_and_kept(demo, open_person):
    light = demo.shell.grab().toImage().pixelColor(4, 400)
    demo.press("Ctrl+T")
    dark = demo.shell.grab().toImage().pixelColor(4, 400)
    assert light.lightness() > 200
    assert dark.lightness() < 60
    demo.press("Ctrl+U", "Alt+P")
    demo.shell.close()
    kept = demo.kept[-1]
    assert (kept.theme, kept.units, kept.place) == ("dark", "us", "passes")
    again = open_person(Path(kept.recent[0]), **kept._asdict())
    assert again.shell.reader.look.theme == "dark"


def test_units_and_theme_are_no_edit(demo):
    before = demo.document.working
    demo.press("Ctrl+U", "Ctrl+T", "Alt+P", "Ctrl+U")
    assert demo.document.working is before
    assert not demo.document.undo_stack.canUndo()


def test_each_procedure_keeps_its_own_steps(demo):
    first, second, *_ = (entry.id for entry in demo.desk.works.entries())
    demo.document.type_text("joint/thickness_mm", "20")
    demo.desk.open_document(second)
    assert not demo.document.undo_stack.canUndo()
    demo.desk.open_document(first)
    demo.press("Ctrl+Z")
    assert demo.wps.joint.thickness_mm == 18


def test_the_step_to_undo_is_named(demo):
    demo.document.type_text("joint/thickness_mm", "20")
    assert demo.shell.band.undo.toolTip() == "Undo Thickness (Ctrl+Z)"
    demo.press("Ctrl+Z")
    assert not demo.desk.actions["undo"].isEnabled()
    assert demo.desk.actions["redo"].text() == "Redo Thickness"


def test_a_procedure_is_duplicated_put_away_and_brought_back(demo):
    demo.press("Ctrl+Shift+D")
    assert demo.wps.header.number == following(PROCEDURES)
    assert demo.wps.joint.thickness_mm == 18
    demo.press("Ctrl+Backspace")
    assert [entry.number for entry in demo.desk.works.entries()] == PROCEDURES
    assert "Bring it back with Ctrl+Shift+Backspace" in demo.shell.notice.text.text()
    demo.press("Ctrl+Shift+Backspace")
    assert demo.wps.header.number == following(PROCEDURES)
    assert demo.shell.notice.isHidden()


def test_the_last_procedure_put_away_leaves_a_new_one(person):
    person.press("Ctrl+Backspace")
    assert person.wps.header.number == "WPS-001"
    assert len(person.desk.works.entries()) == 1


def test_an_empty_window_offers_a_file_and_the_demo(open_person):
    person = open_person(None)
    assert person.shell.stack.currentWidget() is person.desk.welcome
    person.press(
        "Ctrl+N", "Ctrl+Z", "Ctrl+Return", "Ctrl+J", "Ctrl+Backspace", "Ctrl+Shift+D", "Ctrl+Shift+Backspace", "F8"
    )
    assert person.document is None
    assert "Open a works file" in person.shell.notice.text.text()
    person.desk.open_demo()
    assert person.wps.header.number == "OST-W-01"


def test_a_file_that_cannot_be_opened_is_told_and_the_open_one_stays(demo, tmp_path):
    (tmp_path / "x.anlage").write_text("no")
    before = demo.document
    assert not demo.desk.open_file(tmp_path / "x.anlage")
    assert demo.document is before
    assert demo.shell.notice.text.text() == "x.anlage: it is no works file; choose a file that Anlage made"
    open_named(demo.desk, str(tmp_path / "gone.anlage"))
    assert "is no longer there" in demo.shell.notice.text.text()


@pytest.mark.usefixtures("demo")
def test_a_second_window_reads_only_and_says_who_writes(open_person, tmp_path):
    second = open_person(demo_file(NOW, folder=tmp_path))
    assert "open for reading only" in second.shell.notice.text.text()
    field = second.place.column.fields["joint/thickness_mm"]
    assert field.isReadOnly()
    before = second.document.working
    second.drag(second.place.section, "joint/thickness_mm", (0.0, 3.0))
    second.press("Ctrl+Return", "Ctrl+N")
    assert second.document.working is before


def test_the_last_works_file_is_opened_again_if_it_is_there(tmp_path):
    assert last_works(Settings()) is None
    assert last_works(Settings(recent=(str(tmp_path / "gone.anlage"),))) is None
    (tmp_path / "w.anlage").touch()
    assert last_works(Settings(recent=(str(tmp_path / "w.anlage"),))) == tmp_path / "w.anlage"


def test_a_fault_nobody_foresaw_saves_the_draft_logs_and_is_told_at_the_next_start(
    demo, open_person, tmp_path, monkeypatch, capsys
):
    monkeypatch.setattr(sys, "excepthook", sys.excepthook)
    catch_faults(demo.window)
    demo.document.type_text("joint/thickness_mm", "21")
    fault = ZeroDivisionError("torch")
    sys.excepthook(type(fault), fault, fault.__traceback__)
    assert "Something went wrong; the draft is saved" in demo.shell.notice.text.text()
    assert "ZeroDivisionError: torch" in capsys.readouterr().err
    with open_works(demo_file(NOW, folder=tmp_path), read_only=True) as works:
        assert '"thickness_mm": 21.0' in works.draft(demo.document.document_id).body
    assert list(state_folder().glob("crash-*.log"))
    demo.shell.close()
    again = open_person(demo_file(NOW, folder=tmp_path))
    assert "In the last run something went wrong" in again.shell.notice.text.text()


KILLED = """
import sys
from pathlib import Path
from PySide6.QtTest import QTest
from anlage.session.machine.settings import Settings
from anlage.ui.desk.app import application, open_window
running = application(["anlage"])
window = open_window(Settings(), lambda: Path(sys.argv[1]), lambda _settings: None)
while window.desk is None:
    running.processEvents()
window.desk.go("joint")
field = window.desk.current_place().column.fields["joint/thickness_mm"]
field.setFocus()
QTest.keyClicks(field, "12.5")
print("typed", flush=True)
running.exec()
"""


def test_a_killed_window_loses_at_most_the_last_second(tmp_path):
    path = tmp_path / "killed.anlage"
    with subprocess.Popen([sys.executable, "-c", KILLED, str(path)], stdout=subprocess.PIPE, text=True) as window:
        assert window.stdout.readline() == "typed\n"
        time.sleep(1.0)  # the promise itself is a second
        window.kill()
    with open_works(path) as works:
        (entry,) = works.entries()
        assert '"thickness_mm": 12.5' in works.draft(entry.id).body
        assert works.can_write


@pytest.mark.parametrize("size", [(1024, 700), (1280, 800), (1920, 1080)])
def test_no_text_of_a_label_is_cut_off(open_person, tmp_path, size):
    width, height = size
    person = open_person(demo_file(NOW, folder=tmp_path), width=width, height=height)
    for sign in place_specs():
        for _ in range(2):
            person.press("Ctrl+U")
            person.desk.go(sign.id)
            QApplication.processEvents()
            for label in person.place.findChildren(QLabel):
                if label.isVisible() and not label.wordWrap():
                    assert label.width() >= label.fontMetrics().horizontalAdvance(label.text().split("\n")[0]) - 1, (
                        label.text()
                    )
    assert person.shell.size().width() == width


# The proof strip -----------------------------------------------------------------------------


def strip(person):
    QApplication.processEvents()
    return [text for _, text in person.desk.strip.parts()]


def test_the_proof_strip_follows_every_edit(demo):
    assert strip(demo) == ["47 inside"]
    demo.press("Ctrl+J")
    demo.place.fields["range/thickness_mm"].setFocus(Qt.FocusReason.TabFocusReason)
    demo.fill("6..40")
    assert strip(demo) == ["46 inside", "1 outside"]
    at = QHelpEvent(QEvent.Type.ToolTip, QPoint(2, 2), QPoint(2, 2))
    QApplication.sendEvent(demo.desk.strip, at)
    assert "Base metal thickness, outside: 6..40\u2009mm is stated; OST-R-01 allows" in demo.desk.strip.toolTip()
    assert demo.desk.strip.accessibleName() == "46 inside; 1 outside"
    demo.press("Ctrl+Z")
    assert strip(demo) == ["47 inside"]


def test_the_proof_strip_is_that_of_the_open_procedure(demo):
    demo.desk.open_document(demo.desk.works.entries()[1].id)
    assert strip(demo) == ["45 inside", "1 outside", "1 unproven"]


def test_a_new_procedure_is_not_judged_and_says_why(person):
    assert strip(person) == ["not judged: no code is stated"]


def test_the_marks_of_the_strip_are_drawn_in_both_themes(demo):
    demo.desk.open_document(demo.desk.works.entries()[1].id)
    for _ in range(2):
        demo.press("Ctrl+T")
        strip(demo)
        image, look = demo.desk.strip.grab().toImage(), demo.shell.reader.look
        drawn = {image.pixelColor(x, image.height() // 2).name() for x in range(image.width())}
        assert {look.colour[verdict].name() for verdict in ("inside", "outside")} <= drawn


def test_a_works_file_is_made_and_another_opened_through_the_dialogs(demo, tmp_path, monkeypatch):
    before = demo.desk.works.path
    monkeypatch.setattr(QFileDialog, "getSaveFileName", lambda *_: (str(tmp_path / "new"), ""))
    demo.press("Ctrl+Shift+N")
    assert demo.desk.works.path == tmp_path / "new.anlage"
    assert demo.wps.header.number == "WPS-001"
    monkeypatch.setattr(QFileDialog, "getOpenFileName", lambda *_: (str(before), ""))
    demo.press("Ctrl+O")
    assert demo.desk.works.path == before


def test_two_statements_that_disagree_are_told_at_both_fields(demo):
    demo.document.type_text("range/thickness_mm", "20..30")
    demo.settle()
    joint = demo.place.column.fields["joint/thickness_mm"]
    assert joint.property("mark") == "clash"
    assert "18\u2009mm is drawn, but the procedure is stated for 20\u2009mm to 30\u2009mm" in joint.toolTip()
    demo.press("Ctrl+J")
    demo.settle()
    stated = demo.place.fields["range/thickness_mm"]
    assert stated.property("mark") == "clash"
    assert strip(demo)[-1].endswith("unproven")
    stated.setFocus(Qt.FocusReason.TabFocusReason)
    demo.fill("6..22")
    demo.press("Alt+J")
    demo.settle()
    assert (joint.property("mark"), stated.property("mark")) == ("", "")
    assert strip(demo) == ["47 inside"]
