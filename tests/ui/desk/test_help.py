"""F1: the guide at the page of the place in front, inside the window, and every shortcut."""

import re

import pytest

from anlage.data.guide import guide_pages
from anlage.ui.desk.help_dialog import BY_HAND, HelpDialog
from anlage.ui.places import place_specs
from tools.packaging import FOLDER


def shown(person):
    (dialog,) = [each for each in person.shell.findChildren(HelpDialog) if each.isVisible()]
    return dialog


@pytest.mark.parametrize("spec", place_specs(), ids=lambda spec: spec.id)
def test_f1_opens_the_page_of_the_place_in_front(demo, spec):
    demo.desk.go(spec.id)
    demo.press("F1")
    dialog = shown(demo)
    assert dialog.list.currentItem().text() == spec.word
    text = dialog.page.toPlainText()
    assert spec.question.split(",")[0].rstrip("?") in text
    assert all(each.keys in text for each in spec.commands if each.keys)
    dialog.close()


def test_every_shortcut_is_listed_and_found(demo):
    demo.press("Shift+F1")
    dialog = shown(demo)
    text = dialog.page.toPlainText()
    wanted = {action.shortcut().toString() for action in demo.shell.commands} | {keys for _, keys in BY_HAND}
    assert all(keys in text for keys in wanted)
    dialog.search.setText("stopwatch")
    assert [dialog.list.item(n).text() for n in range(dialog.list.count())] == ["Passes", "Shortcuts"]
    assert "F8" in dialog.page.toPlainText()
    dialog.search.setText("no such words at all")
    assert dialog.page.toPlainText() == "Nothing here has all of these words."


def test_there_is_one_and_it_goes_with_the_window(demo):
    demo.press("F1")
    first = shown(demo)
    demo.desk.go("passes")
    demo.desk.run("help")
    assert shown(demo) is first
    assert first.list.currentItem().text() == "Passes"
    demo.shell.close()
    assert not first.isVisible()


def test_the_window_stays_usable_beside_it(demo):
    demo.press("F1")
    assert not shown(demo).isModal()
    assert shown(demo).height() < demo.shell.height()


def test_the_guide_names_only_commands_and_pictures_that_are_there(demo):
    keys = {action.shortcut().toString() for action in demo.shell.commands}
    typed = {"Tab", "Enter", "Escape", "Ctrl+C", "Ctrl+V", "Ctrl+Z"}
    text = (FOLDER.parent / "docs" / "guide.md").read_text(encoding="utf-8")
    named = set(re.findall(r"`((?:Ctrl|Alt|Shift|F\d)[^`]*)`", text))
    assert {each.replace("Enter", "Return") if "+" in each else each for each in named} - typed <= keys
    for picture in re.findall(r"\(screenshots/([^)]*)\)", text):
        assert (FOLDER.parent / "docs" / "screenshots" / picture).exists(), picture
    assert {spec.word for spec in place_specs()} <= guide_pages().keys()
