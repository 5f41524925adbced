"""The manners of a desktop: files given, dropped and copied, a second reader, what an installation brings."""

import configparser
import os
import shlex
import subprocess
import sys
import time
import xml.etree.ElementTree as ET
import zipfile
from pathlib import Path

import pytest
from PySide6.QtCore import QMimeData, QPoint, QPointF, Qt, QUrl
from PySide6.QtGui import QDragEnterEvent, QDropEvent, QGuiApplication

from anlage.core.document import write
from anlage.core.procedure import Header, Wps
from anlage.session.machine.settings import read_settings, settings_file
from anlage.session.works.demo import demo_file
from anlage.store import create_works, open_works
from tests.demo import PROCEDURES, following
from tools.packaging import FOLDER, MADE

NOW = "2026-11-23T12:00:00Z"


def carried(*paths):
    files = QMimeData()
    files.setUrls([QUrl.fromLocalFile(str(path)) for path in paths])
    return files


def drop(person, *paths):
    """Drop files on the window."""
    files, middle = carried(*paths), person.shell.rect().center()
    buttons = (Qt.MouseButton.LeftButton, Qt.KeyboardModifier.NoModifier)
    enter = QDragEnterEvent(middle, Qt.DropAction.CopyAction, files, *buttons)
    enter.ignore()
    person.shell.dragEnterEvent(enter)
    if enter.isAccepted():
        person.shell.dropEvent(QDropEvent(QPointF(middle), Qt.DropAction.CopyAction, files, *buttons))
    person.settle()
    return enter.isAccepted()


def test_a_works_file_that_is_dropped_is_opened(demo, tmp_path):
    create_works(tmp_path / "other.anlage").close()
    assert drop(demo, tmp_path / "other.anlage")
    assert demo.desk.works.path.name == "other.anlage"


def test_a_document_that_is_dropped_is_added_and_shown(demo, tmp_path):
    path = tmp_path / "gate.json"
    path.write_text(write(Wps(header=Header(number="OST-W-77"))), encoding="utf-8")
    assert drop(demo, path)
    assert demo.wps.header.number == "OST-W-77"
    assert demo.shell.notice.text.text() == "gate.json is added."
    drop(demo, path)
    assert "OST-W-77 is in the works file already" in demo.shell.notice.text.text()


def test_what_is_neither_is_not_taken_and_no_name_of_a_file_lands_in_a_field(demo, tmp_path):
    assert not drop(demo, tmp_path / "picture.png")
    field = demo.place.column.fields["joint/thickness_mm"]
    files = carried(tmp_path / "x.json")  # an event does not keep what it carries
    buttons = (Qt.MouseButton.LeftButton, Qt.KeyboardModifier.NoModifier)
    enter = QDragEnterEvent(QPoint(4, 4), Qt.DropAction.CopyAction, files, *buttons)
    enter.ignore()
    field.dragEnterEvent(enter)
    assert not enter.isAccepted()


@pytest.mark.parametrize(("place", "name"), [("Alt+J", "section"), ("Alt+P", "beads"), ("Alt+B", "position")])
def test_the_picture_in_front_is_copied_as_svg_and_png(demo, place, name):
    demo.press(place)
    demo.settle()
    demo.find("copy the picture")
    copied = QGuiApplication.clipboard().mimeData()
    assert bytes(copied.data("image/svg+xml").data()).startswith(b"<svg")
    image = copied.imageData()
    assert image.width() > 800
    steps = [(x, y) for x in range(0, image.width(), 7) for y in range(0, image.height(), 7)]
    assert len({image.pixelColor(x, y).name() for x, y in steps}) > 2
    assert name in demo.shell.notice.text.text()


def test_a_second_reader_sees_what_the_writer_does(demo, open_person, tmp_path):
    second = open_person(demo_file(NOW, folder=tmp_path))
    assert not second.desk.works.can_write
    demo.document.type_text("header/title", "Changed by the writer")
    demo.desk.flush()
    second.desk._works._following.look()
    second.settle()
    assert second.wps.header.title == "Changed by the writer"
    assert second.shell.band.title.text() == "Changed by the writer"
    demo.desk.duplicate_document()
    demo.desk.flush()
    second.press("Alt+G")
    second.desk._works._following.look()
    second.settle()
    assert following(PROCEDURES) in [row.number for row in second.place.rows]


# What an installation brings -----------------------------------------------------------------


def entry():
    found = configparser.ConfigParser(interpolation=None, strict=True)
    found.optionxform = str
    found.read(FOLDER / "anlage.desktop", encoding="utf-8")
    return found["Desktop Entry"]


def test_the_desktop_entry_its_type_of_file_and_its_icons_belong_together():
    (kind,) = ET.parse(FOLDER / "anlage.xml").getroot()  # noqa: S314 - our own file
    assert entry()["MimeType"] == f"{kind.get('type')};"
    (glob,) = [each for each in kind if each.tag.endswith("glob")]
    assert glob.get("pattern") == "*.anlage"
    about = ET.parse(FOLDER / "local.anlage.Anlage.metainfo.xml").getroot()  # noqa: S314 - our own file
    assert about.findtext("launchable") == "anlage.desktop"
    for name in ("anlage.svg", "works.svg"):
        assert ET.parse(FOLDER / name).getroot().get("viewBox") == "0 0 128 128"  # noqa: S314 - our own file


def test_the_magic_of_the_type_is_that_of_a_works_file(tmp_path):
    create_works(tmp_path / "a.anlage").close()
    head = (tmp_path / "a.anlage").read_bytes()[:100]
    text = (FOLDER / "anlage.xml").read_text(encoding="utf-8")
    assert f'offset="68" value="0x{head[68:72].hex()}"' in text
    assert head.startswith(b"SQLite format 3")


@pytest.mark.parametrize("name", MADE)
def test_manual_and_completions_are_those_of_the_command_table(name):
    assert (FOLDER / name).read_text(encoding="utf-8") == MADE[name](), "make packaging"


def test_a_wheel_brings_all_of_it(tmp_path):
    command = [sys.executable, "-m", "hatchling", "build", "-t", "wheel", "-d", str(tmp_path)]
    subprocess.run(command, cwd=FOLDER.parent, check=True, capture_output=True)
    (wheel,) = tmp_path.glob("*.whl")
    names = {name.partition("/")[2] for name in zipfile.ZipFile(wheel).namelist()}
    assert {
        "data/share/applications/anlage.desktop", "data/share/mime/packages/anlage.xml",
        "data/share/metainfo/local.anlage.Anlage.metainfo.xml", "data/share/man/man1/anlage.1",
        "data/share/icons/hicolor/scalable/apps/anlage.svg", "data/share/bash-completion/completions/anlage",
        "data/share/zsh/site-functions/_anlage", "data/guide.md", "data/anlage.png",
    } <= names  # fmt: skip


def test_started_from_its_desktop_entry_it_opens_the_works_file_that_is_given(tmp_path):
    works = tmp_path / "from a double click.anlage"
    create_works(works).close()
    words = [word.replace("%f", str(works)) for word in shlex.split(entry()["Exec"])]
    command = [str(Path(sys.executable).with_name(words[0])), *words[1:]]
    environment = os.environ | {"QT_QPA_PLATFORM": "offscreen"}
    with subprocess.Popen(command, env=environment, stderr=subprocess.PIPE, text=True) as window:
        for _ in range(200):
            with open_works(works, read_only=True) as file:
                if file.entries():
                    break
            time.sleep(0.1)
        window.terminate()
        window.wait(timeout=30)
    with open_works(works, read_only=True) as file:
        assert [each.number for each in file.entries()] == ["WPS-001"], "an empty works file gets its first procedure"
    assert read_settings(settings_file()).recent == (str(works),)
