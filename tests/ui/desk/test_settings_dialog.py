"""Settings through the real window: kept at once, shown where they count."""

import os
import subprocess
import sys

import pytest
from PySide6.QtWidgets import QApplication

from anlage.core.drawing import Text
from anlage.session.machine.settings import Settings, read_settings, settings_file, write_settings
from anlage.ui.desk.settings_dialog import SettingsDialog


@pytest.fixture
def dialog(demo):
    demo.press("Ctrl+Comma")
    (found,) = [each for each in QApplication.topLevelWidgets() if isinstance(each, SettingsDialog)]
    return demo, found


def choose(box, value):
    box.setCurrentIndex(box.findData(value))
    box.activated.emit(box.currentIndex())


def test_name_role_and_letterhead_stand_where_they_count(dialog):
    person, settings = dialog
    for name, text in (("author", "A. Author"), ("role", "engineer"), ("letterhead", "Ostrel works, river road 1")):
        settings.fields[name].setText(text)
    settings.accept()
    person.desk.go("sheet")
    person.settle()
    words = [item.text for page in person.place.pages.pages for item in page.items if isinstance(item, Text)]
    assert "Ostrel works, river road 1" in words
    person.place.issue()
    assert person.place.dialog.author.text() == "A. Author, engineer"
    person.place.dialog.issue()
    assert "by A. Author, engineer" in person.place.state.text()
    assert person.desk.settings.author == "A. Author"


def test_units_theme_and_paper_change_at_once_and_are_kept(dialog):
    person, settings = dialog
    choose(settings.fields["units"], "us")
    choose(settings.fields["theme"], "dark")
    choose(settings.fields["paper"], "letter")
    choose(settings.fields["text_percent"], 150)
    assert (person.shell.reader.system, person.shell.reader.look.theme) == ("us", "dark")
    person.shell.close()
    kept = person.kept[-1]
    assert (kept.units, kept.theme, kept.paper, kept.text_percent) == ("us", "dark", "letter", 150)


def test_a_rate_typed_here_stands_at_what_the_weld_takes(dialog):
    person, settings = dialog
    settings.fields["labour_per_h"].setText("62,5")
    assert person.desk.settings.rates == {"labour_per_h": 62.5}
    settings.fields["labour_per_h"].setText("much")
    assert settings.fields["labour_per_h"].property("mark") == "pending"
    assert person.desk.settings.rates == {"labour_per_h": 62.5}, "what is none changes nothing"
    person.desk.go("joint")
    person.place.views.show_view("takes")
    assert person.place.views.view("takes").fields["labour_per_h"].text() == "62.5"
    settings.fields["labour_per_h"].setText("70")
    person.settle()
    assert person.place.views.view("takes").fields["labour_per_h"].text() == "70"


def test_how_long_a_calibration_holds_counts_at_once(dialog):
    person, settings = dialog
    person.desk.go("machine")
    field = settings.fields["calibration_months"]
    assert field.text() == "12"
    field.setText("1")
    assert "out of date since 2026-11-05" in person.place.said[0].text.text()
    for text in ("0", "121", "a year", "12,5", "²", "١"):
        field.setText(text)
        assert field.property("mark") == "pending"
        assert person.desk.settings.calibration_months == 1, "what is none changes nothing"
    field.setText(" 120 ")
    assert person.desk.settings.calibration_months == 120
    assert "in date until 2036-10-05" in person.place.said[0].text.text()


def test_settings_are_written_and_read_whole(tmp_path):
    path = tmp_path / "settings.toml"
    settings = Settings(author='A "B" Ü', role="x", letterhead="1\\2", text_percent=150, rates={"labour_per_h": 60.0})
    write_settings(path, settings)
    assert read_settings(path) == settings
    path.write_text("text_percent = 133\nauthor = 3\n", encoding="utf-8")
    assert read_settings(path) == Settings()


SCALED = """
import sys
from anlage.ui.desk import app
app.open_window = lambda *_: sys.exit(print(app.QApplication.instance().devicePixelRatio()))
app.run(lambda _settings: None)
"""


def test_a_larger_text_scales_the_whole_window_at_the_next_start():
    write_settings(settings_file(), Settings(text_percent=150))
    found = subprocess.run(
        [sys.executable, "-c", SCALED], env=os.environ | {"QT_QPA_PLATFORM": "offscreen"}, capture_output=True,
        text=True, check=False,
    )  # fmt: skip
    assert found.stdout.strip() == "1.5", found.stderr
