"""The strip says what the changes since the last revision ask for, and leads to the two beside each other."""

import pytest
from PySide6.QtCore import QPoint, Qt
from PySide6.QtTest import QTest

from anlage.session.works.issuing import Saying


@pytest.fixture
def issued(demo):
    """Someone at a procedure that was issued as it is."""
    demo.settle()
    demo.desk.issue(demo.document, Saying("A. Maker"))
    demo.settle()
    return demo


def texts(person):
    return [text for _, text in person.desk.strip.parts()]


def test_the_strip_follows_the_changes_since_the_revision(issued, qtbot):
    assert texts(issued) == ["47 inside"]
    issued.document.type_text("range/thickness_mm", "6..40")
    qtbot.waitUntil(lambda: texts(issued)[-1] == "since revision 1: 1 change, 1 needs a new record")
    issued.press("Ctrl+Z")
    qtbot.waitUntil(lambda: texts(issued) == ["47 inside"])


def test_a_click_on_it_shows_the_revision_beside(issued, qtbot):
    issued.document.type_text("technique/cleaning", "grind")
    qtbot.waitUntil(lambda: "since revision 1" in texts(issued)[-1])
    issued.settle()
    strip = issued.desk.strip
    QTest.mouseClick(strip, Qt.MouseButton.LeftButton, pos=QPoint(strip.width() - 10, strip.height() // 2))
    issued.settle()
    assert issued.desk.place == "sheet"
    assert issued.place.beside.currentData() == 1
    assert issued.place.comparison.isVisible()


def test_another_document_has_changes_of_its_own(issued, qtbot):
    issued.document.type_text("technique/cleaning", "grind")
    qtbot.waitUntil(lambda: "since revision 1" in texts(issued)[-1])
    issued.desk.open_document(issued.desk.works.entries()[1].id)
    qtbot.waitUntil(lambda: "since" not in texts(issued)[-1])
