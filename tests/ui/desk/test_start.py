"""A start after one that came to no end: what froze or killed the window is not opened again by itself."""

import subprocess
import sys

from PySide6.QtWidgets import QApplication

from anlage.session.machine.settings import state_folder
from anlage.session.works.demo import demo_file
from tests.ui.conftest import NOW

FROZEN = """
import sys, time
from pathlib import Path
from anlage.ui.desk import app
from anlage.ui.desk.desk import WindowDesk
def stuck(self, place):
    print("opening", flush=True)
    time.sleep(600)
WindowDesk.go = stuck
app.run(lambda settings: Path(sys.argv[1]))
"""

OPENED = """
import builtins, sys
plain = builtins.__import__
from pathlib import Path
from anlage.session.machine.settings import Settings
from anlage.ui.desk.app import application, open_window
running = application(["anlage"])
window = open_window(Settings(), lambda: Path(sys.argv[1]), lambda _settings: None)
while window.desk is None or window.desk.strip is None or window.desk.strip.proof is None:
    running.processEvents()
loaded = list(sys.modules)
from PySide6.QtPrintSupport import QPrinter
try:
    QPrinter().setCopyCount("two")
except TypeError as refusal:
    print("setCopyCount" in str(refusal), builtins.__import__ is plain, file=sys.stderr)
print(*loaded)
"""


def frozen_start(path):
    """A start that freezes while its document is opened, and that somebody ends."""
    with subprocess.Popen([sys.executable, "-c", FROZEN, str(path)], stdout=subprocess.PIPE, text=True) as child:
        assert child.stdout.readline() == "opening\n"
        child.kill()


def test_after_a_start_without_end_the_register_is_shown_and_no_document_is_open(open_person, tmp_path):
    path = demo_file(NOW, folder=tmp_path)
    frozen_start(path)
    person = open_person(path, place="sheet")
    person.settle()
    assert (person.desk.place, person.document) == ("register", None)
    assert person.shell.notice.text.text().endswith("no document is open: choose one here.")
    assert [row.number for row in person.place.rows][:2] == ["OST-W-01", "OST-W-02"]
    person.press("Down", "Down", "Return")
    assert person.wps.header.number == "OST-W-02"
    again = open_person(tmp_path / "other.anlage")
    assert again.document is not None, "told once"


def test_from_the_register_without_a_document_every_place_finds_one(open_person, tmp_path):
    path = demo_file(NOW, folder=tmp_path)
    frozen_start(path)
    person = open_person(path)
    for keys in ("Ctrl+Z", "Ctrl+Shift+Z", "Ctrl+E", "Ctrl+U", "Ctrl+K", "Escape"):
        person.press(keys)
        person.settle()
    person.press("Alt+P")
    assert (person.desk.place, person.wps.header.number) == ("passes", "OST-W-01")


def test_a_start_that_came_to_its_end_is_no_reason(open_person, tmp_path):
    path = demo_file(NOW, folder=tmp_path)
    state_folder().mkdir(parents=True)
    (state_folder() / "running-1.starting").touch()  # of a process that is there
    person = open_person(path)
    QApplication.processEvents()
    assert person.document is not None


def test_the_first_document_with_its_verdicts_waits_for_nothing_that_it_does_not_show(tmp_path):
    path = demo_file(NOW, folder=tmp_path)
    done = subprocess.run([sys.executable, "-c", OPENED, str(path)], capture_output=True, text=True, check=True)
    loaded = done.stdout.split()
    assert {"anlage.session.judging.assessment", "anlage.ui.places.job.place"} <= set(loaded)
    other_places = (
        "anlage.core.beads",
        "anlage.core.proposal",
        "anlage.session.weld.figures",
        "anlage.ui.desk.finding",
    )
    unwanted = ("numpy", "scipy", "difflib", "anlage.core.drawing.section", *other_places)
    assert [name for name in loaded if name.startswith(unwanted)] == []
    assert done.stderr.split() == ["True", "True"], "Qt reads no source of what is imported, and works all the same"
