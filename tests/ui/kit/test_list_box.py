"""Lists to choose from: the last entry is whole, and a long choice is cut by dots, never through a letter."""

import pytest
from PySide6.QtWidgets import QApplication

from anlage.ui.kit.fields import MOST_ITEMS, ListBox
from anlage.ui.kit.look import Look
from anlage.ui.kit.reader import Reader


@pytest.fixture
def box(qtbot):
    reader = Reader()
    found = ListBox(reader)
    found.setStyleSheet(Look.of("light").stylesheet())
    found.resize(120, 28)
    qtbot.addWidget(found)
    found.show()
    return found


@pytest.mark.parametrize("count", [2, 8, MOST_ITEMS, 42])
def test_every_entry_of_an_open_list_is_whole(box, count):
    box.addItems([f"entry {n}" for n in range(count)])
    box.showPopup()
    QApplication.processEvents()
    view, rows = box.view(), min(count, MOST_ITEMS)
    assert view.viewport().height() >= rows * view.sizeHintForRow(0)
    last = view.visualRect(box.model().index(rows - 1, 0))
    assert view.viewport().rect().contains(last)
    box.hidePopup()


def test_a_long_choice_ends_in_dots(box):
    def picture():
        QApplication.processEvents()
        return box.grab().toImage()

    box.addItems(["above the upper transformation, then below the lower", "above the upper transformation, then other"])
    long = picture()
    box.setCurrentIndex(1)
    assert picture() == long, "the same beginning, and the same dots"
    box.resize(500, 28)
    wide = picture()
    box.setCurrentIndex(0)
    assert picture() != wide
