"""What hangs on a record: told before it fails, by the procedures that would not be inside any more."""

import pytest
from PySide6.QtWidgets import QDialog, QLabel

from anlage.session.works.hanging import hanging_on, hanging_sentences
from anlage.session.works.issuing import Saying
from anlage.ui.kit.dialog import Question


def own_of(person, number):
    return next(entry.id for entry in person.desk.works.all_entries() if entry.number == number)


def hanging(person, number):
    return [each.name for each in hanging_on(person.desk.works, own_of(person, number), "si")]


def test_only_what_is_inside_by_it_hangs_on_it(demo):
    assert "OST-W-01" in hanging(demo, "OST-R-01")
    assert "OST-W-04" not in hanging(demo, "OST-R-03"), "it is not inside as it is"


def test_an_issued_revision_hangs_on_it_whatever_the_draft_says_since(demo):
    demo.settle()
    demo.desk.issue(demo.document, Saying("A. Maker"))
    assert [name for name in hanging(demo, "OST-R-01") if name.startswith("OST-W-01")] == ["OST-W-01 revision 1"]
    demo.document.type_text("range/thickness_mm", "6..90")
    assert [name for name in hanging(demo, "OST-R-01") if name.startswith("OST-W-01")] == ["OST-W-01 revision 1"]


def test_a_record_on_which_nothing_hangs_says_so():
    assert hanging_sentences((), "OST-R-09") == (
        "No procedure is inside by OST-R-09 alone: if it proved nothing, all would stand as they do.",
    )


def test_the_window_tells_it_for_the_record_in_front_alone(demo):
    assert not demo.desk.actions["hanging"].isEnabled()
    demo.press("Alt+O")
    demo.settle()
    demo.press("Ctrl+Shift+H")
    (dialog,) = [each for each in demo.shell.findChildren(QDialog) if isinstance(each, Question)]
    number = demo.document.value.header.number
    assert dialog.windowTitle() == f"What hangs on {number}"
    assert "OST-W-01 would not be inside: " in dialog.findChild(QLabel, "hanging").text()
    demo.press("Return")
    demo.settle()
    assert demo.desk.in_front() == own_of(demo, number)


@pytest.mark.parametrize("number", ["OST-R-01", "OST-R-02", "OST-R-03"])
def test_asking_changes_nothing(demo, number):
    before = demo.desk.works.stamps()
    hanging(demo, number)
    assert demo.desk.works.stamps() == before
